/** What may be seen at the end of a step, and the steps that it puts into the plan. */
import { does, type Seen, type Step, stepOf } from '../acts'
import { ONCE_MORE } from './loops'

/** What is asked at the end of this step. `later`: the steps that follow it. */
export function seenAt(step: Pick<Step, 'kind' | 'gate' | 'fields'>, later: readonly Pick<Step, 'kind'>[]): Seen[] {
  if (step.gate?.slug === 'polished') return ['one-or-two', 'all-over']
  const asks = step.kind === 'wet-out' && step.fields.after === 'bleach'
  return asks && !later.some(s => s.kind === 'paint-wash') ? ['orange'] : []
}

/** Orange left by a bleach: a paint wash (handbook 18), on what the dust is off, under the first that covers it. */
export function withPaintWash(steps: readonly Step[], step: Pick<Step, 'key' | 'faces'>): Step[] {
  const from = steps.findIndex(s => s.key === step.key) + 1
  const covers = steps.findIndex((s, i) => i >= from && does(s, 'covers') && s.faces.some(f => step.faces.includes(f)))
  const at = covers < 0 ? from : covers
  const wash = stepOf({
    key: `${step.key}.paint-wash`,
    kind: 'paint-wash',
    product: 'paint-wash',
    method: 'rag',
    faces: step.faces,
    why: ONCE_MORE,
  })
  return [...steps.slice(0, at), wash, ...steps.slice(at)]
}
