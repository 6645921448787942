/**
 * When pieces are ready, where nothing is sure: the schedule's order is lived through many times, each time with other
 * waits, minutes, rounds, gates and answers. Nothing is worked out anew on the way; in life it would be.
 */
import { type Choice, placeAll } from './build'
import { type Graph, graphOf } from './graph'
import type { PlannedTask } from './fromPlan'
import type { Placed, Schedule, Shop } from './model'
import { chance } from './solve'
import type { Drying } from './unsure'

const MIN_MS = 60_000
const Z90 = 1.2816
/** Standard deviations of logarithms (shop defaults, unsourced): minutes of hands, and how long an answer takes. */
const PACE = 0.25
const ANSWER = 0.6
/** Share of a wait's spread that all of one product have in common (by the spreads of products and of looks). */
const IN_COMMON = 0.8

export interface UnsureShop extends Shop {
  jobs: readonly { id: number; due_ms: number | null; weight: number; tasks: readonly PlannedTask[] }[]
}

/** Standard normal numbers (Box and Muller). */
function normals(random: () => number): () => number {
  return () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
}

/** What one life of the shop draws. */
class Life {
  private readonly normal: () => number
  private readonly products = new Map<string, number>()

  constructor(private readonly random: () => number) {
    this.normal = normals(random)
  }
  /** How much longer or shorter than its safe time something dries, minutes. */
  offSafe({ likely_min, safe_min, of }: Drying): number {
    const shared = this.products.get(of) ?? this.normal()
    this.products.set(of, shared)
    const z = Math.sqrt(IN_COMMON) * shared + Math.sqrt(1 - IN_COMMON) * this.normal()
    return likely_min * Math.exp((Math.log(safe_min / likely_min) / Z90) * z) - safe_min
  }
  /** Minutes of hands, or until an answer comes. What may not be laid aside keeps the minutes of its windows. */
  minutes({ minutes, hands, whole }: PlannedTask): number {
    if (whole) return minutes
    return minutes * Math.exp((hands === 0 ? ANSWER : PACE) * this.normal())
  }
  roundsMore({ again }: PlannedTask['unsure']): number {
    let n = 0
    while (again && n < again.most && this.random() < again.chance) n++
    return n
  }
  fails({ fails }: PlannedTask['unsure']): boolean {
    return fails !== null && this.random() < fails.chance
  }
}

type Loose = { -readonly [K in keyof PlannedTask]: PlannedTask[K] }

/** The schedule's own order, hands and rooms. */
function choiceOf(shop: Shop, graph: Graph, placed: readonly Placed[]): Choice {
  const at = new Map(placed.map(p => [p.task, p]))
  const hands = new Map(shop.hands.map((h, i) => [h.id, i]))
  const rooms = new Map(shop.rooms.map((r, i) => [r.id, i]))
  const startOf = (i: number) => at.get(graph.nodes[i]!.task.id)?.start_ms ?? Infinity
  return {
    order: Float64Array.from(graph.groups, g => Math.min(...g.members.map(startOf))),
    hands: Int16Array.from(graph.nodes, ({ task }) => hands.get(at.get(task.id)?.handId ?? NaN) ?? -1),
    rooms: Int16Array.from(graph.nodes, ({ task }) => rooms.get(at.get(task.id)?.roomId ?? NaN) ?? -1),
    supports: Float64Array.from(graph.nodes, ({ task }) => at.get(task.id)?.supportId ?? -1),
    later: new Uint8Array(graph.nodes.length),
    notBefore: new Float64Array(graph.nodes.length),
  }
}

/** One life after the other: when each piece is ready, by its id; Infinity: not before the schedule's end. */
export function* replay(
  shop: UnsureShop,
  { placed }: Pick<Schedule, 'placed'>,
  seed: number,
): Generator<Map<number, number>, never> {
  const jobs = shop.jobs.map(j => ({ ...j, tasks: j.tasks.map((t): Loose => ({ ...t })) }))
  const graph = graphOf({ ...shop, jobs })
  const planned = shop.jobs.flatMap(j => j.tasks)
  const choice = choiceOf(shop, graph, placed)
  const random = chance(seed)
  const rest_min = new Float64Array(planned.length)
  for (;;) {
    const life = new Life(random)
    graph.nodes.forEach((node, i) => {
      const was = planned[i]!
      const task = node.task as Loose
      const { opens } = was.unsure
      const more = life.roundsMore(was.unsure)
      task.minutes = life.minutes(was) + more * (was.unsure.again?.minutes ?? 0)
      rest_min[i] = more * (was.unsure.again?.wait_min ?? 0) + (life.fails(was.unsure) ? was.unsure.fails!.late_min : 0)
      if (opens) {
        const dry_ms = opens.from_ms + (opens.safe_min + life.offSafe(opens)) * MIN_MS
        // before its window closes it is looked at
        task.opens_ms = Math.min(Math.max(shop.now_ms, dry_ms), was.closes_ms ?? Infinity)
      }
      node.before.forEach((tie, n) => {
        const { min_min, max_min, dries } = was.after[n]!
        const drawn = Math.max(0, min_min + (dries ? life.offSafe(dries) : 0)) + rest_min[tie.at]!
        const most = max_min === null ? Infinity : Math.max(0, max_min - graph.nodes[tie.at]!.task.minutes - 15)
        tie.min_min = Math.min(drawn, most)
      })
    })
    const { placed: lived, unplaced } = placeAll(shop, graph, choice)
    const rest = new Map(graph.nodes.map(({ task }, i) => [task.id, rest_min[i]! * MIN_MS]))
    const ends = new Map<number, number>()
    for (const { jobId, task, end_ms } of lived)
      ends.set(jobId, Math.max(ends.get(jobId) ?? 0, end_ms + rest.get(task)!))
    for (const { jobId } of unplaced) ends.set(jobId, Infinity)
    yield ends
  }
}

/** What begins only after a piece is through cannot hold it up. */
function upTo<S extends UnsureShop>(shop: S, placed: readonly Placed[], jobId: number): S {
  const its = placed.filter(p => p.jobId === jobId)
  const last_ms = its.length ? Math.max(...its.map(p => p.start_ms)) : Infinity
  const first = new Map<number, number>()
  for (const p of placed) first.set(p.jobId, Math.min(first.get(p.jobId) ?? Infinity, p.start_ms))
  return { ...shop, jobs: shop.jobs.filter(j => j.id === jobId || (first.get(j.id) ?? Infinity) <= last_ms) }
}

/** Of a large shop fewer lives are told, so that nobody waits too long: tasks placed in all lives, lives at least. */
const [MOST_PLACED, LEAST_LIVES] = [150_000, 40] as const
const livesFor = ({ jobs }: UnsureShop, most: number): number => {
  const tasks = jobs.reduce((sum, j) => sum + j.tasks.length, 0)
  return Math.min(most, Math.max(LEAST_LIVES, Math.floor(MOST_PLACED / Math.max(1, tasks))))
}

/** When each piece, or one, is ready in so many lives at most, sorted, by its id. */
export function livesOf(
  whole: UnsureShop,
  schedule: Pick<Schedule, 'placed'>,
  { most, seed, only }: { most: number; seed: number; only?: number },
): Map<number, Float64Array> {
  const shop = only === undefined ? whole : upTo(whole, schedule.placed, only)
  const runs = livesFor(shop, most)
  const all = new Map(shop.jobs.map(j => [j.id, new Float64Array(runs).fill(Infinity)]))
  let n = 0
  for (const ends of replay(shop, schedule, seed)) {
    for (const [id, end_ms] of ends) all.get(id)![n] = end_ms
    if (++n === runs) break
  }
  for (const ends of all.values()) ends.sort()
  return all
}

/** The moment by which such a share of lives is through. */
export const byShare = (sorted: Float64Array, share: number): number =>
  sorted[Math.min(sorted.length - 1, Math.max(0, Math.ceil(share * sorted.length) - 1))] ?? Infinity

/** Share of lives that are through by a moment. */
export function shareBy(sorted: Float64Array, at_ms: number): number {
  if (sorted.length === 0) return 0
  let [low, high] = [0, sorted.length]
  while (low < high) {
    const middle = (low + high) >> 1
    if (sorted[middle]! <= at_ms) low = middle + 1
    else high = middle
  }
  return low / sorted.length
}
