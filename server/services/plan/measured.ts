import { HALVES, type Measured, MEASURES } from '#core/acts'
import { isWithin } from '#core/units'

/** What was measured at a step as stored; what is out of its bounds, or cannot be read, is left out. */
export function measuredIn(stored: unknown): Measured {
  if (typeof stored !== 'object' || stored === null) return {}
  const read = Object.entries(stored).filter(
    ([what, value]) =>
      (what === 'gun' && typeof value === 'string' && value !== '') ||
      (what === 'halves' && (HALVES as readonly unknown[]).includes(value)) ||
      (Object.hasOwn(MEASURES, what) &&
        typeof value === 'number' &&
        isWithin(value, MEASURES[what as keyof typeof MEASURES])),
  )
  return Object.fromEntries(read) as Measured
}
