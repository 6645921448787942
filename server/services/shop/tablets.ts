/** Tablets of the shop: registered once on the device itself, and taken back. */
import { randomUUID } from 'node:crypto'
import type { H3Event } from 'h3'
import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { placeId } from '../piece/items'
import { logShop, tell } from '../platform/log'
import { atTheBench, type Person } from './person'
import { currentTablet, sealTablet } from './sessions'

const placed = (tx: Db, place: string | null) => (place ? placeId(tx, { code: place, kind: 'bay' }) : null)

/** The device that asks becomes a tablet of the shop. */
export async function registerTablet(event: H3Event, input: z.infer<typeof s.registerTablet>, by: Person, at: Date) {
  const here = await currentTablet(event)
  if (here) throw fail(409, 'registered', `This device is ${here.name} already. Take that back first.`)
  const seal = randomUUID()
  const id = await transaction(async tx => {
    const made = await tx.run(
      `INSERT INTO tablet (name, place_id, seal, made_at, made_by, seen_at)
          VALUES (:name, :placeId, :seal, UTC_TIMESTAMP(3), :by, UTC_TIMESTAMP(3))`,
      { name: input.name, placeId: await placed(tx, input.place), seal, by: by.id },
    )
    await logShop(tx, 'people', `Tablet ${input.name} registered`, at, by.id)
    await tell(tx, 'shop', null, at)
    return made.id
  })
  await sealTablet(event, seal)
  return { id }
}

export async function changeTablet(id: number, input: z.infer<typeof s.changeTablet>, by: Person, at: Date) {
  return transaction(async tx => {
    const { changed } = await tx.run(
      `UPDATE tablet
          SET name = :name, place_id = :placeId, row_version = row_version + 1
          WHERE id = :id AND row_version = :rowVersion AND ended_at IS NULL`,
      { id, name: input.name, placeId: await placed(tx, input.place), rowVersion: input.rowVersion },
    )
    if (changed === 0) throw stale()
    await logShop(tx, 'people', `Tablet ${input.name}: ${input.place ?? 'no place'}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}

/** Takes a tablet back: whoever stands at it is signed out, and no PIN opens it any more. */
export async function takeBackTablet(id: number, by: Person, at: Date) {
  return transaction(async tx => {
    const row = await tx.row<{ name: string }>('SELECT name FROM tablet WHERE id = :id AND ended_at IS NULL', { id })
    if (!row) throw notFound('tablet')
    await tx.run('UPDATE tablet SET ended_at = UTC_TIMESTAMP(3), row_version = row_version + 1 WHERE id = :id', { id })
    await tx.run('DELETE FROM session WHERE tablet_id = :id AND id <> :mine', { id, mine: by.session_id })
    await tx.run('UPDATE session SET tablet_id = NULL WHERE tablet_id = :id', { id })
    await logShop(tx, 'people', `Tablet ${row.name} taken back`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}

export interface TabletLine {
  id: number
  name: string
  place: string | null
  made_at: Date
  made_by: string
  seen_at: Date
  row_version: number
}
export const listTablets = (): Promise<TabletLine[]> =>
  db().rows(
    `SELECT t.id, t.name, place.code AS place, t.made_at, person.name AS made_by, t.seen_at, t.row_version
        FROM tablet t
        JOIN person ON person.id = t.made_by
        LEFT JOIN place ON place.id = t.place_id
        WHERE t.ended_at IS NULL
        ORDER BY t.name`,
  )

export interface AtDoor {
  id: number
  name: string
  login: string
  /** has a PIN */
  pin: boolean
  /** works at the bench, so may hear an alarm */
  bench: boolean
}
/** Who may step up to a tablet, by name. */
export const peopleAtDoor = async (): Promise<AtDoor[]> =>
  (
    await db().rows<{ id: number; name: string; login: string; pin: 0 | 1; bench: 0 | 1 }>(
      `SELECT p.id, p.name, p.login, p.pin_hash IS NOT NULL AND NOT p.must_change AS pin, ${atTheBench('p')} AS bench
          FROM person p
          WHERE p.active
          ORDER BY p.name`,
    )
  ).map(p => ({ ...p, pin: Boolean(p.pin), bench: Boolean(p.bench) }))
