/** What is to be bought of one supplier. */
import type { Paper } from './paper'

export interface OrderLine {
  name: string
  /** "2 × 1.00 L" */
  containers: string
  /** the day from which it is short, in words */
  by: string
  why: string
}
export interface Order {
  shop: string
  supplier: string
  madeOn: string
  lines: readonly OrderLine[]
}
export const orderPaper = ({ shop, supplier, madeOn, lines }: Order): Paper => ({
  title: supplier ? `Order to ${supplier}` : 'To be bought',
  from: [shop, madeOn],
  parts: [
    {
      kind: 'table',
      says: 'What is to be bought, how much, and by when it is wanted',
      columns: [
        { head: 'What', share: 0.42 },
        { head: 'How much', share: 0.24, figures: true },
        { head: 'Wanted by', share: 0.16 },
        { head: 'For', share: 0.18 },
      ],
      rows: lines.map(l => [l.name, l.containers, l.by, l.why]),
    },
  ],
  foot: `${shop} · ${madeOn}`,
})
