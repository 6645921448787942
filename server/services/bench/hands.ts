/** Whose hands, and what a row of Now shows of its piece. */
import { inHand } from '#core/timetable'
import { db } from '../../database/db'
import type { PlannedStep, StoredPlan } from '../plan/rows'
import { atTheBench } from '../shop/person'
import type { Active } from './active'

/** Who has a step in hand, else who had it last. */
export function handsOf({ spells }: PlannedStep): number[] {
  const held = inHand(spells)
  return (held.length ? held : spells.slice(-1)).map(s => s.personId)
}
/** Who had anything of it in hand last. */
const lastBy = (plan: StoredPlan | undefined): number | null =>
  plan?.steps.flatMap(st => st.spells).toSorted((a, b) => b.from_ms - a.from_ms)[0]?.personId ?? null
/** What a row shows of its piece beside its name: a small picture, its place, the day it is promised for. */
export async function readFaces(pieces: readonly Active[]) {
  const pictures = await db().rows<{ piece_id: number; address: string }>(
    `SELECT photograph.piece_id, photograph.address
        FROM photograph
        JOIN (
          SELECT MIN(photograph.id) AS id
          FROM photograph
          JOIN piece ON piece.id = photograph.piece_id
          WHERE piece.state = 'active'
          GROUP BY piece_id
        ) first ON first.id = photograph.id`,
  )
  const thumbs = new Map(pictures.map(p => [p.piece_id, p.address]))
  return Object.fromEntries(
    pieces.map(({ file: { piece }, plan }) => [
      piece.id,
      {
        ...{ thumb: thumbs.get(piece.id) ?? null, due_on: piece.due_on, place: piece.place },
        last_by: lastBy(plan),
        /** raised with every change of it */
        no: piece.changed_no,
      },
    ]),
  )
}
/** Who may have a step in hand. */
export const readHands = () =>
  db().rows<{ id: number; name: string }>(`SELECT p.id, p.name FROM person p WHERE ${atTheBench('p')} ORDER BY p.name`)
