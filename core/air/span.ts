/** The air over a stretch of time, from hours that were logged and hours that are foretold. */
import type { HourAir } from './forecast'
import type { Air } from './room'

const HOUR_MS = 3_600_000

/** Mean air of these hours; null where there is none. */
export function meanAir(hours: readonly HourAir[]): Air | null {
  if (hours.length === 0) return null
  const sum = hours.reduce(
    (s, { air }) => ({ temperature_C: s.temperature_C + air.temperature_C, rh: s.rh + air.rh }),
    { temperature_C: 0, rh: 0 },
  )
  return { temperature_C: sum.temperature_C / hours.length, rh: sum.rh / hours.length }
}
/** Mean air from one moment to another; null where no hour between them is known. */
export const airBetween = (hours: readonly HourAir[], from_ms: number, to_ms: number): Air | null =>
  meanAir(hours.filter(h => h.at_ms > from_ms - HOUR_MS && h.at_ms < to_ms))

/** Hours in a row as spans of moments, from and to. */
export function spansOfHours(hours: readonly HourAir[]): (readonly [from_ms: number, to_ms: number])[] {
  const spans: [number, number][] = []
  for (const { at_ms } of hours) {
    const last = spans.at(-1)
    if (last && last[1] === at_ms) last[1] = at_ms + HOUR_MS
    else spans.push([at_ms, at_ms + HOUR_MS])
  }
  return spans
}
