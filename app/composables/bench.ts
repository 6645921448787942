import type { InjectionKey, ShallowRef } from 'vue'
import type { InternalApi } from 'nitropack/types'

export type BenchNow = Serialized<'/api/now'>
type Serialized<P extends keyof InternalApi> = InternalApi[P] extends { get: infer R } ? R : never
export type PiecePage = InternalApi['/api/pieces/:id']['get']
export type PlanPage = Extract<InternalApi['/api/pieces/:id/plan']['get'], { ready: true }>
export type RoutesPage = InternalApi['/api/pieces/:id/routes']['get']
export type WindowLine = BenchNow['windows'][number]
export type StepLine = BenchNow['may'][number]

export const BENCH: InjectionKey<ShallowRef<BenchNow | null>> = Symbol('bench')

export interface ActTarget { stepId: number, rowVersion: number, title: string }

/** An act at the bench as a command with its own UUID. A repeat after a broken line sends the same one. */
export async function actAtBench(kind: 'start' | 'finish' | 'not-dry' | 'mixed' | 'undo', step: ActTarget, minutesAgo = 0, more: Record<string, unknown> = {}): Promise<boolean> {
  const clock = useClock()
  const command = { kind, uuid: crypto.randomUUID(), stepId: step.stepId, rowVersion: step.rowVersion, happenedAt: new Date(clock.now - minutesAgo * 60_000).toISOString(), ...more }
  for (let tries = 0; ; tries++) {
    try {
      const done = await fetchAs<{ says: string }>('/api/bench', { method: 'POST', body: command })
      useNotes().show(done.says)
      return true
    }
    catch (error) {
      const lost = (error as { status?: number }).status === undefined
      if (lost && tries < 3) { await new Promise(r => setTimeout(r, 1000 * (tries + 1))); continue }
      useNotes().show(problem(error).message, 'stop')
      return false
    }
  }
}

export type AnswerLine = InternalApi['/api/answers']['get'][number]
