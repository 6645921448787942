/** Sets a paper as a tagged PDF: headings, lists, tables and figures keep their meaning for whoever listens to it. */
import QRCode from 'qrcode'
import type { Column, Paper, PaperPart, PaperSize } from '../../core/papers'
import { setDrawing, setPictures, setSwatches } from './drawn'
import { type Fonts, pdfOf } from './pdf'
import {
  type Doc,
  type Element,
  headOf,
  heightOf,
  INK,
  MARGIN,
  room,
  rule,
  say,
  SIZE,
  SOFT,
  STOP,
  type Style,
  type Weight,
  widthOf,
} from './sheet'

const QR = 84
const CELL = 4

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

function setSign(doc: Doc, root: Element, { who }: PaperPart & { kind: 'sign' }) {
  room(doc, 80)
  const width = widthOf(doc) / who.length - 16
  const y = doc.y + 48
  who.forEach((text, i) => {
    const x = MARGIN + i * (width + 16)
    doc.markContent('Artifact', { type: 'Layout' })
    doc
      .moveTo(x, y)
      .lineTo(x + width, y)
      .lineWidth(0.7)
      .stroke(INK)
    doc.endMarkedContent()
    root.add(doc.struct('P', {}, [() => say(doc, text, { size: SIZE.small, colour: SOFT, width }, { x, y: y + 3 })]))
  })
  doc.x = MARGIN
  doc.y = y + 24
}
function setCode(doc: Doc, root: Element, { says }: PaperPart & { kind: 'code' }, png: Buffer) {
  const left = doc.page.width - MARGIN - QR
  const draw = () => doc.image(png, left, MARGIN, { width: QR })
  root.add(doc.struct('Figure', { alt: `QR code. ${says}` }, [() => void draw()]))
}
function setHeading(doc: Doc, root: Element, { text }: PaperPart & { kind: 'heading' }) {
  room(doc, 60)
  doc.moveDown(0.6)
  root.add(doc.struct('H2', {}, [() => say(doc, text, { weight: 'bold', size: SIZE.heading })]))
  doc.moveDown(0.3)
}
function setText(doc: Doc, root: Element, { text, lead = '', tone = 'plain' }: PaperPart & { kind: 'text' }) {
  const style: Style = { ...TONE[tone], width: widthOf(doc) }
  room(doc, heightOf(doc, `${lead} ${text}`, style))
  const both = () => {
    if (lead) say(doc, lead, { ...style, weight: 'bold' }, undefined, text !== '')
    if (text) say(doc, `${lead ? ' ' : ''}${text}`, lead ? { ...style, weight: 'regular', colour: INK } : style)
  }
  root.add(doc.struct('P', {}, [both]))
  doc.moveDown(tone === 'small' || lead ? 0.25 : 0.5)
}

/** @param codes QR codes by the address that they open, as PNG */
function setPart(doc: Doc, root: Element, part: PaperPart, codes: ReadonlyMap<string, Buffer>): void {
  switch (part.kind) {
    case 'table':
      return setTable(doc, root, part)
    case 'facts':
      return setFacts(doc, root, part)
    case 'list':
      return setList(doc, root, part)
    case 'drawing':
      return setDrawing(doc, root, part)
    case 'swatches':
      return setSwatches(doc, root, part)
    case 'pictures':
      return setPictures(doc, root, part)
    case 'sign':
      return setSign(doc, root, part)
    case 'code':
      return setCode(doc, root, part, codes.get(part.address)!)
    case 'heading':
      return setHeading(doc, root, part)
    case 'text':
      return setText(doc, root, part)
  }
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
