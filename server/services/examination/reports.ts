import type { z } from 'zod'
import { REPORT_FORMAT, REPORT_VERSION, type Report } from '#core/report'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import { onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import { readFonts, sizeOf } from '../papers/paper'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { examinationPage } from './page'

/** The report of a piece as it is known now, with its pictures. */
async function reportNow(id: number, person: Person, at: Date, name: string): Promise<Report> {
  const [page, { piece, evidence, answers, moisture, items, faces }, shop] = await Promise.all([
    examinationPage(id, person, at),
    readPiece(db(), id),
    readShop(),
  ])
  const pictures = await db().rows<{ address: string; picture: Buffer }>(
    'SELECT address, picture FROM photograph WHERE piece_id = :id',
    { id },
  )
  const asked = new Map(page.walk.questions.map(q => [q.key, q.asks]))
  const iso = (d: Date) => d.toISOString()
  return {
    format: REPORT_FORMAT,
    version: REPORT_VERSION,
    made_at: iso(at),
    name,
    shop: shop.name,
    piece: {
      id,
      name: piece.name,
      client: piece.client_name,
      period: piece.period,
      refinished: piece.refinished,
      use: piece.use_kind,
      keep_patina: Boolean(piece.keep_patina),
      lead: piece.lead_answer,
      taken_in_at: iso(piece.taken_in_at),
      note: piece.note,
    },
    faces: page.faces.map(({ partId: _part, veneer_typed: _veneer, rowVersion: _version, ...f }) => f),
    findings: page.findings.map(({ number, faceId, kind, grade, wish, place, note, photographs }) => ({
      number,
      faceId,
      kind,
      grade,
      wish,
      place,
      note,
      photographs,
    })),
    tests: page.tests.map(t => ({
      group: t.finish_group,
      layer: t.layer,
      test: t.test,
      result: t.result,
      spot: t.spot,
      by: t.by_name,
      at: iso(t.at),
    })),
    conclusions: page.finishes.flatMap(g =>
      g.layers.map(l => ({
        group: g.group,
        layer: l.layer,
        finish: l.finish,
        certainty: l.certainty,
        second: l.ranked[1]!.finish,
        verdict: l.verdict,
        overruled: l.overruled ? { finish: l.overruled.value ?? '', word: l.overruled.word, by: l.overruled.by } : null,
      })),
    ),
    hazards: page.hazards.map(h => ({
      slug: h.slug,
      name: h.name,
      standing: h.standing,
      why: h.why,
      forbids: [...h.forbids],
      evidence: evidence
        .filter(e => e.kind === h.slug)
        .map(e => ({ answer: e.answer, method: e.method, by: e.by_name, at: iso(e.at) })),
    })),
    walk: [...new Map(answers.map(a => [a.question, a])).values()].map(a => ({
      key: a.question,
      asks: asked.get(a.question) ?? a.question,
      options: a.options.split(','),
      by: a.by_name,
      at: iso(a.at),
    })),
    moisture: page.moisture.flatMap(m =>
      moisture
        .filter(r => r.face_id === m.faceId)
        .slice(-1)
        .map(r => ({
          faceId: m.faceId,
          reading_pct: r.reading_pct,
          thickness_mm: r.thickness_mm,
          by: r.by_name,
          at: iso(r.at),
          verdict: m.verdict,
          equilibrium_pct: m.equilibrium_pct,
          likely_d: m.likely_d,
        })),
    ),
    patches: page.patches.map(p => ({
      method: p.method,
      faceId: p.faceId,
      length_mm: p.length_mm,
      width_mm: p.width_mm,
      minutes: p.minutes,
      result: p.result,
      note: p.note,
      piece_min: p.piece_min,
      by: p.by,
      at: iso(p.at),
    })),
    items: items.map(i => ({
      mark: i.mark,
      name: i.name,
      state: i.state,
      count: i.count,
      out: i.taken_out,
      back: i.put_back,
      place: i.place,
      keep: i.kind === 'mark',
      note: i.note,
    })),
    verdicts: page.verdicts.map(({ mayOverrule: _may, overruled, ...v }) => ({
      ...v,
      overruled: overruled ? { word: overruled.word, by: overruled.by } : null,
    })),
    notExamined: faces.length ? page.notExamined : ['no face was taken in'],
    photographs: page.photographs.map(p => ({
      address: p.address,
      caption: p.caption,
      taken_at: p.taken_at ? iso(p.taken_at) : null,
      width: p.width,
      height: p.height,
      before: p.before_address,
      data_base64: pictures.find(x => x.address === p.address)?.picture.toString('base64') ?? null,
    })),
  }
}

export const MOST_BYTES = 25_000_000

interface Kept {
  content: string
  sha256: string
  name: string
  origin: 'here' | 'read-in'
  says: string
}
const keep = (id: number, kept: Kept, person: Person, at: Date) =>
  onPiece(id, at, person, async tx => {
    const made = await tx.run(
      `INSERT INTO examination (piece_id, name, at, person_id, origin, content, sha256)
          VALUES (:id, :name, :at, :personId, :origin, :content, :sha256)`,
      { ...kept, id, at, personId: person.id },
    )
    return { kind: 'examination', says: kept.says, result: { id: made.id } }
  })

/** Keeps the examination as it stands, unchangeable, to be compared with later ones. */
export async function saveExamination(id: number, input: z.infer<typeof s.saveExamination>, person: Person, at: Date) {
  const made = await inWorker('canonical', await reportNow(id, person, at, input.name))
  return keep(id, { ...made, name: input.name, origin: 'here', says: `Examination kept: ${input.name}` }, person, at)
}

/** Reads a report file and keeps it with this piece, unchanged. @throws Fail 422 with the field that does not fit. */
export async function readIn(id: number, file: string, person: Person, at: Date) {
  const { piece, shop, made_at, ...made } = await refusedInWorker(inWorker('readReport', file))
  return keep(
    id,
    {
      ...made,
      name: made.name.slice(0, 120),
      origin: 'read-in',
      says: `Report read in: ${piece}, ${shop}, ${made_at.slice(0, 10)}`,
    },
    person,
    at,
  )
}

export const listExaminations = async (id: number) => {
  await readPiece(db(), id)
  return db().rows<{ id: number; name: string; at: Date; origin: 'here' | 'read-in'; sha256: string; by_name: string }>(
    `SELECT e.id, e.name, e.at, e.origin, e.sha256, person.name AS by_name
        FROM examination e
        JOIN person ON person.id = e.person_id
        WHERE e.piece_id = :id
        ORDER BY e.id`,
    { id },
  )
}

/** The report as it is known now, as text. */
export const reportText = async (id: number, person: Person, at: Date): Promise<string> =>
  (await inWorker('canonical', await reportNow(id, person, at, 'now'))).content
async function contentOf(id: number, which: 'now' | number, person: Person, at: Date): Promise<string> {
  if (which === 'now') return reportText(id, person, at)
  const row = await db().row<{ content: string }>(
    'SELECT content FROM examination WHERE id = :which AND piece_id = :id',
    { which, id },
  )
  if (!row) throw notFound('examination')
  return row.content
}

export async function reportFile(id: number, query: z.infer<typeof s.reportQuery>, person: Person, at: Date) {
  const content = await contentOf(id, query.which, person, at)
  const name = `condition-report-${id}-${query.which}.${query.format}`
  if (query.format === 'json') return { name, type: 'application/json; charset=utf-8', data: content }
  const [fonts, shop] = [await readFonts(), await readShop()]
  const how = { fonts, zone: shop.zone, size: sizeOf(undefined, shop) }
  const data = Buffer.from(await inWorker('reportFilePdf', { content, plan: null, ...how }))
  return { name, type: 'application/pdf', data }
}

export async function comparison(id: number, query: z.infer<typeof s.compareQuery>, person: Person, at: Date) {
  const [before, after] = await Promise.all([query.before, query.after].map(which => contentOf(id, which, person, at)))
  return inWorker('compare', { before: before!, after: after! })
}
