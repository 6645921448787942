<script setup lang="ts">
import { outline_mm, placeOutline } from '#core/piece'

/** One finding as it lies on its face: hatched by grade, dotted where it is kept. */
const props = defineProps<{
  finding: Pick<ExamFinding, 'place' | 'grade' | 'wish' | 'round' | 'number'>
  face: ExamFace
  scale: number
  small?: boolean
  chosen?: boolean
}>()
/** nothing is drawn smaller than a fingertip can find, whatever its size */
const least = computed(() => (props.small ? 8 : 14) / props.scale)
const drawn = computed(() => {
  const { place } = props.finding
  return place.shape === 'point' || place.shape === 'line'
    ? { ...place, size_mm: Math.max(place.size_mm, place.shape === 'line' ? least.value / 3 : least.value) }
    : place
})
const points = computed(
  () =>
    placeOutline(drawn.value, props.face, props.finding.round)?.[0]?.map(
      ([x, y]) => [x * props.scale, y * props.scale] as const,
    ) ?? null,
)
const middle = computed(() => {
  const list = points.value ?? []
  const { h } = outline_mm(props.face)
  const x = list.reduce((s, p) => s + p[0], 0) / list.length
  const y = list.reduce((s, p) => s + p[1], 0) / list.length
  return props.finding.place.shape === 'face' ? { x: 20, y: Math.min(20, (h * props.scale) / 2) } : { x, y }
})
</script>

<template>
  <g v-if="points">
    <polygon
      :points="points.map(p => p.join(',')).join(' ')"
      :fill="finding.wish === 'mend' ? `url(#grade-${finding.grade})` : 'none'"
      :stroke="chosen ? 'var(--color-verdigris)' : 'var(--color-ink)'"
      :stroke-width="chosen ? 3 : small ? 1 : 1.6"
      :stroke-dasharray="finding.wish === 'mend' ? undefined : '2 4'"
    />
    <template v-if="!small"
      ><circle
        :cx="middle.x"
        :cy="middle.y"
        r="13"
        :fill="chosen ? 'var(--color-verdigris)' : 'var(--color-ink)'"
      /><text
        :x="middle.x"
        :y="middle.y + 5"
        text-anchor="middle"
        font-size="14"
        font-weight="700"
        fill="var(--color-sheet)"
        >{{ finding.number }}</text
      ></template
    >
  </g>
</template>
