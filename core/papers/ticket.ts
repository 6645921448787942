/** The bench ticket of a piece: every step with its waits, amounts and cautions, to hang beside the work. */
import type { Paper, PaperPart } from './paper'
import { heading, listUnder } from './parts'

export interface TicketStep {
  title: string
  faces: string
  minutes: number
  amount: string
  /** earliest begin and window after the step before, in words */
  wait: string
  cautions: readonly string[]
  done: boolean
}
export interface Ticket {
  id: number
  piece: string
  client: string
  shop: string
  madeOn: string
  dueOn: string
  /** layers from the wood upward, in words */
  surface: readonly string[]
  marks: readonly string[]
  /** the cut as it will be; null: nothing is planned */
  section: (PaperPart & { kind: 'drawing' }) | null
  steps: readonly TicketStep[]
  /** opens the piece's page in the shop */
  address: string
}
export function ticketPaper(t: Ticket): Paper {
  const cautions = [...new Set(t.steps.filter(s => !s.done).flatMap(s => s.cautions))]
  const parts: PaperPart[] = [
    { kind: 'code', address: t.address, says: `Opens piece ${t.id}` },
    {
      kind: 'facts',
      rows: [
        ['For', t.client],
        ['Promised', t.dueOn || 'no day'],
        ...(t.surface.length ? [['Surface', t.surface.join(' · ')] as const] : []),
        ...(t.marks.length ? [['Keep', t.marks.join(', ')] as const] : []),
      ],
    },
    ...(t.section ? [t.section] : []),
    heading('Steps'),
    {
      kind: 'table',
      says: 'Steps in order, with waits, minutes and amounts',
      columns: [
        { head: '', share: 0.05 },
        { head: 'Step', share: 0.43 },
        { head: 'After the step before', share: 0.24 },
        { head: 'Min', share: 0.1, figures: true },
        { head: 'Amount', share: 0.18, figures: true },
      ],
      rows: t.steps.map(s => [
        s.done ? 'x' : '',
        s.faces ? `${s.title} (${s.faces})` : s.title,
        s.wait,
        s.minutes > 0 ? String(Math.round(s.minutes)) : '',
        s.amount,
      ]),
    },
    ...listUnder('Take care', cautions),
  ]
  return { title: `${t.id} ${t.piece}`, from: [t.shop, t.madeOn], parts, foot: `${t.shop} · piece ${t.id}` }
}
