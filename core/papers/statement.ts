/** At the end: what was done and what it comes to, actual against what was agreed. A plain document, no bookkeeping. */
import type { Paper } from './paper'
import { type Money, percentSaid } from './quotation'

export interface StatementLine {
  says: string
  /** minutes of hands, planned and worked */
  planned_min: number
  worked_min: number
}
export interface Statement {
  id: number
  shop: string
  client: string
  piece: string
  madeOn: string
  lines: readonly StatementLine[]
  /** net, minor units: as worked and used */
  labour_minor: number
  materials_minor: number
  extras: readonly { says: string; price_minor: number }[]
  tax_bp: number
  tax_minor: number
  /** with tax and extras */
  actual_minor: number
  /** null: nothing was agreed */
  agreed_minor: number | null
  worst_minor: number | null
  /** kept beyond the free days; null: not */
  storage: { days: number; minor: number } | null
  /** paid already */
  deposit_minor: number
}
const min = (n: number) => `${Math.round(n)} min`

export function statementPaper(s: Statement, money: Money): Paper {
  const stored = s.storage?.minor ?? 0
  const charged = s.agreed_minor === null ? s.actual_minor : Math.min(s.actual_minor, s.worst_minor ?? s.agreed_minor)
  const left = charged + stored - s.deposit_minor
  return {
    title: `Work done: ${s.piece}`,
    from: [s.shop, s.madeOn],
    foot: `${s.shop} · piece ${s.id}`,
    parts: [
      { kind: 'text', text: `For ${s.client}`, tone: 'strong' },
      { kind: 'heading', text: 'What was done' },
      {
        kind: 'table',
        says: 'Work by stage, planned and worked minutes',
        columns: [
          { head: 'Work', share: 0.6 },
          { head: 'Planned', share: 0.2, figures: true },
          { head: 'Worked', share: 0.2, figures: true },
        ],
        rows: [
          ...s.lines.map(l => [l.says, min(l.planned_min), min(l.worked_min)]),
          [
            'Together',
            min(s.lines.reduce((sum, l) => sum + l.planned_min, 0)),
            min(s.lines.reduce((sum, l) => sum + l.worked_min, 0)),
          ],
        ],
        totals: 1,
      },
      { kind: 'heading', text: 'What it comes to' },
      {
        kind: 'table',
        says: 'Charge by lines, with tax and sum',
        columns: [
          { head: 'What', share: 0.7 },
          { head: 'Price', share: 0.3, figures: true },
        ],
        rows: [
          ['Hands at work', money(s.labour_minor)],
          ['Materials', money(s.materials_minor)],
          [`Tax, ${percentSaid(s.tax_bp)}`, money(s.tax_minor)],
          ...s.extras.map(e => [`${e.says} (with tax)`, money(e.price_minor)]),
          ['Sum as worked', money(s.actual_minor)],
          ...(s.storage
            ? [[`Storage, ${s.storage.days} ${s.storage.days === 1 ? 'day' : 'days'}`, money(stored)]]
            : []),
          ...(s.deposit_minor > 0 ? [['Paid before', money(-s.deposit_minor)]] : []),
          [left < 0 ? 'To give back' : 'To pay', money(Math.abs(left))],
        ],
        totals: 1,
      },
      ...(s.agreed_minor === null
        ? [{ kind: 'text' as const, text: 'No price was agreed beforehand.', tone: 'small' as const }]
        : [
            {
              kind: 'text' as const,
              text:
                `Agreed: ${money(s.agreed_minor)} likely, ${money(s.worst_minor ?? s.agreed_minor)} at worst. ` +
                'Never more is charged than the worst that was agreed.',
              tone: 'small' as const,
            },
          ]),
    ],
  }
}
