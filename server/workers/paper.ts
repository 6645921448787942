/** Sets a paper as a tagged PDF: headings, lists, tables and figures keep their meaning for whoever listens to it. */
import QRCode from 'qrcode'
import type { Column, Paper, PaperPart, PaperSize } from '../../core/papers'
import { type Fonts, pdfOf } from './pdf'

const MARGIN = 48
const INK = '#1c211f'
const SOFT = '#505854'
const STOP = '#a5322c'
const LINE = '#c9ccc7'
const SIZE = { title: 20, heading: 13, text: 10.5, small: 9 } as const
const QR = 84
const CELL = 4

type Doc = PDFKit.PDFDocument
type Weight = 'regular' | 'bold'
type Element = ReturnType<Doc['struct']>

/** What a head is the head of; the library writes it, its types leave it out. */
const headOf = (scope: 'Column' | 'Row') => ({ scope }) as object as Parameters<Doc['struct']>[1]

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

interface Style {
  weight?: Weight
  size?: number
  colour?: string
  width?: number
  align?: 'left' | 'right'
}
const fontOf = (weight: Weight, extended: boolean) => (extended ? `${weight}-extended` : weight)
/** Text from where the pen is, or from a place. */
function say(doc: Doc, text: string, style: Style = {}, at?: { x: number; y: number }) {
  const { weight = 'regular', size = SIZE.text, colour = INK, width, align = 'left' } = style
  const runs = runsOf(text)
  doc.fontSize(size).fillColor(colour)
  if (runs.length === 0) return
  runs.forEach((run, i) => {
    const options = { width, align, continued: i < runs.length - 1 }
    doc.font(fontOf(weight, run.extended))
    if (i === 0 && at) doc.text(run.text, at.x, at.y, options)
    else doc.text(run.text, options)
  })
}
const heightOf = (doc: Doc, text: string, { weight = 'regular', size = SIZE.text, width }: Style): number =>
  doc
    .font(weight)
    .fontSize(size)
    .heightOfString(text || ' ', { width })

const widthOf = (doc: Doc) => doc.page.width - 2 * MARGIN
function room(doc: Doc, height: number) {
  if (doc.y + height > doc.page.height - MARGIN - 24) doc.addPage()
  doc.x = MARGIN
}
function rule(doc: Doc, y: number, colour = LINE) {
  doc.markContent('Artifact', { type: 'Layout' })
  doc
    .moveTo(MARGIN, y)
    .lineTo(doc.page.width - MARGIN, y)
    .lineWidth(0.5)
    .stroke(colour)
  doc.endMarkedContent()
}

function tableRow(doc: Doc, columns: readonly Column[], cells: readonly string[], weight: Weight, tag: 'TH' | 'TD') {
  const widths = columns.map(c => c.share * widthOf(doc))
  const style = (i: number): Style => ({
    ...{ weight, width: widths[i]! - 2 * CELL, align: columns[i]!.figures ? 'right' : 'left' },
    size: SIZE.small + 0.5,
  })
  const height = Math.max(...cells.map((text, i) => heightOf(doc, text, style(i)))) + 2 * CELL
  room(doc, height)
  const top = doc.y
  const row = doc.struct('TR')
  let x = MARGIN
  columns.forEach((_, i) => {
    const left = x + CELL
    row.add(
      doc.struct(tag, tag === 'TH' ? headOf('Column') : {}, [
        () => say(doc, cells[i] ?? '', style(i), { x: left, y: top + CELL }),
      ]),
    )
    x += widths[i]!
  })
  return {
    row,
    done: () => {
      doc.y = top + height
      doc.x = MARGIN
      rule(doc, doc.y)
    },
  }
}

function setTable(doc: Doc, root: Element, part: PaperPart & { kind: 'table' }) {
  const table = doc.struct('Table', { alt: part.says })
  root.add(table)
  const put = (cells: readonly string[], weight: Weight, tag: 'TH' | 'TD') => {
    const { row, done } = tableRow(doc, part.columns, cells, weight, tag)
    table.add(row)
    row.end()
    done()
  }
  if (part.columns.some(c => c.head))
    put(
      part.columns.map(c => c.head),
      'bold',
      'TH',
    )
  part.rows.forEach((cells, i) => put(cells, i >= part.rows.length - (part.totals ?? 0) ? 'bold' : 'regular', 'TD'))
  table.end()
  doc.moveDown(0.5)
}
/** Names beside what belongs to them: a table with its heads at the left. */
function setFacts(doc: Doc, root: Element, { rows }: PaperPart & { kind: 'facts' }) {
  const table = doc.struct('Table')
  root.add(table)
  const name: Style = { weight: 'bold', width: 0.28 * widthOf(doc) }
  const says: Style = { width: 0.72 * widthOf(doc) - CELL }
  for (const [head, text] of rows) {
    const height = Math.max(heightOf(doc, head, name), heightOf(doc, text, says)) + CELL
    room(doc, height)
    const top = doc.y
    const row = doc.struct('TR')
    table.add(row)
    row.add(doc.struct('TH', headOf('Row'), [() => say(doc, head, name, { x: MARGIN, y: top })]))
    const left = MARGIN + name.width! + CELL
    row.add(doc.struct('TD', {}, [() => say(doc, text, says, { x: left, y: top })]))
    row.end()
    doc.y = top + height
    doc.x = MARGIN
  }
  table.end()
  doc.moveDown(0.5)
}
function setList(doc: Doc, root: Element, { items }: PaperPart & { kind: 'list' }) {
  const list = doc.struct('L')
  root.add(list)
  for (const text of items) {
    const width = widthOf(doc) - 14
    room(doc, heightOf(doc, text, { width }))
    const top = doc.y
    const one = doc.struct('LI')
    list.add(one)
    one.add(doc.struct('Lbl', {}, [() => say(doc, '•', {}, { x: MARGIN, y: top })]))
    one.add(doc.struct('LBody', {}, [() => say(doc, text, { width }, { x: MARGIN + 14, y: top })]))
    one.end()
    doc.x = MARGIN
  }
  list.end()
  doc.moveDown(0.5)
}

const TONE = {
  plain: {},
  small: { size: SIZE.small, colour: SOFT },
  strong: { weight: 'bold' },
  stop: { weight: 'bold', colour: STOP },
} as const satisfies Record<string, Style>

/** @param codes QR codes by the address that they open, as PNG */
function setPart(doc: Doc, root: Element, part: PaperPart, codes: ReadonlyMap<string, Buffer>) {
  if (part.kind === 'table') return setTable(doc, root, part)
  if (part.kind === 'facts') return setFacts(doc, root, part)
  if (part.kind === 'list') return setList(doc, root, part)
  if (part.kind === 'code') {
    const left = doc.page.width - MARGIN - QR
    root.add(
      doc.struct('Figure', { alt: `QR code. ${part.says}` }, [
        () => doc.image(codes.get(part.address)!, left, MARGIN, { width: QR }),
      ]),
    )
    return undefined
  }
  if (part.kind === 'heading') {
    room(doc, 60)
    doc.moveDown(0.6)
    root.add(doc.struct('H2', {}, [() => say(doc, part.text, { weight: 'bold', size: SIZE.heading })]))
    doc.moveDown(0.3)
    return undefined
  }
  const style: Style = { ...TONE[part.tone ?? 'plain'], width: widthOf(doc) }
  room(doc, heightOf(doc, part.text, style))
  root.add(doc.struct('P', {}, [() => say(doc, part.text, style)]))
  doc.moveDown(0.5)
  return undefined
}

/** A paper as PDF. */
export async function paperPdf({ fonts, paper, size }: { fonts: Fonts; paper: Paper; size: PaperSize }) {
  const codes = new Map<string, Buffer>()
  for (const part of paper.parts)
    if (part.kind === 'code')
      codes.set(part.address, await QRCode.toBuffer(part.address, { margin: 0, width: 300, errorCorrectionLevel: 'M' }))
  const options = { size, margin: MARGIN, lang: 'en', bufferPages: true, info: { Title: paper.title } }
  return pdfOf(fonts, options as PDFKit.PDFDocumentOptions, doc => {
    const root = doc.struct('Document')
    doc.addStructure(root)
    const narrow = codes.size > 0 ? widthOf(doc) - QR - 12 : widthOf(doc)
    for (const text of paper.from)
      root.add(doc.struct('P', {}, [() => say(doc, text, { size: SIZE.small, colour: SOFT, width: narrow })]))
    doc.moveDown(0.3)
    root.add(doc.struct('H1', {}, [() => say(doc, paper.title, { weight: 'bold', size: SIZE.title, width: narrow })]))
    if (codes.size > 0) doc.y = Math.max(doc.y, MARGIN + QR)
    doc.moveDown(0.5)
    for (const part of paper.parts) setPart(doc, root, part, codes)
    root.end()
    const { start, count } = doc.bufferedPageRange()
    for (let i = start; i < start + count; i++) {
      doc.switchToPage(i)
      // below the margin: the foot makes no page of its own
      doc.page.margins.bottom = 0
      doc.markContent('Artifact', { type: 'Pagination' })
      say(
        doc,
        `${paper.foot} · ${i + 1} of ${count}`,
        { size: SIZE.small, colour: SOFT, width: widthOf(doc) },
        { x: MARGIN, y: doc.page.height - MARGIN + 8 },
      )
      doc.endMarkedContent()
    }
  })
}
