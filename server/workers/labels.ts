import QRCode from 'qrcode'
import { type Fonts, pdfOf } from './pdf'

/** 70 × 37 mm in points. */
const LABEL: [number, number] = [198, 105]
/** 90 × 55 mm in points. */
const POT_LABEL: [number, number] = [255, 156]
const code = (address: string) => QRCode.toBuffer(address, { margin: 0, width: 300, errorCorrectionLevel: 'M' })

export interface PlaceLabel {
  fonts: Fonts
  address: string
  code: string
  kind: string
  shop: string
}
/** The label of a place: its code, large, with a QR code of its page. */
export async function placeLabelPdf(l: PlaceLabel): Promise<Uint8Array> {
  const png = await code(l.address)
  return pdfOf(l.fonts, { size: LABEL, margin: 8, info: { Title: `Label ${l.code}` } }, doc => {
    doc.image(png, 10, 12, { width: 80, alt: `QR code of place ${l.code}` } as never)
    doc.font('bold').fontSize(26).text(l.code, 100, 16, { width: 92 })
    doc.font('regular').fontSize(10).text(l.kind, 100, 62).text(l.shop, 100, 76, { width: 92, height: 24 })
  })
}

export interface PotLabel {
  fonts: Fonts
  address: string
  id: number
  name: string
  shares: { name: string; g: number }[]
  forWhom: string
  mixed: string
  useBy: string
  hazardous: boolean
  shop: string
}
/**
 * The label of a pot: what is in it, for which piece, when mixed, until when it may be used and kept, with a QR code
 * of its page.
 */
export async function potLabelPdf(l: PotLabel): Promise<Uint8Array> {
  const png = await code(l.address)
  const total = l.shares.reduce((sum, s) => sum + s.g, 0)
  return pdfOf(l.fonts, { size: POT_LABEL, margin: 8, info: { Title: `Pot ${l.id}` } }, doc => {
    doc.image(png, 185, 10, { width: 60, alt: `QR code of pot ${l.id}` } as never)
    doc
      .font('bold')
      .fontSize(18)
      .text(`Pot ${l.id}`, 10, 10, { width: 170 })
      .fontSize(11)
      .text(l.name, { width: 170, height: 28, ellipsis: true })
    doc.font('regular').fontSize(8)
    for (const s of l.shares.slice(0, 6)) {
      doc.text(`${s.g.toFixed(1)} g  ${s.name}  ${total > 0 ? ((100 * s.g) / total).toFixed(1) : '0.0'} %`, {
        width: 172,
        height: 10,
        ellipsis: true,
      })
    }
    doc.text(l.forWhom, 10, 108, { width: 235, height: 10, ellipsis: true }).text(l.mixed)
    if (l.useBy) doc.font('bold').text(l.useBy)
    if (l.hazardous) doc.font('regular').text('Hazardous: see its safety data sheet and the cautions on its page.')
    doc.font('regular').text(l.shop, 185, 74, { width: 62, height: 30 })
  })
}
