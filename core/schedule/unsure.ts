/** What is not sure of a task: how long something dries, whether a round passes, whether a gate fails. */
import type { Loop } from '../plan'

/** A wait as likely as not, and a safe one, minutes. */
export interface Drying {
  likely_min: number
  safe_min: number
  /** what dries: all of it dries slowly together */
  of: string
}
export interface Unsure {
  /** what was done before it dries still, since then */
  opens: (Drying & { from_ms: number }) | null
  /** its round may have to be done again: so many times at most, each with this chance */
  again: { chance: number; most: number; minutes: number; wait_min: number } | null
  /** what is judged at it may fail: all that follows is later by so much */
  fails: Failing | null
}
export interface Failing {
  chance: number
  late_min: number
}

/** That a round which may go further does (shop default, unsourced, as for a second round of stripper). */
const AGAIN = 0.3

interface Waiting {
  from: string
  likely: number
}
/** Rounds that end with one of these steps. */
export function againOf(
  keys: readonly string[],
  loops: readonly Loop[],
  steps: readonly { key: string; attended_min: number }[],
  waits: readonly Waiting[],
): Unsure['again'] {
  const loop = loops.find(l => keys.includes(l.step))
  if (!loop) return null
  const its = new Set(loop.again)
  const minutes = steps.reduce((sum, s) => sum + (its.has(s.key) ? s.attended_min : 0), 0)
  const wait_min = Math.max(0, ...waits.filter(w => w.from === loop.step).map(w => w.likely))
  return { chance: AGAIN, most: loop.worst - loop.rounds, minutes, wait_min }
}
