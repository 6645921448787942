/** Cans of the store from a table: the list that is taken out, or one that was written at the shelf. */
import { type Column, numberIn, readLines, type TableRead } from '../formats'

export interface LotLine {
  line: number
  product: string
  code: string
  /** in the unit of its product; null: not said */
  left: number | null
  /** ISO days; '': not said */
  received: string
  opened: string
  bestBefore: string
  place: string
  /** it stands there as thrown away */
  gone: boolean
}
type Key = 'product' | 'code' | 'left' | 'received' | 'opened' | 'bestBefore' | 'place' | 'gone'
const COLUMNS: readonly Column<Key>[] = [
  { key: 'product', heads: ['product', 'name'], needed: true },
  { key: 'code', heads: ['code', 'lot', 'batch'], needed: true },
  { key: 'left', heads: ['left', 'amount', 'quantity'], needed: true },
  { key: 'received', heads: ['received', 'bought'] },
  { key: 'opened', heads: ['opened'] },
  { key: 'bestBefore', heads: ['best before', 'use by'] },
  { key: 'place', heads: ['place', 'shelf'] },
  { key: 'gone', heads: ['thrown away'] },
]
const MOST = 1_000_000
/** A day written as ISO, or day, month, year with points or strokes. @throws RangeError. */
export function dayIn(cell: string): string {
  if (cell === '') return ''
  const european = /^(\d{1,2})[./](\d{1,2})[./](20\d\d)$/.exec(cell)
  const iso = european
    ? `${european[3]}-${european[2]!.padStart(2, '0')}-${european[1]!.padStart(2, '0')}`
    : cell.slice(0, 10)
  const at = new Date(`${iso}T00:00:00Z`)
  if (!/^20\d\d-\d\d-\d\d$/.test(iso) || Number.isNaN(at.getTime()) || at.toISOString().slice(0, 10) !== iso)
    throw new RangeError(`"${cell.slice(0, 20)}" is no day; write it as 2027-05-31`)
  return iso
}
function lineOf(line: number, cells: Record<Key, string>): LotLine {
  if (!cells.product) throw new RangeError('there is no product')
  if (!cells.code || cells.code.length > 60) throw new RangeError('a can has a number of up to 60 letters')
  const left = numberIn(cells.left)
  if (left !== null && (left < 0 || left > MOST)) throw new RangeError('what is left is below nought or too large')
  if (cells.place && !/^[A-Za-z0-9][A-Za-z0-9-]{0,19}$/.test(cells.place))
    throw new RangeError('a place has a short code, such as S-1')
  return {
    ...{ line, product: cells.product, code: cells.code, left, gone: cells.gone !== '' },
    place: cells.place.toUpperCase(),
    ...{ received: dayIn(cells.received), opened: dayIn(cells.opened), bestBefore: dayIn(cells.bestBefore) },
  }
}
/** @throws RangeError where it is no such table at all. */
export const readLots = (text: string): TableRead<LotLine> =>
  readLines(text, COLUMNS, lineOf, l => `Can "${l.code}" of "${l.product}"`)
