/** What a client of this piece may be asked about. */
import { FINISHES } from '#core/materials'
import { finishLayer } from '#core/build'
import { db } from '../../database/db'
import { readBands } from '../colour/bandRows'
import { readPiece } from '../piece/read'
import { beganWork } from '../plan/choose'
import { foundSince } from '../plan/found'
import { readPlan } from '../plan/rows'
import { countPieceLinks } from './links'
import { readQuotations } from './papers'

export async function askingPage(id: number, at: Date) {
  const file = await readPiece(db(), id)
  const plan = await readPlan(db(), file)
  const finish = finishLayer(file.choice?.buildUps[0].layers ?? [])?.product ?? null
  const found = await foundSince(file, plan)
  return {
    /** is there a plan that the client has not said yes to? */
    surface: plan.steps.some(st => st.kind === 'approval' && st.state === 'planned'),
    /** finishes to offer beside it; none once work began */
    beside: finish === null || beganWork(plan) ? [] : FINISHES.filter(f => f !== finish),
    found: found && [...found.added, ...found.changed],
    hardware: file.items
      .filter(i => i.kind === 'hardware' && i.state !== 'present')
      .map(i => ({ id: i.id, mark: i.mark, name: i.name, state: i.state, answer: i.answer })),
    bands: (await readBands(db(), id))
      .filter(b => b.clear_coat !== null && b.spectrum !== null)
      .map(b => ({ id: b.id, title: b.title })),
    photographs: await db().rows<{ address: string; caption: string; released: 0 | 1 }>(
      'SELECT address, caption, released FROM photograph WHERE piece_id = :id ORDER BY id DESC LIMIT 60',
      { id },
    ),
    dueOn: file.piece.due_on,
    links: await countPieceLinks(id, at),
    quotations: await readQuotations(id),
  }
}
