import QRCode from 'qrcode'
import { cellOf, type Label, STOCKS, type StockName } from '../../core/papers'
import { type Fonts, pdfOf } from './pdf'
import { type Doc, type Element, runsOf } from './sheet'

const PT_PER_MM = 72 / 25.4
const PAD = 6
const HEAD = { large: 24, small: 13 } as const
const TEXT = { large: 8, small: 6.5 } as const
/** Labels from this height on have large letters, points. */
const LARGE = 100

/** One line in the house's fonts, cut off where it finds no room. */
function lineOf(doc: Doc, text: string, strong: boolean, x: number, y: number, width: number) {
  let left = x
  for (const run of runsOf(text)) {
    doc.font(`${strong ? 'bold' : 'regular'}${run.extended ? '-extended' : ''}`)
    const room = x + width - left
    if (room < 4) return
    doc.text(run.text, left, y, { width: room, height: doc.currentLineHeight(), ellipsis: true, lineBreak: false })
    left += doc.widthOfString(run.text)
  }
}
/** What counts is not cut off: words that find no room go onto a second line. */
function inTwo(doc: Doc, text: string, points: number, width: number): string[] {
  const fits = (part: string) => doc.font('bold').fontSize(points).widthOfString(part) <= width
  if (fits(text)) return [text]
  const words = text.split(' ')
  const last = words.findLastIndex((_, i) => i > 0 && fits(words.slice(0, i).join(' ')))
  return last < 0 ? [text] : [words.slice(0, last).join(' '), words.slice(last).join(' ')]
}
function setLabel(doc: Doc, root: Element, l: Label, png: Buffer, box: Box) {
  const size = box.h >= LARGE ? 'large' : 'small'
  const code = Math.min(box.h - 2 * PAD, box.w * 0.32)
  const width = box.w - code - 3 * PAD
  root.add(
    doc.struct('Figure', { alt: `QR code. ${l.says}` }, [
      () => doc.image(png, box.x + box.w - code - PAD, box.y + PAD, { width: code }),
    ]),
  )
  let y = box.y + PAD
  const put = (text: string, strong: boolean, points: number, tag: 'H1' | 'P') => {
    doc.fontSize(points)
    const height = doc.font('bold').currentLineHeight()
    if (y + height > box.y + box.h - 2) return
    const top = y
    root.add(doc.struct(tag, {}, [() => lineOf(doc.fontSize(points), text, strong, box.x + PAD, top, width)]))
    y += height + 1
  }
  put(l.head, true, HEAD[size], 'H1')
  for (const { text, strong = false } of l.lines)
    for (const part of strong ? inTwo(doc, text, TEXT[size], width) : [text]) put(part, strong, TEXT[size], 'P')
}
interface Box {
  x: number
  y: number
  w: number
  h: number
}

/** Labels on their stock; on a sheet, the first of them stands in the cell `from`. */
export async function labelsPdf(asked: {
  fonts: Fonts
  labels: readonly Label[]
  stock: StockName
  from: number
  title: string
}): Promise<Uint8Array> {
  const { fonts, labels, title } = asked
  const stock = STOCKS[asked.stock]
  const from = stock.columns * stock.rows > 1 ? asked.from : 1
  const codes = await Promise.all(
    labels.map(l => QRCode.toBuffer(l.address, { margin: 0, width: 300, errorCorrectionLevel: 'M' })),
  )
  const size = stock.page.map(mm => mm * PT_PER_MM)
  return pdfOf(fonts, { size, margin: 0, lang: 'en', info: { Title: title } } as PDFKit.PDFDocumentOptions, doc => {
    const root = doc.struct('Document')
    doc.addStructure(root)
    let page = 0
    labels.forEach((l, i) => {
      const cell = cellOf(stock, i, from)
      if (cell.page > page) doc.addPage()
      page = cell.page
      const [w, h] = stock.cell.map(mm => mm * PT_PER_MM) as [number, number]
      setLabel(doc, root, l, codes[i]!, { x: cell.x * PT_PER_MM, y: cell.y * PT_PER_MM, w, h })
    })
    root.end()
  })
}
