/** Which finish is it? Naive Bayes over the finish tests, and the test that would tell most next. */
import { FINISH_CLASSES, type FinishClass, PERIODS, type Period } from '../piece'
import { sumOf } from '../units'
import { FLOOR, PRIORS, type TestKind, TESTS, USE_FACTORS } from './tables'

export interface Observation {
  test: string
  result: string
}
export interface Belief {
  finish: FinishClass
  p: number
}

const normalise = (row: readonly number[]) => {
  const total = sumOf(row, x => x)
  return row.map(x => x / total)
}

/** Per class, the test's results floored at .005 and rescaled to sum to one. */
const likelihoods = new Map<string, Map<string, readonly number[]>>(
  TESTS.map(test => {
    const names = Object.keys(test.results)
    const perClass = FINISH_CLASSES.map((_, k) => normalise(names.map(n => Math.max(FLOOR, test.results[n]![k]!))))
    return [test.slug, new Map(names.map((n, r) => [n, perClass.map(row => row[r]!)]))]
  }),
)

/**
 * P(result | class) in the order of FINISH_CLASSES, floored and rescaled. Shop default.
 * @throws RangeError for an unknown test or result.
 */
export function likelihood(test: string, result: string): readonly number[] {
  const row = likelihoods.get(test)?.get(result)
  if (!row) throw new RangeError(`The test "${test}" has no result "${result}".`)
  return row
}

/**
 * Prior over FINISH_CLASSES by period, earlier refinishing and use. Refinished, or not known: half the original's,
 * half of a later period's (1960–1990 and after 1990 in equal parts). Unknown period: the mean of all. Shop default.
 */
export function prior(
  period: Period,
  refinished: 'yes' | 'no' | 'unknown',
  use: keyof typeof USE_FACTORS = 'daily',
): number[] {
  const mean = (rows: readonly (readonly number[])[]) =>
    FINISH_CLASSES.map((_, k) => sumOf(rows, r => r[k]!) / rows.length)
  const original = period === 'unknown' ? mean(PERIODS.map(p => PRIORS[p])) : PRIORS[period]
  const mixed = refinished === 'no' ? original : mean([original, mean([PRIORS['1960-1990'], PRIORS['after-1990']])])
  return normalise(mixed.map((p, k) => Math.max(FLOOR, p * USE_FACTORS[use][k]!)))
}

/** One reading in twenty is taken to be wrong, so that no single one decides. Shop default. */
export const MISREAD = 0.05

/** P(result | class) with the chance of a wrong reading mixed in. */
const reliable = (test: string, result: string): number[] => {
  const answers = likelihoods.get(test)?.size ?? 1
  return likelihood(test, result).map(p => (1 - MISREAD) * p + MISREAD / answers)
}

/** Posterior over FINISH_CLASSES after all observations. A test done n times counts once: each time with weight 1/n. */
export function posterior(start: readonly number[], seen: readonly Observation[]): number[] {
  const logs = start.map(p => Math.log(p))
  for (const o of seen) {
    const weight = 1 / seen.filter(x => x.test === o.test).length
    reliable(o.test, o.result).forEach((l, k) => {
      logs[k]! += weight * Math.log(l)
    })
  }
  const top = Math.max(...logs)
  return normalise(logs.map(l => Math.exp(l - top)))
}

/** Shannon entropy in bits. */
export const entropy_bits = (belief: readonly number[]): number => -sumOf(belief, p => (p > 0 ? p * Math.log2(p) : 0))

/** Certainty is never shown above this. */
export const MOST_CERTAIN = 0.95
/** Below this the verdict is "test again". */
export const SURE_ENOUGH = 0.7

export interface Against {
  test: string
  result: string
  p: number
}

export interface Identification {
  ranked: Belief[]
  finish: FinishClass
  certainty: number
  verdict: 'sure' | 'test-again' | 'contradictory'
  /** readings that the first guess hardly allows, and tests whose repeats disagree */
  against: Against[]
}

/**
 * Together with how many tests there are: readings as odd as this under the first guess are called contradictory. Shop
 * default.
 */
export const ODD = 0.08

/** How odd a result is under a class: the chance of this result or any less likely one. */
function oddness(o: Observation, k: number): number {
  const row = [...likelihoods.get(o.test)!.values()].map(perClass => perClass[k]!)
  const own = likelihood(o.test, o.result)[k]!
  return sumOf(
    row.filter(p => p <= own + 1e-12),
    p => p,
  )
}

/**
 * The likely finish with its certainty (at most 95 %), what speaks against it, and whether the results contradict each
 * other.
 */
export function identify(start: readonly number[], seen: readonly Observation[]): Identification {
  const belief = posterior(start, seen)
  const ranked = FINISH_CLASSES.map((finish, k) => ({ finish, p: belief[k]! })).sort((a, b) => b.p - a.p)
  const best = ranked[0]!
  const k = FINISH_CLASSES.indexOf(best.finish)
  const kinds = new Set(seen.map(o => o.test)).size
  const against = seen
    .map(o => ({ ...o, p: oddness(o, k) }))
    .filter(o => o.p * kinds < ODD || seen.some(x => x.test === o.test && x.result !== o.result && o.p < 0.5))
    .sort((a, b) => a.p - b.p)
  const certainty = Math.min(MOST_CERTAIN, best.p)
  const sureness = certainty >= SURE_ENOUGH ? 'sure' : 'test-again'
  return {
    ranked,
    finish: best.finish,
    certainty,
    against,
    verdict: against.length ? 'contradictory' : sureness,
  }
}

export interface NextTest {
  test: TestKind
  gain_bits: number
  score: number
}

/**
 * Weights of harm to the piece (0–3), solvent vapour for the worker (0–3) and minutes against information. Shop
 * default.
 */
export const HARM_WEIGHT = 0.25
export const SOLVENT_WEIGHT = 0.08
export const MINUTE_WEIGHT = 0.03

/** Expected information gain of a test in bits, given the present belief. */
export function informationGain_bits(belief: readonly number[], test: TestKind): number {
  const after = Object.keys(test.results).map(result => {
    const l = reliable(test.slug, result)
    const joint = belief.map((b, k) => b * l[k]!)
    return { p: sumOf(joint, x => x), joint }
  })
  return entropy_bits(belief) - sumOf(after, ({ p, joint }) => p * entropy_bits(normalise(joint)))
}

/**
 * Tests not yet done, the most telling first: information gained, divided by harm to the piece, vapour and time for
 * the worker.
 */
export function nextTests(start: readonly number[], seen: readonly Observation[]): NextTest[] {
  const belief = posterior(start, seen)
  const done = new Set(seen.map(o => o.test))
  return TESTS.filter(t => !done.has(t.slug))
    .map(test => {
      const gain_bits = informationGain_bits(belief, test)
      return {
        test,
        gain_bits,
        score: gain_bits / (1 + HARM_WEIGHT * test.harm + SOLVENT_WEIGHT * test.solvent + MINUTE_WEIGHT * test.minutes),
      }
    })
    .sort((a, b) => b.score - a.score)
}

export interface Reason {
  test: string
  result: string
  forFinish: FinishClass
  ratio: number
}

/** How much each result spoke for `finish` against the second guess: the likelihood ratio. */
export function reasonsFor(found: Identification, seen: readonly Observation[]): Reason[] {
  const [first, second] = found.ranked
  const a = FINISH_CLASSES.indexOf(first!.finish)
  const b = FINISH_CLASSES.indexOf(second!.finish)
  return seen.map(o => ({
    ...o,
    forFinish: first!.finish,
    ratio: reliable(o.test, o.result)[a]! / reliable(o.test, o.result)[b]!,
  }))
}
