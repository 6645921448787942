/** Of the demo shop: a fault that was mended, a piece that goes home part done, one that came back after two years. */
import { planAndAsk } from './agree'
import { ago, at, lettersOut, people, today } from './clock'
import type { DemoPiece } from './pieces'
import { examine, takeIn } from './takeIn'
import { lots, workTo } from './work'

interface Faults {
  steps: { id: number }[]
  faults: { id: number; rowVersion: number }[]
}
export async function wentHome(pieceOf: (name: string) => number): Promise<void> {
  const { tove, emil, sara } = people
  /** Seen at the step that was done last; answered one by one. */
  async function seen(pieceId: number, sign: string, said: readonly (readonly [ask: string, yes: boolean])[]) {
    const { steps } = await emil.get<Faults>(`/api/pieces/${pieceId}/faults`)
    const { id } = await emil.send<{ id: number }>('POST', `/api/pieces/${pieceId}/faults`, {
      ...{ sign, stepId: steps[0]!.id },
    })
    let rowVersion = 1
    for (const [ask, yes] of said)
      await emil.send('PUT', `/api/faults/${id}/said`, { rowVersion: rowVersion++, ask, yes })
    return { id, rowVersion }
  }
  await at(today('10:10'))
  const table = pieceOf('Plant table')
  const run = await seen(table, 'runs', [
    ['edge', false],
    ['curtain', true],
  ])
  await tove.send('POST', `/api/faults/${run.id}/mend`, { rowVersion: run.rowVersion, mend: 'level-run' })
  await tove.send('PUT', `/api/faults/${run.id}/cause`, {
    ...{ rowVersion: run.rowVersion + 1, cause: 'much', keepNext: true, note: 'The can was new and thick.' },
  })
  await at(today('10:16'))
  await seen(pieceOf('Tall clock case'), 'uneven-sheen', [['all', false]])
  const shelf = pieceOf('Low shelf')
  const { piece } = await sara.get<{ piece: { row_version: number } }>(`/api/pieces/${shelf}`)
  await at(today('10:22'))
  await sara.send('POST', `/api/pieces/${shelf}/hand-over`, {
    ...{ rowVersion: piece.row_version, to: 'Ida Rosén', part: true },
    signature: 'M40 70 L60 30 L72 72 L96 44 L110 70 L130 40 L150 68 L190 52 L250 60',
  })
}

const SEAT: DemoPiece = {
  name: 'Bathhouse bench',
  client: ['Ida Rosén', 'ida@example.invalid'],
  faces: [
    ['seat', 'upper', 'flat', 'horizontal', '1200', '380', 1, 'oak'],
    ['legs', 'all round', 'turned', 'vertical', '430', '45', 4, 'oak'],
  ],
  more: { period: 'after-1990', lead: 'no', use: 'hard' },
  tests: [
    ['look', 'no film'],
    ['water-drop', 'soaks in'],
    ['uv-lamp', 'dull'],
    ['scrape', 'wood at once'],
  ],
  choice: { route: 'as-it-stands', finish: 'varnish-oil' },
  story: 'approved',
}
async function goesHome(id: number, ms: number) {
  const { piece } = await people.sara.get<{ piece: { row_version: number } }>(`/api/pieces/${id}`)
  await at(ms)
  await people.sara.send('POST', `/api/pieces/${id}/hand-over`, {
    ...{ rowVersion: piece.row_version, to: 'Ida Rosén', remind: true },
  })
}
/** Oiled two years ago; it came back worn, and its oil was renewed by what the record knew of it. */
export async function renewedAfterTwoYears(): Promise<void> {
  // what was used then is no lot of today
  const today = [...lots]
  lots.clear()
  await lettersOut()
  await at(ago(750, '09:10'))
  const id = await takeIn(SEAT)
  await examine(id, SEAT)
  await planAndAsk(id, SEAT)
  await workTo(id, null, ago(725, '15:00'))
  await goesHome(id, ago(724, '14:10'))
  for (const [product, lot] of today) lots.set(product, lot)
  await lettersOut()
  await at(ago(12, '09:10'))
  const { id: back } = await people.sara.send<{ id: number }>('POST', `/api/pieces/${id}/again`, {})
  await examine(back, { ...SEAT, tests: [], findings: [[0, 'worn-through', 1]] })
  await planAndAsk(back, { ...SEAT, choice: { route: 'renew', finish: 'varnish-oil' } })
  await workTo(back, null, ago(2, '15:00'))
  await goesHome(back, ago(1, '14:10'))
  console.log(`${back} ${SEAT.name}, renewed`)
}
