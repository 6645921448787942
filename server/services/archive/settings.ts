/** How the house works: it goes along with the whole shop, and is taken where no piece stands yet. */
import { DateTime } from 'luxon'
import { z } from 'zod'
import type { Db } from '../../database/on'

const whole = z.number().int().min(0).max(1_000_000_000)
const SHOP = {
  zone: z
    .string()
    .max(60)
    .refine(zone => DateTime.now().setZone(zone).isValid),
  currency: z.string().regex(/^[A-Z]{3}$/),
  length_unit: z.enum(['mm', 'in']),
  temperature_unit: z.enum(['C', 'F']),
  ...{ hour_minor: whole, material_markup_bp: whole, tax_bp: whole },
  ...{ idle_h: whole, tablet_idle_min: whole, hand_air_min: whole, remind_days: whole, remind_most: whole },
  ...{ quote_days: whole, deposit_bp: whole, store_free_days: whole, store_day_minor: whole },
  ...{ quote_words: z.string().max(1000), page_words: z.string().max(1000), voc_year_g: whole.nullable() },
}
const NAMES = Object.keys(SHOP)
const minute = whole.max(1439)
const SETTINGS = z.strictObject({
  shop: z.strictObject(SHOP),
  opening: z.array(z.strictObject({ weekday: whole.min(1).max(7), open_min: minute, close_min: minute })).max(70),
})

export const readSettings = async (on: Db) => ({
  shop: await on.row(`SELECT ${NAMES.join(', ')} FROM shop WHERE id = 1`),
  opening: await on.rows('SELECT weekday, open_min, close_min FROM opening ORDER BY weekday, open_min'),
})
/** @throws RangeError in words for settings that this shop cannot work by. */
export async function takeSettings(on: Db, text: string): Promise<void> {
  if (await on.row('SELECT id FROM piece LIMIT 1')) return
  let given: unknown
  try {
    given = JSON.parse(text)
  } catch {
    given = null
  }
  const { data, error } = SETTINGS.safeParse(given)
  if (error) {
    throw new RangeError(`${error.issues[0]?.path.join('.') || 'settings.json'} cannot be read`)
  }
  await on.run(
    `UPDATE shop SET ${NAMES.map(n => `${n} = :${n}`).join(', ')}, row_version = row_version + 1 WHERE id = 1`,
    data.shop,
  )
  await on.run('DELETE FROM opening')
  for (const o of data.opening)
    await on.run('INSERT INTO opening (weekday, open_min, close_min) VALUES (:weekday, :open_min, :close_min)', o)
}
