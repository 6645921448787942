/** How a step is done: which face first, in what sections before it dries, with what care. All common practice. */
import { isCoarser, P } from '../abrasives'
import { actOf, type Step } from '../acts'
import type { Context } from '../context'
import { faceFactor, type Face } from '../piece'
import { isFlat, round, sumOf } from '../units'

/** Sections that can be worked before they dry: m² each, and how many. Null where one will do, or nothing dries. */
export function sectionsOf(
  step: Step,
  faces: readonly Face[],
  context: Context,
): { area_m2: number; count: number; says: string } | null {
  const window = actOf(step).open(step, context)
  if (!window) return null
  const area_m2 = window.open_min / window.min_m2
  const count = Math.ceil(sumOf(faces, f => f.area_m2 * faceFactor(f)) / area_m2)
  return count > 1 ? { area_m2, count, says: window.says } : null
}

/** The sharp edge is broken with the last grits. */
const EDGE_FROM = P(150)
const RANKS = ['hidden', 'secondary', 'show'] as const
const lying = (face: Face) => Number(face.orientation === 'horizontal')

/** The faces of a step in the order in which they are done: what shows, and what lies, last. */
export const inOrder = (faces: readonly Face[]): Face[] =>
  [...faces].sort((a, b) => RANKS.indexOf(a.rank) - RANKS.indexOf(b.rank) || lying(a) - lying(b))

/** How this step is done on these faces, in words. */
export function notesOf(step: Step, context: Context): string[] {
  const act = actOf(step)
  const faces = context.facts.faces.filter(f => step.faces.includes(f.id))
  const sections = sectionsOf(step, faces, context)
  const order = inOrder(faces)
  const first = order[0]
  const last = order.at(-1)
  const bareTop =
    step.kind === 'sand' &&
    step.grits.some(g => !isCoarser(g, EDGE_FROM)) &&
    faces.some(f => f.substrate === 'solid' && isFlat(f) && f.rank === 'show')
  return [
    ...(sections ? [`About ${sections.count} sections of ${round(sections.area_m2, 1)} m²: ${sections.says}.`] : []),
    ...(act.inOrder && first && last && first !== last
      ? [`Begin with ${first.part}, ${first.name}; end with ${last.part}, ${last.name}.`]
      : []),
    ...(step.method === 'random-orbit' ? ['Random orbit: light hand, about 25 mm a second.'] : []),
    ...act.notes(step),
    ...(bareTop
      ? ['At the end break the sharp edge of the bare top lightly by hand: film holds there and chips less.']
      : []),
  ]
}
