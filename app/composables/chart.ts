import { BarElement, CategoryScale, Chart, Legend, LinearScale, LineElement, PointElement, Tooltip } from 'chart.js'

Chart.register(LinearScale, CategoryScale, PointElement, LineElement, BarElement, Tooltip, Legend)
Chart.defaults.font = { family: 'Schibsted Grotesk Variable, sans-serif', size: 14 }

/** What charts of the house share: ink by day and evening, axes with a title, a legend of lines. */
export function useChart() {
  const dark = useEvening()
  const ink = computed(() => (dark.value ? '#eceeea' : '#1c211f'))
  const axis = (text: string, more: object = {}, ticks: object = {}) => ({
    title: { display: true, text, color: ink.value },
    ticks: { color: ink.value, ...ticks },
    grid: { color: dark.value ? '#474e4a' : '#c9ccc7' },
    ...more,
  })
  const options = (x: ReturnType<typeof axis>, y: ReturnType<typeof axis>) => ({
    responsive: true,
    maintainAspectRatio: false,
    animation: false as const,
    scales: { x, y },
    plugins: { legend: { labels: { color: ink.value, boxHeight: 2 } } },
  })
  return { axis, options }
}
