import type { z } from 'zod'
import { type Air, forecastAir, STALE_AFTER_MIN } from '#core/air'
import { type Hours, isWorking } from '#core/timetable'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import { AHEAD_H, LOG_DAYS } from './page'
import type { Person } from './person'
import { clockIn, hourIn, readShop } from './rows'

/** The source of what somebody typed. */
export const BY_HAND = 'by hand'

export interface AirNow {
  air: Air | null
  last: { at: Date; temperature_C: number; rh: number; source: string } | null
}

type Reading = NonNullable<AirNow['last']>
/**
 * The shop's air, or that of a room's own logger; a stale reading is unknown air. What was typed by hand counts for the
 * house's minutes, also against a logger's newer readings; after them the logger's count again.
 */
export async function readAir(at: Date, on: Db = db(), logger = ''): Promise<AirNow> {
  const newest = await on.row<Reading & { hand_min: number }>(
    `SELECT r.at, r.temperature_C, r.rh, r.source, shop.hand_air_min AS hand_min
        FROM climate_reading r
        JOIN shop ON shop.id = 1
        WHERE r.logger = :logger AND r.at <= :at
        ORDER BY r.at DESC, r.id DESC
        LIMIT 1`,
    { at, logger },
  )
  if (!newest) return { air: null, last: null }
  const { hand_min, ...measured } = newest
  const since = (min: number) => new Date(at.getTime() - min * 60_000)
  const byHand = await on.row<Reading>(
    `SELECT at, temperature_C, rh, source
        FROM climate_reading
        WHERE logger = :logger AND source = '${BY_HAND}' AND at BETWEEN :from AND :at
        ORDER BY at DESC, id DESC
        LIMIT 1`,
    { from: since(hand_min), at, logger },
  )
  const last = byHand ?? measured
  const fresh = byHand !== null || last.at >= since(STALE_AFTER_MIN)
  return { air: fresh ? { temperature_C: last.temperature_C, rh: last.rh } : null, last }
}

export async function addAir(
  reading: { temperature_C: number; rh: number },
  source: string,
  at: Date,
  person: Person | null,
  room: { name: string; logger: string } = { name: '', logger: '' },
): Promise<void> {
  await transaction(async tx => {
    await tx.run(
      `INSERT INTO climate_reading (at, temperature_C, rh, source, logger, person_id)
          VALUES (:at, :temperature_C, :rh, :source, :logger, :personId)`,
      { ...reading, at, source, logger: room.logger, personId: person?.id ?? null },
    )
    const where = room.name ? ` in ${room.name}` : ''
    if (person)
      await log(tx, {
        pieceId: null,
        kind: 'air',
        says: `Air read by hand${where}: ${reading.temperature_C} °C, ${Math.round(reading.rh * 100)} %`,
        at,
        recordedAt: at,
        personId: person.id,
      })
    await tell(tx, 'air', null, at)
  })
}

/** Readings of a logger's file; a moment that is known already is not taken twice. */
export async function addAirLog({ text, columns }: z.infer<typeof s.airLog>, person: Person, at: Date) {
  const { zone } = await readShop()
  const readings = await refusedInWorker(inWorker('airLog', { text, zone, columns }), 'text')
  const past = readings.filter(r => r.at_ms <= at.getTime())
  if (past.length === 0)
    throw fail(422, 'future', 'All these readings lie in the future.', { text: 'All in the future.' })
  return transaction(async tx => {
    const known = new Set(
      (
        await tx.rows<{ at: Date }>(
          "SELECT at FROM climate_reading WHERE logger = '' AND source = 'log file' AND at BETWEEN :from AND :to",
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
    await tx.run('UPDATE shop SET air_logs = air_logs + 1 WHERE id = 1')
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
      WHERE logger = '' AND at > :from AND at <= :at GROUP BY FLOOR(UNIX_TIMESTAMP(at) / 3600) ORDER BY at`,
    { at, from: new Date(at.getTime() - LOG_DAYS * 86_400_000) },
  )
  const { last } = await readAir(at, on)
  const readings = [...rows, ...(last ? [last] : [])].map(r => ({
    at_ms: r.at.getTime(),
    temperature_C: r.temperature_C,
    rh: r.rh,
  }))
  const ahead = forecastAir(readings, at.getTime(), AHEAD_H, hourIn(hours.zone))
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
