import type { InternalApi } from 'nitropack/types'
import type { InjectionKey, ShallowRef } from 'vue'

export type BenchNow = Serialized<'/api/now'>
type Serialized<P extends keyof InternalApi> = InternalApi[P] extends { get: infer R } ? R : never
export type PiecePage = InternalApi['/api/pieces/:id']['get']
export type PlanPage = Extract<InternalApi['/api/pieces/:id/plan']['get'], { ready: true }>
export type RoutesPage = InternalApi['/api/pieces/:id/routes']['get']
export type WindowLine = BenchNow['windows'][number]
export type StepLine = BenchNow['may'][number]

export const BENCH: InjectionKey<ShallowRef<BenchNow | null>> = Symbol('bench')

export interface ActTarget {
  stepId: number
  rowVersion: number
  title: string
}

/** An act at the bench. */
export async function actAtBench(
  kind: 'start' | 'finish' | 'not-dry' | 'mixed' | 'undo',
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
  const done = await send<{ says: string }>('POST', '/api/bench', command)
  if (done) useNotes().show(done.says)
  return done !== null
}

export type AnswerLine = InternalApi['/api/answers']['get'][number]
