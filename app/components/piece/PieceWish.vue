<script setup lang="ts">
import { PERIODS, USES } from '#core/piece'
import type { PiecePage } from '~/composables/bench'

/** What the client wants and what is known of the piece, changed after it was taken in. */
const props = defineProps<{ piece: PiecePage['piece'] }>()
const emit = defineEmits<{ changed: [] }>()
const fresh = () => ({
  name: props.piece.name,
  use: props.piece.use_kind,
  tone: props.piece.tone,
  sheen: props.piece.sheen,
  period: props.piece.period,
  refinished: props.piece.refinished,
  dueOn: props.piece.due_on,
  keepPatina: Boolean(props.piece.keep_patina),
  rustic: Boolean(props.piece.rustic),
  goesFirst: Boolean(props.piece.goes_first),
})
const form = ref(fresh())
watch(
  () => props.piece.row_version,
  () => {
    form.value = fresh()
  },
)
const lists = {
  use: USES,
  tone: ['lighter', 'same', 'darker', 'match'],
  sheen: ['matt', 'satin', 'semi-gloss', 'gloss'],
  period: [...PERIODS, 'unknown'],
  refinished: ['yes', 'no', 'unknown'],
} as const
async function save() {
  if (
    await send('PATCH /api/pieces/:id', {
      id: props.piece.id,
      body: {
        rowVersion: props.piece.row_version,
        ...form.value,
        dueOn: form.value.dueOn || null,
      },
    })
  )
    emit('changed')
}
</script>

<template>
  <form class="grid grid-cols-2 gap-3 pb-3" @submit.prevent="save">
    <TextField v-model="form.name" :label="w('intake.name')" class="col-span-2" />
    <ChoiceField
      v-for="(list, key) in lists"
      :key="key"
      v-model="form[key]"
      :label="w(`intake.${key}`)"
      :options="optionsOf(list, v => w(wordOf(key, v)))"
    />
    <DateField v-model="form.dueOn" :label="w('intake.due')" />
    <DueWarning v-if="form.dueOn !== piece.due_on" :due="form.dueOn" class="col-span-2" />
    <SwitchField v-model="form.keepPatina" :label="w('intake.patina')" />
    <SwitchField v-model="form.rustic" :label="w('intake.rustic')" />
    <SwitchField v-model="form.goesFirst" :label="w('intake.goesFirst')" />
    <button class="act">{{ w('save') }}</button>
    <p class="caption col-span-2">{{ w('examine.changeWhy') }}</p>
  </form>
</template>
