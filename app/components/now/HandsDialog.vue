<script setup lang="ts">
import type { Spell } from '#core/timetable'
import type { ActTarget } from '~/composables/bench'

/** Who has a step in hand: handed on to somebody, or worked in two. */
const props = defineProps<{ step: ActTarget; held: readonly Spell[] }>()
const emit = defineEmits<{ close: [] }>()
const bench = inject(BENCH)!
const busy = ref(false)
const has = (id: number) => props.held.some(s => s.personId === id)
const others = computed(() => (bench.value?.people ?? []).filter(p => !has(p.id)))
async function go(kind: 'hand-on' | 'go-on', personId: number) {
  busy.value = true
  if (await actAtBench(kind, props.step, 0, { personId })) emit('close')
  busy.value = false
}
</script>

<template>
  <DialogBox :title="step.title" @close="emit('close')">
    <p class="mt-2">
      {{ held.length ? w('bench.inHandOf', { names: held.map(s => s.by).join(', ') }) : w('bench.inNoHand') }}
    </p>
    <ul class="mt-4">
      <li v-for="p in others" :key="p.id" class="row flex flex-wrap items-center gap-3">
        <strong class="grow">{{ p.name }}</strong>
        <button class="act" :disabled="busy" @click="go(held.length ? 'hand-on' : 'go-on', p.id)">
          {{ w(held.length ? 'bench.takesOver' : 'bench.goesOn') }}
        </button>
        <button v-if="held.length" class="act act-quiet" :disabled="busy" @click="go('go-on', p.id)">
          {{ w('bench.helps') }}
        </button>
      </li>
    </ul>
    <p v-if="!others.length" class="row">{{ w('bench.nobodyElse') }}</p>
    <button class="act act-quiet mt-4" @click="emit('close')">{{ w('cancel') }}</button>
  </DialogBox>
</template>
