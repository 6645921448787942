/** Products from a table: shown first, line by line, then taken all together or not at all. */
import type { z } from 'zod'
import { type ProductLine, readProducts, unitOf } from '#core/store'
import type * as s from '#shared/schemas'
import { type Db, transaction } from '../../database/db'
import { refused } from '../colour/told'
import { log, tell } from '../platform/log'
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

export const importProducts = ({ text, take }: z.infer<typeof s.productsFile>, person: Person, at: Date) =>
  transaction(async tx => {
    const { lines, wrong } = refused(() => readProducts(text))
    const known = await tx.rows<Known>('SELECT * FROM product ORDER BY id FOR UPDATE')
    const byName = new Map(known.map(k => [k.name.toLowerCase(), k]))
    const other = lines.filter(l => (byName.get(l.name.toLowerCase())?.class ?? l.class) !== l.class)
    const all = [
      ...wrong,
      ...other.map(l => ({ line: l.line, says: `"${l.name}" is of another class here; a class is not changed` })),
    ].sort((a, b) => a.line - b.line)
    const plans = lines
      .filter(l => !other.includes(l))
      .map(l => {
        const was = byName.get(l.name.toLowerCase()) ?? null
        const to = after(l, was)
        return { was, to, what: was ? CHANGES.filter(c => was[c] !== to[c]) : [] }
      })
    const [fresh, changed] = [plans.filter(p => !p.was), plans.filter(p => p.was && p.what.length > 0)]
    if (take) {
      if (all.length)
        throw fail(422, 'invalid', `Line ${all[0]!.line}: ${all[0]!.says}. Nothing was taken; mend the file first.`)
      for (const p of fresh) await add(tx, p.to, person, at)
      for (const p of changed) await change(tx, p.was!.id, p.to)
      const says = `Products read in: ${fresh.length} new, ${changed.length} changed`
      await log(tx, { pieceId: null, kind: 'store', says, at, recordedAt: at, personId: person.id })
      await tell(tx, 'store', null, at)
    }
    return {
      fresh: fresh.map(p => p.to.name),
      changed: changed.map(p => ({ name: p.to.name, what: p.what })),
      same: plans.length - fresh.length - changed.length,
      wrong: all,
    }
  })
