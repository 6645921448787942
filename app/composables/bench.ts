import type { InjectionKey, Ref } from 'vue'
import { shrunk } from '~/offline/picture'

export type BenchNow = AnswerOf<'GET /api/now'>
export type PiecePage = AnswerOf<'GET /api/pieces/:id'>
export type PlanPage = Extract<AnswerOf<'GET /api/pieces/:id/plan'>, { ready: true }>
export type RoutesPage = AnswerOf<'GET /api/pieces/:id/routes'>
export type WindowLine = BenchNow['windows'][number]
export type StepLine = BenchNow['may'][number]
export type RunningLine = BenchNow['running'][number]

export const BENCH: InjectionKey<Readonly<Ref<BenchNow | null>>> = Symbol('bench')

export type BenchKind = BodyOf<'POST /api/bench'>['kind']
export interface ActTarget {
  pieceId: number
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
  const happened_ms = useClock().now - minutesAgo * 60_000
  const { stepId, pieceId, rowVersion, title } = step
  const happenedAt = new Date(happened_ms).toISOString()
  const body = { kind, stepId, rowVersion, happenedAt, ...more }
  const says = w('waiting.act', { act: w(`waiting.acts.${kind}`), title })
  const sent = await sendOrKeep('POST /api/bench', { body }, { says, pieceId, stepId, happened_ms })
  if (!sent) return false
  const notes = useNotes()
  if ('kept' in sent) {
    notes.show(w('waiting.kept', { says }), 'done', () => useWaiting().takeBack(sent.kept), sent.kept.uuid)
    return true
  }
  // what it was raises the step's version by one; whoever changed it meanwhile keeps the mis-tap from being taken back
  const raised = { ...step, rowVersion: rowVersion + 1 }
  const back = more.what === 'back' ? undefined : BACK[kind]
  notes.show(sent.done.says, 'done', back && (() => actAtBench(back.kind, raised, 0, back.more)))
  if (more.gate === 'fail') notes.leadsOn({ says: w('fault.why'), to: `/pieces/${pieceId}/faults?step=${stepId}` })
  return true
}

/** A photograph of what a step was like, tied to it. */
export async function addStepPicture({ pieceId, stepId, title }: ActTarget, file: File): Promise<boolean> {
  const { picture, taken } = await shrunk(file)
  const says = w('waiting.picture', { title })
  const asking = { id: pieceId, query: { step: stepId, taken } }
  const happened_ms = useClock().now
  const sent = await sendOrKeep('POST /api/pieces/:id/photographs', asking, {
    ...{ says, pieceId, stepId, happened_ms, picture },
  })
  if (sent && 'kept' in sent) useNotes().show(w('waiting.kept', { says }), 'done', undefined, sent.kept.uuid)
  return sent !== null
}

export type AnswerLine = AnswerOf<'GET /api/answers'>[number]
