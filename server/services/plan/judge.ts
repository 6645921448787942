import { blocks } from '#core/safety'
import type { Context } from '#core/context'
import type { Begun } from '#core/ground'
import { judgePlan, type Verdict } from '#core/rules'
import { type LayerState, surfaceOf } from '#core/section'
import { forecast, type Hours, waitedFor } from '#core/timetable'
import type { PieceFile } from '../piece/rows'
import { licencesOn } from '../shop/licences'
import { isOverruled, type StoredPlan } from './rows'

/** What the rules are asked of a stored plan, on this day. */
const questionOf = (file: PieceFile, plan: StoredPlan, at: Date) => ({
  context: file.context,
  choice: file.choice!,
  steps: plan.steps.filter(st => st.state !== 'skipped'),
  waits: plan.waits,
  licences: licencesOn(file.piece.licences ?? [], at),
})

/** Verdicts of a stored plan: the rules run on the steps that count. */
export function verdictsOf(file: PieceFile, plan: StoredPlan, at: Date): Verdict[] {
  const steps = new Map(plan.steps.map(st => [st.key, st]))
  return judgePlan(questionOf(file, plan, at)).filter(v => !waitedFor(v, steps, at.getTime()))
}

/** Verdicts at any moment of the day that they were judged for: of the plan, and what a start is judged by besides. */
export interface Judged {
  standing: (at: Date) => Verdict[]
  start: (at: Date) => Verdict[]
}
export function judged(file: PieceFile, plan: StoredPlan, day: Date): Judged {
  const steps = new Map(plan.steps.map(st => [st.key, st]))
  const all = judgePlan(questionOf(file, plan, day))
  const atStart = judgePlan({ ...questionOf(file, plan, day), scope: 'start' })
  const standing = (at: Date) => all.filter(v => !waitedFor(v, steps, at.getTime()))
  return { standing, start: at => [...standing(at), ...atStart] }
}
export const startVerdictsOf = (file: PieceFile, plan: StoredPlan, at: Date): Verdict[] =>
  judged(file, plan, at).start(at)

const layerStates = (plan: StoredPlan) => {
  const states = new Map(
    plan.steps.map((st): [string, LayerState] => [st.key, st.state === 'skipped' ? 'planned' : st.state]),
  )
  return (key: string): LayerState => states.get(key) ?? 'planned'
}
/** The section of a stored plan. */
export function sectionFor(context: Context, plan: StoredPlan, verdicts: readonly Verdict[]) {
  const failing = new Set(verdicts.filter(v => blocks(v, isOverruled(plan, v))).map(v => v.step))
  const live = plan.steps.filter(st => st.state !== 'skipped')
  return surfaceOf(context, live, { stateOf: layerStates(plan), failing })
}

/** When the steps of a plan were begun and ended, by their key. */
export const begunIn = ({ steps }: StoredPlan): Begun =>
  new Map(
    steps.flatMap(({ key, state, started_ms, finished_ms }) =>
      state !== 'skipped' && started_ms !== null ? [[key, { started_ms, finished_ms }]] : [],
    ),
  )
/** Likely and safe dates of what is left, from now. */
export function datesOf(plan: StoredPlan, hours: Hours, at: Date) {
  const steps = plan.steps.filter(st => st.state !== 'skipped')
  const done = begunIn(plan)
  const run = (by: 'likely' | 'safe') => forecast({ steps, waits: plan.waits, hours, from_ms: at.getTime(), by, done })
  const end = (rows: { end_ms: number }[]) => (rows.length ? Math.max(...rows.map(r => r.end_ms)) : null)
  const likely = run('likely')
  const safe = run('safe')
  return { likely, safe, readyLikely_ms: end(likely), readySafe_ms: end(safe) }
}
