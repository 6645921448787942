<script setup lang="ts">
import { drawSurface, layerFill, type SurfaceDrawn } from '#core/section'

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
const FOUND = 108
const GAP = 30
const id = useId()
const drawn = computed(() => drawSurface(props.surface, W - FOUND, props.height))
const woodBottom = computed(() => props.height - 26)
const colours = computed(() => props.surface.colours)
const COLOUR_DEPTH = 46
/** The line of the surface: crisp where it is gloss, broken where it is matt. */
const ROUGH: Record<SurfaceDrawn['sheen'], number> = { 'matt': 2.4, 'satin': 1.3, 'semi-gloss': 0.6, 'gloss': 0 }
const topY = computed(() => drawn.value.planned.at(-1)?.y ?? drawn.value.woodTop)
/** Films sink a little over open pores; filled pores carry them. */
const dip = computed(() => (props.surface.pores === 'open' && !props.surface.filled ? 1 : 0))
function line(y: number, rough: number, sinks: number): string {
  const points: string[] = []
  for (let x = 0; x <= W - FOUND; x += 4) {
    const over = drawn.value.pores.find(p => Math.abs(p.x - x) < p.r * 1.6)
    const jag = rough * (((x * 7919) % 11) / 11 - 0.5)
    points.push(`${FOUND + x},${(y + jag + (over ? sinks * Math.min(5, over.r) : 0)).toFixed(1)}`)
  }
  return points.join(' ')
}
const surfaceLine = computed(() => line(topY.value, ROUGH[props.surface.sheen], dip.value))
/** Year rings as they run through the cut: closer and darker where the summer's wood is. */
const rings = computed(() =>
  Array.from({ length: 12 }, (_, i) => {
    const y = drawn.value.woodTop + 10 + i * 14 + ((i * 37) % 9)
    const bend = ((i * 53) % 21) - 10
    return { d: `M0 ${y} C${W * 0.3} ${y + bend} ${W * 0.6} ${y - bend} ${W} ${y + bend / 2}`, o: i % 3 ? 0.1 : 0.24 }
  }).filter((_, i) => drawn.value.woodTop + 10 + i * 14 < woodBottom.value - 8),
)
const middle = (b: { y: number; h: number }) => b.y + b.h / 2
const leads = computed(() => {
  const films = drawn.value.planned.flatMap(b => (b.film.layer === null ? [] : [{ layer: b.film.layer, y: middle(b) }]))
  const inWood = colours.value.flatMap(c => (c.layer === null ? [] : [{ layer: c.layer, y: drawn.value.woodTop + 10 }]))
  const fill = props.surface.filler === null ? [] : [{ layer: props.surface.filler, y: drawn.value.woodTop + 24 }]
  const first = new Map<number, number>()
  for (const l of [...fill, ...inWood, ...films]) first.set(l.layer, l.y)
  return [...first].flatMap(([layer, y]) => {
    const to = props.rows.get(layer)
    return to === undefined ? [] : [{ layer, y, to }]
  })
})
const markH = computed(() => drawn.value.mark_um * drawn.value.pxPerUm)
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
    :data-px-per-um="drawn.pxPerUm"
  >
    <defs>
      <linearGradient :id="`${id}-depth`" x1="0" y1="0" x2="0" y2="1">
        <stop offset="0" :stop-color="layerFill(colours.at(-1)?.slug ?? '')" stop-opacity=".85" />
        <stop offset="1" :stop-color="layerFill(colours.at(-1)?.slug ?? '')" stop-opacity="0" />
      </linearGradient>
      <clipPath :id="`${id}-wood`">
        <rect :x="FOUND" :y="drawn.woodTop" :width="W - FOUND" :height="woodBottom - drawn.woodTop" />
      </clipPath>
    </defs>
    <rect x="0" :y="drawn.woodTop" :width="W" :height="woodBottom - drawn.woodTop" :fill="surface.tone" />
    <path
      v-for="r in rings"
      :key="r.d"
      :d="r.d"
      fill="none"
      stroke="#3a2412"
      :stroke-opacity="r.o"
      stroke-width="1.6"
    />
    <rect
      v-if="colours.length"
      class="colour"
      :x="FOUND"
      :y="drawn.woodTop"
      :width="W - FOUND"
      :height="COLOUR_DEPTH"
      :fill="`url(#${id}-depth)`"
    />
    <g :clip-path="`url(#${id}-wood)`">
      <path
        v-for="p in drawn.pores"
        :key="p.x"
        :d="`M${FOUND + p.x - p.r} ${drawn.woodTop} c0 ${p.h} ${p.r * 2} ${p.h} ${p.r * 2} 0 z`"
        :fill="surface.filled ? '#6b4a2b' : '#1c211f'"
        :fill-opacity="surface.filled ? 0.85 : 0.38"
      />
    </g>
    <g v-if="surface.raised" stroke="var(--color-ink)" stroke-opacity=".6">
      <path v-for="i in 40" :key="i" :d="`M${FOUND + i * 6} ${drawn.woodTop} l${(i % 3) - 1} -${3 + (i % 4)}`" />
    </g>
    <g>
      <rect
        v-for="(b, i) in drawn.found"
        :key="`f${i}`"
        x="0"
        :y="b.y"
        :width="FOUND - GAP"
        :height="Math.max(1.5, b.h)"
        :fill="layerFill(b.film.slug)"
        stroke="var(--color-ink)"
        stroke-width=".6"
      />
      <text x="2" :y="height - 8" font-size="14" fill="var(--color-soft)">{{ w('surface.found') }}</text>
      <text :x="FOUND" :y="height - 8" font-size="14" fill="var(--color-soft)">
        {{ surface.species }} · {{ w('surface.composed') }}
      </text>
    </g>
    <g v-for="(b, i) in drawn.planned" :key="`p${i}`">
      <rect
        class="layer"
        :data-um="Math.round(b.film.um * 10) / 10"
        :data-layer="b.film.layer"
        :x="FOUND"
        :y="b.y"
        :width="W - FOUND"
        :height="Math.max(1, b.h)"
        :fill="layerFill(b.film.slug)"
        :fill-opacity="b.film.coloured ? 0.95 : 0.8"
        :stroke="b.film.layer !== null && b.film.layer === chosen ? 'var(--color-verdigris)' : 'var(--color-ink)'"
        :stroke-width="b.film.layer !== null && b.film.layer === chosen ? 2.5 : 0.5"
        :style="b.film.layer === null ? '' : 'cursor:pointer'"
        @click="b.film.layer !== null && emit('choose', b.film.layer)"
      />
    </g>
    <polyline :points="surfaceLine" fill="none" stroke="var(--color-ink)" stroke-width="1.6" />
    <polyline
      v-if="surface.sheen === 'gloss' || surface.sheen === 'semi-gloss'"
      :points="line(topY - 3, 0, dip)"
      fill="none"
      stroke="#fff"
      stroke-width="1.4"
    />
    <g v-for="l in leads" :key="l.layer" class="hidden md:inline">
      <path
        :d="`M${W} ${l.y} C${W + 24} ${l.y} ${W + 20} ${l.to} ${W + LEAD} ${l.to}`"
        fill="none"
        :stroke="failing.has(l.layer) ? 'var(--color-madder)' : 'var(--color-soft)'"
        :stroke-width="l.layer === chosen ? 2.5 : 1"
      />
      <circle :cx="W" :cy="l.y" r="2.5" :fill="failing.has(l.layer) ? 'var(--color-madder)' : 'var(--color-soft)'" />
    </g>
    <path
      :d="`M${FOUND - 6} ${drawn.woodTop} v${-markH} m-4 0 h8 m-8 ${markH} h8`"
      stroke="var(--color-ink)"
      fill="none"
    />
    <text
      :transform="`translate(${FOUND - 19} ${drawn.woodTop - markH / 2}) rotate(-90)`"
      font-size="13"
      text-anchor="middle"
      fill="var(--color-ink)"
    >
      {{ drawn.mark_um }} µm
    </text>
  </svg>
</template>
