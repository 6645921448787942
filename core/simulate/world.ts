/**
 * What a made-up shop cannot know: who comes when, how long things really take, when somebody is ill, what the air is.
 * The same seed makes the same world, whatever is done in it. All figures are made up; their spreads are those by which
 * the shop judges.
 */
import { PRIORS } from '../drying'
import { chance, type Span } from '../schedule'
import { type Film, type Operation, RECIPES } from './recipes'

export const MIN_MS = 60_000
export const HOUR_MS = 60 * MIN_MS
export const DAY_MS = 24 * HOUR_MS
/** A Monday at midnight; the made-up shop keeps universal time. */
export const FIRST_MS = Date.UTC(2027, 0, 4)
/** Open Monday to Friday, minutes of the day. */
export const OPEN: readonly Span[] = [
  [8 * 60, 12 * 60],
  [13 * 60, 17 * 60],
]
export const HANDS = [1, 2, 3] as const
/** Two racks for what is wet, m² each. */
export const RACKS_M2 = [12, 12] as const
const ARRIVALS_PER_DAY = 2.8
const MEDIAN_M2 = 1.6
const MOST_M2 = 6
const PACE_SD = 0.25
const ANSWER_MEDIAN_H = 30
const ANSWER_SD = 0.6
/** Of all jobs so many wait for the client's word first. */
const ASKED = 0.7
const ILL = { chance: 0.008, days: 3 } as const
/** A window closes earlier or later than its label says, by this spread of the logarithm. */
export const WINDOW_SD = 0.15
/** Somebody who looks sees that a film is not dry in so many of ten cases. */
const SEEN = 0.8

export interface Arrival {
  id: number
  at_ms: number
  due_ms: number
  area_m2: number
  answered_ms: number
  operations: readonly Operation[]
}

/** A number between 0 and 1 that hangs on these whole numbers alone. */
export function scattered(...of: readonly number[]): number {
  let x = 0x9e3779b9
  for (const n of of) {
    x = Math.imul(x ^ (n + 0x7f4a7c15), 0x85ebca6b)
    x = Math.imul(x ^ (x >>> 13), 0xc2b2ae35)
    x ^= x >>> 16
  }
  return (x >>> 0) / 2 ** 32
}
const normal = (...of: readonly number[]): number =>
  Math.sqrt(-2 * Math.log(1 - scattered(1, ...of))) * Math.cos(2 * Math.PI * scattered(2, ...of))

/** How the air makes a film slower than its label (handbook §11.4). */
export function airFactor({ base }: Pick<Film, 'base'>, rh: number): number {
  if (base === 'oil') return rh > 0.7 ? 1.5 : 1
  return base === 'water' ? Math.max(0.7, 0.5 / (1 - rh)) : 1
}

export class World {
  private readonly products = new Map<string, number>()
  readonly arrivals: readonly Arrival[]
  private readonly off: ReadonlyMap<number, readonly Span[]>

  constructor(
    private readonly seed: number,
    readonly days: number,
  ) {
    this.arrivals = this.arriving()
    this.off = new Map(HANDS.map(id => [id, this.illness(id)]))
  }

  private arriving(): Arrival[] {
    const random = chance(this.seed)
    const all: Arrival[] = []
    for (let d = 0; d < this.days; d++) {
      if (d % 7 > 4) continue
      // Knuth's way to a number that comes by a rate
      let n = 0
      for (let p = random(); p > Math.exp(-ARRIVALS_PER_DAY); p *= random()) n++
      for (; n > 0; n--) all.push(this.arrival(all.length + 1, d, random))
    }
    return all
  }
  private arrival(id: number, day: number, random: () => number): Arrival {
    const at_ms = FIRST_MS + day * DAY_MS + 8 * HOUR_MS + Math.floor(random() * 32) * 15 * MIN_MS
    let left = random()
    const recipe = RECIPES.find(r => (left -= r.share) < 0) ?? RECIPES[0]!
    const wait_h = random() < ASKED ? ANSWER_MEDIAN_H * Math.exp(ANSWER_SD * normal(this.seed, id, 11)) : 0
    return {
      ...{ id, at_ms, operations: recipe.operations, answered_ms: at_ms + wait_h * HOUR_MS },
      due_ms: FIRST_MS + (day + 14 + Math.floor(random() * 15)) * DAY_MS + 17 * HOUR_MS,
      area_m2: Math.min(MOST_M2, MEDIAN_M2 * Math.exp(0.6 * normal(this.seed, id, 12))),
    }
  }
  private illness(handId: number): Span[] {
    const spans: Span[] = []
    for (let d = 0; d < this.days; d++) {
      if (scattered(this.seed, handId, d, 21) >= ILL.chance) continue
      const last = d + 1 + Math.floor(scattered(this.seed, handId, d, 22) * 2 * ILL.days)
      spans.push([FIRST_MS + d * DAY_MS, FIRST_MS + last * DAY_MS])
      d = last
    }
    return spans
  }
  /** Is this person there? Nobody knows of an illness before its day. */
  isThere(handId: number, at_ms: number): boolean {
    return isOpen(at_ms) && !this.off.get(handId)!.some(([from, to]) => from <= at_ms && at_ms < to)
  }
  /** Until when somebody who is ill today stays away; null: not ill. The doctor says so on the first day. */
  illUntil(handId: number, at_ms: number): number | null {
    return this.off.get(handId)!.find(([from, to]) => from <= at_ms && at_ms < to)?.[1] ?? null
  }
  /** Relative humidity in the shop: a year's swing, the weather of the day. */
  rh(at_ms: number): number {
    const day = Math.floor((at_ms - FIRST_MS) / DAY_MS)
    return Math.min(0.85, Math.max(0.3, 0.52 - 0.1 * Math.cos((2 * Math.PI * day) / 365) + 0.09 * normal(day, 31)))
  }
  minutes(job: Arrival, operation: Operation, n: number): number {
    const usual = usualMinutes(job, operation)
    return usual * Math.exp(PACE_SD * normal(this.seed, job.id, n, 41))
  }
  /** The real time until a film is dry, minutes: its product's own way, the air, chance. */
  drying(film: Film, at_ms: number, jobId: number, n: number): number {
    const prior = film.base === 'oil' ? PRIORS.oil : PRIORS.other
    const key = film.of
    const own = this.products.get(key) ?? this.truthOf(key, prior)
    this.products.set(key, own)
    const look = prior.look * normal(this.seed, jobId, n, 51)
    return film.label_min * airFactor(film, this.rh(at_ms)) * Math.exp(own + look)
  }
  private truthOf(key: string, { base, class: ofClass, product }: { base: number; class: number; product: number }) {
    const n = [...key].reduce((sum, letter) => Math.imul(sum, 31) + letter.charCodeAt(0), 7)
    return Math.hypot(base, ofClass, product) * normal(this.seed, n, 61)
  }
  closing(closes_min: number, jobId: number, n: number): number {
    return closes_min * Math.exp(WINDOW_SD * normal(this.seed, jobId, n, 71))
  }
  isSeen(jobId: number, n: number, tries: number): boolean {
    return scattered(this.seed, jobId, n, tries, 81) < SEEN
  }
}

export const usualMinutes = ({ area_m2 }: Pick<Arrival, 'area_m2'>, { fixed_min, perM2_min }: Operation): number =>
  fixed_min + perM2_min * area_m2

export function isOpen(at_ms: number): boolean {
  const day = Math.floor((at_ms - FIRST_MS) / DAY_MS)
  const minute = ((at_ms - FIRST_MS) % DAY_MS) / MIN_MS
  return day % 7 < 5 && OPEN.some(([from, to]) => from <= minute && minute < to)
}
/** Openings of so many days from a day on. */
export function openings(from_ms: number, days: number): Span[] {
  const first = Math.floor((from_ms - FIRST_MS) / DAY_MS)
  return Array.from({ length: days }, (_, i) => first + i)
    .filter(d => d % 7 < 5)
    .flatMap(d =>
      OPEN.map(([from, to]): Span => [FIRST_MS + d * DAY_MS + from * MIN_MS, FIRST_MS + d * DAY_MS + to * MIN_MS]),
    )
}
