/** What evaporated and what was thrown away, by month and class: for the house, and for an authority that asks. */
import { writeTable } from '#core/formats'
import { MATERIALS, materialOf, withLabel } from '#core/materials'
import { nameOfClass } from '#core/store'
import { sumOf } from '#core/units'
import { db } from '../../database/db'
import { NEWEST_LABELS, type NewestLabel } from '../store/labels'

const MONTHS = 24
interface Row {
  month: string
  product_id: number
  name: string
  class: string
  ml: number
}
/** By month and product; `of`: what counts, as a table of amounts. */
const byMonth = (of: string) =>
  db().rows<Row>(
    `SELECT DATE_FORMAT(u.at, '%Y-%m') AS month, product.id AS product_id, product.name, product.class,
        SUM(u.ml) AS ml
        FROM (${of}) u
        JOIN lot ON lot.id = u.lot_id
        JOIN product ON product.id = lot.product_id AND product.unit = 'ml'
        GROUP BY month, product.id, product.name, product.class
        HAVING SUM(u.ml) > 0
        ORDER BY month DESC, product.name`,
  )
const USED = 'SELECT lot_id, at, amount AS ml FROM lot_use'
const THROWN = "SELECT lot_id, at, -amount AS ml FROM lot_move WHERE kind IN ('spilt', 'thrown', 'back')"

export async function vocPage() {
  const labels = new Map((await db().rows<NewestLabel>(NEWEST_LABELS)).map(l => [l.product_id, l]))
  const voc_g_l = ({ product_id, name, class: of }: Row): number => {
    if (!MATERIALS.some(m => m.slug === of)) return 0
    const label = labels.get(product_id)
    return (label ? withLabel(materialOf(of), { name, figures: label.figures }) : materialOf(of)).voc_g_l
  }
  const [used, thrown] = [await byMonth(USED), await byMonth(THROWN)]
  // what is thrown away still wet is waste; what was spilt or used is in the air
  const months = [...new Set([...used, ...thrown].map(r => r.month))].sort().reverse().slice(0, MONTHS)
  return {
    months: months.map(month => {
      const air = used
        .filter(r => r.month === month)
        .map(r => ({ name: r.name, class: r.class, ml: Number(r.ml), voc_g: (Number(r.ml) / 1000) * voc_g_l(r) }))
      return {
        month,
        voc_g: sumOf(air, a => a.voc_g),
        air,
        waste: thrown
          .filter(r => r.month === month)
          .map(r => ({ name: r.name, class: nameOfClass(r.class), ml: Number(r.ml) })),
      }
    }),
  }
}
/** RFC 4180, units in the heading. */
export async function vocCsv(): Promise<string> {
  const { months } = await vocPage()
  const head = ['month', 'what', 'product', 'class', 'volume in ml', 'VOC in g']
  const two = (n: number) => Number(n.toFixed(2))
  return writeTable(
    head,
    months.flatMap(m => [
      ...m.air.map(a => [m.month, 'used', a.name, nameOfClass(a.class), two(a.ml), two(a.voc_g)]),
      ...m.waste.map(x => [m.month, 'waste', x.name, x.class, two(x.ml), null]),
    ]),
  )
}
