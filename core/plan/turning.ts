/** Boards coated on both sides: the hidden side first through all its coats, then turned over, then what shows. */
import { does, type StepKind, stepOf, type Step } from '../acts'
import type { House } from '../house'
import type { Face } from '../piece'
import { isFlat } from '../units'

/** A step on its way into a plan: where it stands among the others, and how its key begins. */
export type Ordered = Step & { order: number; stem?: string }

const RANKS: readonly Face['rank'][] = ['hidden', 'secondary', 'show']
const rank = (f: Face) => RANKS.indexOf(f.rank)
/** Two sides of a board measure the same, within this part of it; what stands wider than an edge is no board. */
const SAME_SIZE = 0.02
const EDGE_MM = 60
const near = (a: number, b: number) => Math.abs(a - b) <= SAME_SIZE * Math.max(a, b)
const lies = (f: Face) => f.scope === 'refinish' && isFlat(f) && f.orientation === 'horizontal'
const stands = (f: Face) => f.orientation === 'vertical' && Math.min(f.length_mm, f.width_mm) > EDGE_MM
const backs = (upper: Face, f: Face) =>
  rank(f) < rank(upper) &&
  f.copies === upper.copies &&
  near(f.length_mm, upper.length_mm) &&
  near(f.width_mm, upper.width_mm)

/** The two sides of each board that lies flat and is worked on both: equal in size, and `under` shows less. */
export function boardsOf(faces: readonly Face[]): { under: number; upper: number }[] {
  return [...new Set(faces.map(f => f.part))].flatMap(part => {
    const its = faces.filter(f => f.part === part)
    if (its.some(stands)) return []
    const left = its.filter(lies).sort((a, b) => rank(b) - rank(a))
    const boards: { under: number; upper: number }[] = []
    for (let upper = left.shift(); upper; upper = left.shift()) {
      const at = left.findIndex(f => backs(upper!, f))
      if (at >= 0) boards.push({ under: left.splice(at, 1)[0]!.id, upper: upper.id })
    }
    return boards
  })
}

/** Wet long enough that nothing may lie on it. */
const staysWet = (step: Pick<Step, 'kind'>) => does(step, 'lingers') && (does(step, 'films') || does(step, 'finishes'))
const waitsForAll = (step: Pick<Step, 'kind'>) => does(step, 'ends')
const TURNED: StepKind = 'turn'
/** All that comes after the turn stands behind all that comes before it. */
const AFTER_THE_TURN = 1000

/** The steps with the undersides of boards through first, and the turn between; as they were where none is coated. */
export function turnedOver(steps: readonly Ordered[], faces: readonly Face[], house: House): Ordered[] {
  if (house['both-sides'] !== 'turn') return [...steps]
  const coated = (id: number) => steps.some(s => staysWet(s) && s.faces.includes(id))
  const boards = boardsOf(faces).filter(b => coated(b.under) && coated(b.upper))
  if (boards.length === 0) return [...steps]
  const under = new Set(boards.map(b => b.under))
  const sides = new Set(boards.flatMap(b => [b.under, b.upper]))
  const from = Math.min(...steps.filter(s => staysWet(s) && s.faces.some(f => sides.has(f))).map(s => s.order))
  const apart = steps.flatMap((step): Ordered[] => {
    const later = { ...step, order: step.order + AFTER_THE_TURN }
    if (step.order < from) return [step]
    if (waitsForAll(step)) return [later]
    const its = step.faces.filter(f => under.has(f))
    const others = step.faces.filter(f => !under.has(f))
    const stem = `${step.stem ?? [step.kind, step.coat].filter(Boolean).join('-')}.under`
    return [
      ...(its.length ? [{ ...step, faces: its, stem }] : []),
      ...(others.length ? [{ ...later, faces: others }] : []),
    ]
  })
  const why = 'the underside is through and may lie on something; now what shows'
  const turn = { ...stepOf({ key: '', kind: TURNED, faces: [...sides], method: 'hand', why }), order: AFTER_THE_TURN }
  return [...apart, turn]
}
