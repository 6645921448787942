import { DateTime } from 'luxon'
import type { Light } from '#core/colour'
import type { Hours } from '#core/timetable'
import type { TemperatureUnit } from '#core/units'
import { db, type Db } from '../../database/db'

export interface ShopRow {
  /** tells this shop from every other */
  uid: string
  name: string
  zone: string
  currency: string
  length_unit: 'mm' | 'in'
  hour_minor: number
  material_markup_bp: number
  tax_bp: number
  light: Light
  idle_h: number
  tablet_idle_min: number
  hand_air_min: number
  temperature_unit: TemperatureUnit
  mail_name: string
  mail_address: string
  mail_held: 0 | 1
  /** at the foot of every page that a client opens */
  page_words: string
  remind_days: number
  remind_most: number
  quote_days: number
  deposit_bp: number
  quote_words: string
  store_free_days: number
  /** for each day beyond those, with tax */
  store_day_minor: number
  row_version: number
}

export async function readShop(on: Db = db()): Promise<ShopRow> {
  const row = await on.row<ShopRow>('SELECT * FROM shop WHERE id = 1')
  if (!row) throw fail(409, 'no-shop', 'This shop is not set up yet. Open the first page.')
  return row
}

/** Dust falls where coats dry: every room that takes coats takes dust too. */
export const SHARED_ROOM = `
  EXISTS (SELECT 1 FROM room WHERE dust AND wet)
  AND NOT EXISTS (SELECT 1 FROM room WHERE wet AND NOT dust AND NOT outdoors)`

let lastHours: { text: string; hours: Hours } | undefined

/**
 * Opening hours as they stand now; unchanged ones are the same object, so that what was worked out from them is found
 * again.
 */
export async function readHours(on: Db = db()): Promise<Hours> {
  const shop = await readShop(on)
  const openings = await on.rows<{ weekday: number; open_min: number; close_min: number }>(
    'SELECT * FROM opening ORDER BY weekday, open_min',
  )
  const closures = await on.rows<{ day: string }>('SELECT day FROM closure')
  const week: Record<number, [number, number][]> = {}
  for (const o of openings) (week[o.weekday] ??= []).push([o.open_min, o.close_min])
  const hours = { zone: shop.zone, week, closures: closures.map(c => c.day) }
  const text = JSON.stringify(hours)
  if (lastHours?.text !== text) lastHours = { text, hours }
  return lastHours.hours
}

const QUARTER_MS = 15 * 60_000
let lastZone: { zone: string; hours: Map<number, number> } | undefined
/** The hour of the day in a zone, each worked out once; every zone's clock turns on a quarter of an hour. */
export const hourIn = (zone: string) => (ms: number) => {
  if (lastZone?.zone !== zone) lastZone = { zone, hours: new Map() }
  const quarter = Math.floor(ms / QUARTER_MS)
  const hour = lastZone.hours.get(quarter) ?? DateTime.fromMillis(ms, { zone }).hour
  lastZone.hours.set(quarter, hour)
  return hour
}

/** Words for a moment in the shop's zone: the time today, the day and time otherwise. */
export const clockIn =
  (zone: string, now: Date) =>
  (ms: number): string => {
    const at = DateTime.fromMillis(ms, { zone }).setLocale('en-GB')
    const today = DateTime.fromJSDate(now, { zone })
    return at.hasSame(today, 'day') ? at.toFormat('HH:mm') : at.toFormat('ccc d LLL HH:mm')
  }
