/** Faults as they are stored: what was seen, known, said, mended and found. */
import type { Fact, Found, Grade, OwnGrades, Said } from '#core/diagnose'
import { FACT_SLUGS, SIGN_SLUGS, signOf } from '#core/diagnose'
import type { Db } from '../../database/db'

interface StoredFault {
  id: number
  piece_id: number
  step_id: number | null
  sign: string
  kind: string | null
  product: string | null
  facts: string
  said: string
  mend: string | null
  mended_at: Date | null
  cause: string | null
  found_at: Date | null
  keep_next: 0 | 1
  note: string
  at: Date
  row_version: number
  by_name: string
}
/** An answer; null: nobody could say. */
export interface Answer {
  ask: string
  yes: boolean | null
}
export interface FaultRow extends Omit<StoredFault, 'facts' | 'said'> {
  facts: Fact[]
  said: Answer[]
}
const FAULTS = `SELECT fault.*, person.name AS by_name FROM fault JOIN person ON person.id = fault.person_id`

function parsed(text: string): unknown[] {
  try {
    const value: unknown = JSON.parse(text)
    return Array.isArray(value) ? value : []
  } catch {
    return []
  }
}
const isAnswer = (x: unknown): x is Answer => typeof (x as Answer | null)?.ask === 'string'
/** What this program knows of a stored fault; null: its sign is none of the list. */
function understood(row: StoredFault): FaultRow | null {
  if (!SIGN_SLUGS.includes(row.sign)) return null
  const sign = signOf(row.sign)
  return {
    ...row,
    facts: FACT_SLUGS.filter(f => parsed(row.facts).includes(f)),
    said: parsed(row.said)
      .filter(isAnswer)
      .filter(a => Object.hasOwn(sign.asks, a.ask)),
    cause: row.cause !== null && Object.hasOwn(sign.causes, row.cause) ? row.cause : null,
  }
}
export const readFaults = async (on: Db, pieceId: number): Promise<FaultRow[]> =>
  (await on.rows<StoredFault>(`${FAULTS} WHERE fault.piece_id = :pieceId ORDER BY fault.id DESC`, { pieceId })).flatMap(
    r => understood(r) ?? [],
  )

export async function readFault(on: Db, id: number, lock = false): Promise<FaultRow> {
  const row = await on.row<StoredFault>(`${FAULTS} WHERE fault.id = :id ${lock ? 'FOR UPDATE' : ''}`, { id })
  const fault = row && understood(row)
  if (!fault) throw notFound('fault')
  return fault
}

/** How often each cause of each sign was found in the end, in this shop. */
export async function readFound(on: Db): Promise<(sign: string) => Found> {
  const rows = await on.rows<{ sign: string; cause: string; n: number }>(
    'SELECT sign, cause, COUNT(*) AS n FROM fault WHERE cause IS NOT NULL GROUP BY sign, cause',
  )
  return sign => Object.fromEntries(rows.filter(r => r.sign === sign).map(r => [r.cause, Number(r.n)]))
}
export interface GradeRow {
  sign: string
  ask: string
  cause: string
  grade: Grade
}
export const readGrades = (on: Db) => on.rows<GradeRow>('SELECT sign, ask, cause, grade FROM own_grade')
export function gradesOf(sign: string, rows: readonly GradeRow[]): OwnGrades {
  const its = rows.filter(r => r.sign === sign)
  const of = (ask: string) => Object.fromEntries(its.filter(r => r.ask === ask).map(r => [r.cause, r.grade]))
  return Object.fromEntries(its.map(r => [r.ask, of(r.ask)]))
}
export const answered = (said: readonly Answer[]): Said[] =>
  said.flatMap(({ ask, yes }) => (yes === null ? [] : { ask, yes }))
