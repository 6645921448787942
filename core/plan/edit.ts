/** Changes of a step by hand: the same function shows what a change would make and saves it. */
import type { Grit } from '../abrasives'
import { actOf, type Fields, rechosen, stepOf, type Step, takesProduct, type Typed } from '../acts'
import { materialOf } from '../materials'

/** What may be changed of a step. What is left out stays; `follow`: typed things that are worked out again. */
export interface StepEdit {
  title?: string
  attended_min?: number
  amount_ml?: number | null
  product?: string | null
  grits?: readonly Grit[]
  method?: Step['method']
  coat?: number | null
  fields?: Fields
  follow?: readonly Typed[]
}

const TYPES = ['title', 'attended_min', 'amount_ml'] as const

/** The step after a change. Only what was typed as such stays as it is; all else follows from its act again. */
export function editedStep<S extends Step>(step: S, { follow = [], ...edit }: StepEdit): S {
  const given = Object.fromEntries(Object.entries(edit).filter(([, value]) => value !== undefined)) as Partial<Step>
  const now = TYPES.filter(t => given[t] !== undefined && given[t] !== step[t])
  const typed = TYPES.filter(t => !follow.includes(t) && (now.includes(t) || step.typed.includes(t)))
  return { ...step, ...given, fields: given.fields ? rechosen(step.fields, given.fields) : step.fields, typed }
}

/** A step that somebody adds: what was not typed follows from its act. */
export const addedStep = (given: Pick<Step, 'key' | 'kind' | 'faces' | 'why'> & Omit<StepEdit, 'follow'>): Step => {
  const { title, attended_min, amount_ml, grits = [], ...rest } = given
  const said = { title, attended_min, amount_ml }
  const typed = TYPES.filter(t => said[t] !== undefined && said[t] !== null && said[t] !== '')
  return stepOf({ ...rest, grits: [...grits], ...Object.fromEntries(typed.map(t => [t, said[t]])), typed })
}

/** Why this product cannot stand in this kind of step, in words for a restorer; null: it can. */
export function productProblem(step: Pick<Step, 'kind' | 'product'>): string | null {
  const { needs } = actOf(step)
  if (step.product === null) return needs?.always ? 'This step needs a product.' : null
  const material = materialOf(step.product)
  if (!needs) return `This step takes no product; ${material.name} would be booked for nothing.`
  return takesProduct(step, material) ? null : `${material.name} is not for this kind of step.`
}
