/** How long a step takes. */
import type { Context } from '../context'
import { type Face, workArea_m2 } from '../piece'
import type { StepAtWork } from './act'
import { actOf } from './acts'
import { type LadderPlace, WHOLE } from './sandRows'

/**
 * Attended minutes of a step: set-up + weighted area × minutes per m² × passes (shop default, unsourced).
 * A timed patch replaces the default: stripper on and scraped off together, and the first grit.
 */
export function attended_min(
  step: StepAtWork,
  faces: readonly Face[],
  context: Context,
  place: LadderPlace = WHOLE,
): number {
  const own = actOf(step).pace
  if (typeof own === 'function') return own(step, faces, context, place)
  return own.setup_min + workArea_m2(faces) * own.min_m2 * step.passes
}
