<script setup lang="ts">
import { cutOf, type SurfaceDrawn } from '#core/section'

/**
 * The surface as a cut through the wood, to a stated scale: found left, composed right. A touch on a film or on the
 * colour chooses its layer; the lines to the right lead to the rows beside it.
 */
const props = defineProps<{
  surface: SurfaceDrawn
  label: string
  height: number
  chosen: number | null
  /** where the row of each layer stands, px from the top */
  rows: ReadonlyMap<number, number>
  failing: ReadonlySet<number>
}>()
const emit = defineEmits<{ choose: [layer: number] }>()
const W = 340
const LEAD = 56
const FOOT = 26
const cut = computed(() => cutOf(props.surface, { width: W, height: props.height - FOOT, found: 108, states: false }))
const leads = computed(() => {
  const { planned, woodTop } = cut.value
  const films = planned.map(b => ({ layer: b.film.layer, y: b.y + b.h / 2 }))
  const inWood = props.surface.colours.map(c => ({ layer: c.layer, y: woodTop + 10 }))
  const first = new Map(
    [{ layer: props.surface.filler, y: woodTop + 24 }, ...inWood, ...films].map(l => [l.layer, l.y]),
  )
  return [...first].flatMap(([layer, y]) => {
    const to = layer === null ? undefined : props.rows.get(layer)
    return layer === null || to === undefined ? [] : [{ layer, y, to }]
  })
})
</script>

<template>
  <svg
    :viewBox="`0 0 ${W + LEAD} ${height}`"
    :width="W + LEAD"
    :height="height"
    class="block shrink-0 max-w-full"
    role="group"
    :aria-label="label"
    data-test="surface"
    :data-px-per-um="cut.pxPerUm"
  >
    <DrawnShapes :shapes="cut.shapes" :chosen="chosen" @touch="$event.layer !== null && emit('choose', $event.layer)" />
    <text x="2" :y="height - 8" font-size="14" fill="var(--color-soft)">{{ w('surface.found') }}</text>
    <text :x="cut.left" :y="height - 8" font-size="14" fill="var(--color-soft)">
      {{ surface.species }} · {{ w('surface.composed') }}
    </text>
    <g v-for="l in leads" :key="l.layer" class="hidden md:inline">
      <path
        :d="`M${W} ${l.y} C${W + 24} ${l.y} ${W + 20} ${l.to} ${W + LEAD} ${l.to}`"
        fill="none"
        :stroke="failing.has(l.layer) ? 'var(--color-madder)' : 'var(--color-soft)'"
        :stroke-width="l.layer === chosen ? 2.5 : 1"
      />
      <circle :cx="W" :cy="l.y" r="2.5" :fill="failing.has(l.layer) ? 'var(--color-madder)' : 'var(--color-soft)'" />
    </g>
  </svg>
</template>
