<script setup lang="ts">
import { Bar } from 'vue-chartjs'

/** Bars of one or two figures each, the longest names beside them; what is shown as numbers stands below. */
const props = defineProps<{
  says: readonly string[]
  series: readonly { label: string; values: readonly number[] }[]
  unit: string
  most?: number
}>()
const emit = defineEmits<{ open: [index: number] }>()
const chart = useChart()
const COLOURS = ['#a9b4b0', '#1d6a62'] as const
const short = (text: string) => (text.length > 26 ? `${text.slice(0, 25)}…` : text)
const data = computed(() => ({
  labels: props.says.map(short),
  datasets: props.series.map(({ label, values }, i) => ({
    label,
    data: [...values],
    backgroundColor: COLOURS[props.series.length === 1 ? 1 : i],
    barPercentage: 0.9,
    categoryPercentage: 0.8,
  })),
}))
const options = computed(() => ({
  ...chart.options(
    chart.axis(props.unit, { min: 0, max: props.most }),
    chart.axis('', { type: 'category' as const, title: { display: false } }),
  ),
  indexAxis: 'y' as const,
  onClick: (_: unknown, bars: { index: number }[]) => {
    if (bars[0]) emit('open', bars[0].index)
  },
}))
const PX_EACH = 34
const high = computed(() => `${props.says.length * PX_EACH * (props.series.length > 1 ? 1.3 : 1) + 90}px`)
</script>

<template>
  <div :style="{ height: high }">
    <Bar :data="data" :options="options" :aria-label="w('record.chart', { says: unit })" />
  </div>
</template>
