const MOST_MS = 10

/** Lets others in: awaited between the parts of a long work, it gives the event loop back whenever ten milliseconds have passed. */
export function turns(): () => Promise<void> {
  let since = performance.now()
  return async () => {
    if (performance.now() - since < MOST_MS) return
    await new Promise(resolve => setImmediate(resolve))
    since = performance.now()
  }
}
