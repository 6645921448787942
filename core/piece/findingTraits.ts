/**
 * What can be found: the shape it usually has on a face, and what mending it costs in minutes. Shop defaults,
 * unsourced.
 */
import type { FindingKind } from './finding'
import type { PlaceShape } from './place'

export interface FindingTrait {
  shape: Exclude<PlaceShape, 'unplaced'>
  /** an area of this kind is round (rings), else four-cornered */
  round: boolean
  /** width of a point or a line, mm, until it is measured */
  size_mm: number
  /** minutes to mend: each place, and each m² or metre of it; null where no repair of its own mends it */
  mend: { each_min: number; m2_min: number; m_min: number } | null
}

const mend = (each_min: number, m2_min = 0, m_min = 0) => ({ each_min, m2_min, m_min })
const trait = (
  shape: FindingTrait['shape'],
  size_mm: number,
  mending: FindingTrait['mend'] = null,
  round = false,
): FindingTrait => ({ shape, size_mm, round, mend: mending })

/** Marks in a sound film that cutting and buffing take out. */
export const POLISHED_OUT: readonly FindingKind[] = [
  ...(['scratches', 'swirl-marks', 'print', 'white-ring', 'overspray', 'runs', 'brush-marks', 'orange-peel'] as const),
]
/** What stands up from the film, and is levelled. */
export const RELIEF: readonly FindingKind[] = ['runs', 'brush-marks', 'orange-peel', 'overspray']
export const FINDINGS: Readonly<Record<FindingKind, FindingTrait>> = {
  'dirt-and-wax': trait('face', 0),
  'scratches': trait('line', 2),
  'dents': trait('point', 15, mend(6)),
  'nail-holes': trait('point', 3, mend(3)),
  'white-ring': trait('area', 0, null, true),
  'black-ring': trait('area', 0, mend(15, 600), true),
  'heat-mark': trait('area', 0, null, true),
  'crazing': trait('face', 0),
  'coarse-film': trait('face', 0),
  'runs': trait('line', 10),
  'brush-marks': trait('face', 0),
  'overspray': trait('area', 0),
  'swirl-marks': trait('area', 0),
  'orange-peel': trait('face', 0),
  'fish-eyes': trait('area', 0),
  'water-beads': trait('area', 0),
  'light-bleached': trait('area', 0),
  'peeling': trait('area', 0),
  'print': trait('area', 0),
  'soft-film': trait('area', 0),
  'several-layers': trait('face', 0),
  'worn-through': trait('area', 0),
  'veneer-chipped': trait('point', 12, mend(20)),
  'veneer-lifted': trait('area', 0, mend(20, 900)),
  'veneer-blistered': trait('area', 0, mend(20, 900)),
  'sanded-through': trait('area', 0, mend(15, 600)),
  'crack': trait('line', 1, mend(10, 0, 30)),
  'open-joint': trait('line', 1, mend(30)),
  'loose-leg': trait('point', 40, mend(35)),
  'missing-piece': trait('point', 30, mend(45)),
  'woodworm': trait('area', 0, mend(15, 120)),
  'mould': trait('area', 0, mend(10, 60)),
  'odour': trait('face', 0),
  'old-paint': trait('face', 0),
}
