/** Outdoors: what the weather that is foretold allows. Rain in mm an hour. */
import type { HourAir } from './forecast'
import { type AirNeed, judgeAir } from './room'
import { spansOfHours } from './span'

export interface HourWeather extends HourAir {
  rain_mm: number
}
type Span = readonly [from_ms: number, to_ms: number]

/** An older forecast is no weather (shop default, unsourced). */
export const WEATHER_STALE_H = 6

/** In the rain the air is full. */
export const inRain = (h: HourWeather): HourAir => ({
  at_ms: h.at_ms,
  air: h.rain_mm > 0 ? { ...h.air, rh: 1 } : h.air,
})

/** When it rains. */
export const rainSpans = (weather: readonly HourWeather[]): Span[] => spansOfHours(weather.filter(h => h.rain_mm > 0))

/**
 * When no coat begins outdoors, out of `from_ms` to `to_ms`: wherever nobody foretells the weather, and where in the
 * hours that it stays wet (`wet_h`) it rains or the product's usual window is left; nobody heats or dries a yard.
 * `need` null: it minds only the rain.
 */
export function shutOutdoors(
  need: AirNeed | null,
  weather: readonly HourWeather[],
  wet_h: number,
  [from_ms, to_ms]: Span,
): Span[] {
  const fits = weather.map(h => h.rain_mm === 0 && (!need || judgeAir(need, h.air).severity === 'ok'))
  const fit = weather.filter((_, i) => i + wet_h < weather.length && fits.slice(i, i + 1 + wet_h).every(Boolean))
  const spans: Span[] = []
  let shut = from_ms
  for (const [opens, closes] of spansOfHours(fit)) {
    if (opens > shut) spans.push([shut, opens])
    shut = Math.max(shut, closes)
  }
  return shut < to_ms ? [...spans, [shut, to_ms]] : spans
}
