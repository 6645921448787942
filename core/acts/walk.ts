/** Steps walked over the surfaces that they change. Planner and rules read only these states. */
import type { Context } from '../context'
import { type Material, taken } from '../materials'
import type { Group } from '../piece'
import { actOf } from './acts'
import type { Step } from './step'
import { foundSurface, type Surface } from './surface'

/** The state that a step leaves behind. Work on marks alone leaves the faces as they were, but for what is wet. */
export function leave(step: Step, s: Surface, context: Context): Surface {
  const after = actOf(step).leaves(s, step, context)
  return step.fields.where === 'spots' ? { ...s, wet: after.wet } : after
}

/**
 * Groups cut into sets of faces that share every step: a step done on some faces alone changes only those. A group
 * whose faces share all stays as it is.
 */
export function unitsOf(steps: readonly Pick<Step, 'faces'>[], groups: readonly Group[]): Group[] {
  const on = new Map<number, string>()
  for (const [i, step] of steps.entries()) for (const f of step.faces) on.set(f, `${on.get(f) ?? ''}${i},`)
  return groups.flatMap(group => {
    const cuts = [...new Set(group.faces.map(f => on.get(f.id) ?? ''))]
    if (cuts.length <= 1) return [group]
    return cuts.map((cut, i) => ({
      ...group,
      key: `${group.key}#${i}`,
      faces: group.faces.filter(f => (on.get(f.id) ?? '') === cut),
    }))
  })
}

export interface Visit {
  step: Step
  index: number
  group: Group
  /** what it takes: by its label, else by its class */
  product: Material | null
  before: Surface
  after: Surface
  /** all visits of its group, in order, and which of them it is */
  own: readonly Visit[]
  nth: number
}
/** The nearest visit of the same group before this one that is such; without `is`, the one just before. */
export function lastBefore(v: Visit, is: (u: Visit) => boolean = () => true): Visit | undefined {
  for (let i = v.nth - 1; i >= 0; i--) if (is(v.own[i]!)) return v.own[i]
  return undefined
}
/** The nearest visit of the same group after this one that is such. */
export function firstAfter(v: Visit, is: (u: Visit) => boolean): Visit | undefined {
  for (let i = v.nth + 1; i < v.own.length; i++) if (is(v.own[i]!)) return v.own[i]
  return undefined
}

/** Every step on every group of faces it touches, in the order of the work, with the state before and after.
 * Work begins from what was found where no other `start` is given. */
export function walk(
  steps: readonly Step[],
  groups: readonly Group[],
  context: Context,
  start = (g: Group): Surface => foundSurface(context.facts, g),
): Visit[] {
  const now = groups.map(group => ({ group, surface: start(group), own: [] as Visit[] }))
  const visits: Visit[] = []
  for (const [index, step] of steps.entries()) {
    const on = new Set(step.faces)
    const product = taken(context.shelf, step)
    for (const here of now) {
      const { group, own, surface: before } = here
      if (!group.faces.some(f => on.has(f.id))) continue
      here.surface = leave(step, before, context)
      const visit = { step, index, group, product, before, after: here.surface, own, nth: own.length }
      own.push(visit)
      visits.push(visit)
    }
  }
  return visits
}
