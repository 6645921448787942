/** How a step is done: which face first, in what sections before it dries, with what care. All common practice. */
import { isCoarser, P } from '../abrasives'
import { actOf, type Step, type Wait } from '../acts'
import type { Context } from '../context'
import { windowFactor } from '../drying'
import { faceFactor, type Face, laidOut_m } from '../piece'
import { isFlat, round, sumOf } from '../units'

/** Sections in which a step is put on and wiped by itself before it sets: how many, m² each; null where one will do. */
export function sectionsOf(
  step: Step,
  faces: readonly Face[],
  context: Context,
): { area_m2: number; count: number; open_min: number; says: string } | null {
  const window = actOf(step).open(step, context)
  if (!window) return null
  const open_min = window.open_min * windowFactor(context.air)
  const area_m2 = open_min / window.min_m2
  const count = Math.ceil(sumOf(faces, f => f.area_m2 * faceFactor(f)) / area_m2)
  return count > 1 ? { area_m2, count, open_min, says: window.says } : null
}
/** "About 8 sections of 0.3 m²: …": with what takes it off where another step does, else by itself. */
function sectionsSaid(step: Step, faces: readonly Face[], context: Context, waits: readonly Wait[]): string[] {
  const pair = waits.find(w => w.from === step.key && w.sections)?.sections
  const own = sectionsOf(step, faces, context)
  const count = pair?.count ?? own?.count ?? 1
  const heat = windowFactor(context.air)
  const window = actOf(step).open(step, context)
  if (!window || count < 2) return []
  const area_m2 = sumOf(faces, f => f.area_m2) / count
  const size = `${round(area_m2, area_m2 < 0.1 ? 2 : 1)} m²`
  const hot =
    `At ${Math.round(context.air.temperature_C)} °C it is ${round(1 / heat, 1)} times as fast: ` +
    'begin in the cool of the morning.'
  return [`About ${count} sections of ${size}: ${window.says}.`, ...(heat < EARLY_HOURS ? [hot] : [])]
}
/** Heat that takes more than this from a window sends the work to the early hours. */
const EARLY_HOURS = 0.8

/** The sharp edge is broken with the last grits. */
const EDGE_FROM = P(150)
const RANKS = ['hidden', 'secondary', 'show'] as const
const lying = (face: Face) => Number(face.orientation === 'horizontal')

/** The faces of a step in the order in which they are done: what shows, and what lies, last. */
export const inOrder = (faces: readonly Face[]): Face[] =>
  [...faces].sort((a, b) => RANKS.indexOf(a.rank) - RANKS.indexOf(b.rank) || lying(a) - lying(b))

/** What the parts want when they lie apart: a table with its leaves out is longer than it stands. */
function laidOutSaid(faces: readonly Face[]): string[] {
  const long_m = laidOut_m(faces)
  return long_m > 0 ? [`Laid out end to end what lies flat takes ${round(long_m, 1)} m: find the trestles first.`] : []
}

/** How this step is done on these faces, in words. */
export function notesOf(step: Step, context: Context, waits: readonly Wait[] = []): string[] {
  const act = actOf(step)
  const faces = context.facts.faces.filter(f => step.faces.includes(f.id))
  const order = inOrder(faces)
  const first = order[0]
  const last = order.at(-1)
  const bareTop =
    step.kind === 'sand' &&
    step.grits.some(g => !isCoarser(g, EDGE_FROM)) &&
    faces.some(f => f.substrate === 'solid' && isFlat(f) && f.rank === 'show')
  return [
    ...sectionsSaid(step, faces, context, waits),
    ...(act.inOrder && first && last && first !== last
      ? [`Begin with ${first.part}, ${first.name}; end with ${last.part}, ${last.name}.`]
      : []),
    ...(step.method === 'random-orbit' ? ['Random orbit: light hand, about 25 mm a second.'] : []),
    ...(step.kind === 'take-apart' ? laidOutSaid(faces) : []),
    ...act.notes(step),
    ...(bareTop
      ? ['At the end break the sharp edge of the bare top lightly by hand: film holds there and chips less.']
      : []),
  ]
}
