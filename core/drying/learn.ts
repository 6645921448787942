/**
 * How long the shop's own products really take, learnt from looks at what dries. The logarithm of the real time over
 * the expected one is a sum: of the kind of base, of the class, of the product; each is near nothing until looks say
 * otherwise, and a product of which nothing is known leans on its class. Looks are limits: "not dry" a lower one, "dry"
 * an upper one. Estimated by a Laplace approximation round the mode (common practice in statistics).
 */
import type { Base, Dries } from '../materials'

export interface DryLooks {
  base: Base
  /** its class */
  of: string
  /** the shop's own product; null: any of its class */
  product: string | null
  /** what was expected, by label, air, film and wood, minutes */
  expected_min: number
  /** not dry yet at the last look before; null: nobody looked */
  notDry_min: number | null
  /** dry by then; null: nobody has seen it dry */
  dry_min: number | null
}
export interface Spread extends Dries {
  /** looks at this product, and at others of its class */
  seen: { product: number; class: number }
}

/** Standard deviations of the logarithm; together they make the spreads of `sigmaOf` (shop defaults, unsourced). */
export const PRIORS = {
  oil: { base: 0.1, class: 0.25, product: 0.3, look: 0.2 },
  other: { base: 0.1, class: 0.15, product: 0.19, look: 0.15 },
} as const
const priorOf = (base: Base) => (base === 'oil' ? PRIORS.oil : PRIORS.other)
const Z90 = 1.2816

/** Standard normal density, and the share below x (Chebyshev fit of erfc; relative error under 1.2e-7). */
const density = (x: number) => Math.exp(-0.5 * x * x) / Math.sqrt(2 * Math.PI)
const FIT = [
  ...[-1.26551223, 1.00002368, 0.37409196, 0.09678418, -0.18628806],
  ...[0.27886807, -1.13520398, 1.48851587, -0.82215223, 0.17087277],
]
export function shareBelow(x: number): number {
  const z = Math.abs(x) / Math.SQRT2
  const t = 1 / (1 + 0.5 * z)
  const tail = 0.5 * t * Math.exp(-z * z + FIT.reduceRight((sum, c) => sum * t + c, 0))
  return x < 0 ? tail : 1 - tail
}
/** The share between two points, also far out where both are near one. */
const shareBetween = (a: number, b: number) => (a > 0 ? shareBelow(-a) - shareBelow(-b) : shareBelow(b) - shareBelow(a))

/** Slope and curvature of the log likelihood of one look at the mean `m`. */
function pull(looks: DryLooks, m: number, sd: number): [slope: number, curvature: number] {
  const at = (minutes: number) => (Math.log(minutes / looks.expected_min) - m) / sd
  const a = looks.notDry_min === null ? -Infinity : at(looks.notDry_min)
  const b = looks.dry_min === null ? Infinity : at(looks.dry_min)
  const share = shareBetween(a, b)
  // far from where it is believed to be: toward the nearer limit
  if (share < 1e-60) return [(a > 0 ? a : b) / sd, -1 / (sd * sd)]
  const [fa, fb] = [Number.isFinite(a) ? density(a) : 0, Number.isFinite(b) ? density(b) : 0]
  const slope = (fa - fb) / share
  const bend = ((fa && a * fa) - (fb && b * fb)) / share - slope * slope
  return [slope / sd, Math.min(bend, -1e-6) / (sd * sd)]
}

/** Lower triangle L of a symmetric positive matrix, A = L·Lᵀ. */
function cholesky(matrix: readonly Float64Array[]): Float64Array[] {
  const lower = matrix.map(row => new Float64Array(row.length))
  for (let i = 0; i < matrix.length; i++)
    for (let j = 0; j <= i; j++) {
      let sum = matrix[i]![j]!
      for (let k = 0; k < j; k++) sum -= lower[i]![k]! * lower[j]![k]!
      lower[i]![j] = i === j ? Math.sqrt(sum) : sum / lower[j]![j]!
    }
  return lower
}
/** Solves A·x = b by its triangle. */
function solved(lower: readonly Float64Array[], b: Float64Array): Float64Array {
  const x = b.slice()
  for (let i = 0; i < x.length; i++) {
    for (let k = 0; k < i; k++) x[i]! -= lower[i]![k]! * x[k]!
    x[i]! /= lower[i]![i]!
  }
  for (let i = x.length - 1; i >= 0; i--) {
    for (let k = i + 1; k < x.length; k++) x[i]! -= lower[k]![i]! * x[k]!
    x[i]! /= lower[i]![i]!
  }
  return x
}

const ROUNDS = 60
/** Terms of a product: its base, its class, itself. */
const namesOf = ({ base, of, product }: Pick<DryLooks, 'base' | 'of' | 'product'>): string[] => [
  `base ${base}`,
  `class ${of}`,
  ...(product === null ? [] : [`product ${of} ${product}`]),
]

/** What was learnt; ask it of any product, also one that nobody has looked at. */
export function learnDrying(all: readonly DryLooks[]): (of: Pick<DryLooks, 'base' | 'of' | 'product'>) => Spread {
  const looks = all.filter(l => l.expected_min > 0 && (l.notDry_min ?? 0) < (l.dry_min ?? Infinity))
  const places = new Map<string, number>()
  const precision: number[] = []
  for (const look of looks) {
    const prior = priorOf(look.base)
    for (const [i, name] of namesOf(look).entries()) {
      if (places.has(name)) continue
      places.set(name, places.size)
      precision.push(1 / [prior.base, prior.class, prior.product][i]! ** 2)
    }
  }
  const n = places.size
  const terms = looks.map(l => namesOf(l).map(name => places.get(name)!))
  const theta = new Float64Array(n)
  let lower: Float64Array[] = []
  for (let round = 0; round < ROUNDS; round++) {
    const slope = Float64Array.from(theta, (t, i) => -precision[i]! * t)
    const bend = Array.from({ length: n }, (_, i) => {
      const row = new Float64Array(n)
      row[i] = precision[i]!
      return row
    })
    looks.forEach((look, l) => {
      const its = terms[l]!
      const m = its.reduce((sum, i) => sum + theta[i]!, 0)
      const [s, c] = pull(look, m, priorOf(look.base).look)
      for (const i of its) {
        slope[i]! += s
        for (const j of its) bend[i]![j]! -= c
      }
    })
    lower = cholesky(bend)
    const step = solved(lower, slope)
    // no step further than a doubling: far out the fit is poor
    const longest = Math.max(0, ...step.map(Math.abs))
    const scale = longest > 0.7 ? 0.7 / longest : 1
    step.forEach((d, i) => (theta[i]! += scale * d))
    if (longest < 1e-9) break
  }
  const count = (pick: (l: DryLooks) => boolean) => looks.filter(pick).length

  return asked => {
    const prior = priorOf(asked.base)
    const sds = [prior.base, prior.class, prior.product]
    const mine = new Float64Array(n)
    let [mean, unknown] = [0, 0]
    // a product without a name may be any: its own part is not known
    const names = asked.product === null ? [...namesOf(asked), ''] : namesOf(asked)
    for (const [i, name] of names.entries()) {
      const at = places.get(name)
      if (at === undefined) unknown += sds[i]! ** 2
      else {
        mine[at] = 1
        mean += theta[at]!
      }
    }
    const known = n === 0 ? 0 : solved(lower, mine).reduce((sum, x, i) => sum + x * mine[i]!, 0)
    const sd = Math.sqrt(known + unknown + prior.look ** 2)
    return {
      ...{ early: Math.exp(mean - Z90 * sd), likely: Math.exp(mean), safe: Math.exp(mean + Z90 * sd) },
      seen: {
        product: count(l => l.of === asked.of && l.product === asked.product),
        class: count(l => l.of === asked.of && l.product !== asked.product),
      },
    }
  }
}
