import { P } from '../../core/abrasives'
import mysql from 'mysql2/promise'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { act, type Caller, choice, intake, planOf, setClock, shopPeople, stepOf, named, sayYes } from './http'

const t = (clock: string, day = '2026-12-01') => `${day}T${clock}:00+01:00`
const people = {} as Record<Role, Caller>
let sql: mysql.Connection

beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())
beforeEach(() => setClock(people.owner, t('08:00')))

interface Page {
  piece: {
    row_version: number
    tone: string
    agreed_minor: number | null
    accepted_worst_minor: number | null
    route: string | null
  }
  faces: { id: number }[]
  lead: string
  leadSuspected: boolean
  found: { finish: string } | null
}
const examOf = (id: number) =>
  people.owner.ok<{ tests: { id: number }[]; findings: { id: number }[] }>(`GET /api/pieces/${id}/examination`)
const pageOf = (id: number) => people.owner.ok<Page>(`GET /api/pieces/${id}`)
const taken = async (more = {}) => (await people.office.ok<{ id: number }>('POST /api/pieces', intake(more))).id
async function chosen(more = {}, pick: Record<string, unknown> = choice) {
  const id = await taken(more)
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...pick, rowVersion: 1 })
  return id
}
async function agreed(more = {}, pick: Record<string, unknown> = choice) {
  const id = await chosen(more, pick)
  await sayYes(people.office, id)
  return id
}
const log = (id: number) =>
  people.owner.ok<{ id: number; kind: string; says: string; undoes_id: number | null; by_name: string | null }[]>(
    `GET /api/pieces/${id}/log`,
  )
async function done(id: number, key: string, at: string, more: Record<string, unknown> = {}) {
  await setClock(people.owner, at)
  const started = await act(people.lead, 'start', await stepOf(people.owner, id, key), at)
  expect(started.status, `${key}: ${started.body.message}`).toBe(200)
  return act(people.lead, 'finish', await stepOf(people.owner, id, key), at, more)
}

describe('two people at once', () => {
  it('lets exactly one of two start a step, and tells the other', async () => {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    await setClock(people.owner, t('08:30'))
    const replies = await Promise.all(
      [people.lead, people.finisher, people.owner].map(p => act(p, 'start', wash, t('08:30'))),
    )
    expect(replies.map(r => r.status).sort()).toEqual([200, 409, 409])
    expect(replies.find(r => r.status === 409)!.body.message).toMatch(/Somebody else changed this/)
    expect((await log(id)).filter(e => e.kind === 'started')).toHaveLength(1)
  })
  it('books one command once, however often and fast it is sent', async () => {
    const id = await agreed()
    await setClock(people.owner, t('08:30'))
    const wash = await stepOf(people.owner, id, 'wash')
    const command = { kind: 'start', stepId: wash.id, rowVersion: wash.rowVersion, happenedAt: t('08:30') }
    const once = { 'idempotency-key': crypto.randomUUID() }
    const replies = await Promise.all(
      Array.from({ length: 5 }, () => people.finisher.send('POST /api/bench', command, once)),
    )
    expect(replies.map(r => r.status)).toEqual([200, 200, 200, 200, 200])
    expect((await log(id)).filter(e => e.kind === 'started')).toHaveLength(1)
    expect((await people.finisher.send('POST /api/bench', command, once)).status).toBe(200)
  })
  it('never overwrites what somebody else has changed', async () => {
    const id = await taken()
    await people.office.ok(`PATCH /api/pieces/${id}`, { rowVersion: 1, tone: 'darker' })
    const late = await people.lead.send(`PATCH /api/pieces/${id}`, { rowVersion: 1, tone: 'lighter' })
    expect(late.body.code).toBe('stale')
    expect((await pageOf(id)).piece.tone).toBe('darker')
  })
  it('takes from one lot in turn, never below zero', async () => {
    const { id: productId } = await people.lead.ok<{ id: number }>('POST /api/products', {
      name: `soap ${crypto.randomUUID()}`,
      class: 'mild-soap',
      priceMinor: 3000,
    })
    const { id: lotId } = await people.lead.ok<{ id: number }>('POST /api/lots', {
      productId,
      code: 'L',
      amount: 100,
    })
    const ids = [await agreed(), await agreed(), await agreed()]
    await setClock(people.owner, t('08:30'))
    for (const id of ids) await act(people.lead, 'start', await stepOf(people.owner, id, 'wash'), t('08:30'))
    const steps = await Promise.all(ids.map(id => stepOf(people.owner, id, 'wash')))
    const replies = await Promise.all(
      steps.map(s => act(people.lead, 'finish', s, t('08:30'), { used: [{ lotId, amountMl: 40, word: '' }] })),
    )
    expect(replies.map(r => r.status).sort()).toEqual([200, 200, 422])
    const [rows] = await sql.query<mysql.RowDataPacket[]>('SELECT left_amount FROM lot WHERE id = ?', [lotId])
    expect(Number(rows[0]!.left_amount)).toBe(20)
  })
})

describe('the record', () => {
  it('cannot be changed or shortened, not even in the database', async () => {
    await taken()
    for (const statement of ["UPDATE logbook SET says = 'x' LIMIT 1", 'DELETE FROM logbook LIMIT 1'])
      await expect(sql.query(statement)).rejects.toThrow(/append-only/)
    await agreed()
    await expect(sql.query("UPDATE plan_snapshot SET content = '{}' LIMIT 1")).rejects.toThrow(/never changes/)
  })
  it('takes a mis-tap back by another entry that names the first', async () => {
    const id = await agreed()
    await setClock(people.owner, t('08:30'))
    await act(people.lead, 'start', await stepOf(people.owner, id, 'wash'), t('08:30'))
    await act(people.lead, 'undo', await stepOf(people.owner, id, 'wash'), t('08:30'))
    const entries = await log(id)
    const [undone, started] = [entries.find(e => e.kind === 'undone')!, entries.find(e => e.kind === 'started')!]
    expect(undone.undoes_id).toBe(started.id)
    expect((await stepOf(people.owner, id, 'wash')).state).toBe('planned')
  })
  it('takes nothing back that a later step stands on', async () => {
    const id = await agreed()
    await done(id, 'wash', t('08:30'))
    await done(id, 'cover', t('09:30'))
    expect((await act(people.lead, 'undo', await stepOf(people.owner, id, 'wash'), t('09:30'))).body.code).toBe('later')
  })
  it('marks a word by phone or at the counter with who recorded it', async () => {
    const id = await agreed()
    expect((await log(id)).find(e => e.kind === 'answer')!.says).toMatch(/by phone, recorded by office/)
    const page = await pageOf(id)
    expect(page.piece.agreed_minor).toBeGreaterThan(0)
    expect(page.piece.accepted_worst_minor).toBeGreaterThanOrEqual(page.piece.agreed_minor!)
  })
  it('keeps an exact snapshot when asked and when work starts', async () => {
    const id = await agreed()
    await done(id, 'wash', t('08:30'))
    const [rows] = await sql.query<mysql.RowDataPacket[]>(
      `SELECT reason, SHA2(CONCAT(content, picture), 256) AS again, sha256
          FROM plan_snapshot
          WHERE piece_id = ?
          ORDER BY id`,
      [id],
    )
    expect(rows.map(r => r.reason)).toEqual(['asked', 'work-started'])
    for (const r of rows) expect(r.again).toBe(r.sha256)
  })
})

describe('examination and its consequences', () => {
  it('lets a lead test lift the ban, and only who decides may record it', async () => {
    const id = await taken({ lead: 'unknown' })
    expect((await pageOf(id)).leadSuspected).toBe(true)
    const evidence = { kind: 'lead', answer: 'no', method: 'swab' }
    expect((await people.finisher.send(`POST /api/pieces/${id}/evidence`, evidence)).status).toBe(403)
    await people.lead.ok(`POST /api/pieces/${id}/evidence`, evidence)
    expect((await pageOf(id)).leadSuspected).toBe(false)
  })
  it('mends by one touch, and tells what differs from what the client accepted', async () => {
    const id = await agreed({}, { ...choice, route: 'scuff', finish: 'dewaxed-shellac' })
    const wash = await stepOf(people.owner, id, 'wash')
    await people.lead.ok(`DELETE /api/steps/${wash.id}?rowVersion=${wash.rowVersion}`)
    const before = await people.owner.ok<{
      verdicts: { rule: string; step: string; oneTouch: string | null }[]
      since: { changes: { key: string }[]; minutes: number; needsAnswer: boolean }
    }>(`GET /api/pieces/${id}/plan`)
    const verdict = before.verdicts.find(v => v.rule === 'clean-before-abrade')!
    expect(verdict.oneTouch).toMatch(/wash/)
    expect(before.since.changes.map(c => c.key)).toEqual(['wash'])
    expect(before.since.minutes).toBeLessThan(0)
    await people.lead.ok(`POST /api/pieces/${id}/mends`, { rule: verdict.rule, stepKey: verdict.step })
    const after = await planOf(people.owner, id)
    expect(after.verdicts.map(v => v.rule)).not.toContain('clean-before-abrade')
    expect(after.steps.find(s => s.key.startsWith('mend.'))!.attended_min).toBeGreaterThan(0)
    expect(
      (await people.lead.send(`POST /api/pieces/${id}/mends`, { rule: 'clean-before-abrade', stepKey: verdict.step }))
        .status,
    ).toBe(404)
  })
  it('lets nobody overrule what is forbidden', async () => {
    const id = await chosen({ lead: 'yes' })
    const faces = (await pageOf(id)).faces.map(f => f.id)
    const after = await stepOf(people.owner, id, 'wash-off')
    await people.lead.ok(`POST /api/pieces/${id}/steps`, {
      kind: 'sand',
      after: after.id,
      faces,
      title: 'Sand dry',
      attendedMin: 20,
      product: null,
      amountMl: null,
      grits: [P(120)],
      method: 'hand',
      coat: null,
    })
    const verdict = (await planOf(people.owner, id)).verdicts.find(v => v.rule === 'lead-no-dust')!
    expect(
      (
        await people.owner.send(`POST /api/pieces/${id}/overrules`, {
          rule: verdict.rule,
          stepKey: verdict.step,
          word: 'please',
        })
      ).status,
    ).toBe(403)
  })
  it('withdraws a test and a finding without losing them from the log', async () => {
    const id = await taken()
    await people.finisher.ok(`POST /api/pieces/${id}/tests`, { test: 'look', result: 'crazed', spot: '' })
    await people.finisher.ok(`POST /api/pieces/${id}/findings`, {
      faceId: (await pageOf(id)).faces[0]!.id,
      kind: 'crazing',
      grade: 3,
      wish: 'mend',
      note: '',
    })
    const before = await examOf(id)
    await people.finisher.ok(`DELETE /api/tests/${before.tests[0]!.id}`)
    await people.finisher.ok(`DELETE /api/findings/${before.findings[0]!.id}`)
    expect(await examOf(id)).toMatchObject({ tests: [], findings: [] })
    expect((await pageOf(id)).found).toBeNull()
    expect((await people.finisher.send(`DELETE /api/tests/${before.tests[0]!.id}`)).status).toBe(404)
    expect((await log(id)).map(e => e.says).join()).toMatch(
      /withdrawn: crazing.*withdrawn: look|withdrawn: look.*crazing/s,
    )
  })
  it('turns a photograph upright, keeps when it was taken and drops the rest', async () => {
    const id = await taken()
    const picture = await sharp({ create: { width: 40, height: 20, channels: 3, background: '#a53' } })
      .withMetadata({
        orientation: 6,
        exif: { IFD0: { Artist: 'somebody' }, IFD2: { DateTimeOriginal: '2026:11:20 09:15:00' } },
      })
      .jpeg()
      .toBuffer()
    const form = new FormData()
    form.append('picture', new Blob([new Uint8Array(picture)]), 'a.jpg')
    const { address } = await people.finisher.ok<{ address: string }>(`POST /api/pieces/${id}/photographs`, form)
    const [rows] = await sql.query<mysql.RowDataPacket[]>(
      'SELECT picture, taken_at FROM photograph WHERE address = ?',
      [address],
    )
    const stored = await sharp(rows[0]!.picture as Buffer).metadata()
    expect([stored.width, stored.height, stored.exif]).toEqual([20, 40, undefined])
    expect(rows[0]!.taken_at).not.toBeNull()
  })
})

describe('plan, gates and waits', () => {
  it('keeps the plan once work has started', async () => {
    const id = await agreed()
    await done(id, 'wash', t('08:30'))
    const { piece } = await pageOf(id)
    expect(
      (await people.lead.send(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: piece.row_version })).body.code,
    ).toBe('started')
    const wash = await stepOf(people.owner, id, 'wash')
    expect(
      (await people.lead.send(`PATCH /api/steps/${wash.id}`, { rowVersion: wash.rowVersion, attendedMin: 1 })).body
        .code,
    ).toBe('started')
    expect((await people.lead.send(`DELETE /api/steps/${wash.id}?rowVersion=${wash.rowVersion}`)).body.code).toBe(
      'started',
    )
  })
  it('holds back what is not dry yet', async () => {
    const id = await agreed()
    await done(id, 'wash', t('08:30'))
    await setClock(people.owner, t('09:01'))
    expect((await stepOf(people.owner, id, 'cover')).start.may).toBe(true)
    await act(people.finisher, 'not-dry', await stepOf(people.owner, id, 'cover'), t('09:01'))
    const held = await stepOf(people.owner, id, 'cover')
    expect(held.start.refusals.map(r => r.code)).toEqual(['too-early'])
    expect(held.start.refusals[0]!.says).toMatch(/09:16/)
  })
  it('repeats the washing when the wetting test fails, and goes on when it passes', async () => {
    const id = await taken({ name: 'Contaminated lid' })
    const page = await pageOf(id)
    await people.lead.ok(`POST /api/pieces/${id}/findings`, {
      faceId: page.faces[0]!.id,
      kind: 'water-beads',
      grade: 3,
      wish: 'mend',
      note: '',
    })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
      ...choice,
      route: 'scuff',
      finish: 'dewaxed-shellac',
      rowVersion: 1,
    })
    await sayYes(people.office, id)
    await done(id, 'wash', t('08:30'))
    await done(id, 'solvent-wash', t('10:00'))
    const missing = await done(id, 'gate', t('11:00'))
    expect(missing.body.code).toBe('gate')
    expect(
      (
        await act(people.lead, 'finish', await stepOf(people.owner, id, 'gate'), t('11:00'), {
          gate: 'fail',
          note: 'halos',
        })
      ).status,
    ).toBe(200)
    expect((await planOf(people.owner, id)).steps.map(s => s.key).slice(0, 6)).toEqual([
      'approval',
      'wash',
      'solvent-wash',
      'gate',
      'solvent-wash~2',
      'gate~2',
    ])
    expect((await stepOf(people.owner, id, 'scuff')).start.may).toBe(false)
    await done(id, 'solvent-wash~2', t('12:00'))
    await done(id, 'gate~2', t('13:00'), { gate: 'pass' })
    expect((await stepOf(people.owner, id, 'scuff')).start.may).toBe(true)
  })
  it('asks the client again only beyond the accepted worst', async () => {
    const id = await agreed({}, { ...choice, route: 'level-barrier-recoat', finish: 'dewaxed-shellac' })
    await sql.query('UPDATE piece SET accepted_worst_minor = 1000 WHERE id = ?', [id])
    let at = Date.parse(t('08:10'))
    for (let key = ''; key !== 'gate'; at += 3_600_000) {
      await setClock(people.owner, new Date(at - 60_000).toISOString())
      await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
      await setClock(people.owner, new Date(at).toISOString())
      const next = (await planOf(people.owner, id)).steps.find(s => s.start.may)
      if (!next) continue
      key = next.kind
      const reply = await done(
        id,
        next.key,
        new Date(at).toISOString(),
        key === 'gate' ? { gate: 'fail', note: 'halos' } : {},
      )
      if (key === 'gate') expect(reply.body).toMatchObject({ ok: true, askAgain: true })
    }
    const plan = await planOf(people.owner, id)
    expect(plan.steps.find(s => s.key === 'f-approval')).toMatchObject({ state: 'planned' })
    expect(plan.steps.find(s => named(s) === 'f-strip')!.start.refusals.map(r => r.code)).toContain('earlier-step')
    expect(
      (await people.office.send(`POST /api/pieces/${id}/approvals`, { words: 'The gate failed.', days: 7 })).status,
    ).toBe(200)
  })
  it("refuses acts in the future or longer ago than half a day, and of others' steps", async () => {
    const id = await agreed()
    await setClock(people.owner, t('16:00'))
    const wash = await stepOf(people.owner, id, 'wash')
    expect((await act(people.lead, 'start', wash, t('16:30'))).body.code).toBe('future')
    expect((await act(people.lead, 'start', wash, t('16:00', '2026-11-30'))).body.code).toBe('too-long-ago')
    expect((await act(people.lead, 'start', { ...wash, id: 999_999 }, t('16:00'))).status).toBe(404)
    expect((await act(people.lead, 'finish', wash, t('16:00'))).body.code).toBe('not-running')
    expect((await act(people.lead, 'not-dry', await stepOf(people.owner, id, 'sand'), t('16:00'))).status).toBe(200)
    expect((await act(people.lead, 'undo', wash, t('16:00'))).body.code).toBe('nothing')
  })
})

describe('what Now says', () => {
  interface Now {
    may: { pieceId: number; key: string }[]
    windows: { pieceId: number; to: string; closes_ms: number | null; acknowledged: string | null }[]
    air: { fresh: boolean }
    running: { pieceId: number }[]
  }
  const now = () => people.finisher.ok<Now>('GET /api/now')
  it('shows a running window until it is done, sorted by what closes first', async () => {
    const id = await agreed()
    let at = Date.parse(t('08:30'))
    for (const { key } of (await planOf(people.owner, id)).steps.filter(s => s.state === 'planned')) {
      await done(id, key, new Date(at).toISOString())
      if (key === 'strip') break
      at += 3_600_000
    }
    await setClock(people.owner, new Date(at + 5 * 60_000).toISOString())
    const { windows } = await now()
    const mine = windows.find(w => w.pieceId === id)!
    expect(mine).toMatchObject({ to: 'scrape', closes_ms: at + 30 * 60_000, acknowledged: null })
    const closes = windows.map(w => w.closes_ms).filter(c => c !== null)
    expect([...closes].sort((a, b) => a - b)).toEqual(closes)
    await people.finisher.ok('POST /api/alarms', { pieceId: id, from: 'strip', to: 'scrape' })
    expect((await now()).windows.find(w => w.pieceId === id)!.acknowledged).toBe('finisher')
    await setClock(people.owner, new Date(at + 16 * 60_000).toISOString())
    await act(
      people.finisher,
      'start',
      await stepOf(people.owner, id, 'scrape'),
      new Date(at + 16 * 60_000).toISOString(),
    )
    expect((await now()).windows.some(w => w.pieceId === id)).toBe(false)
    expect((await now()).running.some(r => r.pieceId === id)).toBe(true)
  })
  it('takes air older than a quarter hour as unknown', async () => {
    await people.lead.ok('POST /api/air', { temperature_C: 20, rh_pct: 50 })
    expect((await now()).air.fresh).toBe(true)
    await setClock(people.owner, t('05:00', '2027-03-01'))
    expect((await now()).air.fresh).toBe(false)
  })
})
