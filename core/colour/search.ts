/**
 * Recipe search: few colourants, small amounts of them, least ΔE00 over several lights and substrates. Every mix of up
 * to `atMost` colourants of one group is fitted; the best of each count comes out as soon as it is known.
 */
import { labInto, labOf, lchOf } from './cielab'
import { BLEACH_LEAVES } from './coats'
import { differenceParts } from './difference'
import { fitBounded, type Problem } from './fit'
import { absorption, INSIDE, OUTSIDE, reflectanceOf } from './kubelka'
import { type Light, type Observer, viewingOf } from './lights'
import { breaksUnder, differencesUnder, type UnderLight } from './metamerism'
import {
  type Colourant,
  colouredInner,
  readOf,
  type Share,
  strengthOf,
  strengthsOf,
  type Surface,
  type Wipe,
  withAbsorption,
} from './predict'
import { BANDS, type Spectrum } from './spectrum'

export interface SearchQuestion {
  /** inner reflectance of each wood that the recipe must serve: heartwood, or sapwood and heartwood */
  substrates: readonly Spectrum[]
  /** what a meter reads of the target */
  target: Spectrum
  colourants: readonly Colourant[]
  atMost: 1 | 2 | 3 | 4
  /** the first light leads: reasons and lightness are told under it */
  lights: readonly Light[]
  observer: Observer
  coats: number
  wipe: Wipe
  /** what lies over the colour when it is judged; its gloss setting is the one of the target's reading */
  surface: Surface
}

export interface Recipe {
  group: string
  lies: Colourant['lies']
  shares: Share[]
  /** root mean square of ΔE00 over lights and substrates: what the search makes small */
  score: number
  /** the largest of `under` */
  worst: number
  /** per light, the worse of the substrates */
  under: UnderLight[]
  breaks: UnderLight[]
  /** what will be read, per substrate */
  predicted: Spectrum[]
  /** colourants that stand at their limit */
  atLimit: number[]
}

export type Reason =
  | { slug: 'lighter'; by: number; bleached: number | null }
  | { slug: 'limit'; id: number }
  | { slug: 'gamut'; lighter: number; stronger: number; turned: number }
  | { slug: 'lights'; light: Light; de: number }
export interface SearchState {
  done: number
  all: number
  best: Recipe[]
}

/** Below this score one more colourant is not worth its trouble. Shop default, unsourced. */
export const GOOD_ENOUGH = 1
/** What one more colourant must gain to be proposed. Shop default, unsourced. */
export const WORTH_ONE_MORE = 0.3
/** A share below this is no part of a recipe, %. */
const TRACE_PCT = 1e-3
const MOST_SUM_PCT = 100

/** The fit of one set of colourants: unknowns are percent of the mix. */
export function mixProblem(q: SearchQuestion, set: readonly Colourant[]): Problem {
  const { substrates, lights, observer, surface } = q
  const views = lights.map(l => viewingOf(l, observer))
  const targets = views.map(v => labOf(q.target, v))
  const ks = substrates.map(absorption)
  const inWood = set[0]?.lies === 'wood'
  const per_pct = set.map(c => c.k.map(k => strengthOf(k, q.coats, inWood ? q.wipe : 'none')))
  const clear2 = surface.clear?.map(t => t * t) ?? null
  const gloss = surface.clear && surface.gloss === 'included' ? OUTSIDE : 0
  const read = new Float64Array(BANDS)
  const lab = new Float64Array(3)
  const scale = 1 / Math.sqrt(lights.length * substrates.length)
  return {
    most: set.map(c => c.most_pct),
    size: 3 * lights.length * substrates.length,
    hold: x => {
      const sum = x.reduce((s, v) => s + v, 0)
      if (sum > MOST_SUM_PCT) for (let j = 0; j < x.length; j++) x[j]! *= MOST_SUM_PCT / sum
    },
    residuals: (x, out) => {
      let at = 0
      for (const [s, inner] of substrates.entries()) {
        for (let i = 0; i < BANDS; i++) {
          let add = 0
          for (let j = 0; j < x.length; j++) add += x[j]! * per_pct[j]![i]!
          let r = inWood ? reflectanceOf(ks[s]![i]! + add) : inner[i]! * Math.exp(-2 * add)
          if (clear2) {
            r *= clear2[i]!
            r = gloss + ((1 - OUTSIDE) * (1 - INSIDE) * r) / (1 - INSIDE * r)
          }
          read[i] = r
        }
        for (const [l, v] of views.entries()) {
          labInto(read, v, lab, 0)
          const t = targets[l]!
          differenceParts(t[0], t[1], t[2], lab[0]!, lab[1]!, lab[2]!, out, at)
          out[at]! *= scale
          out[at + 1]! *= scale
          out[at + 2]! *= scale
          at += 3
        }
      }
    },
  }
}

/** What a recipe gives, read and judged. */
export function judgeRecipe(q: SearchQuestion, shares: readonly Share[]): Recipe {
  const set = shares.map(s => q.colourants.find(c => c.id === s.id)!)
  const lies = set[0]?.lies ?? 'wood'
  const predicted = q.substrates.map(inner =>
    readOf(colouredInner(inner, set, strengthsOf(set, shares, q.coats, q.wipe)), q.surface),
  )
  const each = predicted.map(p => differencesUnder(q.target, p, q.lights, q.observer))
  const under = q.lights.map((light, l) => ({ light, de: Math.max(...each.map(e => e[l]!.de)) }))
  const all = each.flat()
  return {
    group: set[0]?.group ?? '',
    lies,
    shares: [...shares],
    predicted,
    under,
    worst: Math.max(...under.map(u => u.de)),
    breaks: breaksUnder(under),
    score: Math.sqrt(all.reduce((sum, u) => sum + u.de * u.de, 0) / all.length),
    atLimit: shares.filter((s, j) => s.pct >= set[j]!.most_pct * 0.999).map(s => s.id),
  }
}

function* subsets<T>(items: readonly T[], size: number, from = 0): Generator<T[]> {
  if (size === 0) {
    yield []
    return
  }
  for (let i = from; i <= items.length - size; i++)
    for (const rest of subsets(items, size - 1, i + 1)) yield [items[i]!, ...rest]
}
const choose = (n: number, k: number): number => (k === 0 ? 1 : (choose(n - 1, k - 1) * n) / k)

const STARTS = [0.06, 0.4] as const
const PATIENCE = 40

/**
 * The search, step by step: yields the best recipe of each count so far, when one got better and now and then for the
 * progress. Small counts come first, so a good answer stands at once. Groups do not mix.
 */
export function* searchRecipes(q: SearchQuestion): Generator<SearchState> {
  const groups = [...new Set(q.colourants.map(c => c.group))].map(g => q.colourants.filter(c => c.group === g))
  const all = groups.reduce(
    (sum, g) =>
      sum +
      Array.from({ length: q.atMost }, (_, k) => (k + 1 <= g.length ? choose(g.length, k + 1) : 0)).reduce(
        (a, b) => a + b,
        0,
      ),
    0,
  )
  const best = new Map<string, Recipe>()
  let done = 0
  for (let count = 1; count <= q.atMost; count++) {
    for (const group of groups) {
      for (const set of subsets(group, count)) {
        const problem = mixProblem(q, set)
        const fits = STARTS.map(share =>
          fitBounded(
            problem,
            set.map(c => (c.most_pct * share) / set.length),
          ),
        )
        const fit = fits.reduce((a, b) => (b.cost < a.cost ? b : a))
        const shares = set.map((c, j) => ({ id: c.id, pct: fit.x[j]! })).filter(s => s.pct > TRACE_PCT)
        done += 1
        const key = `${group[0]!.group}/${shares.length}`
        const before = best.get(key)
        const better = shares.length > 0 && (!before || Math.sqrt(fit.cost) < before.score - 1e-6)
        if (better) best.set(key, judgeRecipe(q, shares))
        if (better || done % PATIENCE === 0 || done === all)
          yield { done, all, best: [...best.values()].sort((a, b) => a.score - b.score) }
      }
    }
  }
}

/** The whole search at once. */
export function bestRecipes(q: SearchQuestion): Recipe[] {
  let last: SearchState = { done: 0, all: 0, best: [] }
  for (const state of searchRecipes(q)) last = state
  return last.best
}

/**
 * The one to propose: the fewest colourants that are good enough, else the fewest that one more would hardly better.
 */
export function proposed(best: readonly Recipe[]): Recipe | null {
  const byCount = [...best].sort((a, b) => a.shares.length - b.shares.length || a.score - b.score)
  return (
    byCount.find(r => r.score <= GOOD_ENOUGH) ??
    byCount.find(r => !best.some(o => o.score < r.score - WORTH_ONE_MORE)) ??
    null
  )
}

/** What the target differs by where the wood has only its finish: a colour can only take light away. */
const LIGHTER_BY = 1

/** Why a target is not reached, and whether bleach would help; empty where the recipe is good enough. */
export function whyNot(q: SearchQuestion, recipe: Recipe): Reason[] {
  if (recipe.score <= GOOD_ENOUGH) return []
  const lead = viewingOf(q.lights[0]!, q.observer)
  const target = labOf(q.target, lead)
  const reasons: Reason[] = []
  const darkest = q.substrates.reduce((a, b) =>
    labOf(readOf(a, q.surface), lead)[0] < labOf(readOf(b, q.surface), lead)[0] ? a : b,
  )
  const by = target[0] - labOf(readOf(darkest, q.surface), lead)[0]
  if (by > LIGHTER_BY) {
    const bleached = bestRecipes({
      ...q,
      atMost: Math.min(2, q.atMost) as 1 | 2,
      substrates: q.substrates.map(s => withAbsorption(s, BLEACH_LEAVES)),
    })[0]
    reasons.push({ slug: 'lighter', by, bleached: bleached?.score ?? null })
  }
  reasons.push(...recipe.atLimit.map(id => ({ slug: 'limit' as const, id })))
  const breaks = recipe.breaks[0]
  if (breaks) reasons.push({ slug: 'lights', ...breaks })
  if (reasons.length === 0) {
    const [, C, h] = lchOf(target)
    const [L2, C2, h2] = lchOf(labOf(recipe.predicted[0]!, lead))
    reasons.push({ slug: 'gamut', lighter: L2 - target[0], stronger: C2 - C, turned: ((h2 - h + 540) % 360) - 180 })
  }
  return reasons
}
