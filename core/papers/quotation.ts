/** A quotation in lines that a client understands: work by stages, extras, tax, deposit, and how long it holds. */
import type { Paper, PaperPart } from './paper'

export interface QuotationLine {
  says: string
  /** hands at work, minutes; null: none are counted */
  minutes: number | null
  /** net, minor units */
  net_minor: number
}
export interface Quotation {
  no: string
  shop: string
  client: string
  piece: string
  /** days in words */
  madeOn: string
  validUntil: string
  work: readonly string[]
  lines: readonly QuotationLine[]
  tax_bp: number
  tax_minor: number
  total_minor: number
  worst_minor: number
  /** share of the likely price that is asked for before work begins */
  deposit_bp: number
  readyLikely: string
  readySafe: string
  /** what may fail, in words; null: nothing is foreseen */
  gate: string | null
  words: string
}
export type Money = (minor: number) => string
const BP = 10_000
const hoursSaid = (minutes: number) =>
  `${Math.floor(minutes / 60)} h ${String(Math.round(minutes % 60)).padStart(2, '0')}`
export const percentSaid = (bp: number) => `${Number((bp / 100).toFixed(2))} %`

export const quotationPaper = (q: Quotation, money: Money): Paper => {
  const deposit_minor = Math.round((q.total_minor * q.deposit_bp) / BP)
  const dearer = q.worst_minor > q.total_minor
  const parts: PaperPart[] = [
    { kind: 'text', text: `For ${q.client}`, tone: 'strong' },
    ...(q.words ? [{ kind: 'text' as const, text: q.words }] : []),
    { kind: 'heading', text: 'The work' },
    { kind: 'list', items: q.work },
    { kind: 'heading', text: 'The price' },
    {
      kind: 'table',
      says: 'The price by lines, with tax and sum',
      columns: [
        { head: 'What', share: 0.6 },
        { head: 'Hands at work', share: 0.18, figures: true },
        { head: 'Price', share: 0.22, figures: true },
      ],
      rows: [
        ...q.lines.map(l => [l.says, l.minutes === null ? '' : hoursSaid(l.minutes), money(l.net_minor)]),
        [`Tax, ${percentSaid(q.tax_bp)}`, '', money(q.tax_minor)],
        ['Sum', '', money(q.total_minor)],
      ],
      totals: 1,
    },
    {
      kind: 'facts',
      rows: [
        ...(dearer ? [['At worst', `${money(q.worst_minor)}. Beyond that we ask you first.`] as const] : []),
        ...(deposit_minor > 0
          ? [['Before work begins', `${money(deposit_minor)} (${percentSaid(q.deposit_bp)})`] as const]
          : []),
        ['Ready', `${q.readyLikely}; ${q.readySafe} at the latest`],
        ['This holds until', q.validUntil],
      ],
    },
    ...(q.gate ? [{ kind: 'text' as const, text: `This way may fail: ${q.gate}`, tone: 'small' as const }] : []),
  ]
  return {
    title: `Quotation ${q.no}: ${q.piece}`,
    from: [q.shop, q.madeOn],
    parts,
    foot: `${q.shop} · Quotation ${q.no}`,
  }
}
