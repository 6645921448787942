<script setup lang="ts">
/** Which faces are judged: the piece, those that go their own way, or some that are chosen here. */
const props = defineProps<{ routes: RoutesPage; some: number[] | null; can: boolean }>()
const emit = defineEmits<{ look: [faces: readonly number[] | null]; oneWay: [] }>()
const choosing = ref<number[] | null>(null)
const nameOf = (faces: readonly number[]) =>
  props.routes.faces
    .filter(f => faces.includes(f.id))
    .map(f => `${f.part}, ${f.name}`)
    .join(' · ')
function judge(faces: number[]) {
  choosing.value = null
  emit('look', faces)
}
</script>

<template>
  <div class="flex flex-wrap gap-2 mb-4" data-test="ways">
    <button
      class="act act-quiet"
      :class="some ? '' : 'border-verdigris! border-2'"
      :aria-pressed="!some"
      @click="emit('look', null)"
    >
      {{ w(routes.own.length ? 'route.rest' : 'route.wholePiece') }}: {{ w(`route.${routes.main!}`) }}
    </button>
    <button
      v-for="way in routes.own"
      :key="way.faces.join()"
      class="act act-quiet"
      :class="some?.join() === way.faces.join() ? 'border-verdigris! border-2' : ''"
      :aria-pressed="some?.join() === way.faces.join()"
      @click="emit('look', way.faces)"
    >
      {{ nameOf(way.faces) }}: {{ w(`route.${way.route}`) }}
    </button>
    <template v-if="can">
      <button class="act act-quiet" :aria-expanded="choosing !== null" @click="choosing = choosing ? null : []">
        {{ w('route.someFaces') }}
      </button>
      <button v-if="routes.own.length" class="act act-quiet" @click="emit('oneWay')">{{ w('route.oneWay') }}</button>
    </template>
    <div v-if="choosing" class="w-full grid gap-2">
      <p>{{ w('route.whichFaces') }}</p>
      <FaceChoice
        v-model="choosing"
        :faces="routes.faces.map(f => ({ id: f.id, name: `${f.part}, ${f.name}` }))"
        :label="w('route.whichFaces')"
      />
      <button
        class="act justify-self-start"
        :disabled="choosing.length === 0 || choosing.length === routes.faces.length"
        @click="judge(choosing)"
      >
        {{ w('route.judgeThese') }}
      </button>
    </div>
    <p v-if="some" class="w-full text-ochre font-semibold">{{ w('route.aloneFor', { faces: nameOf(some) }) }}</p>
  </div>
</template>
