/** A mend as steps of a plan, on the faces of the step at which the fault showed. */
import { parseGrit } from '../abrasives'
import { type Step, stepOf, TYPED } from '../acts'
import type { Mend, MendStep } from './mends'

type At = Pick<Step, 'faces' | 'product' | 'label' | 'coat' | 'method'>
function stepFor(
  { kind, product, grits = [], method, passes = 1, fields = {}, ifLast: _, ...said }: MendStep,
  at: At,
  key: string,
) {
  const own = product === 'own'
  return stepOf({
    ...{ key, kind, faces: [...at.faces], passes, fields },
    ...{ product: own ? at.product : (product ?? null), label: own ? at.label : null },
    grits: grits.map(parseGrit),
    method: method ?? (own ? at.method : 'none'),
    // the coat that failed is laid once more
    coat: kind === 'coat' ? (at.coat ?? 1) : null,
    ...said,
    typed: TYPED.filter(t => t in said),
    why: 'mends what went wrong',
  })
}
/**
 * Steps of a mend, in order; their keys begin with `key`. What the fault's own step took is laid again only where it
 * took a product. `coatFollows`: the plan lays another coat on these faces anyway.
 */
export const mendSteps = ({ steps }: Mend, at: At, key: string, coatFollows = false): Step[] =>
  steps
    .filter(s => s.product !== 'own' || at.product !== null)
    .filter(s => !(s.ifLast && coatFollows))
    .map((s, i) => stepFor(s, at, `${key}-${i + 1}`))
