/** How a match stands under several lights. */
import { labFromXyz, labOf, xyzOf, type Xyz } from './cielab'
import { deltaE00, PASSES } from './difference'
import { type Light, type Observer, viewingOf } from './lights'
import type { Spectrum } from './spectrum'

export interface UnderLight {
  light: Light
  de: number
}

/** ΔE00 of two spectra under each light. */
export const differencesUnder = (
  a: Spectrum,
  b: Spectrum,
  lights: readonly Light[],
  observer: Observer = '10',
): UnderLight[] =>
  lights.map(light => {
    const v = viewingOf(light, observer)
    return { light, de: deltaE00(labOf(a, v), labOf(b, v)) }
  })

/**
 * Special metamerism index for a change of light: ΔE00 under `test` after what differs under `reference` was taken out
 * by a factor on each of X, Y, Z (CIE 015, multiplicative correction, from memory).
 */
export function metamerismIndex(
  a: Spectrum,
  b: Spectrum,
  reference: Light,
  test: Light,
  observer: Observer = '10',
): number {
  const ref = viewingOf(reference, observer)
  const v = viewingOf(test, observer)
  const [ra, rb, ta, tb] = [xyzOf(a, ref), xyzOf(b, ref), xyzOf(a, v), xyzOf(b, v)]
  const mended = tb.map((t, i) => (t * ra[i]!) / rb[i]!) as unknown as Xyz
  return deltaE00(labFromXyz(ta, v.white), labFromXyz(mended, v.white))
}

/**
 * The lights under which a match that passes elsewhere does not: above the limit and at least 1 worse than under the
 * best light.
 */
export function breaksUnder(under: readonly UnderLight[]): UnderLight[] {
  const best = Math.min(...under.map(u => u.de))
  return under.filter(u => u.de > PASSES && u.de > best + 1)
}
