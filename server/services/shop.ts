import { DateTime } from 'luxon'
import type { z } from 'zod'
import { type Air, forecastAir, STALE_AFTER_MIN } from '#core/air'
import type { Light } from '#core/colour'
import { MATERIALS } from '#core/materials'
import { type Hours, isWorking } from '#core/timetable'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../database/db'
import { type Person, publicPerson } from './people'
import { log, tell } from './record'

export interface ShopRow {
  name: string
  zone: string
  currency: string
  length_unit: 'mm' | 'in'
  hour_minor: number
  material_markup_bp: number
  tax_bp: number
  one_room: 0 | 1
  light: Light
  idle_h: number
  mail_name: string
  mail_address: string
  mail_held: 0 | 1
  row_version: number
}

export async function readShop(on: Db = db()): Promise<ShopRow> {
  const row = await on.row<ShopRow>('SELECT * FROM shop WHERE id = 1')
  if (!row) throw fail(409, 'no-shop', 'This shop is not set up yet. Open the first page.')
  return row
}

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

/** Words for a moment in the shop's zone: the time today, the day and time otherwise. */
export const clockIn =
  (zone: string, now: Date) =>
  (ms: number): string => {
    const at = DateTime.fromMillis(ms, { zone }).setLocale('en-GB')
    const today = DateTime.fromJSDate(now, { zone })
    return at.hasSame(today, 'day') ? at.toFormat('HH:mm') : at.toFormat('ccc d LLL HH:mm')
  }

export interface AirNow {
  air: Air | null
  last: { at: Date; temperature_C: number; rh: number; source: string } | null
}

/** The room's air; a stale reading is unknown air. */
export async function readAir(at: Date, on: Db = db()): Promise<AirNow> {
  const last = await on.row<NonNullable<AirNow['last']>>(
    'SELECT at, temperature_C, rh, source FROM climate_reading WHERE at <= :at ORDER BY at DESC, id DESC LIMIT 1',
    { at },
  )
  const fresh = last !== null && at.getTime() - last.at.getTime() <= STALE_AFTER_MIN * 60_000
  return { air: fresh ? { temperature_C: last.temperature_C, rh: last.rh } : null, last }
}

export async function addAir(
  reading: { temperature_C: number; rh: number },
  source: string,
  at: Date,
  person: Person | null,
): Promise<void> {
  await transaction(async tx => {
    await tx.run(
      `INSERT INTO climate_reading (at, temperature_C, rh, source, person_id)
          VALUES (:at, :temperature_C, :rh, :source, :personId)`,
      { ...reading, at, source, personId: person?.id ?? null },
    )
    if (person)
      await log(tx, {
        pieceId: null,
        kind: 'air',
        says: `Air read by hand: ${reading.temperature_C} °C, ${Math.round(reading.rh * 100)} %`,
        at,
        recordedAt: at,
        personId: person.id,
      })
    await tell(tx, 'air', null, at)
  })
}

/** Readings of a logger's file; a moment that is known already is not taken twice. */
export async function addAirLog(text: string, person: Person, at: Date) {
  const { zone } = await readShop()
  const readings = await refusedInWorker(inWorker('airLog', { text, zone }), 'text')
  const past = readings.filter(r => r.at_ms <= at.getTime())
  if (past.length === 0)
    throw fail(422, 'future', 'All these readings lie in the future.', { text: 'All in the future.' })
  return transaction(async tx => {
    const known = new Set(
      (
        await tx.rows<{ at: Date }>(
          "SELECT at FROM climate_reading WHERE source = 'log file' AND at BETWEEN :from AND :to",
          { from: new Date(past[0]!.at_ms), to: new Date(past.at(-1)!.at_ms) },
        )
      ).map(r => r.at.getTime()),
    )
    const fresh = past.filter(r => !known.has(r.at_ms))
    for (const r of fresh)
      await tx.run(
        "INSERT INTO climate_reading (at, temperature_C, rh, source) VALUES (:at, :temperature_C, :rh, 'log file')",
        { at: new Date(r.at_ms), temperature_C: r.temperature_C, rh: r.rh },
      )
    const clock = clockIn(zone, at)
    await log(tx, {
      pieceId: null,
      kind: 'air',
      says: `Air log read: ${fresh.length} readings, ${clock(past[0]!.at_ms)} to ${clock(past.at(-1)!.at_ms)}`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'air', null, at)
    return { taken: fresh.length, known: past.length - fresh.length }
  })
}

const LOG_DAYS = 7
const AHEAD_H = 120
export interface AheadHour {
  at_ms: number
  temperature_C: number
  rh: number
  open: boolean
}

/** The room in the coming five days by its log of the last seven, hour by hour; null without any reading. */
export async function readAirAhead(
  at: Date,
  hours: Hours,
  on: Db = db(),
): Promise<{ seen: number; hours: AheadHour[] } | null> {
  const rows = await on.rows<{ at: Date; temperature_C: number; rh: number }>(
    `SELECT MAX(at) AS at, AVG(temperature_C) AS temperature_C, AVG(rh) AS rh FROM climate_reading
      WHERE at > :from AND at <= :at GROUP BY FLOOR(UNIX_TIMESTAMP(at) / 3600) ORDER BY at`,
    { at, from: new Date(at.getTime() - LOG_DAYS * 86_400_000) },
  )
  const { last } = await readAir(at, on)
  const readings = [...rows, ...(last ? [last] : [])].map(r => ({
    at_ms: r.at.getTime(),
    temperature_C: r.temperature_C,
    rh: r.rh,
  }))
  const ahead = forecastAir(readings, at.getTime(), AHEAD_H, ms => DateTime.fromMillis(ms, { zone: hours.zone }).hour)
  return (
    ahead && {
      seen: ahead.seen,
      hours: ahead.hours.map(h => ({
        at_ms: h.at_ms,
        ...h.air,
        open: isWorking(hours, h.at_ms) && isWorking(hours, h.at_ms + 60 * 60_000),
      })),
    }
  )
}

const BACKUP_OLD_H = 48
/** The newest backup; old when none was made for two days. A demo needs none. */
export async function readBackup() {
  const row = await db().row<{ at: Date; file: string; bytes: number; second_copy: 0 | 1; age_h: number }>(
    `SELECT at, file, bytes, second_copy, TIMESTAMPDIFF(HOUR, at, UTC_TIMESTAMP(3)) AS age_h
        FROM backup_taken
        ORDER BY at DESC
        LIMIT 1`,
  )
  const since = row?.age_h ?? (await ageOfShop_h())
  return {
    last: row && { at: row.at, file: row.file, bytes: row.bytes, second: Boolean(row.second_copy) },
    old: useRuntimeConfig().mode === 'shop' && since > BACKUP_OLD_H,
  }
}
const ageOfShop_h = async () =>
  (
    await db().row<{ age_h: number | null }>(
      'SELECT TIMESTAMPDIFF(HOUR, MIN(recorded_at), UTC_TIMESTAMP(3)) AS age_h FROM logbook',
    )
  )?.age_h ?? 0

export async function shopPage() {
  const people = await db().rows<Person>(
    'SELECT id, name, login, role, active, must_change, row_version FROM person ORDER BY name',
  )
  const { row_version, ...shop } = await readShop()
  return {
    ...shop,
    rowVersion: row_version,
    backup: await readBackup(),
    hours: await readHours(),
    people: people.map(publicPerson),
    materials: MATERIALS.map(m => ({ ...m, tag: 'shop default' as const })),
  }
}

/** What was changed, and what it was, for the log. */
function changesOf(before: ShopRow, now: z.infer<typeof s.shopChange>): string {
  const pairs: [string, string | number, string | number][] = [
    ['name', before.name, now.name],
    ['an hour', before.hour_minor / 100, now.hourMinor / 100],
    ['on materials', `${before.material_markup_bp / 100} %`, `${now.materialMarkupBp / 100} %`],
    ['tax', `${before.tax_bp / 100} %`, `${now.taxBp / 100} %`],
    ['unit', before.length_unit, now.lengthUnit],
    ['dust and finish in one room', before.one_room ? 'yes' : 'no', now.oneRoom ? 'yes' : 'no'],
    ['light', before.light, now.light],
    ['signed out after', `${before.idle_h} h`, `${now.idleH} h`],
    ['sender', before.mail_name, now.mailName],
    ["sender's address", before.mail_address, now.mailAddress],
  ]
  return (
    pairs
      .filter(([, was, is]) => was !== is)
      .map(([what, was, is]) => `${what} ${is || 'none'}, was ${was || 'none'}`)
      .join('; ') || 'nothing'
  )
}

export async function changeShop(input: z.infer<typeof s.shopChange>, person: Person, at: Date) {
  return transaction(async tx => {
    const before = await readShop(tx)
    const { changed } = await tx.run(
      `UPDATE shop
          SET name = :name, hour_minor = :hourMinor, material_markup_bp = :materialMarkupBp, tax_bp = :taxBp,
            length_unit = :lengthUnit, one_room = :oneRoom, light = :light, idle_h = :idleH,
            mail_name = :mailName, mail_address = :mailAddress, row_version = row_version + 1
          WHERE id = 1 AND row_version = :rowVersion`,
      input,
    )
    if (changed === 0) throw stale()
    await log(tx, {
      pieceId: null,
      kind: 'shop',
      says: `Shop settings changed: ${changesOf(before, input)}`.slice(0, 1000),
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}
