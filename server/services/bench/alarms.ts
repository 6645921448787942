import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { type Db, transaction } from '../../database/db'
import { readPiece } from '../piece/read'
import { log, tell } from '../platform/log'
import { atTheBench, type Person } from '../shop/person'

/** Who heard it: who is signed in, else somebody of the bench by a tap on the name. */
async function hearer(
  tx: Db,
  personId: number | undefined,
  person: Person | null,
): Promise<{ id: number; name: string }> {
  if (person) return person
  const named = await tx.row<{ id: number; name: string }>(
    `SELECT p.id, p.name FROM person p WHERE p.id = :personId AND ${atTheBench('p')}`,
    { personId: personId ?? 0 },
  )
  if (!named) throw fail(422, 'invalid', 'Say who heard it.', { personId: 'Choose a name.' })
  return named
}

/** An alarm acknowledged by name; it comes again until the work is done. */
export async function acknowledge({ personId, ...input }: z.infer<typeof s.alarmAck>, by: Person | null, at: Date) {
  return transaction(async tx => {
    const person = await hearer(tx, personId, by)
    await readPiece(tx, input.pieceId)
    await tx.run(
      'INSERT INTO alarm_ack (piece_id, from_key, to_key, person_id, at) VALUES (:pieceId, :from, :to, :personId, :at)',
      { ...input, personId: person.id, at },
    )
    await log(tx, {
      pieceId: input.pieceId,
      kind: 'alarm',
      says: `Alarm heard by ${person.name}`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'alarm', input.pieceId, at)
    return { ok: true }
  })
}
