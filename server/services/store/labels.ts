import type { z } from 'zod'
import type { LabelFigures } from '#core/materials'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { onPiece } from '../piece/pieces'
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

/** Open pieces with a planned step that takes this product. */
export const piecesWith = (productId: number) =>
  db().rows<{ id: number; name: string }>(
    `SELECT DISTINCT piece.id, piece.name
        FROM piece
        JOIN plan_step st ON st.piece_id = piece.id AND st.state = 'planned' AND st.product_id = :productId
        WHERE piece.state = 'active'
        ORDER BY piece.id`,
    { productId },
  )

/**
 * A new version of a label. What has started keeps the one that it began with; open plans are worked out again, piece
 * by piece, and are told.
 */
export async function changeLabel(
  productId: number,
  { was, figures }: z.infer<typeof s.changeLabel>,
  person: Person,
  at: Date,
) {
  const name = await transaction(async tx => {
    const product = await tx.row<{ name: string }>('SELECT name FROM product WHERE id = :productId FOR UPDATE', {
      productId,
    })
    if (!product) throw notFound('product')
    const newest = await tx.row<{ id: number }>(
      'SELECT MAX(id) AS id FROM product_label WHERE product_id = :productId',
      {
        productId,
      },
    )
    if (newest?.id !== was) throw stale()
    await tx.run(
      'INSERT INTO product_label (product_id, figures, person_id, at) VALUES (:productId, :figures, :personId, :at)',
      { productId, figures: JSON.stringify(figures), personId: person.id, at },
    )
    await log(tx, {
      pieceId: null,
      kind: 'store',
      says: `Label changed: ${product.name}`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'store', null, at)
    return product.name
  })
  const touched = await piecesWith(productId)
  for (const piece of touched)
    await onPiece(piece.id, at, person, async (tx, file) => {
      await planAgain(tx, file, await readPlan(tx, piece.id))
      return { kind: 'plan', says: `Worked out again by the new label of ${name}`, result: null }
    })
  return { touched }
}
