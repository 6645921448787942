/**
 * Looks at a finished schedule as an inspector would, and tells every hard rule that it breaks. It shares nothing with
 * what places tasks: it asks only the shop, and goes over pairs.
 */
import { GRID_MIN, type Placed, type Room, type Schedule, type Shop, type Span, type Task } from './model'

const MIN_MS = 60_000
export interface Broken {
  rule:
    | 'placed-once'
    | 'minutes'
    | 'hours'
    | 'laid-aside'
    | 'grid'
    | 'too-early'
    | 'skill'
    | 'two-at-once'
    | 'room'
    | 'dust-and-wet'
    | 'one-at-a-time'
    | 'support'
    | 'air'
    | 'wait'
    | 'window'
    | 'begun'
    | 'pin'
  task: string
  other?: string
}

const overlap = (a: Span, b: Span) => a[0] < b[1] && b[0] < a[1]

/** Every hard rule that a schedule breaks; none where it is sound. */
export function check(shop: Shop, schedule: Schedule): Broken[] {
  const broken: Broken[] = []
  const tell = (rule: Broken['rule'], task: string, other?: string) => broken.push({ rule, task, other })
  const tasks = new Map(shop.jobs.flatMap(j => j.tasks.map(t => [t.id, t] as const)))
  const places = new Map<string, Placed>()
  for (const p of schedule.placed) {
    if (!tasks.has(p.task) || places.has(p.task)) tell('placed-once', p.task)
    places.set(p.task, p)
  }
  const without = new Set(schedule.unplaced.map(u => u.task))
  for (const id of tasks.keys()) if (places.has(id) === without.has(id)) tell('placed-once', id)

  for (const [id, p] of places) alone(shop, tasks.get(id)!, p, schedule, tell)
  // what stands in the first quarter may begin at once
  const beginOf = (p: Placed) => (p.start_ms - shop.now_ms < GRID_MIN * MIN_MS ? shop.now_ms : p.start_ms)
  const excused = new Set(schedule.missed.map(m => `${m.from} ${m.to} ${m.what}`))
  for (const [id, p] of places) {
    const { opens_ms, closes_ms, begun } = tasks.get(id)!
    if (!begun && opens_ms !== null && p.start_ms < opens_ms && !excused.has(`null ${id} early`)) tell('wait', id)
    if (!begun && closes_ms !== null && beginOf(p) > closes_ms && !excused.has(`null ${id} late`)) tell('window', id)
  }
  for (const [id, p] of places)
    for (const { from, min_min, max_min } of tasks.get(id)!.after) {
      const before = places.get(from)
      if (!before) {
        if (!without.has(from)) tell('wait', id, from)
        continue
      }
      if (p.start_ms < before.end_ms + min_min * MIN_MS && !excused.has(`${from} ${id} early`)) tell('wait', id, from)
      if (max_min !== null && beginOf(p) > before.start_ms + max_min * MIN_MS && !excused.has(`${from} ${id} late`))
        tell('window', id, from)
    }
  const holds = [...places.values()].filter(p => !tasks.get(p.task)!.ifYes && tasks.get(p.task)!.hands > 0)
  for (const [i, a] of holds.entries())
    for (const b of holds.slice(i + 1)) both(shop, [tasks.get(a.task)!, a], [tasks.get(b.task)!, b], tell)
  for (const room of shop.rooms) crowded(room, holds, tasks, tell)
  return broken
}

type Tell = (rule: Broken['rule'], task: string, other?: string) => unknown

/** What one task asks for by itself. */
function alone(shop: Shop, task: Task, p: Placed, schedule: Schedule, tell: Tell): void {
  if (p.start_ms !== (task.begun?.start_ms ?? p.parts[0]![0]) || p.end_ms !== p.parts.at(-1)![1])
    tell('minutes', p.task)
  if (task.begun) {
    const { handId, roomId } = task.begun
    if (p.handId !== handId || p.roomId !== roomId) tell('begun', p.task)
    return
  }
  if (p.start_ms < shop.now_ms) tell('too-early', p.task)
  if (p.start_ms % (GRID_MIN * MIN_MS) !== 0) tell('grid', p.task)
  if (task.pin && !schedule.slipped.includes(p.task)) {
    const { start_ms, handId, roomId } = task.pin
    const off = Math.abs(p.start_ms - Math.max(start_ms, shop.now_ms)) >= GRID_MIN * MIN_MS
    if (off || (handId !== null && p.handId !== handId) || (roomId !== null && p.roomId !== roomId)) tell('pin', p.task)
  }
  if (task.hands === 0) return
  const worked = p.parts.reduce((sum, [from, to]) => sum + (to - from), 0) / MIN_MS
  if (worked < task.minutes || worked >= Math.max(GRID_MIN, task.minutes + GRID_MIN)) tell('minutes', p.task)
  const hand = shop.hands.find(h => h.id === p.handId)
  const room = shop.rooms.find(r => r.id === p.roomId)
  if (!hand || (task.skill && hand.skills && !hand.skills.has(task.skill))) tell('skill', p.task)
  const spans = (hand?.spans ?? []).filter(([from, to]) => p.parts.some(part => overlap(part, [from, to])))
  if (p.parts.some(([from, to]) => !spans.some(s => s[0] <= from && to <= s[1]))) tell('hours', p.task)
  if (task.whole && p.parts.length > 1) tell('laid-aside', p.task)
  // between two parts nobody was there, up to the grid
  const idle = p.parts.slice(1).some(([from], i) => {
    const gap: Span = [p.parts[i]![1], from]
    return (hand?.spans ?? []).some(s => Math.min(s[1], gap[1]) - Math.max(s[0], gap[0]) >= GRID_MIN * MIN_MS)
  })
  if (idle) tell('laid-aside', p.task)
  if (!room?.allows[task.makes]) tell('room', p.task)
  if (room?.shut.some(s => p.parts.some(part => overlap(part, s)))) tell('room', p.task)
  const closed = task.makes === 'wet' ? (room?.closedTo[task.air ?? ''] ?? []) : []
  if (closed.some(([from, to]) => from <= p.start_ms && p.start_ms < to)) tell('air', p.task)
}

/** What two tasks take from each other. */
function both(shop: Shop, [ta, a]: [Task, Placed], [tb, b]: [Task, Placed], tell: Tell): void {
  if (ta.begun && tb.begun) return
  if (a.handId === b.handId && a.parts.some(x => b.parts.some(y => overlap(x, y)))) tell('two-at-once', a.task, b.task)
  if (a.roomId !== b.roomId || a.roomId === null) return
  const room = shop.rooms.find(r => r.id === a.roomId)!
  const [dust, wet] = ta.makes === 'dust' ? [a, b] : [b, a]
  const [td, tw] = ta.makes === 'dust' ? [ta, tb] : [tb, ta]
  if (td.makes === 'dust' && tw.makes === 'wet') {
    const dries: Span = [wet.start_ms, wet.end_ms + tw.wet_min * MIN_MS]
    const dusty = dust.parts.some(([from, to]) => overlap([from, to + room.changeOver_min * MIN_MS], dries))
    if (dusty) tell('dust-and-wet', dust.task, wet.task)
  }
  const alike = ta.makes !== 'wet' || tb.makes !== 'wet' || ta.product === tb.product
  if (room.oneAtATime && !alike && overlap([a.start_ms, a.end_ms], [b.start_ms, b.end_ms]))
    tell('one-at-a-time', a.task, b.task)
}

/** Supports of a room, at each moment at which something is laid on one. */
function crowded(room: Room, holds: readonly Placed[], tasks: ReadonlyMap<string, Task>, tell: Tell): void {
  const wet = holds.filter(p => p.roomId === room.id && tasks.get(p.task)!.makes === 'wet')
  if (room.supports.length === 0) return
  const untilOf = (p: Placed) => p.end_ms + tasks.get(p.task)!.wet_min * MIN_MS
  for (const p of wet) {
    const task = tasks.get(p.task)!
    if (task.begun) continue
    const support = room.supports.find(s => s.id === p.supportId)
    if (!support || (support.length_mm !== null && task.length_mm > support.length_mm)) {
      tell('support', p.task)
      continue
    }
    const there = wet.filter(o => o.supportId === support.id && o.start_ms <= p.start_ms && p.start_ms < untilOf(o))
    const area = there.reduce((sum, o) => sum + tasks.get(o.task)!.area_m2, 0)
    if (support.area_m2 === null ? there.some(o => o.jobId !== p.jobId) : area > support.area_m2 + 1e-6)
      tell('support', p.task)
  }
}
