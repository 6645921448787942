/**
 * What stops the shop: hostile or silly values, files and rows. Bounds are shop defaults, unsourced; a page of
 * everybody never falls with one row.
 */
import { P } from '../../core/abrasives'
import mysql from 'mysql2/promise'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, describe, expect, it, test } from 'vitest'
import type { Role } from '#shared/rights'
import { BASE, type Caller, choice, intake, planOf, setClock, shopPeople } from './http'

const people = {} as Record<Role, Caller>
let sql: mysql.Connection
const t = (clock: string) => `2026-12-01T${clock}:00+01:00`

beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection({ uri: process.env.HANTVERK_SQL!, multipleStatements: true })
})
afterAll(() => sql.end())
beforeEach(() => setClock(people.owner, t('08:00')))

const faceOf = (more: object) =>
  intake({
    parts: [
      {
        name: 'top',
        scope: 'refinish',
        faces: [
          {
            name: 'up',
            rank: 'show',
            shape: 'flat',
            orientation: 'horizontal',
            length: '900',
            width: '450',
            count: 1,
            species: 'oak',
            substrate: 'solid',
            veneer: '',
            ...more,
          },
        ],
      },
    ],
  })
const takenIn = async (more = {}) => (await people.office.ok<{ id: number }>('POST /api/pieces', intake(more))).id
const firstFace = async (id: number) =>
  (await people.owner.ok<{ faces: { id: number }[] }>(`GET /api/pieces/${id}`)).faces[0]!.id

describe('sizes', () => {
  test.each([
    [{ length: '0.4' }],
    [{ length: '21 m' }],
    [{ length: '900 in' }],
    [{ length: '1e9' }],
    [{ length: '-5' }],
    [{ length: 'toString' }],
    [{ length: '∞' }],
    [{ count: 501 }],
    [{ count: 0 }],
    [{ count: 1.5 }],
    [{ length: '20 m', width: '20 m', count: 500 }],
    [{ length: '20 m', width: '20 m' }],
    [{ substrate: 'veneer', veneer: '11' }],
    [{ substrate: 'veneer', veneer: '0.01' }],
    [{ species: 'constructor' }],
    [{ shape: '__proto__' }],
  ])('%j is refused in words', async more => {
    const reply = await people.office.send('POST /api/pieces', faceOf(more))
    expect(reply.status, reply.body.message).toBe(422)
    expect(reply.body.message.length).toBeGreaterThan(10)
  })
  it("bare numbers count in the shop's unit: 700 inches are no board", async () => {
    await sql.query("UPDATE shop SET length_unit = 'in'")
    const reply = await people.office.send('POST /api/pieces', faceOf({ length: '900' }))
    await sql.query("UPDATE shop SET length_unit = 'mm'")
    expect(reply.status).toBe(422)
    expect(reply.body.message).toMatch(/inches here/)
  })
  it('a piece holds 300 faces and no more, however they come', async () => {
    const part = (name: string) => ({
      name,
      scope: 'refinish',
      faces: Array.from({ length: 60 }, (_, i) => ({
        name: `f${i}`,
        rank: 'show',
        shape: 'flat',
        orientation: 'horizontal',
        length: '100',
        width: '100',
        count: 1,
        species: 'oak',
        substrate: 'solid',
        veneer: '',
      })),
    })
    const id = await takenIn({ parts: [1, 2, 3, 4, 5].map(n => part(`part ${n}`)) })
    const more = await people.office.send(`POST /api/pieces/${id}/parts`, { parts: [part('part 6')] })
    expect(more.body.code).toBe('too-many')
  })
  test.each([
    [{ length: '19' }, /20 mm/],
    [{ minutes: 600 }, /cannot be/],
    [{ length: '400', width: '400', minutes: 0.01 }, /cannot be/],
  ])('a patch %j is refused', async (more, says) => {
    const id = await takenIn()
    const reply = await people.finisher.send(`POST /api/pieces/${id}/patches`, {
      faceId: await firstFace(id),
      method: 'stripper',
      length: '50',
      width: '50',
      minutes: 5,
      result: 'all-off',
      note: '',
      ...more,
    })
    expect(reply.status).toBe(422)
    expect(reply.body.message).toMatch(says)
  })
})

describe('what is typed', () => {
  it('grits are those of a scale, and nothing is looked up by a name that every object has', async () => {
    const id = await takenIn()
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    const sand = (await planOf(people.owner, id)).steps.find(s => s.kind === 'sand')!
    const odd = [81, 0, -120, 1e9, 120.5, '', '__proto__', 'toString'].map(grade => [P(grade)])
    for (const grits of [...odd, [120], [{ scale: 'Q', grade: '120' }], [{ scale: 'pad' }], Array(9).fill(P(120))]) {
      expect(
        (await people.lead.send(`PATCH /api/steps/${sand.id}`, { rowVersion: sand.rowVersion, grits })).status,
        JSON.stringify(grits),
      ).toBe(422)
    }
    for (const test of ['look', 'toString'])
      for (const result of ['toString', '__proto__', 'constructor'])
        expect((await people.lead.send(`POST /api/pieces/${id}/tests`, { test, result, spot: '' })).status).toBe(422)
    for (const house of [{ 'between-coats': 'toString' }, { toString: 'x' }, { constructor: 'x' }])
      expect((await people.lead.send(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 2, house })).status).toBe(
        422,
      )
  })
  it('unknown fields, control characters and turned reading directions do not pass', async () => {
    expect((await people.office.send('POST /api/pieces', { ...intake(), role: 'owner' })).body.message).toMatch(
      /"role" is not known/,
    )
    const id = await takenIn({ name: 'Stool\u0000\u202Egnp.exe\u0007 one' })
    expect((await people.owner.ok<{ piece: { name: string } }>(`GET /api/pieces/${id}`)).piece.name).toBe(
      'Stoolgnp.exe one',
    )
  })
  test.each([
    ['nested a thousand deep', `{"name":${'['.repeat(1000)}${']'.repeat(1000)}}`, 400],
    ['no JSON', '{', 400],
    ['a list', '[]', 422],
    ['300 kB', JSON.stringify({ name: 'x'.repeat(300_000) }), 413],
    ['null', 'null', 422],
  ])('JSON that is %s', async (_what, body, status) => {
    expect((await people.office.send('POST /api/pieces', body)).status).toBe(status)
  })
})

describe('bodies and files', () => {
  /** Sends without saying how long it is, until the server has had enough. */
  async function stream(path: string, type: string, chunks: number) {
    let sent = 0
    const body = new ReadableStream<Uint8Array>({
      pull(controller) {
        if (sent++ < chunks) controller.enqueue(new Uint8Array(1_000_000))
        else controller.close()
      },
    })
    return fetch(BASE + path, {
      method: 'POST',
      body,
      duplex: 'half',
      headers: {
        'cookie': people.finisher.cookie,
        'origin': BASE,
        'content-type': type,
        'idempotency-key': crypto.randomUUID(),
      },
    } as RequestInit & { duplex: 'half' })
  }
  it('are counted as they come, whatever length was said', async () => {
    const id = await takenIn()
    expect((await stream('/api/bench', 'application/json', 8)).status).toBe(413)
    expect((await stream(`/api/pieces/${id}/photographs`, 'multipart/form-data; boundary=x', 40)).status).toBe(413)
    expect((await people.finisher.send('GET /api/now')).status).toBe(200)
  })
  const upload = (id: number, data: Uint8Array | string) => {
    const form = new FormData()
    form.append('picture', new Blob([typeof data === 'string' ? data : new Uint8Array(data)]), 'a.png')
    return people.finisher.send<{ address: string }>(`POST /api/pieces/${id}/photographs`, form)
  }
  it(
    "an SVG, a foreign file under a picture's name, a moving or a huge picture are refused before they are " +
      'decoded',
    async () => {
      const id = await takenIn()
      const began = Date.now()
      const svg =
        '<svg xmlns="http://www.w3.org/2000/svg" width="9000" height="9000"><filter id="f"><feTurbulence ' +
        'numOctaves="99"/><feGaussianBlur stdDeviation="900"/></filter><rect width="9000" height="9000" ' +
        'filter="url(#f)"/></svg>'
      const png = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#a53' } })
        .png()
        .toBuffer()
      const huge = Buffer.from(png)
      huge.writeUInt32BE(60_000, 16)
      huge.writeUInt32BE(60_000, 20)
      const frames = await Promise.all(
        ['#111', '#777', '#eee'].map(background =>
          sharp({ create: { width: 8, height: 8, channels: 3, background } })
            .png()
            .toBuffer(),
        ),
      )
      const moving = await sharp(frames, { join: { animated: true } })
        .webp({ delay: [100, 100, 100] })
        .toBuffer()
      for (const [what, data] of [
        ['svg', svg],
        ['text', 'not a picture'],
        ['gif', 'GIF89a'],
        ['cut', png.subarray(0, 40)],
        ['huge', huge],
        ['moving', moving],
        ['png named as such only', Buffer.concat([png.subarray(0, 8), Buffer.from(svg)])],
      ] as const) {
        const reply = await upload(id, data)
        expect(reply.status, `${what}: ${reply.body.message}`).toBe(415)
      }
      expect(Date.now() - began).toBeLessThan(15_000)
      for (const format of ['jpeg', 'png', 'webp', 'avif'] as const)
        expect((await upload(id, await sharp(png).toFormat(format).toBuffer())).status, format).toBe(200)
    },
  )
  it('come one at a time from one person', async () => {
    const id = await takenIn()
    const big = await sharp({
      create: {
        width: 3000,
        height: 3000,
        channels: 3,
        background: '#a53',
        noise: { type: 'gaussian', mean: 120, sigma: 30 },
      },
    })
      .jpeg()
      .toBuffer()
    const replies = await Promise.all([upload(id, big), upload(id, big), upload(id, big)])
    expect(replies.filter(r => r.status === 200)).toHaveLength(1)
    expect(replies.filter(r => r.body.code === 'one-at-a-time')).toHaveLength(2)
  })
  it('a report file keeps to the bounds of what is typed', async () => {
    const id = await takenIn()
    const report = await people.owner.ok<Record<string, unknown>>(`GET /api/pieces/${id}/report`)
    const read = async (change: (r: { faces: Record<string, unknown>[] }) => void) => {
      const copy = structuredClone(report) as { faces: Record<string, unknown>[] }
      change(copy)
      const form = new FormData()
      form.append('report', new Blob([JSON.stringify(copy)]), 'r.json')
      return people.lead.send(`POST /api/pieces/${id}/examinations/read`, form)
    }
    expect((await read(() => {})).status).toBe(200)
    expect(
      (
        await read(r => {
          r.faces[0]!.length_mm = 1e12
        })
      ).status,
    ).toBe(422)
    expect(
      (
        await read(r => {
          r.faces = Array(301).fill(r.faces[0])
        })
      ).status,
    ).toBe(422)
    expect(
      (
        await read(r => {
          r.faces[0]!.more = 'x'
        })
      ).status,
    ).toBe(422)
  })
})
