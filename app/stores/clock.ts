import { defineStore } from 'pinia'
import { know, known } from '~/offline/carried'

/** The server's clock, counted on by this page between readings; without a line by how far off the device last was. */
export const useClock = defineStore('clock', () => {
  const now = ref(0)
  let offset = 0
  let timer: ReturnType<typeof setInterval> | undefined
  function run(by: number) {
    offset = by
    const tick = () => (now.value = Date.now() + offset)
    tick()
    if (import.meta.client) timer ??= setInterval(tick, 1000)
  }
  function set(server_ms: number) {
    run(server_ms - Date.now())
    if (import.meta.client) void know('clock', offset)
  }
  /** As it was known last, where the server does not answer. */
  async function recall() {
    if (!now.value) run((await known<number>('clock')) ?? 0)
  }
  return { now, set, recall }
})
