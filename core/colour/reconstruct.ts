/**
 * A plausible spectrum for a reading that gives CIELAB only. Many spectra share one CIELAB, so what rests on it is
 * marked as weaker.
 */
import { type Lab, xyzFromLab } from './cielab'
import { solveInPlace } from './fit'
import { type Light, type Observer, viewingOf } from './lights'
import { BANDS, clampFactor, type Spectrum } from './spectrum'

const ROUNDS = 60
const N = BANDS + 3

/**
 * The smoothest reflectance with exactly this CIELAB, strictly between 0 and 1: least slope of its hyperbolic
 * tangent's argument (Burns 2020, "least hyperbolic tangent slope squared", from memory). Given `like` (a wood
 * measured before), the smoothest change from that one.
 * @throws RangeError where no reflectance has this colour.
 */
export function reconstruct(lab: Lab, light: Light, observer: Observer, like?: Spectrum): Spectrum {
  const v = viewingOf(light, observer)
  const wanted = xyzFromLab(lab, v.white)
  const w = [v.x, v.y, v.z]
  const base = like ? like.map(r => Math.atanh(2 * clampFactor(r) - 1)) : Array.from({ length: BANDS }, () => 0)
  const d = new Float64Array(BANDS)
  const lambda = new Float64Array(3)
  const A = new Float64Array(N * N)
  const b = new Float64Array(N)
  for (let round = 0; round < ROUNDS; round++) {
    A.fill(0)
    const miss = wanted.map(t => -t)
    for (let i = 0; i < BANDS; i++) {
      const th = Math.tanh(base[i]! + d[i]!)
      const slope = (1 - th * th) / 2
      const pull = w.reduce((s, wk, k) => s + lambda[k]! * wk[i]!, 0)
      const neighbours = (i > 0 ? 1 : 0) + (i < BANDS - 1 ? 1 : 0)
      A[i * N + i] = 2 * neighbours - 2 * th * slope * pull
      if (i > 0) A[i * N + i - 1] = -2
      if (i < BANDS - 1) A[i * N + i + 1] = -2
      b[i] = -(2 * (neighbours * d[i]! - (i > 0 ? d[i - 1]! : 0) - (i < BANDS - 1 ? d[i + 1]! : 0)) + slope * pull)
      for (let k = 0; k < 3; k++) {
        A[i * N + BANDS + k] = A[(BANDS + k) * N + i] = slope * w[k]![i]!
        miss[k]! += (w[k]![i]! * (1 + th)) / 2
      }
    }
    for (let k = 0; k < 3; k++) b[BANDS + k] = -miss[k]!
    const off = Math.max(...miss.map(Math.abs))
    if (!Number.isFinite(off) || !solveInPlace(A, b, N)) break
    const most = Math.max(...b.subarray(0, BANDS).map(Math.abs))
    if (off < 1e-8 && most < 1e-8) return Array.from(d, (di, i) => (1 + Math.tanh(base[i]! + di)) / 2)
    const damp = Math.min(1, 1.5 / most)
    for (let i = 0; i < BANDS; i++) d[i]! += damp * b[i]!
    for (let k = 0; k < 3; k++) lambda[k]! += damp * b[BANDS + k]!
  }
  throw new RangeError(
    `No surface has the colour L* ${lab[0]}, a* ${lab[1]}, b* ${lab[2]}. Check the figures and the light ` +
      'they belong to.',
  )
}
