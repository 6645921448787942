import type { z } from 'zod'
import { CONSUMABLES, isConsumable, type Unit, unitOf } from '#core/store'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { type Learnt, readLearnt } from './dryTimes'
import { NEWEST_LABELS, type NewestLabel } from './labels'
import { agedLot, LOTS, type LotRow, readAges } from './lots'
import { readSheets } from './sheets'

function driesOf(learnt: Learnt | null, { id, class: of }: { id: number; class: string }) {
  if (!learnt?.classes.includes(of)) return null
  const spread = learnt.of({ class: of, productId: id })
  return spread.seen.product + spread.seen.class > 0 ? spread : null
}

/** Products with their lots, the oldest first, and until when each lot is good. */
export async function storePage(at: Date) {
  const today = at.toISOString().slice(0, 10)
  const products = await db().rows<{
    id: number
    name: string
    class: string
    unit: Unit
    grit: string
    supplier: string
    containers: string
    least: number
    price_minor: number
    row_version: number
  }>("SELECT * FROM product ORDER BY unit <> 'ml', class, name")
  const lots = await db().rows<LotRow>(`${LOTS} WHERE lot.gone_at IS NULL ORDER BY lot.received_on, lot.id`)
  const until = await readAges(db())
  const labels = new Map((await db().rows<NewestLabel>(NEWEST_LABELS)).map(l => [l.product_id, l]))
  const [learnt, sheets] = [await readLearnt(db()), await readSheets()]
  return {
    products: products.map(p => ({
      ...p,
      lots: lots.filter(l => l.product_id === p.id).map(l => agedLot(l, until(l), today)),
      label: labels.get(p.id) ?? null,
      /** since when its data sheet is here */
      sheet_at: sheets.get(p.id) ?? null,
      /** as the shop has learnt it; null: nobody looked at it, or at its class */
      dries: driesOf(learnt, p),
    })),
  }
}

const says = (tx: Db, says: string, person: Person, at: Date) =>
  log(tx, { ...{ pieceId: null, kind: 'store', says, at, recordedAt: at, personId: person.id } })
const sizes = (containers: readonly number[]) => [...new Set(containers)].sort((a, b) => a - b).join(', ')

export const addProduct = (input: z.infer<typeof s.addProduct>, person: Person, at: Date) =>
  transaction(async tx => {
    const { id } = await tx.run(
      `INSERT INTO product (name, class, unit, price_minor, supplier, containers, least, grit)
          VALUES (:name, :class, :unit, :priceMinor, :supplier, :sizes, :least, :grit)`,
      { ...input, unit: unitOf(input.class), sizes: sizes(input.containers) },
    )
    await tx.run("INSERT INTO product_label (product_id, figures, person_id, at) VALUES (:id, '{}', :personId, :at)", {
      ...{ id, personId: person.id, at },
    })
    await says(tx, `Product added: ${input.name}`, person, at)
    await tell(tx, 'store', null, at)
    return { id }
  })

export const changeProduct = (id: number, input: z.infer<typeof s.changeProduct>, person: Person, at: Date) =>
  transaction(async tx => {
    const was = await tx.row<{ row_version: number; name: string; class: string }>(
      'SELECT row_version, name, class FROM product WHERE id = :id FOR UPDATE',
      { id },
    )
    if (!was) throw notFound('product')
    if (was.row_version !== input.rowVersion) throw stale()
    if (input.grit && !(isConsumable(was.class) && CONSUMABLES[was.class].graded))
      throw fail(422, 'invalid', 'Only abrasives have a grit.', { grit: 'Only abrasives have a grit.' })
    await tx.run(
      `UPDATE product
          SET name = :name, price_minor = :priceMinor, supplier = :supplier, containers = :sizes, least = :least,
            grit = :grit, row_version = row_version + 1
          WHERE id = :id`,
      { ...input, id, sizes: sizes(input.containers) },
    )
    await says(tx, `Product changed: ${was.name}${input.name === was.name ? '' : `, now ${input.name}`}`, person, at)
    await tell(tx, 'store', null, at)
    return { ok: true }
  })
