/** Lights to judge under and the weights that turn a spectrum into XYZ. */
import { BANDS, FROM_NM } from './spectrum'
import { OBSERVERS, POWERS, TABLE_FROM_NM, TABLE_STEP_NM } from './tables'

/** In the order in which a restorer chooses: daylight, the client's room, the shop. */
export const LIGHTS = ['d65', 'd50', 'a', 'led', 'f11'] as const
export type Light = (typeof LIGHTS)[number]
export type Observer = '2' | '10'

const TABLE_nm = POWERS.d65.map((_, i) => TABLE_FROM_NM + i * TABLE_STEP_NM)
const bell = (nm: number, peak: number, left: number, right: number) =>
  Math.exp(-0.5 * ((nm - peak) / (nm < peak ? left : right)) ** 2)

/**
 * A warm white LED as two bells: a blue pump at 452 nm and a phosphor at 596 nm. A model of ours on the Planckian
 * locus near 3000 K, no CIE illuminant; shop default, unsourced.
 */
const LED = TABLE_nm.map(nm => 100 * (0.5 * bell(nm, 452, 10, 12) + bell(nm, 596, 58, 66)))

/**
 * F11's mercury lines fall between the points of its 10 nm table, so the table alone is too yellow. Their power (on
 * the table's scale) was solved so that the white point for 2° is the published 100.962, 64.350 (CIE 015); the one for
 * 10° then lies within 0.5 of the published.
 */
const LINES: Partial<Record<Light, readonly (readonly [nm: number, power: number])[]>> = {
  f11: [
    [435.8, 17.0345],
    [546.1, 13.5971],
  ],
}

/** Relative power of a light at 380 to 780 nm, each 10 nm. */
export const powerOf = (light: Light): readonly number[] => (light === 'led' ? LED : POWERS[light])

/** A light seen by an observer. Weights are per band of the house's grid and give Y = 100 for a perfect white. */
export interface Viewing {
  light: Light
  observer: Observer
  x: Float64Array
  y: Float64Array
  z: Float64Array
  white: readonly [X: number, Y: number, Z: number]
}

function makeViewing(light: Light, observer: Observer): Viewing {
  const eye = OBSERVERS[observer]
  const first = (FROM_NM - TABLE_FROM_NM) / TABLE_STEP_NM
  const clampBand = (i: number) => Math.min(BANDS - 1, Math.max(0, i - first))
  const weights = (curve: readonly number[]) => {
    const w = new Float64Array(BANDS)
    for (const [i, power] of powerOf(light).entries()) w[clampBand(i)]! += curve[i]! * power
    for (const [nm, power] of LINES[light] ?? []) {
      const place = (nm - TABLE_FROM_NM) / TABLE_STEP_NM
      const i = Math.floor(place)
      const seen = power * (curve[i]! + (place - i) * (curve[i + 1]! - curve[i]!))
      w[clampBand(i)]! += (1 - place + i) * seen
      w[clampBand(i + 1)]! += (place - i) * seen
    }
    return w
  }
  const sum = (w: Float64Array) => w.reduce((s, v) => s + v, 0)
  const [x, y, z] = [weights(eye.x), weights(eye.y), weights(eye.z)]
  const scale = 100 / sum(y)
  for (const w of [x, y, z]) for (let i = 0; i < BANDS; i++) w[i]! *= scale
  return { light, observer, x, y, z, white: [sum(x), sum(y), sum(z)] }
}

const made = new Map<string, Viewing>()

/**
 * The weights of a light and observer; what lies beyond the grid's ends is added to its first and last band (the
 * practice of ASTM E308, from memory).
 */
export function viewingOf(light: Light, observer: Observer = '10'): Viewing {
  const key = `${light}/${observer}`
  let viewing = made.get(key)
  if (!viewing) made.set(key, (viewing = makeViewing(light, observer)))
  return viewing
}

/**
 * Correlated colour temperature in kelvin from chromaticity. McCamy 1992 (from memory); good to some tens of kelvin
 * near white.
 */
export function colourTemperature_K([X, Y, Z]: readonly [number, number, number]): number {
  const x = X / (X + Y + Z)
  const y = Y / (X + Y + Z)
  const n = (x - 0.332) / (0.1858 - y)
  return 449 * n ** 3 + 3525 * n ** 2 + 6823.3 * n + 5520.33
}
