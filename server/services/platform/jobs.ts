import { db } from '../../database/db'

/**
 * Takes a job that one instance does for all, when it is due; it is due again `every_s` later. Times are real.
 * Of several instances that ask at once exactly one gets it.
 */
export async function takeJob(name: string, every_s: number): Promise<boolean> {
  const due = { name, every_s }
  const { changed } = await db().run(
    `UPDATE job
        SET due_at = UTC_TIMESTAMP(3) + INTERVAL :every_s SECOND
        WHERE name = :name AND due_at <= UTC_TIMESTAMP(3)`,
    due,
  )
  if (changed === 1) return true
  const made = await db().run(
    'INSERT IGNORE INTO job (name, due_at) VALUES (:name, UTC_TIMESTAMP(3) + INTERVAL :every_s SECOND)',
    due,
  )
  return made.changed === 1
}

const AT_ONCE = 2000
/**
 * What is thinned, and by which rule. Events and tries go by real time; climate readings by the shop's clock, which a
 * demo sets.
 */
const THIN: readonly [what: string, sql: string][] = [
  [
    'events older than a week',
    `DELETE
        FROM event
        WHERE id <= (SELECT old FROM (SELECT MAX(id) AS old FROM event WHERE at < :now - INTERVAL 7 DAY) AS e)`,
  ],
  ['sign-in tries older than a month', 'DELETE FROM sign_in_attempt WHERE at < UTC_TIMESTAMP(3) - INTERVAL 30 DAY'],
  ['answers of writes older than a month', 'DELETE FROM command WHERE at < UTC_TIMESTAMP(3) - INTERVAL 30 DAY'],
  ['sessions that ended', 'DELETE FROM session WHERE ends_at < UTC_TIMESTAMP(3)'],
  ['devices not seen for over a year', 'DELETE FROM known_device WHERE at < UTC_TIMESTAMP(3) - INTERVAL 400 DAY'],
  ['climate readings older than two days, to one in five minutes', thinned(2, 90, 300)],
  ['climate readings older than three months, to one an hour', thinned(90, 100_000, 3600)],
]

/** Of each span the first reading stays, by a logger; what somebody read by hand always stays. */
function thinned(from_d: number, to_d: number, span_s: number): string {
  return `DELETE
      FROM climate_reading
      WHERE id IN (
        SELECT id
          FROM (
            SELECT id,
              ROW_NUMBER() OVER (
                PARTITION BY logger, source, FLOOR(UNIX_TIMESTAMP(at) / ${span_s}) ORDER BY at, id
              ) AS place
              FROM climate_reading
              WHERE at < :now - INTERVAL ${from_d} DAY AND at > :now - INTERVAL ${to_d} DAY AND person_id IS NULL
          ) AS r
          WHERE r.place > 1
      )`
}

/** Thins what only grows. Returns how many rows went, by what they were. */
export async function thin(now: Date): Promise<Record<string, number>> {
  const gone: Record<string, number> = {}
  for (const [what, sql] of THIN) {
    for (let more = AT_ONCE; more === AT_ONCE;) {
      more = (await db().run(`${sql} LIMIT ${AT_ONCE}`, { now })).changed
      gone[what] = (gone[what] ?? 0) + more
    }
  }
  return gone
}
