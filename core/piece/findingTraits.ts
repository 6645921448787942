/**
 * What can be found: the shape it usually has on a face, and what mending it costs in minutes. Shop defaults,
 * unsourced.
 */
import type { FindingKind } from './finding'
import type { PlaceShape } from './place'

/** The act that mends it: each is a step of its own, on the faces where it was found. */
export type Mender = 'joint' | 'mend' | 'pull' | 'press' | 'steam' | 'pare'

export interface FindingTrait {
  shape: Exclude<PlaceShape, 'unplaced'>
  /** an area of this kind is round (rings), else four-cornered */
  round: boolean
  /** width of a point or a line, mm, until it is measured */
  size_mm: number
  /** what mends it, and minutes for each place, m² or metre of it; null where no repair of its own mends it */
  mend: { by: Mender; each_min: number; m2_min: number; m_min: number } | null
}

const mends = (by: Mender, each_min: number, m2_min = 0, m_min = 0) => ({ by, each_min, m2_min, m_min })
const mend = (each_min: number, m2_min = 0, m_min = 0) => mends('mend', each_min, m2_min, m_min)
const trait = (
  shape: FindingTrait['shape'],
  size_mm: number,
  mending: FindingTrait['mend'] = null,
  round = false,
): FindingTrait => ({ shape, size_mm, round, mend: mending })

/** Marks in a sound film that cutting and buffing take out. */
export const POLISHED_OUT: readonly FindingKind[] = [
  ...(['scratches', 'swirl-marks', 'print', 'white-ring', 'overspray', 'runs', 'brush-marks', 'orange-peel'] as const),
  'nibs',
]
/** Marks that lie in the film, and go when it melts. */
export const IN_THE_FILM: readonly FindingKind[] = ['white-ring', 'heat-mark']
/** What stands up from the film, and is levelled. */
export const RELIEF: readonly FindingKind[] = ['runs', 'brush-marks', 'orange-peel', 'overspray', 'nibs']
/** What is filled: a fill never takes colour like wood, and gets its own. */
export const FILLED: readonly FindingKind[] = ['nail-holes', 'veneer-chipped', 'crack', 'missing-piece', 'woodworm']
/** Where the colour is gone, and comes back before anything clear lies on it. */
export const COLOUR_GONE: readonly FindingKind[] = ['worn-through', 'sanded-through']
export const FINDINGS: Readonly<Record<FindingKind, FindingTrait>> = {
  'dirt-and-wax': trait('face', 0),
  'scratches': trait('line', 2),
  'dents': trait('point', 15, mends('steam', 6)),
  'nail-holes': trait('point', 3, mend(3)),
  'staples': trait('point', 3, mends('pull', 2)),
  'white-ring': trait('area', 0, null, true),
  'black-ring': trait('area', 0, null, true),
  'heat-mark': trait('area', 0, null, true),
  'crazing': trait('face', 0),
  'coarse-film': trait('face', 0),
  'runs': trait('line', 10),
  'brush-marks': trait('face', 0),
  'overspray': trait('area', 0),
  'swirl-marks': trait('area', 0),
  'orange-peel': trait('face', 0),
  'nibs': trait('area', 0),
  'fish-eyes': trait('area', 0),
  'water-beads': trait('area', 0),
  'light-bleached': trait('area', 0),
  'peeling': trait('area', 0),
  'print': trait('area', 0),
  'soft-film': trait('area', 0),
  'several-layers': trait('face', 0),
  'worn-through': trait('area', 0),
  'veneer-chipped': trait('point', 12, mend(20)),
  'veneer-lifted': trait('area', 0, mends('press', 20, 900)),
  'veneer-blistered': trait('area', 0, mends('press', 20, 900)),
  'sanded-through': trait('area', 0),
  'crack': trait('line', 1, mend(10, 0, 30)),
  'open-joint': trait('line', 1, mends('joint', 30)),
  'loose-leg': trait('point', 40, mends('joint', 35)),
  'loose-hinge': trait('point', 40, mends('joint', 20)),
  'missing-piece': trait('point', 30, mend(45)),
  'glue-smear': trait('area', 0, mends('pare', 3, 60)),
  'tape-residue': trait('area', 0),
  'unknown-stain': trait('face', 0),
  'woodworm': trait('area', 0, mend(15, 120)),
  'mould': trait('area', 0, mend(10, 60)),
  'odour': trait('face', 0),
  'old-paint': trait('face', 0),
}
