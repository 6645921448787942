/**
 * A spectrum on a screen: a guide only. sRGB (IEC 61966-2-1), white adapted by Bradford, chroma lowered until it can
 * be shown.
 */
import { labFromLch, labFromXyz, labOf, type Lab, lchOf, xyzFromLab, xyzOf, type Xyz } from './cielab'
import { viewingOf, type Viewing } from './lights'
import type { Spectrum } from './spectrum'

type Matrix = readonly [Xyz, Xyz, Xyz]
const times = (m: Matrix, v: Xyz): Xyz => m.map(row => row[0] * v[0] + row[1] * v[1] + row[2] * v[2]) as unknown as Xyz

/** The white that sRGB's own definition takes, x = 0.3127, y = 0.3290. */
export const SCREEN_WHITE: Xyz = [(100 * 0.3127) / 0.329, 100, (100 * (1 - 0.3127 - 0.329)) / 0.329]
const TO_LINEAR: Matrix = [
  [12831 / 3959, -329 / 214, -1974 / 3959],
  [-851781 / 878810, 1648619 / 878810, 36519 / 878810],
  [705 / 12673, -2585 / 12673, 705 / 667],
]
const BRADFORD: Matrix = [
  [0.8951, 0.2664, -0.1614],
  [-0.7502, 1.7135, 0.0367],
  [0.0389, -0.0685, 1.0296],
]
const BRADFORD_BACK: Matrix = [
  [0.9869929, -0.1470543, 0.1599627],
  [0.4323053, 0.5183603, 0.0492912],
  [-0.0085287, 0.0400428, 0.9684867],
]

/** XYZ as it looks under another white, eyes adapted (Bradford). */
export function adapt(xyz: Xyz, from: Xyz, to: Xyz): Xyz {
  const [source, aim, cone] = [times(BRADFORD, from), times(BRADFORD, to), times(BRADFORD, xyz)]
  return times(BRADFORD_BACK, cone.map((c, i) => (c * aim[i]!) / source[i]!) as unknown as Xyz)
}

const encode = (c: number) => (c <= 0.0031308 ? 12.92 * c : 1.055 * c ** (1 / 2.4) - 0.055)
const linearOf = (lab: Lab) => times(TO_LINEAR, xyzFromLab(lab, SCREEN_WHITE).map(c => c / 100) as unknown as Xyz)
const shown = (rgb: Xyz) => rgb.every(c => c >= -1e-4 && c <= 1.0001)

export interface ScreenColour {
  hex: string
  mapped: boolean
}

/** sRGB of a CIELAB colour under the screen's white; out of gamut, chroma falls at constant lightness and hue. */
export function screenOfLab(lab: Lab): ScreenColour {
  let rgb = linearOf(lab)
  const mapped = !shown(rgb)
  if (mapped) {
    const [L, C, h] = lchOf([Math.min(100, Math.max(0, lab[0])), lab[1], lab[2]])
    let [low, high] = [0, C]
    for (let i = 0; i < 20; i++) {
      const middle = (low + high) / 2
      if (shown(linearOf(labFromLch([L, middle, h])))) low = middle
      else high = middle
    }
    rgb = linearOf(labFromLch([L, low, h]))
  }
  return {
    hex: `#${rgb
      .map(c =>
        Math.round(255 * encode(Math.min(1, Math.max(0, c))))
          .toString(16)
          .padStart(2, '0'),
      )
      .join('')}`,
    mapped,
  }
}

/** How a spectrum looks under a light, on a screen. */
export const screenOf = (spectrum: Spectrum, v: Viewing): ScreenColour =>
  screenOfLab(labFromXyz(adapt(xyzOf(spectrum, v), v.white, SCREEN_WHITE), SCREEN_WHITE))

/** The CIELAB figures that a restorer reads: under D65, 10°. */
export const labOfSpectrum = (spectrum: Spectrum): Lab => labOf(spectrum, viewingOf('d65'))
