/** The air of a room and what it forbids. Temperatures in °C, relative humidity as a fraction 0–1. */
import { round } from '../units'

export interface Air {
  temperature_C: number
  rh: number
}

/** Saturation pressure over water, hPa. Magnus formula, WMO-No. 8 (Sonntag 1990), from memory. */
export const saturationPressure_hPa = (t_C: number): number => 6.112 * Math.exp((17.62 * t_C) / (243.12 + t_C))

/**
 * Dew point in °C, Magnus formula inverted (WMO-No. 8, Sonntag 1990).
 * @throws RangeError unless 0 < rh ≤ 1.
 */
export function dewPoint_C(air: Air): number {
  if (!(air.rh > 0 && air.rh <= 1)) throw new RangeError('Relative humidity is a fraction above 0 and up to 1.')
  const x = Math.log(air.rh) + (17.62 * air.temperature_C) / (243.12 + air.temperature_C)
  return (243.12 * x) / (17.62 - x)
}

/** The surface must stay this far above the dew point (ISO 8502-4, ASTM D3276, from memory). */
export const DEW_MARGIN_K = 3

/** What a product asks of the air. `cooling_K`: how far evaporating solvent cools the wet film. */
export interface AirNeed {
  usual_C: readonly [number, number]
  usualRh: readonly [number, number]
  /** limits of the product itself; the usual window only warns */
  limitMin_C: number | null
  limitMax_C: number | null
  limitMaxRh: number | null
  cooling_K: number
}

/** Usual window for oil and waterborne coats (common practice). */
export const GENERAL_AIR: AirNeed = {
  usual_C: [18, 27],
  usualRh: [0.3, 0.65],
  limitMin_C: null,
  limitMax_C: null,
  limitMaxRh: null,
  cooling_K: 0,
}
/** Lacquer: not above 32 °C, and its fast solvent cools the film by about 5 K (common practice). */
export const LACQUER_AIR: AirNeed = { ...GENERAL_AIR, limitMax_C: 32, cooling_K: 5 }

export interface AirVerdict {
  severity: 'ok' | 'warn' | 'stop' | 'unknown'
  lines: string[]
  film_C: number | null
  limit_C: number | null
}

/**
 * May this product be put on in this air? `air` null means unknown: unknown air is never good air.
 * `surface_C` is the measured surface; without one the air's temperature is taken.
 */
export function judgeAir(need: AirNeed, air: Air | null, surface_C?: number): AirVerdict {
  if (!air)
    return {
      severity: 'unknown',
      lines: ['The air is not known: no fresh reading. Read the instrument or enter a reading.'],
      film_C: null,
      limit_C: null,
    }
  const dew = dewPoint_C(air)
  const surface = surface_C ?? air.temperature_C
  const film_C = surface - need.cooling_K
  const limit_C = dew + DEW_MARGIN_K
  const stops: string[] = []
  const warns: string[] = []
  if (film_C < limit_C) {
    const cooled =
      need.cooling_K > 0
        ? `cools to ${round(film_C, 1)} °C (surface ${round(surface, 1)} less ${need.cooling_K} K)`
        : `is at ${round(film_C, 1)} °C`
    stops.push(
      `The wet film ${cooled}; it must stay above ${round(limit_C, 1)} °C (dew point ${round(dew, 1)} + ` +
        `${DEW_MARGIN_K} K), or it turns cloudy.`,
    )
  }
  if (need.limitMax_C !== null && air.temperature_C > need.limitMax_C)
    stops.push(`The air is ${round(air.temperature_C, 1)} °C; this product is not put on above ${need.limitMax_C} °C.`)
  if (need.limitMin_C !== null && air.temperature_C < need.limitMin_C)
    stops.push(`The air is ${round(air.temperature_C, 1)} °C; this product is not put on below ${need.limitMin_C} °C.`)
  if (need.limitMaxRh !== null && air.rh > need.limitMaxRh)
    stops.push(
      `Humidity is ${round(air.rh * 100)} %; this product is not put on above ${round(need.limitMaxRh * 100)} %.`,
    )
  const [low_C, high_C] = need.usual_C
  if (air.temperature_C < low_C || air.temperature_C > high_C)
    warns.push(`The air is ${round(air.temperature_C, 1)} °C; the usual window is ${low_C} to ${high_C} °C.`)
  const [lowRh, highRh] = need.usualRh
  if (air.rh < lowRh || air.rh > highRh)
    warns.push(`Humidity is ${round(air.rh * 100)} %; the usual window is ${lowRh * 100} to ${highRh * 100} %.`)
  const mild = warns.length ? 'warn' : 'ok'
  const severity = stops.length ? 'stop' : mild
  return { severity, lines: [...stops, ...warns], film_C, limit_C }
}

/** A reading older than this is unknown air, never good air. */
export const STALE_AFTER_MIN = 15
