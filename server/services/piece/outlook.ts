/** When a piece that is only asked about would be ready among all else in the shop, as it was last worked out. */
import type { Db } from '../../database/db'

/** Null: not within the time that is planned ahead. */
export interface Outlook {
  likely_at: Date | null
  safe_at: Date | null
}
export const keptOutlook = (on: Db, id: number) =>
  on.row<Outlook>('SELECT likely_at, safe_at FROM outlook WHERE piece_id = :id', { id })
