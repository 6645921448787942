/**
 * What a migration changes that SQL cannot say: rows read, put through core, and written. Each may be cut off
 * anywhere.
 */
import type { Connection, RowDataPacket } from 'mysql2/promise'
import { asGrit, type Grit } from '../../core/abrasives'
import { fieldsOfTitle, type OldStep, typedOf, withFields } from '../../core/acts'
import { canonicalJson, type Json } from '../../core/approval'

const SOME = 500
type Row = Record<string, unknown> & { id: number }
async function rowsOf(on: Connection, sql: string, values: unknown[] = []): Promise<Row[]> {
  const [rows] = await on.query<RowDataPacket[]>(sql, values)
  return rows as unknown as Row[]
}

/** Fields of stored steps, read out of their titles once; a typed title stays, another is said anew. */
async function stepFields(on: Connection): Promise<void> {
  for (;;) {
    const rows = await rowsOf(on, 'SELECT id, kind, title, by_hand FROM plan_step WHERE fields IS NULL LIMIT ?', [SOME])
    if (rows.length === 0) return
    for (const row of rows) {
      const old = row as unknown as Pick<OldStep, 'kind' | 'title'>
      const typed = typedOf(Boolean(row.by_hand))
      await on.query('UPDATE plan_step SET fields = ?, typed = ?, title = ? WHERE id = ?', [
        JSON.stringify(fieldsOfTitle(old)),
        typed.join(),
        typed.length ? old.title : '',
        row.id,
      ])
    }
  }
}

type KeptStep = OldStep & { fields?: unknown; grits?: (Grit | number)[] }
/** A plan kept for undo, its steps put through `anew`; a text that cannot be read is left as it is. */
function keptAnew(text: string, anew: (step: KeptStep) => object): string {
  try {
    const kept = JSON.parse(text) as { steps: KeptStep[]; leasts: unknown }
    return canonicalJson({ ...kept, steps: kept.steps.map(anew) } as unknown as Json)
  } catch {
    return text
  }
}
async function keptPlans(on: Connection, anew: (step: KeptStep) => object): Promise<void> {
  let last = 0
  for (;;) {
    const rows = await rowsOf(
      on,
      'SELECT id, steps_before, steps_after FROM plan_edit WHERE id > ? ORDER BY id LIMIT ?',
      [last, SOME],
    )
    if (rows.length === 0) return
    for (const row of rows) {
      const [before, after] = [row.steps_before, row.steps_after].map(text => keptAnew(String(text), anew))
      await on.query('UPDATE plan_edit SET steps_before = ?, steps_after = ? WHERE id = ?', [before, after, row.id])
      last = row.id
    }
  }
}

/** By the migration after whose statements it runs. */
export const CONVERSIONS: Readonly<Record<string, (on: Connection) => Promise<void>>> = {
  '007-fields.sql': async on => {
    await stepFields(on)
    await keptPlans(on, step => (step.fields === undefined ? withFields(step) : step))
  },
  '009-changed.sql': async on => keptPlans(on, step => ({ ...step, grits: step.grits?.map(asGrit) ?? [] })),
}
