/** How long a step takes. */
import { type Face, type Facts, workArea_m2 } from '../piece'
import { actOf } from './acts'
import { type LadderPlace, WHOLE } from './sandRows'
import type { Step } from './step'

const NO_PACE: Facts['pace'] = { stripper: null, sanding: null }

/**
 * Attended minutes of a step: set-up + weighted area × minutes per m² × passes (shop default, unsourced).
 * A timed patch replaces the default: stripper on and scraped off together, and the first grit.
 */
export function attended_min(
  step: Pick<Step, 'kind' | 'grits' | 'method' | 'product' | 'passes' | 'fields'>,
  faces: readonly Face[],
  pace = NO_PACE,
  place: LadderPlace = WHOLE,
): number {
  const own = actOf(step).pace
  if (typeof own === 'function') return own(step, faces, pace, place)
  return own.setup_min + workArea_m2(faces) * own.min_m2 * step.passes
}
