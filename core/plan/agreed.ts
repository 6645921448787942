/** Work that a client agreed to beside the plan: a step that stays, whatever else is planned anew. */
import { does, type Step } from '../acts'

export const AGREED = 'agreed-'
export const isAgreed = ({ key }: Pick<Step, 'key'>): boolean => key.startsWith(AGREED)
/** Repairs and hardware stand before the surface is worked: sanding, colour, finish. */
const worksSurface = (s: Step) => does(s, 'abrades') || does(s, 'colours') || does(s, 'finishes')
/** @param ahead steps none of which has begun */
export function withAgreed<S extends Step>(ahead: readonly S[], agreed: readonly S[]): S[] {
  const at = ahead.findIndex(worksSurface)
  const place = at < 0 ? ahead.length : at
  return [...ahead.slice(0, place), ...agreed, ...ahead.slice(place)]
}
