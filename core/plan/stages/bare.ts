/** Stages down to bare wood and on it: strip, sand, bleach, raise the grain, fill. */
import { type Grit, gritName, P, STOP_P } from '../../abrasives'
import { isBare, splitLadder } from '../../acts'
import { STRIPPING } from '../../build'
import { materialOf } from '../../materials'
import { finishOn, leadSuspected } from '../../piece'
import { speciesOf } from '../../wood'
import {
  bareLadder,
  type Bench,
  budgetOf,
  cleanOff,
  gentle,
  isWaterColour,
  lastGrit,
  mends,
  mend,
  stopFor,
} from './bench'
import { washContamination } from './keep'

const HARD_FILMS = ['oil-polyurethane', 'catalysed', 'waterborne']

/** Whether any later step brings water to the bare wood. */
const bringsWater = ({ choice, house }: Pick<Bench, 'choice' | 'house'>) =>
  isWaterColour(choice.colour) ||
  (choice.bleach ?? 'none') !== 'none' ||
  choice.fill === 'waterborne-filler' ||
  materialOf(choice.finish).base === 'water' ||
  house['raise-grain'] === 'always'

export function strip(b: Bench) {
  const both = b.choice.route === 'strip-both'
  const coarse = b.facts.keepPatina ? 180 : 80
  if (!isBare(b.s)) {
    b.put(120, 'cover', 'nothing runs where it must not', { method: 'none' })
    const hard = finishOn(b.facts, b.group).some(l => HARD_FILMS.includes(l.finish))
    const thin = both && b.house.first === 'sand'
    if (!b.lead && (hard || thin))
      b.put(125, 'roughen', 'lets the stripper in', { grits: [P(coarse)], method: thin ? 'random-orbit' : 'hand' })
    b.put(130, 'strip', 'works as long as it is wet', { product: 'solvent-gel-stripper', method: 'brush' })
    b.put(135, 'scrape', 'low angle, rounded corners, no burr', { method: 'hand' })
    const wool = b.house['abrade-with'] === 'steel-wool' && !bringsWater(b)
    b.put(140, 'wash-off', 'residue in corners stops the next film from drying', {
      product: 'white-spirit',
      method: wool ? 'steel-wool' : 'rag',
      passes: 3,
    })
  }
  washContamination(b, 145)
}

export function sandOff(b: Bench) {
  if (!isBare(b.s))
    b.put(130, 'sand-off', 'a thin or brittle film on flat solid wood comes off under the scraper', {
      grits: [P(b.facts.keepPatina ? 180 : 80)],
      method: b.lead ? 'wet' : 'random-orbit',
    })
  washContamination(b, 145)
}

const PROUD = 'left a little proud, and cut flush by the grits that follow'

export function sandBare(b: Bench) {
  const { facts, group, choice, house } = b
  const budget = budgetOf(b, group, choice)
  const shaped = group.faces.every(f => f.shape === 'turned' || f.shape === 'carved')
  const grits = bareLadder(b, group, choice)
  const stripped = STRIPPING.includes(choice.route)
  if (b.lead || budget?.verdict === 'do-not-sand' || (gentle(b) && shaped)) {
    if (stripped) mend(b, 190, PROUD)
    const thin = budget?.verdict === 'do-not-sand'
    const spared = thin ? 'the veneer has nothing to spare for paper' : 'the patina stays'
    const unsafe = `${leadSuspected(facts.lead) ? 'lead' : 'a hazard'} is not ruled out: no dry sanding`
    b.put(200, 'pad', b.lead ? unsafe : spared, { grits: [lastGrit(grits)], method: b.lead ? 'wet' : 'hand' })
    return
  }
  const byHand = group.substrate === 'veneer' || group.faces.every(f => f.shape !== 'flat')
  const orbit = house['orbit-on-tops'] === 'yes' || group.faces.every(f => f.rank !== 'show')
  const machine = orbit ? 'random-orbit' : 'finishing-sander'
  const sand = (order: number, its: readonly Grit[], why: string) =>
    b.put(order, 'sand', why, { grits: [...its], method: byHand ? 'hand' : machine })
  const fills = stripped && mends(b).length > 0
  const [coarse, fine] = fills ? splitLadder(grits) : [[], grits]
  if (coarse.length) sand(185, coarse, 'the coarse grits first, fills after them')
  if (stripped) mend(b, 190, PROUD)
  sand(200, fine, `stop at ${gritName(lastGrit(grits))}: ${STOP_P[stopFor(choice)].why}`)
}

/** A light pass after bleach or water: paper, or a wet pad where nothing is sanded dry. */
function lightPass(b: Bench, order: number, after: 'bleach' | 'water', why: string) {
  const grits = [lastGrit(bareLadder(b, b.group, b.choice))]
  b.put(order, b.lead ? 'pad' : 'sand', why, { grits, method: b.lead ? 'wet' : 'hand', fields: { after } })
}

export function bleach(b: Bench) {
  const product = b.choice.bleach ?? 'none'
  if (product === 'none') return
  const twoPart = product === 'two-part-bleach'
  const why = twoPart
    ? 'a stain cannot go lighter than the wood; it gets darker before it gets lighter'
    : 'takes out iron and water stains'
  b.put(210, 'bleach', why, { product, method: 'brush', passes: twoPart ? 2 : 1 })
  b.put(211, 'rinse', 'what stays in the wood eats the next film', { method: 'rag' })
  lightPass(b, 212, 'bleach', 'the treated layer is thin, edges cut through')
}

export function raiseGrain(b: Bench) {
  const { house, choice } = b
  const water =
    isWaterColour(choice.colour) ||
    (choice.colour === 'none' && materialOf(choice.finish).base === 'water') ||
    choice.fill === 'waterborne-filler'
  const wanted = house['raise-grain'] === 'always' || (house['raise-grain'] === 'when-water' && water)
  if (!wanted || b.s.grain !== 'as-is') return
  b.put(220, 'raise-grain', 'water that comes later will then raise little', { method: 'rag' })
  lightPass(b, 222, 'water', 'the raised fibres, and nothing else')
}

/** The filler wanted on open pores under a film; an oiled or waxed surface is left natural. */
export function fillProduct(b: Bench): string | null {
  const product = b.choice.fill ?? 'none'
  const open = speciesOf(b.group.species).pores === 'open' && materialOf(b.choice.finish).role === 'film'
  return product !== 'none' && open ? product : null
}

export function fill(b: Bench, order: number) {
  const product = fillProduct(b)
  if (!product) return
  const oil = product === 'paste-filler'
  const rounds = materialOf(product).coats[0]
  for (let round = 1; round <= rounds; round++) {
    const at = order + (round - 1) * 6
    b.put(at, 'fill', 'the pores of open wood show pits under a film', { product, method: 'hand', coat: round })
    b.put(at + 1, 'fill-off', oil ? 'when it hazes; left longer it sets like stone' : 'no cloudiness may stay', {
      product,
      method: 'rag',
      coat: round,
      fields: { wipe: b.house['fill-wipe'] },
    })
    b.put(at + 2, 'sand-back', 'filler on the surface greys the finish', {
      grits: [P(oil ? 320 : 220)],
      method: b.lead ? 'wet' : 'hand',
      coat: round,
    })
  }
  cleanOff(b, order + 14)
}
