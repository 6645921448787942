import type { Db } from '../../database/db'
import type { PieceFile } from '../piece/rows'
import { insertStep, type PlannedStep, type StoredPlan } from '../plan/rows'
import { log } from '../platform/log'
import type { Person } from '../shop/person'

export const MINUTE_MS = 60_000

export interface Act {
  tx: Db
  file: PieceFile
  plan: StoredPlan
  step: PlannedStep
  at: Date
  now: Date
  person: Person
}
export interface Result {
  ok: true
  says: string
  askAgain?: boolean
}

export const write = (act: Act, kind: string, says: string, undoesId?: number) =>
  log(act.tx, {
    pieceId: act.file.piece.id,
    stepId: act.step.id,
    kind,
    says,
    at: act.at,
    recordedAt: act.now,
    personId: act.person.id,
    undoesId: undoesId ?? null,
  })

/** A gate without a fallback asks for the work before it once more: the last washing or coat, and the gate again. */
export async function repeatBefore(act: Act): Promise<Result> {
  const { tx, file, plan, step } = act
  const index = plan.steps.findIndex(st => st.id === step.id)
  const before = plan.steps.slice(0, index).findLast(st => st.state === 'done' && st.kind !== 'approval')
  const rounds = plan.steps.filter(st => st.key.startsWith(`${step.key}~`)).length + 2
  const again = [step.gate?.slug === 'moisture' ? undefined : before, step]
    .filter(st => st !== undefined)
    .map(st => ({ ...st, key: `${st.key.split('~')[0]}~${rounds}`, why: 'the gate failed: once more' }))
  const next = plan.steps[index + 1]
  const room = ((next?.position ?? step.position + 100) - step.position) / (again.length + 1)
  for (const [i, st] of again.entries())
    await insertStep(tx, file.piece.id, st, Math.round(step.position + room * (i + 1)))
  return { ok: true, says: `Once more: ${again.map(st => st.title).join(', ')}` }
}
