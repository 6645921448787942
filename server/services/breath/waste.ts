/** Waste that waits to be handed in, by class, and the receipts of what was. */
import type { z } from 'zod'
import { nameOfClass } from '#core/store'
import { sumOf } from '#core/units'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from '../shop/person'

const MOST = 100
/** Thrown away since the last receipt, still wet, ml or g by class. */
async function readWaiting(on: Db) {
  const rows = await on.rows<{ class: string; unit: 'ml' | 'g'; amount: number }>(
    `SELECT product.class, product.unit, SUM(-m.amount) AS amount
        FROM lot_move m
        JOIN lot ON lot.id = m.lot_id
        JOIN product ON product.id = lot.product_id AND product.unit IN ('ml', 'g')
        WHERE m.kind IN ('thrown', 'back') AND m.at > COALESCE((SELECT MAX(at) FROM waste_receipt), '2000-01-01')
        GROUP BY product.class, product.unit
        HAVING SUM(-m.amount) > 0`,
  )
  return rows.map(r => ({ name: nameOfClass(r.class), unit: r.unit, amount: Number(r.amount) }))
}
export async function wastePage() {
  return {
    waiting: await readWaiting(db()),
    receipts: await db().rows<{
      id: number
      at: Date
      taken_to: string
      receipt: string
      litres: number
      content: string
      by: string
    }>(
      `SELECT r.id, r.at, r.taken_to, r.receipt, r.litres, r.content, person.name AS \`by\`
          FROM waste_receipt r
          JOIN person ON person.id = r.person_id
          ORDER BY r.at DESC
          LIMIT ${MOST}`,
    ),
  }
}
export const handIn = (input: z.infer<typeof s.handInWaste>, person: Person, at: Date) =>
  transaction(async tx => {
    const waiting = await readWaiting(tx)
    const litres = input.litres ?? sumOf(waiting, x => x.amount) / 1000
    const content = [...waiting.map(x => `${x.name} ${Math.round(x.amount)} ${x.unit}`), input.word]
      .filter(Boolean)
      .join(', ')
      .slice(0, 500)
    if (litres === 0 && !content) throw fail(409, 'nothing', 'No waste waits. Say what it was and how many litres.')
    const { id } = await tx.run(
      `INSERT INTO waste_receipt (at, taken_to, receipt, litres, content, person_id)
          VALUES (:at, :takenTo, :receipt, :litres, :content, :by)`,
      { ...input, at, litres, content, by: person.id },
    )
    const receipt = input.receipt && `, receipt ${input.receipt}`
    const says = `Waste handed in: ${litres.toFixed(1)} l to ${input.takenTo}${receipt}`
    await logShop(tx, 'store', says, at, person.id)
    await tell(tx, 'store', null, at)
    return { id }
  })
export const takeBackWaste = (id: number, person: Person, at: Date) =>
  transaction(async tx => {
    const newest = await tx.row<{ id: number }>('SELECT id FROM waste_receipt ORDER BY at DESC, id DESC LIMIT 1')
    if (newest?.id !== id) throw fail(409, 'nothing', 'Only the newest receipt is taken back.')
    await tx.run('DELETE FROM waste_receipt WHERE id = :id', { id })
    await logShop(tx, 'store', 'Waste handed in, taken back', at, person.id)
    await tell(tx, 'store', null, at)
    return { ok: true }
  })
