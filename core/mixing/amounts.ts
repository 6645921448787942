/** Mixtures by parts and percent. Every percent says of what. Grams, millilitres, g/ml. */

/**
 * parts: so many parts · base: percent of the first ingredient · sum: percent of all that stands before it · total:
 * percent of the finished mixture
 */
export const SHARES_OF = ['parts', 'base', 'sum', 'total'] as const
export type ShareOf = (typeof SHARES_OF)[number]
export type CountedBy = 'volume' | 'weight'

export interface Ingredient {
  name: string
  share: number
  of: ShareOf
  density_g_ml: number
  /** volume solids as a fraction; null: not known */
  solids: number | null
}
/** What is wanted: a finished amount, or what one ingredient has left in its can. */
export type Wanted = { total_g: number } | { total_ml: number } | { of: number; g: number } | { of: number; ml: number }

export interface MixLine {
  name: string
  g: number
  ml: number
  /** fraction of the finished mixture by weight and by volume */ byWeight: number
  byVolume: number
}
export interface Mixture {
  lines: MixLine[]
  total_g: number
  total_ml: number
  /** volume solids of the mixture; null where one is not known */ solids: number | null
}

/**
 * Amounts on the scale of parts; percents of the total are solved for.
 * @throws RangeError for shares that cannot be.
 */
function relativeAmounts(ingredients: readonly Ingredient[]): number[] {
  const [first] = ingredients
  if (!first || first.of !== 'parts') throw new RangeError('The first ingredient is the base and is given in parts.')
  if (ingredients.some(i => !(i.share > 0) || !Number.isFinite(i.share)))
    throw new RangeError('Every share is a number above nought.')
  const ofTotal = ingredients.map(() => 0)
  const fixed: number[] = []
  for (const [k, { share, of }] of ingredients.entries()) {
    if (of === 'parts') fixed.push(share)
    else if (of === 'base') fixed.push((share / 100) * fixed[0]!)
    else if (of === 'total') {
      fixed.push(0)
      ofTotal[k] = share / 100
    } else {
      fixed.push((share / 100) * fixed.reduce((s, v) => s + v, 0))
      ofTotal[k] = (share / 100) * ofTotal.slice(0, k).reduce((s, v) => s + v, 0)
    }
  }
  const rest = 1 - ofTotal.reduce((s, v) => s + v, 0)
  if (rest <= 0) throw new RangeError('The percents of the total come to 100 or more; nothing is left for the rest.')
  const total = fixed.reduce((s, v) => s + v, 0) / rest
  return fixed.map((f, k) => f + ofTotal[k]! * total)
}

/**
 * The amounts of a mixture whose shares count `by` volume or weight.
 * @throws RangeError for an empty list, a share or density that is not above nought, or an amount that is not.
 */
export function mixture(ingredients: readonly Ingredient[], by: CountedBy, wanted: Wanted): Mixture {
  if (ingredients.some(i => !(i.density_g_ml > 0)))
    throw new RangeError('Every ingredient needs a density above nought.')
  const amounts = relativeAmounts(ingredients)
  const ml = amounts.map((a, k) => (by === 'volume' ? a : a / ingredients[k]!.density_g_ml))
  const g = amounts.map((a, k) => (by === 'weight' ? a : a * ingredients[k]!.density_g_ml))
  const sum = (v: readonly number[]) => v.reduce((s, x) => s + x, 0)
  const share = () => {
    if ('total_g' in wanted) return wanted.total_g / sum(g)
    if ('total_ml' in wanted) return wanted.total_ml / sum(ml)
    if ('g' in wanted) return wanted.g / (g[wanted.of] ?? 0)
    return wanted.ml / (ml[wanted.of] ?? 0)
  }
  const have = share()
  if (!(have > 0) || !Number.isFinite(have)) throw new RangeError('Give an amount above nought.')
  const known = ingredients.every(i => i.solids !== null)
  return {
    lines: ingredients.map(({ name }, k) => ({
      name,
      g: g[k]! * have,
      ml: ml[k]! * have,
      byWeight: g[k]! / sum(g),
      byVolume: ml[k]! / sum(ml),
    })),
    total_g: sum(g) * have,
    total_ml: sum(ml) * have,
    solids: known ? sum(ingredients.map((i, k) => i.solids! * ml[k]!)) / sum(ml) : null,
  }
}

export interface Measured {
  name: string
  wanted: number
  measure: number
  /** how far the share is off, as a fraction of itself */ error: number
}

/**
 * Amounts as a balance or a cylinder that shows steps of `smallest` can measure them, and how far each share is then
 * off.
 * @throws RangeError for a step that is not above nought.
 */
export function measured(lines: readonly { name: string; amount: number }[], smallest: number): Measured[] {
  if (!(smallest > 0)) throw new RangeError('The smallest measurable amount is above nought.')
  const rounded = lines.map(l => Math.round(l.amount / smallest) * smallest)
  const total = lines.reduce((s, l) => s + l.amount, 0)
  const sum = rounded.reduce((s, v) => s + v, 0)
  return lines.map((l, k) => ({
    name: l.name,
    wanted: l.amount,
    measure: rounded[k]!,
    error: sum === 0 ? -1 : rounded[k]! / sum / (l.amount / total) - 1,
  }))
}

/** A share that is off by more than this is shown. Shop default, unsourced. */
export const SHOWN_ERROR = 0.02

/**
 * The least total at which no line is off by more than `error` of itself by the step of the balance: half a step at
 * most.
 */
export const leastTotal = (lines: readonly { amount: number }[], smallest: number, error = SHOWN_ERROR): number => {
  const total = lines.reduce((s, l) => s + l.amount, 0)
  return Math.max(...lines.map(l => (smallest / 2 / error) * (total / l.amount)))
}

/** How many ladles of a size an amount is, to a quarter ladle. */
export const ladles = (ml: number, ladle_ml: number): number => Math.round((4 * ml) / ladle_ml) / 4
