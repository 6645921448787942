/** The timetable elsewhere: as calendars behind secret addresses, and a week as CSV. */
import { randomBytes } from 'node:crypto'
import { DateTime } from 'luxon'
import Papa from 'papaparse'
import type { z } from 'zod'
import { type Appointment, textCell, writeCalendar } from '#core/formats'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { sha256 } from '../platform/digest'
import { logShop } from '../platform/log'
import type { Person } from '../shop/person'
import { readRooms } from '../shop/rooms'
import { readShop } from '../shop/rows'
import { timetablePage } from './page'

interface FeedRow {
  id: number
  kind: 'person' | 'room' | 'promised'
  person_id: number | null
  room_id: number | null
  person: string | null
  room: string | null
  at: Date
  read_at: Date | null
}
const readFeeds = () =>
  db().rows<FeedRow>(
    `SELECT feed.id, feed.kind, feed.person_id, feed.room_id, person.name AS person, room.name AS room, feed.at,
        feed.read_at
        FROM feed
        LEFT JOIN person ON person.id = feed.person_id
        LEFT JOIN room ON room.id = feed.room_id
        ORDER BY feed.id`,
  )
/** One's own, and for whoever runs the shop all of them. The address itself is told once, when it is made. */
export const feedsPage = async (by: Person) =>
  (await readFeeds()).filter(f => by.rights.has('shop') || f.person_id === by.id)

const isOwn = (input: z.infer<typeof s.feedBody>, by: Person) => input.kind === 'person' && input.personId === by.id
const notYours = () => fail(403, 'forbidden', 'A calendar of others is made by whoever runs the shop.')

export const makeFeed = (input: z.infer<typeof s.feedBody>, by: Person, at: Date) =>
  transaction(async tx => {
    if (!isOwn(input, by) && !by.rights.has('shop')) throw notYours()
    const token = randomBytes(24).toString('base64url')
    const personId = input.kind === 'person' ? input.personId : null
    const roomId = input.kind === 'room' ? input.roomId : null
    const there = {
      person: 'SELECT id FROM person WHERE id = :personId AND active',
      room: 'SELECT id FROM room WHERE id = :roomId',
      promised: 'SELECT 1 AS id',
    }[input.kind]
    if (!(await tx.row(there, { personId, roomId }))) throw notFound(input.kind)
    await tx.run(
      `INSERT INTO feed (hash, kind, person_id, room_id, by_id, at)
          VALUES (:hash, :kind, :personId, :roomId, :by, :at)`,
      { hash: sha256(token), kind: input.kind, personId, roomId, by: by.id, at },
    )
    await logShop(tx, 'people', `A calendar's address was made: ${input.kind}`, at, by.id)
    return { address: `${lanAddresses()[0] ?? useRuntimeConfig().publicBase}/api/calendar/${token}` }
  })

export const dropFeed = (id: number, by: Person, at: Date) =>
  transaction(async tx => {
    const feed = await tx.row<FeedRow>('SELECT * FROM feed WHERE id = :id FOR UPDATE', { id })
    if (!feed) return { ok: true }
    if (feed.person_id !== by.id && !by.rights.has('shop')) throw notYours()
    await tx.run('DELETE FROM feed WHERE id = :id', { id })
    await logShop(tx, 'people', `A calendar's address was taken back: ${feed.kind}`, at, by.id)
    return { ok: true }
  })

/** What hangs on a yes stands in nobody's calendar. */
async function appointments(feed: FeedRow, at: Date): Promise<Appointment[]> {
  if (feed.kind === 'promised') {
    const rows = await db().rows<{ id: number; name: string; due_on: string }>(
      `SELECT id, name, due_on
          FROM piece
          WHERE state IN ('enquiry', 'active', 'ready') AND due_on IS NOT NULL
          ORDER BY due_on, id`,
    )
    return rows.map(p => ({
      uid: `promised-${p.id}@hantverk`,
      says: `Promised: ${p.id} ${p.name}`,
      at: { day: p.due_on },
    }))
  }
  const { bars, pieces, rooms } = await timetablePage({}, at, 'all')
  const names = new Map(pieces.map(p => [p.pieceId, p.piece]))
  return bars
    .filter(b => !b.ifYes && (feed.kind === 'person' ? b.personId === feed.person_id : b.roomId === feed.room_id))
    .flatMap(b =>
      b.parts.map(([from_ms, to_ms], i): Appointment => {
        const where = rooms.find(r => r.id === b.roomId)?.name
        return {
          ...{ uid: `${b.task.replace('/', '-')}-${i}@hantverk`, says: `${b.pieceId}: ${b.titles.join(' + ')}`, where },
          ...{ more: names.get(b.pieceId), at: { from_ms, to_ms } },
        }
      }),
    )
}

/** @throws Fail 404 for an address that nobody made, or that was taken back. */
export async function readFeed(token: string, at: Date): Promise<string> {
  // whoever left takes no address along: neither their own, nor one that they made
  const row = await db().row<{ id: number }>(
    `SELECT feed.id
        FROM feed
        JOIN person maker ON maker.id = feed.by_id AND maker.active
        LEFT JOIN person whose ON whose.id = feed.person_id
        WHERE feed.hash = :hash AND COALESCE(whose.active, TRUE)`,
    { hash: sha256(token) },
  )
  const feed = row && (await readFeeds()).find(f => f.id === row.id)
  if (!feed) throw notFound('calendar')
  await db().run('UPDATE feed SET read_at = :at WHERE id = :id', { id: feed.id, at })
  const { name } = await readShop()
  const of = feed.person ?? feed.room ?? 'promised'
  return writeCalendar(`${name}: ${of}`, await appointments(feed, at), at.getTime())
}

/** A week of the timetable, a line for each stretch of work, moments in the shop's zone. */
export async function exportWeek(query: z.infer<typeof s.timetableQuery>, at: Date): Promise<string> {
  const { bars, pieces, people, hours } = await timetablePage(query, at)
  const rooms = new Map((await readRooms()).map(r => [r.id, r.name]))
  const moment = (ms: number) => DateTime.fromMillis(ms, { zone: hours.zone }).toFormat('yyyy-MM-dd HH:mm')
  const data = bars.flatMap(b =>
    b.parts.map(([from, to]) => [
      ...[moment(from), moment(to), textCell(people.find(p => p.id === b.personId)?.name ?? '')],
      ...[textCell(rooms.get(b.roomId ?? 0) ?? ''), b.place ?? '', b.pieceId],
      ...[textCell(pieces.find(p => p.pieceId === b.pieceId)?.piece ?? ''), textCell(b.titles.join(' + '))],
      ...[b.ifYes ? 'if yes' : '', b.pinned ? 'held' : ''],
    ]),
  )
  const fields = ['from', 'to', 'who', 'room', 'place', 'piece', 'name', 'work', 'depends', 'held']
  return Papa.unparse({ fields, data }, { newline: '\n' }) + '\n'
}
