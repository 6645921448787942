/** Reflectance and transmittance from 400 to 700 nm, each 10 nm: 31 factors, 1 is a perfect white or a clear film. */
export type Spectrum = readonly number[]

export const FROM_NM = 400
const TO_NM = 700
const STEP_NM = 10
export const BANDS = (TO_NM - FROM_NM) / STEP_NM + 1
export const WAVELENGTHS_nm: readonly number[] = Array.from({ length: BANDS }, (_, i) => FROM_NM + i * STEP_NM)

/** Nothing is blacker than this to a meter in a shop; keeps K/S finite. Shop default, unsourced. */
export const DARKEST = 0.003
const LIGHTEST = 0.997
/** A fluorescent sample or a badly set meter may read a little above white. */
const MOST_READ = 1.2

export const clampFactor = (r: number): number => {
  if (r < DARKEST) return DARKEST
  if (r > LIGHTEST) return LIGHTEST
  return r
}

/**
 * A spectrum on the house's grid from values at `wavelengths_nm`; what lies outside 400 to 700 nm (380 to 730 is
 * usual) is left off.
 * @throws RangeError when a wavelength of the grid is missing, doubled, or a value is no reflectance from 0 to 1.2.
 */
export function spectrumFrom(wavelengths_nm: readonly number[], values: readonly number[]): Spectrum {
  if (wavelengths_nm.length !== values.length)
    throw new RangeError(`${wavelengths_nm.length} wavelengths but ${values.length} values.`)
  const at = new Map<number, number>()
  for (const [i, nm] of wavelengths_nm.entries()) {
    if (at.has(nm)) throw new RangeError(`${nm} nm is given twice.`)
    at.set(nm, values[i]!)
  }
  return WAVELENGTHS_nm.map(nm => {
    const r = at.get(nm)
    if (r === undefined) throw new RangeError(`There is no value at ${nm} nm; 400 to 700 nm each 10 nm are needed.`)
    if (!(r >= 0 && r <= MOST_READ)) throw new RangeError(`${r} at ${nm} nm is no reflectance; 0 to 1, or 0 to 100 %.`)
    return r
  })
}

export const flat = (value: number): Spectrum => WAVELENGTHS_nm.map(() => value)
