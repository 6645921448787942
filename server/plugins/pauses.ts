const LOOK_MS = 5
const LONG_MS = 25

/**
 * In tests: tells in the log whenever the event loop stood still, so that a bench can say for how long nobody was
 * served.
 */
export default defineNitroPlugin(() => {
  if (useRuntimeConfig().mode !== 'test') return
  let last = performance.now()
  setInterval(() => {
    const late = performance.now() - last - LOOK_MS
    last = performance.now()
    if (late > LONG_MS) console.log(`pause ${Math.round(late)} ms`)
  }, LOOK_MS).unref()
})
