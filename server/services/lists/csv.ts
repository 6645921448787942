/** A list of the shop as CSV (RFC 4180), with a point or a comma as its decimal sign. */
import { DateTime } from 'luxon'
import { type Decimal, writeTable } from '#core/formats'
import { db } from '../../database/db'
import { readTitles } from '../plan/titles'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { type List, type ListName, LISTS } from './lists'

const MOST = 200_000
type Cell = string | number | Date | null
const MONEY = /price|cost|worst$/

export async function listCsv(name: string, decimal: Decimal, person: Person): Promise<string> {
  if (!Object.hasOwn(LISTS, name)) throw notFound('list')
  const list: List = LISTS[name as ListName]
  const sees = person.rights.has('see-prices')
  if (list.prices && !sees) throw fail(403, 'forbidden', 'Your role does not see prices.')
  const shop = await readShop()
  const found = await db().rows<Record<string, Cell>>(`${list.sql} LIMIT ${MOST}`, {
    ...{ all: person.role === 'owner', personId: person.id },
  })
  if (list.step) {
    const stepOf = (r: (typeof found)[number]) => (r[list.step!] as number | null) ?? null
    const title = await readTitles(db(), found.map(stepOf))
    for (const r of found) r[list.step] = title(stepOf(r))
  }
  // what a text says of money is left out as on the screen
  const rows = written(
    found.map(r => ({ ...r })),
    { currency: shop.currency, temperature: 'C' },
    sees,
  ) as typeof found
  const cell = (c: Cell): string | number | null =>
    c instanceof Date ? DateTime.fromJSDate(c, { zone: shop.zone }).toFormat('yyyy-MM-dd HH:mm:ss') : c
  const heads = Object.keys(rows[0] ?? { 'nothing yet': null })
  return writeTable(
    heads.map(h => (list.prices && MONEY.test(h) ? `${h} in ${shop.currency}` : h)),
    rows.map(r => heads.map(h => cell(r[h] ?? null))),
    decimal,
  )
}
