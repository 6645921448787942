/** Cartridges for organic vapour: whose, since when, how much of them is worn. */
import type { z } from 'zod'
import { cautionsIn } from '#core/materials'
import { cartridgeState } from '#core/vapour'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from '../shop/person'

interface Row {
  id: number
  person_id: number
  person: string
  fitted_at: Date
  lasts_h: number
  lasts_d: number
}
const NEWEST = `(
  SELECT n.id FROM cartridge n WHERE n.person_id = c.person_id ORDER BY n.fitted_at DESC, n.id DESC LIMIT 1
)`
/** The newest of each who works. One's own; all of them for the owner. */
export async function readMasks(person: Pick<Person, 'id' | 'role'>, at: Date) {
  const people = await db().rows<{ id: number; name: string }>(
    "SELECT id, name FROM person WHERE (:all OR id = :id) AND active AND role <> 'office' ORDER BY name",
    { all: person.role === 'owner', id: person.id },
  )
  const rows = await db().rows<Row>(
    `SELECT c.*
        FROM cartridge c
        WHERE c.id = ${NEWEST}`,
  )
  const worn = await db().rows<{ person_id: number; product: string; min: number }>(
    `SELECT w.person_id, st.product,
        SUM(TIMESTAMPDIFF(SECOND, GREATEST(w.from_at, c.fitted_at), LEAST(COALESCE(w.to_at, :at), :at))) / 60 AS min
        FROM cartridge c
        JOIN work_spell w ON w.person_id = c.person_id AND COALESCE(w.to_at, :at) > c.fitted_at AND w.from_at < :at
        JOIN plan_step st ON st.id = w.step_id AND st.product IS NOT NULL
        WHERE c.id = ${NEWEST}
        GROUP BY w.person_id, st.product`,
    { at },
  )
  return people.map(p => {
    const row = rows.find(r => r.person_id === p.id)
    if (!row) return { personId: p.id, name: p.name, mine: p.id === person.id, fitted: null }
    const worn_min = worn
      .filter(x => x.person_id === p.id && cautionsIn(x.product).includes('solvent'))
      .reduce((sum, x) => sum + Number(x.min), 0)
    const figures = { fitted_ms: row.fitted_at.getTime(), lasts_h: Number(row.lasts_h), lasts_d: row.lasts_d, worn_min }
    return {
      ...{ personId: p.id, name: p.name, mine: p.id === person.id },
      fitted: { id: row.id, ...figures, ...cartridgeState(figures, at.getTime()) },
    }
  })
}

export const fitCartridge = (
  { personId, lasts_h, lasts_d }: z.infer<typeof s.fitCartridge>,
  person: Person,
  at: Date,
) =>
  transaction(async tx => {
    if (personId !== person.id && person.role !== 'owner')
      throw fail(403, 'forbidden', 'Everybody says it of their own mask; the owner of any.')
    const who = await tx.row<{ name: string }>('SELECT name FROM person WHERE id = :personId', { personId })
    if (!who) throw notFound('person')
    const { id } = await tx.run(
      'INSERT INTO cartridge (person_id, fitted_at, lasts_h, lasts_d) VALUES (:personId, :at, :lasts_h, :lasts_d)',
      { personId, at, lasts_h, lasts_d },
    )
    const says = `${who.name}: new cartridges for organic vapour, ${lasts_h} h in use or ${lasts_d} days`
    await logShop(tx, 'mask', says, at, person.id)
    await tell(tx, 'air', null, at)
    return { id }
  })
/** A mis-tap: the one before counts again. */
export const unfitCartridge = (id: number, person: Person, at: Date) =>
  transaction(async tx => {
    const row = await tx.row<Row>('SELECT * FROM cartridge WHERE id = :id FOR UPDATE', { id })
    if (!row) throw notFound('cartridge')
    if (row.person_id !== person.id && person.role !== 'owner')
      throw fail(403, 'forbidden', 'Everybody says it of their own mask; the owner of any.')
    await tx.run('DELETE FROM cartridge WHERE id = :id', { id })
    await logShop(tx, 'mask', 'New cartridges, taken back', at, person.id)
    await tell(tx, 'air', null, at)
    return { ok: true }
  })
