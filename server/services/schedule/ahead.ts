/** The air ahead: of the shop and its rooms by what was logged, outdoors by the weather. */
import { forecastAir, GENERAL_AIR, type HourAir, type HourWeather, inRain, judgeAir } from '#core/air'
import type { Material } from '#core/materials'
import { closedHours, closedOutdoors, type Span } from '#core/schedule'
import type { Hours } from '#core/timetable'
import { db } from '../../database/db'
import type { RoomRow } from '../shop/rooms'
import { hourIn } from '../shop/rows'
import { readWeather } from '../shop/weather'

const DAY_MS = 86_400_000
const HOUR_MS = 3_600_000
/** The air is foretold by what was usual at each hour in so many days, as far ahead as this. */
const USUAL_D = 28
const AIR_AHEAD_D = 30

/** So damp is the air indoors in a wet week, at least (shop default, unsourced). */
const WET_RH = 0.75
const damp = (ahead: readonly HourAir[], wet: Span | null): readonly HourAir[] =>
  ahead.map(h =>
    wet && wet[0] <= h.at_ms && h.at_ms < wet[1] ? { ...h, air: { ...h.air, rh: Math.max(h.air.rh, WET_RH) } } : h,
  )

/**
 * The air ahead of the shop, or of a room's own logger, hour by hour: by the last readings for some days, after them by
 * what is usual.
 */
async function readUsualAir(at: Date, hours: Hours, logger: string): Promise<HourAir[]> {
  const rows = await db().rows<{ at: Date; temperature_C: number; rh: number }>(
    `SELECT MAX(at) AS at, AVG(temperature_C) AS temperature_C, AVG(rh) AS rh
        FROM climate_reading
        WHERE logger = :logger AND at > :from AND at <= :at
        GROUP BY FLOOR(UNIX_TIMESTAMP(at) / 3600)
        ORDER BY at`,
    { at, logger, from: new Date(at.getTime() - USUAL_D * DAY_MS) },
  )
  const readings = rows.map(r => ({ at_ms: r.at.getTime(), temperature_C: r.temperature_C, rh: r.rh }))
  return forecastAir(readings, at.getTime(), AIR_AHEAD_D * 24, hourIn(hours.zone))?.hours ?? []
}

export interface Ahead {
  /** by the name of a room's logger; '' is the shop's */
  indoors: ReadonlyMap<string, readonly HourAir[]>
  outdoors: readonly HourWeather[]
  wet: Span | null
  within: Span
}
interface Asked {
  at: Date
  hours: Hours
  rooms: readonly RoomRow[]
  wet: Span | null
  until_ms: number
}
export async function readAhead({ at, hours, rooms, wet, until_ms }: Asked): Promise<Ahead> {
  const loggers = [...new Set(['', ...rooms.map(r => r.logger)])]
  const [{ hours: outdoors }, ...indoors] = await Promise.all([
    readWeather(at),
    ...loggers.map(logger => readUsualAir(at, hours, logger)),
  ])
  const within = [at.getTime(), until_ms] as const
  return { indoors: new Map(loggers.map((name, i) => [name, damp(indoors[i]!, wet)])), outdoors, wet, within }
}

export type Needs = ReadonlyMap<string, Material>
/** What asks nothing of the air minds the rain alone. */
const RAIN_ONLY = { air: null, recoat_min: [60, 60] } as const
/** When no coat may begin in a room, by its need of air. */
export const closedIn = (room: RoomRow, needs: Needs, { indoors, outdoors, within }: Ahead): Record<string, Span[]> =>
  Object.fromEntries(
    room.outdoors
      ? [...needs, ['', RAIN_ONLY] as const].map(([key, m]) => [key, closedOutdoors(m, outdoors, within)])
      : [...needs].map(([key, product]) => [key, closedHours(product, indoors.get(room.logger) ?? [])]),
  )

export interface AirSpan {
  from_ms: number
  to_ms: number
  severity: 'warn' | 'stop' | 'unknown'
}
/** When a usual coat would be outside its window in a room, or stopped, from one moment to another. */
export function airSpans(room: RoomRow, ahead: Ahead, [from_ms, to_ms]: Span): AirSpan[] {
  const hours = room.outdoors ? ahead.outdoors.map(inRain) : (ahead.indoors.get(room.logger) ?? [])
  const spans: AirSpan[] = []
  const told = hours.filter(h => h.at_ms >= from_ms && h.at_ms < to_ms)
  for (const { at_ms, air } of told) {
    const { severity } = judgeAir(GENERAL_AIR, air)
    if (severity === 'ok') continue
    const last = spans.at(-1)
    if (last && last.to_ms === at_ms && last.severity === severity) last.to_ms += HOUR_MS
    else spans.push({ from_ms: at_ms, to_ms: at_ms + HOUR_MS, severity })
  }
  const known_ms = (hours.at(-1)?.at_ms ?? ahead.within[0]) + HOUR_MS
  return known_ms < to_ms ? [...spans, { from_ms: Math.max(known_ms, from_ms), to_ms, severity: 'unknown' }] : spans
}
