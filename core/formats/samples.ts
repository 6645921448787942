import { type Lab, LIGHTS, type Light, type Observer, spectrumFrom, type Spectrum } from '../colour'

/** One measured sample as files carry it: a spectrum, or CIELAB with the light and observer that it belongs to. */
export interface Sample {
  name: string
  spectrum: Spectrum | null
  lab: Lab | null
  light: Light
  observer: Observer
}

export const wrong = (line: number, says: string) => new RangeError(`Line ${line}: ${says}.`)

/** The light and observer that CIELAB of a table belongs to. */
export interface Heading {
  light: Light
  observer: Observer
}
/** @throws RangeError naming the line, for a light whose table is not at hand. */
export function lightOf(text: string, line: number): Light {
  const light = LIGHTS.find(l => l === text.trim().toLowerCase())
  if (!light)
    throw wrong(line, `the light "${text}" is not known here. Known: ${LIGHTS.map(l => l.toUpperCase()).join(', ')}`)
  return light
}
export const observerOf = (text: string): Observer => (/10/.test(text) ? '10' : '2')

export const MOST_LINES = 5000
export const MOST_SAMPLES = 1000

/** `SPECTRAL_NM400`, `SPECTRAL_PCT_400`, `SPEC_400`, `NM_400`, `R_400`, `400`, `400nm`: the wavelength, or null. */
function wavelengthOf(field: string): number | null {
  const match = /^(?:SPECTRAL_(?:NM|PCT|DEC)_?|SPEC_|NM_?|R_?)?(\d{3})(?:_?NM)?$/i.exec(field.trim())
  return match ? Number(match[1]) : null
}
const LAB_FIELDS = [
  ['LAB_L', 'L', 'L*'],
  ['LAB_A', 'A', 'A*'],
  ['LAB_B', 'B', 'B*'],
] as const

export interface Columns {
  name: number
  nm: number[]
  spectral: number[]
  lab: number[] | null
  light: number
  observer: number
}
/** Which column of a table holds what. @throws RangeError when it holds no colour. */
export function columnsOf(fields: readonly string[]): Columns {
  const upper = fields.map(f => f.trim().toUpperCase())
  const spectral = fields.flatMap((f, i) => (wavelengthOf(f) === null ? [] : [i]))
  const found = LAB_FIELDS.map(names => upper.findIndex(f => (names as readonly string[]).includes(f)))
  const lab = found.every(i => i >= 0) ? found : null
  if (spectral.length === 0 && !lab)
    throw new RangeError(
      'there is no column of colour. Wanted: 400 to 700 nm each 10 nm (SPECTRAL_NM400 …), or LAB_L, LAB_A, LAB_B',
    )
  const name = ['SAMPLE_NAME', 'NAME', 'SAMPLE', 'SAMPLE_ID', 'ID'].map(n => upper.indexOf(n)).find(i => i >= 0) ?? -1
  return {
    name,
    nm: spectral.map(i => wavelengthOf(fields[i]!)!),
    spectral,
    lab,
    light: upper.indexOf('LIGHT'),
    observer: upper.indexOf('OBSERVER'),
  }
}

/** A row as it stands in a file. */
export interface Row {
  cells: readonly string[]
  line: number
}

/** A table holds percent where any reflectance of it is above this, factors otherwise. */
const PERCENT_FROM = 2

/**
 * The samples of a table; a row without spectrum may give CIELAB, and its own light. `from` samples stand before it in
 * the file.
 * @throws RangeError naming the line that cannot be read.
 */
export function samplesOf(rows: readonly Row[], columns: Columns, heading: Heading, from = 0): Sample[] {
  const scale = rows.some(({ cells }) => columns.spectral.some(i => Number(cells[i]) > PERCENT_FROM)) ? 100 : 1
  return rows.map((row, i) => {
    if (from + i >= MOST_SAMPLES) throw wrong(row.line, `more than ${MOST_SAMPLES} samples`)
    return sampleOf(row, columns, heading, scale, `Sample ${from + i + 1}`)
  })
}

function sampleOf({ cells, line }: Row, columns: Columns, heading: Heading, scale: number, usualName: string): Sample {
  const filled = (i: number) => (cells[i] ?? '').trim() !== ''
  const number = (i: number) => {
    if (!filled(i) || !Number.isFinite(Number(cells[i]))) throw wrong(line, `"${cells[i] ?? ''}" is no number`)
    return Number(cells[i])
  }
  const spectrumAt = () => {
    const values = columns.spectral.map(i => number(i) / scale)
    try {
      return spectrumFrom(columns.nm, values)
    } catch (error) {
      throw wrong(line, (error as Error).message.replace(/\.$/, ''))
    }
  }
  const lab =
    columns.lab && (columns.spectral.length === 0 || columns.lab.some(filled))
      ? ([number(columns.lab[0]!), number(columns.lab[1]!), number(columns.lab[2]!)] as const)
      : null
  if (lab && (lab[0] < 0 || lab[0] > 110)) throw wrong(line, `L* is 0 to 100, found ${lab[0]}`)
  return {
    name: (cells[columns.name] ?? '').trim() || usualName,
    lab,
    spectrum: columns.spectral.length && (!lab || columns.spectral.some(filled)) ? spectrumAt() : null,
    light: filled(columns.light) ? lightOf(cells[columns.light]!, line) : heading.light,
    observer: filled(columns.observer) ? observerOf(cells[columns.observer]!) : heading.observer,
  }
}
