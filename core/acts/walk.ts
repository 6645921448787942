/** Steps walked over the surfaces that they change. Planner and rules read only these states. */
import type { Context } from '../context'
import { type Material, taken } from '../materials'
import type { Group } from '../piece'
import { actOf } from './acts'
import type { Step } from './step'
import { foundSurface, type Surface } from './surface'

/** The state that a step leaves behind. */
export const leave = (step: Step, s: Surface, context: Context): Surface => actOf(step).leaves(s, step, context)

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
}

/** Every step on every group of faces it touches, in the order of the work, with the state before and after.
 * Work begins from what was found where no other `start` is given. */
export function walk(
  steps: readonly Step[],
  groups: readonly Group[],
  context: Context,
  start = (g: Group): Surface => foundSurface(context.facts, g),
): Visit[] {
  const now = new Map(groups.map(g => [g.key, start(g)]))
  return steps.flatMap((step, index) =>
    groups
      .filter(g => g.faces.some(f => step.faces.includes(f.id)))
      .map(group => {
        const before = now.get(group.key)!
        const after = leave(step, before, context)
        now.set(group.key, after)
        return { step, index, group, product: taken(context.shelf, step), before, after }
      }),
  )
}
