<script setup lang="ts">
import type { Window } from '#core/timetable'
import { barEdges, CLOSING_MIN } from '#core/timetable/windowBar'

/** A wait drawn as it is: stippled while it must wait, solid while it may be done, a hard edge where it must be. */
const props = defineProps<{
  window: Window
  span: readonly [number, number]
  now: number
  closing: number | null
  label: string
}>()
const W = 560
const H = 40
const id = useId()
const edges = computed(() => barEdges(props.window, props.span, props.now))
const x = (f: number) => f * W
const end = computed(() => edges.value.closes ?? 1)
const closingX = computed(() =>
  props.closing === null
    ? null
    : Math.min(1, Math.max(0, (props.closing - props.span[0]) / (props.span[1] - props.span[0]))) * W,
)
const soon = computed(
  () => props.window.closes_ms !== null && props.window.closes_ms - props.now < CLOSING_MIN * 60_000,
)
const solid = computed(
  () =>
    ({
      late: 'var(--color-madder)',
      closing: 'var(--color-ochre)',
      may: 'var(--color-verdigris)',
      waits: soon.value ? 'var(--color-ochre)' : 'var(--color-verdigris)',
      running: 'var(--color-slate)',
    })[edges.value.phase],
)
</script>

<template>
  <svg
    :viewBox="`0 0 ${W} ${H}`"
    class="w-full h-10 block"
    preserveAspectRatio="none"
    role="img"
    :aria-label="label"
    :data-phase="edges.phase"
    :data-start="edges.start"
    :data-opens="edges.opens"
    :data-closes="edges.closes"
    data-test="window-bar"
  >
    <defs>
      <pattern :id="`${id}-dots`" width="6" height="6" patternUnits="userSpaceOnUse">
        <circle cx="1.5" cy="1.5" r="1.1" fill="var(--color-slate)" />
        <circle cx="4.5" cy="4.5" r="1.1" fill="var(--color-slate)" />
      </pattern>
      <pattern :id="`${id}-closed`" width="8" height="8" patternUnits="userSpaceOnUse" patternTransform="rotate(45)">
        <rect width="2" height="8" fill="var(--color-line)" />
      </pattern>
    </defs>
    <rect v-if="closingX !== null" :x="closingX" y="0" :width="W - closingX" :height="H" :fill="`url(#${id}-closed)`" />
    <rect
      class="waits"
      :x="x(edges.start)"
      y="9"
      :width="Math.max(0, x(edges.opens ?? edges.now) - x(edges.start))"
      height="22"
      :fill="`url(#${id}-dots)`"
      stroke="var(--color-slate)"
      stroke-width="1"
    />
    <rect
      v-if="edges.opens !== null"
      class="may"
      :x="x(edges.opens)"
      y="9"
      :width="Math.max(0, x(end) - x(edges.opens))"
      height="22"
      :fill="solid"
      :fill-opacity="edges.phase === 'waits' ? 0.35 : 1"
    />
    <rect
      v-if="edges.safe !== null && edges.opens !== null && edges.closes === null && edges.safe > edges.opens"
      :x="x(edges.opens)"
      y="9"
      :width="x(edges.safe) - x(edges.opens)"
      height="22"
      fill="var(--color-ground)"
      fill-opacity=".45"
    />
    <rect
      v-if="edges.closes !== null && edges.closes > 0"
      class="must"
      :x="x(edges.closes) - 3"
      y="3"
      width="4"
      height="34"
      :fill="solid"
    />
    <rect :x="x(edges.now) - 1" y="0" width="2" :height="H" fill="var(--color-ink)" />
  </svg>
</template>
