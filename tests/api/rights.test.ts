/** Who may what: rights of roles, tablets and PINs, the password asked again, and money for those who see it. */
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, beforeEach, describe, expect, it, test } from 'vitest'
import { API, type RouteSpec } from '#shared/api'
import { type Right, RIGHTS, type Role } from '#shared/rights'
import { act, Caller, choice, intake, PASSWORD, sayYes, setClock, shopPeople, signedIn, stepOf } from './http'

const PIN = '2580'
const people = {} as Record<Role, Caller>
let sql: mysql.Connection
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())
beforeEach(() => setClock(people.owner, '2026-12-21T09:00:00+01:00'))

interface Session {
  person: { id: number; rights: Right[] } | null
  tablet: { name: string; place: string | null } | null
  people: { id: number; name: string; pin: boolean }[]
}
const sessionOf = (caller: Caller) => caller.ok<Session>('GET /api/session')
const name = () => `t${crypto.randomUUID().slice(0, 8)}`
async function comes(role: Role = 'finisher') {
  const login = name()
  const { id } = await people.owner.ok<{ id: number }>('POST /api/people', {
    name: login,
    login,
    role,
    password: PASSWORD,
  })
  return { id, login }
}
/** Somebody new with a PIN. */
async function keyed(role: Role = 'finisher') {
  const who = await comes(role)
  const caller = await signedIn(who.login)
  await caller.ok('PUT /api/session/pin', { password: PASSWORD, pin: PIN })
  return { ...who, caller }
}
/** A device that the owner has made a tablet of the shop, with nobody at it. */
async function tablet(place: string | null = 'BAY-7') {
  const device = await signedIn('owner')
  const { id } = await device.ok<{ id: number }>('POST /api/tablets', { name: name(), place })
  await device.ok('DELETE /api/session')
  return { id, device }
}
const tap = (device: Caller, personId: number, pin = PIN) => device.send('POST /api/session/tap', { personId, pin })

describe('a tablet of the shop', () => {
  it('shows its names, and a tap and a PIN is a person; nothing of it opens another device', async () => {
    const { device } = await tablet()
    const who = await keyed()
    const seen = await sessionOf(device)
    expect(seen).toMatchObject({ person: null, tablet: { place: 'BAY-7' } })
    expect(seen.people.find(p => p.id === who.id)).toMatchObject({ name: who.login, pin: true })
    expect((await tap(device, who.id)).status).toBe(200)
    expect((await sessionOf(device)).person?.id).toBe(who.id)
    const elsewhere = new Caller()
    expect((await tap(elsewhere, who.id)).body.code).toBe('no-tablet')
    expect((await sessionOf(elsewhere)).people).toEqual([])
  })
  it('with nobody at it reads what closes, and nothing else', async () => {
    const { device } = await tablet()
    const routes = Object.entries<RouteSpec>(API).filter(([, spec]) => spec.right !== 'public')
    for (const [key, spec] of routes) {
      if (key === 'GET /api/events') continue
      const body = key.startsWith('GET') || key.startsWith('DELETE') ? undefined : {}
      const { status } = await device.send(key.replace(/:\w+/g, '999999'), body)
      // a photograph names its person; nobody's is none
      if (spec.tablet && key !== 'POST /api/pieces/:id/photographs') expect([200, 404, 422], key).toContain(status)
      else expect(status, key).toBe(401)
    }
    const stream = await device.open('/api/events')
    expect(new TextDecoder().decode((await stream.read()).value)).toContain('hello')
    await stream.cancel()
  })
  it('leaves by itself after minutes, which the owner sets', async () => {
    const { device } = await tablet()
    const { id } = await keyed()
    await tap(device, id)
    const idle = (minutes: number) =>
      sql.query('UPDATE session SET seen_at = UTC_TIMESTAMP(3) - INTERVAL ? MINUTE WHERE person_id = ?', [minutes, id])
    await idle(4)
    expect((await sessionOf(device)).person?.id).toBe(id)
    await idle(6)
    expect(await sessionOf(device)).toMatchObject({ person: null, tablet: { place: 'BAY-7' } })
  })
  it('is taken back: whoever stands at it is out, its streams close, and no PIN opens it', async () => {
    const { id, device } = await tablet()
    const who = await keyed()
    await tap(device, who.id)
    await people.owner.ok(`DELETE /api/tablets/${id}`)
    expect((await device.send('GET /api/now')).status).toBe(401)
    expect((await tap(device, who.id)).body.code).toBe('no-tablet')
    expect(await sessionOf(device)).toMatchObject({ person: null, tablet: null, people: [] })
    expect((await people.owner.send(`DELETE /api/tablets/${id}`)).status).toBe(404)
  })
  it('is registered by those who look after the people alone, once for each device', async () => {
    expect((await people.lead.send('POST /api/tablets', { name: 'Mine', place: null })).status).toBe(403)
    const device = await signedIn('owner')
    await device.ok('POST /api/tablets', { name: 'Bench', place: null })
    expect((await device.send('POST /api/tablets', { name: 'Bench', place: null })).body.code).toBe('registered')
    for (const wrong of [{ name: '' }, { name: 'x'.repeat(61) }, { place: "rack 9'; drop" }])
      expect((await people.owner.send('POST /api/tablets', { name: 'B', place: null, ...wrong })).status).toBe(422)
  })
  it('names itself at what was worked there', async () => {
    const { device } = await tablet()
    const who = await keyed()
    const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake())
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    await sayYes(people.office, id)
    await tap(device, who.id)
    const step = await stepOf(people.lead, id, 'wash')
    const soon = '2026-12-21T09:02:00+01:00'
    await setClock(people.owner, soon)
    const begun = await act(device, 'start', step, soon)
    expect(begun.status, begun.body.message).toBe(200)
    type Plan = { steps: { key: string; spells: { at: string | null; personId: number }[] }[] }
    const { steps } = await people.lead.ok<Plan>(`GET /api/pieces/${id}/plan`)
    const { tablet: here } = await sessionOf(device)
    expect(steps.find(s => s.key === step.key)!.spells).toMatchObject([{ at: here!.name, personId: who.id }])
  })
})

describe('an alarm', () => {
  it('is heard by a tap on a name, without a PIN, by who works at the bench', async () => {
    const { device } = await tablet()
    const { id: pieceId } = await people.office.ok<{ id: number }>('POST /api/pieces', intake())
    const { people: names } = await sessionOf(device)
    const idOf = (role: string) => names.find(p => p.name === role)!.id
    const heard = (personId?: number) =>
      device.send('POST /api/alarms', { pieceId, from: 'strip.1', to: 'scrape.1', personId })
    expect((await heard()).status).toBe(422)
    expect((await heard(idOf('office'))).status).toBe(422)
    expect((await heard(idOf('finisher'))).status).toBe(200)
    const log = await people.owner.ok<{ says: string }[]>(`GET /api/pieces/${pieceId}/log`)
    expect(log.map(e => e.says)).toContain('Alarm heard by finisher')
  })
})

describe('a PIN', () => {
  test.each(['0000', '1234', '4321', '9012', '123', '123456789', '12a4', ''])('%j is refused', async pin => {
    expect((await people.lead.send('PUT /api/session/pin', { password: PASSWORD, pin })).status).toBe(422)
  })
  it('is chosen with the password, kept as a hash, and goes with a new one-time password', async () => {
    const { id, login, caller } = await keyed()
    expect((await caller.send('PUT /api/session/pin', { password: 'not this one', pin: '7391' })).status).toBe(401)
    const pinOf = async () =>
      (await sql.query<mysql.RowDataPacket[]>('SELECT pin_hash AS p FROM person WHERE id = ?', [id]))[0][0]!.p as string
    expect(await pinOf()).toMatch(/^\$scrypt\$/)
    const shop = await people.owner.ok<{ people: { login: string; rowVersion: number }[] }>('GET /api/shop')
    const { rowVersion } = shop.people.find(p => p.login === login)!
    await people.owner.ok(`POST /api/people/${id}/password`, { rowVersion })
    expect(await pinOf()).toBeNull()
  })
  it('wrong ten times, also many at once, wants the password, which opens it again', async () => {
    const { device } = await tablet()
    const { id, login } = await keyed()
    const replies = await Promise.all(Array.from({ length: 14 }, () => tap(device, id, '9999')))
    expect(replies.filter(r => r.status === 401)).toHaveLength(10)
    expect(replies.filter(r => r.body.code === 'pin-shut')).toHaveLength(4)
    expect((await tap(device, id)).body.code).toBe('pin-shut')
    await device.ok('POST /api/session', { login, password: PASSWORD })
    await device.ok('DELETE /api/session')
    expect((await tap(device, id)).status).toBe(200)
  })
  it('a right one counts anew; without one the password is wanted', async () => {
    const { device } = await tablet()
    const { id } = await keyed()
    for (let i = 0; i < 9; i++) await tap(device, id, '9999')
    expect((await tap(device, id)).status).toBe(200)
    expect((await tap(device, id, '9999')).body.message).toBe('Wrong PIN.')
    expect((await tap(device, (await comes()).id)).body.code).toBe('no-pin')
    expect((await tap(device, 999_999)).status).toBe(404)
  })
})

describe('the password once more', () => {
  const proofs = Object.entries<RouteSpec>(API).filter(([, spec]) => spec.proof)
  it('is wanted by people, rights, tablets, shop and licences', () => {
    expect(proofs.map(([key]) => key.split(' ')[1]!.split('/')[2])).toEqual(
      expect.arrayContaining(['people', 'rights', 'tablets', 'shop', 'licences']),
    )
  })
  it('after ten minutes, and after a PIN at once; given, it opens them', async () => {
    const who = await keyed('owner')
    const { device } = await tablet()
    await tap(device, who.id)
    const asked = async (caller: Caller, want: boolean) => {
      for (const [key] of proofs) {
        const { body } = await caller.send(key.replace(/:\w+/g, '999999'), key.startsWith('DELETE') ? undefined : {})
        expect(body.code === 'prove', key).toBe(want)
      }
    }
    await asked(device, true)
    expect((await device.send('POST /api/session/proof', { password: 'not this one' })).status).toBe(401)
    await device.ok('POST /api/session/proof', { password: PASSWORD })
    await asked(device, false)
    await sql.query('UPDATE session SET proved_at = UTC_TIMESTAMP(3) - INTERVAL 11 MINUTE WHERE person_id = ?', [
      who.id,
    ])
    await asked(device, true)
    await sql.query('UPDATE person SET active = FALSE WHERE id = ?', [who.id])
  })
})

describe('rights', () => {
  const give = (role: string, right: string, may: boolean) => people.owner.send('PUT /api/rights', { role, right, may })
  const sample: Partial<Record<Right, string>> = {
    'work': 'POST /api/air',
    'examine': 'POST /api/pieces/999999/findings',
    'mix': 'POST /api/recipes',
    'edit-plan': 'POST /api/pieces/999999/steps',
    'plan': 'PUT /api/pieces/999999/choice',
    'take-in': 'POST /api/pieces',
    'quote': 'POST /api/pieces/999999/approvals',
    'hand-over': 'POST /api/pieces/999999/hand-over',
    'store': 'POST /api/products',
    'shop': 'PUT /api/shop',
    'people': 'POST /api/people',
  }
  test.each(Object.entries(sample))(
    '%s is given to a role and taken from it, from the next call',
    async (right, key) => {
      const status = async () => (await people.finisher.send(key, {})).status
      const before = (await sessionOf(people.finisher)).person!.rights.includes(right as Right)
      for (const may of [!before, before]) {
        expect((await give('finisher', right, may)).status).toBe(200)
        if (may) expect([404, 422]).toContain(await status())
        else expect(await status()).toBe(403)
      }
    },
  )
  it('are given by the owner alone, and never taken from one; each is known', async () => {
    expect((await people.lead.send('PUT /api/rights', { role: 'lead', right: 'people', may: true })).status).toBe(403)
    for (const [role, right] of [
      ['owner', 'work'],
      ['nobody', 'work'],
      ['lead', 'everything'],
    ])
      expect((await give(role!, right!, false)).status, `${role} ${right}`).toBe(422)
    expect((await sessionOf(people.owner)).person!.rights).toEqual([...RIGHTS])
  })
  it('who looks after the people makes no owner and touches none', async () => {
    await give('lead', 'people', true)
    const login = name()
    const made = (role: Role) => people.lead.send('POST /api/people', { name: login, login, role, password: PASSWORD })
    expect((await made('owner')).status).toBe(403)
    expect((await made('office')).status).toBe(200)
    const shop = await people.owner.ok<{ people: { id: number; login: string; rowVersion: number }[] }>('GET /api/shop')
    const owner = shop.people.find(p => p.login === 'owner')!
    expect(
      (await people.lead.send(`PATCH /api/people/${owner.id}`, { rowVersion: owner.rowVersion, role: 'office' }))
        .status,
    ).toBe(403)
    expect(
      (await people.lead.send(`POST /api/people/${owner.id}/password`, { rowVersion: owner.rowVersion })).status,
    ).toBe(403)
    await give('lead', 'people', false)
  })
})

describe('money', () => {
  const MONEY = /_minor"|Minor"|_bp"|Bp"|SEK ?\d|\d ?SEK/
  it('is not sent to who sees no prices, from any page, and is to who does', async () => {
    const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake())
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    await people.office.ok(`POST /api/pieces/${id}/approvals`, { words: '', days: 9 })
    await people.lead.ok('POST /api/products', { name: name(), class: 'varnish-oil', priceMinor: 12_345 })
    const pages = Object.entries<RouteSpec>(API)
      .filter(([key, spec]) => key.startsWith('GET') && spec.right === 'anyone' && !key.includes('events'))
      .map(([key]) => key.replace(':id', String(id)).replace(/:\w+/, 'none'))
    const raw = async (caller: Caller, page: string) => {
      const query = page.endsWith('/export') ? '?day=2026-12-21' : ''
      const { body } = await caller.send(page + query)
      return JSON.stringify(body)
    }
    const told: string[] = []
    for (const page of pages) {
      expect(await raw(people.finisher, page), page).not.toMatch(MONEY)
      if (MONEY.test(await raw(people.office, page))) told.push(page)
    }
    for (const part of ['/routes', '/plan', '/planning', '/answers', '/store', '/api/shop', '/log'])
      expect(
        told.some(page => page.endsWith(part)),
        part,
      ).toBe(true)
    await people.owner.ok('PUT /api/rights', { role: 'finisher', right: 'see-prices', may: true })
    expect(await raw(people.finisher, `GET /api/pieces/${id}/plan`)).toMatch(MONEY)
    await people.owner.ok('PUT /api/rights', { role: 'finisher', right: 'see-prices', may: false })
  })
})
