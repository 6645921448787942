/** Chances that a route fails (shop defaults, unsourced): 1 − Π(1 − p). */
import { type BuildUp, isGelled } from '../build'
import { type Facts, isFound, type RouteSlug } from '../piece'

interface Chance {
  p: number
  why: string
  when: (f: Facts) => boolean
}

const always = () => true
const unknownFilm = (f: Facts) => !f.found || f.found.certainty < 0.7

const CHANCES: Record<RouteSlug, readonly Chance[]> = {
  'scuff': [
    { p: 0.05, why: 'it may always fail', when: always },
    { p: 0.25, why: 'the film is not known for sure', when: unknownFilm },
    { p: 0.15, why: 'wax was found', when: f => isFound(f, 'dirt-and-wax') },
    { p: 0.3, why: 'crazing', when: f => isFound(f, 'crazing') },
  ],
  'level-barrier-recoat': [
    { p: 0.15, why: 'it may always fail', when: always },
    { p: 0.3, why: 'water beads', when: f => isFound(f, 'water-beads', 'fish-eyes') },
    { p: 0.3, why: 'several layers', when: f => isFound(f, 'several-layers') },
    { p: 0.2, why: 'drips or orange peel', when: f => isFound(f, 'runs', 'orange-peel') },
    { p: 0.15, why: 'stains that may come up', when: f => isFound(f, 'black-ring') },
  ],
  'clean-and-wax': [],
  'as-it-stands': [{ p: 0.2, why: 'a stain of unknown kind', when: f => isFound(f, 'unknown-stain') }],
  'renew': [{ p: 0.15, why: 'marks that lie deeper than the oil', when: always }],
  'polish': [
    { p: 0.15, why: 'scratches that buffing brings out', when: always },
    { p: 0.25, why: 'the film is not known for sure', when: unknownFilm },
  ],
  'amalgamate': [{ p: 0.2, why: 'the film may not flow', when: always }],
  'spot-repair': [{ p: 0.1, why: 'a patch may show', when: always }],
  'strip-chemical': [{ p: 0.3, why: 'a second round of stripper', when: always }],
  'strip-mechanical': [{ p: 0.3, why: 'a second round', when: always }],
  'strip-both': [{ p: 0.3, why: 'a second round of stripper', when: always }],
  'refer': [],
}

/** Scuffed for gel, which hides more than a clear coat. */
const UNDER_GEL: readonly Chance[] = [
  { p: 0.05, why: 'it may always fail', when: always },
  { p: 0.15, why: 'the film is not known for sure', when: unknownFilm },
]

type Over = Pick<BuildUp, 'ground' | 'layers'>
/** What speaks for failing on this piece. */
export const chanceReasons = (over: Over, facts: Facts): { p: number; why: string }[] =>
  (over.ground === 'scuff' && isGelled(over) ? UNDER_GEL : CHANCES[over.ground])
    .filter(c => c.when(facts))
    .map(({ p, why }) => ({ p, why }))

/** Chance of failing, 0–1. */
export const chanceOfFailing = (over: Over, facts: Facts): number =>
  1 - chanceReasons(over, facts).reduce((keep, c) => keep * (1 - c.p), 1)

/**
 * Outcomes of one gate in this shop: how often judged, how often failed, and how often it was expected to (the sum of
 * its chances).
 */
export interface GateRecord {
  tries: number
  fails: number
  expected: number
}
/** The handbook's chances count as this many gates of the shop's own (shop default). */
const WEIGHT = 10

/** A chance corrected by the shop's own record: failures seen against failures expected. Between 1 and 95 %. */
export function inThisShop(p: number, record: GateRecord | undefined): number {
  if (!record || record.tries === 0) return p
  const prior = WEIGHT * (record.expected / record.tries)
  return prior === 0 ? p : Math.min(0.95, Math.max(0.01, p * ((record.fails + prior) / (record.expected + prior))))
}
