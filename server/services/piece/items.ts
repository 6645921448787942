import type { z } from 'zod'
import { type PlaceKind, proposeMark } from '#core/parts'
import type * as s from '#shared/schemas'
import { db, type Db } from '../../database/db'
import type { Person } from '../shop/person'
import { ownerOf } from './findings'
import { onPiece } from './pieces'
import type { ItemRow } from './rows'

/** Adds what comes off a piece, with a mark that nobody in the piece has; a mark that is given must be free. */
export const addItem = (id: number, input: z.infer<typeof s.addItem>, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, { items }) => {
    const taken = items.map(i => i.mark)
    const mark = input.mark.toUpperCase() || proposeMark(input.name, taken)
    if (taken.includes(mark))
      throw fail(409, 'exists', `The mark ${mark} is taken in this piece. ${proposeMark(input.name, taken)} is free.`, {
        mark: 'Taken.',
      })
    const made = await tx.run(
      `INSERT INTO item (piece_id, mark, name, kind, count, state, set_name, holes, note)
          VALUES (:id, :mark, :name, :kind, :count, :state, :set, :holes, :note)`,
      { ...input, id, mark, holes: input.holes ? JSON.stringify(input.holes) : null },
    )
    return {
      kind: 'item',
      says: `${mark}: ${input.count} × ${input.name}${input.state === 'present' ? '' : `, ${input.state}`}`,
      result: { id: made.id, mark },
    }
  })

/** The place with this code, made when it is new. */
export async function placeId(tx: Db, place: { code: string; kind: PlaceKind }): Promise<number> {
  await tx.run('INSERT IGNORE INTO place (code, kind) VALUES (:code, :kind)', place)
  return (await tx.row<{ id: number }>('SELECT id FROM place WHERE code = :code', place))!.id
}

/** A piece is moved to a place; null: nobody says where it stands. */
export const standsAt = (id: number, { place }: z.infer<typeof s.standsAt>, person: Person, at: Date) =>
  onPiece(id, at, person, async tx => {
    const placed = place ? await placeId(tx, place) : null
    await tx.run('UPDATE piece SET place_id = :placed WHERE id = :id', { id, placed })
    return {
      kind: 'place',
      says: place ? `Stands at ${place.code}` : 'Stands at no place that is known',
      result: { ok: true },
    }
  })

/** Changes one item: counted out, put somewhere, counted in. What belongs to a set moves with its set. */
export async function changeItem(itemId: number, input: z.infer<typeof s.changeItem>, person: Person, at: Date) {
  return onPiece(
    await ownerOf('SELECT piece_id FROM item WHERE id = :id', itemId, 'item'),
    at,
    person,
    async (tx, { piece, items }) => {
      const old = items.find(i => i.id === itemId)!
      if (old.row_version !== input.rowVersion) throw stale()
      const next: ItemRow = {
        ...old,
        name: input.name ?? old.name,
        kind: input.kind ?? old.kind,
        mark: input.mark?.toUpperCase() ?? old.mark,
        count: input.count ?? old.count,
        state: input.state ?? old.state,
        set_name: input.set ?? old.set_name,
        note: input.note ?? old.note,
        holes: input.holes === undefined ? old.holes : input.holes,
        taken_out: input.out === undefined ? old.taken_out : input.out,
        put_back: input.back === undefined ? old.put_back : input.back,
      }
      if (items.some(i => i.id !== itemId && i.mark === next.mark))
        throw fail(409, 'exists', `The mark ${next.mark} is taken in this piece.`, { mark: 'Taken.' })
      if ((next.taken_out ?? 0) > next.count)
        throw fail(422, 'invalid', `There are ${next.count} of it; ${next.taken_out} cannot come off.`, {
          out: 'More than there are.',
        })
      if ((next.put_back ?? 0) > (next.taken_out ?? 0))
        throw fail(422, 'invalid', `${next.taken_out ?? 0} came off; ${next.put_back} cannot go back.`, {
          back: 'More than came off.',
        })
      await tx.run(
        `UPDATE item
            SET name = :name, kind = :kind, mark = :mark, count = :count, state = :state,
              set_name = :set_name, note = :note, holes = :holes, taken_out = :taken_out, put_back = :put_back,
              row_version = row_version + 1
            WHERE id = :id`,
        { ...next, holes: next.holes ? JSON.stringify(next.holes) : null },
      )
      let moved = ''
      if (input.place !== undefined) {
        const place = input.place ? await placeId(tx, input.place) : null
        const set = next.set_name ? items.filter(i => i.set_name === next.set_name || i.id === itemId) : [next]
        for (const i of set)
          await tx.run(
            'UPDATE item SET place_id = :place, row_version = row_version + IF(id = :itemId, 0, 1) WHERE id = :id',
            { place, id: i.id, itemId },
          )
        moved =
          `${set.length > 1 ? `, the set "${next.set_name}" (${set.length})` : ''} ` +
          `${input.place ? `in ${input.place.kind} ${input.place.code}` : 'back at the piece'}`
      }
      const off = next.taken_out ?? 0
      const back = (count: number) => `, ${count} back${count < off ? `, ${off - count} still away` : ''}`
      const backSays = typeof input.back === 'number' ? back(input.back) : ''
      const counted = typeof input.out === 'number' ? `, ${input.out} off` : backSays
      return {
        kind: 'item',
        says: `${next.mark} ${next.name}${input.state ? `, ${input.state}` : ''}${counted}${moved}`,
        result: { piece: piece.id },
      }
    },
  )
}

export const listPlaces = () =>
  db().rows<{ code: string; kind: PlaceKind; items: number }>(
    `SELECT place.code, place.kind, COUNT(item.id) AS items
        FROM place
        LEFT JOIN item ON item.place_id = place.id
        GROUP BY place.id, place.code, place.kind
        ORDER BY place.code`,
  )

export async function placePage(code: string) {
  const place = await db().row<{ code: string; kind: PlaceKind }>('SELECT code, kind FROM place WHERE code = :code', {
    code: code.toUpperCase(),
  })
  if (!place) throw notFound('place')
  const items = await db().rows<{
    id: number
    mark: string
    name: string
    taken_out: number | null
    put_back: number | null
    piece_id: number
    piece: string
  }>(
    `SELECT item.id, item.mark, item.name, item.taken_out, item.put_back, item.piece_id, piece.name AS piece
        FROM item
        JOIN place ON place.id = item.place_id
        JOIN piece ON piece.id = item.piece_id
        WHERE place.code = :code
        ORDER BY piece.id, item.mark`,
    place,
  )
  return { ...place, items }
}
