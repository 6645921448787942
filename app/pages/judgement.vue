<script setup lang="ts">
import { Scatter } from 'vue-chartjs'
import { LIMITS, type SimulationResult, SIMULATION } from '#core/identify/simulate'

const progress = ref(0)
const result = shallowRef<SimulationResult | null>(null)
let worker: Worker | null = null
function run() {
  worker?.terminate()
  result.value = null
  progress.value = 0
  worker = new Worker(new URL('../workers/simulate.worker.ts', import.meta.url), { type: 'module' })
  worker.onmessage = (event: MessageEvent<{ progress?: number; result?: SimulationResult }>) => {
    if (event.data.progress !== undefined) progress.value = event.data.progress
    if (event.data.result) result.value = event.data.result
  }
  worker.postMessage({})
}
onMounted(run)
onUnmounted(() => worker?.terminate())
const percent = (p: number) => Math.round(p * 1000) / 10
const chart = computed(() => ({
  datasets: [
    {
      label: w('judge.said'),
      data: (result.value?.calibration ?? [])
        .filter(b => b.n > 0)
        .map(b => ({ x: percent(b.said), y: percent(b.right) })),
      borderColor: '#1d6a62',
      backgroundColor: '#1d6a62',
      showLine: true,
      pointRadius: 6,
    },
    {
      label: w('judge.perfect'),
      data: [
        { x: 30, y: 30 },
        { x: 100, y: 100 },
      ],
      borderColor: '#505854',
      borderDash: [4, 4],
      pointRadius: 0,
      showLine: true,
    },
  ],
}))
const house = useChart()
const axis = (text: string) => house.axis(text, { min: 30, max: 100 })
const options = computed(() => house.options(axis(w('judge.xAxis')), axis(w('judge.yAxis'))))
</script>

<template>
  <div class="max-w-5xl">
    <h1>{{ w('judge.title') }}</h1>
    <p class="mt-2">
      {{
        w('judge.how', {
          n: SIMULATION.pieces.toLocaleString('en-GB'),
          jitter: SIMULATION.jitter,
          wrong: percent(SIMULATION.wrong),
          through: percent(SIMULATION.through),
        })
      }}
    </p>
    <ProgressLine v-if="!result" class="mt-4" :label="w('judge.running')" :done="progress" />
    <div v-else class="grid lg:grid-cols-2 gap-10 mt-5" data-test="judgement">
      <section>
        <h2>{{ w('judge.right') }}</h2>
        <table class="w-full text-left mt-2">
          <thead class="caption">
            <tr>
              <th>{{ w('judge.order') }}</th>
              <th v-for="k in 4" :key="k" class="text-right">{{ k }}</th>
            </tr>
          </thead>
          <tbody>
            <tr
              v-for="a in result.accuracy"
              :key="a.policy"
              class="border-t border-line"
              :class="a.policy === 'advice' ? 'font-bold' : ''"
            >
              <td class="py-2">{{ w(`judge.${a.policy}`) }}</td>
              <td v-for="(r, k) in a.right" :key="k" class="text-right col">{{ percent(r).toFixed(1) }} %</td>
            </tr>
          </tbody>
        </table>
        <p class="caption mt-1">{{ w('judge.layers', { p: percent(result.twoLayered) }) }}</p>
        <h2 class="mt-5">{{ w('judge.limits') }}</h2>
        <ul class="list-disc pl-6">
          <li v-for="l in LIMITS" :key="l">{{ l }}</li>
        </ul>
      </section>
      <section>
        <h2>{{ w('judge.curve') }}</h2>
        <div class="h-80 bg-white">
          <Scatter :data="chart" :options="options" :aria-label="w('judge.curve')" role="img" />
        </div>
        <table class="w-full text-left mt-2">
          <thead class="caption">
            <tr>
              <th>{{ w('judge.xAxis') }}</th>
              <th class="text-right">{{ w('judge.yAxis') }}</th>
              <th class="text-right">N</th>
            </tr>
          </thead>
          <tbody>
            <tr v-for="b in result.calibration" :key="b.from" class="border-t border-line">
              <td class="py-1 col">{{ percent(b.said).toFixed(1) }} %</td>
              <td class="col text-right">{{ percent(b.right).toFixed(1) }} %</td>
              <td class="col text-right">{{ b.n }}</td>
            </tr>
          </tbody>
        </table>
      </section>
    </div>
  </div>
</template>
