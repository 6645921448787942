/** What the record answers is made of lines that can be counted again; and the care for air and rags. */
import mysql from 'mysql2/promise'
import Papa from 'papaparse'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { RECORD_ASKS } from '#shared/schemas'
import { act, BASE, type Caller, choice, intake, planOf, sayYes, setClock, shopPeople } from './http'

const people = {} as Record<Role, Caller>
let sql: mysql.Connection
let pieceId = 0
let oilStep = 0
let oilMethod = ''
const DAY = '2026-02-02'
interface Record_ {
  groups: { of: string; n: number; planned: number | null; really: number; says: string | null }[]
  lines: { piece_id: number; what: string; really: number; word: string | number }[] | null
}
const ask = (query: string, who: Caller = people.owner) => who.ok<Record_>(`GET /api/record?${query}`)

beforeAll(async () => {
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
  Object.assign(people, await shopPeople())
  await setClock(people.owner, `${DAY}T09:00:00+01:00`)
  const { id } = await people.owner.ok<{ id: number }>(
    'POST /api/pieces',
    intake({ name: 'Record bureau', dueOn: '2026-02-01' }),
  )
  pieceId = id
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  const wash = (await planOf(people.lead, id)).steps.find(s => s.kind === 'wash')!
  await setClock(people.owner, `${DAY}T09:15:00+01:00`)
  const begun = await act(people.finisher, 'start', wash, `${DAY}T09:10:00+01:00`)
  expect(begun.status, begun.body.message).toBe(200)
  await setClock(people.owner, `${DAY}T09:50:00+01:00`)
  const running = (await planOf(people.lead, id)).steps.find(s => s.id === wash.id)!
  const ended = await act(people.finisher, 'finish', running, `${DAY}T09:50:00+01:00`, { gate: null, note: '' })
  expect(ended.status, ended.body.message).toBe(200)
  const oil = (await planOf(people.lead, id)).steps.find(s => s.product === 'varnish-oil')!
  oilStep = oil.id
  oilMethod = (oil as unknown as { method: string }).method
  await sql.query("UPDATE plan_step SET state = 'done', finished_at = '2026-02-02 07:30:00' WHERE id = ?", [oil.id])
  // what only weeks of work would make: a can used half as much again as planned, a gate that failed, a piece that
  // went home, was paid and came back
  const { id: productId } = await people.lead.ok<{ id: number }>('POST /api/products', {
    ...{ name: `Record oil ${id}`, class: 'varnish-oil', priceMinor: 30_000 },
  })
  const { id: lot } = await people.lead.ok<{ id: number }>('POST /api/lots', { productId, code: 'R-1', amount: 900 })
  await people.lead.ok(`POST /api/lots/${lot}/acts`, {
    ...{ rowVersion: 1, act: { kind: 'spill', amount: 100, word: 'fell over' } },
  })
  await sql.query('UPDATE plan_step SET amount_ml = 100 WHERE id = ?', [oil.id])
  await sql.query(
    `INSERT INTO lot_use (lot_id, step_id, amount, booked, price_minor, word, at)
        VALUES (?, ?, 150, 150, 30000, 'thirsty', '2026-02-02 08:00:00')`,
    [lot, oil.id],
  )
  const gate = (await planOf(people.lead, id)).steps.find(s => s.state === 'planned')!
  await sql.query(
    "UPDATE plan_step SET state = 'done', gate_result = 'fail', finished_at = '2026-02-02 09:00:00' WHERE id = ?",
    [gate.id],
  )
  await sql.query(
    `INSERT INTO finding (face_id, kind, grade, wish)
        SELECT face.id, 'scratches', 2, 'mend' FROM face JOIN part ON part.id = face.part_id WHERE part.piece_id = ?`,
    [id],
  )
  await sql.query(
    `UPDATE piece
        SET state = 'handed-over', handed_over_at = '2026-02-03 09:00:00', agreed_minor = 250000,
          changed_no = changed_no + 1
        WHERE id = ?`,
    [id],
  )
  await people.office.ok(`POST /api/pieces/${id}/again`, {})
}, 60_000)
afterAll(() => sql.end())

describe('the record', () => {
  it.each(RECORD_ASKS)('answers "%s", its figures the sums of its lines', async name => {
    const { groups } = await ask(`ask=${name}`)
    expect(groups.length).toBeGreaterThan(0)
    for (const g of groups.slice(0, 3)) {
      const { lines } = await ask(`ask=${name}&of=${encodeURIComponent(g.of)}`)
      expect(lines).toHaveLength(Math.min(500, g.n))
      if (g.n <= 500) expect(lines!.reduce((sum, l) => sum + l.really, 0)).toBeCloseTo(g.really, 1)
    }
    const reply = await fetch(`${BASE}/api/record/list?ask=${name}`, { headers: { cookie: people.owner.cookie } })
    const { errors } = Papa.parse(await reply.text(), { header: true, skipEmptyLines: true })
    expect(errors.filter(e => e.type !== 'Delimiter')).toEqual([])
  })
  it('says what was timed beside what was planned', async () => {
    const { lines } = await ask(`ask=hours&of=wash&from=${DAY}&to=${DAY}`)
    expect(lines!.find(l => l.piece_id === pieceId)!.really).toBeCloseTo(40, 0)
  })
  it('reckons what was used, wasted, and what an hour brought, by hand as well', async () => {
    const mine = async (name: string, of: string) =>
      (await ask(`ask=${name}&of=${encodeURIComponent(of)}&kind=desk`)).lines!.filter(l => l.piece_id === pieceId)
    expect(await mine('amounts', 'varnish-oil')).toMatchObject([{ planned: 100, really: 150, word: 'thirsty' }])
    expect((await mine('spread', `varnish-oil ${oilMethod}`))[0]!.really).toBeCloseTo(150, 5)
    // 150 ml at 300 a litre
    expect((await mine('materials', 'varnish-oil'))[0]!.really).toBeCloseTo(4500, 5)
    const wasted = (await ask('ask=waste&of=varnish-oil')).lines!.find(l => l.word === 'fell over')
    expect(wasted!.really).toBeCloseTo(3000, 5)
    const shop = await people.owner.ok<{ hour_minor: number; material_markup_bp: number; tax_bp: number }>(
      'GET /api/shop',
    )
    const [hours, tax] = [40 / 60, 1 + shop.tax_bp / 10_000]
    // its part of what was spilt or thrown away in that time, as much again at the most
    const sum = async (name: string) =>
      (await ask(`ask=${name}`)).groups.reduce((n, g) => n + Math.round(g.really * 1e6) / 1e6, 0)
    const share = Math.min(1, (await sum('waste')) / (await sum('materials')))
    expect(share).toBeGreaterThan(0)
    const cost = (hours * shop.hour_minor + 4500 * (1 + shop.material_markup_bp / 10_000 + share)) * tax
    expect((await mine('cost', 'desk'))[0]!.really).toBeCloseTo(cost, -1)
    // and storage, from the day it was ready, by the rule of the house
    await sql.query('UPDATE shop SET store_free_days = 9, store_day_minor = 700')
    await sql.query("UPDATE piece SET ready_at = '2026-01-20 09:00:00' WHERE id = ?", [pieceId])
    const [kept] = await mine('cost', 'desk')
    await sql.query('UPDATE piece SET ready_at = NULL WHERE id = ?', [pieceId])
    await sql.query('UPDATE shop SET store_free_days = 14, store_day_minor = 0')
    expect(kept!.really - cost).toBeCloseTo(5 * 700, -1)
    expect((await mine('earned', 'desk'))[0]!.really).toBeCloseTo((250_000 / tax - 4500) / hours, -2)
  })
  it('tells what came back, and which judgement failed on what was found', async () => {
    const line = async (name: string, of: string) =>
      (await ask(`ask=${name}&of=${of}`)).lines!.find(l => l.piece_id === pieceId)
    expect((await line('lasts', 'varnish-oil'))!.really).toBe(1)
    expect((await line('gates', 'scratches'))!.really).toBe(1)
  })
  it('is narrowed by time, kind, wood, finish, person', async () => {
    const count = async (query: string) =>
      (await ask(`ask=pieces&${query}`)).groups.filter(g => g.of.startsWith(`${pieceId} ·`)).length
    expect(await count('kind=desk&wood=oak')).toBe(1)
    expect(await count('kind=chair')).toBe(0)
    expect(await count('wood=pine')).toBe(0)
    expect(await count('finish=varnish-oil')).toBe(1)
    expect(await count('finish=paste-wax')).toBe(0)
    expect(await count(`to=2026-02-01&from=2026-02-01`)).toBe(0)
    const { people: all } = await people.owner.ok<{ people: { id: number; name: string }[] }>('GET /api/record')
    const person = (name: string) => all.find(p => p.name === name)!.id
    expect(await count(`person=${person('finisher')}`)).toBe(1)
    expect(await count(`person=${person('lead')}`)).toBe(0)
  })
  it('counts a day that has passed as missed, with a cause', async () => {
    const { groups } = await ask('ask=promises')
    expect(groups.find(g => g.of === '2026-02')!.n).toBeGreaterThan(0)
    const missed = await ask('ask=missed')
    expect(missed.groups.reduce((n, g) => n + g.n, 0)).toBeGreaterThan(0)
  })
  it("shows nobody but the owner others' hours, and money to whom prices are shown", async () => {
    const { groups } = await ask('ask=people', people.finisher)
    expect(groups.map(g => g.of)).toEqual(['finisher'])
    const other = (await ask('ask=people')).groups
    expect(other.length).toBeGreaterThan(0)
    const { people: all } = await people.owner.ok<{ people: { id: number; name: string }[] }>('GET /api/record')
    const { id } = all.find(p => p.name === 'lead')!
    expect((await people.finisher.send(`GET /api/record?person=${id}`)).status).toBe(403)
    for (const name of ['cost', 'earned', 'materials', 'waste'])
      expect((await people.finisher.send(`GET /api/record?ask=${name}`)).status).toBe(403)
  })
  it('refuses what is no question', async () => {
    for (const query of ['ask=passwords', 'from=yesterday', 'person=x', 'kind=spoon', 'of=' + 'x'.repeat(200)])
      expect((await people.owner.send(`GET /api/record?${query}`)).status, query).toBe(422)
    expect((await ask("ask=hours&of=' OR 1=1 --")).lines).toEqual([])
  })
})

describe('care', () => {
  interface Care {
    rags: { state: string; lines: { stepId: number }[] }[]
    unlooked: { id: number; name: string }[]
    mask: { id: number; state: string } | null
  }
  const care = (who: Caller) => who.ok<Care>('GET /api/care')
  const stateOf = async () =>
    (await care(people.finisher)).rags.find(g => g.lines.some(l => l.stepId === oilStep))?.state
  it('asks where oily rags lie, and shows them until they are gone; a mis-tap is taken back', async () => {
    expect(await stateOf()).toBe('ask')
    const say = (how: string) => people.finisher.send('PUT /api/care/rags', { stepIds: [oilStep], how })
    expect((await say('flat')).status).toBe(200)
    expect(await stateOf()).toBe('stiffening')
    await say('ask')
    expect(await stateOf()).toBe('ask')
    await say('water')
    expect(await stateOf()).toBe('wet')
    await say('gone')
    expect(await stateOf()).toBeUndefined()
    // "gone" was a mis-tap: they are still under water
    await say('water')
    expect(await stateOf()).toBe('wet')
    await say('gone')
    expect((await say('eaten')).status).toBe(422)
    const office = await people.office.send('PUT /api/care/rags', { stepIds: [oilStep], how: 'flat' })
    expect(office.status).toBe(403)
  })
  it('knows of cartridges by their own person, and by hours worked', async () => {
    const me = await people.finisher.ok<{ person: { id: number } }>('GET /api/session')
    const body = { personId: me.person.id, lasts_h: 8, lasts_d: 30 }
    const { id } = await people.finisher.ok<{ id: number }>('POST /api/breath/cartridges', body)
    expect((await care(people.finisher)).mask).toMatchObject({ id, state: 'good' })
    expect((await people.lead.send('POST /api/breath/cartridges', body)).status).toBe(403)
    expect((await people.lead.send(`DELETE /api/breath/cartridges/${id}`)).status).toBe(403)
    expect((await people.finisher.send(`DELETE /api/breath/cartridges/${id}`)).status).toBe(200)
    for (const bad of [{ lasts_h: 0 }, { lasts_h: -1 }, { lasts_d: 0 }, { lasts_h: 1e9 }, { personId: 0 }])
      expect((await people.finisher.send('POST /api/breath/cartridges', { ...body, ...bad })).status).toBe(422)
  })
  it('sets a limit with its source, and goes back to the usual one', async () => {
    const set = (mg_m3: number | null, source = 'Local rule') =>
      people.owner.send('PUT /api/breath/limits', { slug: 'acetone', mg_m3, source })
    interface Breath {
      solvents: { slug: string; own: { mg_m3: number } | null }[]
      vocYear_g: number | null
    }
    const own = async () =>
      (await people.owner.ok<Breath>('GET /api/breath')).solvents.find(x => x.slug === 'acetone')!.own
    expect((await set(600)).status).toBe(200)
    expect(Number((await own())!.mg_m3)).toBe(600)
    expect((await set(600, '')).status).toBe(422)
    expect((await set(-1)).status).toBe(422)
    expect((await set(null, '')).status).toBe(200)
    expect(await own()).toBeNull()
    expect((await people.lead.send('PUT /api/breath/voc', { kg: 500 })).status).toBe(403)
    expect((await people.owner.send('PUT /api/breath/voc', { kg: 500 })).status).toBe(200)
    expect((await people.owner.ok<Breath>('GET /api/breath')).vocYear_g).toBe(500_000)
    await people.owner.send('PUT /api/breath/voc', { kg: null })
  })
  it('hands waste in against a receipt; the newest is taken back', async () => {
    const body = { takenTo: 'Collection point', receipt: 'R-1', litres: 2.5, word: 'sludge' }
    const { id } = await people.lead.ok<{ id: number }>('POST /api/breath/waste', body)
    const { receipts } = await people.lead.ok<{ receipts: { id: number; litres: number }[] }>('GET /api/breath')
    expect(receipts[0]).toMatchObject({ id, litres: 2.5 })
    expect((await people.lead.send(`DELETE /api/breath/waste/${id}`)).status).toBe(200)
    expect((await people.lead.send('POST /api/breath/waste', { ...body, litres: -1 })).status).toBe(422)
    expect((await people.finisher.send('POST /api/breath/waste', body)).status).toBe(403)
  })
  it('asks once a day for flames, by room', async () => {
    const [room] = (await care(people.finisher)).unlooked
    if (!room) throw new Error('there is no room to look through')
    await people.finisher.ok('PUT /api/care/looked', { roomId: room.id })
    expect((await care(people.finisher)).unlooked.map(r => r.id)).not.toContain(room.id)
    await people.finisher.ok('PUT /api/care/looked', { roomId: room.id, undo: true })
    expect((await care(people.finisher)).unlooked.map(r => r.id)).toContain(room.id)
    expect((await people.finisher.send('PUT /api/care/looked', { roomId: 999_999 })).status).toBe(404)
  })
})

describe('a data sheet', () => {
  it('is kept as the PDF that it is, the newest counts, and nothing else is taken for one', async () => {
    const body = { name: `Sheet "oil" ${Date.now()}`, class: 'varnish-oil', priceMinor: 1 }
    const { id } = await people.lead.ok<{ id: number }>('POST /api/products', body)
    const send = (text: string, who = people.lead) => {
      const form = new FormData()
      form.append('file', new Blob([text], { type: 'application/pdf' }), 'x.pdf')
      return who.send(`POST /api/products/${id}/sheet`, form)
    }
    expect((await people.lead.send(`GET /api/products/${id}/sheet`)).status).toBe(404)
    expect((await send('<html>')).status).toBe(422)
    expect((await send('%PDF-1.7 first', people.finisher)).status).toBe(403)
    expect((await send('%PDF-1.7 first')).status).toBe(200)
    expect((await send('%PDF-1.7 second')).status).toBe(200)
    const reply = await fetch(`${BASE}/api/products/${id}/sheet`, { headers: { cookie: people.finisher.cookie } })
    expect(reply.headers.get('content-type')).toBe('application/pdf')
    expect(await reply.text()).toBe('%PDF-1.7 second')
  })
})
