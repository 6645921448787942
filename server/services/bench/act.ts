import type { Db } from '../../database/db'
import type { PieceFile } from '../piece/rows'
import type { PlannedStep, StoredPlan } from '../plan/rows'
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
  /** it happened without a line: what speaks against it is told here, and it is entered all the same */
  against: string[] | null
}
export interface Result {
  ok: true
  says: string
  askAgain?: boolean
  /** it came late and could not be entered; it waits for somebody to settle it */
  held?: boolean
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
