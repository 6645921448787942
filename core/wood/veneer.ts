/** Veneer: measured, or estimated by age. */
import type { Period } from '../piece'

/**
 * Thickness by age, thin end and thick end, mm (common practice): old sawn 1–2.5, sliced 0.5–0.7, newer 0.3–0.5. The
 * period's thinner kind counts.
 */
const BY_PERIOD: Record<Period, readonly [number, number]> = {
  'before-1850': [1, 2.5],
  '1850-1925': [0.5, 2.5],
  '1925-1960': [0.5, 0.7],
  '1960-1990': [0.5, 0.7],
  'after-1990': [0.3, 0.5],
  'unknown': [0.3, 2.5],
}

export interface VeneerThickness {
  mm: number
  measured: boolean
  range_mm: readonly [number, number]
}

/** The thickness to count with: as measured, else the thin end of what the period used. */
export function veneerThickness(measured_mm: number | null, period: Period): VeneerThickness {
  const range_mm = measured_mm === null ? BY_PERIOD[period] : ([measured_mm, measured_mm] as const)
  return { mm: range_mm[0], measured: measured_mm !== null, range_mm }
}
