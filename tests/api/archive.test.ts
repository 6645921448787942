/** Archives: written by the server, read by two libraries from outside, taken into another shop and back. */
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import Ajv2020 from 'ajv/dist/2020'
import addFormats from 'ajv-formats'
import { unzipSync, zipSync } from 'fflate'
import mysql from 'mysql2/promise'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { migrationsHere } from '../../ops/backup'
import { readArchive } from '../../server/services/archive/read'
import { writeArchive } from '../../server/services/archive/write'
import { migrate } from '../../server/database/migrate'
import type { Db } from '../../server/database/on'
import { picture as lookedAt } from '../../server/workers/picture'
import { act, BASE, type Caller, choice, intake, planOf, sayYes, setClock, shopPeople } from './http'

const people = {} as Record<Role, Caller>
const dir = mkdtempSync(`${tmpdir()}/hantverk-archive-`)
const OTHER = 'hantverk_other'
let pieceId = 0
let other: mysql.Connection
let sql: mysql.Connection
let there: Db
const dbOn = (on: mysql.Connection): Db => {
  const ask = async (sql: string, params: object = {}) =>
    (await on.query({ sql, values: params } as never))[0] as unknown
  return {
    rows: async <T>(sql: string, params?: object) => (await ask(sql, params)) as T[],
    row: async <T>(sql: string, params?: object) => ((await ask(sql, params)) as T[])[0] ?? null,
    run: async (sql, params) => {
      const header = (await ask(sql, params)) as mysql.ResultSetHeader
      return { id: header.insertId, changed: header.affectedRows }
    },
  }
}
const smallOf = async (data: Buffer) => (await lookedAt(new Uint8Array(data))).thumb
const url = new URL(process.env.HANTVERK_SQL!)
const FIRST = url.pathname.slice(1)

beforeAll(async () => {
  Object.assign(people, await shopPeople())
  await setClock(people.owner, '2027-06-07T09:00:00+02:00')
  const { id } = await people.owner.ok<{ id: number }>(
    'POST /api/pieces',
    intake({ name: 'Archive chest', client: { name: 'Åsa Arkiv', email: 'asa@example.invalid', phone: '070' } }),
  )
  pieceId = id
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  const wash = (await planOf(people.lead, id)).steps.find(s => s.kind === 'wash')!
  await setClock(people.owner, '2027-06-07T09:35:00+02:00')
  const begun = await act(people.finisher, 'start', wash, '2027-06-07T09:30:00+02:00')
  expect(begun.status, begun.body.message).toBe(200)
  const picture = await sharp({ create: { width: 300, height: 200, channels: 3, background: '#886644' } })
    .jpeg()
    .toBuffer()
  const form = new FormData()
  form.append('file', new Blob([new Uint8Array(picture)], { type: 'image/jpeg' }), 'p.jpg')
  await people.lead.ok(`POST /api/pieces/${id}/photographs`, form)

  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
  other = await mysql.createConnection({ uri: url.href })
  await other.query(`DROP DATABASE IF EXISTS ${OTHER}`)
  await other.query(`CREATE DATABASE ${OTHER} CHARACTER SET utf8mb4`)
  await other.end()
  url.pathname = `/${OTHER}`
  await migrate(url.href, migrationsHere())
  other = await mysql.createConnection({
    uri: url.href,
    ...{ timezone: 'Z', dateStrings: ['DATE'], decimalNumbers: true, namedPlaceholders: true, supportBigNumbers: true },
    ...{ jsonStrings: true, charset: 'utf8mb4' },
  })
  there = dbOn(other)
  await other.query(`INSERT INTO shop SELECT * FROM \`${FIRST}\`.shop`)
  await other.query("UPDATE shop SET uid = UUID(), name = 'Other shop'")
}, 120_000)
afterAll(async () => {
  await other.query(`DROP DATABASE ${OTHER}`)
  await other.end()
  await sql.end()
})

const bytes = async (path: string, who = people.owner) => {
  const reply = await fetch(`${BASE}${path}`, { headers: { cookie: who.cookie } })
  return { status: reply.status, data: new Uint8Array(await reply.arrayBuffer()) }
}
const textOf = (data: Uint8Array) => new TextDecoder().decode(data)
type Row = Record<string, unknown>
const rowsOf = (files: Record<string, Uint8Array>) =>
  new Map(
    Object.keys(files)
      .filter(n => n.startsWith('rows/'))
      .map(n => [
        n.slice(5, -6),
        textOf(files[n]!)
          .split('\n')
          .filter(Boolean)
          .map(l => JSON.parse(l) as Row),
      ]),
  )
const uids = (rows: Map<string, Row[]>) =>
  Object.fromEntries([...rows].map(([t, of]) => [t, of.map(r => r.uid ?? JSON.stringify(r)).sort()]))
async function collected(pieceThere: number | null) {
  const chunks: Buffer[] = []
  const stream = await writeArchive(there, { pieceId: pieceThere, papers: [], at: new Date() })
  for await (const chunk of stream) chunks.push(chunk as Buffer)
  return rowsOf(unzipSync(new Uint8Array(Buffer.concat(chunks))))
}
const kept = (name: string, data: Uint8Array) => {
  writeFileSync(`${dir}/${name}`, data)
  return `${dir}/${name}`
}
const post = (data: BodyInit, who = people.owner) =>
  fetch(`${BASE}/api/archive`, {
    method: 'POST',
    headers: {
      ...{ 'cookie': who.cookie, 'origin': BASE, 'content-type': 'application/zip' },
      'idempotency-key': crypto.randomUUID(),
    },
    body: data,
  })

describe('an archive', () => {
  it('of a piece is a zip whose rows keep its own JSON Schema, with pictures and a paper', async () => {
    const { status, data } = await bytes(`/api/pieces/${pieceId}/archive`)
    expect(status).toBe(200)
    const files = unzipSync(data)
    const head = JSON.parse(textOf(files['archive.json']!)) as { what: string; rows: Record<string, number> }
    expect(head).toMatchObject({ format: 'hantverk-archive', version: 1, what: 'piece' })
    const rows = rowsOf(files)
    expect(rows.get('piece')).toMatchObject([{ name: 'Archive chest' }])
    expect(rows.get('client')).toHaveLength(1)
    const ajv = addFormats(new Ajv2020({ strict: false, allErrors: true }))
    const schema = JSON.parse(textOf(files['schema.json']!)) as { $defs: Record<string, object> }
    expect(ajv.compile(schema)(head)).toBe(true)
    for (const [table, lines] of rows) {
      const valid = ajv.compile(schema.$defs[table]!)
      for (const line of lines) expect(valid(line), `${table} ${ajv.errorsText(valid.errors)}`).toBe(true)
      if (head.rows[table]) expect(head.rows[table]).toBe(lines.length)
    }
    const [photograph] = rows.get('photograph')!
    const picture = files[`pictures/${String(photograph!.address)}`]!
    expect((await sharp(picture).metadata()).width).toBe(300)
    const paper = Object.entries(files).find(([n]) => n.startsWith('papers/'))![1]
    expect(textOf(paper.slice(0, 5))).toBe('%PDF-')
  })
  it('holds no password, PIN, link, mail or name to sign in with', async () => {
    const { data } = await bytes('/api/archive')
    const files = unzipSync(data)
    const all = Object.values(files).map(textOf).join('\n')
    expect(all).not.toMatch(/\$argon|\$scrypt|password_hash"|pin_hash"|token_hash"|"login"/)
    expect(Object.keys(files).some(n => /mail|link|session|command|feed|tablet/.test(n))).toBe(false)
  })
  it('of a whole shop brings how the house works, and data sheets, where no piece stands yet', async () => {
    const soap = { name: 'Archive soap', class: 'mild-soap', priceMinor: 4000 }
    const { id } = await people.lead.ok<{ id: number }>('POST /api/products', soap)
    await sql.query('INSERT INTO product_sheet (product_id, data, person_id, at) VALUES (?, ?, 1, NOW())', [
      id,
      Buffer.from('%PDF-1.4 a data sheet'),
    ])
    const files = unzipSync((await bytes('/api/archive')).data)
    const read = async (with_: Record<string, Uint8Array>) => {
      await other.query('START TRANSACTION')
      try {
        await other.query("UPDATE shop SET hour_minor = 1, zone = 'UTC', row_version = 1")
        await other.query('DELETE FROM opening')
        await readArchive(there, kept('whole.zip', zipSync(with_)), smallOf)
        return {
          shop: await there.row<Row>('SELECT zone, hour_minor, name FROM shop'),
          opening: await there.rows('SELECT weekday, open_min, close_min FROM opening ORDER BY weekday, open_min'),
          sheets: await there.rows<{ data: Buffer }>('SELECT data FROM product_sheet'),
        }
      } finally {
        await other.query('ROLLBACK')
      }
    }
    const { shop, opening, sheets } = await read(files)
    const here = JSON.parse(textOf(files['settings.json']!)) as { shop: Row; opening: Row[] }
    expect(shop).toMatchObject({ zone: here.shop.zone, hour_minor: here.shop.hour_minor, name: 'Other shop' })
    expect(opening).toEqual(here.opening)
    expect(opening.length).toBeGreaterThan(0)
    expect(sheets.map(x => x.data.toString())).toContain('%PDF-1.4 a data sheet')
    const strange = { ...here, shop: { ...here.shop, zone: 'Mars/Base' } }
    await expect(
      read({ ...files, 'settings.json': new TextEncoder().encode(JSON.stringify(strange)) }),
    ).rejects.toThrow('How the house works: shop.zone cannot be read')
    const never = { ...here, shop: { ...here.shop, idle_h: 0 } }
    await expect(read({ ...files, 'settings.json': new TextEncoder().encode(JSON.stringify(never)) })).rejects.toThrow(
      'How the house works: the database cannot keep it',
    )
    const [name] = Object.keys(files).filter(n => n.startsWith('sheets/'))
    await expect(read({ ...files, [name!]: new TextEncoder().encode('MZ') })).rejects.toThrow('data sheet is no PDF')
  })
  it('comes into an empty shop equal by uid, and a second time adds nothing', async () => {
    const path = kept('piece.zip', (await bytes(`/api/pieces/${pieceId}/archive`)).data)
    const first = await readArchive(there, path, smallOf)
    expect(first.added.piece).toBe(1)
    const here = rowsOf(unzipSync((await bytes(`/api/pieces/${pieceId}/archive`)).data))
    const [piece] = await there.rows<{ id: number }>("SELECT id FROM piece WHERE name = 'Archive chest'")
    const back = await collected(piece!.id)
    const [mine, theirs] = [uids(here), uids(back)]
    for (const table of [
      'piece',
      'client',
      'part',
      'face',
      'plan_step',
      'plan_step_face',
      'layer',
      'photograph',
      'logbook',
    ])
      expect(theirs[table], table).toEqual(mine[table])
    expect(back.get('face')!.map(r => ({ ...r, row_version: 0 }))).toEqual(
      here.get('face')!.map(r => ({ ...r, row_version: 0 })),
    )
    const second = await readArchive(there, path, smallOf)
    expect(second.added).toEqual({})
  })
  it('of a whole shop merges into one that has others, numbers mapped', async () => {
    const path = kept('shop.zip', (await bytes('/api/archive')).data)
    await other.query("INSERT INTO client (name, email, phone) VALUES ('Their own', '', '')")
    const read = await readArchive(there, path, smallOf)
    expect(read.known.piece).toBe(1)
    const here = rowsOf(unzipSync((await bytes('/api/archive')).data))
    const back = uids(await collected(null))
    for (const table of ['piece', 'face', 'finding', 'plan_step', 'build_up', 'approval'])
      expect(back[table], table).toEqual(uids(here)[table])
    expect(await there.row("SELECT id FROM client WHERE name = 'Their own'")).toBeTruthy()
    // every step stands on faces of its own piece
    expect(
      await there.row(
        `SELECT 1
            FROM plan_step_face x
            JOIN plan_step st ON st.id = x.step_id
            JOIN face ON face.id = x.face_id
            JOIN part ON part.id = face.part_id
            WHERE part.piece_id <> st.piece_id`,
      ),
    ).toBeNull()
  })
  it('that went to another shop and came back is known by every row', async () => {
    const [piece] = await there.rows<{ id: number }>("SELECT id FROM piece WHERE name = 'Archive chest'")
    const chunks: Buffer[] = []
    const stream = await writeArchive(there, { pieceId: piece!.id, papers: [], at: new Date() })
    for await (const chunk of stream) chunks.push(chunk as Buffer)
    const reply = await post(new Uint8Array(Buffer.concat(chunks)))
    const read = (await reply.json()) as { added: Record<string, number>; known: Record<string, number> }
    expect(reply.status, JSON.stringify(read)).toBe(200)
    expect(read.added).toEqual({})
    expect(read.known.piece).toBe(1)
  })
  it('that is no archive is refused in words', async () => {
    for (const body of ['', 'no zip', 'PK\u0003\u0004 broken', zipSync({ 'archive.json': new Uint8Array([123]) })]) {
      const reply = await post(body)
      expect(reply.status).toBe(422)
      expect(((await reply.json()) as { message: string }).message).toContain('no archive')
    }
    expect((await post('PK', people.lead)).status).toBe(403)
  })
  describe('that somebody has meddled with', () => {
    const encoded = (text: string) => new TextEncoder().encode(text)
    /** The piece's archive with one thing otherwise, and uids that nobody knows. */
    const meddled = async (change: (files: Record<string, Uint8Array>) => void) => {
      const files = unzipSync((await bytes(`/api/pieces/${pieceId}/archive`)).data)
      for (const name of Object.keys(files).filter(n => n.startsWith('rows/') || n === 'archive.json'))
        files[name] = encoded(textOf(files[name]!).replaceAll(/"([\da-f]{8})-([\da-f]{4})-/g, '"$1-0bad-'))
      change(files)
      return zipSync(files)
    }
    const rowOf = (files: Record<string, Uint8Array>, table: string, change: (row: Row) => void) => {
      const rows = rowsOf(files).get(table)!
      change(rows[0]!)
      files[`rows/${table}.jsonl`] = encoded(rows.map(r => JSON.stringify(r)).join('\n'))
    }
    const CASES: readonly [string, (files: Record<string, Uint8Array>) => void, RegExp][] = [
      ['a state that there is not', f => rowOf(f, 'piece', r => (r.state = 'eaten')), /Line 1 of piece: the database/],
      ['a column that there is not', f => rowOf(f, 'piece', r => (r['id; DROP'] = 1)), /"id; DROP" is not known here/],
      ['a name too long', f => rowOf(f, 'piece', r => (r.name = 'x'.repeat(5000))), /Line 1 of piece: the database/],
      ['a list for a name', f => rowOf(f, 'piece', r => (r.name = ['x'])), /name is no single value/],
      ['a moment that is none', f => rowOf(f, 'piece', r => (r.taken_in_at = 'soon')), /taken_in_at is no moment/],
      ['a size below nought', f => rowOf(f, 'face', r => (r.length_mm = 'wide')), /Line 1 of face: the database/],
      [
        'a part of no piece',
        f => rowOf(f, 'part', r => (r.piece_id = r.uid)),
        /names a row that is not in the archive/,
      ],
      ['a row without a uid', f => rowOf(f, 'client', r => delete r.uid), /Line 1 of client: it has no uid/],
      ['no row at all', f => void (f['rows/piece.jsonl'] = encoded('[1]')), /Line 1 of piece: it is no row/],
      ['half a line', f => void (f['rows/piece.jsonl'] = encoded('{"uid": "')), /Line 1 of piece: it is no JSON/],
      [
        'a script for a picture',
        f => {
          rowOf(f, 'photograph', r => (r.address = 'ab'.repeat(32)))
          f[`pictures/${'ab'.repeat(32)}`] = encoded('<svg xmlns="http://www.w3.org/2000/svg"/>')
        },
        /its picture is no JPEG/,
      ],
      [
        'no picture',
        f => rowOf(f, 'photograph', r => (r.address = 'cd'.repeat(32))),
        /its picture is not in the archive/,
      ],
      [
        'a head of another version',
        f => void (f['archive.json'] = encoded(textOf(f['archive.json']!).replace('"version": 1', '"version": 9'))),
        /of version 9/,
      ],
    ]
    it.each(CASES)('%s is told with its table and line, and nothing is taken', async (_, change, says) => {
      const count = async () =>
        Number((await there.row<{ n: number }>('SELECT COUNT(*) AS n FROM piece JOIN client'))?.n ?? 0)
      const before = await count()
      await other.query('START TRANSACTION')
      const path = kept('meddled.zip', await meddled(change))
      await expect(readArchive(there, path, smallOf)).rejects.toThrow(says)
      await other.query('ROLLBACK')
      expect(await count()).toBe(before)
    })
    it('is refused by the shop too, in the same words', async () => {
      const reply = await post(await meddled(f => rowOf(f, 'piece', r => (r.state = 'eaten'))))
      expect(reply.status).toBe(422)
      expect(((await reply.json()) as { message: string }).message).toContain('Nothing was taken')
    })
    it('and is cut within a file is told as damaged', async () => {
      const whole = await meddled(() => {})
      const at = textOf(whole).indexOf('rows/piece.jsonl')
      whole.fill(0xff, at + 16, at + 40)
      await other.query('START TRANSACTION')
      await expect(readArchive(there, kept('cut.zip', whole), smallOf)).rejects.toThrow(RangeError)
      await other.query('ROLLBACK')
    })
  })
  it('goes only to whom it is for', async () => {
    for (const who of [people.lead, people.finisher, people.office])
      expect((await bytes('/api/archive', who)).status).toBe(403)
    expect((await bytes(`/api/pieces/${pieceId}/archive`, people.finisher)).status).toBe(403)
    expect((await bytes('/api/pieces/999999/archive')).status).toBe(404)
  })
})
