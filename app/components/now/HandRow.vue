<script setup lang="ts">
import { inHand, worked_min } from '#core/timetable/spells'

/** A step that runs: who has it in hand, how long it was worked on, and what became of it over night. */
const props = defineProps<{ line: RunningLine }>()
const emit = defineEmits<{ piece: [id: number] }>()
const clock = useClock()
const session = useSession()
const { time, dayTime, hours } = useFormat()
const held = computed(() => inHand(props.line.spells))
const also = computed(() => {
  const { line } = props
  const since = time(Math.min(...held.value.map(s => s.from_ms), clock.now))
  const who = held.value.length
    ? `${held.value.map(s => s.by).join(', ')}, ${w('now.fromTime', { at: since })}`
    : w('now.aside', { at: time(Math.max(line.started_ms, ...line.spells.map(s => s.to_ms ?? 0))) })
  return line.outside ? `${who} · ${w('now.outside')}` : who
})
const asking = ref(false)
const left = computed(() => (clock.now - (props.line.left_ms ?? 0)) / 60_000)
const bare = computed(() => {
  const { product, gate, passTest, seen } = props.line
  return !product && !gate && !passTest && !seen.length
})
const ended = () => (bare.value ? actAtBench('finish', props.line, left.value) : (asking.value = true))
</script>

<template>
  <div class="row !py-1.5" data-test="running">
    <div class="flex flex-wrap items-center justify-end gap-x-3 gap-y-1">
      <StepTitle class="grow basis-44" :step="line" :also="also" @piece="emit('piece', $event)" />
      <span class="clock text-lg whitespace-nowrap"
        >{{ hours(worked_min(line.spells, clock.now))
        }}<span class="caption block text-right">/ {{ hours(line.attended_min) }}</span></span
      >
      <BenchAct :step="line" state="running" />
    </div>
    <p v-if="line.sections?.next" data-test="section-clock">
      {{
        w('now.sectionOff', {
          no: line.sections.next.no,
          from: time(line.sections.next.opens_ms),
          to: time(line.sections.next.closes_ms),
        })
      }}
    </p>
    <div v-if="line.left_ms !== null" class="verdict verdict-warn mt-1" data-test="left">
      {{ w('now.left', { at: dayTime(line.left_ms) }) }}
      <span v-if="session.may('work')" class="flex flex-wrap gap-3 mt-2">
        <button class="act" @click="actAtBench('pause', line, left)">{{ w('now.leftAside') }}</button>
        <button class="act act-quiet" @click="ended">{{ w('now.leftDone') }}</button>
      </span>
    </div>
    <LazyFinishDialog v-if="asking" :step="line" :ago="left" @close="asking = false" />
  </div>
</template>
