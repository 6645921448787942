<script setup lang="ts">
import { drawSection, layerFill, type Section, spread } from '#core/section'

/** The section: wood below, found layers left, planned right, to the stated scale. A layer opens its step. */
const props = defineProps<{ section: Section; label: string }>()
const emit = defineEmits<{ open: [step: string] }>()
const W = 200
const H = 330
const id = useId()
const drawing = computed(() => drawSection(props.section, W, H))
const labels = computed(() =>
  spread(
    drawing.value.rects.filter(r => r.side === 'planned').map(r => ({ at: r.y + r.h / 2, rect: r })),
    22,
  ),
)
const pores = computed(() =>
  Array.from({ length: props.section.pores === 'open' ? 8 : 0 }, (_, i) => ({
    x: 10 + i * 22 + ((i * 7) % 9),
    h: 12 + ((i * 13) % 17),
  })),
)
const fillOf = (state: string, slug: string) => (state === 'running' ? `url(#${id}-stipple)` : layerFill(slug))
const markH = computed(() => drawing.value.mark_um * drawing.value.pxPerUm)
/** "oak; found: oil varnish, 80 µm" */
const foundSays = computed(() => {
  const { species, found, foundGone } = props.section
  const top = found[0]
  return top ? `${species}; ${w(foundGone ? 'section.was' : 'section.found')} ${top.name}, ${top.um} µm` : species
})
</script>

<template>
  <svg
    :viewBox="`-58 0 ${W + 348} ${H + 32}`"
    class="w-full max-w-xl block"
    role="group"
    :aria-label="label"
    data-test="section"
    :data-px-per-um="drawing.pxPerUm"
  >
    <defs>
      <pattern :id="`${id}-stipple`" width="6" height="6" patternUnits="userSpaceOnUse">
        <rect width="6" height="6" fill="#e9d7b6" />
        <circle cx="2" cy="2" r="1.2" fill="#7a5a2c" />
      </pattern>
    </defs>
    <rect x="0" :y="drawing.woodTop" :width="W" :height="H - drawing.woodTop" :fill="section.tone" />
    <ellipse
      v-for="p in pores"
      :key="p.x"
      :cx="p.x"
      :cy="drawing.woodTop + p.h / 2"
      rx="2.6"
      :ry="p.h / 2"
      fill="#000"
      opacity=".22"
    />
    <rect
      v-if="section.colours.length"
      class="colour"
      :x="W / 2"
      :y="drawing.woodTop"
      :width="W / 2"
      :height="drawing.colourDepth"
      :fill="layerFill(section.colours[0]!.slug)"
      :fill-opacity="section.colours[0]!.state === 'planned' ? 0.35 : 0.8"
    />
    <g v-for="(r, i) in drawing.rects" :key="i" :opacity="r.side === 'found' && section.foundGone ? 0.3 : 1">
      <rect
        class="layer"
        :data-side="r.side"
        :data-um="r.um"
        :data-state="r.state"
        :x="r.x"
        :y="r.y"
        :width="r.w - (r.side === 'found' ? 6 : 0)"
        :height="Math.max(1.5, r.h)"
        :fill="fillOf(r.state, r.slug)"
        :fill-opacity="r.state === 'planned' ? 0.25 : 1"
        :stroke="r.state === 'failing' ? 'var(--color-madder)' : 'var(--color-ink)'"
        :stroke-width="r.state === 'failing' ? 3 : 1"
        :stroke-dasharray="r.state === 'planned' ? '6 4' : undefined"
        :role="r.step ? 'button' : undefined"
        :tabindex="r.step ? 0 : undefined"
        :aria-label="r.step ? r.label : undefined"
        :style="r.step ? 'cursor:pointer' : ''"
        @click="r.step && emit('open', r.step)"
        @keydown.enter="r.step && emit('open', r.step)"
      />
    </g>
    <g v-for="l in labels" :key="l.rect.y">
      <path :d="`M${W} ${l.rect.y + l.rect.h / 2} L${W + 12} ${l.at - 4}`" stroke="var(--color-soft)" fill="none" />
      <text :x="W + 16" :y="l.at" font-size="17" fill="var(--color-ink)">{{ l.rect.label }} · {{ l.rect.um }} µm</text>
    </g>
    <text v-if="section.colours.length" :x="W + 16" :y="drawing.woodTop + 22" font-size="16" fill="var(--color-ink)">
      {{ section.colours[0]!.name }}, {{ w('section.inWood') }}
    </text>
    <text x="0" :y="H + 22" font-size="17" fill="var(--color-ink)">
      {{ foundSays }}
    </text>
    <path :d="`M-10 ${drawing.woodTop} h6 m-3 0 v${-markH} m-3 0 h6`" stroke="var(--color-soft)" fill="none" />
    <text x="-58" :y="drawing.woodTop - markH - 6" font-size="14" fill="var(--color-soft)">
      {{ drawing.mark_um }} µm
    </text>
  </svg>
</template>
