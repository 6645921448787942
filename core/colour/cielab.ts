/** XYZ, CIELAB and LCh (CIE 015). L, a, b and C without units, h in degrees. */
import type { Viewing } from './lights'
import { BANDS } from './spectrum'

export type Xyz = readonly [X: number, Y: number, Z: number]
export type Lab = readonly [L: number, a: number, b: number]
export type Lch = readonly [L: number, C: number, h: number]

const EPSILON = 216 / 24389
const KAPPA = 24389 / 27
const f = (t: number) => (t > EPSILON ? Math.cbrt(t) : (KAPPA * t + 16) / 116)
const inverse = (t: number) => (t ** 3 > EPSILON ? t ** 3 : (116 * t - 16) / KAPPA)

/**
 * Writes X, Y, Z of a reflectance under a light to `out` from `offset`, Y = 100 for a perfect white; allocates
 * nothing.
 */
function xyzInto(spectrum: ArrayLike<number>, v: Viewing, out: { [i: number]: number }, offset: number): void {
  let X = 0
  let Y = 0
  let Z = 0
  for (let i = 0; i < BANDS; i++) {
    const r = spectrum[i]!
    X += r * v.x[i]!
    Y += r * v.y[i]!
    Z += r * v.z[i]!
  }
  out[offset] = X
  out[offset + 1] = Y
  out[offset + 2] = Z
}

/** XYZ of a reflectance under a light, Y = 100 for a perfect white. */
export function xyzOf(spectrum: ArrayLike<number>, v: Viewing): Xyz {
  const out: [number, number, number] = [0, 0, 0]
  xyzInto(spectrum, v, out, 0)
  return out
}

export function labFromXyz([X, Y, Z]: Xyz, white: Xyz): Lab {
  const fx = f(X / white[0])
  const fy = f(Y / white[1])
  const fz = f(Z / white[2])
  return [116 * fy - 16, 500 * (fx - fy), 200 * (fy - fz)]
}

export function xyzFromLab([L, a, b]: Lab, white: Xyz): Xyz {
  const fy = (L + 16) / 116
  return [white[0] * inverse(fy + a / 500), white[1] * inverse(fy), white[2] * inverse(fy - b / 200)]
}

export const labOf = (spectrum: ArrayLike<number>, v: Viewing): Lab => labFromXyz(xyzOf(spectrum, v), v.white)

/** Writes L, a, b of a spectrum to `out` from `offset`, allocating nothing. */
export function labInto(spectrum: ArrayLike<number>, v: Viewing, out: Float64Array, offset: number): void {
  xyzInto(spectrum, v, out, offset)
  const fx = f(out[offset]! / v.white[0])
  const fy = f(out[offset + 1]! / v.white[1])
  const fz = f(out[offset + 2]! / v.white[2])
  out[offset] = 116 * fy - 16
  out[offset + 1] = 500 * (fx - fy)
  out[offset + 2] = 200 * (fy - fz)
}

const turn = (degrees: number) => ((degrees % 360) + 360) % 360
export const lchOf = ([L, a, b]: Lab): Lch => [L, Math.hypot(a, b), turn((Math.atan2(b, a) * 180) / Math.PI)]
export const labFromLch = ([L, C, h]: Lch): Lab => [
  L,
  C * Math.cos((h * Math.PI) / 180),
  C * Math.sin((h * Math.PI) / 180),
]
