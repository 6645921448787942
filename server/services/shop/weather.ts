/** The weather outdoors as it was last foretold, by the hour. */
import { z } from 'zod'
import { type HourWeather, WEATHER_STALE_H } from '#core/air'
import { db, type Db, transaction } from '../../database/db'
import { tell } from '../platform/log'

const HOUR_MS = 3_600_000
/** What a weather service answers. */
export const forecast = z.object({
  simulated: z.boolean().default(false),
  hours: z
    .array(
      z.object({
        at: z.iso.datetime({ offset: true }),
        temperature_C: z.number().min(-60).max(60),
        rh: z.number().gt(0).max(1),
        rain_mm: z.number().min(0).max(500),
      }),
    )
    .min(1)
    .max(400),
})

/** Keeps a forecast in the place of the one before. */
export const keepWeather = ({ hours, simulated }: z.infer<typeof forecast>, at: Date): Promise<void> =>
  transaction(async tx => {
    await tx.run('DELETE FROM weather_hour')
    for (const hour of hours)
      await tx.run(
        `INSERT IGNORE INTO weather_hour (at, temperature_C, rh, rain_mm, simulated, read_at)
            VALUES (:at, :temperature_C, :rh, :rain_mm, :simulated, :readAt)`,
        {
          ...{ temperature_C: hour.temperature_C, rh: hour.rh, rain_mm: hour.rain_mm, simulated, readAt: at },
          at: new Date(Math.floor(Date.parse(hour.at) / HOUR_MS) * HOUR_MS),
        },
      )
    await tell(tx, 'air', null, at)
  })

export interface Weather {
  hours: HourWeather[]
  simulated: boolean
}
export const NO_WEATHER: Weather = { hours: [], simulated: false }
/** From this hour on; no hours while the last forecast is too old. */
export async function readWeather(at: Date, on: Db = db()): Promise<Weather> {
  const rows = await on.rows<{ at: Date; temperature_C: number; rh: number; rain_mm: number; simulated: 0 | 1 }>(
    `SELECT at, temperature_C, rh, rain_mm, simulated
        FROM weather_hour
        WHERE at > :from AND read_at BETWEEN :stale AND :at + INTERVAL 1 HOUR
        ORDER BY at`,
    { at, from: new Date(at.getTime() - HOUR_MS), stale: new Date(at.getTime() - WEATHER_STALE_H * HOUR_MS) },
  )
  const hours = rows.map(r => ({
    ...{ at_ms: r.at.getTime(), air: { temperature_C: r.temperature_C, rh: r.rh }, rain_mm: r.rain_mm },
  }))
  return { hours, simulated: rows.some(r => r.simulated) }
}
