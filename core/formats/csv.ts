/** Samples as CSV: a heading with `name` and wavelengths (or L, a, b), then a line each. Comma, semicolon or tab; a decimal comma where the columns are parted otherwise. */
import Papa from 'papaparse'
import { WAVELENGTHS_nm } from '../colour'
import { sampleOf } from './cgats'
import { columnsOf, MOST_LINES, MOST_SAMPLES, type Sample } from './samples'

/**
 * The samples of a CSV file. CIELAB is taken for D65 and 10°.
 * @throws RangeError with the number of the line that cannot be read.
 */
export function parseSamplesCsv(text: string): Sample[] {
  const { data, meta } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ''), { delimitersToGuess: [';', '\t', ','] })
  if (data.length > MOST_LINES) throw new RangeError(`${data.length} lines are too many; ${MOST_LINES} at the most.`)
  const start = data.findIndex(r => r.some(c => c.trim() !== ''))
  const heading = data[start]
  if (!heading) throw new RangeError('Line 1: the file is empty.')
  const columns = (() => {
    try { return columnsOf(heading) }
    catch (error) { throw new RangeError(`Line ${start + 1}: ${(error as Error).message}.`) }
  })()
  const samples: Sample[] = []
  for (const [i, row] of data.entries()) {
    if (i <= start || row.every(c => c.trim() === '')) continue
    if (row.length !== heading.length) throw new RangeError(`Line ${i + 1}: ${heading.length} values are wanted, found ${row.length}.`)
    const cells = meta.delimiter === ',' ? row : row.map((c, j) => j === columns.name ? c : c.replace(',', '.'))
    samples.push(sampleOf(cells, columns, { light: 'd65', observer: '10' }, i + 1, samples.length + 1))
    if (samples.length > MOST_SAMPLES) throw new RangeError(`Line ${i + 1}: more than ${MOST_SAMPLES} samples.`)
  }
  if (samples.length === 0) throw new RangeError(`Line ${start + 2}: there is no sample below the heading.`)
  return samples
}

/** CSV of samples: spectra where all have one, CIELAB otherwise. */
export function writeSamplesCsv(samples: readonly Sample[]): string {
  const spectral = samples.every(s => s.spectrum !== null)
  return Papa.unparse({
    fields: ['name', ...(spectral ? WAVELENGTHS_nm.map(String) : ['L', 'a', 'b'])],
    data: samples.map(s => [s.name, ...(spectral ? s.spectrum! : s.lab ?? []).map(v => v.toFixed(spectral ? 6 : 4))]),
  }, { newline: '\n' }) + '\n'
}
