import { blocks } from '#core/safety'
import { layFaces, type Layout, scaleMark_mm } from '#core/examine'
import { FINDINGS, outline_mm, placeOutline } from '#core/piece'
import type { ReportFinding, Report } from '#core/report'
import { type Fonts, pdfOf } from './pdf'

const PAGE = { size: 'A4' as const, margin: 48 }
const INK = '#1c211f'
const SOFT = '#505854'
const MADDER = '#a5322c'
const LINE = '#c9ccc7'
type Doc = PDFKit.PDFDocument

/** The fonts hold Latin letters; a few signs are written out. */
const plain = (text: string) => text.replaceAll('→', 'to').replaceAll('≤', 'at most ').replaceAll('−', '-')
const day = (iso: string) => iso.slice(0, 10)
const words = (slug: string) => slug.replaceAll('-', ' ')
const percent = (p: number) => `${Math.round(p * 100)} %`

/** When it was made, where the years alone would not be a sentence. */
const MADE: Partial<Record<Report['piece']['period'], string>> = {
  'before-1850': 'before 1850',
  'after-1990': 'after 1990',
  'unknown': 'at a time not known',
}
const SEVERITY: Record<string, string> = { forbidden: 'Forbidden', stop: 'Stop', warn: 'Take care', note: 'Note' }
const JUDGED: Record<string, string> = {
  'contradictory': 'The readings contradict each other.',
  'test-again': 'Not sure enough to rely on.',
}
const HAZARD_STANDING = { open: 'not ruled out, counted as yes', confirmed: 'found', cleared: 'cleared' }

const room = (doc: Doc, height: number) => {
  if (doc.y + height > doc.page.height - PAGE.margin) doc.addPage()
}
function heading(doc: Doc, text: string) {
  room(doc, 60)
  doc.moveDown(0.8).font('bold').fontSize(13).fillColor(INK).text(plain(text), PAGE.margin)
  doc
    .moveTo(PAGE.margin, doc.y + 1)
    .lineTo(doc.page.width - PAGE.margin, doc.y + 1)
    .lineWidth(0.5)
    .stroke(LINE)
  doc.moveDown(0.4)
}
function line(doc: Doc, bold: string, rest = '', colour = INK) {
  room(doc, 30)
  doc
    .fontSize(10)
    .fillColor(colour)
    .font('bold')
    .text(plain(bold), PAGE.margin, doc.y, { continued: rest !== '' })
  if (rest)
    doc
      .font('regular')
      .fillColor(INK)
      .text(` ${plain(rest)}`)
}
const note = (doc: Doc, text: string) => {
  room(doc, 16)
  doc.font('regular').fontSize(9).fillColor(SOFT).text(plain(text), PAGE.margin)
}

function drawFinding(doc: Doc, report: Report, f: ReportFinding, layout: Layout, top: number) {
  const face = report.faces.find(x => x.id === f.faceId)!
  const outline = placeOutline(f.place, face, FINDINGS[f.kind].round)
  if (!outline) return
  const scale = layout.px_per_mm
  const copies = layout.faces.filter(l => l.faceId === f.faceId && (f.place.copy === 0 || l.copy === f.place.copy))
  for (const [i, laid] of copies.entries()) {
    const at = (p: readonly [number, number]): [number, number] => [
      PAGE.margin + laid.x + p[0] * scale,
      top + laid.y + p[1] * scale,
    ]
    const ring = (outline[0] as [number, number][]).map(at)
    doc
      .save()
      .rect(PAGE.margin + laid.x, top + laid.y, laid.w, laid.h)
      .clip()
      .polygon(...ring)
      .fillOpacity(0.25)
      .lineWidth(0.8)
      .fillAndStroke(MADDER, MADDER)
      .restore()
    if (i > 0) continue
    const cx = ring.reduce((s, p) => s + p[0], 0) / ring.length
    const cy = ring.reduce((s, p) => s + p[1], 0) / ring.length
    doc
      .fillOpacity(1)
      .circle(cx, cy, 6)
      .fill(INK)
      .fillColor('#ffffff')
      .font('bold')
      .fontSize(7)
      .text(String(f.number), cx - 6, cy - 3.5, { width: 12, align: 'center', lineBreak: false })
  }
}

/** Faces to scale with their numbered findings. */
function faces(doc: Doc, report: Report) {
  heading(doc, 'Faces and findings')
  const width = doc.page.width - 2 * PAGE.margin
  const layout = layFaces(report.faces, width, 300)
  room(doc, layout.height + 40)
  const top = doc.y
  for (const p of layout.parts)
    doc
      .font('bold')
      .fontSize(8)
      .fillColor(SOFT)
      .text(plain(p.part), PAGE.margin + p.x, top + p.y - 9, { lineBreak: false })
  for (const f of layout.faces)
    doc
      .rect(PAGE.margin + f.x, top + f.y, f.w, f.h)
      .lineWidth(0.7)
      .fillAndStroke('#fafaf8', INK)
  for (const f of report.findings) drawFinding(doc, report, f, layout, top)
  const mark = scaleMark_mm(layout.px_per_mm, width)
  const y = top + layout.height + 10
  doc
    .moveTo(PAGE.margin, y)
    .lineTo(PAGE.margin + mark * layout.px_per_mm, y)
    .lineWidth(1.5)
    .stroke(INK)
  doc
    .font('regular')
    .fontSize(8)
    .fillColor(SOFT)
    .text(`${mark} mm, one scale for all faces; turned faces are unrolled`, PAGE.margin, y + 4)
  doc.x = PAGE.margin
  doc.moveDown(0.6)
  for (const f of report.findings) {
    const face = report.faces.find(x => x.id === f.faceId)!
    const drawn =
      f.place.shape === 'face'
        ? 'the whole face'
        : `${Math.round(f.place.x_mm)}, ${Math.round(f.place.y_mm)} mm from the corner`
    const size = f.place.shape === 'unplaced' ? 'not drawn' : drawn
    line(
      doc,
      `${f.number}  ${words(f.kind)}, grade ${f.grade}.`,
      `${face.part}, ${face.name}; ${size}; ` +
        `${f.wish}.${f.note ? ` ${f.note}.` : ''}` +
        `${f.photographs.length ? ` Photographs: ${f.photographs.length}.` : ''}`,
    )
  }
  if (!report.findings.length) note(doc, 'Nothing was found.')
  for (const f of report.faces)
    note(
      doc,
      `${f.part}, ${f.name}: ${f.copies > 1 ? `${f.copies} × ` : ''}${f.length_typed} × ${f.width_typed} ` +
        `(${Math.round(outline_mm(f).w)} × ${Math.round(outline_mm(f).h)} mm), ${f.species}, ` +
        `${f.substrate}${f.veneer_mm ? ` ${f.veneer_mm} mm` : ''}, finish ${f.finishGroup}`,
    )
}

function photographs(doc: Doc, report: Report) {
  const shown = report.photographs.filter(p => p.data_base64)
  if (!shown.length) return
  heading(doc, 'Photographs')
  const box = (doc.page.width - 2 * PAGE.margin - 12) / 2
  for (let i = 0; i < shown.length; i += 2) {
    room(doc, 190)
    const top = doc.y
    for (const [k, p] of shown.slice(i, i + 2).entries()) {
      const x = PAGE.margin + k * (box + 12)
      doc.image(Buffer.from(p.data_base64!, 'base64'), x, top, {
        fit: [box, 160],
        alt: plain(p.caption || 'Photograph'),
      } as never)
      doc
        .font('regular')
        .fontSize(8)
        .fillColor(SOFT)
        .text(plain(`${p.caption || 'Photograph'}${p.taken_at ? `, ${day(p.taken_at)}` : ''}`), x, top + 164, {
          width: box,
        })
    }
    doc.y = top + 182
  }
}

const dryness = (m: { verdict: string; likely_d: number | null }) => {
  const days = m.likely_d ? `, about ${Math.ceil(m.likely_d)} days` : ''
  return m.verdict === 'wait' ? `Too wet to finish${days}.` : 'Dry enough.'
}

/** The condition report as PDF: A4, tagged, fonts embedded. */
export const reportPdf = (fonts: Fonts, report: Report): Promise<Uint8Array> =>
  pdfOf(
    fonts,
    { ...PAGE, info: { Title: `Condition report: ${report.piece.name}` }, lang: 'en' } as PDFKit.PDFDocumentOptions,
    doc => {
      const { piece } = report
      doc.font('regular').fontSize(10).fillColor(SOFT).text(plain(report.shop), PAGE.margin)
      doc.font('bold').fontSize(22).fillColor(INK).text(plain(piece.name))
      doc
        .font('regular')
        .fontSize(11)
        .text(
          plain(
            `Condition report for ${piece.client}. ` +
              `${day(report.made_at)}${report.name === 'now' ? '' : `, "${report.name}"`}.`,
          ),
        )
      note(
        doc,
        `Taken in ${day(piece.taken_in_at)}. Made ` +
          `${MADE[piece.period] ?? piece.period}; ` +
          `refinished before: ${piece.refinished}.${piece.keep_patina ? ' The patina is kept.' : ''} ` +
          `${piece.note}`,
      )
      if (report.verdicts.length) heading(doc, 'What to mind')
      for (const v of report.verdicts) {
        line(doc, `${SEVERITY[v.severity]}: ${v.says}.`, `${v.reasons.join(' ')} ${v.mend}`, blocks(v) ? MADDER : INK)
        if (v.overruled) note(doc, `Overruled by ${v.overruled.by}: ${v.overruled.word}`)
      }
      faces(doc, report)
      heading(doc, 'The finish')
      for (const c of report.conclusions) {
        const tested = report.tests.some(t => t.group === c.group && t.layer === c.layer)
        const read = tested ? `${words(c.finish)}, ${percent(c.certainty)} sure` : 'not tested'
        const found = c.overruled
          ? `${words(c.overruled.finish)}, by ${c.overruled.by}'s word (${c.overruled.word})`
          : read
        line(
          doc,
          `Finish ${c.group}${c.layer > 1 ? `, layer ${c.layer}` : ''}: ` + `${found}.`,
          tested ? `Second guess ${words(c.second)}. ` + (JUDGED[c.verdict] ?? '') : '',
        )
      }
      for (const t of report.tests)
        note(
          doc,
          `${t.group}${t.layer > 1 ? t.layer : ''} ${words(t.test)}: ${t.result}. ` +
            `${t.spot ? `${t.spot}. ` : ''}${t.by}, ${day(t.at)}`,
        )
      note(doc, 'Certainty is worked out from shop default likelihoods and is never called more than 95 %.')
      heading(doc, 'Hazards')
      for (const h of report.hazards)
        line(
          doc,
          `${h.name}: ` + `${HAZARD_STANDING[h.standing]}.`,
          `${h.why} ${h.evidence.map(e => `${e.answer}: ${e.method} (${e.by}, ${day(e.at)}).`).join(' ')}`,
        )
      if (!report.hazards.length) note(doc, 'None was raised.')
      if (report.moisture.length) heading(doc, 'Moisture')
      for (const m of report.moisture) {
        const face = report.faces.find(f => f.id === m.faceId)
        line(
          doc,
          `${face?.part}, ${face?.name}: ${m.reading_pct} %.`,
          `${
            m.equilibrium_pct === null
              ? 'The air was not known.'
              : `Equilibrium ${m.equilibrium_pct.toFixed(1)} %. ` + dryness(m)
          } ` + `${m.by}, ${day(m.at)}`,
        )
      }
      if (report.items.length) heading(doc, 'Parts, hardware and marks')
      for (const i of report.items)
        line(
          doc,
          `${i.mark}  ${i.count} × ${i.name}.`,
          `${i.keep ? 'Kept: it is not sanded away.' : words(i.state)}` +
            `${i.place ? `, in ${i.place}` : ''}${i.out ? `, ${i.out} off, ${i.back ?? 0} back` : ''}. ${i.note}`,
        )
      if (report.patches.length) heading(doc, 'Timed patches')
      for (const p of report.patches)
        line(
          doc,
          `${p.method}: ${p.minutes} min on ${Math.round(p.length_mm)} × ${Math.round(p.width_mm)} mm, ` +
            `${words(p.result)}.`,
          `Scaled to the piece: ${Math.round(p.piece_min)} min. ${p.note}`,
        )
      photographs(doc, report)
      heading(doc, 'What was not examined')
      for (const n of report.notExamined) note(doc, n)
      if (!report.notExamined.length) note(doc, 'Nothing was left out.')
      heading(doc, 'The walk round the piece')
      for (const w of report.walk)
        note(
          doc,
          `${w.key.includes('|') ? `${w.key.split('|')[1]}: ` : ''}${w.asks} ` +
            `${w.options.map(words).join(', ')}. ${w.by}, ${day(w.at)}`,
        )
      doc.moveDown()
      note(doc, 'Cautions defer to safety data sheets, local rules and licensed practice.')
    },
  )
