/**
 * Work of several pieces that shares a set-up, put together where that makes nobody later: each proposal is tried in a
 * schedule of its own before it is made.
 */
import { begunFrom, effects, newlyMissed } from './change'
import { tasksOf } from './cost'
import type { Placed, Schedule, Shop, Task } from './model'
import { solve } from './solve'

const MIN_MS = 60_000
/** gun: one filling and cleaning · pot: one mixing · colour: one stirring, straining · dust: the room cleaned once */
export type Shared = 'gun' | 'pot' | 'colour' | 'dust'
/** What a task shares with others of the same key. */
export interface Alike {
  task: string
  kind: Shared
  key: string
  /** minutes that are done once instead of for each */
  setup_min: number
  /** what stays in a gun, a pot or a strainer each time */
  left_ml: number
  /** all of it is put on within so long after it was mixed; null: it does not set */
  within_min: number | null
}
export interface Batch {
  kind: Shared
  key: string
  handId: number | null
  /** in order, with when each would begin */
  tasks: { task: string; jobId: number; start_ms: number }[]
  saved_min: number
  saved_ml: number
}

const NOT_MIXED = { left_ml: 0, within_min: null }
/** Dust before and after a coat in one room: made in a row, the room is cleaned once. */
export function dustPairs(shop: Shop, placed: readonly Placed[]): Alike[] {
  const tasks = tasksOf(shop)
  return shop.rooms.flatMap(room => {
    const here = placed
      .filter(p => p.roomId === room.id && tasks.get(p.task)!.makes !== 'other')
      .toSorted((a, b) => a.start_ms - b.start_ms)
    const dusty = here.filter(p => tasks.get(p.task)!.makes === 'dust')
    return dusty.flatMap((p, i): Alike[] => {
      const next = dusty[i + 1]
      if (!next || here.indexOf(next) - here.indexOf(p) < 2) return []
      const shared = { kind: 'dust' as const, key: `dust ${p.task}`, setup_min: room.changeOver_min, ...NOT_MIXED }
      return [p, next].map(one => ({ task: one.task, ...shared }))
    })
  })
}

/** Work further ahead is not put together yet. */
const AHEAD_MS = 3 * 86_400_000
const ORDERS = 40
/** Of a large shop fewer are tried, so that the search stays short: tasks placed in all tries. */
const MOST_PLACED = 400_000
function triesFor({ jobs }: Shop): number {
  const tasks = jobs.reduce((sum, j) => sum + j.tasks.length, 0)
  return Math.ceil(MOST_PLACED / (2 * ORDERS * Math.max(1, tasks)))
}
/** Hours of the whole shop's cost that a proposal may take (lateness counts whole). */
const MAY_COST_H = 0.25

function best(shop: Shop): Schedule {
  for (const { best: found, tried } of solve(shop, 1)) if (tried >= ORDERS) return found
  throw new Error('solve never ends by itself')
}

/** Hands at work, ms. */
const length = (p: Placed) => p.parts.reduce((sum, [begin, end]) => sum + (end - begin), 0)
/** Its tasks one after the other in the same hands: from the first on, or from the last's time. */
function inARow(its: readonly Placed[], from: 'first' | 'last'): Batch['tasks'] {
  const [first, last] = [its[0]!, its.at(-1)!]
  let at = from === 'first' ? first.start_ms : last.start_ms
  return its.map(p => {
    const start_ms = at
    at += length(p)
    return { task: p.task, jobId: p.jobId, start_ms }
  })
}
/** Mixed when the first begins, it is all put on before it sets. */
const keeps = (its: readonly Placed[], { within_min }: Alike) =>
  within_min === null || its.reduce((sum, p) => sum + length(p), 0) <= within_min * MIN_MS
/** Apart: something else of the same hands lies between, or other hands do it. */
const apart = (its: readonly Placed[]) =>
  its.some((p, i) => i > 0 && (p.handId !== its[0]!.handId || p.start_ms - its[i - 1]!.end_ms >= 15 * MIN_MS))

const TOGETHER_MS = 86_400_000
/** Of work that shares something, what lies within a day of each other, once for each piece. */
function occasions(group: readonly Alike[], placed: ReadonlyMap<string, Placed>): Alike[][] {
  const left = group.toSorted((a, b) => placed.get(a.task)!.start_ms - placed.get(b.task)!.start_ms)
  const found: Alike[][] = []
  while (left.length > 1) {
    const first = placed.get(left[0]!.task)!
    const jobs = new Set<number>()
    const its = left.filter(a => {
      const { jobId, start_ms } = placed.get(a.task)!
      if (jobs.has(jobId) || start_ms > first.start_ms + TOGETHER_MS) return false
      jobs.add(jobId)
      return true
    })
    if (its.length > 1) found.push(its)
    for (const a of its) left.splice(left.indexOf(a), 1)
  }
  return found
}

/** Proposals that cost nobody a promise, the most saving first. */
export function batches(shop: Shop, schedule: Schedule, alike: readonly Alike[]): Batch[] {
  const base = begunFrom(shop, schedule)
  const tasks = new Map(base.jobs.flatMap(j => j.tasks.map(t => [t.id, t] as const)))
  const placed = new Map(schedule.placed.map(p => [p.task, p]))
  const groups = new Map<string, Alike[]>()
  for (const a of alike) {
    const [p, t] = [placed.get(a.task), tasks.get(a.task)]
    if (!p || !t || t.ifYes || t.begun || t.pin || p.start_ms > shop.now_ms + AHEAD_MS) continue
    groups.set(a.key, [...(groups.get(a.key) ?? []), a])
  }
  const saving = (g: readonly Alike[]) => (g.length - 1) * g[0]!.setup_min
  const tried = [...groups.values()].flatMap(g => occasions(g, placed)).sort((a, b) => saving(b) - saving(a))
  const found: Batch[] = []
  for (const group of tried.slice(0, triesFor(shop))) {
    const its = group.map(a => placed.get(a.task)!).sort((a, b) => a.start_ms - b.start_ms)
    if (new Set(its.map(p => p.jobId)).size < 2 || !apart(its) || !keeps(its, group[0]!)) continue
    for (const from of ['first', 'last'] as const) {
      const row = inARow(its, from)
      const { handId } = from === 'first' ? its[0]! : its.at(-1)!
      const pins = new Map(row.map(r => [r.task, { start_ms: r.start_ms, handId, roomId: null }]))
      const put = (t: Task): Task => ({ ...t, pin: pins.get(t.id) ?? t.pin })
      const then = best({ ...base, jobs: base.jobs.map(j => ({ ...j, tasks: j.tasks.map(put) })) })
      const holds = row.every(r => !then.slipped.includes(r.task))
      const hurts = effects(shop, schedule, then).some(e => e.late_h > e.wasLate_h + 1e-9)
      if (!holds || hurts || newlyMissed(schedule, then).length > 0) continue
      if (then.unplaced.length > schedule.unplaced.length) continue
      if (then.cost.hours > schedule.cost.hours + MAY_COST_H) continue
      const { kind, key, left_ml } = group[0]!
      const saved_ml = (group.length - 1) * left_ml
      found.push({ kind, key, handId, tasks: row, saved_min: Math.round(saving(group)), saved_ml })
      break
    }
  }
  return found.sort((a, b) => b.saved_min - a.saved_min)
}
