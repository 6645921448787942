import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { BASE, type Caller, choice, intake, planOf, replied, sayYes, setClock, shopPeople, workTo } from './http'

/** Rules of the house: what is paid before, what storage costs, what happens before the agreed price is passed. */
const people = {} as Record<Role, Caller>
let sql: mysql.Connection
const dir = mkdtempSync(join(tmpdir(), 'house-'))
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())

const QUOTING = { days: 30, depositBp: 0, words: '', freeDays: 14, dayMinor: 0 }
const rule = (more: object = {}) => people.owner.send('PUT /api/shop/quoting', { ...QUOTING, ...more })
async function worked() {
  await setClock(people.owner, '2027-08-02T09:00:00+02:00')
  const { id } = await people.owner.ok<{ id: number }>('POST /api/pieces', intake())
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  await workTo(people, id, '2027-08-02T10:00:00+02:00', 'sand')
  return id
}
const rowVersion = async (id: number) =>
  (await people.office.ok<{ piece: { row_version: number } }>(`GET /api/pieces/${id}`)).piece.row_version
async function statement(id: number) {
  const reply = await fetch(`${BASE}/api/pieces/${id}/statement`, { headers: { cookie: people.office.cookie } })
  expect(reply.status).toBe(200)
  const file = join(dir, 'statement.pdf')
  writeFileSync(file, Buffer.from(await reply.arrayBuffer()))
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
}
const sumIn = (text: string, name: string) => {
  const found = new RegExp(`${name}[^\\n]*?SEK\\s(-?[\\d,.]+)`).exec(text)
  return found ? Number(found[1]!.replaceAll(',', '')) : null
}
interface May {
  deposit: { asked_minor: number; paid_minor: number }
  storage: { days: number; minor: number } | null
  beyond: { foreseen_minor: number; agreed_minor: number } | null
  agreed: boolean
}
const may = (id: number) => people.office.ok<May>(`GET /api/pieces/${id}/asking`)

describe('what is paid before', () => {
  it('is asked for by the rule of the house, is taken off what is to pay, and may be more than that', async () => {
    await rule({ depositBp: 2500 })
    const id = await worked()
    const { agreed_minor } = (await planOf(people.owner, id)) as unknown as { agreed_minor: number }
    expect((await may(id)).deposit).toEqual({ asked_minor: Math.round(agreed_minor / 4), paid_minor: 0 })
    const before = sumIn(await statement(id), 'To pay')!
    const pay = async (minor: unknown, version = 0) =>
      people.office.send(`PUT /api/pieces/${id}/deposit`, { rowVersion: version || (await rowVersion(id)), minor })
    for (const bad of [-1, 0.5, 1e12, '100', null]) expect((await pay(bad)).status, String(bad)).toBe(422)
    expect((await pay(10_000, 99_999)).status).toBe(409)
    expect((await pay(5000)).status).toBe(200)
    const text = await statement(id)
    expect(sumIn(text, 'To pay')).toBeCloseTo(before - 50, 2)
    expect(text).toMatch(/Paid before\s+-SEK\s50\.00/)
    await pay(90_000_000)
    expect(await statement(id)).toMatch(/To give back/)
    expect((await people.finisher.send(`PUT /api/pieces/${id}/deposit`, { rowVersion: 1, minor: 1 })).status).toBe(403)
    await rule()
  })
})

describe('storage of what nobody fetches', () => {
  it('is counted from the day it was ready, beyond the free days, and ends when it went home', async () => {
    for (const bad of [{ freeDays: -1 }, { freeDays: 999 }, { dayMinor: -5 }, { dayMinor: 0.1 }])
      expect((await rule(bad)).status).toBe(422)
    await rule({ freeDays: 10, dayMinor: 1500 })
    const id = await worked()
    await sql.query(
      "UPDATE plan_step SET state = 'done', finished_at = '2027-08-02' WHERE piece_id = ? AND state = 'planned'",
      [id],
    )
    await sql.query(
      "UPDATE piece SET state = 'ready', ready_at = '2027-08-02 10:00:00', changed_no = changed_no + 1 WHERE id = ?",
      [id],
    )
    await setClock(people.owner, '2027-08-12T10:00:00+02:00')
    expect((await may(id)).storage).toBeNull()
    await setClock(people.owner, '2027-08-14T10:00:00+02:00')
    expect((await may(id)).storage).toEqual({ days: 2, minor: 3000 })
    expect(sumIn(await statement(id), 'Storage, 2 days')).toBe(30)
    const { open } = await people.office.ok<{ open: string[] }>(`GET /api/pieces/${id}/hand-over`)
    expect(open.join(' ')).toMatch(/2 d beyond the free ones: 30 SEK/)
    await people.office.ok(`POST /api/pieces/${id}/hand-over`, { rowVersion: await rowVersion(id), to: 'Client' })
    await setClock(people.owner, '2027-09-30T10:00:00+02:00')
    expect(sumIn(await statement(id), 'Storage, 2 days')).toBe(30)
    await rule()
  })
})

describe('before the agreed price is passed', () => {
  it('a mend that passes it says so, and the question to the client is there to be sent', async () => {
    const id = await worked()
    expect((await may(id)).beyond).toBeNull()
    await sql.query('UPDATE piece SET accepted_worst_minor = agreed_minor, changed_no = changed_no + 1 WHERE id = ?', [
      id,
    ])
    const done = (await planOf(people.owner, id)).steps.filter(s => s.state === 'done' && s.kind !== 'approval')
    await people.finisher.ok(`POST /api/pieces/${id}/faults`, { sign: 'sticky', stepId: done[0]!.id })
    const { faults } = await people.lead.ok<{ faults: { id: number; rowVersion: number }[] }>(
      `GET /api/pieces/${id}/faults`,
    )
    let beyond = false
    // each mend costs something; by the end of these it costs more than was agreed
    for (const sign of ['sticky', 'peeling', 'wrinkling', 'runs', 'bubbles', 'fish-eyes', 'swirls', 'blotches']) {
      const { id: fault } = await people.lead.ok<{ id: number }>(`POST /api/pieces/${id}/faults`, {
        sign,
        stepId: null,
      })
      const put = await people.lead.ok<{ beyond: boolean }>(`POST /api/faults/${fault}/mend`, {
        ...{ rowVersion: 1, mend: 'back-to-wood' },
      })
      beyond ||= put.beyond
    }
    expect(faults).toHaveLength(1)
    expect(beyond).toBe(true)
    const asked = await may(id)
    expect(asked.beyond!.foreseen_minor).toBeGreaterThan(asked.beyond!.agreed_minor)
    const mostMinor = Math.ceil(asked.beyond!.foreseen_minor / 100) * 100
    const preview = await people.office.ok<{ shown: { items: { title: string; says: string }[] } }>(
      `POST /api/pieces/${id}/approvals/preview`,
      { words: '', surface: false, mostMinor },
    )
    expect(preview.shown.items.map(i => i.title)).toEqual(['It will cost more than was agreed'])
    const { id: question } = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, {
      ...{ words: '', surface: false, mostMinor },
    })
    await people.office.ok(`POST /api/approvals/${question}/answer`, {
      ...replied(),
      via: 'counter',
      name: 'C',
      says: '',
    })
    expect((await may(id)).beyond).toBeNull()
  })
})
