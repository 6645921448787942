import type { Lab, Light, Observer, Spectrum } from '../colour'

/** One measured sample as files carry it: a spectrum, or CIELAB with the light and observer that it belongs to. */
export interface Sample {
  name: string
  spectrum: Spectrum | null
  lab: Lab | null
  light: Light
  observer: Observer
}

export const MOST_LINES = 5000
export const MOST_SAMPLES = 1000

/** Percent where any value is above this, factors below. */
const PERCENT_FROM = 2
export const factors = (values: readonly number[]): readonly number[] => values.some(v => v > PERCENT_FROM) ? values.map(v => v / 100) : values

/** `SPECTRAL_NM400`, `SPECTRAL_NM_400`, `SPEC_400`, `NM_400`, `R_400`, `400`, `400nm`: the wavelength, or null. */
export function wavelengthOf(field: string): number | null {
  const match = /^(?:SPECTRAL_NM_?|SPEC_|NM_?|R_?)?(\d{3})(?:_?NM)?$/i.exec(field.trim())
  return match ? Number(match[1]) : null
}
const LAB_FIELDS = [['LAB_L', 'L', 'L*'], ['LAB_A', 'A', 'A*'], ['LAB_B', 'B', 'B*']] as const

export interface Columns { name: number, nm: number[], spectral: number[], lab: number[] | null }
/** Which column of a table holds what. @throws RangeError when it holds no colour. */
export function columnsOf(fields: readonly string[]): Columns {
  const upper = fields.map(f => f.trim().toUpperCase())
  const spectral = fields.flatMap((f, i) => wavelengthOf(f) === null ? [] : [i])
  const found = LAB_FIELDS.map(names => upper.findIndex(f => (names as readonly string[]).includes(f)))
  const lab = found.every(i => i >= 0) ? found : null
  if (spectral.length === 0 && !lab) throw new RangeError('there is no column of colour. Wanted: 400 to 700 nm each 10 nm (SPECTRAL_NM400 …), or LAB_L, LAB_A, LAB_B')
  const name = ['SAMPLE_NAME', 'NAME', 'SAMPLE', 'SAMPLE_ID', 'ID'].map(n => upper.indexOf(n)).find(i => i >= 0) ?? -1
  return { name, nm: spectral.map(i => wavelengthOf(fields[i]!)!), spectral, lab }
}
