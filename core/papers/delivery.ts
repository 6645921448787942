/** The delivery note: what goes home, what goes along, what is still to be minded, and who took it. */
import type { Paper, PaperPart } from './paper'
import { listUnder } from './parts'

export interface DeliveryNote {
  id: number
  shop: string
  client: string
  piece: string
  madeOn: string
  /** what belongs to the piece: name, how many, where it is */
  along: readonly { name: string; count: number; says: string }[]
  /** null: it is still here, and is signed on paper */
  given: { to: string; on: string; signature: string; part: boolean } | null
  /** what is not back yet, or still cures */
  mind: readonly string[]
}
/** The box in which a signature is written on glass. */
export const SIGNATURE = { width: 300, height: 100 } as const
function givenParts({ to, on, signature, part }: NonNullable<DeliveryNote['given']>): PaperPart[] {
  const took: PaperPart = {
    kind: 'facts',
    rows: [['Taken by', to], ['On', on], ...(part ? [['As', 'part done'] as const] : [])],
  }
  if (!signature) return [took]
  const stroke = { 'd': signature, 'fill': 'none', 'stroke': '#1c211f', 'stroke-width': 2, 'stroke-linecap': 'round' }
  return [took, { kind: 'drawing', says: `Signature of ${to}`, ...SIGNATURE, shapes: [{ tag: 'path', at: stroke }] }]
}
export const deliveryPaper = (d: DeliveryNote): Paper => ({
  title: `Delivery note: ${d.piece}`,
  from: [d.shop, d.madeOn],
  foot: `${d.shop} · piece ${d.id}`,
  parts: [
    { kind: 'facts', rows: [['For', d.client]] },
    {
      kind: 'table',
      says: 'What is handed over',
      columns: [
        { head: 'What', share: 0.5 },
        { head: 'How many', share: 0.15, figures: true },
        { head: '', share: 0.35 },
      ],
      rows: [[d.piece, '1', ''], ...d.along.map(a => [a.name, String(a.count), a.says])],
    },
    ...listUnder('To mind', d.mind),
    ...(d.given ? givenParts(d.given) : [{ kind: 'sign' as const, who: ['Handed over by', 'Taken by', 'On'] }]),
  ],
})
