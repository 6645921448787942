/** What waits for a client's word: the steps that hang on it, and when each would begin if the word came now. */
import { db } from '../../database/db'
import { type Active, readActive, readAsActive } from '../bench/active'

export interface Hanging {
  says: string
  /** by the newest schedule; null where it has no place there, as before a piece is in */
  at: Date | null
}

const readStarts = async (ids: readonly number[]) =>
  new Map(
    (
      await db().rows<{ step_id: number; at: Date }>(
        `SELECT step_id, MIN(start_at) AS at
            FROM schedule_step
            WHERE schedule_id = (SELECT MAX(id) FROM schedule) AND piece_id IN (:ids)
            GROUP BY step_id`,
        { ids },
      )
    ).map(r => [r.step_id, r.at]),
  )

/** By piece: its planned steps, in the order in which they would begin. */
export async function readHanging(ids: readonly number[]): Promise<ReadonlyMap<number, Hanging[]>> {
  if (ids.length === 0) return new Map()
  const active = (await readActive()).pieces.filter(p => ids.includes(p.file.piece.id))
  const known = new Set(active.map(p => p.file.piece.id))
  const others = await Promise.all(ids.filter(id => !known.has(id)).map(readAsActive))
  const pieces: Active[] = [...active, ...others.flatMap(p => p ?? [])]
  const starts = await readStarts(ids)
  return new Map(
    pieces.map(({ file, plan }) => [
      file.piece.id,
      (plan?.steps ?? [])
        .filter(st => st.kind !== 'approval' && st.state === 'planned')
        .map(({ id, title }) => ({ says: title, at: starts.get(id) ?? null }))
        .sort((a, b) => (a.at?.getTime() ?? Infinity) - (b.at?.getTime() ?? Infinity) || 0),
    ]),
  )
}
