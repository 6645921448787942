/** What a bench may ask to be measured at the end of a step, and the gun's set-up that worked last. */
import { type Measurable, type Measured, measuresOf } from '#core/acts'
import type { PlannedStep, StoredPlan } from '../plan/rows'

export interface MeasuresLine extends Measurable {
  /** as the same product was sprayed before on this piece, else whatever was */
  gunBefore: string | null
  /** thickness and flatness as they were last measured on these faces */
  before: Pick<Measured, 'before_mm' | 'hollow_before_mm'>
}
export function measuresLine(step: PlannedStep, plan: StoredPlan): MeasuresLine {
  const { numbers, gun, halves } = measuresOf(step)
  const sprayed = gun ? plan.steps.filter(st => st.measured?.gun && st.id !== step.id) : []
  const before = sprayed.findLast(st => st.product === step.product) ?? sprayed.at(-1)
  const asked = numbers.includes('before_mm')
  const on = asked ? plan.steps.filter(st => st.id !== step.id && st.faces.some(f => step.faces.includes(f))) : []
  const last = (what: 'thickness_mm' | 'hollow_mm') =>
    on.findLast(st => st.measured?.[what] !== undefined)?.measured?.[what]
  const [thick, hollow] = [last('thickness_mm'), last('hollow_mm')]
  return {
    ...{ numbers, gun, halves, gunBefore: before?.measured?.gun ?? null },
    before: {
      ...(thick === undefined ? {} : { before_mm: thick }),
      ...(hollow === undefined ? {} : { hollow_before_mm: hollow }),
    },
  }
}
