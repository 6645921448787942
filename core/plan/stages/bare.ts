/** Stages down to bare wood and on it: strip, sand, raise the grain. */
import { type Grit, gritName, P, STOP_P } from '../../abrasives'
import { actOf, isBare, splitLadder } from '../../acts'
import { type Role, taken } from '../../materials'
import { finishOn, leadSuspected, STRIPPING } from '../../piece'
import { bareLadder, type Bench, budgetOf, gentle, lastGrit, mends, mend } from './bench'
import { washContamination } from './keep'

const HARD_FILMS = ['oil-polyurethane', 'catalysed', 'waterborne']

/** Whether any later step brings water to the bare wood. */
const bringsWater = (b: Bench) =>
  b.house['raise-grain'] === 'always' ||
  b.layers.some(l => actOf({ kind: l.act }).makes.water || taken(b.shelf, l)?.base === 'water')

export function strip(b: Bench) {
  const both = b.buildUp.ground === 'strip-both'
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
  const { facts, group, buildUp, house } = b
  const budget = budgetOf(b, group, buildUp)
  const shaped = group.faces.every(f => f.shape === 'turned' || f.shape === 'carved')
  const { grits, stop } = bareLadder(b, group, buildUp)
  const stripped = STRIPPING.includes(buildUp.ground)
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
  sand(200, fine, `stop at ${gritName(lastGrit(grits))}: ${STOP_P[stop].why}`)
}

/** A light pass after bleach or water: paper, or a wet pad where nothing is sanded dry. */
export function lightPass(b: Bench, order: number, after: 'bleach' | 'water', why: string, stem?: string) {
  const grits = [lastGrit(bareLadder(b, b.group, b.buildUp).grits)]
  b.put(order, b.lead ? 'pad' : 'sand', why, { grits, method: b.lead ? 'wet' : 'hand', fields: { after }, stem })
}

const BEFORE_COLOUR: readonly Role[] = ['bleach', 'conditioner', 'filler']
/** Water on the bare wood: by its first colour or film, or by a filler. */
function wetsWood(b: Bench): boolean {
  const products = b.layers.flatMap(l => (l.use === 'before-filler' ? [] : (taken(b.shelf, l) ?? [])))
  const first = products.find(m => !BEFORE_COLOUR.includes(m.role))
  return first?.base === 'water' || products.some(m => m.role === 'filler' && m.base === 'water')
}

export function raiseGrain(b: Bench) {
  const { house } = b
  const wanted = house['raise-grain'] === 'always' || (house['raise-grain'] === 'when-water' && wetsWood(b))
  if (!wanted || b.s.grain !== 'as-is') return
  b.put(220, 'raise-grain', 'water that comes later will then raise little', { method: 'rag' })
  lightPass(b, 222, 'water', 'the raised fibres, and nothing else')
}
