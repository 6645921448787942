/** Kubelka–Munk for wood, which is thick enough that nothing shines through, and Saunderson's surface of a finish. */
import { clampFactor, type Spectrum } from './spectrum'

/** K/S of an opaque layer's inner reflectance. Kubelka and Munk 1931. */
export function absorptionOf(r: number): number {
  const c = clampFactor(r)
  return (1 - c) ** 2 / (2 * c)
}
/** Inner reflectance of an opaque layer with this K/S; the inverse of `absorptionOf`. */
export const reflectanceOf = (ks: number): number => 1 + ks - Math.sqrt(ks * (ks + 2))

export const absorption = (inner: Spectrum): Spectrum => inner.map(absorptionOf)
export const reflectance = (ks: Spectrum): Spectrum => ks.map(reflectanceOf)

/**
 * Light thrown back by a film of index 1.5 from outside, straight on, and from inside, diffuse. Saunderson 1942 (from
 * memory).
 */
export const OUTSIDE = 0.04
export const INSIDE = 0.6

/** Whether the meter counts the gloss: a sphere with the gloss in it, or 45°/0° and a sphere with a trap. */
export type Gloss = 'included' | 'excluded'

/**
 * What a meter reads through a finished surface, from the inner reflectance below it. This is why wood darkens and
 * deepens under a finish: light that would leave is thrown back inside. Saunderson 1942 (from memory).
 */
export const throughSurface = (inner: number, gloss: Gloss): number =>
  (gloss === 'included' ? OUTSIDE : 0) + ((1 - OUTSIDE) * (1 - INSIDE) * inner) / (1 - INSIDE * inner)

/**
 * The inner reflectance below a finished surface, from what a meter reads; the inverse of `throughSurface`, held to
 * what can be.
 */
export function belowSurface(read: number, gloss: Gloss): number {
  const out = read - (gloss === 'included' ? OUTSIDE : 0)
  return clampFactor(out / ((1 - OUTSIDE) * (1 - INSIDE) + INSIDE * Math.max(0, out)))
}
