/** Who has looked for flames, pilot lights, heaters and plain fan motors, by room and day. */
import { DateTime } from 'luxon'
import { db, type Db, transaction } from '../../database/db'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { readRooms } from '../shop/rooms'
import { readShop } from '../shop/rows'

const dayIn = async (at: Date, on: Db) =>
  DateTime.fromJSDate(at, { zone: (await readShop(on)).zone }).toISODate() ?? at.toISOString().slice(0, 10)
/** Rooms that somebody has looked through today. */
export const readLooked = async (at: Date, on: Db): Promise<Set<number>> =>
  new Set(
    (
      await on.rows<{ room_id: number }>('SELECT room_id FROM ignition_look WHERE day = :day', {
        day: await dayIn(at, on),
      })
    ).map(r => r.room_id),
  )
export const readUnlooked = async (at: Date) => {
  const looked = await readLooked(at, db())
  return (await readRooms(db())).filter(r => !r.outdoors && !looked.has(r.id)).map(({ id, name }) => ({ id, name }))
}
/** `undo`: it was a mis-tap. */
export const lookedFor = (roomId: number, undo: boolean, person: Person, at: Date) =>
  transaction(async tx => {
    const room = (await readRooms(tx)).find(r => r.id === roomId)
    if (!room) throw notFound('room')
    const row = { roomId, day: await dayIn(at, tx), at, by: person.id }
    if (undo) await tx.run('DELETE FROM ignition_look WHERE room_id = :roomId AND day = :day', row)
    else
      await tx.run(
        'INSERT IGNORE INTO ignition_look (room_id, day, at, person_id) VALUES (:roomId, :day, :at, :by)',
        row,
      )
    const says = undo
      ? `${room.name}: looked for flames, taken back`
      : `${room.name}: no flame, pilot light, heater or plain fan motor on`
    await log(tx, { pieceId: null, kind: 'shop', says, at, recordedAt: at, personId: person.id })
    await tell(tx, 'air', null, at)
    return { ok: true }
  })
