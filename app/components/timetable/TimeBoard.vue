<script setup lang="ts">
import { type DayColumn, rowsOf, xOf } from '#core/timetable/axis'

/** The schedule drawn: a line for each person, room or piece, days beside each other. */
const props = defineProps<{
  lanes: readonly Lane[]
  columns: readonly DayColumn[]
  now: number
  pieces: boolean
  mayMove: boolean
}>()
const emit = defineEmits<{ pick: [bar: Bar]; move: [bar: Bar, to: Target]; day: [day: string] }>()
const { moved, down, key, wasDragged, back } = useBarMove(
  () => props.columns,
  () => props.lanes.length,
  (bar, to) => emit('move', bar, to),
  () => props.mayMove,
)
defineExpose({ back })
const { at } = useMoment()
const { time } = useFormat()
const ROW_PX = 48
const percent = (x: number) => `${(x * 100).toFixed(3)}%`
const x = (ms: number) => xOf(props.columns, ms)
const span = (from: number, to: number) => ({ left: percent(x(from)), width: percent(Math.max(0, x(to) - x(from))) })
/** Bars in these days, in rows where two lie over each other. */
const shown = computed(() => {
  const [from, to] = [props.columns[0]?.from_ms ?? 0, props.columns.at(-1)?.to_ms ?? 0]
  const endOf = (b: Bar) => Math.max(b.end_ms, props.pieces ? b.dry_ms : 0)
  return props.lanes.map(lane => {
    const bars = lane.bars.filter(b => b.start_ms < to && endOf(b) > from)
    const rows = rowsOf(bars.map(b => ({ start: b.start_ms, end: endOf(b) })))
    return { ...lane, bars, rows, height: Math.max(1, ...rows.map(r => r + 1)) * ROW_PX }
  })
})
const widthOf = (b: Bar) => x(b.end_ms) - x(b.start_ms)
/** Words stand in a bar that is wide enough for a few letters. */
const LEAST_SAID = 0.045
const LEAST_NUMBER = 0.017
const lengthOf = (b: Bar) => b.parts.reduce((sum, [from, to]) => sum + (to - from), 0)
const clockOf = (b: Bar) => `${time(b.start_ms)}–${time(b.end_ms)}`
const saidOf = (b: Bar) => (props.pieces ? clockOf(b) : `${b.pieceId} · ${clockOf(b)}`)
const kind = (b: Bar) => {
  if (b.ifYes) return 'bar-if'
  return b.state === 'running' ? 'bar-hand' : 'bar-work'
}
const SWATCH = {
  ...{ work: 'bar bar-work', inHand: 'bar bar-hand', pinned: 'bar bar-work bar-pinned' },
  ...{
    dries: 'dries',
    ifYes: 'bar bar-if',
    closes: 'border-l-4 border-ochre !w-1',
    air: 'air-warn',
    noAir: 'air-stop',
  },
} as const
/** By person and room nothing is drawn that takes nobody's time. */
const LEGEND = computed(() => {
  const air = new Set(props.lanes.flatMap(l => l.air.map(a => (a.severity === 'warn' ? 'air' : 'noAir'))))
  const more = props.pieces ? (['dries', 'closes', 'ifYes'] as const) : []
  return [...(['work', 'inHand', 'pinned'] as const), ...more, ...(['air', 'noAir'] as const).filter(a => air.has(a))]
})
/** The end of a window, where it is not the end of its day. */
const closing = (b: Bar) => (b.closes_ms !== null && x(b.closes_ms) > 0 && x(b.closes_ms) < 1 ? x(b.closes_ms) : null)
/** Hours of a day that are drawn when there is room for them. */
const ticks = computed(() => {
  const [only] = props.columns
  if (props.columns.length > 1 || !only) return []
  const hours: number[] = []
  for (let ms = Math.ceil(only.from_ms / 3_600_000) * 3_600_000; ms < only.to_ms; ms += 3_600_000) hours.push(ms)
  return hours
})
</script>

<template>
  <div class="min-w-[60rem]" data-test="board">
    <div class="relative ml-44" :class="ticks.length ? 'h-16' : 'h-11'">
      <button
        v-for="c in columns"
        :key="c.day"
        class="absolute top-0 h-11 px-1 truncate border-l border-line text-left"
        :class="c.open.length ? '' : 'text-soft'"
        :style="{ left: percent(c.left), width: percent(c.width) }"
        :aria-label="at(c.day).toFormat('cccc d LLLL')"
        @click="emit('day', c.day)"
      >
        {{ c.open.length || columns.length === 1 ? at(c.day).toFormat('ccc d LLL') : at(c.day).toFormat('ccccc') }}
      </button>
      <p v-for="ms in ticks" :key="ms" class="caption absolute bottom-0" :style="{ left: percent(x(ms)) }">
        {{ time(ms) }}
      </p>
    </div>
    <div
      v-for="(lane, laneNo) in shown"
      :key="lane.id ?? 0"
      class="flex border-t border-line"
      data-test="lane"
      data-lane
    >
      <div class="w-44 shrink-0 pr-3 py-2">
        <strong class="block leading-snug">{{ lane.name }}</strong><span
          class="caption"
          :class="lane.warns ? 'text-madder font-semibold' : ''"
          >{{ lane.says }}</span
        >
      </div>
      <div class="relative grow" :style="{ minHeight: `${lane.height}px` }">
        <div
          v-for="c in columns"
          :key="c.day"
          class="absolute inset-y-0 border-l border-line"
          :class="c.open.length ? '' : 'shut'"
          :style="{ left: percent(c.left), width: percent(c.width) }"
          aria-hidden="true"
        />
        <template v-for="c in columns" :key="`${c.day} breaks`">
          <div
            v-for="(o, i) in c.open.slice(1)"
            :key="o[0]"
            class="shut absolute inset-y-0"
            :style="span(c.open[i]![1], o[0])"
            aria-hidden="true"
          />
        </template>
        <div
          v-for="a in lane.air"
          :key="`air ${a.from_ms}`"
          class="absolute inset-y-0"
          :class="a.severity === 'warn' ? 'air-warn' : 'air-stop'"
          :style="span(a.from_ms, a.to_ms)"
          aria-hidden="true"
        />
        <template v-for="(b, i) in lane.bars" :key="b.task">
          <div
            v-if="pieces && closing(b) !== null"
            class="absolute h-11 border-l-4 border-ochre"
            :style="{ left: percent(closing(b)!), top: `${lane.rows[i]! * ROW_PX + 2}px` }"
            aria-hidden="true"
          />
          <div
            v-if="pieces && b.dry_ms > b.end_ms"
            class="dries absolute h-6"
            :style="{ ...span(b.end_ms, b.dry_ms), top: `${lane.rows[i]! * ROW_PX + 12}px` }"
            aria-hidden="true"
          />
          <button
            class="bar absolute h-11 text-left overflow-hidden leading-tight px-1"
            :class="[kind(b), b.pinned ? 'bar-pinned' : '']"
            :style="{
              left: percent(x(b.start_ms)),
              width: percent(widthOf(b)),
              top: `${lane.rows[i]! * ROW_PX + 2}px`,
            }"
            :aria-label="`${clockOf(b)} ${b.titles.join(' + ')}, ${b.pieceId}`"
            data-test="bar"
            @click="wasDragged() || emit('pick', b)"
            @pointerdown="down($event, b, laneNo)"
            @keydown="key($event, b, laneNo)"
          >
            <template v-if="widthOf(b) > LEAST_SAID">
              <span class="block text-sm truncate">{{ b.titles[0] }}</span>
              <span class="block text-xs clock truncate">{{ saidOf(b) }}</span>
            </template>
            <span v-else-if="!pieces && widthOf(b) > LEAST_NUMBER" class="block text-sm clock">{{ b.pieceId }}</span>
          </button>
        </template>
        <div
          v-if="moved && moved.to.lane === laneNo"
          class="ghost absolute h-11 top-0.5 px-1 clock text-sm pointer-events-none"
          :style="span(moved.to.start_ms, moved.to.start_ms + lengthOf(moved.bar))"
          role="status"
        >
          {{ time(moved.to.start_ms) }}
        </div>
        <div
          v-if="lane.post_ms !== null && x(lane.post_ms) > 0 && x(lane.post_ms) < 1"
          class="absolute inset-y-0 border-l-4"
          :class="lane.warns ? 'border-madder' : 'border-slate'"
          :style="{ left: percent(x(lane.post_ms)) }"
          aria-hidden="true"
        />
        <div class="absolute inset-y-0 border-l-2 border-ink" :style="{ left: percent(x(now)) }" aria-hidden="true" />
      </div>
    </div>
    <p class="flex flex-wrap gap-x-6 gap-y-2 mt-3 caption">
      <span v-if="mayMove && !pieces" class="w-full print:hidden">{{ w('timetable.howToMove') }}</span>
      <span v-for="l in LEGEND" :key="l" class="flex items-center gap-2"
        ><span class="inline-block w-6 h-4" :class="SWATCH[l]" aria-hidden="true" />{{
          w(`timetable.legend.${l}`)
        }}</span
      >
    </p>
  </div>
</template>

<style scoped>
.air-warn {
  background: var(--color-ochre-wash);
}
.air-stop {
  background: var(--color-madder-wash);
}
.shut {
  background: repeating-linear-gradient(135deg, var(--color-line) 0 2px, transparent 2px 8px);
}
.dries {
  background: radial-gradient(circle, var(--color-slate) 1px, transparent 1.4px) 0 0 / 6px 6px;
  border: 1px solid var(--color-slate);
}
.bar {
  border: 1px solid var(--color-sheet);
}
.bar-work {
  background: var(--color-verdigris);
  color: var(--color-sheet);
}
.bar-hand {
  background: var(--color-slate);
  color: var(--color-sheet);
}
.bar-if {
  border: 1.5px dashed var(--color-verdigris);
  background: var(--color-sheet);
}
.ghost {
  border: 2px solid var(--color-ochre);
  background: var(--color-sheet);
  min-width: 3.5rem;
}
.bar-pinned {
  border-left: 6px solid var(--color-ochre);
}
</style>
