import mysql from 'mysql2/promise'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { P } from '../../core/abrasives'
import { type Caller, choice, intake, planOf, replied, setClock, shopPeople, stepOf } from './http'

/** What a client is asked is one table; each change of a piece is numbered; grits are kept by their names. */
const people = {} as Record<Role, Caller>
let sql: mysql.Connection
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())
beforeEach(() => setClock(people.owner, '2027-02-08T09:00:00+01:00'))

const taken = async (more = {}) => (await people.owner.ok<{ id: number }>('POST /api/pieces', intake(more))).id
const planned = async (more = {}) => {
  const id = await taken(more)
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  return id
}
interface Asked {
  id: number
  items: { kind: string }[]
  state: string
  pieceId: number
}
const asked = async (id: number) =>
  (await people.office.ok<Asked[]>('GET /api/answers')).filter(a => a.pieceId === id).sort((a, b) => a.id - b.id)
const pieceOf = (id: number) =>
  people.owner.ok<{ piece: { row_version: number; changed_no: number } }>(`GET /api/pieces/${id}`).then(p => p.piece)
const logOf = async (id: number) =>
  (await people.owner.ok<{ says: string }[]>(`GET /api/pieces/${id}/log`)).map(line => line.says)

describe('a question to a client', () => {
  const missing = async (id: number, name: string) =>
    (
      await people.finisher.ok<{ id: number }>(`POST /api/pieces/${id}/items`, {
        name,
        kind: 'hardware',
        count: 1,
        state: 'missing',
      })
    ).id
  it('is overtaken by a newer one about the same thing, and by no other', async () => {
    const id = await planned()
    const [pull, hinge] = [await missing(id, 'Pull'), await missing(id, 'Hinge')]
    await people.office.ok(`POST /api/pieces/${id}/approvals`, { words: '', days: 14 })
    for (const item of [pull, hinge, pull])
      await people.lead.ok(`POST /api/items/${item}/question`, { words: 'Look', days: 14 })
    expect((await asked(id)).map(a => [a.items[0]!.kind, a.state])).toEqual([
      ['surface', 'open'],
      ['hardware', 'superseded'],
      ['hardware', 'open'],
      ['hardware', 'open'],
    ])
    await people.office.ok(`POST /api/pieces/${id}/approvals`, { words: 'Again', days: 14 })
    expect((await asked(id)).filter(a => a.items[0]!.kind === 'surface').map(a => a.state)).toEqual([
      'superseded',
      'open',
    ])
  })
  it('takes its own answers and no others, and does what they mean', async () => {
    const id = await planned()
    const pull = await missing(id, 'Pull')
    await people.office.ok(`POST /api/pieces/${id}/approvals`, { words: '', days: 14 })
    await people.lead.ok(`POST /api/items/${pull}/question`, { words: '', days: 14 })
    const [plan, item] = await asked(id)
    const answer = (q: Asked, said: number | 'no' | 'talk') =>
      people.office.send(`POST /api/approvals/${q.id}/answer`, {
        ...replied(said),
        via: 'phone',
        name: 'Test client',
        says: '',
      })
    expect((await answer(plan!, 1)).body.message).toBe('This question does not take that answer.')
    expect((await answer(item!, 3)).status).toBe(422)
    expect((await asked(id)).map(a => a.state)).toEqual(['open', 'open'])
    expect((await answer(item!, 1)).status).toBe(200)
    expect((await answer(plan!, 0)).status).toBe(200)
    expect((await stepOf(people.owner, id, 'approval')).state).toBe('done')
    const [row] = (await sql.query<mysql.RowDataPacket[]>('SELECT answer FROM item WHERE id = ?', [pull]))[0]
    expect(row!.answer).toBe('match')
    expect((await answer(plan!, 'no')).body.code).toBe('answered')
  })
})

describe('a change of a piece', () => {
  it('raises its own number, whatever was changed, and no other piece', async () => {
    const [id, other] = [await planned(), await planned()]
    const before = [(await pieceOf(id)).changed_no, (await pieceOf(other)).changed_no]
    const numbers: number[] = []
    const raised = async () => numbers.push((await pieceOf(id)).changed_no)
    await people.finisher.ok(`POST /api/pieces/${id}/tests`, { test: 'look', result: 'crazed', spot: '' })
    await raised()
    const first = (await planOf(people.owner, id)).steps.find(s => s.kind === 'sand')!
    await people.lead.ok(`PATCH /api/steps/${first.id}`, { rowVersion: first.rowVersion, attendedMin: 33 })
    await raised()
    await people.office.ok(`POST /api/pieces/${id}/approvals`, { words: '', days: 14 })
    await raised()
    expect(numbers).toEqual([...numbers].sort((a, b) => a - b))
    expect(new Set([before[0], ...numbers]).size).toBe(4)
    expect((await pieceOf(other)).changed_no).toBe(before[1])
    await people.lead.send(`PATCH /api/steps/${first.id}`, { rowVersion: 1, attendedMin: 34 })
    expect((await pieceOf(id)).changed_no).toBe(numbers.at(-1))
  })
  it('is told in the log by words, not by the names of fields', async () => {
    const id = await taken({ note: 'Has a false bottom' })
    await people.office.ok(`PATCH /api/pieces/${id}`, {
      rowVersion: 1,
      dueOn: '2027-06-01',
      keepPatina: true,
      use: 'display',
      roomDryRh: 0.3,
      roomHumidRh: 0.6,
    })
    await people.office.ok(`PATCH /api/pieces/${id}`, { rowVersion: 2, dueOn: null })
    const says = (await logOf(id)).filter(line => line.startsWith('Changed'))
    expect(says.join(' ')).toContain('promised for 2027-06-01, keep the patina yes')
    expect(says.join(' ')).toContain('its room in winter 30 %')
    expect(says.join(' ')).toContain('promised for none')
    expect(says.join(' ')).not.toMatch(/dueOn|keepPatina|roomDryRh|note/)
    expect((await people.owner.ok<{ piece: { note: string } }>(`GET /api/pieces/${id}`)).piece.note).toBe(
      'Has a false bottom',
    )
  })
})

describe('grits of a step', () => {
  it('come back as they were sent, on whatever scale, and as numbers from before', async () => {
    const id = await planned()
    const sand = (await planOf(people.owner, id)).steps.find(s => s.kind === 'sand')!
    const grits = [P(100), { scale: 'CAMI', grade: '180' }, { scale: 'wool', grade: '0000' }]
    await people.lead.ok(`PATCH /api/steps/${sand.id}`, { rowVersion: sand.rowVersion, grits })
    const again = async () => (await stepOf(people.owner, id, sand.key)) as unknown as { grits: unknown; title: string }
    expect(await again()).toMatchObject({ grits, title: 'Sand P100 → CAMI 180 → wool 0000' })
    const [[row]] = await sql.query<mysql.RowDataPacket[]>('SELECT grits FROM plan_step WHERE id = ?', [sand.id])
    expect(row!.grits).toBe('P100,CAMI 180,wool 0000')
    await sql.query("UPDATE plan_step SET grits = '120,180' WHERE id = ?", [sand.id])
    // who changes rows by hand raises the number
    await sql.query('UPDATE piece SET changed_no = changed_no + 1 WHERE id = ?', [id])
    expect(await again()).toMatchObject({ grits: [P(120), P(180)], title: 'Sand P120 → P180' })
  })
})
