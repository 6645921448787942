/** A shop's days lived by one policy, quarter by quarter of an hour, and what came of them. */
import type { DryLooks } from '../drying'
import type { Operation } from './recipes'
import type { OpenJob, Policy, Seen } from './shop'
import { type Arrival, DAY_MS, FIRST_MS, HANDS, isOpen, MIN_MS, RACKS_M2, type World } from './world'

const STEP_MIN = 15
/** What a look at a film that is not dry costs. */
const LOOK_MIN = 5
export interface Tally {
  jobs: number
  /** windows that had closed before the next operation began */
  missedWindows: number
  /** operations done again because the film under them was not dry */
  redone: number
  /** days that pieces were late, together, and shares of pieces that were in time */
  lateDays: number
  kept: number
  /** hours in which somebody was there with nothing to do, while pieces were open */
  idleHours: number
  /** mean days from taking in to ready */
  flowDays: number
}

const isLaid = (o: Operation) => o.makes === 'wet'
/** What is done to what was spoilt: rubbed back, and the operation once more. */
const BACK: Operation = {
  ...{ name: 'rub back', fixed_min: 30, perM2_min: 20, skill: null, makes: 'dust', whole: false },
  ...{ dries: null, rests_min: 0, closes_min: null },
}

class Life {
  readonly open: OpenJob[] = []
  readonly tally = { jobs: 0, missedWindows: 0, redone: 0, lateDays: 0, kept: 0, idleHours: 0, flowDays: 0 }
  private readonly looks: DryLooks[] = []
  private readonly dry = new Map<number, number>()
  private readonly closes = new Map<number, number>()
  private readonly tries = new Map<number, number>()
  /** what lies on a rack, by its job */
  private readonly wet = new Map<number, { until_ms: number; rack: number; area_m2: number }>()
  private next = 0

  constructor(
    private readonly world: World,
    private readonly policy: Policy,
  ) {}

  quarter(now_ms: number): void {
    const { arrivals } = this.world
    while (this.next < arrivals.length && arrivals[this.next]!.at_ms <= now_ms) this.takeIn(arrivals[this.next++]!)
    const there = HANDS.filter(id => this.world.isThere(id, now_ms))
    for (const job of [...this.open]) {
      if (!job.inHand || !there.includes(job.inHand.handId as (typeof HANDS)[number])) continue
      job.inHand.left_min -= STEP_MIN
      if (job.inHand.left_min <= 0) this.end(job, now_ms)
    }
    const busy = new Set(this.open.flatMap(j => j.inHand?.handId ?? []))
    const free = there.filter(id => !busy.has(id))
    if (free.length === 0) return
    const begun = this.policy.begins(this.seen(now_ms, free))
    for (const { handId, jobId } of begun) {
      const job = this.open.find(j => j.arrival.id === jobId)
      if (job && !job.inHand && free.includes(handId as (typeof HANDS)[number]) && this.begin(job, handId, now_ms))
        busy.add(handId)
    }
    if (this.open.length > 0) this.tally.idleHours += (free.filter(id => !busy.has(id)).length * STEP_MIN) / 60
  }
  private takeIn(arrival: Arrival): void {
    this.open.push({ arrival, operations: [...arrival.operations], n: 0, before: null, inHand: null })
  }
  private seen(now_ms: number, free: readonly number[]): Seen {
    const away = HANDS.flatMap(id => {
      const until = this.world.illUntil(id, now_ms)
      return until === null ? [] : [[id, until] as const]
    })
    const jobs = this.open.filter(j => j.arrival.answered_ms <= now_ms || j.n > 0 || j.inHand)
    return { now_ms, jobs, free, away: new Map(away), rh: this.world.rh(now_ms), looks: this.looks }
  }
  /** False where nothing comes of it: not dry, no rack, no answer. */
  private begin(job: OpenJob, handId: number, now_ms: number): boolean {
    const { arrival, before } = job
    const operation = job.operations[job.n]!
    if (arrival.answered_ms > now_ms && job.n === 0) return false
    let minutes = this.world.minutes(arrival, operation, job.n)
    if (before) {
      if (now_ms < before.end_ms + before.operation.rests_min * MIN_MS) return false
      if (before.operation.dries && !this.isDry(job, now_ms)) return true
      const closes_ms = this.closes.get(arrival.id)
      if (closes_ms !== undefined && now_ms > closes_ms) {
        this.tally.missedWindows++
        minutes += BACK.fixed_min + BACK.perM2_min * arrival.area_m2
      }
    }
    const rack = isLaid(operation) ? this.rackFor(arrival, now_ms) : -1
    if (rack === null) return false
    job.inHand = { handId, start_ms: now_ms, left_min: Math.ceil(minutes / STEP_MIN) * STEP_MIN }
    this.wet.delete(arrival.id)
    if (rack >= 0) this.wet.set(arrival.id, { until_ms: Infinity, rack, area_m2: arrival.area_m2 })
    return true
  }
  /** Looked at before something goes on it; true also where it is taken for dry and is not. */
  private isDry(job: OpenJob, now_ms: number): boolean {
    const { id } = job.arrival
    const { end_ms, operation } = job.before!
    const film = operation.dries!
    const elapsed = (ms: number) => (ms - end_ms) / MIN_MS
    const notDry_min = job.before!.notDry_ms === null ? null : elapsed(job.before!.notDry_ms)
    const asked = { base: film.base, of: film.of, product: 'ours', expected_min: film.label_min }
    if (now_ms >= this.dry.get(id)!) {
      this.looks.push({ ...asked, notDry_min, dry_min: elapsed(now_ms) })
      return true
    }
    const tries = (this.tries.get(id) ?? 0) + 1
    this.tries.set(id, tries)
    if (this.world.isSeen(id, job.n, tries)) {
      job.before = { ...job.before!, notDry_ms: now_ms + LOOK_MIN * MIN_MS }
      return false
    }
    // it goes on, and wrinkles: rubbed back when all is dry, and both once more
    this.tally.redone++
    job.operations.splice(job.n + 1, 0, BACK, job.operations[job.n]!)
    return true
  }
  /** Where a piece lies already it stays; else on the first rack with room for it. */
  private rackFor({ id, area_m2 }: Arrival, now_ms: number): number | null {
    const lies = [...this.wet].filter(([of, w]) => of !== id && w.until_ms > now_ms).map(([, w]) => w)
    const fits = RACKS_M2.map((m2, rack) => {
      const taken = lies.filter(w => w.rack === rack).reduce((sum, w) => sum + w.area_m2, 0)
      return taken + Math.min(area_m2, m2) <= m2
    })
    const own = this.wet.get(id)
    if (own && fits[own.rack]) return own.rack
    const rack = fits.indexOf(true)
    return rack < 0 ? null : rack
  }
  private end(job: OpenJob, now_ms: number): void {
    const operation = job.operations[job.n]!
    const { id } = job.arrival
    const { start_ms } = job.inHand!
    const dry_ms = operation.dries ? now_ms + this.world.drying(operation.dries, now_ms, id, job.n) * MIN_MS : now_ms
    this.dry.set(id, dry_ms)
    this.tries.delete(id)
    if (operation.closes_min === null) this.closes.delete(id)
    else this.closes.set(id, now_ms + this.world.closing(operation.closes_min, id, job.n) * MIN_MS)
    const laid = this.wet.get(id)
    if (laid) laid.until_ms = Math.max(dry_ms, this.closes.get(id) ?? 0)
    job.before = { start_ms, end_ms: now_ms, operation, notDry_ms: null }
    job.inHand = null
    job.n++
    if (job.n === job.operations.length) this.ready(job, Math.max(now_ms, dry_ms))
  }
  private ready(job: OpenJob, at_ms: number): void {
    const { due_ms, at_ms: came_ms } = job.arrival
    this.open.splice(this.open.indexOf(job), 1)
    this.tally.jobs++
    this.tally.flowDays += (at_ms - came_ms) / DAY_MS
    if (at_ms <= due_ms) this.tally.kept++
    else this.tally.lateDays += (at_ms - due_ms) / DAY_MS
  }
}

/** Lives the world through by a policy. The same world and policy give the same. */
export function liveThrough(world: World, policy: Policy): Tally {
  const life = new Life(world, policy)
  for (let now_ms = FIRST_MS; now_ms < FIRST_MS + world.days * DAY_MS; now_ms += STEP_MIN * MIN_MS)
    if (isOpen(now_ms)) life.quarter(now_ms)
  // what is still open at the end and overdue counts as late so far
  const end_ms = FIRST_MS + world.days * DAY_MS
  for (const { arrival } of life.open) life.tally.lateDays += Math.max(0, (end_ms - arrival.due_ms) / DAY_MS)
  const { jobs, kept, flowDays, ...sums } = life.tally
  return { ...sums, jobs, kept: jobs ? kept / jobs : 1, flowDays: jobs ? flowDays / jobs : 0 }
}
