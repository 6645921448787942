<script setup lang="ts">
import { Scatter } from 'vue-chartjs'
import { WAVELENGTHS_nm } from '#core/colour'

/** Curves over 400 to 700 nm: reflectance in percent, or what a colourant takes away. */
const props = defineProps<{
  curves: readonly { name: string; values: readonly number[]; colour: string; dashed?: boolean }[]
  absorbs?: boolean
  label: string
}>()
const chart = useChart()
const factor = computed(() => (props.absorbs ? 1 : 100))
const data = computed(() => ({
  datasets: props.curves.map(c => ({
    label: c.name,
    data: c.values.map((v, i) => ({ x: WAVELENGTHS_nm[i]!, y: v * factor.value })),
    borderColor: c.colour,
    backgroundColor: c.colour,
    borderDash: c.dashed ? [6, 4] : [],
    showLine: true,
    pointRadius: 0,
    borderWidth: 2.5,
  })),
}))
const options = computed(() =>
  chart.options(
    chart.axis('nm', { min: 400, max: 700 }),
    chart.axis(w(props.absorbs ? 'colour.absorbs' : 'colour.reflects'), { min: 0 }),
  ),
)
</script>

<template>
  <div class="h-64" data-test="spectrum"><Scatter :data="data" :options="options" :aria-label="label" /></div>
</template>
