/** Products from a table. */
import { type ProductLine, readProducts, unitOf } from '#core/store'
import type { Db } from '../../database/db'
import { refused } from '../colour/told'
import type { PlannedList, Taking } from '../lists/planned'
import type { Person } from '../shop/person'

interface Known {
  id: number
  name: string
  class: string
  grit: string
  supplier: string
  containers: string
  least: number
  price_minor: number
}
/** What a line would make of a product; `was`: null for a new one. What a line does not say stays as it is. */
function after(line: ProductLine, was: Known | null) {
  return {
    ...{ name: was?.name ?? line.name, class: line.class, grit: line.grit || (was?.grit ?? '') },
    supplier: line.supplier || (was?.supplier ?? ''),
    containers: line.sizes ? line.sizes.sort((a, b) => a - b).join(', ') : (was?.containers ?? ''),
    least: line.least ?? was?.least ?? 0,
    price_minor: line.price === null ? (was?.price_minor ?? 0) : Math.round(line.price * 100),
  }
}
const CHANGES = ['grit', 'supplier', 'containers', 'least', 'price_minor'] as const
async function add(tx: Db, to: ReturnType<typeof after>, person: Person, at: Date) {
  const { id } = await tx.run(
    `INSERT INTO product (name, class, unit, price_minor, supplier, containers, least, grit)
        VALUES (:name, :class, :unit, :price_minor, :supplier, :containers, :least, :grit)`,
    { ...to, unit: unitOf(to.class) },
  )
  await tx.run("INSERT INTO product_label (product_id, figures, person_id, at) VALUES (:id, '{}', :personId, :at)", {
    ...{ id, personId: person.id, at },
  })
}
const change = (tx: Db, id: number, to: ReturnType<typeof after>) =>
  tx.run(
    `UPDATE product
        SET price_minor = :price_minor, supplier = :supplier, containers = :containers, least = :least, grit = :grit,
          row_version = row_version + 1
        WHERE id = :id`,
    { ...to, id },
  )

/** Products as lines of a file would make them. */
export async function planProducts(text: string, { tx, person, at }: Taking): Promise<PlannedList> {
  const { lines, wrong } = refused(() => readProducts(text))
  const known = await tx.rows<Known>('SELECT * FROM product ORDER BY id FOR UPDATE')
  const byName = new Map(known.map(k => [k.name.toLowerCase(), k]))
  const other = lines.filter(l => (byName.get(l.name.toLowerCase())?.class ?? l.class) !== l.class)
  return {
    wrong: [
      ...wrong,
      ...other.map(l => ({ line: l.line, says: `"${l.name}" is of another class here; a class is not changed` })),
    ],
    plans: lines
      .filter(l => !other.includes(l))
      .map(l => {
        const was = byName.get(l.name.toLowerCase()) ?? null
        const to = after(l, was)
        return {
          name: to.name,
          what: was && CHANGES.filter(c => was[c] !== to[c]),
          take: () => (was ? change(tx, was.id, to) : add(tx, to, person, at)),
        }
      }),
  }
}
