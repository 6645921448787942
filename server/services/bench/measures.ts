/** What a bench may ask to be measured at the end of a step, and the gun's set-up that worked last. */
import { type Measure, measuresOf } from '#core/acts'
import type { PlannedStep, StoredPlan } from '../plan/rows'

export interface MeasuresLine {
  numbers: readonly Measure[]
  gun: boolean
  /** as the same product was sprayed before on this piece, else whatever was */
  gunBefore: string | null
}
export function measuresLine(step: PlannedStep, plan: StoredPlan): MeasuresLine {
  const { numbers, gun } = measuresOf(step)
  const sprayed = gun ? plan.steps.filter(st => st.measured?.gun && st.id !== step.id) : []
  const before = sprayed.findLast(st => st.product === step.product) ?? sprayed.at(-1)
  return { numbers, gun, gunBefore: before?.measured?.gun ?? null }
}
