/** The work of a plan by stages, in a client's words, with its minutes. */
import { doneSaid, stageOf } from '#core/acts'
import type { StageTime } from '#core/approval'
import { workedMin } from './cost'
import type { PlannedStep } from './rows'

/** Steps by stage of the work, in order. */
export function stagesOf(steps: readonly PlannedStep[]): { says: string; steps: PlannedStep[] }[] {
  const stages = new Map<string, PlannedStep[]>()
  for (const st of steps) {
    const stage = stageOf(st.kind)
    if (stage !== 'word') stages.set(stage, [...(stages.get(stage) ?? []), st])
  }
  return [...stages.values()].map(own => ({ says: doneSaid(own)[0] ?? 'Looked at', steps: own }))
}
export const minutesOf = (steps: readonly PlannedStep[]) => steps.reduce((sum, st) => sum + st.attended_min, 0)

/** What is done, by stage: planned and worked minutes. */
export const timesOf = (steps: readonly PlannedStep[]): StageTime[] =>
  stagesOf(steps.filter(st => st.state === 'done' && st.kind !== 'approval')).map(({ says, steps: own }) => ({
    ...{ says, planned_min: minutesOf(own) },
    worked_min: own.reduce((sum, st) => sum + workedMin(st), 0),
  }))
