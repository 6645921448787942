import type { Db } from '../database/db'

export interface Entry { pieceId: number | null, stepId?: number | null, kind: string, says: string, at: Date, recordedAt: Date, personId: number | null, undoesId?: number | null }

/** Adds a logbook entry; the table refuses change and deletion. */
export async function log(tx: Db, e: Entry): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO logbook (piece_id, step_id, kind, says, happened_at, recorded_at, person_id, undoes_id)
     VALUES (:pieceId, :stepId, :kind, :says, :at, :recordedAt, :personId, :undoesId)`,
    { ...e, says: e.says.slice(0, 1000), stepId: e.stepId ?? null, undoesId: e.undoesId ?? null })
  return id
}

export type Topic = 'piece' | 'pieces' | 'air' | 'store' | 'shop' | 'alarm'

/** Tells open pages what changed. The counter's row lock makes numbers and commits come in the same order. */
export async function tell(tx: Db, topic: Topic, pieceId: number | null, at: Date): Promise<void> {
  await tx.run('UPDATE event_counter SET last = last + 1 WHERE id = 1')
  await tx.run('INSERT INTO event (id, topic, piece_id, at) SELECT last, :topic, :pieceId, :at FROM event_counter WHERE id = 1', { topic, pieceId, at })
}
