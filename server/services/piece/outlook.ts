/** When a piece that is only asked about would be ready among all else in the shop. */
import type { Db } from '../../database/db'

/** Null: not within the time that is planned ahead. */
export interface Outlook {
  likely_at: Date | null
  safe_at: Date | null
}
/** As it was last worked out; null for a piece that came in since, which the timetable has. */
export const keptOutlook = (on: Db, id: number) =>
  on.row<Outlook>(
    `SELECT outlook.likely_at, outlook.safe_at
        FROM outlook
        JOIN piece ON piece.id = outlook.piece_id
        WHERE piece.id = :id AND piece.state = 'enquiry'`,
    { id },
  )
