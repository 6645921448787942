/** When is it ready? Minutes, °C, RH as a fraction. */
import type { Air } from '../air'
import type { Base, Dries } from '../materials'

export const STANDARD_AIR: Air = { temperature_C: 21, rh: 0.5 }

/** Halving above and doubling below for each 10 K off 21 °C, within 10–35 °C (common practice). */
export const temperatureFactor = (t_C: number): number => 2 ** ((21 - Math.min(35, Math.max(10, t_C))) / 10)

/** Heat shortens a window that closes; a cool room does not lengthen it (common practice). */
export const windowFactor = (air: Air | null): number => (air ? Math.min(1, temperatureFactor(air.temperature_C)) : 1)

/** Waterborne by the drying power of the air, oil ×1.5 above 70 % RH (common practice). */
export function humidityFactor(base: Base, rh: number): number {
  if (base === 'water') return 0.5 / (1 - Math.min(0.95, rh))
  return base === 'oil' && rh > 0.7 ? 1.5 : 1
}

/** Spread of a waiting time (shop default). */
export const sigmaOf = (base: Base): number => (base === 'oil' ? 0.45 : 0.3)
const Z90 = 1.28

/**
 * Likely (P50), safe (P90) and early (P10) time from a label time and the air: by the usual spread, or as the shop has
 * learnt it. `expected`: by label and air alone.
 */
export function dryingTime_min(input: {
  label_min: number
  base: Base
  air?: Air
  factor?: number
  dries?: Dries | null
}): Dries & { expected: number } {
  const { label_min, base, air = STANDARD_AIR, factor = 1, dries } = input
  const expected = label_min * temperatureFactor(air.temperature_C) * humidityFactor(base, air.rh) * factor
  const spread = Math.exp(Z90 * sigmaOf(base))
  const { early, likely, safe } = dries ?? { early: 1 / spread, likely: 1, safe: spread }
  return { expected, likely: expected * likely, safe: expected * safe, early: expected * early }
}
export * from './look'
export * from './learn'
