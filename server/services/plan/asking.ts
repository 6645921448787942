import { pricedLabel, type Rates } from '#core/estimate'
import type { Asking } from '#core/ground'
import type { GateRecord } from '#core/plan'
import { db, type Db } from '../../database/db'
import { licencesOn, readLicences } from '../shop/licences'
import { readHours, readShop } from '../shop/rows'

export async function readRates(on: Db = db()): Promise<Rates> {
  const shop = await readShop(on)
  return { hour_minor: shop.hour_minor, materialMarkup_bp: shop.material_markup_bp, tax_bp: shop.tax_bp }
}

/** Price per litre: of each of the shop's products, and of each class that of its dearest. */
export async function readPriceList(on: Db): Promise<Record<string, number>> {
  const classes = await on.rows<{ class: string; price: number }>(
    'SELECT class, MAX(price_minor) AS price FROM product GROUP BY class',
  )
  const own = await on.rows<{ label: number; price: number }>(
    'SELECT l.id AS label, p.price_minor AS price FROM product_label l JOIN product p ON p.id = l.product_id',
  )
  return Object.fromEntries([
    ...classes.map(r => [r.class, r.price] as const),
    ...own.map(r => [pricedLabel(r.label), r.price] as const),
  ])
}
/** The same as core asks for it; undefined where the class's default counts. */
export async function readPrices(on: Db = db()): Promise<(slug: string) => number | undefined> {
  const prices = new Map(Object.entries(await readPriceList(on)))
  return slug => prices.get(slug)
}

export const DAY_MS = 86_400_000

/** How gates went in this shop: tries, failures, and failures expected. */
export async function readGateRecord(on: Db = db()): Promise<Record<string, GateRecord>> {
  const rows = await on.rows<{ slug: string; tries: number; fails: number; expected: number }>(
    `SELECT gate_slug AS slug, COUNT(*) AS tries, SUM(gate_result = 'fail') AS fails,
        SUM(gate_chance) AS expected
        FROM plan_step
        WHERE gate_result IS NOT NULL
        GROUP BY gate_slug`,
  )
  return Object.fromEntries(
    rows.map(({ slug, ...r }) => [
      slug,
      { tries: Number(r.tries), fails: Number(r.fails), expected: Number(r.expected) },
    ]),
  )
}

/** What every judging of routes asks of the shop. */
export const readAsking = async (at: Date, on: Db = db()): Promise<Asking> => ({
  rates: await readRates(on),
  hours: await readHours(on),
  prices: await readPriceList(on),
  record: await readGateRecord(on),
  licences: licencesOn(await readLicences(on), at),
  now_ms: at.getTime(),
})
