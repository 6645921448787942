/** Places tasks one group after the other, each as early as it may be: a serial schedule generation scheme. */
import type { Graph, Group, Node } from './graph'
import { GRID_MIN, type Missed, type Placed, type Schedule, type Shop, type Span, type Task } from './model'
import { endOf, FreeTime, gridUp, length_ms, RoomTime } from './timeline'

const MIN_MS = 60_000
/** So often a group is begun later so that its windows hold, before no window is long enough. */
const MOST_TRIES = 400
/** So often hands and rooms are asked for one task. */
const MOST_ASKED = 4000

/** No hands and no room in particular; nobody's and none where one was named that is gone. */
const ANY = -1
const NONE = -2
type Pin = NonNullable<Task['pin']>
const placeIn = (all: readonly { id: number }[], id: number): number => {
  const at = all.findIndex(x => x.id === id)
  return at < 0 ? NONE : at
}

/** How tasks are placed, by their place in the graph. */
export interface Ways {
  /** whose hands it is kept for, as a place in the shop's list; -1: whoever is through first */
  hands: Int16Array
  /** which room it is kept for, likewise; -1: whichever takes it first */
  rooms: Int16Array
  /** ids of the supports on which they lie, where these still have room for them; -1: on any */
  supports: Float64Array
  /** so many quarters of an hour later than it could be: room for others inside a window */
  later: Uint8Array
  /** no earlier than in the schedule that it keeps to; 0: as early as it may */
  notBefore: Float64Array
}
/** Where a task goes: hands and room as places in the shop's lists, -1 for none. */
interface Seat {
  place: Placed
  hand: number
  room: number
}
/** A point to come back to. */
export interface Mark {
  seats: number
  unplaced: number
}

export class Placing {
  private readonly free: FreeTime[]
  private readonly rooms: RoomTime[]
  private readonly seats: (Seat | null)[]
  /** tasks in the order in which they were placed; ~task where it holds nothing */
  private readonly order: number[] = []
  private readonly unplaced: Schedule['unplaced'][number][] = []
  private readonly slipped: string[] = []
  private readonly mayMiss: number[]

  constructor(
    private readonly shop: Shop,
    private readonly graph: Graph,
    public ways: Ways,
  ) {
    this.free = shop.hands.map(h => new FreeTime(h.spans, shop.now_ms))
    this.rooms = shop.rooms.map(r => new RoomTime(r))
    this.seats = graph.nodes.map(() => null)
    this.mayMiss = graph.nodes.flatMap((n, i) => (mayMiss(n, graph) ? [i] : []))
    this.begun()
  }

  /** What is in hand goes on at once, where it is; what is pinned stands where it was put. */
  private begun(): void {
    const { now_ms, hands, rooms } = this.shop
    this.graph.nodes.forEach((node, i) => {
      if (!node.task.begun) return
      const { start_ms, handId, roomId } = node.task.begun
      const hand = hands.findIndex(h => h.id === handId)
      const parts = this.free[hand]?.earliest(now_ms, length_ms(node.task.minutes), false)
      const fallback: Span[] = [[now_ms, now_ms + node.task.minutes * MIN_MS]]
      const place = { ...placeOf(node, parts ?? fallback, handId, roomId, null), start_ms }
      this.take(i, { place, hand, room: rooms.findIndex(r => r.id === roomId) })
    })
    this.graph.nodes.forEach((node, i) => {
      const { pin } = node.task
      if (!pin || node.task.begun) return
      const at = Math.max(now_ms, gridUp(pin.start_ms))
      const seat = this.find(i, at, pin)
      if (seat?.place.start_ms === at) this.take(i, seat)
      else this.slipped.push(node.task.id)
    })
  }

  /** The earliest place of a task from a moment on: by end, then by the order of hands and rooms. */
  private find(i: number, from_ms: number, only: Pin | null = null): Seat | null {
    const node = this.graph.nodes[i]!
    const { task } = node
    if (task.hands === 0) {
      const start = gridUp(from_ms)
      const parts: Span[] = [[start, start + task.minutes * MIN_MS]]
      return start > this.shop.until_ms ? null : { place: placeOf(node, parts, null, null, null), hand: -1, room: -1 }
    }
    if (only) return this.seatFor(i, from_ms, this.handOf(only), this.roomOf(only))
    const [hand, room] = [this.ways.hands[i]!, this.ways.rooms[i]!]
    const found = this.seatFor(i, from_ms, hand, room)
    // whoever or whatever it was kept for may be gone for good
    return found || (hand === ANY && room === ANY) ? found : this.seatFor(i, from_ms, ANY, ANY)
  }
  private handOf({ handId }: Pin): number {
    return handId === null ? ANY : placeIn(this.shop.hands, handId)
  }
  private roomOf({ roomId }: Pin): number {
    return roomId === null ? ANY : placeIn(this.shop.rooms, roomId)
  }

  private seatFor(i: number, from_ms: number, onlyHand: number, onlyRoom: number): Seat | null {
    const node = this.graph.nodes[i]!
    const { task, job } = node
    let parts: readonly Span[] | null = null
    let [hand, room] = [-1, -1]
    for (const h of node.hands) {
      if (onlyHand !== ANY && h !== onlyHand) continue
      const found = this.findFor(node, h, from_ms, parts ? endOf(parts) : Infinity, onlyRoom)
      if (found) [parts, hand, room] = [found.parts, h, found.room]
    }
    if (!parts) return null
    const { id } = this.shop.rooms[room]!
    const supportId = this.rooms[room]!.supportFor(task, job.id, parts, this.ways.supports[i]!)
    return { place: placeOf(node, parts, this.shop.hands[hand]!.id, id, supportId), hand, room }
  }

  /** Where one pair of hands would be through before a moment. */
  private findFor({ task, job, rooms }: Node, h: number, from_ms: number, before_ms: number, only: number) {
    const length = length_ms(task.minutes)
    const free = this.free[h]!
    for (let [at, asked] = [gridUp(from_ms), 0]; asked < MOST_ASKED; asked++) {
      const parts = free.earliest(at, length, task.whole)
      if (!parts || parts[0]![0] > this.shop.until_ms || endOf(parts) >= before_ms) return null
      let again = Infinity
      for (const r of rooms) {
        const room = this.rooms[r]!
        if (only !== ANY && r !== only) continue
        const clash = room.clash(task, job.id, parts)
        if (clash === null) return { parts, room: r }
        if (clash < again) again = clash
      }
      if (again === Infinity) return null
      at = Math.max(gridUp(again), at + 1)
    }
    return null
  }

  private take(i: number, seat: Seat): void {
    this.seats[i] = seat
    this.order.push(i)
    const { task } = this.graph.nodes[i]!
    if (task.hands === 0) return
    this.free[seat.hand]?.take(seat.place.parts)
    this.rooms[seat.room]?.take(task, seat.place, seat.place.supportId)
  }
  private give(i: number): void {
    const { task } = this.graph.nodes[i]!
    const seat = this.seats[i]!
    this.seats[i] = null
    if (task.hands === 0) return
    this.free[seat.hand]?.give()
    this.rooms[seat.room]?.give(task, seat.place, seat.place.supportId)
  }
  get mark(): Mark {
    return { seats: this.order.length, unplaced: this.unplaced.length }
  }
  /** Takes back what was placed since. */
  backTo({ seats, unplaced }: Mark): void {
    while (this.order.length > seats) {
      const i = this.order.pop()!
      if (i < 0) this.seats[~i] = null
      else this.give(i)
    }
    this.unplaced.length = unplaced
  }

  /** Where a task is by now, or nowhere. */
  at(i: number): Placed | null {
    return this.seats[i]?.place ?? null
  }
  get countUnplaced(): number {
    return this.unplaced.length
  }

  /** Places a group whose predecessors were placed. What cannot be placed is told, and so is what follows it. */
  group(group: Group): void {
    const { nodes } = this.graph
    const open = group.members.filter(i => !this.seats[i])
    if (open.length === 0) return
    const fail = (why: Schedule['unplaced'][number]['why']) => {
      for (const i of open) this.unplaced.push({ task: nodes[i]!.task.id, jobId: group.job.id, why })
    }
    for (const i of open)
      for (const { at } of nodes[i]!.before) if (!this.seats[at] && !group.members.includes(at)) return fail('behind')
    for (const i of open) if (isImpossible(nodes[i]!)) return fail('never')
    const begin = group.members.length > 1 ? this.notBefore(group) : NOTHING
    const { mark } = this
    for (let tries = 0; tries < MOST_TRIES; tries++) {
      const again = this.tryGroup(open, begin)
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
      const place = this.at(i)
      for (const { at, max_min } of place ? this.graph.nodes[i]!.before : [])
        if (max_min !== null && !this.seats[at])
          begin.set(at, Math.max(begin.get(at) ?? 0, place!.start_ms - max_min * MIN_MS))
    }
    return begin
  }

  /**
   * Held no longer: what hangs on somebody's word is shown where it would be, and takes nothing. What is agreed of its
   * group stays held.
   */
  private release(mark: Mark): void {
    const kept = this.order.slice(mark.seats).map(i => [i, this.seats[i]!] as const)
    this.backTo(mark)
    for (const [i, seat] of kept) {
      if (!this.graph.nodes[i]!.task.ifYes) this.take(i, seat)
      else {
        this.seats[i] = seat
        this.order.push(~i)
      }
    }
  }

  /** One try; where a window did not hold, the task that opens it begins later next time. */
  private tryGroup(open: readonly number[], begin: Map<number, number>): 'done' | 'again' | 'late' {
    const { nodes } = this.graph
    for (const i of open) {
      const { task, before } = nodes[i]!
      let from_ms = Math.max(this.shop.now_ms, task.opens_ms ?? 0, begin.get(i) ?? 0)
      for (const { at, min_min } of before) {
        const ready_ms = this.seats[at]!.place.end_ms + min_min * MIN_MS
        if (ready_ms > from_ms) from_ms = ready_ms
      }
      const later_ms = this.ways.later[i]! * GRID_MIN * MIN_MS
      const seat = this.find(i, Math.max(from_ms + later_ms, this.ways.notBefore[i]!))
      if (!seat) return 'late'
      for (const { at, max_min } of before) {
        if (max_min === null) continue
        const { start_ms } = this.seats[at]!.place
        if (seat.place.start_ms <= start_ms + max_min * MIN_MS) continue
        if (open.includes(at)) {
          begin.set(at, gridUp(Math.max(seat.place.start_ms - max_min * MIN_MS, start_ms + 1)))
          return 'again'
        }
        // else it was begun, or is pinned: the window is missed whatever is done now
      }
      this.take(i, seat)
    }
    return 'done'
  }

  /** What the order and the windows of one task ask, and its place does not give. */
  private missedBy(i: number): Missed[] {
    const place = this.at(i)
    if (!place) return []
    const { task, before } = this.graph.nodes[i]!
    // what stands in the first quarter may begin at once
    const at_ms = place.start_ms === gridUp(this.shop.now_ms) ? this.shop.now_ms : place.start_ms
    const missed: Missed[] = []
    const tell = (from: string | null, what: Missed['what'], by_ms: number) => {
      if (by_ms > 0) missed.push({ from, to: place.task, what, by_min: by_ms / MIN_MS })
    }
    if (!task.begun) {
      tell(null, 'early', (task.opens_ms ?? 0) - place.start_ms)
      tell(null, 'late', at_ms - (task.closes_ms ?? Infinity))
    }
    for (const { at, min_min, max_min } of before) {
      const from = this.at(at)
      if (!from) continue
      tell(from.task, 'early', from.end_ms + min_min * MIN_MS - place.start_ms)
      if (max_min !== null) tell(from.task, 'late', at_ms - from.start_ms - max_min * MIN_MS)
    }
    return missed
  }

  get result(): Pick<Schedule, 'placed' | 'unplaced' | 'missed' | 'slipped'> {
    return {
      placed: this.seats.flatMap(s => s?.place ?? []),
      unplaced: [...this.unplaced],
      missed: this.mayMiss.flatMap(i => this.missedBy(i)),
      slipped: this.slipped,
    }
  }
}

const stands = ({ begun, pin }: Task): boolean => begun !== null || pin !== null
/** Whether it can lie where its order and windows do not want it: all else is placed as they ask. */
const mayMiss = ({ task, before }: Node, { nodes }: Graph): boolean =>
  stands(task) || task.opens_ms !== null || task.closes_ms !== null || before.some(t => stands(nodes[t.at]!.task))

const NOTHING = new Map<number, number>()

function placeOf(
  { task, job }: Node,
  parts: readonly Span[],
  handId: number | null,
  roomId: number | null,
  supportId: number | null,
): Placed {
  // written out: it is made more often than anything else
  return {
    task: task.id,
    jobId: job.id,
    handId,
    roomId,
    supportId,
    parts,
    start_ms: parts[0]![0],
    end_ms: endOf(parts),
  }
}

/** Nobody and no room may ever do it. */
const isImpossible = ({ task, hands, rooms }: Node): boolean =>
  task.hands > 0 && (hands.length === 0 || rooms.length === 0)
