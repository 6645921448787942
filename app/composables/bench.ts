import type { InjectionKey, ShallowRef } from 'vue'

export type BenchNow = AnswerOf<'GET /api/now'>
export type PiecePage = AnswerOf<'GET /api/pieces/:id'>
export type PlanPage = Extract<AnswerOf<'GET /api/pieces/:id/plan'>, { ready: true }>
export type RoutesPage = AnswerOf<'GET /api/pieces/:id/routes'>
export type WindowLine = BenchNow['windows'][number]
export type StepLine = BenchNow['may'][number]

export const BENCH: InjectionKey<ShallowRef<BenchNow | null>> = Symbol('bench')

type BenchKind = 'start' | 'finish' | 'not-dry' | 'mixed' | 'section' | 'undo'
export interface ActTarget {
  stepId: number
  rowVersion: number
  title: string
}

/** Acts that a touch takes back at once. */
const BACK: readonly BenchKind[] = ['start', 'finish']

/** An act at the bench. */
export async function actAtBench(
  kind: BenchKind,
  step: ActTarget,
  minutesAgo = 0,
  more: Record<string, unknown> = {},
): Promise<boolean> {
  const clock = useClock()
  const command = {
    kind,
    stepId: step.stepId,
    rowVersion: step.rowVersion,
    happenedAt: new Date(clock.now - minutesAgo * 60_000).toISOString(),
    ...more,
  }
  const done = await send('POST /api/bench', { body: command as BodyOf<'POST /api/bench'> })
  if (!done) return false
  // what it was raises the step's version by one; whoever changed it meanwhile keeps the mis-tap from being taken back
  const back = { ...step, rowVersion: step.rowVersion + 1 }
  const takeBack = () =>
    kind === 'section' ? actAtBench('section', back, 0, { what: 'back' }) : actAtBench('undo', back)
  const backs = BACK.includes(kind) || (kind === 'section' && more.what !== 'back')
  useNotes().show(done.says, 'done', backs ? takeBack : undefined)
  return true
}

export type AnswerLine = AnswerOf<'GET /api/answers'>[number]
