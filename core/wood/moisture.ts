/** Water in wood: equilibrium with the air, and how long until it is near. */
import type { Air } from '../air'

/**
 * Equilibrium moisture content of wood in percent. Hailwood–Horrobin, Wood Handbook FPL-GTR-190, ch. 4, eq. 4-5 in °C
 * (from memory).
 * @throws RangeError unless 0 ≤ rh < 1.
 */
export function equilibriumMoisture_pct({ temperature_C: t, rh: h }: Air): number {
  if (!(h >= 0 && h < 1)) throw new RangeError('Relative humidity is a fraction from 0 to below 1.')
  const w = 349 + 1.29 * t + 0.0135 * t * t
  const k = 0.805 + 0.000736 * t - 0.00000273 * t * t
  const k1 = 6.27 - 0.00938 * t - 0.000303 * t * t
  const k2 = 1.91 + 0.0407 * t - 0.000293 * t * t
  const kh = k * h
  return (1800 / w) * (kh / (1 - kh) + (k1 * kh + 2 * k1 * k2 * kh * kh) / (1 + k1 * kh + k1 * k2 * kh * kh))
}

/** More than this above equilibrium: wait before finishing (common practice). */
export const MOISTURE_MARGIN_PCT = 2
/**
 * Days in which a 20 mm board loses 63 % of what it has too much; grows with the square of thickness. Shop default,
 * unsourced, until two readings tell.
 */
export const DRYING_DAYS_20MM = 10
const DAY_MS = 86_400_000

/** `air`: of the room when it was read; null: not known. */
export interface MoistureReading {
  faceId: number
  reading_pct: number
  at_ms: number
  thickness_mm: number
  air: Air | null
}

export interface MoistureAdvice {
  faceId: number
  verdict: 'ready' | 'wait' | 'air-unknown'
  reading_pct: number
  equilibrium_pct: number | null
  /** above equilibrium, percentage points */
  over_pct: number | null
  /** days until within the margin, likely; null when ready, unknown, or not drying */
  likely_d: number | null
  /** what the days rest on */
  basis: 'readings' | 'thickness' | null
  /** it takes up water, or does not dry, between the readings */
  stalled: boolean
}

/** Days to fall from `over` to the margin with time constant `tau_d`. */
const daysTo = (over_pct: number, tau_d: number) => tau_d * Math.log(over_pct / MOISTURE_MARGIN_PCT)

/**
 * Advice for one face from its readings, oldest first, in this air. Two readings at least a day apart give this wood's
 * own pace (exponential approach to equilibrium); one reading takes the thickness's.
 */
export function moistureAdvice(readings: readonly MoistureReading[], air: Air | null): MoistureAdvice | null {
  const last = readings.at(-1)
  if (!last) return null
  const base = {
    faceId: last.faceId,
    reading_pct: last.reading_pct,
    equilibrium_pct: null,
    over_pct: null,
    likely_d: null,
    basis: null,
    stalled: false,
  }
  if (!air || air.rh >= 1) return { ...base, verdict: 'air-unknown' }
  const equilibrium_pct = equilibriumMoisture_pct(air)
  const over_pct = last.reading_pct - equilibrium_pct
  if (over_pct <= MOISTURE_MARGIN_PCT) return { ...base, verdict: 'ready', equilibrium_pct, over_pct }
  const first = readings.find(r => last.at_ms - r.at_ms >= DAY_MS)
  const firstOver = first ? first.reading_pct - equilibrium_pct : 0
  const stalled = first !== undefined && firstOver <= over_pct
  const measured = first && !stalled ? (last.at_ms - first.at_ms) / DAY_MS / Math.log(firstOver / over_pct) : null
  const tau_d = measured ?? DRYING_DAYS_20MM * (last.thickness_mm / 20) ** 2
  return {
    ...base,
    verdict: 'wait',
    equilibrium_pct,
    over_pct,
    likely_d: stalled ? null : daysTo(over_pct, tau_d),
    basis: measured === null ? 'thickness' : 'readings',
    stalled,
  }
}
