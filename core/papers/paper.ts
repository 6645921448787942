/** A paper as parts, apart from how it is set: whoever makes one says what stands on it, in reading order. */
import type { Shape } from '../section'

export interface Column {
  head: string
  /** share of the width */
  share: number
  /** figures stand at the right */
  figures?: boolean
}
export interface Swatch {
  /** #rrggbb */
  colour: string
  name: string
  says: readonly string[]
}
export type PaperPart =
  | { kind: 'heading'; text: string }
  /** `lead`: bold, before the text */
  | { kind: 'text'; text: string; lead?: string; tone?: 'plain' | 'small' | 'strong' | 'stop' }
  | { kind: 'list'; items: readonly string[] }
  /** names and what belongs to them, one under the other */
  | { kind: 'facts'; rows: readonly (readonly [name: string, says: string])[] }
  /** `totals`: so many of the last rows are sums */
  | { kind: 'table'; says: string; columns: readonly Column[]; rows: readonly (readonly string[])[]; totals?: number }
  /** shapes in a box, no taller than `tallest` points; `says` is read to whoever does not see them */
  | { kind: 'drawing'; says: string; width: number; height: number; shapes: readonly Shape[]; tallest?: number }
  | { kind: 'swatches'; swatches: readonly Swatch[] }
  /** two beside each other */
  | { kind: 'pictures'; pictures: readonly { jpeg_base64: string; says: string }[] }
  /** lines to sign on, each with who signs */
  | { kind: 'sign'; who: readonly string[] }
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
