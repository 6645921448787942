/** When each task must have begun, by the windows that what is placed before it opens, or what was done already. */
import type { Placed, Shop } from './model'

const MIN_MS = 60_000
export function closesOf({ jobs }: Pick<Shop, 'jobs'>, placed: readonly Placed[]): Map<string, number> {
  const start = new Map(placed.map(p => [p.task, p.start_ms]))
  const closes = new Map<string, number>()
  for (const task of jobs.flatMap(j => j.tasks)) {
    const ends = task.after.flatMap(({ from, max_min }) =>
      max_min !== null && start.has(from) ? [start.get(from)! + max_min * MIN_MS] : [],
    )
    const first = Math.min(task.closes_ms ?? Infinity, ...ends)
    if (Number.isFinite(first)) closes.set(task.id, first)
  }
  return closes
}
