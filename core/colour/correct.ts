/** A pot that is off: what to add to the amount that is left, since nothing can be taken out. Grams. */
import { fitBounded } from './fit'
import { absorptionOf, absorption, reflectanceOf } from './kubelka'
import { colouredInner, innerOf, type Share, strengthsOf } from './predict'
import { judgeRecipe, mixProblem, type SearchQuestion } from './search'
import { DARKEST, type Spectrum } from './spectrum'

export interface Pot {
  /** grams of each colourant that went in, and of carrier */
  parts: readonly { id: number; g: number }[]
  carrier_g: number
  /** grams left in the pot now */
  left_g: number
}
export interface Correction {
  add: { id: number; g: number }[]
  addCarrier_g: number
  /** score of the trial, and what is expected after adding */
  before: number
  after: number
  /** grams in the pot afterwards */
  total_g: number
  /** the pot would grow beyond sense, or adding does not help enough */
  newPot: boolean
  /** shares of the pot afterwards */
  shares: Share[]
  /** how strongly this wood took the colour, against what the spectra say: 1 as foretold */
  takes: number
}

/** A pot that would more than double is better mixed anew. Shop default, unsourced. */
export const MOST_GROWTH = 1
/** What adding must gain to be worth it. Shop default, unsourced. */
const WORTH_ADDING = 0.15

/**
 * No wood takes a colour more unlike its record than this; beyond it the reading is of something else. Shop default,
 * unsourced.
 */
const TAKES = [0.4, 2.5] as const

/** How strongly the colour was taken (one factor on all of it), and the wood with what that does not explain. */
function takenUp(
  wood: Spectrum,
  model: Spectrum,
  seen: Spectrum,
  lies: 'wood' | 'film',
): { factor: number; base: Spectrum } {
  const added = (r: Spectrum) =>
    lies === 'wood'
      ? absorption(r).map((ks, i) => ks - absorptionOf(wood[i]!))
      : r.map((v, i) => Math.log(wood[i]! / Math.max(DARKEST, v)))
  const [wanted, got] = [added(model), added(seen)]
  const weight = wanted.map(w => 1 / (w + 0.2) ** 2)
  const over = wanted.reduce((s, w, i) => s + weight[i]! * w * got[i]!, 0)
  const under = wanted.reduce((s, w, i) => s + weight[i]! * w * w, 0)
  const factor = under > 1e-9 ? Math.min(TAKES[1], Math.max(TAKES[0], over / under)) : 1
  const rest = got.map((g, i) => g - factor * wanted[i]!)
  return {
    factor,
    base: wood.map((r, i) =>
      lies === 'wood'
        ? reflectanceOf(Math.max(0, absorptionOf(r) + rest[i]!))
        : Math.max(DARKEST, Math.min(1, r * Math.exp(-rest[i]!))),
    ),
  }
}

/** Shares of a pot, percent of its weight. */
export const sharesOf = ({ parts, carrier_g }: Pick<Pot, 'parts' | 'carrier_g'>): Share[] => {
  const total = parts.reduce((sum, p) => sum + p.g, 0) + carrier_g
  return parts.map(p => ({ id: p.id, pct: (100 * p.g) / total }))
}

/**
 * What to add. The trial (what the meter read of a band of this pot, under `q.surface`) tells by how much this wood
 * and these colourants differ from the model: how strongly the colour is taken is fitted first, what is left over goes
 * to the wood; then additions are fitted.
 * @throws RangeError for a pot without weight.
 */
export function correctPot(q: SearchQuestion, pot: Pot, trial: Spectrum): Correction {
  if (!(pot.left_g > 0)) throw new RangeError('There is nothing left in the pot to correct.')
  const set = q.colourants
  const now = sharesOf(pot)
  const lies = set[0]?.lies ?? 'wood'
  const shareOf = (id: number) => now.find(s => s.id === id)?.pct ?? 0
  const takes = takenUp(
    q.substrates[0]!,
    colouredInner(q.substrates[0]!, set, strengthsOf(set, now, q.coats, q.wipe)),
    innerOf(trial, q.surface),
    lies,
  )
  const asked = {
    ...q,
    substrates: [takes.base],
    colourants: set.map(c => ({ ...c, k: c.k.map(k => k * takes.factor) })),
  }
  const mix = mixProblem(asked, asked.colourants)
  const held = set.map(c => (shareOf(c.id) * pot.left_g) / 100)
  const most_g = pot.left_g * 3
  const pct = new Float64Array(set.length)
  const sharesAfter = (x: Float64Array) => {
    let total = pot.left_g
    for (const g of x) total += g
    for (let j = 0; j < set.length; j++) pct[j] = (100 * (held[j]! + x[j]!)) / total
    return pct
  }
  const growth = new Float64Array(1)
  const problem = {
    most: [
      ...set.map((c, j) =>
        Math.min(most_g, Math.max(0.001 * pot.left_g, (c.most_pct / 100) * 4 * pot.left_g - held[j]!)),
      ),
      most_g,
    ],
    size: mix.size + 1,
    residuals: (x: Float64Array, out: Float64Array) => {
      mix.residuals(sharesAfter(x), out)
      growth[0] = x.reduce((s, g) => s + g, 0) / pot.left_g
      out[mix.size] = 0.02 * growth[0]
    },
  }
  const fits = [0.001, 0.03, 0.2].map(start =>
    fitBounded(problem, [...set.map(() => start * pot.left_g), start * pot.left_g]),
  )
  const best = fits.reduce((a, b) => (b.cost < a.cost ? b : a))
  const least_g = pot.left_g * 1e-4
  const x = best.x.map(g => (g < least_g ? 0 : g))
  const shares = Array.from(sharesAfter(x), (p, j) => ({ id: set[j]!.id, pct: p }))
  const before = judgeRecipe({ ...q, substrates: [innerOf(trial, q.surface)] }, []).score
  const after = judgeRecipe(asked, shares).score
  const added = x.reduce((s, g) => s + g, 0)
  return {
    add: set.map((c, j) => ({ id: c.id, g: x[j]! })).filter(a => a.g > 0),
    addCarrier_g: x[set.length]!,
    before,
    after,
    total_g: pot.left_g + added,
    newPot:
      added > MOST_GROWTH * pot.left_g || (before > 2 && after > 2) || (before > 1 && before - after < WORTH_ADDING),
    shares,
    takes: takes.factor,
  }
}
