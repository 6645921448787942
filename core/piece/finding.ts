/** What was found on a face. */
import type { Place } from './place'

export const FINDING_KINDS = [
  'dirt-and-wax',
  'scratches',
  'dents',
  'nail-holes',
  'staples',
  'white-ring',
  'black-ring',
  'heat-mark',
  'crazing',
  'coarse-film',
  'runs',
  'brush-marks',
  'overspray',
  'swirl-marks',
  'orange-peel',
  'nibs',
  'fish-eyes',
  'water-beads',
  'light-bleached',
  'peeling',
  'print',
  'soft-film',
  'several-layers',
  'worn-through',
  'veneer-chipped',
  'veneer-lifted',
  'veneer-blistered',
  'sanded-through',
  'crack',
  'open-joint',
  'loose-leg',
  'loose-hinge',
  'missing-piece',
  'glue-smear',
  'tape-residue',
  'unknown-stain',
  'woodworm',
  'mould',
  'odour',
  'old-paint',
] as const
export type FindingKind = (typeof FINDING_KINDS)[number]
export const WISHES = ['mend', 'keep', 'tolerate'] as const

/** Grade 1 (trace) to 5 (destroyed). */
export interface Finding {
  faceId: number
  kind: FindingKind
  grade: number
  wish: (typeof WISHES)[number]
  place: Place
}
