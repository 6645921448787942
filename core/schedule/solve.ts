/**
 * Finds a good schedule: places all groups in one order after the other, begins with rules of thumb, and goes on with
 * small changes of the best order. Chance comes in as a seed: the same shop and seed give the same schedules.
 */
import { costOf, endOf, lateHours, sumOf } from './cost'
import { type Graph, graphOf } from './graph'
import type { Job, Schedule, Shop, Task } from './model'
import { handsFor, Placing, type Ways } from './place'

const MIN_MS = 60_000

/** Random numbers from 0 to 1 (mulberry32). */
export function chance(seed: number): () => number {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = Math.imul(a ^ (a >>> 15), a | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4_294_967_296
  }
}

/** By group: lower comes first, a group never before one that it follows. */
type Order = Float64Array
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

/** Every group in this order, what comes before it first. */
export function placeAll(shop: Shop, graph: Graph, { order, ...ways }: Choice): Placing['result'] {
  const placing = new Placing(shop, graph, ways)
  const left = graph.groups.map(g => g.before.length)
  // what hangs on somebody's word comes last: it holds nothing, so that it hinders nobody
  const late: number[] = []
  const ready = new Ready(order)
  left.forEach((n, g) => n === 0 && (graph.groups[g]!.ifYes ? late.push(g) : ready.push(g)))
  const place = (g: number) => {
    placing.group(graph.groups[g]!)
    for (const next of graph.groups[g]!.after)
      if (--left[next]! === 0) (graph.groups[next]!.ifYes ? late : { push: (n: number) => ready.push(n) }).push(next)
  }
  for (let g = ready.pop(); g !== undefined; g = ready.pop()) place(g)
  for (let i = 0; i < late.length; i++) place(late[i]!)
  return placing.result
}
function build(shop: Shop, graph: Graph, choice: Choice): Schedule {
  const found = placeAll(shop, graph, choice)
  return { ...found, cost: costOf(shop, found) }
}

/** So far before every other order. */
const FIRST_MS = 1e13

/** Minutes of hands and waits from the start of each group to the end of its job. */
function tails(graph: Graph): Float64Array {
  const { nodes, groups } = graph
  const behind = new Float64Array(nodes.length)
  for (let i = nodes.length - 1; i >= 0; i--) {
    behind[i]! += nodes[i]!.task.minutes
    for (const { at, min_min } of nodes[i]!.before) behind[at] = Math.max(behind[at]!, behind[i]! + min_min)
  }
  return Float64Array.from(groups, g => Math.max(...g.members.map(i => behind[i]!)))
}

/** Rules of thumb, each an order: by day, by time to spare, by weight, and by what is through soonest. */
function firstOrders(shop: Shop, graph: Graph): Order[] {
  const behind = tails(graph)
  const whole = new Map<number, number>()
  graph.groups.forEach((g, i) => whole.set(g.job.id, Math.max(whole.get(g.job.id) ?? 0, behind[i]!)))
  const due = (g: Graph['groups'][number]) => g.job.due_ms ?? shop.until_ms
  // what closes comes before all else, the first to close first
  const closes = graph.groups.map(g => Math.min(...g.members.map(i => graph.nodes[i]!.task.closes_ms ?? Infinity)))
  const by = (of: (g: Graph['groups'][number], i: number) => number): Order =>
    Float64Array.from(graph.groups, (g, i) => (closes[i]! < Infinity ? closes[i]! - FIRST_MS : of(g, i)))
  const spare = by((g, i) => due(g) - behind[i]! * MIN_MS)
  return [
    spare,
    by(g => due(g) + g.job.id),
    by(g => due(g) - whole.get(g.job.id)! * MIN_MS),
    by((g, i) => (due(g) - shop.now_ms - behind[i]! * MIN_MS) / g.job.weight),
    by(g => whole.get(g.job.id)!),
    ...jobAfterJob(shop, graph),
  ]
}

/** One job after the other, what is left in between filled by those that follow. */
function jobAfterJob(shop: Shop, graph: Graph): Order[] {
  const work = new Map(shop.jobs.map(j => [j.id, j.tasks.reduce((sum, t) => sum + t.minutes * t.hands, 0) * MIN_MS]))
  const all = [...work.values()].reduce((sum, w) => sum + w, 0)
  const slack = ({ id, due_ms }: Job) => Math.max(0, (due_ms ?? shop.until_ms) - shop.now_ms - work.get(id)! * 2)
  const rules = [
    (j: Job) => work.get(j.id)! / j.weight,
    (j: Job) => j.due_ms ?? shop.until_ms,
    ...[0.1, 0.3, 1].map(k => (j: Job) => (work.get(j.id)! / j.weight) * Math.exp(slack(j) / (k * all))),
  ]
  const step = (shop.until_ms - shop.now_ms) / Math.max(1, shop.jobs.length)
  return rules.map(rule => {
    const ranks = new Map(shop.jobs.toSorted((a, b) => rule(a) - rule(b)).map((j, i) => [j.id, i]))
    return Float64Array.from(graph.groups, (g, i) => shop.now_ms + ranks.get(g.job.id)! * step + i)
  })
}

/** As the last schedule had it, what is new by the time that it can be left for; null where there was none. */
function lastChoice(shop: Shop, graph: Graph, { order, hands, later }: Choice, tied: readonly number[]): Choice | null {
  const lastOf = ({ members }: Graph['groups'][number]) =>
    Math.min(...members.map(i => graph.nodes[i]!.task.last?.start_ms ?? Infinity))
  const last = graph.groups.map(lastOf)
  if (!last.some(Number.isFinite)) return null
  const places = new Map(shop.hands.map((h, i) => [h.id, i]))
  const able = (task: Task, hand: number | undefined) =>
    hand !== undefined && handsFor(shop, task).includes(hand) ? hand : -1
  return {
    order: order.map((spare, g) => (Number.isFinite(last[g]!) && spare > -FIRST_MS / 2 ? last[g]! : spare)),
    hands: hands.map((_, i) => {
      const { task } = graph.nodes[i]!
      return able(task, task.last ? places.get(task.last.handId ?? NaN) : undefined)
    }),
    later,
    notBefore: Float64Array.from(hands, (_, i) => (tied.includes(i) ? (graph.nodes[i]!.task.last?.start_ms ?? 0) : 0)),
  }
}

/** Other hands for a few tasks. */
function otherHands(shop: Shop, graph: Graph, hands: Int16Array, random: () => number): Int16Array {
  const next = hands.slice()
  for (let count = 1 + Math.floor(random() * 3); count > 0; count--) {
    const i = Math.floor(random() * next.length)
    const able = handsFor(shop, graph.nodes[i]!.task)
    next[i] = random() < 0.4 ? -1 : (able[Math.floor(random() * able.length)] ?? -1)
  }
  return next
}

/** A window is kept open a little for somebody else's work, or no more. */
function otherRoom({ later, notBefore }: Ways, tied: readonly number[], random: () => number) {
  const next = { later: later.slice(), notBefore: notBefore.slice() }
  const i = tied[Math.floor(random() * tied.length)]
  if (i === undefined) return next
  next.later[i] = random() < 0.4 ? 0 : Math.floor(random() * 12)
  next.notBefore[i] = 0
  return next
}

/** Another order near this one: a job that is late comes earlier, two change places, a few groups are shaken. */
function otherOrder(shop: Shop, graph: Graph, order: Order, late: readonly number[], random: () => number): Order {
  const next = order.slice()
  const pick = <T>(all: readonly T[]): T => all[Math.floor(random() * all.length)]!
  const range = shop.until_ms - shop.now_ms
  const shift = (jobId: number, by: number) =>
    graph.groups.forEach((g, i) => {
      if (g.job.id === jobId) next[i]! += by
    })
  const how = random()
  const span = range * 0.2 * random() ** 3
  if (how < 0.35 && late.length > 0) shift(pick(late), -span)
  else if (how < 0.6) shift(pick(shop.jobs).id, (random() < 0.5 ? -1 : 1) * span)
  else if (how < 0.7) {
    const [a, b] = [Math.floor(random() * next.length), Math.floor(random() * next.length)]
    const by = next[b]! - next[a]!
    shift(graph.groups[a]!.job.id, by)
    if (graph.groups[a]!.job.id !== graph.groups[b]!.job.id) shift(graph.groups[b]!.job.id, -by)
  } else if (how < 0.85) {
    const [a, b] = [Math.floor(random() * next.length), Math.floor(random() * next.length)]
    ;[next[a], next[b]] = [next[b]!, next[a]!]
  } else {
    const count = 1 + Math.floor(random() * 4)
    for (let n = 0; n < count; n++) {
      const i = Math.floor(random() * next.length)
      next[i]! += (random() - 0.5) * range * 0.1 * random()
    }
  }
  return next
}

export interface Progress {
  best: Schedule
  /** orders tried so far, and whether this one was better */
  tried: number
  better: boolean
}

/** How many choices back one may be worse than, and be gone on from (late acceptance). */
const MEMORY = 50
/** After so many choices without a better one it begins anew, up to so many changes away from the best. */
const PATIENCE = 120
const MOST_KICKS = 40

interface Found {
  choice: Choice
  sum: number
  schedule: Schedule
}

/** One choice near another. */
function neighbour(
  shop: Shop,
  graph: Graph,
  tied: readonly number[],
  { choice, schedule }: Found,
  random: () => number,
) {
  const next = { ...choice }
  const how = random()
  if (how < 0.7) next.order = otherOrder(shop, graph, choice.order, lateJobs(shop, schedule), random)
  if (how > 0.6 && how < 0.9 && shop.hands.length > 1) next.hands = otherHands(shop, graph, choice.hands, random)
  if (how > 0.88) Object.assign(next, otherRoom(choice, tied, random))
  return next
}

/** Better and better schedules, one for each choice tried. It never ends: whoever asks stops when time is up. */
export function* solve(shop: Shop, seed: number): Generator<Progress, never> {
  const graph = graphOf(shop)
  const random = chance(seed)
  const tied = graph.groups.flatMap(g => (g.members.length > 1 ? g.members : []))
  const count = graph.nodes.length
  const plain: Ways = {
    hands: new Int16Array(count).fill(-1),
    later: new Uint8Array(count),
    notBefore: new Float64Array(count),
  }
  const look = (choice: Choice): Found => {
    const schedule = build(shop, graph, choice)
    return { choice, schedule, sum: sumOf(schedule.cost) }
  }
  const near = (found: Found) => neighbour(shop, graph, tied, found, random)
  let tried = 0
  let best: Found | null = null
  const first = firstOrders(shop, graph).map((order): Choice => ({ order, ...plain }))
  const last = lastChoice(shop, graph, first[0]!, tied)
  for (const choice of last ? [last, ...first] : first) {
    const found = look(choice)
    const better = !best || found.sum < best.sum
    if (better) best = found
    yield { best: best!.schedule, tried: ++tried, better }
  }
  while (graph.groups.length === 0) yield { best: best!.schedule, tried: ++tried, better: false }
  let here = best!
  const memory = new Float64Array(MEMORY).fill(here.sum)
  for (let since = 0; ; since++) {
    const found = look(near(here))
    const better = found.sum < best!.sum - 1e-12
    if (better) [best, since] = [found, 0]
    if (found.sum <= here.sum || found.sum <= memory[tried % MEMORY]!) here = found
    memory[tried % MEMORY] = here.sum
    if (since > PATIENCE) {
      since = 0
      let kicked: Found = best!
      for (let n = 3 + MOST_KICKS * random() ** 2; n > 0; n--) kicked = { ...kicked, choice: near(kicked) }
      here = look(kicked.choice)
      memory.fill(here.sum)
      tried++
    }
    yield { best: best!.schedule, tried: ++tried, better }
  }
}

function lateJobs(shop: Shop, { placed }: Schedule): number[] {
  const byJob = new Map<number, number>()
  for (const p of placed) byJob.set(p.jobId, Math.max(byJob.get(p.jobId) ?? -Infinity, p.end_ms))
  return shop.jobs.filter(j => lateHours(j, byJob.get(j.id) ?? endOf([])) > 0).map(j => j.id)
}
