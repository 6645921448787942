import { type LabelFigures, type Material, materialOf, type Shelf, withLabel } from '#core/materials'
import type { Db } from '../../database/db'
import { readLearnt } from './dryTimes'

interface LabelRow {
  id: number
  name: string
  class: string
  product_id: number
  figures: LabelFigures
}

/**
 * Every product of the shop by the versions of its label, and classes of whose drying the shop has learnt. What cannot
 * be read is left out: its class counts.
 */
export async function readShelf(on: Db): Promise<Shelf> {
  const rows = await on.rows<LabelRow>(
    `SELECT l.id, p.name, p.class, l.product_id, l.figures
        FROM product_label l
        JOIN product p ON p.id = l.product_id`,
  )
  const learnt = await readLearnt(on)
  const dried = (m: Material, productId: number | null): Material =>
    learnt?.classes.includes(m.slug) ? { ...m, dries: learnt.of({ class: m.slug, productId }) } : m
  const labels = rows.flatMap(r => {
    try {
      return [[r.id, dried(withLabel(materialOf(r.class), r), r.product_id)] as const]
    } catch {
      return []
    }
  })
  const classes = (learnt?.classes ?? []).map(slug => [slug, dried(materialOf(slug), null)] as const)
  return Object.fromEntries<Material>([...classes, ...labels])
}
