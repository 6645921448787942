/** What went wrong in the demo shop and was mended, what was learnt from it, and a piece that goes home part done. */
import type { Caller } from './caller'

interface Home {
  tove: Caller
  emil: Caller
  sara: Caller
  at: (ms: number) => Promise<void>
  today: (clock: string) => number
  pieceOf: (name: string) => number
}
interface Faults {
  steps: { id: number }[]
  faults: { id: number; rowVersion: number }[]
}
export async function wentHome({ tove, emil, sara, at, today, pieceOf }: Home): Promise<void> {
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
