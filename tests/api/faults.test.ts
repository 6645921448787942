import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import type { Caller } from './http'
import { act, choice, intake, planOf, sayYes, setClock, shopPeople, stepOf } from './http'

/** What went wrong: seen at a step, asked about, mended in the plan, its cause kept for the next. */
const people = {} as Record<Role, Caller>
let sql: mysql.Connection
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())

interface Fault {
  id: number
  rowVersion: number
  facts: string[]
  said: { ask: string; yes: boolean | null }[]
  next: { ask: string }[]
  suspects: { cause: string; certainty: number; mend: string; pro: unknown[] }[]
  mend: string | null
  cause: string | null
}
interface Page {
  faults: Fault[]
  steps: { id: number }[]
}
const page = (id: number) => people.finisher.ok<Page>(`GET /api/pieces/${id}/faults`)
const learnt = async (id: number) =>
  ((await planOf(people.finisher, id)) as unknown as { learnt: { faultId: number }[] }).learnt
const newest = async (id: number) => (await page(id)).faults[0]!
/** A piece whose client said yes, with its first step begun. */
async function begun() {
  await setClock(people.owner, '2027-05-10T09:00:00+02:00')
  const { id } = await people.owner.ok<{ id: number }>('POST /api/pieces', intake())
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  await setClock(people.owner, '2027-05-10T09:30:00+02:00')
  await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
  const step = (await planOf(people.owner, id)).steps.find(s => s.kind !== 'approval')!
  expect((await act(people.lead, 'start', step, '2027-05-10T09:30:00+02:00')).status).toBe(200)
  return { id, step: await stepOf(people.owner, id, step.key) }
}
const see = (id: number, sign: string, stepId: number | null) =>
  people.finisher.send<{ id: number; code: string }>(`POST /api/pieces/${id}/faults`, { sign, stepId })
const say = async (id: number, ask: string, yes: boolean | null, undo = false) => {
  const { id: fault, rowVersion } = await newest(id)
  return people.finisher.send(`PUT /api/faults/${fault}/said`, { rowVersion, ask, yes, undo })
}

describe('a fault', () => {
  it('is seen at a step, and what is said moves its suspects; an answer is taken back', async () => {
    const { id, step } = await begun()
    expect((await see(id, 'fish-eyes', step.id)).status).toBe(200)
    const before = await newest(id)
    // wiped by hand: no air line had a part in it
    expect(before.facts).toContain('wiped')
    expect(before.suspects.map(s => s.cause)).toEqual(['silicone', 'hands', 'line'])
    expect(before.next.length).toBeGreaterThan(1)
    await say(id, 'prints', true)
    const after = await newest(id)
    expect(after.suspects[0]!.cause).toBe('hands')
    expect(after.suspects[0]!.pro).not.toEqual([])
    await say(id, before.next[0]!.ask, null)
    expect((await newest(id)).next.map(n => n.ask)).not.toContain(before.next[0]!.ask)
    await say(id, 'prints', true, true)
    expect((await newest(id)).suspects[0]!.cause).toBe('silicone')
    expect((await say(id, 'nonsense', true)).status).toBe(422)
  })
  it('is refused for what is no sign, no step of the piece, an old version, a piece that went home', async () => {
    const { id, step } = await begun()
    const other = await begun()
    expect((await see(id, 'nonsense', step.id)).status).toBe(422)
    expect((await see(id, 'runs', other.step.id)).status).toBe(404)
    await see(id, 'runs', null)
    const { id: fault, rowVersion } = await newest(id)
    await people.finisher.ok(`PUT /api/faults/${fault}/said`, { rowVersion, ask: 'edge', yes: true })
    expect(
      (await people.finisher.send(`PUT /api/faults/${fault}/said`, { rowVersion, ask: 'edge', yes: false })).status,
    ).toBe(409)
    expect((await people.finisher.send(`DELETE /api/faults/${fault}?rowVersion=${rowVersion + 1}`)).status).toBe(200)
    expect((await page(id)).faults).toEqual([])
  })
  it('with a row that cannot be understood breaks no page', async () => {
    const { id } = await begun()
    await see(id, 'runs', null)
    await sql.query(
      "UPDATE fault SET facts = '{', said = '[1, null, {\"ask\": \"gone\"}]', cause = 'gone' WHERE piece_id = ?",
      [id],
    )
    expect(await newest(id)).toMatchObject({ facts: [], said: [], cause: null })
    await sql.query("UPDATE fault SET sign = 'gone' WHERE piece_id = ?", [id])
    expect((await page(id)).faults).toEqual([])
    expect((await people.owner.send('GET /api/faults')).status).toBe(200)
  })
})

describe('what the shop learns', () => {
  it('tells which findings make gates fail, what came back by its finish, and finds signs by their names', async () => {
    const { id, step } = await begun()
    await sql.query(
      "UPDATE plan_step SET state = 'done', gate_result = 'fail', finished_at = UTC_TIMESTAMP(3) WHERE id = ?",
      [step.id],
    )
    const [faces] = await sql.query<mysql.RowDataPacket[]>(
      'SELECT face.id FROM face JOIN part ON part.id = face.part_id WHERE part.piece_id = ?',
      [id],
    )
    const place = { shape: 'face', copy: 0, x_mm: 0, y_mm: 0, x2_mm: 0, y2_mm: 0, size_mm: 0 }
    await people.finisher.ok(`POST /api/pieces/${id}/findings`, {
      ...{ faceId: (faces[0] as { id: number }).id, kind: 'coarse-film', grade: 2, wish: 'mend', note: '', place },
    })
    interface Counted {
      groups: { of: string; really: number; n: number }[]
    }
    const counted = async (ask: string, of: string) =>
      (await people.lead.ok<Counted>(`GET /api/record?ask=${ask}`)).groups.find(g => g.of === of)
    expect(await counted('gates', 'coarse-film')).toMatchObject({ really: 1, n: 1 })
    const coat = (await planOf(people.owner, id)).steps.find(s => ['coat', 'oil-on'].includes(s.kind))!
    const before = (await counted('lasts', coat.product!))?.really ?? 0
    await sql.query("UPDATE plan_step SET state = 'done' WHERE id = ?", [coat.id])
    await sql.query("UPDATE piece SET state = 'handed-over', handed_over_at = UTC_TIMESTAMP(3) WHERE id = ?", [id])
    await people.office.ok(`POST /api/pieces/${id}/again`, {})
    expect((await counted('lasts', coat.product!))!.really).toBe(before + 1)
    const found = await people.finisher.ok<{ kind: string; to: string }[]>('GET /api/find?q=fish%20eye')
    expect(found.filter(f => f.kind === 'sign')).toEqual([
      expect.objectContaining({ title: 'Fish eyes, craters', to: '/faults?sign=fish-eyes' }),
    ])
  })
})

describe('its mend', () => {
  it('goes into the plan after what has begun, with minutes, and comes out while none of it has begun', async () => {
    const { id, step } = await begun()
    await see(id, 'sticky', step.id)
    const keys = async () => (await planOf(people.owner, id)).steps.map(s => s.key)
    const before = await keys()
    const mend = { rowVersion: (await newest(id)).rowVersion, mend: 'wipe-and-wait' }
    const { id: fault } = await newest(id)
    expect((await people.office.send(`POST /api/faults/${fault}/mend`, mend)).status).toBe(403)
    await people.lead.ok(`POST /api/faults/${fault}/mend`, mend)
    const plan = await planOf(people.owner, id)
    const at = plan.steps.findIndex(s => s.key === step.key)
    expect(plan.steps.slice(at + 1, at + 3).map(s => s.key)).toEqual([`mend-${fault}-1`, `mend-${fault}-2`])
    expect(plan.steps[at + 1]!.attended_min).toBe(20)
    const again = { ...mend, rowVersion: (await newest(id)).rowVersion }
    expect((await people.lead.send(`POST /api/faults/${fault}/mend`, again)).status).toBe(409)
    await people.lead.ok(`DELETE /api/faults/${fault}/mend?rowVersion=${again.rowVersion}`)
    expect(await keys()).toEqual(before)
  })
  it('that begins anew leads to another ground instead', async () => {
    const { id, step } = await begun()
    await see(id, 'halos', step.id)
    const { id: fault, rowVersion } = await newest(id)
    expect(
      (await people.lead.send<{ code: string }>(`POST /api/faults/${fault}/mend`, { rowVersion, mend: 'strip-face' }))
        .body.code,
    ).toBe('anew')
  })
})

describe('its cause in the end', () => {
  it('counts for the next, is offered in the next plan of that kind, and is minded there once', async () => {
    const first = await begun()
    await see(first.id, 'nibs', first.step.id)
    const { id: fault, rowVersion } = await newest(first.id)
    const found = { rowVersion, cause: 'spray', keepNext: true, note: 'the fan stood still' }
    await people.finisher.ok(`PUT /api/faults/${fault}/cause`, found)
    expect(await newest(first.id)).toMatchObject({ cause: 'spray' })
    const next = await begun()
    const usual = (await people.owner.ok<{ byCause: { says: string; n: number }[] }>('GET /api/faults')).byCause
    expect(usual).toContainEqual(expect.objectContaining({ says: 'Nibs, dust: Settled spray' }))
    await see(next.id, 'nibs', null)
    const spray = (await newest(next.id)).suspects.find(s => s.cause === 'spray')!
    await sql.query('DELETE FROM fault WHERE id = ?', [(await newest(next.id)).id])
    await people.finisher.ok(`PUT /api/faults/${fault}/cause`, {
      ...{ rowVersion: rowVersion + 1, cause: null, keepNext: false, note: '' },
    })
    await see(next.id, 'nibs', null)
    expect(spray.certainty).toBeGreaterThan((await newest(next.id)).suspects.find(s => s.cause === 'spray')!.certainty)
    // of the product that it was of
    const coat = (await planOf(people.owner, next.id)).steps.find(
      s => s.state === 'planned' && (s as unknown as { product: string | null }).product,
    ) as unknown as {
      product: string
    }
    await sql.query("UPDATE fault SET cause = 'spray', keep_next = TRUE, product = ? WHERE id = ?", [
      coat.product,
      fault,
    ])
    expect((await learnt(next.id)).map(l => l.faultId)).toContain(fault)
    expect((await learnt(first.id)).map(l => l.faultId)).not.toContain(fault)
    await people.finisher.ok(`POST /api/pieces/${next.id}/minded`, { faultId: fault })
    expect((await learnt(next.id)).map(l => l.faultId)).not.toContain(fault)
  })
  it('follows grades of the shop, which may be the usual ones again', async () => {
    const { id } = await begun()
    await see(id, 'fish-eyes', null)
    await say(id, 'prints', true)
    const grade = (cause: string, own: string) =>
      people.lead.send('PUT /api/faults/grades', { sign: 'fish-eyes', ask: 'prints', cause, grade: own })
    expect((await people.finisher.send('PUT /api/faults/grades', {})).status).toBe(403)
    await grade('hands', 'hardly')
    await grade('silicone', 'almost')
    expect((await newest(id)).suspects[0]!.cause).toBe('silicone')
    await grade('hands', 'almost')
    await grade('silicone', 'hardly')
    expect((await newest(id)).suspects[0]!.cause).toBe('hands')
    expect((await grade('nobody', 'half')).status).toBe(422)
    const [rows] = await sql.query("SELECT COUNT(*) AS n FROM own_grade WHERE sign = 'fish-eyes'")
    expect(rows).toEqual([{ n: 0 }])
  })
})
