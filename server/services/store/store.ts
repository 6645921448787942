import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import { type Learnt, readLearnt } from './dryTimes'
import { NEWEST_LABELS, type NewestLabel } from './labels'
import type { Person } from '../shop/person'

function driesOf(learnt: Learnt | null, { id, class: of }: { id: number; class: string }) {
  if (!learnt?.classes.includes(of)) return null
  const spread = learnt.of({ class: of, productId: id })
  return spread.seen.product + spread.seen.class > 0 ? spread : null
}

/** Products with their lots, what is left and what open plans still need of each class. */
export async function storePage() {
  const products = await db().rows<{
    id: number
    name: string
    class: string
    price_minor: number
    row_version: number
  }>('SELECT * FROM product ORDER BY class, name')
  const lots = await db().rows<{ id: number; product_id: number; code: string; left_ml: number; received_on: string }>(
    'SELECT * FROM lot ORDER BY received_on, id',
  )
  const needs = await db().rows<{ class: string; need_ml: number }>(
    `SELECT st.product AS class, SUM(st.amount_ml) AS need_ml
        FROM plan_step st
        JOIN piece ON piece.id = st.piece_id
        WHERE piece.state = 'active' AND st.state IN ('planned', 'running') AND st.product IS NOT NULL
        GROUP BY st.product`,
  )
  const labels = new Map((await db().rows<NewestLabel>(NEWEST_LABELS)).map(l => [l.product_id, l]))
  const learnt = await readLearnt(db())
  return {
    products: products.map(p => ({
      ...p,
      lots: lots.filter(l => l.product_id === p.id),
      label: labels.get(p.id) ?? null,
      /** as the shop has learnt it; null: nobody looked at it, or at its class */
      dries: driesOf(learnt, p),
    })),
    needs: needs.map(n => {
      const left_ml = lots
        .filter(l => products.some(p => p.id === l.product_id && p.class === n.class))
        .reduce((sum, l) => sum + l.left_ml, 0)
      return { ...n, left_ml, short_ml: Math.max(0, n.need_ml - left_ml) }
    }),
  }
}

export async function addProduct(input: z.infer<typeof s.addProduct>, person: Person, at: Date) {
  return transaction(async tx => {
    const { id } = await tx.run(
      'INSERT INTO product (name, class, price_minor) VALUES (:name, :class, :priceMinor)',
      input,
    )
    await tx.run("INSERT INTO product_label (product_id, figures, person_id, at) VALUES (:id, '{}', :personId, :at)", {
      id,
      personId: person.id,
      at,
    })
    await log(tx, {
      pieceId: null,
      kind: 'store',
      says: `Product added: ${input.name}`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'store', null, at)
    return { id }
  })
}

export async function addLot(input: z.infer<typeof s.addLot>, person: Person, at: Date) {
  return transaction(async tx => {
    const { id } = await tx.run(
      'INSERT INTO lot (product_id, code, left_ml, received_on) VALUES (:productId, :code, :amountMl, :day)',
      { ...input, day: at.toISOString().slice(0, 10) },
    )
    await log(tx, {
      pieceId: null,
      kind: 'store',
      says: `Lot received: ${input.code}, ${Math.round(input.amountMl)} ml`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'store', null, at)
    return { id }
  })
}
