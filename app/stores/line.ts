import { defineStore } from 'pinia'

/** As long somebody waits without a word. */
const SILENT_MS = 2500

/** Requests that are under way for longer than anybody waits without a word. */
export const useLine = defineStore('line', () => {
  const slow = ref(0)
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
  return { slow, begin }
})
