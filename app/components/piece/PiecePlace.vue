<script setup lang="ts">
import { PLACE_KINDS, type PlaceKind } from '#core/parts'

/** Where a piece stands in the shop, and moving it. */
const props = defineProps<{ piece: { id: number; place: string | null } }>()
const emit = defineEmits<{ moved: [] }>()
const open = ref(false)
const places = ref<AnswerOf<'GET /api/places'>>([])
const code = ref('')
const kind = ref<PlaceKind>('bay')
async function ask() {
  code.value = ''
  places.value = (await call('GET /api/places')).filter(
    p => p.kind === 'bay' || p.kind === 'rack' || p.kind === 'shelf',
  )
  open.value = true
}
async function move(place: { code: string; kind: PlaceKind } | null) {
  if (!(await send('PUT /api/pieces/:id/place', { id: props.piece.id, body: { place } }))) return
  open.value = false
  emit('moved')
}
</script>

<template>
  <span>
    <button class="underline min-h-11" data-test="place" @click="ask">
      {{ piece.place ? w('piece.standsAt', { place: piece.place }) : w('piece.standsWhere') }}
    </button>
    <DialogBox v-if="open" :title="w('piece.standsWhere')" @close="open = false">
      <div class="flex flex-wrap gap-2 mt-4">
        <button
          v-for="p in places"
          :key="p.code"
          class="chip"
          :aria-pressed="p.code === piece.place"
          @click="move({ code: p.code, kind: p.kind })"
        >
          {{ p.code }}
        </button>
      </div>
      <form class="flex flex-wrap gap-3 items-end mt-4" @submit.prevent="move({ code, kind })">
        <TextField v-model="code" class="grow" :label="w('piece.placeCode')" />
        <ChoiceField
          v-model="kind"
          class="w-36"
          :label="w('piece.placeKind')"
          :options="optionsOf(PLACE_KINDS, k => w(`place.${k}`))"
        />
        <button class="act" :disabled="!code.trim()">{{ w('piece.place') }}</button>
      </form>
      <div class="flex gap-3 mt-4">
        <button v-if="piece.place" class="act act-quiet" @click="move(null)">{{ w('piece.nowhere') }}</button>
        <button class="act act-quiet" @click="open = false">{{ w('cancel') }}</button>
      </div>
    </DialogBox>
  </span>
</template>
