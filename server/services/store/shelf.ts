import { type LabelFigures, materialOf, type Shelf, withLabel } from '#core/materials'
import type { Db } from '../../database/db'

interface LabelRow {
  id: number
  name: string
  class: string
  figures: LabelFigures
}

/** Every product of the shop by the versions of its label. What cannot be read is left out: its class counts. */
export async function readShelf(on: Db): Promise<Shelf> {
  const rows = await on.rows<LabelRow>(
    `SELECT l.id, p.name, p.class, l.figures
        FROM product_label l
        JOIN product p ON p.id = l.product_id`,
  )
  return Object.fromEntries(
    rows.flatMap(r => {
      try {
        return [[r.id, withLabel(materialOf(r.class), r)] as const]
      } catch {
        return []
      }
    }),
  )
}
