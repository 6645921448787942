import { defineStore } from 'pinia'

/** The password, asked once more before what wants it; the act then goes on by itself. */
export const useProof = defineStore('proof', () => {
  const asking = ref(false)
  let waiting: ((given: boolean) => void)[] = []
  const ask = (): Promise<boolean> =>
    new Promise(resolve => {
      waiting.push(resolve)
      asking.value = true
    })
  function settle(given: boolean) {
    asking.value = false
    for (const resolve of waiting) resolve(given)
    waiting = []
  }
  return { asking, ask, settle }
})
