<script setup lang="ts">
import { worked_min } from '#core/timetable/spells'

/** Clocks that are read from across the room: one, or the four that close first. */
const props = defineProps<{ lines: readonly WindowLine[]; running: readonly RunningLine[] }>()
const emit = defineEmits<{ close: [] }>()
const clock = useClock()
const { hours } = useFormat()
const chosen = ref<number | null>(null)
const MOST = 4
interface Big {
  stepId: number
  title: string
  of: string
  word: string
  ms: number
  colour: string
}
const windows = computed(() =>
  props.lines.flatMap((l): Big[] => {
    const { opens_ms, closes_ms, step } = l
    const opens = opens_ms !== null && clock.now < opens_ms
    const end = opens ? opens_ms : closes_ms
    if (end === null) return []
    const left = end - clock.now
    const colour = closes_ms !== null && closes_ms - clock.now < 10 * 60_000 ? 'text-madder' : 'text-verdigris'
    const ends = left < 0 ? w('now.past') : w('now.closesIn')
    const word = opens ? w('now.opensIn') : ends
    return [{ stepId: step.stepId, title: step.title, of: l.piece, word, ms: left, colour: opens ? '' : colour }]
  }),
)
const inHand = computed(() =>
  props.running.map((r): Big => ({
    stepId: r.stepId,
    title: r.title,
    of: r.piece,
    word: w('now.ofPlanned', { planned: hours(r.attended_min) }),
    ms: worked_min(r.spells, clock.now) * 60_000,
    colour: 'text-slate',
  })),
)
const shown = computed(() => {
  const listed = new Set(windows.value.map(l => l.stepId))
  const all = [...windows.value, ...inHand.value.filter(l => !listed.has(l.stepId))]
  return chosen.value === null ? all.slice(0, MOST) : all.filter(l => l.stepId === chosen.value)
})
/** 12:05 under an hour, 3:12 h above; past its end it counts up. */
function digits(ms: number) {
  const s = Math.floor(Math.abs(ms) / 1000)
  const two = (n: number) => String(n).padStart(2, '0')
  const text =
    s < 3600 ? `${Math.floor(s / 60)}:${two(s % 60)}` : `${Math.floor(s / 3600)} h ${two(Math.floor(s / 60) % 60)}`
  return ms < 0 ? `−${text}` : text
}
onKeyStroke('Escape', () => emit('close'))
</script>

<template>
  <div data-test="big-clock">
    <div class="flex items-center gap-4 mb-1">
      <h2 class="grow">{{ w('now.windows') }}</h2>
      <button v-if="chosen !== null" class="chip" @click="chosen = null">{{ w('now.allClocks') }}</button>
      <button class="act act-quiet" @click="emit('close')">{{ w('close') }}</button>
    </div>
    <p v-if="!shown.length" class="text-3xl mt-8">{{ w('now.noWindow') }}</p>
    <button
      v-for="l in shown"
      :key="l.stepId"
      class="block w-full text-left border-t border-line py-2"
      @click="chosen = chosen === l.stepId ? null : l.stepId"
    >
      <span class="block text-2xl font-semibold">{{ l.title }} · {{ l.of }}</span>
      <span class="flex items-baseline gap-6">
        <strong
          class="clock leading-none"
          :class="[l.colour, shown.length === 1 ? 'text-[min(30vw,45vh)]' : 'text-[min(14vw,11vh)]']"
          >{{ digits(l.ms) }}</strong
        >
        <span class="text-2xl">{{ l.word }}</span>
      </span>
    </button>
  </div>
</template>
