/** The delivery note: what goes home, what goes along, what is still to be minded, and who took it. */
import type { Paper } from './paper'
import { listUnder } from './parts'

export interface DeliveryNote {
  id: number
  shop: string
  client: string
  piece: string
  madeOn: string
  /** what belongs to the piece: name, how many, where it is */
  along: readonly { name: string; count: number; says: string }[]
  /** what is not back yet, or still cures */
  mind: readonly string[]
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
    { kind: 'sign', who: ['Handed over by', 'Taken by', 'On'] },
  ],
})
