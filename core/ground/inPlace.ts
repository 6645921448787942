/** Reasons for and against the routes that go on from what is there: bare wood, oil, wax, a sound film. */
import { median_um, TO_GLOSS } from '../abrasives'
import { filmGauged_um, foundSurface } from '../acts'
import {
  type Facts,
  type Finding,
  findingsOf,
  finishOn,
  type FindingKind,
  groupsOf,
  IN_THE_FILM,
  MELTS,
  isFound,
  NO_FILM,
  POLISHED_OUT,
  RENEWED_WITH,
  shareOf,
  underWax,
} from '../piece'
import { isFlat, sumOf } from '../units'
import { BADLY, doubtful, extent, filmName, layerName, type RouteReason, ruledOut, speaksFor, words } from './reason'

const topsOf = (facts: Facts) => groupsOf(facts).map(g => finishOn(facts, g)[0])
const keepsColour = (facts: Facts): RouteReason[] =>
  facts.tone === 'same' ? [] : [ruledOut('The colour stays as it is under this route.')]

const SURE = 0.7
export function asItStandsReasons(facts: Facts): RouteReason[] {
  const tops = topsOf(facts)
  if (tops.some(l => !l)) return [doubtful('No finish test yet. Test first: is the wood bare?')]
  const other = tops.find(l => l?.finish !== 'none')
  const unsure = tops.find(l => l && l.certainty < SURE)
  if (!other && unsure)
    return [
      doubtful(`Bare is not sure (${layerName(unsure)}): oil in the wood keeps colour and water out. Test again.`),
    ]
  if (!other && isFound(facts, 'unknown-stain'))
    return [
      facts.tone === 'same'
        ? speaksFor('Bare wood with a stain of unknown kind: not sanded, tried under the finish for 72 h, then coated.')
        : doubtful('The stain on the bare wood is of unknown kind: its colour stays below whatever is laid on it.'),
    ]
  return other
    ? [ruledOut(`The wood is not bare (${layerName(other)}).`)]
    : [speaksFor('The wood is bare: dust, a light pass by hand, and what is laid on it.')]
}

/** What lies in or below the film. */
const BELOW: readonly FindingKind[] = [
  'scratches',
  'dents',
  'white-ring',
  'black-ring',
  'heat-mark',
  'crazing',
  'coarse-film',
  'runs',
  'brush-marks',
  'orange-peel',
  'overspray',
  'swirl-marks',
  'fish-eyes',
  'peeling',
  'print',
  'soft-film',
  'worn-through',
  'sanded-through',
  'old-paint',
]
export function cleanAndWaxReasons(facts: Facts): RouteReason[] {
  const reasons: RouteReason[] = []
  const tops = groupsOf(facts).map(g => underWax(facts, g))
  const melts = tops.length > 0 && tops.every(l => l && MELTS.includes(l.finish))
  const broken = findingsOf(facts, ...BELOW).filter(f => f.wish === 'mend')
  const peeling = findingsOf(facts, 'peeling')[0]
  if (peeling) reasons.push(ruledOut(`Peeling, ${extent(facts, peeling)}: wax holds nothing down.`))
  if (facts.tone !== 'same') reasons.push(ruledOut('Wax does not change the colour.'))
  if (facts.age === 'new') reasons.push(doubtful('The client wants it new; cleaned and waxed it keeps its age.'))
  if (tops.length > 0 && tops.every(l => l?.finish === 'none'))
    reasons.push(ruledOut('The wood is bare; wax alone protects little.'))
  if (tops.some(l => !l)) reasons.push(doubtful('No finish test yet: test it before anything is decided.'))
  if (tops.some(l => l?.finish === 'oil' || l?.finish === 'hardwax-oil'))
    reasons.push(doubtful('Oil is renewed with oil; wax on it must come off again before the next oil.'))
  if (facts.sheen === 'gloss') reasons.push(ruledOut('Wax gives a soft sheen, never gloss.'))
  if (facts.sheen === 'semi-gloss') reasons.push(doubtful('Wax gives a soft sheen; more gloss wants a polish.'))
  const flows = (f: Finding) => melts && IN_THE_FILM.includes(f.kind)
  const worst = broken.find(f => f !== peeling && !flows(f))
  const ring = broken.find(flows)
  if (ring) reasons.push(doubtful(`${words(ring.kind)}, ${extent(facts, ring)}: let flow on the spot, before the wax.`))
  if (worst)
    reasons.push(
      worst.grade >= BADLY
        ? ruledOut(`${words(worst.kind)}, ${extent(facts, worst)}: it lies below the surface.`)
        : doubtful(`${words(worst.kind)}, ${extent(facts, worst)}: it stays.`),
    )
  if (facts.use === 'outdoors') reasons.push(ruledOut('Wax outdoors is gone after the first rains.'))
  if (facts.use === 'hard' && facts.age === 'new') reasons.push(doubtful('Wax is no finish for hard use.'))
  return reasons
}

const HALF = 0.5
export function renewReasons(facts: Facts): RouteReason[] {
  const tops = topsOf(facts)
  const reasons = keepsColour(facts)
  const other = tops.find(l => l && !RENEWED_WITH[l.finish])
  if (other?.finish === 'none') reasons.push(ruledOut('The wood is bare: there is nothing to renew.'))
  else if (other)
    reasons.push(ruledOut(`Oil and wax are renewed with their own kind; this is another finish (${layerName(other)}).`))
  else if (tops.some(l => !l)) reasons.push(doubtful(`Only oil, hardwax oil and wax are renewed (${filmName(facts)}).`))
  else reasons.push(speaksFor('It is repaired in place: washed, rubbed, one thin coat of its own kind.'))
  const unsure = tops.find(l => l && RENEWED_WITH[l.finish] && l.certainty < SURE)
  if (unsure) reasons.push(doubtful(`Its own kind is not sure (${layerName(unsure)}). Test again.`))
  if (facts.sheen === 'gloss') reasons.push(ruledOut('Oil and wax do not come to gloss.'))
  const black = findingsOf(facts, 'black-ring')[0]
  if (black && black.grade >= BADLY)
    reasons.push(doubtful(`Black ring, ${extent(facts, black)}: iron in the wood. Oxalic acid on the spot first.`))
  if (shareOf(facts, 'worn-through', 'peeling') > HALF)
    reasons.push(doubtful('Worn over more than half: it may take as long as beginning anew.'))
  return reasons
}

/** Film that must be left after a polish, µm (handbook 12), and what levelling takes beside half the grain. */
const FILM_RESERVE_UM = 50
const LEVEL_UM = 15
/** What a polish would leave of the film, by what films of its kind usually are; the marks' grade says how deep. */
function filmLeft_um(facts: Facts, mark: Finding): number {
  const thin = Math.min(...groupsOf(facts).map(g => sumOf(foundSurface(facts, g).films, f => f.dry_um)))
  return thin - (mark.grade >= BADLY ? LEVEL_UM + median_um(TO_GLOSS[0]!) / 2 : 0)
}
const UNSOUND = ['crazing', 'worn-through', 'sanded-through', 'soft-film', 'peeling', 'coarse-film'] as const
export function polishReasons(facts: Facts): RouteReason[] {
  const tops = groupsOf(facts).map(g => underWax(facts, g))
  const reasons = keepsColour(facts)
  const none = tops.find(l => l && (NO_FILM.includes(l.finish) || l.finish === 'wax'))
  if (none) reasons.push(ruledOut(`There is no film to polish (${layerName(none)}).`))
  if (tops.some(l => !l)) reasons.push(doubtful('The film is not known, nor how much of it there is to cut.'))
  const unsound = findingsOf(facts, ...UNSOUND)[0]
  if (unsound)
    reasons.push(ruledOut(`${words(unsound.kind)}, ${extent(facts, unsound)}: what is polished must be sound.`))
  const fishEyes = findingsOf(facts, 'fish-eyes')[0]
  if (fishEyes) reasons.push(doubtful(`Fish eyes, ${extent(facts, fishEyes)}: craters go to the wood, and stay.`))
  const deep = findingsOf(facts, 'dents', 'black-ring', 'heat-mark').find(f => f.grade >= BADLY)
  if (deep) reasons.push(doubtful(`${words(deep.kind)}, ${extent(facts, deep)}: it lies deeper than the film.`))
  const mark = findingsOf(facts, ...POLISHED_OUT)[0]
  const left = mark && !none ? filmLeft_um(facts, mark) : Infinity
  const gauged = groupsOf(facts).every(g => filmGauged_um(g) !== null)
  const leaves = `${Math.max(0, Math.round(left))} µm of film would be left`
  if (left < FILM_RESERVE_UM)
    reasons.push(
      gauged
        ? ruledOut(`By the gauge ${leaves}; ${FILM_RESERVE_UM} must stay.`)
        : doubtful(`By its kind about ${leaves}. Measure it first, under Wood.`),
    )
  else if (mark && gauged) reasons.push(speaksFor(`By the gauge ${leaves}; ${FILM_RESERVE_UM} must stay.`))
  const glossy = facts.sheen === 'gloss' || facts.sheen === 'semi-gloss'
  if (!glossy) reasons.push(doubtful('A satin or matt film that is polished turns glossier in patches.'))
  if (mark) reasons.push(speaksFor(`${words(mark.kind)}, ${extent(facts, mark)}: cut and buffed out of a sound film.`))
  else if (glossy) reasons.push(speaksFor('More gloss is wished, and a sound film can be polished to it.'))
  else reasons.push(doubtful('Nothing was found that asks for polishing.'))
  const shaped = groupsOf(facts).flatMap(g => g.faces.filter(f => !isFlat(f)))[0]
  if (shaped) reasons.push(doubtful(`${shaped.part}, ${shaped.name} is ${shaped.shape}: edges cut through first.`))
  return reasons
}
