/** Made-up spectra of the demo shop: woods, colourants, targets. No measured data. */
import {
  clearCoat,
  type Colourant,
  colouredInner,
  type Lies,
  readOf,
  type Spectrum,
  WAVELENGTHS_nm,
  withAbsorption,
} from '../core/colour'

const slope = (low: number, high: number, middle_nm: number, width_nm: number): Spectrum =>
  WAVELENGTHS_nm.map(nm => low + (high - low) / (1 + Math.exp(-(nm - middle_nm) / width_nm)))
const bells = (...peaks: readonly (readonly [height: number, nm: number, left: number, right: number])[]): Spectrum =>
  WAVELENGTHS_nm.map(nm =>
    peaks.reduce(
      (sum, [height, peak, left, right]) =>
        sum + height * Math.exp(-0.5 * ((nm - peak) / (nm < peak ? left : right)) ** 2),
      0,
    ),
  )

/** Bare, freshly sanded. */
export const WOODS = {
  'oak': slope(0.16, 0.66, 515, 62),
  'beech': slope(0.2, 0.68, 520, 60),
  'walnut': slope(0.08, 0.34, 545, 68),
  'birch': slope(0.27, 0.78, 490, 58),
  'mahogany': slope(0.07, 0.43, 570, 42),
  'oak-sapwood': slope(0.24, 0.74, 500, 60),
  'cherry': slope(0.12, 0.58, 545, 50),
  'pine': slope(0.22, 0.76, 500, 52),
} satisfies Record<string, Spectrum>

interface MadeUp {
  name: string
  group: string
  lies: Lies
  k: Spectrum
  most_pct: number
}
const dye = (name: string, k: Spectrum, most_pct = 100): MadeUp => ({
  name,
  group: 'water-dye',
  lies: 'wood',
  k,
  most_pct,
})
const toner = (name: string, k: Spectrum, most_pct = 60): MadeUp => ({
  name,
  group: 'lacquer-toner',
  lies: 'film',
  k,
  most_pct,
})
const stain = (name: string, k: Spectrum, most_pct = 100): MadeUp => ({
  name,
  group: 'pigment-stain',
  lies: 'wood',
  k,
  most_pct,
})

export const COLOURANTS: readonly MadeUp[] = [
  dye('Water dye, lemon yellow', bells([0.06, 425, 30, 38])),
  dye('Water dye, golden brown', bells([0.05, 420, 60, 75], [0.008, 540, 60, 70])),
  dye('Water dye, orange', bells([0.055, 470, 45, 32])),
  dye('Water dye, red mahogany', bells([0.045, 515, 50, 38], [0.02, 410, 40, 40])),
  dye('Water dye, walnut brown', bells([0.05, 400, 80, 130], [0.016, 560, 90, 90])),
  dye('Water dye, green', bells([0.045, 640, 45, 40], [0.03, 420, 35, 30])),
  dye('Water dye, blue', bells([0.05, 610, 50, 45])),
  dye('Water dye, black', bells([0.05, 560, 170, 170])),
  toner('Toner, amber', bells([0.012, 420, 50, 60])),
  toner('Toner, red brown', bells([0.009, 510, 60, 50], [0.006, 410, 50, 60])),
  toner('Toner, walnut', bells([0.011, 400, 90, 120], [0.003, 600, 60, 60])),
  toner('Toner, black', bells([0.009, 560, 180, 180])),
  stain('Oil stain, light oak', bells([0.02, 410, 70, 90])),
  stain('Oil stain, dark oak', bells([0.045, 410, 90, 140], [0.012, 580, 80, 80])),
  stain('Oil stain, raw umber', bells([0.05, 410, 100, 160], [0.02, 600, 90, 90])),
  stain('Oil stain, burnt sienna', bells([0.04, 480, 80, 60])),
]

/** Numbered from 1 in this order, for work without a database. */
export const numbered: readonly Colourant[] = COLOURANTS.map((c, i) => ({ ...c, id: i + 1 }))

/**
 * A wood with a stain of another kind than the shop has, years in light, under an old finish: what the client brings.
 */
export const aged = (wood: Spectrum, absorbs: Spectrum, clear: string, years: number): Spectrum =>
  readOf(
    withAbsorption(
      colouredInner(wood, [{ id: 0, name: '', group: '', lies: 'wood', k: absorbs, most_pct: 100 }], [1]),
      1.1,
    ),
    { clear: clearCoat(clear, years), gloss: 'excluded' },
  )
export const OLD_STAINS = {
  /** an old brown that the shop's dyes come near under every light */
  seat: bells([1.5, 410, 90, 130], [0.35, 540, 60, 70]),
  /** a blue that lets deep red through: the shop's dyes meet it by daylight and miss it by lamplight */
  trap: bells([2.2, 420, 25, 30], [1.2, 600, 60, 14]),
}

/**
 * What clients brought, by words of its name: read so by the demo, and by the simulated meter when somebody measures
 * it again.
 */
export const TARGETS = {
  chair: { called: /seat|chair/i, read: aged(WOODS.beech, OLD_STAINS.seat, 'shellac-blond', 30) },
  drawer: { called: /drawer|sewing/i, read: aged(WOODS.beech, OLD_STAINS.trap, 'waterborne-polyurethane', 2) },
  /** lighter than the walnut of the bench; one round of bleach brings it within reach */
  panelling: {
    called: /panelling|hall/i,
    read: aged(
      WOODS.oak,
      OLD_STAINS.seat.map(k => 0.3 * k),
      'waterborne-polyurethane',
      20,
    ),
  },
} satisfies Record<string, { called: RegExp; read: Spectrum }>
