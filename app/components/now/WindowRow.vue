<script setup lang="ts">
import type { PlainKey } from '~/utils/words'

/** A wait as a bar, how long it has, and what may be done about it. */
const props = defineProps<{ line: WindowLine; drawn: readonly [number, number]; may: StepLine | null }>()
const emit = defineEmits<{ piece: [id: number] }>()
const bench = inject(BENCH)!
const clock = useClock()
const { time, day, span } = useFormat()
const HOUR = 3_600_000
const SOON = 30 * 60_000
const left = computed((): { word: PlainKey; value: string; colour: string } => {
  const { now } = clock
  const { opens_ms, closes_ms, safe_ms, start_ms } = props.line
  if (opens_ms === null) return { word: 'now.runs', value: span(now - start_ms), colour: 'text-slate' }
  if (closes_ms !== null && now > closes_ms)
    return { word: 'now.closed', value: time(closes_ms), colour: 'text-madder' }
  if (now < opens_ms) {
    const soon = closes_ms !== null && closes_ms - now < SOON
    const value = opens_ms - now > 18 * HOUR ? day(opens_ms) : span(opens_ms - now)
    return {
      word: opens_ms - now > 18 * HOUR ? 'now.opens' : 'now.opensIn',
      value,
      colour: soon ? 'text-ochre' : '',
    }
  }
  if (closes_ms !== null)
    return {
      word: 'now.closesIn',
      value: span(closes_ms - now),
      colour: closes_ms - now < SOON ? 'text-ochre' : 'text-verdigris',
    }
  const unsafe = safe_ms !== null && now < safe_ms
  return {
    word: unsafe ? 'now.tryIt' : 'now.open',
    value: unsafe ? time(safe_ms) : span(now - opens_ms),
    colour: 'text-verdigris',
  }
})
const section = computed(() =>
  props.line.section
    ? w('now.section', { no: props.line.section, of: props.line.step.sections?.count ?? props.line.section })
    : null,
)
const running = computed(() => bench.value?.running.find(r => r.stepId === props.line.step.stepId) ?? null)
</script>

<template>
  <div class="window-row" data-test="window">
    <StepTitle :step="line.step" :also="section" @piece="emit('piece', $event)" />
    <WindowBar
      class="@max-xl:order-3 @max-xl:col-span-2"
      :window="line"
      :span="drawn"
      :now="clock.now"
      :closing="bench!.closing_ms"
      :label="`${line.step.title}: ${w(left.word)} ${left.value}`"
    />
    <span class="text-right leading-tight"
      ><span class="caption block">{{ w(left.word) }}</span
      ><strong class="text-xl clock" :class="left.colour">{{ left.value }}</strong></span
    >
    <span class="justify-self-end @max-xl:col-span-2" :class="running?.sections ? 'col-span-full' : ''">
      <BenchAct v-if="running" :step="running" state="running" />
      <BenchAct v-else-if="may" :step="may" state="planned" :may="may.inside" :outside="may.outside" waits />
      <BenchAct v-else :step="line.step" state="planned" waits />
    </span>
    <p v-if="line.late" class="verdict verdict-stop col-span-full" data-test="late">{{ line.late }}</p>
  </div>
</template>
