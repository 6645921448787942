/** A quotation by version, kept as it was given. */
import type { z } from 'zod'
import { doneSaid } from '#core/acts'
import { canonicalJson, type Json } from '#core/approval'
import { estimate } from '#core/estimate'
import { type Paper, type PaperSize, type QuotationLine, quotationPaper } from '#core/papers'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { readExtras } from '../client/extras'
import { workedOut } from '../client/figures'
import { freshOutlook } from '../client/outlook'
import { readPiece } from '../piece/read'
import { faceArea, type PieceFile } from '../piece/rows'
import { readAsking } from '../plan/asking'
import { type PlannedStep, readPlan } from '../plan/rows'
import { minutesOf, stagesOf } from '../plan/stages'
import { DAY_MS, sha256 } from '../platform/digest'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { readShop, type ShopRow } from '../shop/rows'
import { dayIn, moneyIn } from '../shop/words'
import { paperFile } from './paper'

const asJson = (paper: Paper) => canonicalJson(JSON.parse(JSON.stringify(paper)) as Json)
/** A new version of a piece's quotation, from its plan as it stands; kept as it was given. */
export async function quote(id: number, { words, by }: z.output<typeof s.quote>, person: Person, at: Date) {
  await freshOutlook(id, at)
  return transaction(async tx => {
    const file = await readPiece(tx, id, true)
    const plan = await readPlan(tx, file)
    const live = plan.steps.filter(st => st.state !== 'skipped')
    if (live.length === 0) throw fail(409, 'no-route', 'Choose a route first; then there is something to quote.')
    const [shop, asking, extras] = [await readShop(tx), await readAsking(at, tx), await readExtras(tx, id)]
    const figures = await workedOut(tx, id, at, asking)
    const price = (slug: string) => (Object.hasOwn(asking.prices, slug) ? asking.prices[slug] : undefined)
    const sum = estimate(live, asking.rates, price)
    const day = dayIn(shop)
    const { n } = (await tx.row<{ n: number }>(
      'SELECT COALESCE(MAX(version), 0) + 1 AS n FROM quotation WHERE piece_id = :id',
      { id },
    ))!
    const parts = by === 'part' ? partLines(live, file, sum) : []
    // where no step lies on a face, stages say it
    const lines = [...(parts.length ? parts : stageLines(live, sum, shop)), ...extraLines(extras, shop)]
    const validUntil = new Date(at.getTime() + shop.quote_days * DAY_MS)
    const paper = quotationPaper(
      {
        ...{ no: `${id}-${n}`, shop: shop.name, client: file.piece.client_name, piece: file.piece.name },
        ...{ madeOn: day(at), validUntil: day(validUntil), work: doneSaid(live), lines, tax_bp: shop.tax_bp },
        tax_minor: figures.likely_minor - lines.reduce((net, l) => net + l.net_minor, 0),
        ...{ total_minor: figures.likely_minor, worst_minor: figures.worst_minor, deposit_bp: shop.deposit_bp },
        ...{ readyLikely: day(figures.readyLikely), readySafe: day(figures.readySafe), gate: figures.told.gate },
        words: words || shop.quote_words,
      },
      moneyIn(shop.currency),
    )
    const content = asJson(paper)
    const made = await tx.run(
      `INSERT INTO quotation (
          piece_id, version, made_at, person_id, valid_until, total_minor, worst_minor, content, sha256
        )
          VALUES (:id, :n, :at, :personId, :validUntil, :total, :worst, :content, :sha)`,
      {
        ...{ id, n, at, personId: person.id, validUntil: validUntil.toISOString().slice(0, 10) },
        ...{ total: figures.likely_minor, worst: figures.worst_minor, content, sha: sha256(content) },
      },
    )
    await log(tx, {
      ...{ pieceId: id, kind: 'asked', says: `Quotation ${id}-${n} made`, at, recordedAt: at, personId: person.id },
    })
    await tell(tx, 'piece', id, at)
    return { id: made.id, version: n }
  })
}

type Estimated = ReturnType<typeof estimate>
/** The last line takes what rounding leaves, so that lines make their sum. */
function levelled(lines: QuotationLine[], sum_minor: number): QuotationLine[] {
  const last = lines.at(-1)
  if (last) last.net_minor += sum_minor - lines.reduce((net, l) => net + l.net_minor, 0)
  return lines
}
/** Labour by stage, then materials; net. */
function stageLines(
  live: readonly PlannedStep[],
  { labour_minor, materials_minor }: Estimated,
  { hour_minor }: Pick<ShopRow, 'hour_minor'>,
): QuotationLine[] {
  const labour = stagesOf(live)
    .map(({ says, steps }) => ({ says, minutes: minutesOf(steps) }))
    .filter(l => l.minutes > 0)
    .map(l => ({ ...l, net_minor: Math.round((l.minutes / 60) * hour_minor) }))
  return [...levelled(labour, labour_minor), { says: 'Materials', minutes: null, net_minor: materials_minor }]
}
/** Labour and materials together by part, each step shared out by the area of its faces; net. */
function partLines(live: readonly PlannedStep[], { faces }: PieceFile, { net_minor }: Estimated): QuotationLine[] {
  const area = new Map(faces.map(f => [f.id, faceArea(f)]))
  const minutes = new Map<string, number>()
  for (const st of live) {
    const its = faces.filter(f => st.faces.includes(f.id))
    const all = its.reduce((sum, f) => sum + area.get(f.id)!, 0)
    for (const f of its)
      minutes.set(f.part, (minutes.get(f.part) ?? 0) + (st.attended_min * area.get(f.id)!) / Math.max(all, 1e-9))
  }
  const total = [...minutes.values()].reduce((sum, m) => sum + m, 0)
  if (total === 0) return []
  const lines = [...minutes].map(([says, m]) => ({
    ...{ says, minutes: m },
    net_minor: Math.round((m / total) * net_minor),
  }))
  return levelled(lines, net_minor)
}
const extraLines = (
  extras: readonly { says: string; price_minor: number }[],
  { tax_bp }: Pick<ShopRow, 'tax_bp'>,
): QuotationLine[] =>
  extras.map(e => ({ says: e.says, minutes: null, net_minor: Math.round(e.price_minor / (1 + tax_bp / 10_000)) }))

export interface QuotationRow {
  id: number
  piece_id: number
  version: number
  made_at: Date
  valid_until: string
  total_minor: number
  worst_minor: number
}
export const readQuotations = (pieceId: number) =>
  db().rows<QuotationRow>(
    `SELECT id, piece_id, version, made_at, valid_until, total_minor, worst_minor
        FROM quotation
        WHERE piece_id = :pieceId
        ORDER BY version DESC`,
    { pieceId },
  )
/** @param pieceId the piece that it must be of, where a client's link asks for it */
export async function quotationFile(id: number, size: PaperSize | undefined, pieceId: number | null = null) {
  const row = await db().row<{ content: string; piece_id: number; version: number }>(
    'SELECT content, piece_id, version FROM quotation WHERE id = :id',
    { id },
  )
  if (!row || (pieceId !== null && row.piece_id !== pieceId)) throw notFound('quotation')
  const data = await paperFile(JSON.parse(row.content) as Paper, size, await readShop())
  return { name: `quotation-${row.piece_id}-${row.version}.pdf`, data }
}
