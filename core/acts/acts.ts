/** Every act. A new kind of step is a name in `step.ts` and its record here; the compiler asks for both. */
import type { Act, Does } from './act'
import * as coats from './coats'
import * as colour from './colour'
import * as filling from './filling'
import * as judging from './judging'
import * as masking from './masking'
import * as oils from './oils'
import * as repairs from './repairs'
import * as sanding from './sanding'
import { STEP_KINDS, type StepKind, type Step } from './step'
import * as stripping from './stripping'
import * as washing from './washing'

export const ACTS = {
  'approval': judging.approval,
  'take-apart': masking.takeApart,
  'wash': washing.wash,
  'solvent-wash': washing.solventWash,
  'cover': masking.cover,
  'roughen': stripping.roughen,
  'strip': stripping.strip,
  'scrape': stripping.scrape,
  'wash-off': stripping.washOff,
  'scuff': sanding.scuff,
  'level': sanding.level,
  'sand': sanding.sand,
  'pad': sanding.pad,
  'clean-off': washing.cleanOff,
  'conditioner': colour.conditioner,
  'stain': colour.stain,
  'gel': colour.gel,
  'coat': coats.coat,
  'sand-coat': sanding.sandCoat,
  'oil-on': oils.oilOn,
  'oil-off': oils.oilOff,
  'wax': oils.wax,
  'rub-out': sanding.rubOut,
  'joint': repairs.joint,
  'mend': repairs.mend,
  'mask': masking.mask,
  'unmask': masking.unmask,
  'amalgamate': coats.amalgamate,
  'spot-colour': colour.spotColour,
  'spot-coat': coats.spotCoat,
  'sand-off': stripping.sandOff,
  'bleach': colour.bleach,
  'rinse': washing.rinse,
  'raise-grain': sanding.raiseGrain,
  'fill': filling.fill,
  'fill-off': filling.fillOff,
  'sand-back': sanding.sandBack,
  'dye': colour.dye,
  'toner': colour.toner,
  'glaze': colour.glaze,
  'paint-wash': colour.paintWash,
  'refer': judging.refer,
  'gate': judging.gate,
  'finish-up': masking.finishUp,
  'other': judging.other,
} satisfies Record<StepKind, Act>

export const actOf = (step: Pick<Step, 'kind'>): Act => ACTS[step.kind]
/** Does this kind of step do that? */
export const does = (step: Pick<Step, 'kind'>, what: Does): boolean => actOf(step).does.includes(what)
export const kindsThat = (what: Does): StepKind[] => STEP_KINDS.filter(kind => does({ kind }, what))
/** What a step is called: as typed, else as its act says it. */
export const titleOf = (step: Step): string => (step.typed.includes('title') ? step.title : actOf(step).says(step))
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
