/** Work beside the plan that a client agreed to, at its price with tax. */
import type { Db } from '../../database/db'

export interface ExtraRow {
  id: number
  says: string
  price_minor: number
  days: number
  at: Date
}
export const readExtras = (on: Db, pieceId: number): Promise<ExtraRow[]> =>
  on.rows<ExtraRow>('SELECT id, says, price_minor, days, at FROM extra WHERE piece_id = :pieceId ORDER BY id', {
    pieceId,
  })
export const addExtra = (
  tx: Db,
  extra: { pieceId: number; questionItemId: number; says: string; price_minor: number; days: number },
  at: Date,
) =>
  tx.run(
    `INSERT INTO extra (piece_id, question_item_id, says, price_minor, days, at)
        VALUES (:pieceId, :questionItemId, :says, :price_minor, :days, :at)`,
    { ...extra, at },
  )
