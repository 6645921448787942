import { DateTime } from 'luxon'
import { type Air, forecastAir, type HourAir, meanAir } from '#core/air'
import { STANDARD_AIR } from '#core/drying'
import type { Db } from '../../database/db'
import { AHEAD_H, LOG_DAYS } from './page'

/** The air of the room by the hour: as it was logged, and as it is foretold. */
export interface AirHours {
  /** what coming work dries in; a label's air where nothing was ever read */
  ahead: Air
  hours: readonly HourAir[]
}

const HOUR_MS = 3_600_000
let known: { upTo: string; air: AirHours } | undefined

/** The air of the room by its log; worked out again when there is a new reading. */
export async function readAirHours(on: Db): Promise<AirHours> {
  const last = await on.row<{ id: number; at: Date; temperature_C: number; rh: number; zone: string; n: number }>(
    `SELECT r.id, r.at, r.temperature_C, r.rh, shop.zone,
        (SELECT MAX(id) FROM climate_reading) AS n
        FROM climate_reading r
        JOIN shop ON shop.id = 1
        WHERE r.at <= :now + INTERVAL shop.clock_offset_ms * 1000 MICROSECOND
        ORDER BY r.at DESC, r.id DESC
        LIMIT 1`,
    { now: new Date() },
  )
  if (!last) return { ahead: STANDARD_AIR, hours: [] }
  const upTo = [last.id, last.n, last.at.getTime(), last.temperature_C, last.rh, last.zone].join()
  if (known?.upTo === upTo) return known.air
  const rows = await on.rows<{ at: Date; temperature_C: number; rh: number }>(
    `SELECT MAX(at) AS at, AVG(temperature_C) AS temperature_C, AVG(rh) AS rh
        FROM climate_reading
        WHERE at > :from AND at <= :to
        GROUP BY FLOOR(UNIX_TIMESTAMP(at) / 3600)
        ORDER BY at`,
    { from: new Date(last.at.getTime() - LOG_DAYS * 24 * HOUR_MS), to: last.at },
  )
  const logged = rows.map(r => ({ at_ms: r.at.getTime(), temperature_C: r.temperature_C, rh: r.rh }))
  const hourOf = (ms: number) => DateTime.fromMillis(ms, { zone: last.zone }).hour
  const coming = forecastAir([...logged, { ...last, at_ms: last.at.getTime() }], last.at.getTime(), AHEAD_H, hourOf)
  const air: AirHours = {
    ahead: meanAir(coming?.hours ?? []) ?? STANDARD_AIR,
    hours: [
      ...logged.map(({ at_ms, temperature_C, rh }) => ({ at_ms, air: { temperature_C, rh } })),
      ...(coming?.hours ?? []),
    ],
  }
  known = { upTo, air }
  return air
}
