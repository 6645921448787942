import { db } from '../../database/db'

export interface Planned {
  start_ms: number
  personId: number | null
  person: string | null
}
/** Where the newest schedule has each step. */
export async function readPlanned(): Promise<ReadonlyMap<number, Planned>> {
  const rows = await db().rows<{ step_id: number; start_at: Date; person_id: number | null; name: string | null }>(
    `SELECT s.step_id, MIN(s.start_at) AS start_at, s.person_id, person.name
        FROM schedule_step s
        LEFT JOIN person ON person.id = s.person_id
        WHERE s.schedule_id = (SELECT MAX(id) FROM schedule)
        GROUP BY s.step_id, s.person_id, person.name`,
  )
  return new Map(rows.map(r => [r.step_id, { start_ms: r.start_at.getTime(), personId: r.person_id, person: r.name }]))
}
