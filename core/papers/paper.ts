/** A paper as parts, apart from how it is set: whoever makes one says what stands on it, in reading order. */

export interface Column {
  head: string
  /** share of the width */
  share: number
  /** figures stand at the right */
  figures?: boolean
}
export type PaperPart =
  | { kind: 'heading'; text: string }
  | { kind: 'text'; text: string; tone?: 'plain' | 'small' | 'strong' | 'stop' }
  | { kind: 'list'; items: readonly string[] }
  /** names and what belongs to them, one under the other */
  | { kind: 'facts'; rows: readonly (readonly [name: string, says: string])[] }
  /** `totals`: so many of the last rows are sums */
  | { kind: 'table'; says: string; columns: readonly Column[]; rows: readonly (readonly string[])[]; totals?: number }
  /** a QR code of an address, with what it opens */
  | { kind: 'code'; address: string; says: string }

export const PAPER_SIZES = ['A4', 'LETTER'] as const
export type PaperSize = (typeof PAPER_SIZES)[number]
export interface Paper {
  title: string
  /** over the title: who writes, and when */
  from: readonly string[]
  parts: readonly PaperPart[]
  /** at the foot of each page */
  foot: string
}
