/** Steps that are held where somebody put them. */
import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { type Db, transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { clockIn, readHours } from '../shop/rows'

interface Pinned {
  piece_id: number
  state: string
  piece: string
}
const readStep = async (tx: Db, id: number): Promise<Pinned> => {
  const step = await tx.row<Pinned>(
    `SELECT s.piece_id, s.state, piece.name AS piece
        FROM plan_step s
        JOIN piece ON piece.id = s.piece_id
        WHERE s.id = :id AND piece.state = 'active'`,
    { id },
  )
  if (!step) throw notFound('step')
  return step
}

/** @throws Fail 409 for a step that has begun, 422 for a moment that has passed. */
export const pinStep = (id: number, input: z.infer<typeof s.pinStep>, by: Person, at: Date) =>
  transaction(async tx => {
    const step = await readStep(tx, id)
    if (step.state !== 'planned') throw fail(409, 'begun', 'It has begun; it stays where it is.')
    const start = new Date(input.startsAt)
    if (start < at) throw fail(422, 'past', 'That has passed.', { startsAt: 'That has passed.' })
    await tx.run(
      `INSERT INTO step_pin (step_id, start_at, person_id, room_id, by_id, at)
          VALUES (:id, :start, :personId, :roomId, :by, :at)
          ON DUPLICATE KEY UPDATE start_at = :start, person_id = :personId, room_id = :roomId, by_id = :by, at = :at`,
      { ...input, id, start, by: by.id, at },
    )
    const clock = clockIn((await readHours(tx)).zone, at)
    const says = `Held in the timetable at ${clock(start.getTime())}`
    await log(tx, { pieceId: step.piece_id, stepId: id, kind: 'plan', says, at, recordedAt: at, personId: by.id })
    await tell(tx, 'piece', step.piece_id, at)
    return { ok: true }
  })

export const unpinStep = (id: number, by: Person, at: Date) =>
  transaction(async tx => {
    const step = await readStep(tx, id)
    const { changed } = await tx.run('DELETE FROM step_pin WHERE step_id = :id', { id })
    if (changed === 0) return { ok: true }
    const says = 'Held in the timetable no more'
    await log(tx, { pieceId: step.piece_id, stepId: id, kind: 'plan', says, at, recordedAt: at, personId: by.id })
    await tell(tx, 'piece', step.piece_id, at)
    return { ok: true }
  })
