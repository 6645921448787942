/** Every act. A new kind of step is a name in `step.ts` and its record in its family; the compiler asks for both. */
import type { Context } from '../context'
import type { Material } from '../materials'
import type { Act, Does } from './act'
import { COATS_ACTS } from './coats'
import { COLOUR_ACTS } from './colour'
import { FILLING_ACTS } from './filling'
import { JUDGING_ACTS } from './judging'
import { MASKING_ACTS } from './masking'
import { NOT_WOOD_ACTS } from './notWood'
import { OILS_ACTS } from './oils'
import { REPAIRS_ACTS } from './repairs'
import { SANDING_ACTS } from './sanding'
import { STEP_KINDS, type StepKind, type Step } from './step'
import { STRIPPING_ACTS } from './stripping'
import { WASHING_ACTS } from './washing'
import { asChosen, spotsSaid } from './words'

export const ACTS = {
  ...JUDGING_ACTS,
  ...MASKING_ACTS,
  ...WASHING_ACTS,
  ...STRIPPING_ACTS,
  ...SANDING_ACTS,
  ...COLOUR_ACTS,
  ...COATS_ACTS,
  ...OILS_ACTS,
  ...NOT_WOOD_ACTS,
  ...REPAIRS_ACTS,
  ...FILLING_ACTS,
} satisfies Record<StepKind, Act>

export const actOf = (step: Pick<Step, 'kind'>): Act => ACTS[step.kind]
/** May this kind of step be done with that product class? */
export function takesProduct(step: Pick<Step, 'kind'>, m: Pick<Material, 'role' | 'base'>): boolean {
  const { needs } = actOf(step)
  return needs !== null && needs.roles.includes(m.role) && (needs.base === undefined || needs.base === m.base)
}
/** Does this kind of step do that? */
export const does = (step: Pick<Step, 'kind'>, what: Does): boolean => actOf(step).does.includes(what)
export const kindsThat = (what: Does): StepKind[] => STEP_KINDS.filter(kind => does({ kind }, what))
/** What a step is called: as typed, else as its act says it. */
export const titleOf = (step: Step, context: Pick<Context, 'shelf'>): string =>
  step.typed.includes('title')
    ? step.title
    : actOf(step).says(step, context) + (actOf(step).usesUp ? asChosen(step.fields) : '') + spotsSaid(step.fields)
/** How a step changes the look of the wood; null: not at all. */
export function lookOf(step: Pick<Step, 'kind'>): 'colour' | 'finish' | 'wax' | 'bleach' | 'other' | null {
  const { needs } = actOf(step)
  if (does(step, 'colours')) return 'colour'
  if (does(step, 'finishes')) return 'finish'
  if (needs?.roles.includes('wax')) return 'wax'
  if (needs?.roles.includes('bleach')) return 'bleach'
  return does(step, 'looks') ? 'other' : null
}
/** Abrasion that is not done wet. */
export const makesDust = (step: Pick<Step, 'kind' | 'method'>): boolean =>
  actOf(step).makes.dust && step.method !== 'wet'
/** Could a maker's mark, lead or an old poison come away with it? */
export const wears = (step: Pick<Step, 'kind'>): boolean => actOf(step).makes.wears
