/** Questions of the demo shop that ask more than the plan: other finishes beside it, work that came up, hardware. */
import type { Caller } from './caller'

interface Asks {
  sara: Caller
  at: (ms: number) => Promise<void>
  today: (clock: string) => number
  pieceOf: (name: string) => number
}
interface Asking {
  hardware: { id: number; name: string }[]
}
export async function askMore({ sara, at, today, pieceOf }: Asks): Promise<void> {
  await at(today('09:35'))
  await sara.send('POST', `/api/pieces/${pieceOf('Sewing table')}/approvals`, {
    words: 'Three finishes would suit it. The first is the one that we would take; the others feel warmer to the hand.',
    days: 21,
    beside: ['oil-polyurethane', 'wiping-varnish'],
  })
  const chest = pieceOf('Map chest, eight drawers')
  const { hardware } = await sara.get<Asking>(`/api/pieces/${chest}/asking`)
  await at(today('09:50'))
  await sara.send('POST', `/api/pieces/${chest}/approvals`, {
    words: 'Two things came up at the bench: a pull is gone, and the runners of three drawers are worn through.',
    days: 10,
    surface: false,
    work: [{ says: 'New runners for three drawers', priceMinor: 168_000, days: 2 }],
    hardware: hardware
      .slice(0, 1)
      .map(i => ({ itemId: i.id, prices: { replace: 24_000, match: 61_000, leave: 0 }, days: 5 })),
  })
  await at(today('10:05'))
  await sara.send('POST', '/api/enquiries', {
    ...{ name: 'Dining table, oval', kind: 'table', length: '1900', width: '1050', height: '740', condition: 'worn' },
    client: { name: 'Ulrika Fors', email: 'ulrika@example.invalid', phone: '' },
    ...{ species: 'walnut', veneered: true, use: 'daily', tone: 'same', sheen: 'satin', lead: 'no' },
  })
}
