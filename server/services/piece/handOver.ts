import type { z } from 'zod'
import type * as s from '#shared/schemas'
import type { Person } from '../shop/person'
import { onPiece } from './pieces'

/** Hands a ready piece over and closes its record. */
export const handOver = (id: number, input: z.infer<typeof s.handOver>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, { piece, items }) => {
    if (piece.row_version !== input.rowVersion) throw stale()
    if (piece.state !== 'ready') throw fail(409, 'not-ready', 'It is not ready: steps are still open.')
    const away = items.filter(i => (i.taken_out ?? 0) > (i.put_back ?? 0))
    if (away.length)
      throw fail(
        409,
        'items-away',
        'Not everything is back: ' +
          `${away.map(i => `${i.mark} ${i.name}${i.place ? ` (${i.place})` : ''}`).join(', ')}. Count it in ` +
          'under Examine, Parts.',
      )
    await tx.run(
      "UPDATE piece SET state = 'handed-over', handed_over_at = :at, row_version = row_version + 1 WHERE id = :id",
      { at, id },
    )
    return { kind: 'handed-over', says: `Handed over to ${input.to}`, result: { ok: true } }
  })
