/**
 * Finds a good schedule: places all groups in one order after the other, begins with rules of thumb, and goes on with
 * small changes of the best order. Chance comes in as a seed: the same shop and seed give the same schedules.
 */
import { Builder, type Choice, type Order, tails } from './build'
import { endOf, lateHours, sumOf } from './cost'
import { type Graph, graphOf } from './graph'
import type { Job, Schedule, Shop, Task } from './model'
import type { Ways } from './place'

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

/** So far before every other order. */
const FIRST_MS = 1e13

/** Minutes of hands and waits from the start of each group to the end of its job. */
function work(graph: Graph): Float64Array {
  const behind = tails(graph)
  return Float64Array.from(graph.groups, g =>
    Math.max(...g.members.map(i => graph.nodes[i]!.task.minutes + behind[i]!)),
  )
}

/** Rules of thumb, each an order: by day, by time to spare, by weight, and by what is through soonest. */
function firstOrders(shop: Shop, graph: Graph): Order[] {
  const behind = work(graph)
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

/** So many orders are drawn before the best is changed. */
const DRAWN = 80

/**
 * Jobs by weight over length, the less time to spare the sooner (apparent tardiness cost, Vepsalainen and Morton 1987);
 * how long a job is, how much its day counts and how far jobs run beside each other are drawn.
 */
function* drawnOrders(shop: Shop, graph: Graph, random: () => number): Generator<Order, void> {
  const behind = work(graph)
  const hands = new Map<Job, number>()
  const whole = new Map<Job, number>()
  for (const job of shop.jobs)
    hands.set(
      job,
      job.tasks.reduce((sum, t) => sum + t.minutes * t.hands, 0),
    )
  graph.groups.forEach((g, i) => whole.set(g.job, Math.max(whole.get(g.job) ?? 0, behind[i]!)))
  const mean = (all: Map<Job, number>) => [...all.values()].reduce((sum, x) => sum + x, 0) / Math.max(1, all.size) || 1
  const [ofHands, ofWhole] = [mean(hands), mean(whole)]
  const step = (shop.until_ms - shop.now_ms) / Math.max(1, shop.jobs.length)
  for (let n = 0; n < DRAWN; n++) {
    const ahead = Math.exp(random() * 5 - 3.5)
    const share = random()
    const beside = random() < 0.3 ? 0 : Math.exp(random() * 6 - 4)
    const noise = random() < 0.5 ? 0 : random()
    const scores = new Map(
      shop.jobs.map(j => {
        const length = (1 - share) * (hands.get(j)! / ofHands) + share * (whole.get(j)! / ofWhole)
        const slack = Math.max(0, ((j.due_ms ?? shop.until_ms) - shop.now_ms) / MIN_MS - whole.get(j)!)
        const by = slack / (ahead * ofHands * shop.jobs.length)
        return [j, Math.log(Math.max(length, 1e-6) / j.weight) + by + noise * (random() - 0.5)]
      }),
    )
    const ranks = new Map(shop.jobs.toSorted((a, b) => scores.get(a)! - scores.get(b)!).map((j, i) => [j, i]))
    yield Float64Array.from(
      graph.groups,
      (g, i) => shop.now_ms + (ranks.get(g.job)! + beside * (1 - behind[i]! / ofWhole)) * step + i,
    )
  }
}

/**
 * A choice that keeps to a schedule just as it stands. What has no place in it follows what it hangs on, else it comes
 * when its rule of thumb says.
 */
function heldTo(shop: Shop, graph: Graph, stood: readonly Task['last'][], spare: Order): Choice {
  const places = <T extends { id: number }>(all: readonly T[]) => new Map(all.map((x, i) => [x.id, i]))
  const [handAt, roomAt] = [places(shop.hands), places(shop.rooms)]
  const among = (able: readonly number[], at: number | undefined) => (at !== undefined && able.includes(at) ? at : -1)
  const starts = graph.groups.map(g => Math.min(...g.members.map(i => stood[i]?.start_ms ?? Infinity)))
  const known = new Map<number, number>()
  const startOf = (g: number): number => {
    const start = known.get(g) ?? starts[g]!
    if (Number.isFinite(start) || known.has(g)) return start
    const behind = Math.max(-Infinity, ...graph.groups[g]!.before.map(startOf))
    known.set(g, behind)
    return behind
  }
  return {
    order: spare.map((rule, g) => (Number.isFinite(startOf(g)) ? startOf(g) : rule)),
    hands: Int16Array.from(graph.nodes, (n, i) => among(n.hands, handAt.get(stood[i]?.handId ?? NaN))),
    rooms: Int16Array.from(graph.nodes, (n, i) => among(n.rooms, roomAt.get(stood[i]?.roomId ?? NaN))),
    supports: Float64Array.from(graph.nodes, (_, i) => stood[i]?.supportId ?? -1),
    later: new Uint8Array(graph.nodes.length),
    notBefore: Float64Array.from(graph.nodes, (_, i) => stood[i]?.start_ms ?? 0),
  }
}

/** Other hands for a few tasks, in any room. */
function otherHands(graph: Graph, ways: Ways, random: () => number): Pick<Ways, 'hands' | 'rooms'> {
  const [hands, rooms] = [ways.hands.slice(), ways.rooms.slice()]
  for (let count = 1 + Math.floor(random() * 3); count > 0; count--) {
    const i = Math.floor(random() * hands.length)
    const able = graph.nodes[i]!.hands
    hands[i] = random() < 0.4 ? -1 : (able[Math.floor(random() * able.length)] ?? -1)
    rooms[i] = -1
  }
  return { hands, rooms }
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

/** The best so many choices are kept, to make others from. */
const KEPT = 12
/** So often one is made of two; the share of pieces that come from the first of them. */
const CROSSED = 0.6
const OF_FIRST = 0.7
/** So often one that keeps to the last schedule is let off it for some pieces. */
const RELEASED = 0.5
/** So often one that was changed is changed once more. */
const AGAIN = 0.3
/** After so many choices of which none was kept all but the best make room for others, up to so many changes away. */
const PATIENCE = 60
const MOST_KICKS = 40

interface Found {
  choice: Choice
  sum: number
  late: readonly number[]
}

/**
 * Some pieces, a few more often than many, need not keep to where they stand; all else stays unless they take its place
 * (large neighbourhood search, Shaw 1998).
 */
function released(shop: Shop, { nodes }: Graph, choice: Choice, random: () => number): Choice {
  const share = random() ** 2
  const freed = new Set(shop.jobs.filter(() => random() < share))
  const alsoHands = random() < 0.5
  const isFree = nodes.map(n => freed.has(n.job))
  return {
    ...choice,
    hands: alsoHands ? choice.hands.map((h, i) => (isFree[i] ? -1 : h)) : choice.hands,
    rooms: choice.rooms.map((r, i) => (isFree[i] ? -1 : r)),
    supports: choice.supports.map((s, i) => (isFree[i] ? -1 : s)),
    notBefore: choice.notBefore.map((ms, i) => (isFree[i] ? 0 : ms)),
  }
}

/** One choice near another. */
function neighbour(
  shop: Shop,
  graph: Graph,
  tied: readonly number[],
  { choice, late }: Pick<Found, 'choice' | 'late'>,
  random: () => number,
): Choice {
  const next = { ...choice }
  const how = random()
  if (how < 0.7) next.order = otherOrder(shop, graph, choice.order, late, random)
  if (how > 0.6 && how < 0.9 && shop.hands.length > 1) Object.assign(next, otherHands(graph, choice, random))
  if (how > 0.88) Object.assign(next, otherRoom(choice, tied, random))
  return random() < RELEASED && next.notBefore.some(Boolean) ? released(shop, graph, next, random) : next
}
/** Each piece as one of two choices has it (a uniform crossover of random keys, Bean 1994). */
function crossed(shop: Shop, { nodes, groups }: Graph, a: Choice, b: Choice, random: () => number): Choice {
  const ofB = new Set(shop.jobs.filter(() => random() > OF_FIRST))
  const mixed = <T extends Order | Int16Array | Uint8Array>(from: T, other: T, jobOf: (i: number) => Job): T => {
    const next = from.slice() as T
    for (let i = 0; i < next.length; i++) if (ofB.has(jobOf(i))) next[i] = other[i]!
    return next
  }
  const jobOf = (i: number) => nodes[i]!.job
  return {
    order: mixed(a.order, b.order, i => groups[i]!.job),
    hands: mixed(a.hands, b.hands, jobOf),
    rooms: mixed(a.rooms, b.rooms, jobOf),
    supports: mixed(a.supports, b.supports, jobOf),
    later: mixed(a.later, b.later, jobOf),
    notBefore: mixed(a.notBefore, b.notBefore, jobOf),
  }
}

/** Better and better schedules, one for each choice tried. It never ends: whoever asks stops when time is up. */
export function* solve(shop: Shop, seed: number): Generator<Progress, never> {
  const graph = graphOf(shop)
  const random = chance(seed)
  const tied = graph.groups.flatMap(g => (g.members.length > 1 ? g.members : []))
  const count = graph.nodes.length
  const plain: Ways = {
    hands: new Int16Array(count).fill(-1),
    rooms: new Int16Array(count).fill(-1),
    supports: new Float64Array(count).fill(-1),
    later: new Uint8Array(count),
    notBefore: new Float64Array(count),
  }
  const builder = new Builder(shop, graph, plain)
  const kept: Found[] = []
  let best: Schedule | null = null
  let tried = 0
  let since = 0
  const look = (choice: Choice): Progress => {
    tried++
    const most = kept.length < KEPT ? Infinity : kept.at(-1)!.sum
    const schedule = builder.build(choice, most)
    const sum = schedule ? sumOf(schedule.cost) : Infinity
    const better = sum < (kept[0]?.sum ?? Infinity) - 1e-12
    if (better) best = schedule
    if (schedule && sum < most) {
      const found = { choice, sum, late: lateJobs(shop, schedule) }
      // of those that cost the same the newest stays, so that the search drifts where nothing is better
      const same = kept.findIndex(k => Math.abs(k.sum - sum) < 1e-9)
      if (same >= 0) kept[same] = found
      else {
        kept.splice(kept.findLastIndex(k => k.sum < sum) + 1, 0, found)
        kept.length = Math.min(KEPT, kept.length)
        since = 0
      }
    }
    since++
    return { best: best!, tried, better }
  }
  const [first = plain.notBefore, ...others] = firstOrders(shop, graph)
  const last = graph.nodes.map(n => n.task.last)
  if (last.some(Boolean)) {
    const held = heldTo(shop, graph, last, first)
    yield look(held)
    // the same with its gaps closed, but for what a window ties
    const ties = new Set(tied)
    yield look({ ...held, notBefore: held.notBefore.map((ms, i) => (ties.has(i) ? ms : 0)) })
  }
  for (const order of [first, ...others]) yield look({ order, ...plain })
  for (const order of drawnOrders(shop, graph, random)) yield look({ order, ...plain })
  const pick = () => kept[Math.floor(kept.length * random() ** 2)]!
  const changed = (choice: Choice, late: Found['late']) => neighbour(shop, graph, tied, { choice, late }, random)
  for (;;) {
    if (since > PATIENCE && graph.groups.length > 0) {
      since = 0
      kept.length = 1
      for (let n = 1; n < KEPT; n++) {
        let { choice } = kept[0]!
        for (let kicks = 3 + MOST_KICKS * random() ** 2; kicks > 0; kicks--) choice = changed(choice, kept[0]!.late)
        yield look(choice)
      }
    }
    const { choice, late } = pick()
    const cross = random() < CROSSED
    let next = cross ? crossed(shop, graph, choice, pick().choice, random) : choice
    if (graph.groups.length > 0 && (!cross || random() < 0.5))
      do next = changed(next, late)
      while (random() < AGAIN)
    yield look(next)
  }
}

function lateJobs(shop: Shop, { placed }: Schedule): number[] {
  const byJob = new Map<number, number>()
  for (const p of placed) byJob.set(p.jobId, Math.max(byJob.get(p.jobId) ?? -Infinity, p.end_ms))
  return shop.jobs.filter(j => lateHours(j, byJob.get(j.id) ?? endOf([])) > 0).map(j => j.id)
}
