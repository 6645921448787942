<script setup lang="ts">
import { Scatter } from 'vue-chartjs'
import { PASSES } from '#core/colour'

/** Differences foretold and reached over the tries of a pot. */
const props = defineProps<{ tries: readonly { turn: number; foretold: number | null; reached: number }[] }>()
const chart = useChart()
const end = computed(() => props.tries.length + 1)
const line = (label: string, colour: string, data: { x: number; y: number }[], dashed: boolean, pointRadius = 5) => ({
  label,
  data,
  borderColor: colour,
  backgroundColor: colour,
  borderDash: dashed ? [6, 4] : [],
  showLine: true,
  pointRadius,
})
const data = computed(() => ({
  datasets: [
    line(
      w('mix.reached'),
      '#1d6a62',
      props.tries.map(x => ({ x: x.turn + 1, y: x.reached })),
      false,
    ),
    line(
      w('mix.foretold'),
      '#4a6178',
      props.tries.map(x => ({ x: x.turn + 1, y: x.foretold ?? Number.NaN })),
      true,
    ),
    line(
      w('mix.passes'),
      '#8a5a0c',
      [
        { x: 0, y: PASSES },
        { x: end.value, y: PASSES },
      ],
      true,
      0,
    ),
  ],
}))
const options = computed(() =>
  chart.options(chart.axis(w('mix.try'), { min: 0, max: end.value }, { stepSize: 1 }), chart.axis('ΔE00', { min: 0 })),
)
</script>

<template>
  <div class="h-56"><Scatter :data="data" :options="options" :aria-label="w('mix.triesLabel')" /></div>
</template>
