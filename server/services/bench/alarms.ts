import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { transaction } from '../../database/db'
import { readPiece } from '../piece/read'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'

/** An alarm acknowledged by name; it comes again until the work is done. */
export async function acknowledge(input: z.infer<typeof s.alarmAck>, person: Person, at: Date) {
  return transaction(async tx => {
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
