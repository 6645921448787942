/** Labels: what stands on one, and the stock they are printed on. */
import type { PaperSize } from './paper'

export interface Label {
  /** large: a mark, a code, a number */
  head: string
  /** in order of weight: what finds no room is left out, the last first */
  lines: readonly { text: string; strong?: boolean }[]
  address: string
  /** what the code opens */
  says: string
}
/** One page of labels, mm. */
export interface Stock {
  page: readonly [width: number, height: number]
  cell: readonly [width: number, height: number]
  columns: number
  rows: number
  /** left and top margins */
  margin: readonly [number, number]
  /** between columns */
  gap: number
}
const single = (width: number, height: number): Stock => ({
  ...{ page: [width, height], cell: [width, height] },
  ...{ columns: 1, rows: 1, margin: [0, 0], gap: 0 },
})
/** Sizes that label printers and stationers have (common practice). */
export const STOCKS = {
  place: single(70, 37),
  pot: single(90, 55),
  roll: single(57, 32),
  A4: { page: [210, 297], cell: [70, 37], columns: 3, rows: 8, margin: [0, 0.5], gap: 0 },
  LETTER: { page: [215.9, 279.4], cell: [66.7, 25.4], columns: 3, rows: 10, margin: [4.8, 12.7], gap: 3.2 },
} as const satisfies Record<string, Stock>
export type StockName = keyof typeof STOCKS

export const LABEL_STOCKS = ['own', 'roll', 'sheet'] as const
/** A stock by what was asked for: the size of its own kind, a roll, or a sheet of the shop's paper. */
export function stockOf(asked: (typeof LABEL_STOCKS)[number], own: 'place' | 'pot', size: PaperSize): StockName {
  if (asked === 'own') return own
  return asked === 'roll' ? 'roll' : size
}
/** Where the label with this number stands: its page and its corner, mm; `from`: the first free cell of a sheet, 1 … */
export function cellOf(stock: Stock, no: number, from: number): { page: number; x: number; y: number } {
  const at = no + from - 1
  const onPage = at % (stock.columns * stock.rows)
  return {
    page: Math.floor(at / (stock.columns * stock.rows)),
    x: stock.margin[0] + (onPage % stock.columns) * (stock.cell[0] + stock.gap),
    y: stock.margin[1] + Math.floor(onPage / stock.columns) * stock.cell[1],
  }
}
