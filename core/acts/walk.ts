/** Steps walked over the surfaces that they change. Planner and rules read only these states. */
import type { Group } from '../piece'
import { actOf } from './acts'
import type { Step } from './step'
import type { Surface } from './surface'

/** The state that a step leaves behind. */
export const leave = (step: Step, s: Surface): Surface => actOf(step).leaves(s, step)

export interface Visit {
  step: Step
  index: number
  group: Group
  before: Surface
  after: Surface
}

/** Every step on every group of faces it touches, in the order of the work, with the state before and after. */
export function walk(steps: readonly Step[], groups: readonly Group[], start: (g: Group) => Surface): Visit[] {
  const now = new Map(groups.map(g => [g.key, start(g)]))
  return steps.flatMap((step, index) =>
    groups
      .filter(g => g.faces.some(f => step.faces.includes(f.id)))
      .map(group => {
        const before = now.get(group.key)!
        const after = leave(step, before)
        now.set(group.key, after)
        return { step, index, group, before, after }
      }),
  )
}
