import type { LaidSection } from '#core/timetable'
import type { Db } from '../../database/db'

interface LaidRow {
  step_id: number
  no: number
  on_at: Date
  off_at: Date | null
}
/** Sections that went on, by step, in order. `where`: which pieces, as a condition. */
export async function readLaid(on: Db, where: string, params: { id: number }): Promise<Map<number, LaidSection[]>> {
  const rows = await on.rows<LaidRow>(
    `SELECT l.*
        FROM piece
        JOIN plan_step s ON s.piece_id = piece.id
        JOIN step_section l ON l.step_id = s.id
        WHERE ${where}
        ORDER BY l.step_id, l.no`,
    params,
  )
  const laid = new Map<number, LaidSection[]>()
  for (const { step_id, no, on_at, off_at } of rows)
    laid.set(step_id, [...(laid.get(step_id) ?? []), { no, on_ms: on_at.getTime(), off_ms: off_at?.getTime() ?? null }])
  return laid
}
