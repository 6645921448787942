/** Why a task stands where it does: what holds it back from the quarter of an hour before. */
import { tasksOf } from './cost'
import type { Placed, Schedule, Shop } from './model'

const MIN_MS = 60_000
/** What holds it: what it follows, whose hands, which room, or nothing but the hours that somebody is there. */
export type Why =
  | { by: 'begun' | 'pin' | 'now' | 'hours' }
  | { by: 'wait' | 'hand' | 'room'; task: string }
  | { by: 'window'; task: string }
  | { by: 'dries' }

function grouped<K>(placed: readonly Placed[], of: (p: Placed) => K): Map<K, Placed[]> {
  const groups = new Map<K, Placed[]>()
  for (const p of placed) groups.set(of(p), [...(groups.get(of(p)) ?? []), p])
  return groups
}

/** Why each placed task does not begin earlier. */
export function whyHere(shop: Shop, { placed, slipped }: Pick<Schedule, 'placed' | 'slipped'>): Map<string, Why> {
  const tasks = tasksOf(shop)
  const at = new Map(placed.map(p => [p.task, p]))
  const byHand = grouped(placed, p => p.handId)
  const byRoom = grouped(placed, p => p.roomId)
  const followed = new Map<string, { to: string; max_min: number }[]>()
  for (const t of tasks.values())
    for (const { from, max_min } of t.after)
      if (max_min !== null) followed.set(from, [...(followed.get(from) ?? []), { to: t.id, max_min }])
  return new Map(placed.map(p => [p.task, of(p)]))

  function of(p: Placed): Why {
    const task = tasks.get(p.task)!
    if (task.begun) return { by: 'begun' }
    if (task.pin && !slipped.includes(p.task)) return { by: 'pin' }
    if (p.start_ms <= shop.now_ms + 15 * MIN_MS) return { by: 'now' }
    const slack = (ms: number) => p.start_ms - ms < 15 * MIN_MS
    const waits = task.after.find(l => at.has(l.from) && slack(at.get(l.from)!.end_ms + l.min_min * MIN_MS))
    if (waits) return { by: 'wait', task: waits.from }
    if (task.opens_ms !== null && slack(task.opens_ms)) return { by: 'dries' }
    const hand = byHand
      .get(p.handId)
      ?.find(o => o.task !== p.task && holds(o) && o.parts.some(x => x[1] === p.start_ms))
    if (hand) return { by: 'hand', task: hand.task }
    const room = byRoom
      .get(p.roomId)
      ?.find(o => o.task !== p.task && holds(o) && tasks.get(o.task)!.makes !== 'other' && clears(o, p))
    if (room && task.makes !== 'other') return { by: 'room', task: room.task }
    const window = followed.get(p.task)?.find(f => at.has(f.to))
    return window ? { by: 'window', task: window.to } : { by: 'hours' }
  }
  function holds(o: Placed): boolean {
    return !tasks.get(o.task)!.ifYes && tasks.get(o.task)!.hands > 0
  }
  /** It stops hindering just when the other begins. */
  function clears(o: Placed, p: Placed): boolean {
    const room = shop.rooms.find(r => r.id === p.roomId)!
    const other = tasks.get(o.task)!
    const free = other.makes === 'wet' ? o.end_ms + other.wet_min * MIN_MS : o.end_ms + room.changeOver_min * MIN_MS
    return Math.abs(p.start_ms - free) < 15 * MIN_MS
  }
}
