/** CGATS text (ISO 28178, ANSI CGATS.17; from memory): one table of samples with spectra or CIELAB. */
import { LIGHTS, spectrumFrom, WAVELENGTHS_nm, type Light, type Observer, type Spectrum } from '../colour'
import { columnsOf, factors, MOST_LINES, MOST_SAMPLES, type Columns, type Sample } from './samples'

/** Words of a line; double quotes hold words together, `#` begins a comment. */
function words(line: string): string[] {
  const found: string[] = []
  for (const match of line.matchAll(/"((?:[^"]|"")*)"|(#.*)|([^\s"#]+)/g)) {
    if (match[2] !== undefined) break
    found.push(match[1] === undefined ? match[3]! : match[1].replaceAll('""', '"'))
  }
  return found
}
const wrong = (line: number, says: string) => new RangeError(`Line ${line}: ${says}.`)

function lightOf(text: string): Light | null {
  const slug = text.trim().toLowerCase()
  return LIGHTS.find(l => l === slug) ?? null
}

interface Heading { light: Light, observer: Observer }
function readHeading(h: Heading, key: string, value: string, line: number): Heading {
  if (key === 'WEIGHTING_FUNCTION') {
    const [what = '', which = ''] = value.split(',').map(v => v.trim())
    if (/ILLUMINANT/i.test(what)) return readHeading(h, 'ILLUMINANT', which, line)
    if (/OBSERVER/i.test(what)) return readHeading(h, 'OBSERVER', which, line)
  }
  if (key === 'ILLUMINANT') {
    const light = lightOf(value)
    if (!light) throw wrong(line, `the light "${value}" is not known here. Known: ${LIGHTS.map(l => l.toUpperCase()).join(', ')}`)
    return { ...h, light }
  }
  if (key === 'OBSERVER') return { ...h, observer: /10/.test(value) ? '10' : '2' }
  return h
}

/** One row of a table. @throws RangeError naming the line. */
export function sampleOf(cells: readonly string[], columns: Columns, heading: Heading, line: number, nth: number): Sample {
  const number = (i: number) => {
    const value = Number(cells[i])
    if (cells[i] === undefined || cells[i]!.trim() === '' || !Number.isFinite(value)) throw wrong(line, `"${cells[i] ?? ''}" is no number`)
    return value
  }
  try {
    const spectrum: Spectrum | null = columns.spectral.length ? spectrumFrom(columns.nm, factors(columns.spectral.map(number))) : null
    const lab = columns.lab ? [number(columns.lab[0]!), number(columns.lab[1]!), number(columns.lab[2]!)] as const : null
    if (lab && (lab[0] < 0 || lab[0] > 110)) throw wrong(line, `L* is 0 to 100, found ${lab[0]}`)
    return { name: (cells[columns.name] ?? '').trim() || `Sample ${nth}`, spectrum, lab, ...heading }
  }
  catch (error) {
    if (error instanceof RangeError && !error.message.startsWith('Line ')) throw wrong(line, error.message.replace(/\.$/, ''))
    throw error
  }
}

/**
 * The samples of a CGATS text. CIELAB without a named light is taken for D50 and 2°, as the standard does.
 * @throws RangeError with the number of the line that cannot be read, and what was wanted there.
 */
export function parseCgats(text: string): Sample[] {
  const lines = text.replace(/^\uFEFF/, '').split(/\r\n|\r|\n/)
  if (lines.length > MOST_LINES) throw new RangeError(`${lines.length} lines are too many; ${MOST_LINES} at the most.`)
  const samples: Sample[] = []
  let heading: Heading = { light: 'd50', observer: '2' }
  let fields: string[] = []
  let columns: Columns | null = null
  let part: 'heading' | 'format' | 'data' = 'heading'
  let sets: { wanted: number, line: number } | null = null
  let opened = 0
  for (const [i, text] of lines.entries()) {
    const line = i + 1
    const cells = words(text)
    const key = cells[0]?.toUpperCase()
    if (key === undefined) continue
    if (key === 'BEGIN_DATA_FORMAT') { part = 'format'; fields = []; opened = line }
    else if (key === 'END_DATA_FORMAT') {
      if (part !== 'format') throw wrong(line, 'END_DATA_FORMAT without a beginning')
      part = 'heading'
      try { columns = columnsOf(fields) }
      catch (error) { throw wrong(opened, (error as Error).message) }
    }
    else if (key === 'BEGIN_DATA') {
      if (!columns) throw wrong(line, 'the data begin before BEGIN_DATA_FORMAT has said what the columns are')
      part = 'data'
      opened = line
    }
    else if (key === 'END_DATA') {
      if (part !== 'data') throw wrong(line, 'END_DATA without a beginning')
      part = 'heading'
      if (sets && sets.wanted !== samples.length) throw wrong(sets.line, `NUMBER_OF_SETS says ${sets.wanted}, but ${samples.length} follow`)
    }
    else if (part === 'format') fields.push(...cells)
    else if (part === 'data') {
      if (cells.length !== fields.length) throw wrong(line, `${fields.length} values are wanted, found ${cells.length}`)
      samples.push(sampleOf(cells, columns!, heading, line, samples.length + 1))
      if (samples.length > MOST_SAMPLES) throw wrong(line, `more than ${MOST_SAMPLES} samples`)
    }
    else if (key === 'NUMBER_OF_SETS') sets = { wanted: Number(cells[1]), line }
    else heading = readHeading(heading, key, cells.slice(1).join(' '), line)
  }
  if (part !== 'heading') throw wrong(lines.length, `the file ends inside what line ${opened} began; END_DATA${part === 'format' ? '_FORMAT' : ''} is missing`)
  if (samples.length === 0) throw wrong(lines.length, 'there is no sample in this file. Wanted: BEGIN_DATA_FORMAT, the columns, END_DATA_FORMAT, BEGIN_DATA, the samples, END_DATA')
  return samples
}

const quoted = (text: string) => `"${text.replaceAll('"', '""').replaceAll(/\s+/g, ' ')}"`

/** CGATS text of samples that share light and observer; spectra as factors. Samples of both kinds leave gaps, so the spectra are written where all have one, CIELAB otherwise. */
export function writeCgats(samples: readonly Sample[], made: string): string {
  const spectral = samples.every(s => s.spectrum !== null)
  const { light, observer } = samples[0] ?? { light: 'd65', observer: '10' }
  const fields = ['SAMPLE_ID', 'SAMPLE_NAME', ...(spectral ? WAVELENGTHS_nm.map(nm => `SPECTRAL_NM${nm}`) : ['LAB_L', 'LAB_A', 'LAB_B'])]
  const row = (s: Sample, i: number) => [i + 1, quoted(s.name), ...(spectral ? s.spectrum! : s.lab ?? []).map(v => v.toFixed(spectral ? 6 : 4))].join('\t')
  return ['CGATS.17', 'ORIGINATOR "Hantverk"', `CREATED ${quoted(made)}`, `WEIGHTING_FUNCTION "ILLUMINANT, ${light.toUpperCase()}"`, `WEIGHTING_FUNCTION "OBSERVER, ${observer} degree"`,
    `NUMBER_OF_FIELDS ${fields.length}`, 'BEGIN_DATA_FORMAT', fields.join('\t'), 'END_DATA_FORMAT', `NUMBER_OF_SETS ${samples.length}`, 'BEGIN_DATA', ...samples.map(row), 'END_DATA', ''].join('\n')
}
