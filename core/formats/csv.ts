/**
 * Samples as CSV: a heading with `name` and wavelengths, or L, a, b with `light` and `observer`, then a line each.
 * Comma, semicolon or tab; a decimal comma where the columns are parted otherwise.
 */
import Papa from 'papaparse'
import { WAVELENGTHS_nm } from '../colour'
import { columnsOf, MOST_LINES, type Row, samplesOf, type Sample, wrong } from './samples'

/**
 * The samples of a CSV file. CIELAB without a light is taken for D65 and 10°.
 * @throws RangeError with the number of the line that cannot be read.
 */
export function parseSamplesCsv(text: string): Sample[] {
  const { data, meta } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimitersToGuess: [';', '\t', ','] })
  if (data.length > MOST_LINES) throw new RangeError(`${data.length} lines are too many; ${MOST_LINES} at the most.`)
  const start = data.findIndex(r => r.some(c => c.trim() !== ''))
  const heading = data[start]
  if (!heading) throw new RangeError('Line 1: the file is empty.')
  const columns = (() => {
    try {
      return columnsOf(heading)
    } catch (error) {
      throw wrong(start + 1, (error as Error).message)
    }
  })()
  const rows = data.flatMap((row, i): Row[] => {
    const line = i + 1
    if (i <= start || row.every(c => c.trim() === '')) return []
    if (row.length !== heading.length) throw wrong(line, `${heading.length} values are wanted, found ${row.length}`)
    return [
      {
        line,
        cells: row.map((c, j) => {
          if (j === columns.name) return cellText(c)
          if (meta.delimiter === ',') return c
          return c.replace(',', '.')
        }),
      },
    ]
  })
  if (rows.length === 0) throw wrong(start + 2, 'there is no sample below the heading')
  return samplesOf(rows, columns, { light: 'd65', observer: '10' })
}

/** A spreadsheet takes what begins so for a formula. */
const FORMULA = /^[=+\-@\t\r]/
/**
 * A text as a cell that no spreadsheet takes for a formula: marked by an apostrophe, as they mark text themselves.
 * Numbers are never passed through this.
 */
export const textCell = (text: string): string => (FORMULA.test(text) ? `'${text}` : text)
/** The text of a cell that was written so. */
export const cellText = (cell: string): string =>
  cell.startsWith("'") && FORMULA.test(cell.slice(1)) ? cell.slice(1) : cell

const labCells = (s: Sample): (string | number)[] =>
  s.spectrum ? ['', '', '', '', ''] : [...s.lab!.map(v => v.toFixed(4)), s.light.toUpperCase(), s.observer]

/** CSV of samples: columns for spectra and for CIELAB, whichever there is; a sample fills one of them. */
export function writeSamplesCsv(samples: readonly Sample[]): string {
  const [spectra, labs] = [samples.some(s => s.spectrum), samples.some(s => !s.spectrum)]
  const fields = [
    'name',
    ...(spectra ? WAVELENGTHS_nm.map(String) : []),
    ...(labs ? ['L', 'a', 'b', 'light', 'observer'] : []),
  ]
  const data = samples.map(s => [
    textCell(s.name),
    ...(spectra ? WAVELENGTHS_nm.map((_, i) => s.spectrum?.[i]!.toFixed(6) ?? '') : []),
    ...(labs ? labCells(s) : []),
  ])
  return Papa.unparse({ fields, data }, { newline: '\n' }) + '\n'
}

export const DECIMALS = ['point', 'comma'] as const
export type Decimal = (typeof DECIMALS)[number]
/**
 * A table as CSV (RFC 4180): lines end with CR LF, texts neutralised. With a decimal comma, columns are parted by a
 * semicolon, as spreadsheets of those languages read them.
 */
export function writeTable(
  head: readonly string[],
  rows: readonly (readonly (string | number | null)[])[],
  decimal: Decimal = 'point',
): string {
  const cell = (c: string | number | null) => {
    if (typeof c === 'string') return textCell(c)
    return c !== null && decimal === 'comma' ? String(c).replace('.', ',') : (c ?? '')
  }
  const table = { fields: [...head], data: rows.map(r => r.map(cell)) }
  return `${Papa.unparse(table, { newline: '\r\n', delimiter: decimal === 'comma' ? ';' : ',' })}\r\n`
}
