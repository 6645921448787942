const MOST_MS = 10

/**
 * Long works that wait for their turn; each round of the event loop lets one of them go on, so that ten at once hold
 * nobody up longer than one.
 */
const waiting: (() => void)[] = []
function letOneOn() {
  waiting.shift()?.()
  if (waiting.length > 0) setImmediate(letOneOn)
}
const turn = () =>
  new Promise<void>(resolve => {
    if (waiting.push(resolve) === 1) setImmediate(letOneOn)
  })

/**
 * Lets others in: awaited between the parts of a long work, it gives the event loop back at first, and then whenever
 * ten milliseconds have passed.
 */
export function turns(): () => Promise<void> {
  let since = -Infinity
  return async () => {
    if (performance.now() - since < MOST_MS) return
    await turn()
    since = performance.now()
  }
}
