/**
 * A schedule from a choice: groups are placed in its order, what comes before each of them first. Choices that are
 * tried one after the other differ little: the beginning that they have in common stays placed. A choice that is worse
 * already than it may be is left unfinished.
 */
import { costOf, jobHours, UNPLACED_H } from './cost'
import type { Graph, Group } from './graph'
import type { Schedule, Shop, Task } from './model'
import { type Mark, Placing, type Ways } from './place'

const MIN_MS = 60_000

/** By group: lower comes first, a group never before one that it follows. */
export type Order = Float64Array
/** What decides a schedule: the order of the groups, and how each task is placed. */
export interface Choice extends Ways {
  order: Order
}

/** A binary heap of group numbers by their order. */
class Ready {
  private readonly heap: number[] = []
  constructor(private readonly order: Order) {}
  private less(a: number, b: number): boolean {
    const [x, y] = [this.order[a]!, this.order[b]!]
    return x < y || (x === y && a < b)
  }
  push(g: number): void {
    const { heap } = this
    heap.push(g)
    for (let i = heap.length - 1; i > 0;) {
      const up = (i - 1) >> 1
      if (!this.less(heap[i]!, heap[up]!)) break
      ;[heap[i], heap[up]] = [heap[up]!, heap[i]!]
      i = up
    }
  }
  pop(): number | undefined {
    const { heap } = this
    const first = heap[0]
    const last = heap.pop()
    if (heap.length === 0 || last === undefined) return first
    heap[0] = last
    for (let i = 0; ;) {
      const [left, right] = [2 * i + 1, 2 * i + 2]
      let least = i
      if (left < heap.length && this.less(heap[left]!, heap[least]!)) least = left
      if (right < heap.length && this.less(heap[right]!, heap[least]!)) least = right
      if (least === i) return first
      ;[heap[i], heap[least]] = [heap[least]!, heap[i]!]
      i = least
    }
  }
}

/** Every group in an order, what comes before it first; what hangs on a word last, so that it hinders nobody. */
function* inOrder({ groups }: Graph, order: Order): Generator<number, void> {
  const left = groups.map(g => g.before.length)
  const late: number[] = []
  const ready = new Ready(order)
  const free = (g: number) => (groups[g]!.ifYes ? late.push(g) : ready.push(g))
  const done = (g: number) => {
    for (const next of groups[g]!.after) if (--left[next]! === 0) free(next)
  }
  left.forEach((n, g) => n === 0 && free(g))
  for (let g = ready.pop(); g !== undefined; g = ready.pop()) {
    yield g
    done(g)
  }
  for (const g of late) {
    yield g
    done(g)
  }
}

/** Every group in one order, from nothing. */
export function placeAll(shop: Shop, graph: Graph, { order, ...ways }: Choice): Placing['result'] {
  const placing = new Placing(shop, graph, ways)
  for (const g of inOrder(graph, order)) placing.group(graph.groups[g]!)
  return placing.result
}

/** Minutes of hands and waits from the end of each task to the end of its job, of those that count. */
export function tails({ nodes }: Graph, counts: (task: Task) => boolean = () => true): Float64Array {
  const behind = new Float64Array(nodes.length)
  for (let i = nodes.length - 1; i >= 0; i--) {
    const { task, before } = nodes[i]!
    if (!counts(task)) continue
    for (const { at, min_min } of before) behind[at] = Math.max(behind[at]!, task.minutes + behind[i]! + min_min)
  }
  return behind
}

/** Where a placing stood before a group was placed. */
interface Before {
  group: number
  mark: Mark
  /** hours late and until ready that are certain by then */
  hours: number
  ends: number
}

export class Builder {
  private readonly placing: Placing
  private readonly before: Before[] = []
  private readonly behind: Float64Array
  private readonly jobOf: Int32Array
  /** by job: it is not through before */
  private readonly ends_ms: Float64Array
  /** what these were before they changed */
  private readonly changed: { job: number; end_ms: number }[] = []
  private hours = 0
  private last: Ways

  constructor(
    private readonly shop: Shop,
    private readonly graph: Graph,
    ways: Ways,
  ) {
    this.placing = new Placing(shop, graph, ways)
    this.last = ways
    // what stands already waits for nothing
    this.behind = tails(graph, t => !t.begun && !t.pin)
    const places = new Map(shop.jobs.map((j, i) => [j.id, i]))
    this.jobOf = Int32Array.from(graph.nodes, n => places.get(n.job.id)!)
    this.ends_ms = new Float64Array(shop.jobs.length).fill(-Infinity)
    graph.nodes.forEach(({ task }, i) => {
      if (!task.begun && !task.pin) this.bound(i, shop.now_ms + task.minutes * MIN_MS)
    })
    graph.nodes.forEach((_, i) => this.placed(i))
  }

  private placed(i: number): void {
    const place = this.placing.at(i)
    if (place) this.bound(i, place.end_ms)
  }
  /** What is certain of a job by when one of its tasks ends at the earliest. */
  private bound(i: number, its_ms: number): void {
    const job = this.jobOf[i]!
    const end_ms = its_ms + this.behind[i]! * MIN_MS
    const was_ms = this.ends_ms[job]!
    if (end_ms <= was_ms) return
    this.changed.push({ job, end_ms: was_ms })
    this.ends_ms[job] = end_ms
    const { now_ms, jobs } = this.shop
    this.hours += jobHours(jobs[job]!, end_ms, now_ms) - jobHours(jobs[job]!, was_ms, now_ms)
  }

  private backTo(at: number): void {
    const to = this.before[at]
    if (!to) return
    this.placing.backTo(to.mark)
    while (this.changed.length > to.ends) {
      const { job, end_ms } = this.changed.pop()!
      this.ends_ms[job] = end_ms
    }
    this.hours = to.hours
    this.before.length = at
  }

  private alike({ members }: Group, ways: Ways): boolean {
    const { last } = this
    return members.every(
      i =>
        ways.hands[i] === last.hands[i] &&
        ways.rooms[i] === last.rooms[i] &&
        ways.supports[i] === last.supports[i] &&
        ways.later[i] === last.later[i] &&
        ways.notBefore[i] === last.notBefore[i],
    )
  }

  /** The schedule of a choice; null where its hours are certain to be over the most that are wanted. */
  build({ order, ...ways }: Choice, most_h: number): Schedule | null {
    const { placing, graph, before } = this
    let at = 0
    let same = true
    for (const g of inOrder(graph, order)) {
      const group = graph.groups[g]!
      if (same && before[at]?.group === g && this.alike(group, ways)) {
        at++
        continue
      }
      if (same) {
        same = false
        this.backTo(at)
        this.last = placing.ways = ways
      }
      if (this.hours + UNPLACED_H * placing.countUnplaced > most_h) return null
      before.push({ group: g, mark: placing.mark, hours: this.hours, ends: this.changed.length })
      placing.group(group)
      for (const i of group.members) this.placed(i)
    }
    if (same) this.last = placing.ways = ways
    if (this.hours + UNPLACED_H * placing.countUnplaced > most_h) return null
    const found = placing.result
    return { ...found, cost: costOf(this.shop, found) }
  }
}
