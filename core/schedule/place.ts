/** Places tasks one group after the other, each as early as it may be: a serial schedule generation scheme. */
import type { Graph, Group, Node, Tie } from './graph'
import { GRID_MIN, type Missed, type Placed, type Schedule, type Shop, type Span, type Task } from './model'
import { FreeTime, gridUp, length_ms, RoomTime } from './timeline'

const MIN_MS = 60_000
/** So often a group is begun later so that its windows hold, before no window is long enough. */
const MOST_TRIES = 400
/** So often hands and rooms are asked for one task. */
const MOST_ASKED = 4000

/**
 * Who may do a task, as places in the shop's list: whoever can do least else first, so that others stay free.
 */
export const handsFor = ({ hands }: Shop, { skill }: Pick<Task, 'skill'>): number[] =>
  hands
    .flatMap((h, i) => (!skill || !h.skills || h.skills.has(skill) ? [i] : []))
    .sort((a, b) => (hands[a]!.skills?.size ?? Infinity) - (hands[b]!.skills?.size ?? Infinity) || a - b)

/** How tasks are placed, by their place in the graph. */
export interface Ways {
  /** whose hands it is kept for, as a place in the shop's list; -1: whoever is through first */
  hands: Int16Array
  /** so many quarters of an hour later than it could be: room for others inside a window */
  later: Uint8Array
  /** what a window ties begins no earlier than in the last schedule, where it kept it; 0: as early as it may */
  notBefore: Float64Array
}
interface Found {
  parts: readonly Span[]
  room: RoomTime
}
interface Book {
  placed: (Placed | null)[]
  unplaced: Schedule['unplaced'][number][]
  slipped: string[]
}

export class Placing {
  private readonly free: FreeTime[]
  private readonly rooms: RoomTime[]
  private readonly able = new Map<Task, { hands: number[]; rooms: RoomTime[] }>()
  private readonly book: Book

  constructor(
    private readonly shop: Shop,
    private readonly graph: Graph,
    private readonly ways: Ways,
  ) {
    this.free = shop.hands.map(h => new FreeTime(h.spans, shop.now_ms))
    this.rooms = shop.rooms.map(r => new RoomTime(r))
    this.book = { placed: graph.nodes.map(() => null), unplaced: [], slipped: [] }
    this.begun()
  }

  /** What is in hand goes on at once, where it is; what is pinned stands where it was put. */
  private begun(): void {
    const { now_ms } = this.shop
    this.graph.nodes.forEach((node, i) => {
      if (!node.task.begun) return
      const { start_ms, handId, roomId } = node.task.begun
      const hand = this.shop.hands.findIndex(h => h.id === handId)
      const parts = this.free[hand]?.earliest(now_ms, length_ms(node.task.minutes), false)
      const fallback: Span[] = [[now_ms, now_ms + node.task.minutes * MIN_MS]]
      this.take(i, { ...this.placeOf(node, parts ?? fallback, handId, roomId), start_ms })
    })
    this.graph.nodes.forEach((node, i) => {
      const { pin } = node.task
      if (!pin || node.task.begun) return
      const at = Math.max(now_ms, gridUp(pin.start_ms))
      const place = this.find(node, i, at, pin)
      if (place?.start_ms === at) this.take(i, place)
      else this.book.slipped.push(node.task.id)
    })
  }

  private placeOf(
    { task, job }: Node,
    parts: readonly Span[],
    handId: number | null = null,
    roomId: number | null = null,
    supportId: number | null = null,
  ): Placed {
    const [start_ms, end_ms] = [parts[0]![0], parts.at(-1)![1]]
    // written out: it is made more often than anything else
    return { task: task.id, jobId: job.id, handId, roomId, supportId, parts, start_ms, end_ms }
  }

  private ableFor(task: Task): { hands: number[]; rooms: RoomTime[] } {
    const known = this.able.get(task)
    if (known) return known
    const hands = handsFor(this.shop, task)
    const rooms = this.rooms.filter(r => r.allows(task))
    const able = { hands, rooms }
    this.able.set(task, able)
    return able
  }

  /** The earliest place of a task from a moment on: by end, then by the order of hands and rooms. */
  private find(node: Node, no: number, from_ms: number, only: Task['pin'] = null): Placed | null {
    const { task } = node
    if (task.hands === 0) {
      const start = gridUp(from_ms)
      return start > this.shop.until_ms ? null : this.placeOf(node, [[start, start + task.minutes * MIN_MS]])
    }
    const { hands: able, rooms } = this.ableFor(task)
    const hands = only || this.ways.hands[no]! < 0 ? able : [this.ways.hands[no]!]
    let best: Found | null = null
    let by = -1
    for (const h of hands) {
      if (only?.handId != null && this.shop.hands[h]!.id !== only.handId) continue
      const found = this.findFor(node, h, rooms, from_ms, best?.parts.at(-1)![1] ?? Infinity, only?.roomId ?? null)
      if (found) [best, by] = [found, h]
    }
    if (!best) return null
    const { parts, room } = best
    return this.placeOf(node, parts, this.shop.hands[by]!.id, room.room.id, room.supportFor(task, node.job.id, parts))
  }

  /** Where one pair of hands would be through before a moment. */
  private findFor(
    { task, job }: Node,
    h: number,
    rooms: readonly RoomTime[],
    from_ms: number,
    before_ms: number,
    only: number | null,
  ): Found | null {
    const length = length_ms(task.minutes)
    const free = this.free[h]!
    for (let [at, asked] = [gridUp(from_ms), 0]; asked < MOST_ASKED; asked++) {
      const parts = free.earliest(at, length, task.whole)
      if (!parts || parts[0]![0] > this.shop.until_ms || parts.at(-1)![1] >= before_ms) return null
      let again = Infinity
      for (const room of rooms) {
        if (only !== null && room.room.id !== only) continue
        const clash = room.clash(task, job.id, parts)
        if (clash === null) return { parts, room }
        again = Math.min(again, clash)
      }
      if (again === Infinity) return null
      at = Math.max(gridUp(again), at + 1)
    }
    return null
  }

  private take(i: number, place: Placed): void {
    this.book.placed[i] = place
    const { task } = this.graph.nodes[i]!
    if (task.hands === 0) return
    const hand = this.shop.hands.findIndex(h => h.id === place.handId)
    this.free[hand]?.take(place.parts)
    this.rooms.find(r => r.room.id === place.roomId)?.take(task, place, place.supportId)
  }
  private mark() {
    return { free: this.free.map(f => f.mark), taken: [] as number[] }
  }
  private backTo({ free, taken }: ReturnType<Placing['mark']>): void {
    this.free.forEach((f, i) => f.backTo(free[i]!))
    for (const i of taken.splice(0).toReversed()) {
      const place = this.book.placed[i]!
      this.rooms.find(r => r.room.id === place.roomId)?.give(this.graph.nodes[i]!.task, place, place.supportId)
      this.book.placed[i] = null
    }
  }

  /** Places a group whose predecessors were placed. What cannot be placed is told, and so is what follows it. */
  group(group: Group): void {
    const { nodes } = this.graph
    const open = group.members.filter(i => !this.book.placed[i])
    const fail = (why: Schedule['unplaced'][number]['why']) => {
      for (const i of open) this.book.unplaced.push({ task: nodes[i]!.task.id, jobId: group.job.id, why })
    }
    if (open.length === 0) return
    const lost = (t: Tie) => !group.members.includes(t.at) && !this.book.placed[t.at]
    if (open.some(i => nodes[i]!.before.some(lost))) return fail('behind')
    if (open.some(i => this.isImpossible(nodes[i]!.task))) return fail('never')
    const begin = this.notBefore(group)
    const mark = this.mark()
    for (let tries = 0; tries < MOST_TRIES; tries++) {
      const again = this.tryGroup(open, begin, mark.taken)
      if (again === 'done') {
        if (group.ifYes) this.release(mark)
        return
      }
      this.backTo(mark)
      // begun later and later until no time is left: no window was long enough
      if (again === 'late') return fail(tries === 0 ? 'late' : 'window')
    }
    fail('window')
  }

  /** What opens a window before something pinned begins so late that the window reaches it. */
  private notBefore({ members }: Group): Map<number, number> {
    const begin = new Map<number, number>()
    for (const i of members) {
      const place = this.book.placed[i]
      for (const { at, max_min } of place ? this.graph.nodes[i]!.before : [])
        if (max_min !== null && !this.book.placed[at])
          begin.set(at, Math.max(begin.get(at) ?? 0, place!.start_ms - max_min * MIN_MS))
    }
    return begin
  }

  /** Nobody and no room may ever do it. */
  private isImpossible(task: Task): boolean {
    if (task.hands === 0) return false
    const { hands, rooms } = this.ableFor(task)
    return hands.length === 0 || rooms.length === 0
  }

  /**
   * Held no longer: what hangs on somebody's word is shown where it would be, and takes nothing. What is agreed of its
   * group stays held.
   */
  private release(mark: ReturnType<Placing['mark']>): void {
    const kept = mark.taken.map(i => [i, this.book.placed[i]!] as const)
    this.backTo(mark)
    for (const [i, place] of kept)
      if (this.graph.nodes[i]!.task.ifYes) this.book.placed[i] = place
      else this.take(i, place)
  }

  /** One try; where a window did not hold, the task that opens it begins later next time. */
  private tryGroup(open: readonly number[], begin: Map<number, number>, taken: number[]): 'done' | 'again' | 'late' {
    const { nodes } = this.graph
    for (const i of open) {
      const node = nodes[i]!
      const ready = node.before.map(t => this.book.placed[t.at]!.end_ms + t.min_min * MIN_MS)
      const later = this.ways.later[i]! * GRID_MIN * MIN_MS
      const place = this.find(
        node,
        i,
        Math.max(
          later + Math.max(this.shop.now_ms, node.task.opens_ms ?? 0, begin.get(i) ?? 0, ...ready),
          this.ways.notBefore[i]!,
        ),
      )
      if (!place) return 'late'
      for (const tie of node.before) {
        if (tie.max_min === null) continue
        const from = this.book.placed[tie.at]!
        const latest = from.start_ms + tie.max_min * MIN_MS
        if (place.start_ms <= latest) continue
        if (open.includes(tie.at)) {
          begin.set(tie.at, gridUp(Math.max(place.start_ms - tie.max_min * MIN_MS, from.start_ms + 1)))
          return 'again'
        }
        // else it was begun, or is pinned: the window is missed whatever is done now
      }
      this.take(i, place)
      taken.push(i)
    }
    return 'done'
  }

  /** What the order and the windows of one task ask, and its place does not give. */
  private missedBy(node: Node, place: Placed): Missed[] {
    const { opens_ms, closes_ms, begun } = node.task
    // what stands in the first quarter may begin at once
    const at_ms = place.start_ms === gridUp(this.shop.now_ms) ? this.shop.now_ms : place.start_ms
    const own = { from: null, to: place.task }
    const missed = (what: Missed['what'], by_ms: number): Missed[] =>
      by_ms > 0 && !begun ? [{ ...own, what, by_min: by_ms / MIN_MS }] : []
    const alone = [
      ...missed('early', (opens_ms ?? 0) - place.start_ms),
      ...missed('late', at_ms - (closes_ms ?? Infinity)),
    ]
    const tied = node.before.flatMap(({ at, min_min, max_min }): Missed[] => {
      const from = this.book.placed[at]
      if (!from) return []
      const tie = { from: from.task, to: place.task }
      const early = (from.end_ms + min_min * MIN_MS - place.start_ms) / MIN_MS
      const late = max_min === null ? 0 : (at_ms - from.start_ms) / MIN_MS - max_min
      return [
        ...(early > 0 ? [{ ...tie, what: 'early' as const, by_min: early }] : []),
        ...(late > 0 ? [{ ...tie, what: 'late' as const, by_min: late }] : []),
      ]
    })
    return [...alone, ...tied]
  }

  get result(): Pick<Schedule, 'placed' | 'unplaced' | 'missed' | 'slipped'> {
    const { placed, unplaced, slipped } = this.book
    const missed = this.graph.nodes.flatMap((node, i) => (placed[i] ? this.missedBy(node, placed[i]) : []))
    return { placed: placed.flatMap(p => p ?? []), unplaced, missed, slipped }
  }
}
