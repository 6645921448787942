import { defineStore } from 'pinia'

/** As long somebody waits without a word. */
const SILENT_MS = 2500

/** The line to the shop's server: does it answer, how long does it take, and how old is what stands on the page. */
export const useLine = defineStore('line', () => {
  const slow = ref(0)
  /** the server does not answer; since when, by its clock, where that is known */
  const away = ref(false)
  const since_ms = ref<number | null>(null)
  /** the moments that carried readings on this page are of, by reading */
  const carried = reactive(new Map<symbol, number>())
  const asOf_ms = computed(() => (carried.size ? Math.min(...carried.values()) : null))
  /** A request has begun; what comes back is called when it has ended. */
  function begin() {
    let counted = false
    const timer = setTimeout(() => {
      counted = true
      slow.value += 1
    }, SILENT_MS)
    return () => {
      clearTimeout(timer)
      if (counted) slow.value -= 1
    }
  }
  const answered = () => (away.value = false)
  function broken() {
    if (!away.value) since_ms.value = useClock().now || null
    away.value = true
  }
  return { slow, away, since_ms, carried, asOf_ms, begin, answered, broken }
})
