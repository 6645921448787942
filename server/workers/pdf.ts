import PDFDocument from 'pdfkit'

/** The house's fonts, as the server read them. */
export interface Fonts {
  regular: Uint8Array
  bold: Uint8Array
  /** letters of other Latin alphabets */
  regularExtended: Uint8Array
  boldExtended: Uint8Array
}

/** A PDF as bytes, with the house's font. */
export async function pdfOf(
  fonts: Fonts,
  options: PDFKit.PDFDocumentOptions,
  write: (doc: PDFKit.PDFDocument) => void,
): Promise<Uint8Array> {
  const doc = new PDFDocument({
    ...options,
    font: '',
    pdfVersion: '1.7',
    tagged: true,
    displayTitle: true,
  } as PDFKit.PDFDocumentOptions)
  const chunks: Buffer[] = []
  doc.on('data', (chunk: Buffer) => chunks.push(chunk))
  const done = new Promise<void>((resolve, reject) => {
    doc.on('end', resolve)
    doc.on('error', reject)
  })
  doc
    .registerFont('regular', Buffer.from(fonts.regular))
    .registerFont('bold', Buffer.from(fonts.bold))
    .registerFont('regular-extended', Buffer.from(fonts.regularExtended))
    .registerFont('bold-extended', Buffer.from(fonts.boldExtended))
    .font('regular')
  write(doc)
  doc.end()
  await done
  return new Uint8Array(Buffer.concat(chunks))
}
