/** CIEDE2000 (Sharma, Wu, Dalal 2005; kL = kC = kH = 1), alone, as three parts, and for many pairs. */
import type { Lab } from './cielab'

const DEG = Math.PI / 180
const TWO_PI = 2 * Math.PI
const POW7_25 = 25 ** 7

/** c^7 / (c^7 + 25^7), under the root. */
function grey(c: number): number {
  const c2 = c * c
  const c7 = c2 * c2 * c2 * c
  return Math.sqrt(c7 / (c7 + POW7_25))
}

/**
 * Writes three parts of the difference to `out` from `offset`; the root of the sum of their squares is exactly ΔE00,
 * and they are smooth at zero, as a solver wants them. Allocates nothing.
 */
export function differenceParts(
  L1: number,
  a1: number,
  b1: number,
  L2: number,
  a2: number,
  b2: number,
  out: Float64Array,
  offset: number,
): void {
  const g = 1.5 - 0.5 * grey((Math.sqrt(a1 * a1 + b1 * b1) + Math.sqrt(a2 * a2 + b2 * b2)) / 2)
  const a1p = g * a1
  const a2p = g * a2
  const C1 = Math.sqrt(a1p * a1p + b1 * b1)
  const C2 = Math.sqrt(a2p * a2p + b2 * b2)
  let h1 = Math.atan2(b1, a1p)
  if (h1 < 0) h1 += TWO_PI
  let h2 = Math.atan2(b2, a2p)
  if (h2 < 0) h2 += TWO_PI
  const neutral = C1 * C2 === 0
  let dh = neutral ? 0 : h2 - h1
  if (dh > Math.PI) dh -= TWO_PI
  else if (dh < -Math.PI) dh += TWO_PI
  let h = h1 + h2
  if (!neutral) {
    if (Math.abs(h1 - h2) > Math.PI) h = h < TWO_PI ? h + TWO_PI : h - TWO_PI
    h /= 2
  }
  const cos = Math.cos(h)
  const sin = Math.sin(h)
  const cos2 = 2 * cos * cos - 1
  const sin2 = 2 * sin * cos
  const cos3 = cos * (2 * cos2 - 1)
  const sin3 = sin * (2 * cos2 + 1)
  const cos4 = 2 * cos2 * cos2 - 1
  const sin4 = 2 * sin2 * cos2
  const T =
    1 - 0.17 * (cos * C30 + sin * S30) + 0.24 * cos2 + 0.32 * (cos3 * C6 - sin3 * S6) - 0.2 * (cos4 * C63 + sin4 * S63)
  const C = (C1 + C2) / 2
  const L50 = ((L1 + L2) / 2 - 50) ** 2
  const SL = 1 + (0.015 * L50) / Math.sqrt(20 + L50)
  const SC = 1 + 0.045 * C
  const SH = 1 + 0.015 * C * T
  const turn = (h / DEG - 275) / 25
  const RT = -2 * grey(C) * Math.sin(60 * DEG * Math.exp(-turn * turn))
  const l = (L2 - L1) / SL
  const c = (C2 - C1) / SC
  const H = (2 * Math.sqrt(C1 * C2) * Math.sin(dh / 2)) / SH
  out[offset] = l
  out[offset + 1] = c + (RT / 2) * H
  out[offset + 2] = H * Math.sqrt(1 - (RT * RT) / 4)
}
const C30 = Math.cos(30 * DEG)
const S30 = Math.sin(30 * DEG)
const C6 = Math.cos(6 * DEG)
const S6 = Math.sin(6 * DEG)
const C63 = Math.cos(63 * DEG)
const S63 = Math.sin(63 * DEG)

const parts = new Float64Array(3)

/** ΔE00 of two colours in CIELAB. */
export function deltaE00([L1, a1, b1]: Lab, [L2, a2, b2]: Lab): number {
  differenceParts(L1, a1, b1, L2, a2, b2, parts, 0)
  return Math.sqrt(parts[0]! * parts[0]! + parts[1]! * parts[1]! + parts[2]! * parts[2]!)
}

/**
 * ΔE00 of many pairs: `first` and `second` hold L, a, b after one another; the differences go to `out`, a third as
 * long.
 * @throws RangeError when the lengths do not fit.
 */
export function deltaE00Pairs(first: Float64Array, second: Float64Array, out: Float64Array): void {
  if (first.length !== second.length || out.length * 3 !== first.length)
    throw new RangeError('Pairs need as many colours on both sides, and one place for each difference.')
  for (let i = 0, j = 0; i < out.length; i++, j += 3) {
    differenceParts(first[j]!, first[j + 1]!, first[j + 2]!, second[j]!, second[j + 1]!, second[j + 2]!, parts, 0)
    out[i] = Math.sqrt(parts[0]! * parts[0]! + parts[1]! * parts[1]! + parts[2]! * parts[2]!)
  }
}

/** What a difference means to the eye (common practice); from 3.5 to 5 is our word for the gap between. */
export const GRADES = [
  ['hard-to-see', 1],
  ['passes', 2],
  ['trained-eye', 3.5],
  ['anyone-sees', 5],
  ['another-colour', Infinity],
] as const
export type Grade = (typeof GRADES)[number][0]
export const gradeOf = (de: number): Grade => GRADES.find(([, below]) => de < below)?.[0] ?? 'another-colour'
/** Passes side by side below this ΔE00 (common practice). */
export const PASSES = 2
