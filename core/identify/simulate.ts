/**
 * How good is the judgement? Made-up pieces whose readings come from a *jittered* table, with wrong readings and
 * two-layer pieces, never from the table that judges them. Repeatable by its seed.
 */
import { FINISH_CLASSES, PERIODS } from '../piece'
import { likelihood, MOST_CERTAIN, nextTests, type Observation, posterior, prior } from './infer'
import { type TestKind, TESTS } from './tables'

export interface Simulation {
  pieces: number
  seed: number
  /** spread (σ of the logarithm) of each true likelihood and prior around the table's */
  jitter: number
  /** share of readings that are simply wrong */
  wrong: number
  /** chance that a drop or a blade on a two-layer piece answers for the layer beneath */
  through: number
}
export const SIMULATION: Simulation = { pieces: 5000, seed: 20261123, jitter: 0.4, wrong: 0.06, through: 0.2 }

export type Policy = 'advice' | 'table-order' | 'random'
export const POLICIES: readonly Policy[] = ['advice', 'table-order', 'random']
export const MOST_TESTS = 4

export interface Accuracy {
  policy: Policy
  /** share right after 1, 2, 3, 4 tests */ right: number[]
  harm: number[]
  minutes: number[]
}
export interface CalibrationBin {
  from: number
  to: number
  n: number
  said: number
  right: number
}
export interface SimulationResult extends Simulation {
  twoLayered: number
  accuracy: Accuracy[]
  calibration: CalibrationBin[]
}

/** A small seeded generator (mulberry32), 0 ≤ x < 1. */
export function seeded(seed: number): () => number {
  let a = seed >>> 0
  return () => {
    a = (a + 0x6d2b79f5) >>> 0
    let t = a
    t = Math.imul(t ^ (t >>> 15), t | 1)
    t ^= t + Math.imul(t ^ (t >>> 7), t | 61)
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296
  }
}

const SOLVENT = ['alcohol-drop', 'lacquer-thinner-drop', 'xylene-drop', 'scrape']
const BINS = [0.25, 0.55, 0.65, 0.75, 0.85, MOST_CERTAIN - 0.005, 1.001]

const normal = (random: () => number) => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
const jittered = (row: readonly number[], s: Simulation, random: () => number): number[] => {
  const shaken = row.map(p => p * Math.exp(s.jitter * normal(random)))
  const total = shaken.reduce((a, b) => a + b, 0)
  return shaken.map(p => p / total)
}
function draw(weights: readonly number[], random: () => number): number {
  let left = random() * weights.reduce((a, b) => a + b, 0)
  const k = weights.findIndex(w => {
    left -= w
    return left < 0
  })
  return k < 0 ? weights.length - 1 : k
}

/** The true, jittered table of one shop's world: per test and class, the chances of the results. */
function world(s: Simulation, random: () => number): Map<string, number[][]> {
  return new Map(
    TESTS.map(test => {
      const results = Object.keys(test.results)
      return [
        test.slug,
        FINISH_CLASSES.map((_, k) =>
          jittered(
            results.map(r => likelihood(test.slug, r)[k]!),
            s,
            random,
          ),
        ),
      ]
    }),
  )
}

function reading(
  test: TestKind,
  top: number,
  below: number | null,
  truth: Map<string, number[][]>,
  s: Simulation,
  random: () => number,
): Observation {
  const results = Object.keys(test.results)
  if (random() < s.wrong) return { test: test.slug, result: results[Math.floor(random() * results.length)]! }
  const finish = below !== null && SOLVENT.includes(test.slug) && random() < s.through ? below : top
  return { test: test.slug, result: results[draw(truth.get(test.slug)![finish]!, random)]! }
}

/** The next test under a policy. */
function choose(
  policy: Policy,
  start: readonly number[],
  seen: readonly Observation[],
  random: () => number,
): TestKind {
  if (policy === 'advice') return nextTests(start, seen)[0]!.test
  const left = TESTS.filter(t => !seen.some(o => o.test === t.slug))
  return policy === 'table-order' ? left[0]! : left[Math.floor(random() * left.length)]!
}

/**
 * Runs the simulation. A new world (table) is drawn for every hundred pieces. `progress` is told the share done.
 * All policies see the same pieces.
 */
export function simulate(s: Simulation = SIMULATION, progress?: (share: number) => void): SimulationResult {
  const random = seeded(s.seed)
  const sums = new Map(
    POLICIES.map(p => [
      p,
      {
        right: Array<number>(MOST_TESTS).fill(0),
        harm: Array<number>(MOST_TESTS).fill(0),
        minutes: Array<number>(MOST_TESTS).fill(0),
      },
    ]),
  )
  const bins = BINS.slice(1).map((to, i) => ({ from: BINS[i]!, to, n: 0, said: 0, right: 0 }))
  let twoLayered = 0
  let truth = world(s, random)
  for (let n = 0; n < s.pieces; n++) {
    if (n % 100 === 0) {
      truth = world(s, random)
      progress?.(n / s.pieces)
    }
    const period = PERIODS[Math.floor(random() * PERIODS.length)]!
    const refinished = random() < 0.45
    const known = refinished ? ('yes' as const) : ('no' as const)
    const told = random() < 0.3 ? ('unknown' as const) : known
    const original = draw(jittered(prior(period, 'no'), s, random), random)
    const later = draw(jittered(prior(random() < 0.5 ? '1960-1990' : 'after-1990', 'no'), s, random), random)
    const over = refinished && random() < 0.35
    const top = refinished ? later : original
    const below = over ? original : null
    if (over) twoLayered++
    const start = prior(period, told)
    for (const policy of POLICIES) {
      const seen: Observation[] = []
      const sum = sums.get(policy)!
      let harm = 0
      let minutes = 0
      for (let k = 0; k < MOST_TESTS; k++) {
        const test = choose(policy, start, seen, random)
        seen.push(reading(test, top, below, truth, s, random))
        harm += test.harm
        minutes += test.minutes
        const belief = posterior(start, seen)
        const p = Math.max(...belief)
        const right = belief.indexOf(p) === top ? 1 : 0
        sum.right[k]! += right
        sum.harm[k]! += harm
        sum.minutes[k]! += minutes
        if (policy === 'advice') {
          const said = Math.min(MOST_CERTAIN, p)
          const bin = bins.find(b => said >= b.from && said < b.to)
          if (bin) {
            bin.n++
            bin.said += said
            bin.right += right
          }
        }
      }
    }
  }
  progress?.(1)
  const share = (list: number[]) => list.map(x => x / s.pieces)
  return {
    ...s,
    twoLayered: twoLayered / s.pieces,
    accuracy: POLICIES.map(policy => {
      const sum = sums.get(policy)!
      return { policy, right: share(sum.right), harm: share(sum.harm), minutes: share(sum.minutes) }
    }),
    calibration: bins.map(b => ({
      from: b.from,
      to: b.to,
      n: b.n,
      said: b.n ? b.said / b.n : 0,
      right: b.n ? b.right / b.n : 0,
    })),
  }
}

/** What limits these figures, in words. */
export const LIMITS = [
  'The pieces are made up. Their world is the table shaken, not the real one: where the table is wrong ' +
    'for a whole class, this cannot show it.',
  'Eleven classes stand for thousands of products; a piece outside them is always called something.',
  'Tests are taken to err each on its own; in truth old age, dirt or polish sway several at once.',
] as const
