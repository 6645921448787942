import { defineStore } from 'pinia'

const LOOK_EVERY_MS = 30 * 60_000

/** The program on this device: kept by its service worker, and a newer one when the shop has it. */
export const useProgram = defineStore('program', () => {
  /** a newer one is here, and waits to be taken */
  const offered = ref(false)
  let worker: { update: () => Promise<void>; messageSkipWaiting: () => void } | undefined
  async function keep() {
    if (worker || import.meta.dev || !('serviceWorker' in navigator)) return
    const { Workbox, messageSW } = await import('workbox-window')
    const box = (worker = new Workbox('/worker.js'))
    const { buildId } = useRuntimeConfig().app
    box.addEventListener('waiting', event => {
      void messageSW(event.sw!, { type: 'BUILD' }).then((build: string) => {
        // a page that is of the newer one already loses nothing by it
        if (build === buildId) box.messageSkipWaiting()
        else offered.value = true
      })
    })
    box.addEventListener('controlling', () => offered.value && location.reload())
    await box.register().catch(() => undefined)
    setInterval(look, LOOK_EVERY_MS)
  }
  /** Is there a newer one? */
  const look = () => worker?.update().catch(() => undefined)
  const take = () => worker?.messageSkipWaiting()
  return { offered, keep, look, take }
})
