import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { saidSlug } from '#core/units'
import { onPiece } from '../piece/pieces'
import { readPiece } from '../piece/read'
import { CHANGES } from '../piece/rows'
import type { Person } from '../shop/person'
import { askOnceMore } from './compose'

/** A value as the log says it. */
function said(value: string | number | boolean | null | undefined): string {
  if (value === null || value === '') return 'none'
  if (typeof value === 'boolean') return value ? 'yes' : 'no'
  if (typeof value === 'number') return `${Math.round(value * 100)} %`
  return /^[a-z][a-z0-9-]*$/.test(value ?? '') ? saidSlug(String(value)) : String(value)
}

/** What a client sees of the finished piece. */
const LOOKS = ['tone', 'sheen'] as const
/** Changes what is known of a piece and wished for it; another look asks the client again. */
export async function changePiece(id: number, input: z.infer<typeof s.pieceChange>, person: Person, at: Date) {
  const { rowVersion, ...changes } = input
  const given = (Object.keys(CHANGES) as (keyof typeof CHANGES)[]).filter(key => changes[key] !== undefined)
  return onPiece(id, at, person, async (tx, file) => {
    if (file.piece.row_version !== rowVersion) throw stale()
    const sets = given.map(key => `${CHANGES[key][0]} = :${key}`)
    await tx.run(`UPDATE piece SET ${[...sets, 'row_version = row_version + 1'].join(', ')} WHERE id = :id`, {
      ...changes,
      id,
    })
    const looksOtherwise = LOOKS.some(key => changes[key] !== undefined && changes[key] !== file.piece[key])
    if (looksOtherwise && file.choice) await askOnceMore(tx, await readPiece(tx, id))
    return {
      kind: 'changed',
      says: `Changed: ${given.map(key => `${CHANGES[key][1]} ${said(changes[key])}`).join(', ') || 'nothing'}`,
      result: { ok: true },
    }
  })
}
