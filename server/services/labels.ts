import PDFDocument from 'pdfkit'
import QRCode from 'qrcode'
import { DateTime } from 'luxon'
import { cautionsOfAll } from '#core/layers'
import { db } from '../database/db'
import { batchPage } from './batches'
import { placePage } from './items'
import { readShop } from './shop'

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

/** 90 × 55 mm in points. */
const POT_LABEL: [number, number] = [255, 156]

/** The label of a pot: what is in it, for which piece, when mixed, until when it may be used and kept, with a QR code of its page. */
export async function potLabel(id: number): Promise<Buffer> {
  const pot = await batchPage(id)
  const shop = await readShop(db())
  const clock = (at: Date | number) => DateTime.fromMillis(Number(at)).setZone(shop.zone).setLocale('en-GB').toFormat('d LLL yyyy HH:mm')
  const png = await QRCode.toBuffer(`${useRuntimeConfig().publicBase}/mixing/${id}`, { margin: 0, width: 300, errorCorrectionLevel: 'M' })
  const shares = pot.contents.some(c => c.g > 0) ? pot.contents : pot.lines.map(l => ({ name: l.name, g: l.wanted_g }))
  const total = shares.reduce((s, l) => s + l.g, 0)
  return pdfOf({ size: POT_LABEL, margin: 8, info: { Title: `Pot ${id}` } }, (doc) => {
    doc.image(png, 185, 10, { width: 60, alt: `QR code of pot ${id}` } as never)
    doc.font('bold').fontSize(18).text(`Pot ${id}`, 10, 10, { width: 170 }).fontSize(11).text(pot.name, { width: 170, height: 28, ellipsis: true })
    doc.font('regular').fontSize(8)
    for (const s of shares.slice(0, 6)) doc.text(`${s.g.toFixed(1)} g  ${s.name}  ${((100 * s.g) / total).toFixed(1)} %`, { width: 172, height: 10, ellipsis: true })
    doc.text(`${pot.piece ? `For: ${pot.piece}` : 'For the shop'}${pot.client ? `, ${pot.client}` : ''}`, 10, 108, { width: 235, height: 10, ellipsis: true })
    doc.text(pot.mixed_at ? `Mixed ${clock(pot.mixed_at.getTime())}` : 'Not mixed yet')
    if (pot.potEnds_ms) doc.font('bold').text(`Use by ${clock(pot.potEnds_ms)}`)
    else if (pot.piece) doc.font('bold').text('Keep until the piece has been handed over')
    if (cautionsOfAll(pot.lines.flatMap(l => l.class ?? [])).length) doc.font('regular').text('Hazardous: see its safety data sheet and the cautions on its page.')
    doc.font('regular').text(shop.name, 185, 74, { width: 62, height: 30 })
  })
}
