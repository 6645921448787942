/** A table that somebody else wrote, by the names of its columns: comma, semicolon or tab; point or comma. */
import Papa from 'papaparse'
import { cellText } from './csv'
import { MOST_LINES, wrong } from './samples'

export interface TableLine<C extends string> {
  /** in the file, from 1 */
  line: number
  /** '' where a column is not there, or empty */
  cells: Record<C, string>
}
export interface Column<C extends string> {
  key: C
  /**
   * headings that name it, the first that is there counts; in small letters, without what stands in brackets or after
   * "in"
   */
  heads: readonly string[]
  needed?: true
}
const plain = (head: string) =>
  head
    .trim()
    .toLowerCase()
    .replace(/\(.*\)|\bin [^ ]+$/g, '')
    .trim()
/**
 * The lines of a table below its heading; blank lines are passed over, columns that are not asked for as well.
 * @throws RangeError with the number of the line that cannot be read.
 */
export function readTable<C extends string>(text: string, columns: readonly Column<C>[]): TableLine<C>[] {
  if (text.includes('\uFFFD'))
    throw new RangeError('Some letters of the file cannot be read. Save it again as CSV in UTF-8.')
  // an empty last line would speak against the delimiter of a short table
  const source = text.replace(/^\uFEFF/, '').replace(/[\r\n]+$/, '')
  const { data, errors } = Papa.parse<string[]>(source, { delimitersToGuess: [',', ';', '\t'] })
  const quotes = errors.find(e => e.type === 'Quotes')
  if (quotes) throw wrong((quotes.row ?? 0) + 1, 'a quotation mark is not closed')
  if (data.length > MOST_LINES) throw new RangeError(`${data.length} lines are too many; ${MOST_LINES} at the most.`)
  const start = data.findIndex(r => r.some(c => c.trim() !== ''))
  const heading = data[start]?.map(plain)
  if (!heading) throw new RangeError('Line 1: the file is empty.')
  const at = columns.map(c => ({ ...c, i: c.heads.map(h => heading.indexOf(h)).find(i => i >= 0) ?? -1 }))
  const missing = at.find(c => c.needed && c.i < 0)
  if (missing) throw wrong(start + 1, `there is no column "${missing.heads[0]}"`)
  return data.flatMap((row, i) => {
    if (i <= start || row.every(c => c.trim() === '')) return []
    // else every cell behind it would be read under another heading
    if (row.slice(heading.length).some(c => c.trim() !== ''))
      throw wrong(i + 1, 'there are more cells than columns; a text with a comma in it stands in quotation marks')
    const cells = at.map(c => [c.key, cellText(row[c.i] ?? '').trim()] as const)
    return [{ line: i + 1, cells: Object.fromEntries(cells) as Record<C, string> }]
  })
}
export interface TableRead<L> {
  lines: L[]
  wrong: { line: number; says: string }[]
}
/**
 * Every line that can be read, and what is wrong with the others. `said`: what stands there once only.
 * @throws RangeError where it is no such table at all.
 */
export function readLines<C extends string, L>(
  text: string,
  columns: readonly Column<C>[],
  lineOf: (line: number, cells: Record<C, string>) => L,
  said: (line: L) => string,
): TableRead<L> {
  const read: TableRead<L> = { lines: [], wrong: [] }
  const seen = new Set<string>()
  for (const { line, cells } of readTable(text, columns)) {
    try {
      const next = lineOf(line, cells)
      const name = said(next)
      if (seen.has(name.toLowerCase())) throw new RangeError(`${name} stands there twice`)
      seen.add(name.toLowerCase())
      read.lines.push(next)
    } catch (error) {
      if (!(error instanceof RangeError)) throw error
      read.wrong.push({ line, says: error.message })
    }
  }
  return read
}
/** @returns null where nothing is written. @throws RangeError for what is no number. */
export function numberIn(cell: string): number | null {
  if (cell === '') return null
  const typed = cell.replace(/\s/g, '').replace(/^(-?\d+),(\d+)$/, '$1.$2')
  if (!/^-?\d+(\.\d+)?$/.test(typed)) throw new RangeError(`"${cell.slice(0, 24)}" is no number`)
  return Number(typed)
}
