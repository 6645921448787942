import type { z } from 'zod'
import type { LabelFigures } from '#core/materials'
import type * as s from '#shared/schemas'
import { type Db, transaction } from '../../database/db'
import { readPieces } from '../piece/read'
import { planAgain } from '../plan/edits'
import { readPlan } from '../plan/rows'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'

export interface NewestLabel {
  product_id: number
  id: number
  figures: LabelFigures
}
export const NEWEST_LABELS = `SELECT l.product_id, l.id, l.figures
    FROM product_label l
    WHERE l.id = (SELECT MAX(id) FROM product_label WHERE product_id = l.product_id)`

/** Open pieces with a planned step that takes this product, locked by their ids. */
const lockPiecesWith = (tx: Db, productId: number) =>
  tx.rows<{ id: number; name: string }>(
    `SELECT piece.id, piece.name
        FROM piece
        WHERE piece.state = 'active'
          AND piece.id IN (
            SELECT piece_id FROM plan_step WHERE state = 'planned' AND product_id = :productId
          )
        ORDER BY piece.id
        FOR UPDATE`,
    { productId },
  )

/** Locks a product. @throws Fail 404 for none, 409 when its label is no longer `was`. */
async function lockProduct(tx: Db, productId: number, was: number): Promise<string> {
  const product = await tx.row<{ name: string }>('SELECT name FROM product WHERE id = :productId FOR UPDATE', {
    productId,
  })
  if (!product) throw notFound('product')
  const newest = await tx.row<{ id: number }>('SELECT MAX(id) AS id FROM product_label WHERE product_id = :productId', {
    productId,
  })
  if (newest?.id !== was) throw stale()
  return product.name
}

/**
 * A new version of a label. What has started keeps the one that it began with; open plans are worked out again and
 * told, all together with the label or not at all. A piece whose record is damaged waits for its mend.
 */
export const changeLabel = (
  productId: number,
  { was, figures }: z.infer<typeof s.changeLabel>,
  person: Person,
  at: Date,
) =>
  transaction(async tx => {
    const pieces = await lockPiecesWith(tx, productId)
    const name = await lockProduct(tx, productId, was)
    await tx.run(
      'INSERT INTO product_label (product_id, figures, person_id, at) VALUES (:productId, :figures, :personId, :at)',
      { productId, figures: JSON.stringify(figures), personId: person.id, at },
    )
    const by = { at, recordedAt: at, personId: person.id }
    await log(tx, { pieceId: null, kind: 'store', says: `Label changed: ${name}`, ...by })
    await tell(tx, 'store', null, at)
    const touched: typeof pieces = []
    for (const piece of pieces) {
      const [file] = (await readPieces(tx, { where: 'one', id: piece.id })).files
      if (!file) continue
      await planAgain(tx, file, await readPlan(tx, file))
      await log(tx, { pieceId: piece.id, kind: 'plan', says: `Worked out again by the new label of ${name}`, ...by })
      await tell(tx, 'piece', piece.id, at)
      touched.push(piece)
    }
    return { touched }
  })
