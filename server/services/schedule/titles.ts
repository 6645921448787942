/** What the steps of a schedule are called. */
import type { Active } from '../bench/active'
import { eachPiece } from '../bench/now'

export interface Titled {
  title: string
  state: string
}
/** Titles of every step in work, and what was read of each piece. */
export async function readTitles(active: readonly Active[]) {
  const steps = new Map<number, Titled>()
  const pieces = new Map<number, Active['file']['piece']>()
  const strange = await eachPiece(active, ({ file }, plan) => {
    pieces.set(file.piece.id, file.piece)
    for (const { id, title, state } of plan?.steps ?? []) steps.set(id, { title, state })
  })
  return { steps, pieces, strange }
}
