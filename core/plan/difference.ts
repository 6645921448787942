/** What differs between two plans, step by step. */
import { asGrit, gritName } from '../abrasives'
import type { Step } from '../acts'
import { sumOf } from '../units'

export interface StepChange {
  key: string
  before: Pick<Step, 'title' | 'attended_min'> | null
  after: Pick<Step, 'title' | 'attended_min'> | null
}
export interface PlanDifference {
  changes: StepChange[]
  minutes: number
}

/** The same step: by its fields; by its title where one was kept before there were fields. */
function alike(a: Step | undefined, b: Step | undefined): boolean {
  if (!a || !b || a.attended_min !== b.attended_min) return false
  if (!a.fields || !b.fields) return a.title === b.title
  const said = ({ kind, product, grits, method, coat, passes, fields, typed, title }: Step) =>
    JSON.stringify([
      kind,
      product,
      grits.map(g => gritName(asGrit(g))),
      method,
      coat,
      passes,
      fields,
      typed.includes('title') ? title : null,
    ])
  return said(a) === said(b)
}
const brief = (s: Step | undefined) => (s ? { title: s.title, attended_min: s.attended_min } : null)

/**
 * Steps gone, new, or changed in what is done or how long it takes, in the order of the work; and the minutes more (or
 * less) of `after`.
 */
export function planDifference(before: readonly Step[], after: readonly Step[]): PlanDifference {
  const old = new Map(before.map(s => [s.key, s]))
  const now = new Map(after.map(s => [s.key, s]))
  const keys = [...new Set([...after.map(s => s.key), ...before.map(s => s.key)])]
  const at = (key: string) =>
    now.has(key) ? after.findIndex(s => s.key === key) : before.findIndex(s => s.key === key) + 0.5
  const changes = keys
    .map(key => ({ key, before: brief(old.get(key)), after: brief(now.get(key)) }))
    .filter(({ key }) => !alike(old.get(key), now.get(key)))
    .sort((a, b) => at(a.key) - at(b.key))
  return { changes, minutes: sumOf(after, s => s.attended_min) - sumOf(before, s => s.attended_min) }
}
