import { type Air, forecastAir, type HourAir, meanAir } from '#core/air'
import { STANDARD_AIR } from '#core/drying'
import type { Db } from '../../database/db'
import { AHEAD_H, LOG_DAYS } from './page'
import { hourIn } from './rows'

/** The air of the room by the hour: as it was logged, and as it is foretold. */
export interface AirHours {
  /** what coming work dries in; a label's air where nothing was ever read */
  ahead: Air
  hours: readonly HourAir[]
}

const HOUR_MS = 3_600_000
/** Where nothing was ever read. */
const NONE: AirHours = { ahead: STANDARD_AIR, hours: [] }
interface Last {
  at: Date
  temperature_C: number
  rh: number
  zone: string
  /** how often a logger's file was read */
  logs: number
}
let known: { last: Last; air: AirHours } | undefined
/** A newer reading of the same hour changes nothing worth working out again while it is as near as this. */
const NEAR = { temperature_C: 0.5, rh: 0.02 }
const isNear = (a: Last, b: Last): boolean =>
  a.zone === b.zone &&
  a.logs === b.logs &&
  Math.floor(a.at.getTime() / HOUR_MS) === Math.floor(b.at.getTime() / HOUR_MS) &&
  Math.abs(a.temperature_C - b.temperature_C) <= NEAR.temperature_C &&
  Math.abs(a.rh - b.rh) <= NEAR.rh

/** The air of the room by its log; worked out again every hour, and when the air has moved. */
export async function readAirHours(on: Db): Promise<AirHours> {
  const last = await on.row<Last>(
    `SELECT r.at, r.temperature_C, r.rh, shop.zone, shop.air_logs AS logs
        FROM climate_reading r
        JOIN shop ON shop.id = 1
        WHERE r.logger = '' AND r.at <= :now + INTERVAL shop.clock_offset_ms * 1000 MICROSECOND
        ORDER BY r.at DESC, r.id DESC
        LIMIT 1`,
    { now: new Date() },
  )
  if (!last) return NONE
  if (known && isNear(known.last, last)) return known.air
  const rows = await on.rows<{ at: Date; temperature_C: number; rh: number }>(
    `SELECT MAX(at) AS at, AVG(temperature_C) AS temperature_C, AVG(rh) AS rh
        FROM climate_reading
        WHERE logger = '' AND at > :from AND at <= :to
        GROUP BY FLOOR(UNIX_TIMESTAMP(at) / 3600)
        ORDER BY at`,
    { from: new Date(last.at.getTime() - LOG_DAYS * 24 * HOUR_MS), to: last.at },
  )
  const logged = rows.map(r => ({ at_ms: r.at.getTime(), temperature_C: r.temperature_C, rh: r.rh }))
  const newest = { ...last, at_ms: last.at.getTime() }
  const coming = forecastAir([...logged, newest], newest.at_ms, AHEAD_H, hourIn(last.zone))
  const air: AirHours = {
    ahead: meanAir(coming?.hours ?? []) ?? STANDARD_AIR,
    hours: [
      ...logged.map(({ at_ms, temperature_C, rh }) => ({ at_ms, air: { temperature_C, rh } })),
      ...(coming?.hours ?? []),
    ],
  }
  known = { last, air }
  return air
}
