import type { z } from 'zod'
import { canonicalJson, type Json } from '#core/approval'
import { compareReports, REPORT_FORMAT, REPORT_VERSION, type Report } from '#core/report'
import { reportSchema } from '#shared/report'
import type * as s from '#shared/schemas'
import { db } from '../database/db'
import { sha256 } from './approvals'
import { examinationPage } from './examination'
import type { Person } from './people'
import { onPiece, readPiece } from './pieces'
import { readShop } from './shop'
import { reportPdf } from './reportPdf'

/** The report of a piece as it is known now, with its pictures. */
async function reportNow(id: number, person: Person, at: Date, name: string): Promise<Report> {
  const [page, { piece, evidence, answers, moisture, items, faces }, shop] = await Promise.all([examinationPage(id, person, at), readPiece(db(), id), readShop()])
  const pictures = await db().rows<{ address: string, picture: Buffer }>('SELECT address, picture FROM photograph WHERE piece_id = :id', { id })
  const asked = new Map(page.walk.questions.map(q => [q.key, q.asks]))
  const iso = (d: Date) => d.toISOString()
  return {
    format: REPORT_FORMAT, version: REPORT_VERSION, made_at: iso(at), name, shop: shop.name,
    piece: { id, name: piece.name, client: piece.client_name, period: piece.period, refinished: piece.refinished, use: piece.use_kind, keep_patina: Boolean(piece.keep_patina), lead: piece.lead_answer, taken_in_at: iso(piece.taken_in_at), note: piece.note },
    faces: page.faces.map(({ partId: _part, veneer_typed: _veneer, rowVersion: _version, ...f }) => f),
    findings: page.findings.map(({ number, faceId, kind, grade, wish, place, note, photographs }) => ({ number, faceId, kind, grade, wish, place, note, photographs })),
    tests: page.tests.map(t => ({ group: t.finish_group, layer: t.layer, test: t.test, result: t.result, spot: t.spot, by: t.by_name, at: iso(t.at) })),
    conclusions: page.finishes.flatMap(g => g.layers.map(l => ({ group: g.group, layer: l.layer, finish: l.finish, certainty: l.certainty, second: l.ranked[1]!.finish, verdict: l.verdict, overruled: l.overruled ? { finish: l.overruled.value ?? '', word: l.overruled.word, by: l.overruled.by } : null }))),
    hazards: page.hazards.map(h => ({ slug: h.slug, name: h.name, standing: h.standing, why: h.why, forbids: [...h.forbids], evidence: evidence.filter(e => e.kind === h.slug).map(e => ({ answer: e.answer, method: e.method, by: e.by_name, at: iso(e.at) })) })),
    walk: [...new Map(answers.map(a => [a.question, a])).values()].map(a => ({ key: a.question, asks: asked.get(a.question) ?? a.question, options: a.options.split(','), by: a.by_name, at: iso(a.at) })),
    moisture: page.moisture.flatMap(m => moisture.filter(r => r.face_id === m.faceId).slice(-1).map(r => ({ faceId: m.faceId, reading_pct: r.reading_pct, thickness_mm: r.thickness_mm, by: r.by_name, at: iso(r.at), verdict: m.verdict, equilibrium_pct: m.equilibrium_pct, likely_d: m.likely_d }))),
    patches: page.patches.map(p => ({ method: p.method, faceId: p.faceId, length_mm: p.length_mm, width_mm: p.width_mm, minutes: p.minutes, result: p.result, note: p.note, piece_min: p.piece_min, by: p.by, at: iso(p.at) })),
    items: items.map(i => ({ mark: i.mark, name: i.name, state: i.state, count: i.count, out: i.taken_out, back: i.put_back, place: i.place, keep: i.kind === 'mark', note: i.note })),
    verdicts: page.verdicts.map(({ mayOverrule: _may, overruled, ...v }) => ({ ...v, overruled: overruled ? { word: overruled.word, by: overruled.by } : null })),
    notExamined: faces.length ? page.notExamined : ['no face was taken in'],
    photographs: page.photographs.map(p => ({ address: p.address, caption: p.caption, taken_at: p.taken_at ? iso(p.taken_at) : null, width: p.width, height: p.height, before: p.before_address, data_base64: pictures.find(x => x.address === p.address)?.picture.toString('base64') ?? null })),
  }
}

const keep = (id: number, content: string, more: { name: string, origin: 'here' | 'read-in', says: string }, person: Person, at: Date) => onPiece(id, at, person, async (tx) => {
  const made = await tx.run('INSERT INTO examination (piece_id, name, at, person_id, origin, content, sha256) VALUES (:id, :name, :at, :personId, :origin, :content, :sha)', { ...more, id, at, personId: person.id, content, sha: sha256(content) })
  return { kind: 'examination', says: more.says, result: { id: made.id } }
})

/** Keeps the examination as it stands, unchangeable, to be compared with later ones. */
export async function saveExamination(id: number, input: z.infer<typeof s.saveExamination>, person: Person, at: Date) {
  const content = canonicalJson(await reportNow(id, person, at, input.name) as unknown as Json)
  return keep(id, content, { name: input.name, origin: 'here', says: `Examination kept: ${input.name}` }, person, at)
}

/** Reads a report file and keeps it with this piece, unchanged. @throws Fail 422 with the field that does not fit. */
export async function readIn(id: number, file: string, person: Person, at: Date) {
  let parsed: unknown
  try { parsed = JSON.parse(file) }
  catch { throw fail(422, 'invalid', 'This file is no readable JSON.') }
  const head = parsed as { format?: unknown, version?: unknown } | null
  if (head?.format !== REPORT_FORMAT) throw fail(422, 'invalid', 'This file is no condition report of this kind.')
  if (head.version !== REPORT_VERSION) throw fail(422, 'invalid', `This report has version ${String(head.version)}; version ${REPORT_VERSION} can be read here.`)
  const report = reportSchema.safeParse(parsed)
  if (!report.success) {
    const issue = report.error.issues[0]!
    throw fail(422, 'invalid', `The report does not fit its format at "${issue.path.join('.')}": ${issue.message}`)
  }
  const content = canonicalJson(report.data as unknown as Json)
  return keep(id, content, { name: report.data.name || report.data.made_at.slice(0, 10), origin: 'read-in', says: `Report read in: ${report.data.piece.name}, ${report.data.shop}, ${report.data.made_at.slice(0, 10)}` }, person, at)
}

export const listExaminations = async (id: number) => {
  await readPiece(db(), id)
  return db().rows<{ id: number, name: string, at: Date, origin: 'here' | 'read-in', sha256: string, by_name: string }>('SELECT e.id, e.name, e.at, e.origin, e.sha256, person.name AS by_name FROM examination e JOIN person ON person.id = e.person_id WHERE e.piece_id = :id ORDER BY e.id', { id })
}

async function contentOf(id: number, which: 'now' | number, person: Person, at: Date): Promise<string> {
  if (which === 'now') return canonicalJson(await reportNow(id, person, at, 'now') as unknown as Json)
  const row = await db().row<{ content: string }>('SELECT content FROM examination WHERE id = :which AND piece_id = :id', { which, id })
  if (!row) throw notFound('examination')
  return row.content
}

export async function reportFile(id: number, query: z.infer<typeof s.reportQuery>, person: Person, at: Date) {
  const content = await contentOf(id, query.which, person, at)
  const name = `condition-report-${id}-${query.which}.${query.format}`
  if (query.format === 'json') return { name, type: 'application/json; charset=utf-8', data: content }
  return { name, type: 'application/pdf', data: await reportPdf(JSON.parse(content) as Report) }
}

export async function comparison(id: number, query: z.infer<typeof s.compareQuery>, person: Person, at: Date) {
  const [before, after] = await Promise.all([query.before, query.after].map(async which => JSON.parse(await contentOf(id, which, person, at)) as Report))
  const picture = (r: Report) => r.photographs[0]?.address ?? null
  return { before: { name: before!.name, made_at: before!.made_at, shop: before!.shop, picture: picture(before!) }, after: { name: after!.name, made_at: after!.made_at, shop: after!.shop, picture: picture(after!) }, ...compareReports(before!, after!) }
}
