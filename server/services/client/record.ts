/** A client's record: found while one types, its pieces and letters, changed, and merged with another. */
import type { z } from 'zod'
import { writeCards } from '#core/formats'
import type { PieceState } from '#core/piece'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { log, logShop, tell } from '../platform/log'
import { uidOf } from '../platform/uid'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { keptOf } from './privacy'

interface ClientRow {
  id: number
  name: string
  email: string
  phone: string
  row_version: number
  merged_into: number | null
  erased_at: Date | null
}
const MOST = 8

/** Clients whose name, mail or phone holds these letters, by name; one that was merged away is not among them. */
export const findClients = ({ find }: z.infer<typeof s.clientQuery>) =>
  db().rows<Pick<ClientRow, 'id' | 'name' | 'email' | 'phone'> & { pieces: number }>(
    `SELECT c.id, c.name, c.email, c.phone, (SELECT COUNT(*) FROM piece WHERE piece.client_id = c.id) AS pieces
        FROM client c
        WHERE c.merged_into IS NULL AND c.erased_at IS NULL
          AND (c.name LIKE :like OR c.email LIKE :like OR c.phone LIKE :like)
        ORDER BY c.name LIKE :start DESC, c.name, c.id
        LIMIT ${MOST}`,
    { like: `%${find.replace(/[\\%_]/g, '\\$&')}%`, start: `${find.replace(/[\\%_]/g, '\\$&')}%` },
  )

const readClient = (on: Db, id: number, lock = false) =>
  on.row<ClientRow>(`SELECT * FROM client WHERE id = :id ${lock ? 'FOR UPDATE' : ''}`, { id })

/** Everybody that the shop knows, as vCard 4. */
export async function clientCards(): Promise<string> {
  const { uid } = await readShop()
  const clients = await db().rows<Pick<ClientRow, 'id' | 'name' | 'email' | 'phone'>>(
    'SELECT id, name, email, phone FROM client WHERE merged_into IS NULL AND erased_at IS NULL ORDER BY name, id',
  )
  return writeCards(clients.map(c => ({ ...c, uid: uidOf(uid, 'client', c.id) })))
}

/** The record that counts: where this one was merged into another, that. @throws Fail 404. */
export async function clientPage(id: number) {
  let client = await readClient(db(), id)
  while (client?.merged_into) client = await readClient(db(), client.merged_into)
  if (!client) throw notFound('client')
  const params = { id: client.id }
  return {
    client: { ...client, merged_into: undefined, rowVersion: client.row_version },
    kept: await keptOf(client.id),
    pieces: await db().rows<{
      id: number
      name: string
      state: PieceState
      taken_in_at: Date
      handed_over_at: Date | null
      due_on: string | null
    }>(
      `SELECT id, name, state, taken_in_at, handed_over_at, due_on
          FROM piece
          WHERE client_id = :id
          ORDER BY state IN ('handed-over', 'part-done'), id DESC
          LIMIT 200`,
      params,
    ),
    letters: await db().rows<{
      id: number
      kind: 'ask' | 'reply'
      recipient: string
      state: string
      at: Date | null
      piece_id: number
      piece: string
      says: string
    }>(
      `SELECT mail.id, mail.kind, mail.recipient, mail.state, COALESCE(mail.sent_at, mail.queued_at) AS at,
          mail.piece_id, piece.name AS piece, mail.says
          FROM mail
          JOIN piece ON piece.id = mail.piece_id
          WHERE piece.client_id = :id
          ORDER BY mail.id DESC
          LIMIT 100`,
      params,
    ),
    /** who may be the same person: of the same name, mail or phone */
    alike: await db().rows<Pick<ClientRow, 'id' | 'name' | 'email' | 'phone'>>(
      `SELECT id, name, email, phone
          FROM client
          WHERE id <> :id AND merged_into IS NULL
            AND (name = :name OR (:email <> '' AND email = :email) OR (:phone <> '' AND phone = :phone))
          ORDER BY id
          LIMIT ${MOST}`,
      { ...params, name: client.name, email: client.email, phone: client.phone },
    ),
  }
}

/** Every page that shows one of these pieces reads it anew. */
async function tellPieces(tx: Db, ids: readonly number[], at: Date) {
  for (const id of ids) await tell(tx, 'piece', id, at)
  await tell(tx, 'pieces', null, at)
}
const piecesOf = async (tx: Db, id: number) =>
  (await tx.rows<{ id: number }>('SELECT id FROM piece WHERE client_id = :id ORDER BY id', { id })).map(p => p.id)

export const changeClient = (id: number, input: z.infer<typeof s.changeClient>, person: Person, at: Date) =>
  transaction(async tx => {
    const before = await readClient(tx, id, true)
    if (!before || before.merged_into || before.erased_at) throw notFound('client')
    if (before.row_version !== input.rowVersion) throw stale()
    await tx.run(
      'UPDATE client SET name = :name, email = :email, phone = :phone, row_version = row_version + 1 WHERE id = :id',
      { ...input, id },
    )
    const was = [before.name, before.email, before.phone].filter(Boolean).join(', ')
    const is = [input.name, input.email, input.phone].filter(Boolean).join(', ')
    await logShop(tx, 'client', `Client ${id}: ${is}, was ${was}`, at, person.id)
    await tellPieces(tx, await piecesOf(tx, id), at)
    return { ok: true }
  })

/** Two records of one person become one: its pieces, with their questions and letters, go to `into`. */
export const mergeClients = (id: number, input: z.infer<typeof s.mergeClients>, person: Person, at: Date) =>
  transaction(async tx => {
    if (id === input.into) throw fail(422, 'invalid', 'These are the same record.', { into: 'Choose another record.' })
    // in the order of their numbers, so that two mergers the other way about do not wait for each other
    for (const one of [id, input.into].sort((a, b) => a - b)) await readClient(tx, one, true)
    const [from, into] = [await readClient(tx, id), await readClient(tx, input.into)]
    if (!from || from.merged_into) throw notFound('client')
    if (from.row_version !== input.rowVersion) throw stale()
    if (!into || into.merged_into)
      throw fail(422, 'invalid', 'There is no such client any more.', { into: 'Choose another record.' })
    const pieces = await piecesOf(tx, id)
    await tx.run('UPDATE piece SET client_id = :into WHERE client_id = :id', { id, into: into.id })
    await tx.run(
      `UPDATE client
          SET email = IF(email = '', :email, email), phone = IF(phone = '', :phone, phone),
            row_version = row_version + 1
          WHERE id = :into`,
      { into: into.id, email: from.email, phone: from.phone },
    )
    await tx.run('UPDATE client SET merged_into = :into, row_version = row_version + 1 WHERE id = :id', {
      id,
      into: into.id,
    })
    for (const pieceId of pieces)
      await log(tx, {
        ...{ pieceId, kind: 'changed', says: `Client ${from.name} (${id}) and ${into.name} (${into.id}) are one` },
        ...{ at, recordedAt: at, personId: person.id },
      })
    await logShop(tx, 'client', `Client ${from.name} (${id}) merged into ${into.name} (${into.id})`, at, person.id)
    await tellPieces(tx, pieces, at)
    return { id: into.id }
  })
