/** Shellac cuts: pounds of flakes to one US gallon of alcohol (definition). */

/** Grams of flakes to a litre of alcohol for a 1-lb cut: 453.59237 g ÷ 3.785411784 L. */
export const CUT_G_L = 453.59237 / 3.785411784
/** Flakes, g/ml (common practice). */
export const FLAKES_G_ML = 1.1
export const ALCOHOL_G_ML = 0.79

const check = (...values: number[]) => {
  if (values.some(v => !(v > 0))) throw new RangeError('Cuts and amounts are above nought.')
}

/** Grams of flakes to a litre of alcohol. */
export const flakes_g_l = (cut: number): number => cut * CUT_G_L
/** How much of a made-up shellac is alcohol, by volume. */
export const alcoholShare = (cut: number): number => 1 / (1 + flakes_g_l(cut) / 1000 / FLAKES_G_ML)

/** Flakes and alcohol for so much made-up shellac. @throws RangeError for nothing. */
export function dissolve(total_ml: number, cut: number): { flakes_g: number; alcohol_ml: number } {
  check(total_ml, cut)
  const alcohol_ml = total_ml * alcoholShare(cut)
  return { alcohol_ml, flakes_g: (alcohol_ml / 1000) * flakes_g_l(cut) }
}

/**
 * From one cut to another: alcohol to add where it gets thinner, flakes where it gets stronger. The liquid is first
 * turned into the alcohol in it.
 * @throws RangeError for nothing.
 */
export function recut(
  liquid_ml: number,
  from: number,
  to: number,
): { addAlcohol_ml: number; addFlakes_g: number; total_ml: number } {
  check(liquid_ml, from, to)
  const alcohol_ml = liquid_ml * alcoholShare(from)
  const addAlcohol_ml = Math.max(0, alcohol_ml * (from / to - 1))
  const addFlakes_g = Math.max(0, (alcohol_ml / 1000) * flakes_g_l(to - from))
  return { addAlcohol_ml, addFlakes_g, total_ml: liquid_ml + addAlcohol_ml + addFlakes_g / FLAKES_G_ML }
}

/** Weight of a ml of made-up shellac, volumes taken to add up. */
export const shellac_g_ml = (cut: number): number =>
  alcoholShare(cut) * ALCOHOL_G_ML + (1 - alcoholShare(cut)) * FLAKES_G_ML
