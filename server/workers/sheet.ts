/** What every paper is set with: colours, sizes, text in the house's two fonts, room on the page. */

import type PDFDocument from 'pdfkit'

export const MARGIN = 48
export const INK = '#1c211f'
export const SOFT = '#505854'
export const STOP = '#a5322c'
export const LINE = '#c9ccc7'
export const SIZE = { title: 20, heading: 13, text: 10.5, small: 9 } as const

export type Doc = InstanceType<typeof PDFDocument>
export type Weight = 'regular' | 'bold'
export type Element = ReturnType<Doc['struct']>

/** What a head is the head of; the library writes it, its types leave it out. */
export const headOf = (scope: 'Column' | 'Row') => ({ scope }) as object as Parameters<Doc['struct']>[1]

/** Letters that the house's Latin font holds; all others are in its extension. */
const LATIN = /[\n\r\t\u0020-\u00FF\u0131\u0152\u0153\u02C6\u02DA\u02DC\u2000-\u206F\u20AC\u2122\u2191\u2193\u2212]/
/** The same text in runs of one font. */
export function runsOf(text: string): { text: string; extended: boolean }[] {
  const runs: { text: string; extended: boolean }[] = []
  for (const letter of text.replaceAll('→', 'to').replaceAll('≤', 'at most ')) {
    const extended = !LATIN.test(letter)
    const last = runs.at(-1)
    if (last?.extended === extended) last.text += letter
    else runs.push({ text: letter, extended })
  }
  return runs
}

export interface Style {
  weight?: Weight
  size?: number
  colour?: string
  width?: number
  align?: 'left' | 'right'
}
export const fontOf = (weight: Weight, extended: boolean) => (extended ? `${weight}-extended` : weight)
/** Text from where the pen is, or from a place; `goesOn`: more follows on its line. */
export function say(doc: Doc, text: string, style: Style = {}, at?: { x: number; y: number }, goesOn = false) {
  const { weight = 'regular', size = SIZE.text, colour = INK, width, align = 'left' } = style
  const runs = runsOf(text)
  doc.fontSize(size).fillColor(colour)
  if (runs.length === 0) return
  runs.forEach((run, i) => {
    const options = { width, align, continued: goesOn || i < runs.length - 1 }
    doc.font(fontOf(weight, run.extended))
    if (i === 0 && at) doc.text(run.text, at.x, at.y, options)
    else doc.text(run.text, options)
  })
}
export const heightOf = (doc: Doc, text: string, { weight = 'regular', size = SIZE.text, width }: Style): number =>
  doc
    .font(weight)
    .fontSize(size)
    .heightOfString(text || ' ', { width })

export const widthOf = (doc: Doc) => doc.page.width - 2 * MARGIN
export function room(doc: Doc, height: number) {
  if (doc.y + height > doc.page.height - MARGIN - 24) doc.addPage()
  doc.x = MARGIN
}
export function rule(doc: Doc, y: number, colour = LINE) {
  doc.markContent('Artifact', { type: 'Layout' })
  doc
    .moveTo(MARGIN, y)
    .lineTo(doc.page.width - MARGIN, y)
    .lineWidth(0.5)
    .stroke(colour)
  doc.endMarkedContent()
}
