/** What if: a shop with one thing changed, and what that does to every piece. */
import { lateHours } from './cost'
import type { Hand, Job, Room, Schedule, Shop, Span, Task } from './model'

export type Change =
  | { kind: 'rush'; jobId: number; due_ms: number }
  | { kind: 'away'; handId: number; span: Span }
  | { kind: 'booth' }
  | { kind: 'helper' }
  | { kind: 'answered'; jobId: number }
  | { kind: 'pin'; task: string; pin: NonNullable<Task['pin']> }
/** A day late of a piece that goes first counts as much as so many days of another (shop default, unsourced). */
export const RUSH_WEIGHT = 20

/** Spans without another one. */
const without = (spans: readonly Span[], [from, to]: Span): Span[] =>
  spans.flatMap((s): Span[] =>
    [[s[0], Math.min(s[1], from)] as const, [Math.max(s[0], to), s[1]] as const].filter(([begin, end]) => begin < end),
  )
const away = (hand: Hand, span: Span): Hand => ({ ...hand, spans: without(hand.spans, span) })
/** A second room like the first that takes coats. */
function boothLike(rooms: readonly Room[]): Room[] {
  const room = rooms.find(r => r.allows.wet)
  return room ? [{ ...room, id: -room.id, allows: { dust: false, wet: true, other: true } }] : []
}

/** @throws RangeError for a piece, person or step that the shop does not have. */
export function changed<J extends Job>(shop: Shop & { jobs: readonly J[] }, change: Change): Shop & { jobs: J[] } {
  const one = <T>(all: readonly T[], is: (x: T) => boolean, to: (x: T) => T): T[] => {
    if (!all.some(is)) throw new RangeError('It is not in this schedule.')
    return all.map(x => (is(x) ? to(x) : x))
  }
  const jobs = [...shop.jobs]
  switch (change.kind) {
    case 'rush':
      return {
        ...shop,
        jobs: one(
          jobs,
          j => j.id === change.jobId,
          j => ({ ...j, weight: RUSH_WEIGHT, due_ms: change.due_ms }),
        ),
      }
    case 'away':
      return {
        ...shop,
        jobs,
        hands: one(
          shop.hands,
          h => h.id === change.handId,
          h => away(h, change.span),
        ),
      }
    case 'booth':
      return { ...shop, jobs, rooms: [...shop.rooms, ...boothLike(shop.rooms)] }
    case 'helper':
      return {
        ...shop,
        jobs,
        hands: [...shop.hands, ...shop.hands.slice(0, 1).map(h => ({ ...h, id: -1, skills: null }))],
      }
    case 'answered': {
      const said = (t: Task): Task => ({ ...t, ifYes: false, minutes: t.hands === 0 ? 0 : t.minutes })
      return {
        ...shop,
        jobs: one(
          jobs,
          j => j.id === change.jobId,
          j => ({ ...j, tasks: j.tasks.map(said) }),
        ),
      }
    }
    case 'pin': {
      const its = (t: Task) => t.id === change.task
      const put = (j: J): J => ({ ...j, tasks: j.tasks.map(t => (its(t) ? { ...t, pin: change.pin } : t)) })
      return { ...shop, jobs: one(jobs, j => j.tasks.some(its), put) }
    }
  }
}

export interface Effect {
  id: number
  /** ready before and after; null: something of it has no place */
  was_ms: number | null
  becomes_ms: number | null
  /** hours late before and after */
  wasLate_h: number
  late_h: number
}
/** What a change does to each piece that it touches, and to one that is asked about, the most delayed first. */
export function effects(shop: Shop, was: Schedule, becomes: Schedule, asked?: number): Effect[] {
  const ends = ({ placed, unplaced }: Schedule) => {
    const ready = new Map<number, number | null>()
    for (const p of placed) ready.set(p.jobId, Math.max(ready.get(p.jobId) ?? 0, p.end_ms))
    for (const u of unplaced) ready.set(u.jobId, null)
    return ready
  }
  const [before, after] = [ends(was), ends(becomes)]
  const late = (j: Job, end: number | null) => (end === null ? 0 : lateHours(j, end))
  const shift = ({ was_ms, becomes_ms }: Effect) => (becomes_ms ?? Infinity) - (was_ms ?? Infinity) || 0
  return shop.jobs
    .map((j): Effect => {
      const [was_ms, becomes_ms] = [before.get(j.id) ?? null, after.get(j.id) ?? null]
      return { id: j.id, was_ms, becomes_ms, wasLate_h: late(j, was_ms), late_h: late(j, becomes_ms) }
    })
    .filter(e => e.was_ms !== e.becomes_ms || e.id === asked)
    .sort((a, b) => shift(b) - shift(a))
}
/** A shop whose tasks were last where a schedule has them: a search of it begins there. */
export function begunFrom<S extends Shop>(shop: S, { placed }: Pick<Schedule, 'placed'>): S {
  const at = new Map(placed.map(p => [p.task, p]))
  return {
    ...shop,
    jobs: shop.jobs.map(j => ({ ...j, tasks: j.tasks.map(t => ({ ...t, last: at.get(t.id) ?? t.last })) })),
  }
}

/** Windows that break with a change and did not before. */
export const newlyMissed = (was: Schedule, becomes: Schedule): Schedule['missed'] => {
  const known = new Set(was.missed.map(m => `${m.from} ${m.to} ${m.what}`))
  return becomes.missed.filter(m => !known.has(`${m.from} ${m.to} ${m.what}`))
}
