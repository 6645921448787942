/** What a schedule costs: hours late and hours until ready, then change-overs, then what moved. */
import type { Cost, Job, Placed, Schedule, Shop, Task } from './model'

const HOUR_MS = 3_600_000
export const FLOW_WEIGHT = 0.01
/** A task without a place, and a window that closes before its step begins, count like so many hours late. */
export const UNPLACED_H = 10_000
const MISSED_H = 1000

/** When a job is through; null where something of it has no place. */
export const endOf = (placed: readonly Pick<Placed, 'end_ms'>[]): number =>
  placed.reduce((end, p) => Math.max(end, p.end_ms), -Infinity)

export const lateHours = ({ due_ms }: Pick<Job, 'due_ms'>, end_ms: number): number =>
  due_ms === null ? 0 : Math.max(0, end_ms - due_ms) / HOUR_MS

/** What a job that ends then costs: its weighted hours late, and a little for its hours until ready. */
export const jobHours = (job: Job, end_ms: number, now_ms: number): number =>
  job.weight * lateHours(job, end_ms) + (FLOW_WEIGHT * Math.max(0, end_ms - now_ms)) / HOUR_MS

const known = new WeakMap<Shop, Map<string, Task>>()
/** A shop's tasks by their id, remembered: every schedule of it asks. */
export function tasksOf(shop: Shop): ReadonlyMap<string, Task> {
  const tasks = known.get(shop) ?? new Map(shop.jobs.flatMap(j => j.tasks.map(t => [t.id, t] as const)))
  known.set(shop, tasks)
  return tasks
}

/** Between dust and a coat in one room, and between two products in a booth that takes one. */
function changeOvers(shop: Shop, placed: readonly Placed[]): number {
  const tasks = tasksOf(shop)
  let count = 0
  for (const room of shop.rooms) {
    const here = placed
      .filter(p => p.roomId === room.id && tasks.get(p.task)!.makes !== 'other')
      .toSorted((a, b) => a.start_ms - b.start_ms)
      .map(p => {
        const { makes, product } = tasks.get(p.task)!
        return makes === 'wet' && room.oneAtATime ? `wet ${product}` : makes
      })
    count += here.filter((what, i) => i > 0 && what !== here[i - 1]).length
  }
  return count
}

export function costOf(shop: Shop, schedule: Pick<Schedule, 'placed' | 'unplaced' | 'missed'>): Cost {
  const byJob = new Map<number, Placed[]>()
  for (const p of schedule.placed) {
    const its = byJob.get(p.jobId)
    if (its) its.push(p)
    else byJob.set(p.jobId, [p])
  }
  const missed = schedule.missed.filter(m => m.what === 'late').length
  let hours = schedule.unplaced.length * UNPLACED_H + missed * MISSED_H
  let moved = 0
  const tasks = tasksOf(shop)
  for (const job of shop.jobs) {
    const its = byJob.get(job.id)
    if (!its) continue
    const end_ms = endOf(its)
    hours += jobHours(job, end_ms, shop.now_ms)
    for (const p of its) {
      const { last, ifYes } = tasks.get(p.task)!
      // what hangs on a word is nobody's day
      if (last && !ifYes && (p.start_ms !== last.start_ms || p.handId !== last.handId)) moved++
    }
  }
  return { hours, changeOvers: changeOvers(shop, schedule.placed), moved }
}

/** Nobody's day is turned over for a minute: so many hours must be won for each task that moves (shop default). */
const MOVE_H = 0.003
/** One number to compare by: change-overs decide only between schedules that are alike else. */
export const sumOf = ({ hours, changeOvers: changes, moved }: Cost): number => hours + 1e-4 * changes + MOVE_H * moved
