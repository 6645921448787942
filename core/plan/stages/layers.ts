/** Layers laid on the surface that the ground leaves, and what the surface asks for between them. */
import { type Grit, P, STOP_P, TO_GLOSS } from '../../abrasives'
import {
  actOf,
  type Beside,
  does,
  isBare,
  type LayerUse,
  type Round,
  SHELLAC_A_DAY,
  type StepKind,
  stepOf,
  type Surface,
} from '../../acts'
import type { BuildUp, Layer } from '../../build'
import type { Context } from '../../context'
import { coatsForFilm } from '../../coverage'
import { type Material, taken } from '../../materials'
import { MELTS } from '../../piece'
import { chanceOfFailing } from '../chances'
import { type Bench, cleanOff, dry, gritOf, lightPass, polished } from './bench'
import { touchUp } from './marks'

/** Rounds of a layer: as wanted, by the film wanted, or as its product usually gets; more where it will be rubbed. */
export function roundsOf(layer: Layer, buildUp: Pick<BuildUp, 'ending' | 'layers'>, { shelf }: Pick<Context, 'shelf'>) {
  if (layer.coats !== null) return layer.coats
  const m = taken(shelf, layer)
  const { layer: own } = actOf({ kind: layer.act })
  if (m && layer.film_um !== null && m.wet_um !== null) return coatsForFilm(m, layer.film_um)
  const rubbed = buildUp.ending === 'rubbed' && layer.id === buildUp.layers.at(-1)?.id
  return rubbed && m ? m.coats[1] : (own?.rounds(m) ?? 1)
}

/** Where the dust of a layer is taken off: after its last round. */
const dustedAt = (from: number, rounds: number, apart: number) => from + Math.max(14, rounds * apart)
/** What is left between two layers for what comes between them, on the scale of the work. */
const BETWEEN = 4
/**
 * Where each layer stands among the work on other faces: where its act usually does, and never before the layer below
 * it. Faces that lack a layer keep the places of the others, so that what is alike on all is one step.
 */
export function placesOf(
  buildUp: BuildUp,
  context: Pick<Context, 'shelf'>,
): Map<number, { from: number; last: number }> {
  const places = new Map<number, { from: number; last: number }>()
  let last = 0
  for (const layer of buildUp.layers) {
    const own = actOf({ kind: layer.act }).layer
    if (!own) continue
    const from = Math.max(own.place(layer.use), last + BETWEEN)
    last = from + (roundsOf(layer, buildUp, context) - 1) * own.apart + 2
    if (own.dusty) last = dustedAt(from, roundsOf(layer, buildUp, context), own.apart)
    places.set(layer.id, { from, last })
  }
  return places
}

interface At {
  layer: Layer
  m: Material | null
  from: number
  /** where the layer below it ends */
  after: number
}
/** Keys of a layer's own steps, and of what is put in before it. */
const of = ({ layer }: At, kind: StepKind, round: number) => `${layer.id}.${kind}.${round}`
const before = ({ layer }: At, kind: StepKind) => `${layer.id}.before.${kind}`
/** Between the layer below and this one, `ahead` of it where there is room. */
const ahead = (at: At, by: number) => Math.max(at.from - by, at.after + 1)

function between(b: Bench, at: At, by: number, product: string, use: LayerUse, method: 'brush' | 'spray', why: string) {
  b.put(ahead(at, by), 'coat', why, { product, method, coat: 1, fields: { as: use }, stem: before(at, 'coat') })
}

/** A coat that is a barrier itself. */
const bars = ({ layer, m }: At) => layer.use !== null && m?.slug === 'dewaxed-shellac'
/** A barrier between what was there and the first film, and a look at it. */
function barrier(b: Bench, at: At) {
  if (b.s.contamination !== 'washed' || b.finish?.role !== 'film' || bars(at)) return
  const why = 'a barrier between what was there and the topcoat'
  between(b, at, at.from - Math.min(400, at.from - 1), 'dewaxed-shellac', 'against-contamination', 'brush', why)
  b.put(Math.min(ahead(at, at.from - 405), at.from - 0.5), 'gate', 'a gate before the topcoat', {
    stem: before(at, 'gate'),
    gate: {
      slug: 'barrier-clear',
      look: 'Raking light on the dry barrier.',
      fails: 'Craters or fish eyes.',
      fallback: null,
      chance: 0.3,
    },
  })
}

const topOf = (s: Surface) => s.films.at(-1)
/** Oil filler that nothing lies on yet. */
const oilFiller = (s: Surface) => s.filler !== null && s.inWood.findLast(w => w.role === 'filler')?.base === 'oil'

/** Colour that lies in a film lies on a sealed surface, not on bare wood. */
function underColour(b: Bench, at: At) {
  const role = at.m?.role
  if (!isBare(b.s) || (role !== 'toner' && role !== 'glaze')) return
  if (role === 'glaze')
    return between(b, at, 10, 'dewaxed-shellac', 'under-glaze', 'brush', 'a glaze is wiped on a sealed surface')
  const why = 'colour lies in the film, not in the wood'
  between(b, at, 11, b.s.contamination === 'washed' ? 'dewaxed-shellac' : 'vinyl-sealer', 'under-toner', 'spray', why)
}
/** Filler on colour: sanding it back would cut the colour. */
function underFiller(b: Bench, at: At) {
  if (at.m?.role !== 'filler' || !isBare(b.s) || b.s.openColour === null) return
  const why = 'keeps the paper off the colour when the filler is sanded back'
  between(b, at, 4, 'vinyl-sealer', 'before-filler', 'spray', why)
}
/** Gel holds on a film of ours only where it is scuffed. */
function underGel(b: Bench, at: At) {
  const top = topOf(b.s)
  if (at.m?.role !== 'gel' || !top || top.found || b.s.scuffed || b.s.openColour !== null) return
  b.put(ahead(at, 6), 'scuff', 'gel holds on a scuffed film', {
    stem: before(at, 'scuff'),
    grits: [P(STOP_P['gel-over-film'].take)],
    method: dry(b, 'hand'),
    fields: { on: 'sealer' },
  })
}

/** What a film needs between it and what it is laid on. */
function underFilm(b: Bench, at: At) {
  const { m } = at
  const top = topOf(b.s)
  if (m?.base === 'lacquer' && top?.found && !MELTS.includes(top.slug))
    between(b, at, 30, 'dewaxed-shellac', 'under-lacquer', 'brush', 'lacquer solvent wrinkles an oil film')
  if (!m || at.layer.use) return
  if (m.base === 'water' && oilFiller(b.s)) {
    const why = 'oil filler under a waterborne coat wants three days, or shellac between'
    between(b, at, 32, 'dewaxed-shellac', 'over-filler', 'brush', why)
  }
  if (m.traits.includes('catalysed') && isBare(b.s)) {
    const why = "two-part films hold on vinyl or the maker's own sealer"
    between(b, at, 30, 'vinyl-sealer', 'sealer', 'spray', why)
  }
}

/** A film that was only scuffed may still let go. */
function adhesion(b: Bench, order: number, at: At) {
  b.put(order, 'gate', 'a film that was only scuffed may still let go', {
    stem: of(at, 'gate', 1),
    gate: {
      slug: 'adhesion',
      look: 'Raking light over the dry coat; thumbnail and tape on a hidden place.',
      fails: 'It crawls, wrinkles, or comes off with the tape.',
      fallback: 'strip-chemical',
      chance: chanceOfFailing(b.buildUp, b.facts),
    },
  })
}

/** Grit between coats: of the layer, else of its product, where that is the usual one the house's. */
function gritBetween(b: Bench, { layer, m }: At) {
  if (layer.between) return layer.between
  if (!m?.betweenCoats_P) return null
  return P(m.betweenCoats_P === 320 ? gritOf(b.house['between-coats']) : m.betweenCoats_P)
}

/** Is there a film of ours below, of a layer that was chosen, that wants a key? */
function wantsKey(b: Bench, at: At, below: Layer | undefined): boolean {
  if (!below || below.use || at.layer.use || !does({ kind: below.act }, 'finishes')) return false
  return !isBare(b.s) && !at.m?.meltsIn
}

function beside(b: Bench, order: number, what: Beside, at: At, round: Round) {
  const { kind, why, takesProduct, grits, method, fields } = what
  if (grits === 'stop')
    return lightPass(b, order, fields?.after === 'water' ? 'water' : 'bleach', why, of(at, kind, round.no))
  const own = { product: round.step.product, label: round.step.label }
  b.put(order, kind, why, {
    stem: of(at, kind, round.no),
    ...(takesProduct ? own : {}),
    ...(grits ? { grits: [...grits] } : {}),
    ...(method ? { method } : {}),
    ...(fields ? { fields } : {}),
    ...(takesProduct || kind === 'sand-back' ? { coat: round.no } : {}),
  })
}

const isFilm = (b: Bench, l: Layer) => does({ kind: l.act }, 'finishes') && taken(b.shelf, l)?.role === 'film'

/** Shellac built by the brush, coat on coat over days. */
const isBuilt = ({ layer, m }: At): boolean =>
  layer.act === 'coat' && m?.base === 'alcohol' && (layer.method ?? 'brush') === 'brush'

/** One layer on this group. `below`: the layer that was laid before it. */
function layOne(b: Bench, at: At, below: Layer | undefined) {
  const { layer, m } = at
  const act = actOf({ kind: layer.act })
  const own = act.layer
  if (!own) return
  const films = does({ kind: layer.act }, 'finishes') && m?.role === 'film'
  underColour(b, at)
  underFiller(b, at)
  underGel(b, at)
  if (films) {
    if (b.layers.find(l => isFilm(b, l)) === layer) touchUp(b, ahead(at, 12), before(at, 'spot-colour'))
    barrier(b, at)
    underFilm(b, at)
  }
  if (own.flattens && !isBare(b.s) && b.s.openColour === null) {
    const why = 'flat before it: ridges go, shiny spots are the lows'
    b.put(ahead(at, 1), 'sand-coat', why, { stem: before(at, 'sand-coat'), grits: [P(400)], method: dry(b, 'hand') })
  }
  const rounds = roundsOf(layer, b.buildUp, b)
  for (let no = 1; no <= rounds; no++) {
    const order = at.from + (no - 1) * own.apart
    const grit = films && own.sanded ? gritBetween(b, at) : null
    if (grit && b.s.openColour === null && (no > 1 || wantsKey(b, at, below))) {
      const why = 'grip and nibs, edges left alone'
      b.put(no > 1 ? order - own.apart / 2 : ahead(at, 1), 'sand-coat', why, {
        stem: of(at, 'sand-coat', no),
        grits: [grit],
        method: dry(b, 'hand'),
      })
    }
    if (!grit && no > 1 && (no - 1) % SHELLAC_A_DAY === 0 && isBuilt(at) && b.s.openColour === null)
      b.put(order - own.apart / 2, 'sand-coat', 'flat in the morning: shiny spots are the lows; gum means wait', {
        stem: of(at, 'sand-coat', no),
        grits: [P(400)],
        method: dry(b, 'hand'),
      })
    const dye = b.s.inWood.findLast(w => w.role === 'dye')
    const bleeds = films && no === 1 && isBare(b.s) && dye?.base === m?.base
    const byProduct = (m && own.method?.(m)) ?? act.methods[0]
    const usual = bleeds ? 'spray' : byProduct
    const helps = layer.use !== null && layer.use !== 'fills-pores'
    const counted = act.fields.includes('of') && !helps && (rounds > 1 || layer.act !== 'wax')
    const more = {
      stem: of(at, layer.act, no),
      product: layer.product,
      label: layer.label,
      method: layer.method ?? usual,
      coat: no,
      ...(m && own.passes ? { passes: own.passes(m) } : {}),
      fields: {
        ...layer.fields,
        ...(layer.use ? { as: layer.use } : {}),
        ...(counted ? { of: rounds } : {}),
      },
    }
    const round: Round = {
      step: stepOf({ key: '', kind: layer.act, faces: b.group.faces.map(f => f.id), ...more }),
      no,
      of: rounds,
      s: b.s,
      k: b,
    }
    b.put(order, layer.act, own.why(round), more)
    if (films && !layer.use && no === 1 && b.buildUp.ground === 'scuff') adhesion(b, order + 2, at)
    own.after(round).forEach((what, i) => beside(b, order + (own.apart === 10 ? 5 : i + 1), what, at, round))
  }
  if (own.dusty) cleanOff(b, dustedAt(at.from, rounds, own.apart), undefined, `${layer.id}.clean-off`)
}

/** A stretch of the layers of this group, in order. */
export function lay(b: Bench, layers: readonly Layer[]) {
  const places = placesOf(b.buildUp, b)
  for (const layer of layers) {
    const from = places.get(layer.id)?.from ?? actOf({ kind: layer.act }).layer?.place(layer.use) ?? 0
    const i = b.layers.indexOf(layer)
    const below = b.layers[i - 1]
    const at = { layer, m: taken(b.shelf, layer), from, after: (below && places.get(below.id)?.last) ?? 0 }
    layOne(b, at, below)
  }
}

/** The ladder of a rub-out (handbook 12): to gloss by finer paper and foam, else by wool and pumice. */
function rubbedBy({ facts: { sheen }, house }: Bench): Grit[] {
  if (sheen === 'gloss') return TO_GLOSS
  const wool: Grit = { scale: 'wool', grade: '0000' }
  if (sheen === 'semi-gloss') return [P(1200), wool]
  return [P(gritOf(house['rub-from'])), wool, { scale: 'powder', grade: 'pumice' }]
}

/** What the work ends with. */
export function end(b: Bench) {
  if (b.buildUp.ending !== 'rubbed' || b.buildUp.ground === 'amalgamate' || b.finish?.role !== 'film') return
  const last = Math.max(0, ...[...placesOf(b.buildUp, b).values()].map(p => p.last))
  b.put(Math.max(800, last + BETWEEN), 'rub-out', 'a film rubbed too early shrinks and shows scratches', {
    grits: rubbedBy(b),
    method: 'wet',
    fields: { sheen: b.facts.sheen },
  })
  if (b.facts.sheen === 'gloss') {
    b.put(Math.max(804, last + 2 * BETWEEN), 'buff', 'haze goes, and what was cut short shows')
    polished(b, Math.max(805, last + 2 * BETWEEN + 1), null)
  }
}
