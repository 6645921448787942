/** Papers of a piece: quotation, bench ticket, and the statement at its end. */
import { DateTime } from 'luxon'
import type { z } from 'zod'
import { cautionsOfStep, does, doneSaid, stageOf } from '#core/acts'
import { canonicalJson, type Json } from '#core/approval'
import { everyday } from '#core/build'
import { estimate } from '#core/estimate'
import { taken } from '#core/materials'
import {
  type Paper,
  type PaperSize,
  type QuotationLine,
  quotationPaper,
  recordPaper,
  statementPaper,
  ticketPaper,
} from '#core/papers'
import { cautionText } from '#core/safety'
import { saidSlug } from '#core/units'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { readPiece } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { readAsking } from '../plan/asking'
import { costOf, workedMin } from '../plan/cost'
import { type PlannedStep, readPlan } from '../plan/rows'
import { readUsed } from '../plan/used'
import { DAY_MS, sha256 } from '../platform/digest'
import { readFonts } from '../platform/labels'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { readShop, type ShopRow } from '../shop/rows'
import { readExtras } from './extras'
import { workedOut } from './figures'

/** A paper as PDF, in the size that is asked for, else the usual of the shop's units. */
export const paperFile = async (paper: Paper, size: PaperSize | undefined, shop: Pick<ShopRow, 'length_unit'>) =>
  inWorker('paperPdf', { fonts: await readFonts(), paper, size: size ?? (shop.length_unit === 'in' ? 'LETTER' : 'A4') })

const moneyIn = (currency: string) => (minor: number) =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency, currencyDisplay: 'code' }).format(minor / 100)
const dayIn = (shop: Pick<ShopRow, 'zone'>) => (at: Date | string) =>
  DateTime.fromJSDate(new Date(at), { zone: shop.zone }).setLocale('en-GB').toFormat('d LLLL yyyy')

const shortDayIn = (shop: Pick<ShopRow, 'zone'>) => (at: Date) =>
  DateTime.fromJSDate(at, { zone: shop.zone }).setLocale('en-GB').toFormat('d LLL yyyy')

/** Steps by stage of the work, in order. */
function stagesOf(steps: readonly PlannedStep[]): { says: string; steps: PlannedStep[] }[] {
  const stages = new Map<string, PlannedStep[]>()
  for (const st of steps) {
    const stage = stageOf(st.kind)
    if (stage !== 'word') stages.set(stage, [...(stages.get(stage) ?? []), st])
  }
  return [...stages.values()].map(own => ({ says: doneSaid(own)[0] ?? 'Looked at', steps: own }))
}
const minutesOf = (steps: readonly PlannedStep[]) => steps.reduce((sum, st) => sum + st.attended_min, 0)

const asJson = (paper: Paper) => canonicalJson(JSON.parse(JSON.stringify(paper)) as Json)
/** A new version of a piece's quotation, from its plan as it stands; kept as it was given. */
export const quote = (id: number, { words }: z.output<typeof s.quote>, person: Person, at: Date) =>
  transaction(async tx => {
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
    const lines = linesOf(live, sum, extras, shop)
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

/** Labour by stage, materials, extras; net, so that together they make the sum without tax. */
function linesOf(
  live: readonly PlannedStep[],
  { labour_minor, materials_minor }: ReturnType<typeof estimate>,
  extras: readonly { says: string; price_minor: number }[],
  { hour_minor, tax_bp }: Pick<ShopRow, 'hour_minor' | 'tax_bp'>,
): QuotationLine[] {
  const labour = stagesOf(live)
    .map(({ says, steps }) => ({ says, minutes: minutesOf(steps) }))
    .filter(l => l.minutes > 0)
    .map(l => ({ ...l, net_minor: Math.round((l.minutes / 60) * hour_minor) }))
  // each line is rounded by itself; the last takes what that leaves
  const last = labour.at(-1)
  if (last) last.net_minor += labour_minor - labour.reduce((net, l) => net + l.net_minor, 0)
  return [
    ...labour,
    { says: 'Materials', minutes: null, net_minor: materials_minor },
    ...extras.map(e => ({
      ...{ says: e.says, minutes: null },
      net_minor: Math.round(e.price_minor / (1 + tax_bp / 10_000)),
    })),
  ]
}

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

const hours = (minutes: number) => {
  if (minutes < 120) return `${Math.round(minutes)} min`
  return minutes < 2880 ? `${Math.round(minutes / 60)} h` : `${Math.round(minutes / 1440)} d`
}
const surfaceOf = ({ choice, context }: PieceFile) =>
  (choice?.buildUps ?? []).flatMap(b => b.layers.flatMap(l => everyday(l, context) ?? []))

export async function ticketFile(id: number, size: PaperSize | undefined, at: Date) {
  const file = await readPiece(db(), id)
  const plan = await readPlan(db(), file)
  const shop = await readShop()
  const day = dayIn(shop)
  const names = new Map(file.faces.map(f => [f.id, `${f.part}, ${f.name}`]))
  const all = file.faces.filter(f => f.scope === 'refinish').length
  const waitOf = (key: string) => {
    const before = plan.waits.filter(x => x.to === key)
    const least = Math.max(0, ...before.map(x => x.min ?? 0))
    const most = Math.min(Infinity, ...before.map(x => x.max ?? Infinity))
    const says = [least > 0 && `not before ${hours(least)}`, most < Infinity && `not after ${hours(most)}`]
    return says.filter(Boolean).join(', ')
  }
  const paper = ticketPaper({
    ...{ id, piece: file.piece.name, client: file.piece.client_name, shop: shop.name, madeOn: day(at) },
    ...{ dueOn: file.piece.due_on ? day(file.piece.due_on) : '', surface: surfaceOf(file), marks: file.facts.marks },
    steps: plan.steps
      .filter(st => st.state !== 'skipped' && st.kind !== 'approval')
      .map(st => ({
        title: st.title,
        faces: st.faces.length < all ? st.faces.map(f => names.get(f) ?? '').join('; ') : '',
        ...{ minutes: st.attended_min, amount: st.amount_ml === null ? '' : `${Math.round(st.amount_ml)} ml` },
        wait: waitOf(st.key),
        cautions: cautionsOfStep(st, file.context, { shared: Boolean(file.piece.one_room) && !st.outside }).map(
          cautionText,
        ),
        done: st.state === 'done',
      })),
    address: `${lanAddresses()[0] ?? useRuntimeConfig().publicBase}/pieces/${id}/plan`,
  })
  return { name: `ticket-${id}.pdf`, data: await paperFile(paper, size, shop) }
}

export async function statementFile(id: number, size: PaperSize | undefined, at: Date) {
  const file = await readPiece(db(), id)
  const plan = await readPlan(db(), file)
  const done = plan.steps.filter(st => st.state === 'done' && st.kind !== 'approval')
  if (done.length === 0) throw fail(409, 'nothing', 'Nothing of this piece is done yet.')
  const [shop, extras] = [await readShop(), await readExtras(db(), id)]
  const cost = await costOf(id, plan, extras)
  const extra_minor = extras.reduce((sum, e) => sum + e.price_minor, 0)
  const paper = statementPaper(
    {
      ...{ id, shop: shop.name, client: file.piece.client_name, piece: file.piece.name, madeOn: dayIn(shop)(at) },
      lines: stagesOf(done).map(({ says, steps }) => ({
        ...{ says, planned_min: minutesOf(steps) },
        worked_min: steps.reduce((sum, st) => sum + workedMin(st), 0),
      })),
      ...{ labour_minor: cost.labour_minor, materials_minor: cost.materials_minor, extras, tax_bp: shop.tax_bp },
      tax_minor: cost.soFar_minor - cost.labour_minor - cost.materials_minor,
      actual_minor: cost.soFar_minor + extra_minor,
      ...{ agreed_minor: file.piece.agreed_minor, worst_minor: file.piece.accepted_worst_minor },
    },
    moneyIn(shop.currency),
  )
  return { name: `work-done-${id}.pdf`, data: await paperFile(paper, size, shop) }
}

/** What was found, done, and how it comes off again; for owner or museum. */
export async function recordFile(id: number, size: PaperSize | undefined, at: Date) {
  const file = await readPiece(db(), id)
  const [plan, used, shop] = [await readPlan(db(), file), await readUsed(db(), id), await readShop()]
  const day = dayIn(shop)
  const done = plan.steps.filter(st => st.state === 'done' && st.kind !== 'approval')
  const names = new Map(file.faces.map(f => [f.id, `${f.part}, ${f.name}`]))
  const laid = done.flatMap(st =>
    does(st, 'finishes') || does(st, 'colours') ? (taken(file.context.shelf, st) ?? []) : [],
  )
  const paper = recordPaper({
    ...{ id, shop: shop.name, client: file.piece.client_name, piece: file.piece.name, madeOn: day(at) },
    takenInOn: day(file.piece.taken_in_at),
    found: file.facts.findings.map(f => `${names.get(f.faceId) ?? ''}: ${saidSlug(f.kind)}, grade ${f.grade} of 5`),
    finishes: file.concluded.finishes.flatMap(g =>
      g.layers.map(l => `Finish ${g.group}: ${saidSlug(l.finish)}, ${Math.round(l.certainty * 100)} % sure`),
    ),
    tests: file.tests.map(x => `Test ${saidSlug(x.test)}: ${x.result}`),
    steps: done.map(st => ({
      on: st.finished_ms === null ? '' : shortDayIn(shop)(new Date(st.finished_ms)),
      title: st.title,
      used: (used.get(st.id) ?? []).map(u => u.name).join('; '),
    })),
    materials: [...new Map(laid.map(m => [m.slug, m])).values()],
    kept: [...file.facts.marks, ...(file.piece.keep_patina ? ['its patina'] : [])],
  })
  return { name: `record-${id}.pdf`, data: await paperFile(paper, size, shop) }
}
