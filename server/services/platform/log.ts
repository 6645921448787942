import { atEnd, type Db } from '../../database/db'

export interface Entry {
  pieceId: number | null
  stepId?: number | null
  kind: string
  says: string
  at: Date
  recordedAt: Date
  personId: number | null
  undoesId?: number | null
}

/** Adds a logbook entry; the table refuses change and deletion. */
export async function log(tx: Db, e: Entry): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO logbook (piece_id, step_id, kind, says, happened_at, recorded_at, person_id, undoes_id)
     VALUES (:pieceId, :stepId, :kind, :says, :at, :recordedAt, :personId, :undoesId)`,
    { ...e, says: e.says.slice(0, 1000), stepId: e.stepId ?? null, undoesId: e.undoesId ?? null },
  )
  return id
}

/** An entry that belongs to no piece: people, rights, keys, settings, the store. */
export const logShop = (tx: Db, kind: string, says: string, at: Date, personId: number | null): Promise<number> =>
  log(tx, { pieceId: null, kind, says, at, recordedAt: at, personId })

export type Topic = 'piece' | 'pieces' | 'air' | 'store' | 'shop' | 'alarm' | 'schedule'

const told = new WeakMap<Db, Set<string>>()

/**
 * Tells open pages what changed, once this transaction is committed. The counter's row lock makes numbers and commits
 * come in the same order; it is taken last of all, so that nobody waits for anything else while holding it.
 */
export async function tell(tx: Db, topic: Topic, pieceId: number | null, at: Date): Promise<void> {
  const seen = told.get(tx) ?? new Set<string>()
  told.set(tx, seen)
  const key = `${topic}|${pieceId}`
  if (seen.has(key)) return
  seen.add(key)
  if (topic === 'piece' && pieceId !== null)
    await tx.run('UPDATE piece SET changed_no = changed_no + 1 WHERE id = :pieceId', { pieceId })
  atEnd(tx, async () => {
    await tx.run('UPDATE event_counter SET last = last + 1 WHERE id = 1')
    await tx.run(
      'INSERT INTO event (id, topic, piece_id, at) SELECT last, :topic, :pieceId, :at FROM event_counter WHERE id = 1',
      { topic, pieceId, at },
    )
  })
}
