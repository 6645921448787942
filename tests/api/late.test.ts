/** What was done without a line and comes in late: entered, told, held where somebody else was there meanwhile. */
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Context } from '#core/context'
import { type Foretelling, foretold, type ToldAct, type ToldStep } from '#core/timetable'
import type { Role } from '#shared/rights'
import { act, Caller, choice, intake, PASSWORD, planOf, sayYes, setClock, shopPeople, signedIn, stepOf } from './http'

const DAY = '2026-12-03'
const t = (clock: string) => `${DAY}T${clock}:00+01:00`
const people = {} as Record<Role, Caller>
const ids = {} as Record<Role, number>
let sql: mysql.Connection
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  for (const role of ['owner', 'lead', 'finisher', 'office'] as const)
    ids[role] = (await people[role].ok<{ person: { id: number } }>('GET /api/session')).person.id
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())

/** A piece whose client said yes at eight; it is noon by now. */
async function agreed() {
  await setClock(people.owner, t('08:00'))
  const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake())
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  await setClock(people.owner, t('12:00'))
  return id
}
interface Step {
  id: number
  rowVersion: number
}
interface How {
  who?: Role
  uuid?: string
  follows?: string | null
  byName?: boolean
  more?: Record<string, unknown>
}
/** An act as a device sends it that had no line. */
const late = (by: Caller, kind: string, pieceId: number, step: Step, clock: string, how: How = {}) => {
  const { who = 'finisher', uuid = crypto.randomUUID(), follows = null, byName = false, more = {} } = how
  const says = `${kind} of a step`
  const body = { kind, stepId: step.id, rowVersion: step.rowVersion, happenedAt: t(clock), ...more }
  return by.send<{ says: string; held?: boolean }>(
    'POST /api/bench',
    { ...body, late: { personId: ids[who], byName, follows, pieceId, says } },
    { 'idempotency-key': uuid },
  )
}
const log = async (id: number) =>
  (await people.owner.ok<{ kind: string; says: string; by_name: string }[]>(`GET /api/pieces/${id}/log`)) as {
    kind: string
    says: string
    by_name: string
  }[]
interface Line {
  id: number
  pieceId: number
  says: string
  why: string | null
  held: number
  byName: number
  broke: number
}
const lateOf = async (id: number) =>
  (await people.owner.ok<{ late: Line[] }>('GET /api/now')).late.filter(l => l.pieceId === id)
interface Told extends Step {
  state: string
  started_ms: number
  finished_ms: number
  spells: { by: string; from_ms: number; to_ms: number | null }[]
}
const told = async (id: number, key: string) => (await stepOf(people.owner, id, key)) as unknown as Told

describe('an act that comes late', () => {
  it('goes in with its own moment, each after the one that it follows, once', async () => {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    const [start, end] = [crypto.randomUUID(), crypto.randomUUID()]
    expect((await late(people.finisher, 'start', id, wash, '09:00', { uuid: start })).status).toBe(200)
    const done = () => late(people.finisher, 'finish', id, wash, '09:40', { uuid: end, follows: start })
    expect([(await done()).status, (await done()).status]).toEqual([200, 200])
    const is = await told(id, 'wash')
    expect(is.state).toBe('done')
    expect((is.finished_ms - is.started_ms) / 60_000).toBe(40)
    expect((await log(id)).filter(e => e.kind === 'finished')).toHaveLength(1)
    expect(await lateOf(id)).toEqual([])
  })
  it('is the same act as the one whose answer was lost', async () => {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    const uuid = crypto.randomUUID()
    const body = { kind: 'start', stepId: wash.id, rowVersion: wash.rowVersion, happenedAt: t('11:00') }
    await people.finisher.send('POST /api/bench', body, { 'idempotency-key': uuid })
    expect((await late(people.finisher, 'start', id, wash, '11:00', { uuid })).status).toBe(200)
    expect((await log(id)).filter(e => e.kind === 'started')).toHaveLength(1)
  })
  it('is entered though a rule spoke against it; the owner is told once', async () => {
    const id = await agreed()
    const last = (await planOf(people.owner, id)).steps.findLast(s => s.kind !== 'approval')!
    expect((await act(people.lead, 'start', last, t('11:50'))).status).toBe(409)
    expect((await late(people.lead, 'start', id, last, '11:50', { who: 'lead' })).status).toBe(200)
    expect((await told(id, last.key)).state).toBe('running')
    const [line] = await lateOf(id)
    expect(line).toMatchObject({ held: 0, broke: 1 })
    expect(line!.why).toContain('comes before')
    expect((await log(id)).find(e => e.kind === 'started')!.says).toContain('Against it:')
    expect((await people.lead.send(`POST /api/late/${line!.id}/seen`)).status).toBe(403)
    expect((await people.owner.send(`POST /api/late/${line!.id}/seen`)).status).toBe(200)
    expect(await lateOf(id)).toEqual([])
  })
  it.each([
    ['ahead of the server by an hour is entered as now', 60, 200],
    ['back by an hour keeps its moment', -60, 200],
    ['four days ago is refused', -4 * 1440, 422],
  ])('with a clock %s', async (_, minutes, status) => {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    const at = new Date(Date.parse(t('12:00')) + minutes * 60_000).toISOString()
    const reply = await late(people.finisher, 'start', id, wash, '12:00', { more: { happenedAt: at } })
    expect(reply.status).toBe(status)
    if (status === 200)
      expect((await told(id, 'wash')).started_ms - Date.parse(t('12:00'))).toBeCloseTo(
        Math.min(0, minutes) * 60_000,
        -4,
      )
  })
  it('goes in where the plan was changed meanwhile, and is told in the log where its step is gone', async () => {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    await sql.query('UPDATE plan_step SET row_version = row_version + 3 WHERE id = ?', [wash.id])
    await sql.query('UPDATE piece SET changed_no = changed_no + 1 WHERE id = ?', [id])
    expect((await late(people.finisher, 'start', id, wash, '11:00')).body.held).toBeUndefined()
    const gone = { id: 4_000_000_000, rowVersion: 1 }
    const reply = await late(people.finisher, 'finish', id, gone, '11:30')
    expect(reply.body.says).toContain('no longer in the plan')
    expect((await log(id)).find(e => e.kind === 'late')!.says).toContain('finish of a step')
  })
  it('belongs to whoever is signed in, on a device that is no tablet of the shop', async () => {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    expect((await late(people.lead, 'start', id, wash, '11:00', { who: 'finisher' })).status).toBe(401)
    expect((await late(new Caller(), 'start', id, wash, '11:00')).status).toBe(401)
    expect((await late(people.office, 'start', id, wash, '11:00', { who: 'office' })).status).toBe(403)
  })
})

describe('what a device shows before it went in', () => {
  type Plan = Foretelling<ToldStep> & { airNow: Foretelling<ToldStep>['air'] }
  it('is what the server makes of it: states, times, what may start, and why not', async () => {
    const id = await agreed()
    // Read by hand: the logger's next reading must not come between what is shown and what is compared.
    await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
    const plan = (await planOf(people.owner, id)) as unknown as Plan
    const { context } = await people.owner.ok<{ context: Context }>(`GET /api/pieces/${id}/planning`)
    const [wash, next] = plan.steps.filter(s => s.kind !== 'approval')
    const start = crypto.randomUUID()
    const done = [
      { kind: 'start', step: wash!, clock: '09:00', how: { uuid: start } },
      { kind: 'finish', step: wash!, clock: '09:40', how: { follows: start } },
      { kind: 'start', step: next!, clock: '11:55', how: {} },
    ]
    const person = { id: ids.finisher, name: 'finisher' }
    const acts = new Map<number, ToldAct[]>()
    for (const { kind, step, clock } of done)
      acts.set(step.id, [...(acts.get(step.id) ?? []), { kind, at_ms: Date.parse(t(clock)), person }])
    const noon = Date.parse(t('12:00'))
    const clock = (ms: number) => new Date(ms + 3_600_000).toISOString().slice(11, 16)
    const asked = { ...plan, air: plan.airNow, told_ms: noon, now_ms: noon, shelf: context.shelf, clock }
    const before = foretold(asked, acts)
    for (const { kind, step, clock: at, how } of done)
      expect((await late(people.finisher, kind, id, step as never, at, how)).body.held).toBeUndefined()
    const { steps } = (await planOf(people.owner, id)) as unknown as Plan
    const shown = (all: readonly ToldStep[]) =>
      all.map(s => ({
        ...{ key: s.key, state: s.state, started: s.started_ms, finished: s.finished_ms, may: s.start.may },
        refusals: s.start.refusals.map(r => [r.code, r.says]),
        spells: s.spells.map(x => [x.by, x.from_ms, x.to_ms]),
      }))
    expect(shown(before)).toEqual(shown(steps))
    expect(steps.map(s => s.state).filter(s => s === 'running')).toHaveLength(1)
  })
})

describe('two people on one step', () => {
  /** The lead worked on it with a line from 9:30, the finisher without one from 9:00 to 9:45. */
  async function clash() {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    expect((await act(people.lead, 'start', wash, t('09:30'))).status).toBe(200)
    const start = crypto.randomUUID()
    const first = await late(people.finisher, 'start', id, wash, '09:00', { uuid: start })
    const second = await late(people.finisher, 'finish', id, wash, '09:45', { follows: start })
    expect([first.body.held, second.body.held]).toEqual([true, true])
    const lines = await lateOf(id)
    expect(lines).toHaveLength(2)
    expect(lines[0]!.why).toMatch(/^lead: started .*09:30/)
    return { id, held: lines[0]!.id }
  }
  const spells = async (id: number) =>
    (await told(id, 'wash')).spells.map(s => [
      s.by,
      (s.from_ms - Date.parse(t('00:00'))) / 60_000,
      s.to_ms === null ? null : (s.to_ms - Date.parse(t('00:00'))) / 60_000,
    ])
  it('both worked: the step is as long as both, and stays with whoever has it in hand', async () => {
    const { id, held } = await clash()
    expect((await people.finisher.send(`POST /api/late/${held}/settle`, { way: 'both' })).status).toBe(200)
    expect(await spells(id)).toEqual([
      ['finisher', 540, 585],
      ['lead', 570, null],
    ])
    expect(await told(id, 'wash')).toMatchObject({ state: 'running', started_ms: Date.parse(t('09:00')) })
    expect(await lateOf(id)).toEqual([])
    expect((await people.finisher.send(`POST /api/late/${held}/settle`, { way: 'both' })).body.code).toBe('settled')
  })
  it('at other times, which must be possible', async () => {
    const { id, held } = await clash()
    const settle = (from: string, to: string) =>
      people.finisher.send(`POST /api/late/${held}/settle`, { way: 'times', from: t(from), to: t(to) })
    expect((await settle('09:20', '09:10')).body.fields).toHaveProperty('to')
    expect((await settle('09:20', '15:00')).body.fields).toHaveProperty('to')
    const longAgo = { way: 'times', from: '2020-01-01T08:00:00Z', to: t('09:30') }
    expect((await people.finisher.send(`POST /api/late/${held}/settle`, longAgo)).body.fields).toHaveProperty('from')
    expect((await settle('09:20', '09:30')).status).toBe(200)
    expect((await spells(id))[0]).toEqual(['finisher', 560, 570])
  })
  it('or it is taken back; all three are told in the log', async () => {
    const { id, held } = await clash()
    expect((await people.lead.send(`POST /api/late/${held}/settle`, { way: 'back' })).status).toBe(200)
    expect(await spells(id)).toEqual([['lead', 570, null]])
    const entries = (await log(id)).filter(e => e.kind === 'late').map(e => e.says)
    expect(entries.filter(says => says.startsWith('Held, without a line'))).toHaveLength(2)
    expect(entries.some(says => says.startsWith('Taken back: start of a step. finish of a step'))).toBe(true)
  })
  it('on what the other has ended already, the step ends with the later of both', async () => {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    await act(people.lead, 'start', wash, t('09:30'))
    await act(people.lead, 'finish', await stepOf(people.owner, id, 'wash'), t('10:00'))
    const start = crypto.randomUUID()
    await late(people.finisher, 'start', id, wash, '09:40', { uuid: start })
    await late(people.finisher, 'finish', id, wash, '10:10', { follows: start })
    const [line] = await lateOf(id)
    expect((await people.finisher.send(`POST /api/late/${line!.id}/settle`, { way: 'both' })).status).toBe(200)
    expect(await told(id, 'wash')).toMatchObject({ state: 'done', finished_ms: Date.parse(t('10:10')) })
    expect(await spells(id)).toEqual([
      ['lead', 570, 600],
      ['finisher', 580, 610],
    ])
  })
  it('a note is no clash, and one person on two devices is none', async () => {
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    await act(people.lead, 'start', wash, t('09:30'))
    const more = { says: 'A knot on the left.' }
    expect((await late(people.finisher, 'note', id, wash, '10:00', { more })).body.held).toBeUndefined()
    const again = await late(people.lead, 'finish', id, wash, '10:30', { who: 'lead' })
    expect(again.body.held).toBeUndefined()
    expect((await told(id, 'wash')).state).toBe('done')
  })
})

describe('by a name alone', () => {
  async function tablet() {
    const device = await signedIn('owner')
    await device.ok('POST /api/tablets', { name: `late ${crypto.randomUUID().slice(0, 6)}`, place: null })
    await device.ok('DELETE /api/session')
    return device
  }
  it('a tablet of the shop enters it, and its person says whether it was them', async () => {
    const device = await tablet()
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    expect((await late(device, 'start', id, wash, '10:00', { byName: true })).status).toBe(200)
    const [line] = await lateOf(id)
    expect(line).toMatchObject({ byName: 1, held: 0 })
    const name = (caller: Caller, mine: boolean) => caller.send('POST /api/late/names', { ids: [line!.id], mine })
    expect((await name(people.lead, true)).body.code).toBe('settled')
    expect((await name(people.finisher, false)).status).toBe(200)
    expect(await lateOf(id)).toMatchObject([{ byName: 0, broke: 1, why: 'finisher says: not me' }])
    expect((await log(id)).filter(e => e.kind === 'late').map(e => e.says)).toEqual(
      expect.arrayContaining([expect.stringContaining('By name only, and not finisher')]),
    )
  })
  it('whoever stands there by then is not who did it; a UUID is one act whoever sends it', async () => {
    const device = await tablet()
    await device.ok('POST /api/session', { login: 'lead', password: PASSWORD })
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    const uuid = crypto.randomUUID()
    expect((await late(device, 'start', id, wash, '10:00', { uuid })).status).toBe(200)
    await device.ok('DELETE /api/session')
    expect((await late(device, 'start', id, wash, '10:00', { uuid })).status).toBe(200)
    expect((await told(id, 'wash')).spells.map(s => s.by)).toEqual(['finisher'])
    expect(await lateOf(id)).toMatchObject([{ byName: 1 }])
  })
  it('a session that was left without a line is over, and still vouches for what was done in it', async () => {
    const device = await tablet()
    await device.ok('POST /api/session', { login: 'finisher', password: PASSWORD })
    const left = { cookie: `${device.cookie}; hantverk-left=1` }
    expect((await device.send<{ person: null }>('GET /api/session', undefined, left)).body.person).toBeNull()
    const id = await agreed()
    const wash = await stepOf(people.owner, id, 'wash')
    const body = { kind: 'start', stepId: wash.id, rowVersion: wash.rowVersion, happenedAt: t('10:00') }
    const sent = { ...body, late: { personId: ids.finisher, byName: false, follows: null, pieceId: id, says: 'x' } }
    expect((await device.send('POST /api/bench', sent, left)).status).toBe(200)
    expect(await lateOf(id)).toEqual([])
  })
})
