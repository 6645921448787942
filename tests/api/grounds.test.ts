import mysql from 'mysql2/promise'
import sharp from 'sharp'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import {
  act,
  type Caller,
  choice,
  composed,
  freshLayer,
  intake,
  named,
  planOf,
  type PlanStep,
  replied,
  sayYes,
  setClock,
  shopPeople,
  stepOf,
  workTo,
} from './http'

const t = (clock: string, day = '2026-12-14') => `${day}T${clock}:00+01:00`
const people = {} as Record<Role, Caller>
beforeAll(async () => {
  Object.assign(people, await shopPeople())
})
beforeEach(() => setClock(people.owner, t('08:00')))

async function planned(picks: object = {}, face: object = {}, more: string[] = []) {
  const base = intake()
  const parts = base.parts.map(p => ({
    ...p,
    faces: [...p.faces, ...more.map(name => ({ ...p.faces[0]!, name }))].map(f => ({ ...f, ...face })),
  }))
  const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', { ...base, parts })
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
    ...choice,
    finish: 'dewaxed-shellac',
    ...picks,
    rowVersion: 1,
  })
  return id
}
const clockNow = async () => new Date((await people.lead.ok<{ now_ms: number }>('GET /api/now')).now_ms).toISOString()
interface Page {
  rowVersion: number
  found: { added: string[]; gone: string[]; changed: string[]; late: string[] } | null
  steps: (PlanStep & {
    sections: { count: number; laid: number; off: number; next: { no: number } | null } | null
  })[]
}
const page = (id: number) => people.lead.ok<Page>(`GET /api/pieces/${id}/plan`)
const ring = {
  kind: 'black-ring',
  grade: 3,
  wish: 'mend',
  note: '',
  place: { shape: 'area', copy: 1, x_mm: 100, y_mm: 100, x2_mm: 200, y2_mm: 200, size_mm: 0 },
}
const faceOf = async (id: number) =>
  (await people.lead.ok<{ faces: { id: number }[] }>(`GET /api/pieces/${id}/examination`)).faces[0]!.id

describe('a piece that is taken in with a name alone', () => {
  it('has every page, and is measured later; a face that comes after the plan is missed in it', async () => {
    const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', { ...intake(), parts: [] })
    for (const page of ['', '/examination', '/routes', '/plan', '/log', '/report?format=pdf'])
      expect((await people.lead.send(`GET /api/pieces/${id}${page}`)).status, page).toBeLessThan(500)
    const { parts } = intake()
    await people.office.ok(`POST /api/pieces/${id}/parts`, { parts })
    const { rowVersion } = (await people.lead.send<{ rowVersion: number }>(`GET /api/pieces/${id}/plan`)).body
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, finish: 'dewaxed-shellac', rowVersion })
    await people.office.ok(`POST /api/pieces/${id}/parts`, { parts: [{ ...parts[0]!, name: 'shelf' }] })
    const { verdicts } = await people.lead.ok<{ verdicts: { rule: string; says: string }[] }>(
      `GET /api/pieces/${id}/plan`,
    )
    expect(verdicts.find(v => v.rule === 'face-left')?.says).toBe('shelf, outside')
    expect((await people.office.send(`POST /api/pieces/${id}/parts`, { parts: [] })).status).toBe(422)
  })
})

describe('pieces like this one', () => {
  it('are found by name, wood, layers and client, with what was done; hostile names are names', async () => {
    const asked = { ...choice, finish: 'dewaxed-shellac', rowVersion: 1 }
    const taken = async (name: string) => {
      const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', { ...intake(), name })
      await people.lead.ok(`PUT /api/pieces/${id}/choice`, asked)
      return id
    }
    const before = await taken('Davenport, small')
    const id = await taken('Second davenport')
    const like = (of: number) =>
      people.lead.ok<{ id: number; ground: string; laid: string[]; worked_min: number | null; alike: object }[]>(
        `GET /api/pieces/${of}/like`,
      )
    expect((await like(id))[0]).toMatchObject({
      ...{ id: before, ground: 'strip-chemical', worked_min: null },
      alike: { name: true, wood: true, layers: true, client: true },
    })
    expect((await like(id))[0]!.laid.join()).toMatch(/shellac/)
    const odd = await taken('((((*** \\ [a-')
    expect((await like(odd)).length).toBeGreaterThan(0)
  })
})

describe('what is found after the plan was made', () => {
  it('is offered as a change, taken or left; what has started stays', async () => {
    const id = await planned()
    expect((await page(id)).found).toBeNull()
    const faceId = await faceOf(id)
    await people.lead.ok(`POST /api/pieces/${id}/findings`, { ...ring, faceId })
    const { found, rowVersion } = await page(id)
    expect(found!.added.join()).toMatch(/Oxalic acid on the marks: 1 × black ring, about \d+ cm²/)
    expect(found!.late).toEqual([])
    await people.lead.ok(`POST /api/pieces/${id}/found`, { rowVersion, take: true })
    const bleach = await stepOf(people.lead, id, 'bleach')
    expect(bleach.amount_ml).toBeGreaterThan(0.5)
    expect(bleach.amount_ml).toBeLessThan(10)
    expect((await page(id)).found).toBeNull()
    expect((await people.lead.send(`POST /api/pieces/${id}/found`, { rowVersion, take: true })).status).toBe(409)
  })
  it('a mark moved to another face changes its step, and says where it is now', async () => {
    const id = await planned({}, {}, ['shelf'])
    const exam = () =>
      people.lead.ok<{ faces: { id: number }[]; findings: { id: number; rowVersion: number }[] }>(
        `GET /api/pieces/${id}/examination`,
      )
    const [first, second] = (await exam()).faces
    await people.lead.ok(`POST /api/pieces/${id}/findings`, { ...ring, faceId: first!.id })
    await people.lead.ok(`POST /api/pieces/${id}/found`, { rowVersion: (await page(id)).rowVersion, take: true })
    const mark = (await exam()).findings[0]!
    await people.lead.ok(`PATCH /api/findings/${mark.id}`, { faceId: second!.id, rowVersion: mark.rowVersion })
    const { found } = await page(id)
    expect(found!.changed.join()).toMatch(/Oxalic acid on the marks: 1 × black ring.* · lid, shelf/)
    expect([found!.added, found!.gone]).toEqual([[], []])
  })
  it('too late is said: a coat lies over it already; left alone it is not asked again', async () => {
    const id = await planned()
    await sayYes(people.office, id)
    await workTo(people, id, t('09:00'), 'coat-1')
    await people.lead.ok(`POST /api/pieces/${id}/findings`, { ...ring, faceId: await faceOf(id) })
    const { found, rowVersion } = await page(id)
    expect(found!.late.join()).toMatch(/Oxalic/)
    expect(found!.added).toEqual([])
    await people.lead.ok(`POST /api/pieces/${id}/found`, { rowVersion, take: false })
    expect((await page(id)).found).toBeNull()
  })
})

describe('sections at the bench', () => {
  it('go on and come off one by one; scraping begins while others go on; a mis-tap is taken back', async () => {
    const id = await planned({}, { length: '2000', width: '900' })
    await sayYes(people.office, id)
    const before = (await planOf(people.lead, id)).steps
    await workTo(people, id, t('09:00'), named(before[before.findIndex(s => s.kind === 'strip') - 1]!))
    const at = (minute: number) => new Date(Date.parse(t('10:00', '2026-12-16')) + minute * 60_000).toISOString()
    const touch = async (minute: number, kind: string, what: string, more: object = {}) => {
      await setClock(people.owner, at(minute))
      return act(people.lead, what, await stepOf(people.lead, id, kind), at(minute), { ...more })
    }
    const sections = async (kind: string) => (await page(id)).steps.find(s => s.kind === kind)!.sections!
    expect((await sections('strip')).count).toBeGreaterThan(2)
    expect((await touch(0, 'strip', 'start')).status).toBe(200)
    expect(await sections('strip')).toMatchObject({ laid: 1, off: 0, next: { no: 1 } })
    expect((await touch(3, 'strip', 'section', { what: 'on' })).status).toBe(200)
    expect((await touch(4, 'strip', 'section', { what: 'back' })).status).toBe(200)
    expect(await sections('strip')).toMatchObject({ laid: 1 })
    expect((await touch(5, 'strip', 'section', { what: 'on' })).status).toBe(200)
    // two tablets lay section 2 at once: one is told that its page is old
    const seen = await stepOf(people.lead, id, 'strip')
    const twice = await Promise.all(
      [people.lead, people.owner].map(who => act(who, 'section', seen, at(5), { what: 'on' })),
    )
    expect(twice.map(r => r.status).sort()).toEqual([200, 409])
    expect((await touch(5, 'strip', 'section', { what: 'back' })).status).toBe(200)
    expect((await touch(6, 'scrape', 'start')).body.code).toBe('too-early')
    expect((await touch(16, 'scrape', 'start')).status).toBe(200)
    expect((await touch(20, 'scrape', 'section', { what: 'off' })).status).toBe(200)
    expect(await sections('scrape')).toMatchObject({ off: 1, next: { no: 2 } })
    const { windows } = await people.lead.ok<{ windows: { pieceId: number; section?: number; closes_ms: number }[] }>(
      'GET /api/now',
    )
    expect(windows.find(w => w.pieceId === id)).toMatchObject({
      section: 2,
      closes_ms: Date.parse(at(5)) + 30 * 60_000,
    })
    expect((await touch(22, 'scrape', 'section', { what: 'back' })).status).toBe(200)
    expect(await sections('scrape')).toMatchObject({ off: 0, next: { no: 1 } })
    expect((await touch(22, 'scrape', 'finish')).body.code).toBe('earlier-step')
    expect((await touch(23, 'strip', 'finish')).status).toBe(200)
    expect((await touch(30, 'scrape', 'finish')).status).toBe(200)
    expect((await touch(31, 'wash-off', 'section', { what: 'on' })).body.code).toBe('no-sections')
  })
})

describe('a gate that fails', () => {
  const toGate = async () => {
    const id = await planned({ route: 'level-barrier-recoat' })
    await sayYes(people.office, id)
    await workTo(
      people,
      id,
      t('09:00'),
      named((await planOf(people.lead, id)).steps.find(s => s.kind === 'gate')!),
      'fail',
    )
    return id
  }
  it('wants a word, and is taken back until a step of what follows starts', async () => {
    const id = await toGate()
    const gate = await stepOf(people.lead, id, 'gate')
    const now = await clockNow()
    const keys = async () => (await planOf(people.lead, id)).steps.filter(s => s.state === 'planned').map(s => s.key)
    expect((await keys()).some(k => k.startsWith('f-strip'))).toBe(true)
    expect((await act(people.lead, 'undo', gate, now)).status).toBe(200)
    expect((await keys()).some(k => k.startsWith('f-'))).toBe(false)
    expect(await keys()).toContain('scuff')
    const silent = await act(people.lead, 'finish', await stepOf(people.lead, id, 'gate'), now, { gate: 'fail' })
    expect(silent.body.code).toBe('gate-word')
    const again = await act(people.lead, 'finish', await stepOf(people.lead, id, 'gate'), now, {
      gate: 'fail',
      note: 'halos round the runs',
    })
    expect(again.status).toBe(200)
    const first = (await planOf(people.lead, id)).steps.find(s => s.key.startsWith('f-') && s.start.may)!
    expect((await act(people.lead, 'start', first, now)).status).toBe(200)
    const late = await act(people.lead, 'undo', await stepOf(people.lead, id, 'gate'), now)
    expect(late.body.code).toBe('later')
  })
})

describe('what shows at the end of a step', () => {
  const kindsAfter = async (id: number, key: string) => {
    const { steps } = await planOf(people.lead, id)
    return steps.slice(steps.findIndex(s => s.key === key) + 1).map(s => s.kind)
  }
  const ended = async (id: number, key: string, more: Record<string, unknown>) =>
    act(people.lead, 'finish', await stepOf(people.lead, id, key), await clockNow(), more)

  it('a polish with scratches goes back to the stage cut short, with its picture, and is taken back', async () => {
    const base = intake({ sheen: 'gloss' })
    const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', base)
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, route: 'polish', rowVersion: 1 })
    await sayYes(people.office, id)
    await workTo(people, id, t('09:00'), 'buff')
    const gate = await stepOf(people.lead, id, 'gate')
    expect((await act(people.lead, 'start', gate, await clockNow())).status).toBe(200)
    const wrong = await ended(id, 'gate', { gate: 'fail', note: 'arcs', seen: 'orange' })
    expect(wrong.body.code).toBe('seen')
    const form = new FormData()
    const red = sharp({ create: { width: 30, height: 20, channels: 3, background: '#a53' } })
    form.append('picture', new Blob([new Uint8Array(await red.jpeg().toBuffer())]), 'arcs.jpg')
    const { address } = await people.finisher.ok<{ address: string }>(
      `POST /api/pieces/${id}/photographs?step=${gate.id}`,
      form,
    )
    expect((await ended(id, 'gate', { gate: 'fail', note: 'arcs', seen: 'all-over' })).status).toBe(200)
    expect((await kindsAfter(id, 'gate')).slice(0, 3)).toEqual(['rub-out', 'buff', 'gate'])
    const { steps } = await people.lead.ok<{ steps: (PlanStep & { pictures: string[] })[] }>(
      `GET /api/pieces/${id}/plan`,
    )
    expect(steps.find(s => s.id === gate.id)!.pictures).toEqual([address])
    expect((await act(people.lead, 'undo', await stepOf(people.lead, id, 'gate'), await clockNow())).status).toBe(200)
    expect(await kindsAfter(id, 'gate')).not.toContain('rub-out')
    // and it may fail more than once
    expect((await ended(id, 'gate', { gate: 'fail', note: 'arcs', seen: 'all-over' })).status).toBe(200)
    await workTo(people, id, await clockNow(), 'buff')
    const second = await stepOf(people.lead, id, 'gate~2')
    expect((await act(people.lead, 'start', second, await clockNow())).status).toBe(200)
    expect((await ended(id, 'gate~2', { gate: 'fail', note: 'one left', seen: 'one-or-two' })).status).toBe(200)
    expect((await planOf(people.lead, id)).steps.filter(s => s.state === 'planned').map(s => s.key)).toEqual([
      ...['gate.back~3', expect.stringMatching(/^buff.*~3$/), 'gate~3', expect.any(String)],
    ])
  })
  it('orange left by bleach gets a paint wash before the coat; a mis-tap takes it out again', async () => {
    const id = await planned({ bleach: 'two-part-bleach' })
    await sayYes(people.office, id)
    await workTo(people, id, t('09:00'), 'wet-out')
    await act(people.lead, 'undo', await stepOf(people.lead, id, 'wet-out'), await clockNow())
    expect((await ended(id, 'wet-out', { seen: 'orange' })).status).toBe(200)
    expect((await kindsAfter(id, 'wet-out')).slice(0, 3)).toEqual(['clean-off', 'paint-wash', 'coat'])
    expect((await act(people.lead, 'undo', await stepOf(people.lead, id, 'wet-out'), await clockNow())).status).toBe(
      200,
    )
    expect(await kindsAfter(id, 'wet-out')).not.toContain('paint-wash')
  })
})

describe('what was found is measured and said', () => {
  it('a film gauged on a face counts for the polish; a silly one is refused', async () => {
    const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake({ sheen: 'gloss' }))
    const faceId = await faceOf(id)
    const gauged = (filmUm: number | null, rowVersion = 1) =>
      people.lead.send(`PATCH /api/faces/${faceId}`, { rowVersion, filmUm })
    for (const silly of [0, -5, 99_999, 1.5]) expect((await gauged(silly)).status, String(silly)).toBe(422)
    expect((await gauged(60)).status).toBe(200)
    const { faces } = await people.lead.ok<{ faces: { film_um: number | null }[] }>(`GET /api/pieces/${id}/examination`)
    expect(faces[0]!.film_um).toBe(60)
    expect((await gauged(null, 2)).status).toBe(200)
  })
  it('outdoors and rustic are kept, and changed later', async () => {
    const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake({ use: 'outdoors', rustic: true }))
    type Shown = { piece: { use_kind: string; rustic: 0 | 1; row_version: number } }
    const { piece } = await people.lead.ok<Shown>(`GET /api/pieces/${id}`)
    expect(piece).toMatchObject({ use_kind: 'outdoors', rustic: 1 })
    await people.office.ok(`PATCH /api/pieces/${id}`, { rowVersion: piece.row_version, rustic: false })
    expect((await people.lead.ok<Shown>(`GET /api/pieces/${id}`)).piece).toMatchObject({
      use_kind: 'outdoors',
      rustic: 0,
    })
  })
})

describe('paint over wood', () => {
  it('wants a yes in writing: not by phone, but signed at the counter', async () => {
    const id = await planned({ route: 'scuff' })
    const paint = freshLayer(1, { act: 'coat', product: 'opaque-colour', coats: 3 })
    expect((await composed(people.lead, id, null, () => [paint])).status).toBe(200)
    const asked = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, {
      words: 'Paint',
      days: 9,
    })
    const sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
    const [[shown]] = await sql.query<mysql.RowDataPacket[]>(
      'SELECT s.content FROM approval a JOIN plan_snapshot s ON s.id = a.snapshot_id WHERE a.id = ?',
      [asked.id],
    )
    await sql.end()
    expect(JSON.stringify(shown)).toContain('your yes or no in writing')
    const said = (via: string) =>
      people.office.send(`POST /api/approvals/${asked.id}/answer`, { ...replied(), via, name: 'Test client', says: '' })
    expect((await said('phone')).body.code).toBe('in-writing')
    expect((await said('counter')).status).toBe(200)
  })
})

describe('what is measured at the end of a step', () => {
  it('is kept with it, becomes a reading, and offers the gun as it was set', async () => {
    const id = await planned({ finish: 'nitrocellulose-lacquer' })
    await sayYes(people.office, id)
    await workTo(people, id, t('09:00'), 'sand')
    const clean = await stepOf(people.lead, id, 'clean-off')
    expect((await act(people.lead, 'start', clean, await clockNow())).status).toBe(200)
    const finish = async (key: string, measured: object) =>
      act(people.lead, 'finish', await stepOf(people.lead, id, key), await clockNow(), { measured })
    expect((await finish('clean-off', { moisture_pct: 900 })).status).toBe(422)
    expect((await finish('clean-off', { length: 3 })).status).toBe(422)
    expect((await finish('clean-off', { moisture_pct: 9.5 })).status).toBe(200)
    type Kept = { key: string; measuredSaid: string; measures: { gunBefore: string | null } }
    const kept = async (key: string) =>
      (await people.lead.ok<{ steps: Kept[] }>(`GET /api/pieces/${id}/plan`)).steps.find(s => s.key === key)!
    expect((await kept('clean-off')).measuredSaid).toBe('Measured: moisture 9.5 %')
    const exam = await people.lead.ok<{ moisture: { reading_pct: number }[] }>(`GET /api/pieces/${id}/examination`)
    expect(exam.moisture.map(m => m.reading_pct)).toContain(9.5)
    const [first, second] = (await planOf(people.lead, id)).steps.filter(s => s.kind === 'coat')
    expect((await act(people.lead, 'start', first!, await clockNow())).status).toBe(200)
    expect((await finish(first!.key, { film_um: 25, gun: '1.3 mm, 1.8 bar, thinned 20 %' })).status).toBe(200)
    expect((await kept(second!.key)).measures.gunBefore).toBe('1.3 mm, 1.8 bar, thinned 20 %')
    const undo = async () => act(people.lead, 'undo', await stepOf(people.lead, id, first!.key), await clockNow())
    expect((await undo()).status).toBe(200)
    expect((await kept(first!.key)).measuredSaid).toBe('')
    // nothing wet stays in the room for whoever sands there next
    expect((await undo()).status).toBe(200)
  })
})
