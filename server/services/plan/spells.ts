import type { Spell } from '#core/timetable'
import type { Db } from '../../database/db'

interface SpellRow {
  id: number
  step_id: number
  person_id: number
  name: string
  tablet: string | null
  from_at: Date
  to_at: Date | null
}
/** Who had a step in hand, by step, in order. `where`: which pieces, as a condition. */
export async function readSpells(on: Db, where: string, params: { id: number }): Promise<Map<number, Spell[]>> {
  const rows = await on.rows<SpellRow>(
    `SELECT w.*, person.name, tablet.name AS tablet
        FROM piece
        JOIN plan_step s ON s.piece_id = piece.id
        JOIN work_spell w ON w.step_id = s.id
        JOIN person ON person.id = w.person_id
        LEFT JOIN tablet ON tablet.id = w.tablet_id
        WHERE ${where}
        ORDER BY w.step_id, w.from_at, w.id`,
    params,
  )
  const spells = new Map<number, Spell[]>()
  for (const r of rows) {
    const spell = {
      id: r.id,
      personId: r.person_id,
      by: r.name,
      at: r.tablet,
      from_ms: r.from_at.getTime(),
      to_ms: r.to_at?.getTime() ?? null,
    }
    const list = spells.get(r.step_id)
    if (list) list.push(spell)
    else spells.set(r.step_id, [spell])
  }
  return spells
}
