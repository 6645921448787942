/**
 * Three ways to run the same shop. None sees what is hidden; all look before a coat goes on, and none starts what needs
 * somebody's word before it is given.
 */
import { learnDrying, PRIORS } from '../drying'
import { type Job, type Placed, type Shop, solve, type Span, type Task } from '../schedule'
import type { Film, Operation } from './recipes'
import type { OpenJob, Policy, Seen } from './shop'
import { airFactor, DAY_MS, HANDS, HOUR_MS, isOpen, MIN_MS, openings, RACKS_M2, usualMinutes, WINDOW_SD } from './world'

const Z90 = 1.2816
const QUARTER_MS = 15 * MIN_MS
/** After a look that found it not dry, again so much later. */
const AGAIN_MS = 2 * HOUR_MS
/** Windows as short as this are kept by whoever opened them. */
const SHORT_MIN = 120
const early = (closes_min: number) => closes_min * Math.exp(-Z90 * WINDOW_SD)
const nextOf = (job: OpenJob): Operation => job.operations[job.n]!
const opensAfter = (job: OpenJob, wait_ms: number): number => {
  const { end_ms, operation, notDry_ms } = job.before!
  const opens = end_ms + Math.max(wait_ms, operation.rests_min * MIN_MS)
  return notDry_ms === null ? opens : Math.max(opens, notDry_ms + AGAIN_MS)
}
const sdOf = ({ base }: Film): number => {
  const prior = base === 'oil' ? PRIORS.oil : PRIORS.other
  return Math.hypot(prior.base, prior.class, prior.product, prior.look)
}
const closesAt = (job: OpenJob, closesOf: (min: number) => number): number => {
  const { end_ms, operation } = job.before ?? {}
  return operation?.closes_min == null ? Infinity : end_ms! + closesOf(operation.closes_min) * MIN_MS
}

/** Free hands, without those who stand by until a short window that is open already may be worked in. */
function handsFor({ free, jobs }: Seen, ready: readonly OpenJob[]): readonly number[] {
  const standing = jobs.filter(j => presses(j) && !j.inHand && !ready.includes(j)).length
  return free.slice(0, Math.max(0, free.length - standing))
}

/** Takes jobs in their order, one for each who is free; a short window is kept by somebody, whatever else waits. */
function inOrder(seen: Seen, jobs: readonly OpenJob[]): { handId: number; jobId: number }[] {
  const idle = jobs.filter(j => !j.inHand)
  return handsFor(seen, idle)
    .slice(0, idle.length)
    .map((handId, i) => ({ handId, jobId: idle[i]!.arrival.id }))
}
/** A window that is open is worked in, whatever follows. */
const isOpenNow = (job: OpenJob) => job.before?.operation.closes_min != null
const presses = (job: OpenJob) => (job.before?.operation.closes_min ?? Infinity) <= SHORT_MIN

/** (a) What the label says, and first come, first served; a short window goes before. */
export const byLabel = (): Policy => ({
  name: 'label times, first come first served',
  begins(seen) {
    const opens = (j: OpenJob) =>
      !j.before || opensAfter(j, (j.before.operation.dries?.label_min ?? 0) * MIN_MS) <= seen.now_ms
    const ready = seen.jobs.filter(opens)
    return inOrder(seen, [...ready.filter(presses), ...ready.filter(j => !presses(j))])
  },
})

/** Is the shop open for all of these minutes? */
function staysOpen(from_ms: number, minutes: number): boolean {
  for (let ms = from_ms; ms < from_ms + minutes * MIN_MS; ms += QUARTER_MS) if (!isOpen(ms)) return false
  return true
}
/** Does the window that it opens end while somebody is there, and is it not cut by a closing? */
function mayBegin(job: OpenJob, now_ms: number, safe: (film: Film) => number): boolean {
  const operation = nextOf(job)
  const minutes = usualMinutes(job.arrival, operation)
  if (operation.whole && !staysOpen(now_ms, minutes)) return false
  const { closes_min } = operation
  if (closes_min === null) return true
  const follows = job.operations[job.n + 1]
  const next_min = follows ? usualMinutes(job.arrival, follows) : 0
  const opens_min = minutes + Math.max(operation.rests_min, operation.dries ? safe(operation.dries) : 0)
  const closes = minutes + early(closes_min)
  // somewhere in the window the next can be done
  for (let at = opens_min; at <= closes; at += 15)
    if (staysOpen(now_ms + at * MIN_MS, follows?.whole ? next_min : 15)) return true
  return false
}
const safeLabel = (film: Film): number => film.label_min * Math.exp(Z90 * sdOf(film))

/** Hours of work and waits that are left, against the time until it is promised. */
const slack = (job: OpenJob, now_ms: number): number => {
  const rest = job.operations.slice(job.n)
  const work = rest.reduce((sum, o) => sum + usualMinutes(job.arrival, o), 0)
  const waits = rest.reduce((sum, o) => sum + (o.dries?.label_min ?? o.rests_min), 0)
  return job.arrival.due_ms - now_ms - (work * 3 + waits) * MIN_MS
}

/** (b) Safe waits, windows that end while somebody is there, what presses first; each piece by itself. */
export const bySafeWaits = (): Policy => ({
  name: 'safe waits, each piece by itself',
  begins(seen) {
    const wait = (f: Film) => safeLabel(f) * airFactor(f, seen.rh)
    const opens = (j: OpenJob) =>
      !j.before ||
      opensAfter(j, (j.before.operation.dries ? wait(j.before.operation.dries) : 0) * MIN_MS) <= seen.now_ms
    const ready = seen.jobs.filter(j => opens(j) && (isOpenNow(j) || mayBegin(j, seen.now_ms, wait)))
    const key = (j: OpenJob) => Math.min(closesAt(j, early), Infinity)
    return inOrder(
      seen,
      ready.sort((x, y) => compare(key(x), key(y)) || slack(x, seen.now_ms) - slack(y, seen.now_ms)),
    )
  },
})
const compare = (a: number, b: number): number => (a === b ? 0 : a - b)

/** Orders that are tried at each solving, instead of 100 ms, so that the same seed gives the same. */
const ORDERS = 40
const SOLVED_PER_DAY = 8
const AHEAD_D = 60

/** The shop's safe time over the label's, by its last looks. */
function learntFrom({ looks }: Seen): (film: Film) => number {
  const learnt = learnDrying(looks.slice(-LOOKS))
  const known = new Map<string, number>()
  return ({ base, of }) => {
    const safe = known.get(of) ?? learnt({ base, of, product: 'ours' }).safe
    known.set(of, safe)
    return safe
  }
}
const LOOKS = 300

/** (c) One schedule of the whole shop, worked out anew up to eight times a day, with drying times that are learnt. */
export function bySchedule(seed: number): Policy {
  let placed = new Map<string, Placed>()
  let solved_ms = -Infinity
  let safeOf: (film: Film) => number = () => 1
  return {
    name: 'one schedule, and dry times that learn',
    begins(seen) {
      const safe = (f: Film) => f.label_min * safeOf(f) * airFactor(f, seen.rh)
      if (seen.now_ms - solved_ms >= (8 / SOLVED_PER_DAY) * HOUR_MS) {
        safeOf = learntFrom(seen)
        const shop = shopOf(seen, safe, placed)
        for (const { tried, best } of solve(shop, seed)) {
          if (tried < ORDERS) continue
          placed = new Map(best.placed.map(p => [p.task, p]))
          break
        }
        solved_ms = seen.now_ms
      }
      const opens = (j: OpenJob) =>
        !j.before ||
        opensAfter(j, (j.before.operation.dries ? safe(j.before.operation.dries) : 0) * MIN_MS) <= seen.now_ms
      const planned = (j: OpenJob) => placed.get(taskId(j, j.n))
      const fits = (j: OpenJob) => {
        if (isOpenNow(j)) return true
        if ((nextOf(j).closes_min ?? 0) <= SHORT_MIN) return mayBegin(j, seen.now_ms, safe)
        // a chain of long windows begins where the schedule has room for all of it, or early in an opening
        if (!planned(j)) return seen.now_ms - solved_ms < HOUR_MS && isEarly(seen.now_ms)
        return due(planned(j), seen.now_ms) === 0 && mayBegin(j, seen.now_ms, safe)
      }
      const ready = seen.jobs.filter(j => !j.inHand && opens(j) && fits(j))
      const begun: { handId: number; jobId: number }[] = []
      for (const handId of handsFor(seen, ready)) {
        const mine = (j: OpenJob) => (planned(j)?.handId === handId ? 0 : 1)
        const [job] = ready
          .filter(j => !begun.some(b => b.jobId === j.arrival.id))
          .sort(
            (x, y) =>
              compare(closesAt(x, early), closesAt(y, early)) ||
              compare(due(planned(x), seen.now_ms), due(planned(y), seen.now_ms)) ||
              mine(x) - mine(y) ||
              compare(planned(x)?.start_ms ?? Infinity, planned(y)?.start_ms ?? Infinity),
          )
        if (job) begun.push({ handId, jobId: job.arrival.id })
      }
      return begun
    },
  }
}
/** Is it the first hour of an opening? */
const isEarly = (now_ms: number): boolean => isOpen(now_ms) && !isOpen(now_ms - HOUR_MS) && isOpen(now_ms + 2 * HOUR_MS)
/** What is planned for by now goes before what is pulled forward. */
const due = (p: Placed | undefined, now_ms: number): number => (p && p.start_ms <= now_ms ? 0 : 1)
const taskId = (job: OpenJob, n: number): string => `${job.arrival.id}/${n}`

/** The made-up shop as the solver takes it. */
function shopOf(seen: Seen, safe: (film: Film) => number, last: ReadonlyMap<string, Placed>): Shop {
  const spans = openings(seen.now_ms, AHEAD_D)
  const handOf = (id: number) => {
    const from = Math.max(seen.now_ms, seen.away.get(id) ?? 0)
    return { id, skills: null, spans: spans.flatMap(([f, t]): Span[] => (t > from ? [[Math.max(f, from), t]] : [])) }
  }
  const room = { oneAtATime: false, changeOver_min: 30, closedTo: {}, shut: [] }
  const racks = RACKS_M2.map((area_m2, i) => ({ id: i + 1, area_m2, length_mm: null }))
  return {
    ...{ now_ms: seen.now_ms, until_ms: seen.now_ms + AHEAD_D * DAY_MS },
    hands: HANDS.map(handOf),
    rooms: [
      { ...room, id: 1, allows: { dust: true, wet: false, other: true }, supports: [] },
      { ...room, id: 2, allows: { dust: false, wet: true, other: true }, supports: racks },
    ],
    jobs: seen.jobs.map(j => jobOf(j, safe, last)),
  }
}
function jobOf(job: OpenJob, safe: (film: Film) => number, last: ReadonlyMap<string, Placed>): Job {
  const tasks = job.operations.flatMap((operation, n): Task[] => {
    if (n < job.n) return []
    const first = n === job.n
    const was = last.get(taskId(job, n))
    const before = job.operations[n - 1]
    const wait = (o: Operation) => Math.max(o.rests_min, o.dries ? safe(o.dries) : 0)
    const minutes = first && job.inHand ? Math.max(15, job.inHand.left_min) : usualMinutes(job.arrival, operation)
    return [
      {
        ...{ id: taskId(job, n), minutes, hands: 1, skill: null, makes: operation.makes, product: null, air: null },
        ...{ wet_min: operation.makes === 'wet' ? wait(operation) : 0, area_m2: job.arrival.area_m2, length_mm: 0 },
        ...{ whole: operation.whole, ifYes: false, pin: null },
        after:
          first || !before
            ? []
            : [
                {
                  ...{ from: taskId(job, n - 1), min_min: wait(before) },
                  max_min:
                    before.closes_min === null ? null : usualMinutes(job.arrival, before) + early(before.closes_min),
                },
              ],
        opens_ms: first && job.before ? opensAfter(job, wait(job.before.operation) * MIN_MS) : null,
        closes_ms: first && job.before && Number.isFinite(closesAt(job, early)) ? closesAt(job, early) : null,
        begun:
          first && job.inHand
            ? { start_ms: job.inHand.start_ms, handId: job.inHand.handId, roomId: operation.makes === 'wet' ? 2 : 1 }
            : null,
        last: was ?? null,
      },
    ]
  })
  return { id: job.arrival.id, due_ms: job.arrival.due_ms, weight: 1, tasks }
}
