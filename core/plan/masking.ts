/** Tape comes on late, and is renewed before it has lain too long. */
import { does, type Step, stepOf, type Wait } from '../acts'

/** Days that tape may lie before its glue stays (shop default, unsourced). */
const TAPE_D = 5
const DAY_MIN = 1440

/** When each step may start at the earliest by its likely waits, minutes from the first; work itself is not counted. */
function likelyStarts_min(steps: readonly Step[], waits: readonly Wait[]): Map<string, number> {
  const starts = new Map<string, number>()
  for (const { key } of steps) {
    const after = waits.filter(w => w.to === key).map(w => (starts.get(w.from) ?? 0) + w.likely)
    starts.set(key, Math.max(0, ...after))
  }
  return starts
}

/** The steps with the tape taken off and put on anew before a coat under which it would have lain too long. */
export function retaped(steps: readonly Step[], waits: readonly Wait[]): Step[] {
  const mask = steps.find(s => s.kind === 'mask')
  if (!mask) return [...steps]
  const starts = likelyStarts_min(steps, waits)
  let since = starts.get(mask.key) ?? 0
  /** what must follow within a window is not held up by tape */
  const hurried = new Set(waits.filter(w => w.max !== null).map(w => w.to))
  let n = 1
  return steps.flatMap(step => {
    const at = starts.get(step.key) ?? 0
    if (!does(step, 'covers') || hurried.has(step.key) || at - since <= TAPE_D * DAY_MIN) return [step]
    since = at
    n++
    const tape = (key: string, kind: 'mask' | 'unmask', why: string) =>
      stepOf({ key: `${mask.key}.${key}.${n}`, kind, faces: mask.faces, method: mask.method, why })
    return [
      tape('off', 'unmask', 'the tape has lain long enough'),
      tape('on', 'mask', 'fresh tape for the coats that follow'),
      step,
    ]
  })
}
