import mysql from 'mysql2/promise'
import Papa from 'papaparse'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { act, BASE, type Caller, choice, closeOthers, intake, planOf, sayYes, setClock, shopPeople } from './http'

/** The store: cans with ages, what is done with them, where they went, what plans want and what is short. */
const people = {} as Record<Role, Caller>
let sql: mysql.Connection
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  await closeOthers()
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())
beforeEach(() => setClock(people.owner, '2027-04-05T09:00:00+02:00'))

let count = 0
async function product(more: object = {}): Promise<number> {
  const body = { name: `Store ${++count}`, class: 'varnish-oil', priceMinor: 20_000, ...more }
  return (await people.lead.ok<{ id: number }>('POST /api/products', body)).id
}
const can = async (productId: number, amount: number, more: object = {}) =>
  (await people.finisher.ok<{ id: number }>('POST /api/lots', { productId, code: `C${++count}`, amount, ...more })).id
interface Lot {
  lot: { row_version: number; left_amount: number; age: string; until: string | null; opened_on: string | null }
  went: { piece_id: number; amount: number | null; pot: number | null }[]
  moves: { kind: string; amount: number; word: string }[]
}
const lotOf = (id: number) => people.finisher.ok<Lot>(`GET /api/lots/${id}`)
const does = async (id: number, doing: object, who = people.finisher) =>
  who.send<{ code: string }>(`POST /api/lots/${id}/acts`, {
    ...{ rowVersion: (await lotOf(id)).lot.row_version, act: doing },
  })
async function approved(): Promise<number> {
  const client = { name: `Store ${count}`, email: `store${Date.now()}${++count}@example.invalid`, phone: '' }
  const { id } = await people.owner.ok<{ id: number }>('POST /api/pieces', intake({ client }))
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  return id
}

describe('a can', () => {
  it('is counted, weighed, spilt, moved, thrown away and brought back, each told', async () => {
    const id = await can(await product(), 1000)
    expect((await does(id, { kind: 'count', amount: 900, word: '' })).status).toBe(200)
    // varnish oil of 0.9 g/ml or so: what is in it by weight
    expect((await does(id, { kind: 'weigh', gross_g: 650, tare_g: 200 })).status).toBe(200)
    const { left_amount } = (await lotOf(id)).lot
    expect(left_amount).toBeGreaterThan(400)
    expect(left_amount).toBeLessThan(600)
    expect((await does(id, { kind: 'weigh', gross_g: 100, tare_g: 200 })).body.code).toBe('invalid')
    expect((await does(id, { kind: 'spill', amount: 100, word: 'knocked over' })).status).toBe(200)
    expect((await lotOf(id)).lot.left_amount).toBeCloseTo(left_amount - 100, 1)
    expect((await does(id, { kind: 'spill', amount: 5000, word: 'all' })).body.code).toBe('below-zero')
    expect((await does(id, { kind: 'spill', amount: 1, word: ' ' })).body.code).toBe('invalid')
    expect((await does(id, { kind: 'move', place: 'SHELF-9' })).status).toBe(200)
    expect((await does(id, { kind: 'throw', word: 'skinned' })).status).toBe(200)
    expect((await does(id, { kind: 'count', amount: 1, word: '' })).body.code).toBe('gone')
    expect((await does(id, { kind: 'back' })).status).toBe(200)
    expect((await lotOf(id)).moves.map(m => m.kind)).toEqual([
      ...['back', 'thrown', 'moved', 'spilt', 'counted', 'counted', 'received'],
    ])
    const stale = { rowVersion: 1, act: { kind: 'open' } }
    expect((await people.finisher.send<{ code: string }>(`POST /api/lots/${id}/acts`, stale)).body.code).toBe('stale')
  })
  it('ages by its label, by its class and from the day on which it was opened', async () => {
    const id = await can(await product(), 500, { bestBefore: '2027-04-20' })
    expect((await lotOf(id)).lot).toMatchObject({ age: 'soon', until: '2027-04-20' })
    const other = await can(await product(), 500)
    await does(other, { kind: 'open' })
    // an oil keeps six months once it is open
    expect((await lotOf(other)).lot).toMatchObject({ age: 'good', until: '2027-10-05', opened_on: '2027-04-05' })
    await setClock(people.owner, '2027-10-06T09:00:00+02:00')
    expect((await lotOf(other)).lot.age).toBe('over')
    expect((await does(other, { kind: 'open' })).body.code).toBe('nothing')
  })
  it('tells every piece that it went on, also through a pot, and what is taken for a piece costs it', async () => {
    const piece = await approved()
    const discs = await can(await product({ class: 'abrasive-disc', grit: 'P120', priceMinor: 700 }), 50)
    expect((await does(discs, { kind: 'take', amount: 4, pieceId: piece, word: '' })).status).toBe(200)
    expect((await does(discs, { kind: 'return', amount: 5, pieceId: piece })).body.code).toBe('nothing')
    expect((await does(discs, { kind: 'return', amount: 1, pieceId: piece })).status).toBe(200)
    const { lot, went } = await lotOf(discs)
    expect(lot.left_amount).toBe(47)
    expect(went.map(w => [w.piece_id, w.amount])).toEqual([
      [piece, -1],
      [piece, 4],
    ])
    const [rows] = await sql.query<mysql.RowDataPacket[]>(
      'SELECT SUM(cost_minor) AS n FROM lot_move WHERE piece_id = ?',
      [piece],
    )
    expect(Number(rows[0]!.n)).toBe(2100)
    const soap = await can(await product({ class: 'mild-soap' }), 500)
    const wash = (await planOf(people.lead, piece)).steps.find(s => s.kind === 'wash')!
    await setClock(people.owner, '2027-04-05T10:00:00+02:00')
    await act(people.finisher, 'start', wash, '2027-04-05T09:30:00+02:00')
    const begun = (await planOf(people.lead, piece)).steps.find(s => s.kind === 'wash')!
    const used = [{ lotId: discs, amountMl: 3, word: 'by mistake' }]
    const wrong = await act(people.finisher, 'finish', begun, '2027-04-05T09:50:00+02:00', { used })
    expect(wrong.body.message).toContain('not measured in ml')
    await act(people.finisher, 'finish', begun, '2027-04-05T09:50:00+02:00', {
      used: [{ lotId: soap, amountMl: 20, word: '' }],
    })
    const after = await lotOf(soap)
    expect(after.went).toMatchObject([{ piece_id: piece, amount: 20 }])
    expect(after.lot.opened_on).toBe('2027-04-05')
  })
})

describe('what plans want', () => {
  interface Needs {
    needs: { class: string; grit: string; need: number; short: number }[]
    buy: {
      productId: number | null
      name: string
      supplier: string
      amount: number
      total: number
      containers: { size: number; n: number }[]
      pieces: number[]
      overId: number | null
    }[]
  }
  const needs = () => people.office.ok<Needs>('GET /api/store/needs')
  it('is short by day and bought in the least of its sizes; an old can does not count', async () => {
    await sql.query('UPDATE lot SET gone_at = UTC_TIMESTAMP(3)')
    const piece = await approved()
    const oil = await product({ supplier: 'Harbour paints', containers: [250, 1000], name: `Oil ${count}` })
    await sql.query("UPDATE product SET name = CONCAT('z', name) WHERE class = 'varnish-oil' AND id <> ?", [oil])
    const old = await can(oil, 5000, { bestBefore: '2027-04-01' })
    const page = await needs()
    const wanted = page.needs.find(n => n.class === 'varnish-oil')!
    expect(wanted.short).toBeCloseTo(wanted.need, 3)
    const line = page.buy.find(b => b.productId === oil)!
    expect(line).toMatchObject({ supplier: 'Harbour paints', overId: old })
    expect(line.pieces).toContain(piece)
    expect(line.total).toBeGreaterThanOrEqual(line.amount)
    expect(line.total - line.amount).toBeLessThan(250)
    // abrasives by their grit, from what its steps eat
    expect(page.needs.some(n => n.class === 'abrasive-disc' && n.grit === 'P120')).toBe(true)
    expect(await people.finisher.ok<object[]>(`GET /api/pieces/${piece}/needs`)).not.toEqual([])
    const full = await can(oil, 50_000)
    expect((await needs()).buy.some(b => b.productId === oil)).toBe(false)
    // a skin is told to the plan that takes from it, until it was strained
    const skin = async (kind: string) => {
      const { lot } = await people.finisher.ok<{ lot: { row_version: number } }>(`GET /api/lots/${full}`)
      return (await people.lead.send(`POST /api/lots/${full}/acts`, { rowVersion: lot.row_version, act: { kind } }))
        .status
    }
    const skinned = async () =>
      (await people.finisher.ok<{ skinned: string | null }[]>(`GET /api/pieces/${piece}/needs`)).filter(n => n.skinned)
    expect([await skin('strain'), await skinned()]).toEqual([409, []])
    expect([await skin('skin'), await skin('skin'), (await skinned()).length]).toEqual([200, 409, 1])
    expect([await skin('strain'), await skinned()]).toEqual([200, []])
  })
  it('is an order by supplier, as a table and as a paper; cells are no formulas', async () => {
    await product({ class: 'rag', name: '=HYPERLINK("x")', supplier: 'Rags & Co, "North"', least: 40 })
    const asked = `?supplier=${encodeURIComponent('Rags & Co, "North"')}`
    const csv = await fetch(`${BASE}/api/store/order-list${asked}`, { headers: { cookie: people.office.cookie } })
    const { data } = Papa.parse<Record<string, string>>(await csv.text(), { header: true, skipEmptyLines: true })
    expect(data).toHaveLength(1)
    expect(data[0]).toMatchObject({ product: `'=HYPERLINK("x")`, unit: 'piece', supplier: 'Rags & Co, "North"' })
    expect(Number(data[0]!.total)).toBeGreaterThanOrEqual(40)
    const pdf = await fetch(`${BASE}/api/store/order${asked}`, { headers: { cookie: people.office.cookie } })
    expect(pdf.headers.get('content-type')).toBe('application/pdf')
  })
  it('products are changed, not over a newer version; sizes and grits that are none are refused', async () => {
    const id = await product()
    const body = { name: `Changed ${count}`, priceMinor: 1, supplier: '', containers: [5, 1], least: 0, grit: '' }
    await people.lead.ok(`PATCH /api/products/${id}`, { ...body, rowVersion: 1 })
    const again = await people.lead.send<{ code: string }>(`PATCH /api/products/${id}`, { ...body, rowVersion: 1 })
    expect(again.body.code).toBe('stale')
    for (const bad of [
      { containers: [-1] },
      { containers: Array(9).fill(1) },
      { grit: 'P120' },
      { least: -1 },
      { name: '' },
    ])
      expect((await people.lead.send(`PATCH /api/products/${id}`, { ...body, ...bad, rowVersion: 2 })).status).toBe(422)
    expect((await people.finisher.send(`PATCH /api/products/${id}`, { ...body, rowVersion: 2 })).status).toBe(403)
    for (const bad of [
      { amount: 0 },
      { amount: 1e9 },
      { bestBefore: '1999-01-01' },
      { place: 'not a place' },
      { code: '' },
    ])
      expect(
        (await people.finisher.send('POST /api/lots', { productId: id, code: 'q', amount: 1, ...bad })).status,
      ).toBe(422)
  })
})

describe('the air of the rooms', () => {
  interface Air {
    stepId: number
    room: string | null
    verdict: string
    exposure_m3_h: number
    explosive_m3_h: number
    supply_m3_h: number | null
    beside: string[]
  }
  it('is not known until the room says its volume, then enough, too little for lungs, or near what burns', async () => {
    const piece = await approved()
    await people.lead.ok('POST /api/schedule')
    const air = () => people.finisher.ok<Air[]>(`GET /api/pieces/${piece}/air`)
    await expect.poll(async () => (await air()).length, { timeout: 60_000, interval: 500 }).toBeGreaterThan(0)
    const work = await air()
    expect(work.every(w => w.verdict === 'unknown' && w.supply_m3_h === null)).toBe(true)
    for (const w of work) expect(w.exposure_m3_h).toBeGreaterThan(w.explosive_m3_h)
    const with_ = async (volume: number, changes: number) => {
      await sql.query('UPDATE room SET volume_m3 = ?, air_changes_h = ?', [volume, changes])
      return (await air()).map(w => w.verdict)
    }
    expect(new Set(await with_(10_000, 50))).toEqual(new Set(['fine']))
    expect(await with_(0.1, 0.1)).toContain('never')
    const most = Math.max(...work.map(w => w.exposure_m3_h))
    expect(await with_(most / 2, 1)).toContain('mask')
    await sql.query('UPDATE room SET volume_m3 = NULL, air_changes_h = NULL')
  })
  it('holds back what would near what burns until there is more air, and warns where lungs want a mask', async () => {
    const piece = await approved()
    const oil = await product({ name: `Strong ${count}`, class: 'white-spirit' })
    await can(oil, 5000)
    const step = async () => (await planOf(people.lead, piece)).steps.find(s => s.product && s.kind !== 'wash')!
    const { id } = await step()
    // what stands before it is done, and it may begin but for the air
    await sql.query(
      `UPDATE plan_step
          SET state = 'done', started_at = '2027-04-01 06:00:00', finished_at = '2027-04-01 07:00:00'
          WHERE piece_id = ? AND id < ?`,
      [piece, id],
    )
    await sql.query('UPDATE piece SET changed_no = changed_no + 1 WHERE id = ?', [piece])
    await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
    const roomOf = async (volume: number | null, changes: number | null) => {
      await sql.query('UPDATE room SET volume_m3 = ?, air_changes_h = ?', [volume, changes])
      return step()
    }
    interface Start {
      start: { may: boolean; refusals: { says: string }[]; warnings: string[] }
    }
    const tiny = (await roomOf(0.1, 0.1)) as unknown as Start
    expect(tiny.start.refusals.map(r => r.says).join()).toContain('so that nothing can burn')
    const held = await act(people.finisher, 'start', await step(), '2027-04-05T09:00:00+02:00')
    expect(held.body.message).toContain('No mask helps')
    const wide = (await roomOf(10_000, 50)) as unknown as Start
    expect(wide.start.refusals.map(r => r.says).join()).not.toContain('burn')
    expect(wide.start.warnings.join()).not.toContain('lungs')
    const mask = (await roomOf(20, 1)) as unknown as Start
    expect(mask.start.warnings.join() + mask.start.refusals.map(r => r.says).join()).toMatch(/lungs|burn/)
    const silent = (await roomOf(null, null)) as unknown as Start
    expect(JSON.stringify(silent.start)).not.toMatch(/lungs|burn/)
  })
  it('a running step of a product that is not known breaks no start of another piece', async () => {
    const [odd, other] = [await approved(), await approved()]
    await sql.query('UPDATE room SET volume_m3 = 100, air_changes_h = 5')
    await sql.query(
      `UPDATE plan_step
          SET state = 'running', started_at = '2027-04-05 06:50:00', product = 'from-the-future'
          WHERE piece_id = ? AND product IS NOT NULL AND amount_ml IS NOT NULL
          ORDER BY position
          LIMIT 1`,
      [odd],
    )
    await sql.query('UPDATE piece SET changed_no = changed_no + 1 WHERE id = ?', [odd])
    expect((await planOf(people.lead, other)).steps.length).toBeGreaterThan(0)
    expect((await people.finisher.send('GET /api/now')).status).toBe(200)
    await sql.query('UPDATE room SET volume_m3 = NULL, air_changes_h = NULL')
    await sql.query(
      "UPDATE plan_step SET state = 'planned', started_at = NULL, product = NULL WHERE product = 'from-the-future'",
    )
  })
  it('what evaporated and what was thrown away is told by month, and as a table', async () => {
    const oil = await can(await product({ name: `VOC oil ${count}` }), 1000)
    await does(oil, { kind: 'spill', amount: 250, word: 'fell' })
    await does(oil, { kind: 'throw', word: 'skinned' })
    interface Voc {
      months: {
        month: string
        voc_g: number
        air: { name: string; voc_g: number }[]
        waste: { name: string; ml: number }[]
      }[]
    }
    const { months } = await people.office.ok<Voc>('GET /api/store/voc')
    const april = months.find(m => m.month === '2027-04')!
    expect(april.waste.find(w => w.name.startsWith('VOC oil'))!.ml).toBe(1000)
    // brought back it is no waste, but what was spilt is
    await does(oil, { kind: 'back' })
    const again = (await people.office.ok<Voc>('GET /api/store/voc')).months.find(m => m.month === '2027-04')!
    expect(again.waste.find(w => w.name.startsWith('VOC oil'))!.ml).toBe(250)
    const csv = await fetch(`${BASE}/api/store/voc-list`, { headers: { cookie: people.office.cookie } })
    const rows = Papa.parse<Record<string, string>>(await csv.text(), { header: true, skipEmptyLines: true }).data
    expect(rows.find(r => r.product!.startsWith('VOC oil'))).toMatchObject({ 'what': 'waste', 'volume in ml': '250' })
    expect(Object.keys(rows[0]!)).toContain('VOC in g')
  })
  it('a product that this program does not know breaks no page of the store', async () => {
    const id = await product()
    await can(id, 100)
    await sql.query("UPDATE product SET class = 'from-the-future', containers = 'x, -3, 250' WHERE id = ?", [id])
    for (const page of ['GET /api/store', 'GET /api/store/needs', 'GET /api/store/voc'])
      expect((await people.finisher.send(page)).status, page).toBe(200)
    const lots = (
      await people.finisher.ok<{ products: { id: number; lots: { id: number }[] }[] }>('GET /api/store')
    ).products.find(p => p.id === id)!.lots
    expect((await people.finisher.send(`GET /api/lots/${lots[0]!.id}`)).status).toBe(200)
    await sql.query("UPDATE product SET class = 'mild-soap', containers = '' WHERE id = ?", [id])
  })
})
