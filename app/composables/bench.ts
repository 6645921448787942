import type { InjectionKey, ShallowRef } from 'vue'

export type BenchNow = AnswerOf<'GET /api/now'>
export type PiecePage = AnswerOf<'GET /api/pieces/:id'>
export type PlanPage = Extract<AnswerOf<'GET /api/pieces/:id/plan'>, { ready: true }>
export type RoutesPage = AnswerOf<'GET /api/pieces/:id/routes'>
export type WindowLine = BenchNow['windows'][number]
export type StepLine = BenchNow['may'][number]
export type RunningLine = BenchNow['running'][number]

export const BENCH: InjectionKey<ShallowRef<BenchNow | null>> = Symbol('bench')

export type BenchKind = BodyOf<'POST /api/bench'>['kind']
export interface ActTarget {
  stepId: number
  rowVersion: number
  title: string
}

/** What takes an act back by one touch, where something does. */
const BACK: Partial<Record<BenchKind, { kind: BenchKind; more?: Record<string, unknown> }>> = {
  'start': { kind: 'undo' },
  'finish': { kind: 'undo' },
  'pause': { kind: 'spell-back' },
  'go-on': { kind: 'spell-back' },
  'hand-on': { kind: 'spell-back' },
  'section': { kind: 'section', more: { what: 'back' } },
}

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
  const raised = { ...step, rowVersion: step.rowVersion + 1 }
  const back = more.what === 'back' ? undefined : BACK[kind]
  useNotes().show(done.says, 'done', back && (() => actAtBench(back.kind, raised, 0, back.more)))
  return true
}

/** A photograph of what a step was like, tied to it. */
export function addStepPicture(pieceId: number, stepId: number, file: File) {
  const body = new FormData()
  body.append('picture', file)
  return send('POST /api/pieces/:id/photographs', { id: pieceId, query: { step: stepId }, body })
}

export type AnswerLine = AnswerOf<'GET /api/answers'>[number]
