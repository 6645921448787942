/** The rooms of the shop, the racks in them, and the days on which pieces are fetched. */
import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { lengthOf } from '../piece/pieces'
import { logShop, tell } from '../platform/log'
import type { Person } from './person'
import { readShop } from './rows'

export interface RoomRow {
  id: number
  name: string
  dust: 0 | 1
  wet: 0 | 1
  other: 0 | 1
  outdoors: 0 | 1
  one_at_a_time: 0 | 1
  change_over_min: number
  length_mm: number | null
  length_text: string
  volume_m3: number | null
  air_changes_h: number | null
  /** the name its own logger goes by; none: the air of the shop, and outdoors the weather */
  logger: string
  row_version: number
}
export interface RackRow {
  id: number
  code: string
  kind: 'rack' | 'trestles'
  room_id: number
  area_m2: number | null
  length_mm: number | null
  length_text: string
}

export const readRooms = (on: Db = db()) => on.rows<RoomRow>('SELECT * FROM room ORDER BY id')
export const readRacks = (on: Db = db()) =>
  on.rows<RackRow>(
    `SELECT id, code, kind, room_id, area_m2, length_mm, length_text
        FROM place
        WHERE room_id IS NOT NULL
        ORDER BY code`,
  )
export const readFetchDays = async (on: Db = db()) =>
  (await on.rows<{ weekday: number }>('SELECT weekday FROM fetch_day ORDER BY weekday')).map(d => d.weekday)

const WORK = ['dust', 'wet', 'other'] as const
const CALLED = { dust: 'dust', wet: 'coats', other: 'other work' } as const
const saidOf = (r: Pick<z.infer<typeof s.roomBody>, (typeof WORK)[number]>) =>
  WORK.filter(what => r[what])
    .map(what => CALLED[what])
    .join(', ') || 'nothing'

/** A length as typed, in mm beside it; both empty where none was. */
const typedLength = (typed: string, unit: 'mm' | 'in') => ({
  length_mm: typed ? lengthOf(typed, unit, 'length') : null,
  length_text: typed,
})

async function fieldsOf(tx: Db, input: z.infer<typeof s.roomBody>) {
  const { length_unit } = await readShop(tx)
  const other = await tx.row<{ id: number }>('SELECT id FROM room WHERE name = :name', { name: input.name })
  return { other, fields: { ...input, ...typedLength(input.length, length_unit) } }
}
const taken = () => fail(422, 'invalid', 'There is a room of this name.', { name: 'There is a room of this name.' })

export const addRoom = (input: z.infer<typeof s.roomBody>, by: Person, at: Date) =>
  transaction(async tx => {
    const { other, fields } = await fieldsOf(tx, input)
    if (other) throw taken()
    const { id } = await tx.run(
      `INSERT INTO room (
          name, dust, wet, other, outdoors, one_at_a_time, change_over_min, length_mm, length_text, volume_m3,
          air_changes_h, logger
        )
        VALUES (
          :name, :dust, :wet, :other, :outdoors, :oneAtATime, :changeOverMin, :length_mm, :length_text, :volume_m3,
          :airChanges_h, :logger
        )`,
      fields,
    )
    await logShop(tx, 'shop', `Room: ${input.name}, for ${saidOf(input)}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { id }
  })

export const changeRoom = (id: number, input: z.infer<typeof s.changeRoom>, by: Person, at: Date) =>
  transaction(async tx => {
    const { other, fields } = await fieldsOf(tx, input)
    if (other && other.id !== id) throw taken()
    if (!(await tx.row('SELECT id FROM room WHERE id = :id', { id }))) throw notFound('room')
    const { changed } = await tx.run(
      `UPDATE room
          SET name = :name, dust = :dust, wet = :wet, other = :other, outdoors = :outdoors,
            one_at_a_time = :oneAtATime, change_over_min = :changeOverMin, length_mm = :length_mm,
            length_text = :length_text, volume_m3 = :volume_m3, air_changes_h = :airChanges_h, logger = :logger,
            row_version = row_version + 1
          WHERE id = :id AND row_version = :rowVersion`,
      { ...fields, id },
    )
    if (changed === 0) throw stale()
    await logShop(tx, 'shop', `Room changed: ${input.name}, for ${saidOf(input)}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

/** @throws Fail 422 for the last room: work is done somewhere. */
export const removeRoom = (id: number, by: Person, at: Date) =>
  transaction(async tx => {
    const rooms = await tx.rows<RoomRow>('SELECT * FROM room FOR UPDATE')
    const room = rooms.find(r => r.id === id)
    if (!room) throw notFound('room')
    if (rooms.length === 1) throw fail(422, 'last-room', 'This is the last room. Change it instead.')
    await tx.run('DELETE FROM room WHERE id = :id', { id })
    await logShop(tx, 'shop', `Room taken out: ${room.name}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

/** A rack, or trestles, stands in a room; a place of this code becomes it. */
export const addRack = (input: z.infer<typeof s.addRack>, by: Person, at: Date) =>
  transaction(async tx => {
    const room = await tx.row<{ name: string }>('SELECT name FROM room WHERE id = :roomId', input)
    if (!room) throw notFound('room')
    const { length_unit } = await readShop(tx)
    await tx.run(
      `INSERT INTO place (code, kind, room_id, area_m2, length_mm, length_text)
          VALUES (:code, :kind, :roomId, :area_m2, :length_mm, :length_text)
          ON DUPLICATE KEY UPDATE kind = :kind, room_id = :roomId, area_m2 = :area_m2, length_mm = :length_mm,
            length_text = :length_text`,
      { ...input, ...typedLength(input.length, length_unit) },
    )
    await logShop(tx, 'shop', `${input.code} stands in ${room.name}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

/** It carries nothing wet any more; as a place it stays. */
export const removeRack = (id: number, by: Person, at: Date) =>
  transaction(async tx => {
    const rack = await tx.row<RackRow>('SELECT * FROM place WHERE id = :id AND room_id IS NOT NULL', { id })
    if (!rack) throw notFound('place')
    await tx.run('UPDATE place SET room_id = NULL WHERE id = :id', { id })
    await logShop(tx, 'shop', `${rack.code} carries nothing wet any more`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

export const changeFetchDays = ({ weekdays }: z.infer<typeof s.fetchDays>, by: Person, at: Date) =>
  transaction(async tx => {
    await tx.run('DELETE FROM fetch_day')
    for (const weekday of weekdays) await tx.run('INSERT INTO fetch_day (weekday) VALUES (:weekday)', { weekday })
    const days = weekdays.map(d => ['Mon', 'Tue', 'Wed', 'Thu', 'Fri', 'Sat', 'Sun'][d - 1]).join(', ')
    await logShop(tx, 'shop', `Fetched and delivered: ${days || 'whenever the shop is open'}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
