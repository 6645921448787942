<script setup lang="ts">
import { DRY_SAYS, DRY_TRIES, type DryTry } from '#core/drying'
import type { ActTarget } from '~/composables/bench'

/** Is it dry? By what it was tried, and what it said. */
const props = defineProps<{ step: ActTarget }>()
const emit = defineEmits<{ close: [] }>()
const busy = ref(false)
/** The next look, where another is wished than the one that would be proposed. */
const until = ref<number | null>(null)
const chooses = ref(false)
const clock = useClock()
function choose() {
  chooses.value = true
  until.value = Math.ceil((clock.now + 3_600_000) / 60_000) * 60_000
}
async function say(kind: 'dry' | 'not-dry', by: DryTry | null) {
  busy.value = true
  if (
    await actAtBench(kind, props.step, 0, {
      by,
      ...(kind === 'not-dry' && until.value !== null ? { until: new Date(until.value).toISOString() } : {}),
    })
  )
    emit('close')
  busy.value = false
}
</script>

<template>
  <DialogBox :title="w('bench.dryAsks', { title: step.title })" @close="emit('close')">
    <ul class="mt-2">
      <li v-for="by in DRY_TRIES" :key="by" class="row">
        <strong>{{ DRY_SAYS[by].by }}</strong>
        <span class="grid grid-cols-2 gap-3 mt-1">
          <button class="act act-quiet" :disabled="busy" data-test="not-dry" @click="say('not-dry', by)">
            {{ w('bench.not', { says: DRY_SAYS[by].not }) }}
          </button>
          <button class="act" :disabled="busy" data-test="dry" @click="say('dry', by)">
            {{ w('bench.dry', { says: DRY_SAYS[by].dry }) }}
          </button>
        </span>
      </li>
    </ul>
    <div class="mt-3">
      <MomentField v-if="chooses" v-model="until" class="w-80" :label="w('bench.nextLook')" />
      <button v-else class="underline min-h-11" @click="choose">{{ w('bench.chooseLook') }}</button>
    </div>
    <div class="flex flex-wrap gap-3 mt-4">
      <button class="act act-quiet" :disabled="busy" @click="say('not-dry', null)">{{ w('bench.notDry') }}</button>
      <button class="act act-quiet" @click="emit('close')">{{ w('cancel') }}</button>
    </div>
  </DialogBox>
</template>
