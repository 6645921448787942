/** The way that a piece of the demo shop goes, and what its client says to it. */
import { at, MIN, nowMs, people } from './clock'
import { composeAsKnown } from './composed'
import type { DemoPiece } from './pieces'

export async function planAndAsk(id: number, p: DemoPiece): Promise<void> {
  const { piece } = await people.tove.get<{ piece: { row_version: number } }>(`/api/pieces/${id}`)
  await people.tove.send('PUT', `/api/pieces/${id}/choice`, {
    colour: 'none',
    conditioner: 'auto',
    ...p.choice,
    rowVersion: piece.row_version,
  })
  if (p.own) {
    const { faces } = await people.tove.get<{ faces: { id: number }[] }>(`/api/pieces/${id}`)
    const { rowVersion } = await people.tove.get<{ rowVersion: number }>(`/api/pieces/${id}/routes`)
    await people.tove.send('PUT', `/api/pieces/${id}/choice`, {
      colour: 'none',
      conditioner: 'auto',
      ...p.own,
      faces: p.own.faces.map(i => faces[i]!.id),
      rowVersion,
    })
  }
  if (p.surface) await composeAsKnown(people.tove, id, p.surface)
  if (p.story === 'planned') return
  const { id: approval } = await people.sara.send<{ id: number }>('POST', `/api/pieces/${id}/approvals`, {
    words: p.words ?? 'This is what we would do.',
    days: p.story === 'asked-expired' ? 7 : 21,
  })
  if (p.story?.startsWith('asked')) return
  await at(nowMs() + 25 * MIN)
  await people.sara.send('POST', `/api/approvals/${approval}/answer`, {
    replies: [{ no: 1, reply: p.story === 'declined' ? 'no' : 0 }],
    via: p.name.length % 2 ? 'phone' : 'counter',
    name: p.client[0],
    says: '',
  })
}
