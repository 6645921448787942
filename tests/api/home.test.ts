import { execFileSync } from 'node:child_process'
import { mkdtempSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { BASE, Caller, choice, intake, planOf, sayYes, setClock, shopPeople, workTo, turnOf } from './http'

/** A piece goes home: done or part done, signed for, cared for, told of, renewed later. */
const people = {} as Record<Role, Caller>
let sql: mysql.Connection
const dir = mkdtempSync(join(tmpdir(), 'home-'))
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())
beforeEach(() => setClock(people.owner, '2027-06-07T09:00:00+02:00'))

async function textOf(path: string, caller = people.office) {
  const reply = await fetch(BASE + path, { headers: { cookie: caller.cookie } })
  expect(reply.status, path).toBe(200)
  const file = join(dir, 'paper.pdf')
  writeFileSync(file, Buffer.from(await reply.arrayBuffer()))
  return execFileSync('pdftotext', ['-layout', file, '-'], { encoding: 'utf8' })
}
let count = 0
/** Begun, with its first finish laid, or with every step done. */
async function worked(until: 'begin' | 'coat' | 'end') {
  count++
  const client = { name: `Home ${count}`, email: `home${Date.now()}${count}@example.invalid`, phone: '070' }
  const { id } = await people.owner.ok<{ id: number }>('POST /api/pieces', intake({ client }))
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  await workTo(people, id, '2027-06-07T10:00:00+02:00', 'sand')
  // what is left is done by the book
  const left = (await planOf(people.owner, id)).steps.filter(s => s.state === 'planned')
  const first = left.findIndex(s => s.kind === 'coat' || s.kind === 'oil-on') + 1
  const last = { begin: 0, coat: first, end: left.length }[until]
  for (const s of left.slice(0, last))
    await sql.query("UPDATE plan_step SET state = 'done', started_at = ?, finished_at = ? WHERE id = ?", [
      ...['2027-06-08 08:00:00', '2027-06-08 09:00:00'],
      s.id,
    ])
  if (until === 'end') await sql.query("UPDATE piece SET state = 'ready', ready_at = '2027-06-08' WHERE id = ?", [id])
  await sql.query('UPDATE piece SET changed_no = changed_no + 1 WHERE id = ?', [id])
  await setClock(people.owner, '2027-06-09T10:00:00+02:00')
  return { id, ...client }
}
interface Piece {
  piece: { row_version: number; state: string; renew_on: string | null; told_at: string | null; taken_in_at: string }
}
const pieceOf = async (id: number) => (await people.office.ok<Piece>(`GET /api/pieces/${id}`)).piece
const handOver = async (id: number, more: object = {}) =>
  people.office.send<{ code: string }>(`POST /api/pieces/${id}/hand-over`, {
    ...{ rowVersion: (await pieceOf(id)).row_version, to: 'Runa Test' },
    ...more,
  })

describe('a piece that is done', () => {
  it('is told of by mail or by word, is signed for, and its papers say so', async () => {
    const { id, name } = await worked('end')
    const ready = async () =>
      (await people.office.ok<{ id: number; told_at: string | null }[]>('GET /api/ready')).find(p => p.id === id)
    expect((await ready())!.told_at).toBeNull()
    const told = async (by: string) =>
      people.office.send(`POST /api/pieces/${id}/told`, { rowVersion: (await pieceOf(id)).row_version, by })
    expect((await told('pigeon')).status).toBe(422)
    expect((await told('mail')).status).toBe(200)
    expect((await ready())!.told_at).not.toBeNull()
    const care = await textOf(`/api/pieces/${id}/care`, people.finisher)
    for (const says of [name, 'silicone', 'To be renewed']) expect(care).toContain(says)
    const hidden = await textOf(`/api/pieces/${id}/labels?of=hidden`)
    for (const says of ['Done 8 Jun 2027', 'Renew about', 'No silicone']) expect(hidden).toContain(says)
    expect((await handOver(id, { part: true })).body.code).toBe('not-part')
    for (const signature of ['<svg onload=x>', 'M', 'M1 1 L', 'L1 1', 'M9999999 1', 'x'.repeat(30_000)])
      expect((await handOver(id, { signature })).status, signature.slice(0, 20)).toBe(422)
    expect((await handOver(id, { signature: 'M10 10 L90 60 L200 20', remind: true })).status).toBe(200)
    expect(await ready()).toBeUndefined()
    expect((await told('word')).status).toBe(409)
    const note = await textOf(`/api/pieces/${id}/delivery`)
    expect(note).toMatch(/Taken by\s+Runa Test/)
    expect(note).toMatch(/9 June 2027/)
    const { address } = await people.office.ok<{ address: string }>(`POST /api/pieces/${id}/link`, {})
    expect(await textOf(`/api/answer/${address.split('/').at(-1)!}/care`, new Caller())).toContain('silicone')
  })
  it('is reminded of once, by leave alone, when its finish wants renewing', async () => {
    const [yes, no] = [await worked('end'), await worked('end')]
    await handOver(yes.id, { remind: true })
    await handOver(no.id)
    const { renew_on } = await pieceOf(yes.id)
    expect(renew_on).toMatch(/^20[23]\d-06-09$/)
    const letters = async (id: number) => {
      const [rows] = await sql.query<mysql.RowDataPacket[]>(
        "SELECT COUNT(*) AS n FROM mail WHERE piece_id = ? AND kind = 'renew'",
        [id],
      )
      return Number(rows[0]!.n)
    }
    await sql.query("UPDATE piece SET renew_on = '2027-06-09' WHERE id IN (?, ?)", [yes.id, no.id])
    const due = () => sql.query("UPDATE job SET due_at = UTC_TIMESTAMP(3) WHERE name = 'remind'")
    await expect.poll(async () => due().then(() => letters(yes.id)), { timeout: 120_000, interval: 1000 }).toBe(1)
    await turnOf(sql, 'remind')
    expect([await letters(yes.id), await letters(no.id)]).toEqual([1, 0])
  }, 240_000)
})

describe('a piece that comes back', () => {
  it('knows what lies on it by the record, layer by layer, until somebody says otherwise', async () => {
    const { id } = await worked('end')
    await handOver(id)
    const { id: back } = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/again`, {})
    const { was } = await people.finisher.ok<{ was: { id: number; laid: { parts: string[]; steps: string[] }[] } }>(
      `GET /api/pieces/${back}/before`,
    )
    expect(was.id).toBe(id)
    expect(was.laid.flatMap(l => l.steps).join()).toMatch(/varnish oil × \d/)
    interface Exam {
      finishes: { group: string; layers: { layer: number; finish: string; overruled: { value: string } | null }[] }[]
    }
    const exam = await people.lead.ok<Exam>(`GET /api/pieces/${back}/examination`)
    const said = exam.finishes.map(f => f.layers.map(l => l.overruled?.value))
    expect(said).toEqual([['oil']])
    const { piece } = await people.lead.ok<{ piece: { row_version: number } }>(`GET /api/pieces/${back}`)
    expect(piece.row_version).toBeGreaterThan(0)
    await people.lead.ok(`POST /api/pieces/${back}/examination/overrules`, {
      ...{ slug: 'finish-is', subject: 'A:1', value: null, word: 'tested again' },
    })
    expect((await people.lead.ok<Exam>(`GET /api/pieces/${back}/examination`)).finishes[0]!.layers[0]!.overruled).toBe(
      null,
    )
    expect(await people.lead.ok(`GET /api/pieces/${id}/before`)).toEqual({ was: null })
  })
})

describe('a piece that is part done', () => {
  it('goes home with what must follow, closes its record, and comes back to be gone on with', async () => {
    const { id } = await worked('coat')
    const { left } = await people.office.ok<{ left: string[] }>(`GET /api/pieces/${id}/hand-over`)
    expect(left.length).toBeGreaterThan(0)
    expect((await handOver(id)).body.code).toBe('not-ready')
    expect((await handOver(id, { part: true })).status).toBe(200)
    expect((await pieceOf(id)).state).toBe('part-done')
    const sheet = (await textOf(`/api/pieces/${id}/care`)).replace(/\s+/g, ' ')
    for (const says of ['What must follow', 'What must not be done', 'No silicone']) expect(sheet).toContain(says)
    // what is not finished has no days of use yet, and is not told to be used gently
    for (const says of ['Used hard', 'To be renewed']) expect(sheet).not.toContain(says)
    const note = (await textOf(`/api/pieces/${id}/delivery`)).replace(/\s+/g, ' ')
    expect(note).toContain('stands on its care sheet')
    expect(note).not.toContain('Use it gently')
    expect(
      (await people.lead.send<{ code: string }>(`POST /api/pieces/${id}/faults`, { sign: 'runs', stepId: null })).body
        .code,
    ).toBe('handed-over')
    const { row_version: rowVersion, taken_in_at } = await pieceOf(id)
    await people.office.ok(`PUT /api/pieces/${id}/state`, { rowVersion, becomes: 'active' })
    expect(await pieceOf(id)).toMatchObject({ state: 'active', taken_in_at, handed_over_at: null })
    expect(await textOf(`/api/pieces/${id}/delivery`)).not.toContain('Runa Test')
  })
  it('has its sheet also where no finish was laid yet, with what may hurt', async () => {
    const { id } = await worked('begin')
    expect((await handOver(id, { part: true })).status).toBe(200)
    const sheet = (await textOf(`/api/pieces/${id}/care`)).replace(/\s+/g, ' ')
    for (const says of ['What must follow', 'What may hurt', 'data sheet']) expect(sheet).toContain(says)
  })
  it('is taken back within a day to what it was', async () => {
    const { id } = await worked('coat')
    await handOver(id, { part: true })
    const { row_version } = await pieceOf(id)
    await people.office.ok(`DELETE /api/pieces/${id}/hand-over?rowVersion=${row_version}`)
    expect((await pieceOf(id)).state).toBe('active')
    expect(await textOf(`/api/pieces/${id}/delivery`)).not.toContain('Runa Test')
  })
})
