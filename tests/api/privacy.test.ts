/** What is kept of a person goes out whole, and goes; what was done to the pieces stays. */
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { type Caller, BASE, choice, intake, planOf, setClock, shopPeople } from './http'

const people = {} as Record<Role, Caller>
let sql: mysql.Connection
const NAME = 'Beata Borttagen'
const MAIL = 'beata@example.invalid'
let pieceId = 0
let clientId = 0
interface Page {
  client: { name: string; email: string; erased_at: string | null; rowVersion: number }
  kept: Record<string, number>
}
const page = () => people.owner.ok<Page>(`GET /api/clients/${clientId}`)
beforeAll(async () => {
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
  Object.assign(people, await shopPeople())
  await setClock(people.owner, '2027-07-05T09:00:00+02:00')
  const { id } = await people.owner.ok<{ id: number }>(
    'POST /api/pieces',
    intake({
      name: 'Erased chest',
      note: `${NAME} wants it oiled`,
      client: { name: NAME, email: MAIL, phone: '070-77' },
    }),
  )
  pieceId = id
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await people.office.ok(`POST /api/pieces/${id}/link`, {})
  await people.office.ok(`POST /api/pieces/${id}/approvals`, { words: `Dear ${NAME}, please look, Beata`, days: 14 })
  await people.office.ok(`POST /api/pieces/${id}/quotations`, { words: `For ${NAME}`, by: 'stage' })
  const [[row]] = (await sql.query('SELECT client_id FROM piece WHERE id = ?', [id])) as unknown as [
    [{ client_id: number }],
  ]
  clientId = row.client_id
}, 60_000)
afterAll(() => sql.end())
const erase = async (who: Caller) =>
  who.send(`POST /api/clients/${clientId}/erase`, { rowVersion: (await page()).client.rowVersion })

describe('a person', () => {
  it('is given out whole, to whom it is for', async () => {
    const data = await people.office.ok<Record<string, unknown[]>>(`GET /api/clients/${clientId}/data`)
    expect(data.contact).toEqual([{ name: NAME, email: MAIL, phone: '070-77' }])
    expect(data.pieces).toHaveLength(1)
    expect(data.questions!.length).toBeGreaterThan(0)
    expect(data.letters!.length).toBeGreaterThan(0)
    expect((await people.finisher.send(`GET /api/clients/${clientId}/data`)).status).toBe(403)
    expect((await page()).kept).toMatchObject({ quotations: 1 })
  })
  it('is not erased while a piece is here, nor by anybody but the owner', async () => {
    expect((await erase(people.lead)).status).toBe(403)
    const refused = await erase(people.owner)
    expect(refused.status).toBe(409)
    expect(refused.body.message).toContain('Erased chest')
  })
  it('goes from every text, and digests, prices and steps stay', async () => {
    await sql.query("UPDATE piece SET state = 'declined', changed_no = changed_no + 1 WHERE id = ?", [pieceId])
    const digests = async () =>
      (
        await sql.query(
          'SELECT sha256 FROM plan_snapshot WHERE piece_id = ? UNION SELECT sha256 FROM quotation WHERE piece_id = ?',
          [pieceId, pieceId],
        )
      )[0]
    const [before, steps] = [await digests(), (await planOf(people.lead, pieceId)).steps.length]
    expect((await erase(people.owner)).status).toBe(200)
    expect(await digests()).toEqual(before)
    expect((await planOf(people.lead, pieceId)).steps).toHaveLength(steps)
    // every text column of the whole database
    const [columns] = (await sql.query(
      `SELECT table_name AS t, column_name AS c
          FROM information_schema.columns
          WHERE table_schema = DATABASE() AND data_type IN ('varchar', 'text', 'mediumtext', 'longtext')
`,
    )) as unknown as [{ t: string; c: string }[]]
    const found: string[] = []
    for (const { t, c } of columns)
      for (const word of [NAME, 'Beata', MAIL, '070-77']) {
        const [[{ n }]] = (await sql.query(`SELECT COUNT(*) AS n FROM \`${t}\` WHERE \`${c}\` LIKE ?`, [
          `%${word}%`,
        ])) as unknown as [[{ n: number }]]
        if (n > 0) found.push(`${t}.${c}: ${word}`)
      }
    expect(found).toEqual([])
    const after = await page()
    expect(after.client.erased_at).not.toBeNull()
    expect(after.client.email).toBe('')
    const [[marked]] = (await sql.query(
      'SELECT COUNT(*) AS n FROM logbook WHERE piece_id = ? AND erased_at IS NOT NULL',
      [pieceId],
    )) as unknown as [[{ n: number }]]
    expect(marked.n).toBeGreaterThan(0)
    expect((await erase(people.owner)).status).toBe(409)
    // no letter leaves to nobody, and no link that went out opens anything
    const [links] = await sql.query('SELECT hash FROM link WHERE piece_id = ? AND revoked_at IS NULL', [pieceId])
    expect(links).toEqual([])
    const [waiting] = await sql.query("SELECT id FROM mail WHERE piece_id = ? AND state = 'waiting'", [pieceId])
    expect(waiting).toEqual([])
  })
  it('is found no more, is in no list, and cannot be changed back', async () => {
    expect(await people.office.ok(`GET /api/clients?find=Beata`)).toEqual([])
    const list = await (await fetch(`${BASE}/api/lists/clients`, { headers: { cookie: people.owner.cookie } })).text()
    expect(list).not.toContain(`Client ${clientId}`)
    const { client } = await page()
    const back = { rowVersion: client.rowVersion, name: NAME, email: '', phone: '' }
    expect((await people.office.send(`PATCH /api/clients/${clientId}`, back)).status).toBe(404)
  })
  it('stays out of it: the log and what was shown change in nothing else', async () => {
    const change = sql.query("UPDATE logbook SET kind = 'other', erased_at = NOW() WHERE piece_id = ?", [pieceId])
    await expect(change).rejects.toThrow('append-only')
    const digest = sql.query("UPDATE plan_snapshot SET sha256 = 'x', erased_at = NOW() WHERE piece_id = ?", [pieceId])
    await expect(digest).rejects.toThrow('never changes')
  })
  it('is erased again where an older backup brought it back', async () => {
    await sql.query('UPDATE client SET name = ?, erased_at = NULL WHERE id = ?', [NAME, clientId])
    await sql.query('UPDATE piece SET note = ? WHERE id = ?', [`${NAME} was here`, pieceId])
    await sql.query('UPDATE erasure SET done_at = NULL')
    await sql.query("UPDATE job SET due_at = '2020-01-01' WHERE name = 'remind'")
    await expect
      .poll(async () => (await page()).client.name, { timeout: 25_000, interval: 500 })
      .toBe(`Client ${clientId}`)
    const [[piece]] = (await sql.query('SELECT note FROM piece WHERE id = ?', [pieceId])) as unknown as [
      [{ note: string }],
    ]
    expect(piece.note).toBe('(erased) was here')
  }, 40_000)
})

describe('people', () => {
  interface Read {
    fresh: string[]
    changed: { name: string; what: string[] }[]
    same: number
    wrong: { line: number; says: string }[]
    message: string
  }
  const read = (text: string, take: boolean, who = people.office) =>
    who.send<Read>('POST /api/lists/read', { list: 'clients', text, take })
  const card = (name: string, more = '') => `BEGIN:VCARD\r\nVERSION:4.0\r\nFN:${name}\r\n${more}END:VCARD\r\n`
  it('come in from cards, one of the same name and mail once, and go out again', async () => {
    const text = card('Cecilia Kort', 'EMAIL:cecilia@example.invalid\r\n') + card('David Kort', 'TEL:070-1\r\n')
    expect((await read(text, false)).body).toMatchObject({ fresh: ['Cecilia Kort', 'David Kort'], wrong: [] })
    expect((await read(text, true)).status).toBe(200)
    expect((await read(text, true)).body).toMatchObject({ fresh: [], same: 2 })
    const more = card('Cecilia Kort', 'TEL:070-2\r\n')
    expect((await read(more, true)).body.changed).toEqual([{ name: 'Cecilia Kort', what: ['phone'] }])
    const out = await (await fetch(`${BASE}/api/clients/cards`, { headers: { cookie: people.office.cookie } })).text()
    expect(out).toContain('FN:Cecilia Kort')
    expect((await read(out, false)).body).toMatchObject({ fresh: [], changed: [], wrong: [] })
  })
  it('that cannot be read are told by line, and nothing of the file is taken', async () => {
    const reply = await read(card('Erik Ny') + card('', 'TEL:1\r\n'), true)
    expect(reply.status).toBe(422)
    expect(reply.body.message).toContain('Line 2')
    expect((await read('name;mail\r\nFrida;no address\r\n', false)).body.wrong).toHaveLength(1)
    expect((await read('', false)).status).toBe(422)
    expect((await read('\u0000\u0001', false)).status).toBe(422)
    expect((await read(card('Gustav'), true, people.finisher)).status).toBe(403)
  })
})
