/**
 * Who gets in, from where, and for how long. Sources: OWASP's cheat sheets on sessions, sign-in, CSRF and CSV (from
 * memory).
 */
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import type { Role } from '#shared/rights'
import { BASE, Caller, intake, PASSWORD, shopPeople, signedIn } from './http'

const people = {} as Record<Role, Caller>
let sql: mysql.Connection

beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())

interface ShopPage {
  people: { id: number; login: string; role: Role; active: boolean; rowVersion: number }[]
}
const rowOf = async (login: string) =>
  (await people.owner.ok<ShopPage>('GET /api/shop')).people.find(p => p.login === login)!
const fresh = () => `g${crypto.randomUUID().slice(0, 8)}`
async function comes(role: Role = 'finisher', password = PASSWORD) {
  const login = fresh()
  await people.owner.ok('POST /api/people', { name: login, login, role, password })
  return login
}
const enter = (login: string, password: string, caller = new Caller()) =>
  caller.send('POST /api/session', { login, password })
const shopLog = async () =>
  (
    await sql.query<mysql.RowDataPacket[]>('SELECT says FROM logbook WHERE piece_id IS NULL ORDER BY id DESC LIMIT 40')
  )[0].map(r => r.says as string)
const isIn = async (caller: Caller) => (await caller.ok<{ person: object | null }>('GET /api/session')).person !== null

describe('sessions', () => {
  it('sign-out ends that session for good, whoever kept its cookie', async () => {
    const caller = await signedIn('finisher')
    const thief = { cookie: caller.cookie }
    await caller.ok('DELETE /api/session')
    expect((await new Caller().send('GET /api/now', undefined, thief)).status).toBe(401)
  })
  it('end when nobody touches them, though an open page reads on; all end some day', async () => {
    const own = await signedIn('lead')
    const age = (hours: number) =>
      sql.query(
        `UPDATE session
            SET seen_at = UTC_TIMESTAMP(3) - INTERVAL ? HOUR
            WHERE person_id = (SELECT id FROM person WHERE login = 'lead')`,
        [hours],
      )
    await age(11)
    await own.ok('GET /api/now')
    await age(13)
    expect((await own.send('GET /api/now')).status).toBe(401)
    const other = await signedIn('lead')
    await sql.query('UPDATE session SET ends_at = UTC_TIMESTAMP(3) WHERE ends_at > UTC_TIMESTAMP(3) AND id = ?', [
      (await other.ok<{ id: string; here: boolean }[]>('GET /api/sessions')).find(s => s.here)!.id,
    ])
    expect((await other.send('GET /api/now')).status).toBe(401)
    people.lead = await signedIn('lead')
  })
  it('a touch keeps a session alive, reading by itself does not', async () => {
    const caller = await signedIn('finisher')
    const seen = async () =>
      Number(
        (
          await sql.query<mysql.RowDataPacket[]>(
            `SELECT TIMESTAMPDIFF(MINUTE, MAX(seen_at), UTC_TIMESTAMP(3)) AS m
                FROM session
                WHERE person_id = (SELECT id FROM person WHERE login = 'finisher') `,
          )
        )[0][0]!.m,
      )
    await sql.query(
      `UPDATE session
          SET seen_at = UTC_TIMESTAMP(3) - INTERVAL 60 MINUTE
          WHERE person_id = (SELECT id FROM person WHERE login = 'finisher')`,
    )
    await caller.ok('GET /api/now')
    expect(await seen()).toBe(60)
    await caller.send('GET /api/now', undefined, { 'x-touched': '1' })
    expect(await seen()).toBe(0)
  })
  it("are listed, one's own or all for the owner, and ended from there", async () => {
    const caller = await signedIn('office')
    const list = await people.owner.ok<{ id: string; name: string; here: boolean }[]>('GET /api/sessions')
    expect(list.filter(s => s.here)).toHaveLength(1)
    const own = await caller.ok<{ id: string; name: string; here: boolean }[]>('GET /api/sessions')
    expect(new Set(own.map(s => s.name))).toEqual(new Set(['office']))
    expect((await people.finisher.send(`DELETE /api/sessions/${own.find(s => s.here)!.id}`)).status).toBe(404)
    await people.owner.ok(`DELETE /api/sessions/${own.find(s => s.here)!.id}`)
    expect((await caller.send('GET /api/now')).status).toBe(401)
    expect((await shopLog())[0]).toMatch(/Session of office ended/)
  })
  it('of somebody who is let go end at once, and their open streams within seconds', async () => {
    const login = await comes()
    const caller = await signedIn(login)
    const stream = await caller.open('/api/events', process.env.HANTVERK_SECOND)
    await stream.read()
    const { id, rowVersion } = await rowOf(login)
    await people.owner.ok(`PATCH /api/people/${id}`, { rowVersion, active: false })
    expect((await caller.send('GET /api/now')).status).toBe(401)
    const closed = (async () => {
      for (let part = await stream.read(); !part.done; part = await stream.read());
      return true
    })()
    expect(await Promise.race([closed, new Promise(resolve => setTimeout(() => resolve(false), 8000))])).toBe(true)
    expect((await enter(login, PASSWORD)).status).toBe(401)
  })
  it.each(['hantverk=', 'hantverk=Fe26.2**x', `hantverk=${'a'.repeat(4000)}`, 'hantverk=toString', 'hantverk=%00'])(
    'a made-up cookie is nobody: %s',
    async cookie => {
      expect((await new Caller().send('GET /api/now', undefined, { cookie })).status).toBe(401)
    },
  )
})

describe('passwords', () => {
  test.each([
    ['          ', 'blank'],
    ['short', 'short'],
    ['aaaaaaaaaaaa', 'same'],
    ['1234567890', 'take most often'],
    ['qwertyuiop', 'take most often'],
    ['Gudrun-Ek1', 'name'],
  ])('%j is refused', async (password, why) => {
    const reply = await people.owner.send('POST /api/people', {
      name: 'Gudrun-Ek',
      login: 'gudrun-ek',
      role: 'office',
      password,
    })
    expect(reply.status, reply.body.message).toBe(422)
    expect(JSON.stringify(reply.body), why).toMatch(/password/i)
  })
  it('are kept as scrypt with N 2^17, r 8, p 1, and a weaker hash is made anew at sign-in', async () => {
    const login = await comes()
    const hash = async () =>
      (await sql.query<mysql.RowDataPacket[]>('SELECT password_hash AS h FROM person WHERE login = ?', [login]))[0][0]!
        .h as string
    expect(await hash()).toMatch(/^\$scrypt\$n=131072,r=8,p=1\$/)
    const { Hash } = await import('@adonisjs/hash')
    const { Scrypt } = await import('@adonisjs/hash/drivers/scrypt')
    const weak = await new Hash(new Scrypt({ cost: 16384, blockSize: 8, parallelization: 1 })).make(PASSWORD)
    await sql.query('UPDATE person SET password_hash = ? WHERE login = ?', [weak, login])
    expect((await enter(login, PASSWORD)).status).toBe(200)
    expect(await hash()).toMatch(/^\$scrypt\$n=131072,r=8,p=1\$/)
    expect((await enter(login, PASSWORD)).status).toBe(200)
  })
  it("are changed by oneself, which ends one's other sessions, and need the one before", async () => {
    const login = await comes()
    const [here, elsewhere] = [await signedIn(login), await signedIn(login)]
    expect(
      (await here.send('PUT /api/session/password', { before: 'not this one', password: 'glue-and-clamps' })).status,
    ).toBe(401)
    await here.ok('PUT /api/session/password', { before: PASSWORD, password: 'glue-and-clamps' })
    expect([await isIn(here), await isIn(elsewhere)]).toEqual([true, false])
    expect((await enter(login, PASSWORD)).status).toBe(401)
    expect((await enter(login, 'glue-and-clamps')).status).toBe(200)
    expect((await shopLog()).join('\n')).not.toContain('glue-and-clamps')
  })
  it('are reset by the owner with one that opens once: nothing else works until another is chosen', async () => {
    const login = await comes()
    const before = await signedIn(login)
    const { id, rowVersion } = await rowOf(login)
    const { oneTime } = await people.owner.ok<{ oneTime: string }>(`POST /api/people/${id}/password`, { rowVersion })
    expect(oneTime).toMatch(/^[a-z2-9]{4}-[a-z2-9]{4}-[a-z2-9]{4}$/)
    expect(await isIn(before)).toBe(false)
    const [kept] = await sql.query<mysql.RowDataPacket[]>('SELECT COUNT(*) AS n FROM command WHERE answer LIKE ?', [
      `%${oneTime}%`,
    ])
    expect(kept[0]!.n).toBe(0)
    const caller = new Caller()
    expect((await enter(login, oneTime, caller)).status).toBe(200)
    expect((await caller.send('GET /api/now')).body.code).toBe('choose-password')
    await caller.ok('PUT /api/session/password', { before: oneTime, password: 'shellac-flakes' })
    expect((await caller.send('GET /api/now')).status).toBe(200)
    expect((await enter(login, oneTime)).status).toBe(401)
  })
  it('a one-time password runs out after a day', async () => {
    const login = await comes()
    const { id, rowVersion } = await rowOf(login)
    const { oneTime } = await people.owner.ok<{ oneTime: string }>(`POST /api/people/${id}/password`, { rowVersion })
    await sql.query('UPDATE person SET one_time_until = UTC_TIMESTAMP(3) - INTERVAL 1 MINUTE WHERE login = ?', [login])
    expect((await enter(login, oneTime)).body.code).toBe('run-out')
  })
})

describe('guessing', () => {
  it('is slowed by name: of twenty at once only the free ones are tried at all', async () => {
    const login = await comes()
    const replies = await Promise.all(Array.from({ length: 20 }, () => enter(login, 'not the password')))
    expect(replies.filter(r => r.status === 401).length).toBe(5)
    expect(replies.filter(r => r.status === 429).length).toBe(15)
  })
  it('never locks out the right person on a device that has signed in before', async () => {
    const login = await comes()
    const caller = await signedIn(login)
    await caller.ok('DELETE /api/session')
    for (let i = 0; i < 7; i++) await enter(login, 'not the password')
    expect((await enter(login, PASSWORD)).status).toBe(429)
    expect((await enter(login, PASSWORD, caller)).status).toBe(200)
    await sql.query('DELETE FROM sign_in_attempt')
  })
  it('a known device has a narrow gate of its own', async () => {
    const login = await comes()
    const caller = await signedIn(login)
    const replies: number[] = []
    for (let i = 0; i < 7; i++) replies.push((await enter(login, 'not the password', caller)).status)
    // on a slow machine the first wait may be over before the next try comes
    expect(replies.slice(0, 5)).toEqual(Array(5).fill(401))
    expect(replies).toContain(429)
    await sql.query('DELETE FROM sign_in_attempt')
  })
  it('an unknown name takes as long as a known one', async () => {
    const login = await comes()
    const timed = async (name: string) => {
      const begun = performance.now()
      await enter(name, 'not the password')
      return performance.now() - begun
    }
    const pairs: [number, number][] = []
    for (let i = 0; i < 4; i++) pairs.push([await timed(login), await timed(fresh())])
    const middle = (of: number[]) => of.sort((a, b) => a - b)[1]!
    const ratio = middle(pairs.map(p => p[1])) / middle(pairs.map(p => p[0]))
    expect(ratio).toBeGreaterThan(0.5)
    expect(ratio).toBeLessThan(2)
    await sql.query('DELETE FROM sign_in_attempt')
  })
})

describe('owners', () => {
  it('the last one can neither be demoted nor let go, also by two at once', async () => {
    const login = await comes('owner')
    const second = await signedIn(login)
    const [me, other] = [await rowOf('owner'), await rowOf(login)]
    const replies = await Promise.all([
      people.owner.send(`PATCH /api/people/${other.id}`, { rowVersion: other.rowVersion, role: 'lead' }),
      second.send(`PATCH /api/people/${me.id}`, { rowVersion: me.rowVersion, active: false }),
    ])
    expect(replies.filter(r => r.status === 200)).toHaveLength(1)
    await sql.query("UPDATE person SET role = 'owner', active = TRUE WHERE login = 'owner'")
    await sql.query("UPDATE person SET role = 'lead' WHERE login = ?", [login])
    people.owner = await signedIn('owner')
    const now = await rowOf('owner')
    for (const change of [{ role: 'lead' }, { active: false }])
      expect(
        (await people.owner.send(`PATCH /api/people/${now.id}`, { rowVersion: now.rowVersion, ...change })).body.code,
      ).toBe('last-owner')
  })
  it('changes of people, rights and settings stand in the log, with what was before', async () => {
    const login = await comes()
    const { id, rowVersion } = await rowOf(login)
    await people.owner.ok(`PATCH /api/people/${id}`, { rowVersion, role: 'lead' })
    const shop = await people.owner.ok<Record<string, never>>('GET /api/shop')
    const settings = {
      rowVersion: shop.rowVersion,
      name: shop.name,
      hourMinor: 77_700,
      materialMarkupBp: shop.material_markup_bp,
      taxBp: shop.tax_bp,
      lengthUnit: shop.length_unit,
      idleH: 12,
      tabletIdleMin: 5,
      mailName: 'The shop',
      mailAddress: 'shop@example.invalid',
    }
    await people.owner.ok('PUT /api/shop', settings)
    const log = (await shopLog()).join('\n')
    expect(log).toMatch(new RegExp(`${login} is lead now, was finisher`))
    expect(log).toMatch(new RegExp(`${login} \\(${login}\\) came to the shop as finisher`))
    expect(log).toMatch(/an hour 777 SEK, was \d+ SEK/)
  })
})

describe('opening hours', () => {
  interface Shop {
    rowVersion: number
    hours: { week: Record<number, number[][]>; closures: string[] }
    closures: { day: string; why: string }[]
  }
  const shop = () => people.owner.ok<Shop>('GET /api/shop')
  it('are changed by the owner, stand in the log, and are what windows and dates go by', async () => {
    const { rowVersion, hours, closures } = await shop()
    const before = [1, 2, 3, 4, 5, 6, 7].map(d => hours.week[d] ?? [])
    const week = before.map((spans, i) => (i === 4 ? [[480, 720]] : spans))
    const change = (more: object, who = people.owner) =>
      who.send('PUT /api/shop/hours', { rowVersion, week, closures, ...more })
    for (const wrong of [
      { week: week.slice(1) },
      { week: week.map(() => []) },
      { week: [[[600, 500]], ...week.slice(1)] },
      {
        week: [
          [
            [480, 720],
            [700, 900],
          ],
          ...week.slice(1),
        ],
      },
      { week: [[[-5, 9999]], ...week.slice(1)] },
      {
        closures: [
          { day: '2026-12-31', why: '' },
          { day: '2026-12-31', why: '' },
        ],
      },
      { closures: [{ day: '31 Dec', why: '' }] },
    ])
      expect((await change(wrong)).status, JSON.stringify(wrong).slice(0, 60)).toBe(422)
    expect((await change({}, people.lead)).status).toBe(403)
    const newYear = { day: '2026-12-31', why: 'New Year' }
    const closed = [...closures.filter(c => c.day !== newYear.day), newYear]
    expect((await change({ closures: closed })).status).toBe(200)
    expect((await change({})).status).toBe(409)
    const now = await shop()
    expect(now.hours.week[5]).toEqual([[480, 720]])
    expect(now.closures).toContainEqual(newYear)
    expect((await shopLog()).join('\n')).toMatch(/Opening hours: Fri 08:00–12:00, was .*closed on 2026-12-31/)
    const back = { rowVersion: now.rowVersion, week: before, closures }
    expect((await people.owner.send('PUT /api/shop/hours', back)).status).toBe(200)
  })
})

describe('where a write comes from', () => {
  const piece = () => ({ 'idempotency-key': crypto.randomUUID() })
  const write = (headers: Record<string, string>) =>
    people.office.send('POST /api/pieces', intake(), { ...piece(), ...headers })
  test.each([
    ['another origin', { origin: 'http://127.0.0.1:1' }, 403],
    ['no page at all', { origin: 'null' }, 403],
    ["another site, by the browser's word", { 'sec-fetch-site': 'cross-site' }, 403],
    ['a neighbour on this machine', { 'sec-fetch-site': 'same-site' }, 403],
    ['this shop', {}, 200],
    ['localhost', { origin: BASE.replace('127.0.0.1', 'localhost') }, 200],
  ])('%s', async (_what, headers, status) => {
    expect((await write(headers as Record<string, string>)).status).toBe(status)
  })
  it('without any word of its origin is refused', async () => {
    const reply = await fetch(`${BASE}/api/alarms`, {
      method: 'POST',
      headers: { 'cookie': people.office.cookie, 'content-type': 'application/json' },
      body: '{}',
    })
    expect(reply.status).toBe(403)
  })
  it('is JSON, and a form of another page is none', async () => {
    for (const type of ['text/plain', 'application/x-www-form-urlencoded'])
      expect((await write({ 'content-type': type })).status).toBe(415)
  })
})

describe('answers', () => {
  it('that are private are stored nowhere, pages neither', async () => {
    for (const path of ['/api/now', '/api/pieces', '/api/session', '/api/nothing-here']) {
      expect(
        (await fetch(BASE + path, { headers: { cookie: people.owner.cookie } })).headers.get('cache-control'),
        path,
      ).toMatch(/no-store/)
    }
    expect((await fetch(`${BASE}/sign-in`)).headers.get('cache-control')).toMatch(/no-store/)
  })
  it('HEAD is answered as GET, without a body', async () => {
    for (const path of ['/api/health', '/api/now', '/api/events', '/api/pieces/999999']) {
      const [head, get] = await Promise.all(
        ['HEAD', path === '/api/events' ? 'HEAD' : 'GET'].map(method =>
          fetch(BASE + path, { method, headers: { cookie: people.owner.cookie } }),
        ),
      )
      expect(head!.status, path).toBe(get!.status)
      expect(await head!.text()).toBe('')
    }
  })
  it('a text cell of a CSV file can never be a formula; a number stays a number', async () => {
    const reading = {
      name: '=HYPERLINK("http://127.0.0.1:1")',
      role: 'other',
      lab: { L: 50, a: -10, b: 20, light: 'd65', observer: '10' },
    }
    await people.lead.ok('POST /api/readings', reading)
    for (const start of ['+1', '-1', '@x']) await people.lead.ok('POST /api/readings', { ...reading, name: start })
    const { text } = await people.lead.ok<{ text: string }>('GET /api/readings/export?format=csv')
    expect(text).toContain("'=HYPERLINK")
    for (const start of ['+1', '-1', '@x']) expect(text).toContain(`'${start}`)
    expect(text).toMatch(/,-10/)
    expect(text).not.toMatch(/(^|,|\n)"?[=@]/)
  })
})
