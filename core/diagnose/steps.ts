/** A mend as steps of a plan, on the faces of the step at which the fault showed. */
import { parseGrit } from '../abrasives'
import { actOf, does, type Step, type StepKind, stepOf, TYPED } from '../acts'
import type { Mend, MendStep } from './mends'

type Done = Pick<Step, 'kind' | 'product' | 'label' | 'coat' | 'method' | 'fields' | 'grits' | 'passes'>
/** Where a mend goes. */
export interface MendAt {
  faces: readonly number[]
  /** the step at which it showed; null: at none */
  step: Done | null
  /** the last colour that was laid on these faces */
  colour: Done | null
  /** a film lies on them */
  film: boolean
  /** the plan lays the same on them next anyway */
  follows: boolean
}
type Draft = Omit<Parameters<typeof stepOf>[0], 'key' | 'faces'>

/** What was laid once more, with what belongs after it: excess off, rinsed, sanded back. */
function again(done: Done): Draft[] {
  const { kind, product, label, coat, method, fields, grits, passes } = done
  const after = (actOf(done).rounds?.with ?? []).filter(w => w.stands === 'after')
  return [
    { kind, product, label, coat, method, fields, grits, passes },
    ...after.map(w => ({ kind: w.kind, method: usualMethod(w.kind), grits: w.kind === 'sand-back' ? FILL_GRITS : [] })),
  ]
}
/** Of what belongs after a step: by hand where nothing else is said. */
const usualMethod = (kind: StepKind) => actOf({ kind }).methods[0] ?? 'none'
const FILL_GRITS = [parseGrit('P220')]
const isLaid = (done: Done | null): done is Done => done?.product != null && does(done, 'covers')

function typed(step: MendStep): Draft {
  const { kind, product, grits = [], method, passes = 1, fields = {}, ifLast: _ifLast, on: _on, ...said } = step
  return {
    ...{ kind: kind as StepKind, product: product ?? null, method: method ?? 'none', passes, fields },
    coat: kind === 'coat' ? 1 : null,
    grits: grits.map(parseGrit),
    ...said,
    typed: TYPED.filter(t => t in said),
  }
}
function drafts(step: MendStep, { step: own, colour, film, follows }: MendAt): Draft[] {
  if ((step.ifLast && follows) || (step.on && (step.on === 'film') !== film)) return []
  if (step.kind === 'again') return isLaid(own) ? again(own) : []
  if (step.kind === 'colour-again') return isLaid(colour) ? again(colour) : [typed({ ...step, kind: 'other' })]
  return [typed(step)]
}
/** Steps of a mend, in order; their keys begin with `key`. */
export const mendSteps = ({ steps }: Mend, at: MendAt, key: string): Step[] =>
  steps
    .flatMap(s => drafts(s, at))
    .map((s, i) => stepOf({ ...s, key: `${key}-${i + 1}`, faces: [...at.faces], why: 'mends what went wrong' }))
