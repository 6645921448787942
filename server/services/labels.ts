import PDFDocument from 'pdfkit'
import QRCode from 'qrcode'
import { db } from '../database/db'
import { placePage } from './items'

/** A PDF as one buffer, with the house's font. */
export async function pdfOf(options: PDFKit.PDFDocumentOptions, write: (doc: PDFKit.PDFDocument) => void): Promise<Buffer> {
  const fonts = useStorage('assets:fonts')
  const [regular, bold] = await Promise.all(['schibsted-grotesk-latin-400-normal.woff', 'schibsted-grotesk-latin-700-normal.woff'].map(name => fonts.getItemRaw<Buffer>(name)))
  const doc = new PDFDocument({ ...options, font: '', pdfVersion: '1.7', tagged: true, displayTitle: true } as PDFKit.PDFDocumentOptions)
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  const done = new Promise<void>((resolve, reject) => { doc.on('end', resolve); doc.on('error', reject) })
  doc.registerFont('regular', Buffer.from(regular!)).registerFont('bold', Buffer.from(bold!)).font('regular')
  write(doc)
  doc.end()
  await done
  return Buffer.concat(chunks)
}

/** 70 × 37 mm in points. */
const LABEL: [number, number] = [198, 105]

/** The label of a place: its code, large, with a QR code of its page. */
export async function placeLabel(code: string): Promise<Buffer> {
  const place = await placePage(code)
  const shop = await db().row<{ name: string }>('SELECT name FROM shop WHERE id = 1')
  const png = await QRCode.toBuffer(`${useRuntimeConfig().publicBase}/places/${place.code}`, { margin: 0, width: 300, errorCorrectionLevel: 'M' })
  return pdfOf({ size: LABEL, margin: 8, info: { Title: `Label ${place.code}` } }, (doc) => {
    doc.image(png, 10, 12, { width: 80, alt: `QR code of place ${place.code}` } as never)
    doc.font('bold').fontSize(26).text(place.code, 100, 16, { width: 92 })
    doc.font('regular').fontSize(10).text(place.kind, 100, 62).text(shop?.name ?? '', 100, 76, { width: 92, height: 24 })
  })
}
