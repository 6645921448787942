/** Stages down to bare wood and on it: strip, sand, raise the grain. */
import { type Grit, gritName, isCoarser, P, STOP_P } from '../../abrasives'
import { actOf, does, isBare, isOthersColour, type Method, splitLadder } from '../../acts'
import { type Role, taken } from '../../materials'
import { type FindingKind, finishOn, type Group, leadSuspected, STRIPPING } from '../../piece'
import { isFlat } from '../../units'
import { chanceOfFailing } from '../chances'
import {
  bareLadder,
  type Bench,
  budgetOf,
  cleanOff,
  facesWith,
  gentle,
  lastGrit,
  lightPass,
  mends,
  mend,
} from './bench'
import { washContamination } from './keep'

const HARD_FILMS = ['oil-polyurethane', 'catalysed', 'waterborne']

/** Whether any later step brings water to the bare wood. */
const bringsWater = (b: Bench) =>
  b.house['raise-grain'] === 'always' ||
  facesWith(b, 'black-ring', 'dents').length > 0 ||
  b.layers.some(l => actOf({ kind: l.act }).makes.water || taken(b.shelf, l)?.base === 'water')

export function strip(b: Bench) {
  const both = b.buildUp.ground === 'strip-both'
  const coarse = b.facts.keepPatina ? 180 : 80
  if (!isBare(b.s) || isOthersColour(b.s)) {
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
  if (!isBare(b.s) || isOthersColour(b.s))
    b.put(130, 'sand-off', 'a thin or brittle film on flat solid wood comes off under the scraper', {
      grits: [P(b.facts.keepPatina ? 180 : 80)],
      method: b.lead ? 'wet' : 'random-orbit',
    })
  washContamination(b, 145)
}

const PROUD = 'left a little proud, and cut flush by the grits that follow'

/** Bare wood is sanded: flat faces by machine, turned, carved and profiled ones by hand or by pad beside them. */
export function sandBare(b: Bench) {
  const flat = b.group.faces.filter(isFlat)
  const shaped = b.group.faces.filter(f => !isFlat(f))
  const stripped = STRIPPING.includes(b.buildUp.ground)
  const apart = flat.length > 0 && shaped.length > 0
  const [coarse, fine] = [flat, shaped]
    .filter(faces => faces.length > 0)
    .map(faces => sanded(b, { ...b.group, faces }))
    .reduce<[Sanded[], Sanded[]]>(
      ([c, f], s) => [
        [...c, ...s.coarse],
        [...f, s.fine],
      ],
      [[], []],
    )
  const put = (order: number, { kind, why, faces, ...more }: Sanded) =>
    b.put(order, kind, why, { ...more, ...(apart ? { faces } : {}) })
  for (const step of coarse) put(185, step)
  if (stripped) mend(b, 190, 'mend', PROUD)
  for (const step of fine) put(200, step)
}

interface Sanded {
  kind: 'sand' | 'pad'
  why: string
  grits: Grit[]
  method: Method
  faces: readonly number[]
}
/** How some faces of the group are sanded: the coarse grits before what is filled, the fine ones after it. */
function sanded(b: Bench, group: Group): { coarse: Sanded[]; fine: Sanded } {
  const { facts, buildUp, house } = b
  const faces = group.faces.map(f => f.id)
  const budget = budgetOf(b, group, buildUp)
  const shaped = !group.faces.some(isFlat)
  const { grits, stop } = bareLadder(b, group, buildUp)
  const thin = budget?.verdict === 'do-not-sand'
  if (b.lead || thin || (gentle(b) && shaped)) {
    const spared = thin ? 'the veneer has nothing to spare for paper' : 'the patina stays'
    const unsafe = `${leadSuspected(facts.lead) ? 'lead' : 'a hazard'} is not ruled out: no dry sanding`
    const by = b.lead ? ({ why: unsafe, method: 'wet' } as const) : ({ why: spared, method: 'hand' } as const)
    return { coarse: [], fine: { kind: 'pad', grits: [lastGrit(grits)], faces, ...by } }
  }
  const orbit = house['orbit-on-tops'] === 'yes' || group.faces.every(f => f.rank !== 'show')
  const machine = orbit ? 'random-orbit' : 'finishing-sander'
  const method = group.substrate === 'veneer' || shaped ? 'hand' : machine
  const fills = STRIPPING.includes(buildUp.ground) && mends(b, 'mend').length > 0
  const [first, rest] = fills ? splitLadder(grits) : [[], grits]
  const all = { kind: 'sand', method, faces } as const
  return {
    coarse: first.length ? [{ ...all, grits: [...first], why: 'the coarse grits first, fills after them' }] : [],
    fine: { ...all, grits: [...rest], why: `stop at ${gritName(lastGrit(rest))}: ${STOP_P[stop].why}` },
  }
}

/** Marks under which one light pass is not enough. */
const DEEP: readonly FindingKind[] = ['swirl-marks', 'scratches', 'dents']
/** Wood that somebody else bared, or that is new: dusted, a light pass by hand with the last grit, and on. */
export function asItStands(b: Bench) {
  if (isOthersColour(b.s)) return onOthersColour(b)
  const { grits, stop } = bareLadder(b, b.group, b.buildUp)
  const last = lastGrit(grits)
  cleanOff(b, 180, 'what lies on the wood is not rubbed into it')
  if (b.lead) return b.put(200, 'pad', 'a hazard is not ruled out: no dry sanding', { grits: [last], method: 'wet' })
  const isMarked = (id: number) => b.facts.findings.some(f => f.faceId === id && DEEP.includes(f.kind))
  const ids = b.group.faces.map(f => f.id)
  const [marked, sound] = [ids.filter(isMarked), ids.filter(id => !isMarked(id))]
  const through = grits.filter(g => !isCoarser(g, P(FIRST_BY_HAND)))
  const apart = marked.length > 0 && sound.length > 0
  const sand = (faces: number[], its: Grit[], why: string) =>
    faces.length && b.put(200, 'sand', why, { grits: its, method: 'hand', ...(apart ? { faces } : {}) })
  sand(marked, through, 'marks of the sander are taken out by hand before colour shows them')
  sand(sound, [last], `the wood is bare: a light pass, no ladder. ${gritName(last)}: ${STOP_P[stop].why}`)
}
const FIRST_BY_HAND = 120
/** Stain of somebody else's is never sanded: it is tried under the finish, for as long as oil dries. */
function onOthersColour(b: Bench) {
  cleanOff(b, 180, 'what lies on the wood is not rubbed into it')
  b.put(196, 'test-piece', 'what is in it is not known', { method: 'hand', fields: { tried: 'in-place' } })
  b.put(198, 'gate', 'a finish that does not hold there does not hold anywhere', {
    gate: {
      slug: 'stain-holds',
      look: 'White rag, thumbnail and tape on the dry spot.',
      fails: 'Colour comes off, or the film stays soft, wrinkles or lifts.',
      fallback: 'strip-chemical',
      chance: chanceOfFailing(b.buildUp, b.facts),
    },
  })
}

/**
 * The bare wood wetted and looked at: before colour shows what is left on it, and after bleach. Where its grain is
 * raised the water shows the same.
 */
export function wetOut(b: Bench) {
  const bleached = b.layers.some(l => l.act === 'bleach')
  const coloured = b.layers.some(l => does({ kind: l.act }, 'colours'))
  const asked = b.house['wet-out'] === 'colour' ? coloured || bleached : b.house['wet-out'] === 'always'
  if (!asked || (b.s.grain !== 'as-is' && !bleached)) return
  const why = bleached ? 'the undertone that the bleach left shows now' : 'what would show under the colour shows now'
  const fields = bleached ? ({ after: 'bleach' } as const) : {}
  b.put(223, 'wet-out', why, { product: 'white-spirit', method: 'rag', fields })
}

/** A test piece that colour and filler wait for. */
export function testPiece(b: Bench) {
  const tried = b.layers.some(l => l.act === 'fill' || does({ kind: l.act }, 'colours'))
  if (tried && b.house['test-piece'] === 'colour')
    b.put(228, 'test-piece', 'the same wood under the same steps shows what the piece will do', { method: 'hand' })
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
