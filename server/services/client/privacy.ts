/** What is kept of a client's person and why; given out whole, and erased while the record of the pieces stays. */
import { ERASED, withoutAnyName, withoutNames } from '#core/approval'
import { db, type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import { uidOf } from '../platform/uid'
import { readShop } from '../shop/rows'
import type { Person } from '../shop/person'

interface ClientRow {
  id: number
  name: string
  email: string
  phone: string
  erased_at: Date | null
  row_version: number
}
/** The record and those that were merged into it. */
const recordsOf = (on: Db, id: number) =>
  on.rows<ClientRow>(
    `WITH RECURSIVE same AS (
        SELECT id FROM client WHERE id = :id
        UNION
        SELECT client.id FROM client JOIN same ON client.merged_into = same.id
      )
      SELECT client.* FROM client JOIN same ON same.id = client.id ORDER BY client.id`,
    { id },
  )
const OF_CLIENT = 'IN (SELECT piece.id FROM piece WHERE piece.client_id = :id)'
const OF_QUESTION = `IN (SELECT a.id FROM approval a WHERE a.piece_id ${OF_CLIENT})`

/** Lists of what is given out; headings are the names of columns. */
const GIVEN = {
  pieces: `SELECT piece.id, piece.name, piece.state, piece.note, piece.taken_in_at, piece.handed_over_at,
      piece.agreed_minor, piece.renew_leave
      FROM piece
      WHERE piece.client_id = :id
      ORDER BY piece.id`,
  questions: `SELECT a.piece_id, a.asked_at, a.state, a.answered_at, a.answered_via, a.answered_name, a.answer_word
      FROM approval a
      WHERE a.piece_id ${OF_CLIENT}
      ORDER BY a.id`,
  words: `SELECT w.approval_id, w.side, w.says, w.at
      FROM approval_word w
      WHERE w.approval_id ${OF_QUESTION}
      ORDER BY w.id`,
  letters: `SELECT mail.piece_id, mail.kind, mail.recipient, mail.says, mail.state, mail.sent_at
      FROM mail
      WHERE mail.piece_id ${OF_CLIENT}
      ORDER BY mail.id`,
  quotations: `SELECT q.piece_id, q.version, q.made_at, q.total_minor, q.worst_minor
      FROM quotation q
      WHERE q.piece_id ${OF_CLIENT}
      ORDER BY q.id`,
  handedOver: `SELECT h.piece_id, h.at, h.to_name, h.signature
      FROM hand_over h
      WHERE h.piece_id ${OF_CLIENT}
      ORDER BY h.id`,
} as const

/** Everything that is kept of a client's person, as it is given out on asking. @throws Fail 404. */
export async function personData(id: number, at: Date) {
  const records = await recordsOf(db(), id)
  if (records.length === 0) throw notFound('client')
  const lists: Record<string, unknown[]> = {}
  for (const [name, sql] of Object.entries(GIVEN)) lists[name] = await db().rows(sql, { id })
  return {
    format: 'hantverk-person',
    ...{ made_at: at.toISOString(), shop: (await readShop()).name },
    contact: records.map(({ name, email, phone }) => ({ name, email, phone })),
    ...lists,
  }
}

/** How much of each kind is kept, for the page that says why. */
export async function keptOf(id: number) {
  const count = async (sql: string) => Number((await db().row<{ n: number }>(sql, { id }))?.n ?? 0)
  return {
    questions: await count(`SELECT COUNT(*) AS n FROM approval a WHERE a.piece_id ${OF_CLIENT}`),
    letters: await count(`SELECT COUNT(*) AS n FROM mail WHERE mail.piece_id ${OF_CLIENT}`),
    quotations: await count(`SELECT COUNT(*) AS n FROM quotation q WHERE q.piece_id ${OF_CLIENT}`),
    signatures: await count(
      `SELECT COUNT(*) AS n FROM hand_over h WHERE h.signature IS NOT NULL AND h.piece_id ${OF_CLIENT}`,
    ),
  }
}

/** Texts in which somebody may be named: table, column, and whose they are. */
const TEXTS: readonly (readonly [table: string, column: string, whose: string])[] = [
  ['piece', 'note', 'client_id = :id'],
  ['item', 'note', `piece_id ${OF_CLIENT}`],
  [
    'finding',
    'note',
    `face_id IN (SELECT face.id FROM face JOIN part ON part.id = face.part_id
    WHERE part.piece_id ${OF_CLIENT})`,
  ],
  ['photograph', 'caption', `piece_id ${OF_CLIENT}`],
  ['fault', 'note', `piece_id ${OF_CLIENT}`],
  ['extra', 'says', `piece_id ${OF_CLIENT}`],
  ['approval', 'answer_word', `piece_id ${OF_CLIENT}`],
  ['approval_word', 'says', `approval_id ${OF_QUESTION}`],
  ['mail', 'says', `piece_id ${OF_CLIENT}`],
  ['mail', 'last_error', `piece_id ${OF_CLIENT}`],
]
/** Of what never changes names alone are taken out; its digest stays, and it is marked. */
const KEPT = [
  ['logbook', 'says', withoutAnyName],
  ['plan_snapshot', 'content', inJson],
  ['examination', 'content', inJson],
  ['quotation', 'content', inJson],
] as const
/** What people wrote freely; a part of a name may be a word of the trade elsewhere, and stays there. */
const FREE = new Set(['words', 'note', 'says', 'answer', 'why'])
/** JSON with its names taken out; what cannot be parsed is a text. */
function inJson(text: string, names: readonly string[]): string {
  const clean = (value: unknown, key: string): unknown => {
    if (typeof value === 'string') return FREE.has(key) ? withoutAnyName(value, names) : withoutNames(value, names)
    if (Array.isArray(value)) return value.map(v => clean(v, key))
    if (value === null || typeof value !== 'object') return value
    return Object.fromEntries(Object.entries(value).map(([k, v]) => [k, clean(v, k)]))
  }
  try {
    return JSON.stringify(clean(JSON.parse(text), ''))
  } catch {
    return withoutNames(text, names)
  }
}
/** The log's own lines about the record: they are of nothing else. */
const LOG_OF_RECORD = "piece_id IS NULL AND kind = 'client' AND (says LIKE :says OR says LIKE :also)"

const inRegExp = (name: string) => name.replaceAll(/[.*+?^${}()|[\]\\]/g, String.raw`\$&`)

async function changeTexts(
  tx: Db,
  [table, column, whose]: (typeof TEXTS)[number],
  change: (text: string) => string,
  params: Record<string, unknown>,
  mark = '',
) {
  const rows = await tx.rows<{ id: number; text: string | null }>(
    `SELECT id, ${column} AS text FROM ${table} WHERE ${whose}`,
    params,
  )
  for (const { id, text } of rows) {
    const now = text === null ? null : change(text)
    if (now !== text)
      await tx.run(`UPDATE ${table} SET ${column} = :now${mark} WHERE id = :rowId`, { ...params, now, rowId: id })
  }
}

/** Takes the person out of all that is kept of a client and of the records merged into it. */
async function takeOut(tx: Db, records: readonly ClientRow[], at: Date) {
  for (const { id } of records) {
    const params = { id, at }
    const told = await tx.rows<{ name: string | null }>(
      `SELECT a.answered_name AS name FROM approval a WHERE a.piece_id ${OF_CLIENT}
        UNION
        SELECT h.to_name FROM hand_over h WHERE h.piece_id ${OF_CLIENT}
        UNION
        SELECT mail.recipient FROM mail WHERE mail.piece_id ${OF_CLIENT}`,
      params,
    )
    const names = [
      ...records.flatMap(r => [r.name, r.email, r.phone]),
      ...told.flatMap(t => (t.name && t.name !== ERASED ? t.name : [])),
    ]
    for (const text of TEXTS) await changeTexts(tx, text, t => withoutAnyName(t, names), params)
    for (const [table, column, without] of KEPT)
      await changeTexts(
        tx,
        [table, column, `piece_id ${OF_CLIENT}`],
        t => without(t, names),
        params,
        ', erased_at = :at',
      )
    await tx.run(
      `UPDATE approval SET answered_name = IF(answered_name IS NULL, NULL, :erased) WHERE piece_id ${OF_CLIENT}`,
      {
        ...params,
        erased: ERASED,
      },
    )
    await tx.run(`UPDATE hand_over SET to_name = :erased, signature = NULL WHERE piece_id ${OF_CLIENT}`, {
      ...params,
      erased: ERASED,
    })
    await tx.run(
      `UPDATE mail
          SET recipient = '', state = IF(state IN ('waiting', 'sending'), 'failed', state)
          WHERE piece_id ${OF_CLIENT}`,
      params,
    )
    await tx.run('UPDATE piece SET renew_leave = FALSE WHERE client_id = :id', params)
    await tx.run(`UPDATE link SET revoked_at = COALESCE(revoked_at, :at) WHERE piece_id ${OF_CLIENT}`, params)
    // a piece came in for somebody, who may have had another name then: that line is said anew
    await tx.run(
      `UPDATE logbook
          JOIN piece ON piece.id = logbook.piece_id
          SET logbook.says = CONCAT('Taken in: ', piece.name), logbook.erased_at = :at
          WHERE piece.client_id = :id AND logbook.kind = 'taken-in' AND logbook.says LIKE '%, for %'`,
      params,
    )
    // answers of writes are kept for a month, to be given again
    const answers = await tx.rows<{ uuid: string; answer: string }>(
      'SELECT uuid, answer FROM command WHERE answer IS NOT NULL AND answer REGEXP :any',
      {
        any:
          names
            .filter(n => n.length > 2)
            .map(inRegExp)
            .join('|') || '^$',
      },
    )
    for (const { uuid, answer } of answers)
      await tx.run('UPDATE command SET answer = :now WHERE uuid = :uuid', { uuid, now: inJson(answer, names) })
    await tx.run('UPDATE logbook SET says = :now, erased_at = :at WHERE ' + LOG_OF_RECORD, {
      ...{ at, now: `Client ${id}: ${ERASED}`, says: `Client ${id}: %`, also: `%(${id})%` },
    })
    await tx.run(
      `UPDATE client
          SET name = :name, email = '', phone = '', erased_at = :at, row_version = row_version + 1
          WHERE id = :id`,
      { ...params, name: `Client ${id}` },
    )
  }
}

const clientUid = async (on: Db, id: number) => uidOf((await readShop(on)).uid, 'client', id)

/** Erases a person; the pieces, what was done to them and their figures stay. @throws Fail 409 while one is here. */
export const eraseClient = (id: number, rowVersion: number, person: Person, at: Date) =>
  transaction(async tx => {
    const client = await tx.row<ClientRow>('SELECT * FROM client WHERE id = :id AND merged_into IS NULL FOR UPDATE', {
      id,
    })
    if (!client) throw notFound('client')
    if (client.row_version !== rowVersion) throw stale()
    if (client.erased_at) throw fail(409, 'nothing', 'This person was erased already.')
    const here = await tx.row<{ id: number; name: string }>(
      `SELECT id, name
          FROM piece
          WHERE client_id = :id AND state IN ('enquiry', 'active', 'ready', 'part-done')
          ORDER BY id
          LIMIT 1`,
      { id },
    )
    if (here)
      throw fail(
        409,
        'here',
        `Piece ${here.id}, ${here.name}, is not through yet. Hand it over, or decline it, and erase then.`,
      )
    await takeOut(tx, await recordsOf(tx, id), at)
    await tx.run(
      `INSERT INTO erasure (client_uid, at, person_id, done_at) VALUES (:uid, :at, :by, :at)
          ON DUPLICATE KEY UPDATE done_at = :at`,
      { uid: await clientUid(tx, id), at, by: person.id },
    )
    await logShop(tx, 'client', `Client ${id}: personal data erased`, at, person.id)
    const pieces = await tx.rows<{ id: number }>('SELECT id FROM piece WHERE client_id = :id', { id })
    for (const piece of pieces) await tell(tx, 'piece', piece.id, at)
    await tell(tx, 'pieces', null, at)
    return { ok: true }
  })

/** Erasures that an older backup brought back undone are done again. Returns how many. */
export async function repeatErasures(at: Date): Promise<number> {
  const open = await db().rows<{ client_uid: string }>('SELECT client_uid FROM erasure WHERE done_at IS NULL LIMIT 100')
  if (open.length === 0) return 0
  const { uid } = await readShop()
  const wanted = new Set(open.map(o => o.client_uid))
  const clients = await db().rows<{ id: number }>('SELECT id FROM client WHERE erased_at IS NULL')
  const found = new Map(clients.map(c => [uidOf(uid, 'client', c.id), c.id]))
  for (const one of wanted)
    await transaction(async tx => {
      const id = found.get(one)
      if (id !== undefined) {
        await takeOut(tx, await recordsOf(tx, id), at)
        await logShop(tx, 'client', `Client ${id}: personal data erased again after a backup`, at, null)
        await tell(tx, 'pieces', null, at)
      }
      await tx.run('UPDATE erasure SET done_at = :at WHERE client_uid = :one', { at, one })
    })
  return wanted.size
}
