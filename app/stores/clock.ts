import { defineStore } from 'pinia'

/** The server's clock, counted on by this page between readings. */
export const useClock = defineStore('clock', () => {
  const now = ref(0)
  let offset = 0
  let timer: ReturnType<typeof setInterval> | undefined
  function set(server_ms: number) {
    offset = server_ms - Date.now()
    now.value = server_ms
    if (import.meta.client)
      timer ??= setInterval(() => {
        now.value = Date.now() + offset
      }, 1000)
  }
  return { now, set }
})
