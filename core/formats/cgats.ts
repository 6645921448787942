/** CGATS text (ISO 28178, ANSI CGATS.17; from memory): tables of samples with spectra or CIELAB, one after another. */
import { WAVELENGTHS_nm } from '../colour'
import {
  columnsOf,
  type Columns,
  type Heading,
  lightOf,
  MOST_LINES,
  observerOf,
  type Row,
  samplesOf,
  type Sample,
  wrong,
} from './samples'

/** Words of a line; double quotes hold words together, `#` begins a comment. */
function words(line: string): string[] {
  const found: string[] = []
  for (const match of line.matchAll(/"((?:[^"]|"")*)"|(#.*)|([^\s"#]+)/g)) {
    if (match[2] !== undefined) break
    found.push(match[1] === undefined ? match[3]! : match[1].replaceAll('""', '"'))
  }
  return found
}
function readHeading(h: Heading, key: string, value: string, line: number): Heading {
  if (key === 'WEIGHTING_FUNCTION') {
    const [what = '', which = ''] = value.split(',').map(v => v.trim())
    if (/ILLUMINANT/i.test(what)) return readHeading(h, 'ILLUMINANT', which, line)
    if (/OBSERVER/i.test(what)) return readHeading(h, 'OBSERVER', which, line)
  }
  if (key === 'ILLUMINANT') return { ...h, light: lightOf(value, line) }
  if (key === 'OBSERVER') return { ...h, observer: observerOf(value) }
  return h
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
  let sets: { wanted: number; line: number } | null = null
  let rows: Row[] = []
  let opened = 0
  for (const [i, text] of lines.entries()) {
    const line = i + 1
    const cells = words(text)
    const key = cells[0]?.toUpperCase()
    if (key === undefined) continue
    if (key === 'BEGIN_DATA_FORMAT') {
      part = 'format'
      fields = []
      opened = line
    } else if (key === 'END_DATA_FORMAT') {
      if (part !== 'format') throw wrong(line, 'END_DATA_FORMAT without a beginning')
      part = 'heading'
      try {
        columns = columnsOf(fields)
      } catch (error) {
        throw wrong(opened, (error as Error).message)
      }
    } else if (key === 'BEGIN_DATA') {
      if (!columns) throw wrong(line, 'the data begin before BEGIN_DATA_FORMAT has said what the columns are')
      part = 'data'
      opened = line
      rows = []
    } else if (key === 'END_DATA') {
      if (part !== 'data') throw wrong(line, 'END_DATA without a beginning')
      part = 'heading'
      if (sets && sets.wanted !== rows.length)
        throw wrong(sets.line, `NUMBER_OF_SETS says ${sets.wanted}, but ${rows.length} follow`)
      sets = null
      samples.push(...samplesOf(rows, columns!, heading, samples.length))
    } else if (part === 'format') fields.push(...cells)
    else if (part === 'data') {
      if (cells.length !== fields.length) throw wrong(line, `${fields.length} values are wanted, found ${cells.length}`)
      rows.push({ cells, line })
    } else if (key === 'NUMBER_OF_SETS') sets = { wanted: Number(cells[1]), line }
    else heading = readHeading(heading, key, cells.slice(1).join(' '), line)
  }
  if (part !== 'heading')
    throw wrong(
      lines.length,
      `the file ends inside what line ${opened} began; END_DATA${part === 'format' ? '_FORMAT' : ''} is missing`,
    )
  if (samples.length === 0)
    throw wrong(
      lines.length,
      'there is no sample in this file. Wanted: BEGIN_DATA_FORMAT, the columns, END_DATA_FORMAT, ' +
        'BEGIN_DATA, the samples, END_DATA',
    )
  return samples
}

const quoted = (text: string) => `"${text.replaceAll('"', '""').replaceAll(/\s+/g, ' ')}"`

/** Samples of one kind, and of one light where they are CIELAB. */
function tableOf(samples: readonly Sample[]): string[] {
  const { spectrum, light, observer } = samples[0]!
  const fields = [
    'SAMPLE_ID',
    'SAMPLE_NAME',
    ...(spectrum ? WAVELENGTHS_nm.map(nm => `SPECTRAL_NM${nm}`) : ['LAB_L', 'LAB_A', 'LAB_B']),
  ]
  const row = (s: Sample, i: number) =>
    [i + 1, quoted(s.name), ...(s.spectrum ? s.spectrum.map(v => v.toFixed(6)) : s.lab!.map(v => v.toFixed(4)))].join(
      '\t',
    )
  return [
    `WEIGHTING_FUNCTION "ILLUMINANT, ${light.toUpperCase()}"`,
    `WEIGHTING_FUNCTION "OBSERVER, ${observer} degree"`,
    `NUMBER_OF_FIELDS ${fields.length}`,
    'BEGIN_DATA_FORMAT',
    fields.join('\t'),
    'END_DATA_FORMAT',
    `NUMBER_OF_SETS ${samples.length}`,
    'BEGIN_DATA',
    ...samples.map(row),
    'END_DATA',
  ]
}

/** CGATS text of samples: a table of spectra (factors), then a table of CIELAB for each light and observer. */
export function writeCgats(samples: readonly Sample[], made: string): string {
  const tables = new Map<string, Sample[]>()
  for (const s of [...samples].sort((a, b) => Number(a.spectrum === null) - Number(b.spectrum === null))) {
    const key = s.spectrum ? 'spectra' : `${s.light}/${s.observer}`
    tables.set(key, [...(tables.get(key) ?? []), s])
  }
  return [
    'CGATS.17',
    'ORIGINATOR "Hantverk"',
    `CREATED ${quoted(made)}`,
    ...[...tables.values()].flatMap(tableOf),
    '',
  ].join('\n')
}
