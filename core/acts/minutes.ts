/** How long a step takes. */
import { materialOf } from '../materials'
import { type Face, type Facts, partsToTakeOff, workArea_m2 } from '../piece'
import { sumOf } from '../units'
import { type LadderPlace, sandRows, WHOLE } from './sanding'
import type { StepKind, Step } from './step'

/** Attended minutes per m² of flat horizontal face (shop default, unsourced). */
const MINUTES_M2: Record<StepKind, number> = {
  'approval': 0,
  'take-apart': 0,
  'wash': 6,
  'solvent-wash': 12,
  'cover': 0,
  'roughen': 8,
  'strip': 6,
  'scrape': 15,
  'wash-off': 12,
  'scuff': 8,
  'level': 25,
  'sand': 0,
  'pad': 8,
  'clean-off': 3,
  'conditioner': 6,
  'stain': 10,
  'gel': 12,
  'coat': 10,
  'sand-coat': 6,
  'oil-on': 8,
  'oil-off': 8,
  'wax': 12,
  'rub-out': 40,
  'joint': 0,
  'mend': 0,
  'mask': 0,
  'unmask': 2,
  'amalgamate': 20,
  'spot-colour': 4,
  'spot-coat': 6,
  'sand-off': 30,
  'bleach': 15,
  'rinse': 20,
  'raise-grain': 4,
  'fill': 15,
  'fill-off': 10,
  'sand-back': 25,
  'dye': 5,
  'toner': 5,
  'glaze': 12,
  'paint-wash': 10,
  'refer': 0,
  'gate': 0,
  'finish-up': 0,
  'other': 0,
}
export const SETUP_MIN = 8
const GATE_MIN = 5
const FINISH_UP_MIN = 15
/** Taking apart, and putting together again, per part beside the largest (shop default). */
const PER_PART_MIN = 5
const MASKING_MIN_PER_M = 4

/** Kinds that could take a maker's mark away. */
export const TAKES_MARKS: readonly StepKind[] = [
  'roughen',
  'strip',
  'scrape',
  'wash-off',
  'scuff',
  'level',
  'sand',
  'sand-off',
  'pad',
]

const NO_PACE: Facts['pace'] = { stripper: null, sanding: null }

/**
 * Attended minutes of a step: set-up + weighted area × minutes per m² × passes (shop default, unsourced).
 * A timed patch replaces the default: stripper on and scraped off together, and the first grit.
 */
export function attended_min(
  step: Pick<Step, 'kind' | 'grits' | 'method' | 'product' | 'passes'>,
  faces: readonly Face[],
  pace = NO_PACE,
  place: LadderPlace = WHOLE,
): number {
  const area = workArea_m2(faces)
  switch (step.kind) {
    case 'approval':
      return 0
    case 'gate':
      return GATE_MIN
    case 'finish-up':
      return FINISH_UP_MIN + PER_PART_MIN * partsToTakeOff(faces)
    case 'take-apart':
      return SETUP_MIN + PER_PART_MIN * partsToTakeOff(faces)
    case 'refer':
      return 30
    case 'mask':
    case 'cover':
      return SETUP_MIN + MASKING_MIN_PER_M * 4 * Math.sqrt(sumOf(faces, f => f.area_m2))
    case 'scrape':
      return (
        SETUP_MIN +
        area *
          (pace.stripper === null ? MINUTES_M2.scrape : Math.max(0, pace.stripper - MINUTES_M2.strip)) *
          step.passes
      )
    case 'sand':
      return SETUP_MIN + sumOf(sandRows(step, faces, place, pace.sanding), r => r.minutes) * step.passes
    case 'coat': {
      const m = materialOf(step.product!)
      return m.setup_min + area * m.minutes_m2 * step.passes
    }
    default:
      return SETUP_MIN + area * MINUTES_M2[step.kind] * step.passes
  }
}
