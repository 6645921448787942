import { isGrit } from '#core/abrasives'
import { type ChosenField, FIELD_VALUES, type Fields, GATES, METHODS, type Step, STEP_KINDS } from '#core/acts'
import { MATERIALS } from '#core/materials'
import { ROUTES } from '#core/piece'
import { first } from '../platform/readable'

/** A chosen field whose value no act knows. */
const strangeField = (fields: Fields): string | undefined =>
  (Object.keys(FIELD_VALUES) as ChosenField[]).find(
    field => fields[field] !== undefined && !(FIELD_VALUES[field] as readonly unknown[]).includes(fields[field]),
  )

/** The same of a stored plan. */
export function strangeInPlan({ steps }: { steps: readonly (Step & { damaged: boolean })[] }): string | null {
  return first(steps, st => {
    const grit = st.grits.find(g => !isGrit(g))
    if (!STEP_KINDS.includes(st.kind)) return `a step "${st.title}" is of no known kind`
    if (st.damaged) return `what "${st.title}" carries is damaged`
    const odd = strangeField(st.fields)
    if (odd) return `${odd} of "${st.title}" is not known`
    if (st.gate && !GATES.includes(st.gate.slug)) return `the gate "${st.title}" is not known`
    if (!METHODS.includes(st.method)) return `the method of "${st.title}" is not known`
    if (grit !== undefined) return `grit ${grit.grade} of "${st.title}" is on no scale`
    if (st.product !== null && !MATERIALS.some(m => m.slug === st.product))
      return `the product "${st.product}" of "${st.title}" is not known`
    return st.gate?.fallback && !ROUTES.includes(st.gate.fallback) ? `the fallback of "${st.title}" is not known` : null
  })
}
