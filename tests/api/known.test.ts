import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { KNOWN_SURFACES, type KnownSurface, laidAsKnown } from '#core/build'
import { layerOfStep } from '#core/plan'
import {
  act,
  type Caller,
  choice,
  type Composed,
  composed,
  intake,
  planOf,
  type PlanView,
  setClock,
  shopPeople,
  stepOf,
  sayYes,
} from './http'

let people: Record<'owner' | 'lead' | 'finisher' | 'office', Caller>
let sql: mysql.Connection
const made: number[] = []
beforeAll(async () => {
  people = await shopPeople()
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(async () => {
  await sql.query("UPDATE piece SET state = 'handed-over' WHERE id IN (?)", [made])
  await sql.end()
})

const BAND = { rank: 'secondary', shape: 'flat', orientation: 'vertical', width: '40' }
/** A table with a band, its surface composed as it is known by name. */
async function laid(surface: KnownSurface): Promise<number> {
  const face = { ...intake().parts[0]!.faces[0]!, species: surface.woods[0] ?? 'oak' }
  const parts = [{ name: 'table', scope: 'refinish', faces: [face, { ...face, name: 'band', ...BAND }] }]
  const wish = { sheen: surface.sheen, tone: surface.tone, parts }
  const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake(wish))
  made.push(id)
  const scuffs = surface.layers[0]!.act === 'gel'
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
    ...choice,
    ...(scuffs ? { route: 'scuff', finish: 'oil-polyurethane', colour: 'gel-stain' } : {}),
    rowVersion: 1,
  })
  const { faces } = await people.lead.ok<{ faces: { id: number; part: string; name: string }[] }>(
    `GET /api/pieces/${id}`,
  )
  const empty = { id: 1, ground: 'strip-chemical', ending: 'as-laid', layers: [], faces: null } as const
  const { buildUp } = laidAsKnown(surface, empty, faces, 9_000_000)
  const sent = buildUp.layers.map(({ label: _label, ...l }) => ({ ...l, productId: null }) as never)
  const reply = await composed(people.lead, id, null, () => sent, { ending: surface.ending })
  expect(reply.status, reply.body.message).toBe(200)
  return id
}

describe('surfaces known by name', () => {
  test.each(KNOWN_SURFACES.map(k => [k.name, k] as const))('%s: composed, planned, priced', async (_name, surface) => {
    const id = await laid(surface)
    const { choice: taken } = await people.lead.ok<Composed>(`GET /api/pieces/${id}/build-up`)
    const { steps, verdicts } = await planOf(people.owner, id)
    for (const layer of taken.buildUps[0]!.layers) {
      const own = steps.filter(s => layerOfStep(s.key)?.layer === layer.id && s.kind === layer.act)
      expect(own.length, layer.act).toBeGreaterThanOrEqual(layer.coats ?? 1)
      for (const s of own) expect(s, s.title).toMatchObject({ amount_ml: expect.any(Number) as number })
    }
    const grave = (verdicts as unknown as { rule: string; severity: string }[]).filter(v =>
      ['stop', 'forbidden'].includes(v.severity),
    )
    const licence = surface.layers.some(l => l.product === 'urethane-2c') ? ['isocyanates-need-licence'] : []
    expect([...new Set(grave.map(v => v.rule))]).toEqual(licence)
  })

  it('are kept under a name, taken again, put in place of the old one, forgotten', async () => {
    const name = `Band ${crypto.randomUUID().slice(0, 8)}`
    const layer = { ...KNOWN_SURFACES[1]!.layers[2]!, on: ['table, band'] }
    const body = { name, ending: 'as-laid', sheen: 'gloss', tone: 'darker', woods: ['pine'], layers: [layer] }
    const own = async () =>
      (await people.finisher.ok<{ own: { id: number; name: string; sheen: string }[] }>('GET /api/surfaces')).own
    expect((await people.finisher.send('POST /api/surfaces', body)).status).toBe(403)
    await people.lead.ok('POST /api/surfaces', body)
    await people.lead.ok('POST /api/surfaces', { ...body, sheen: 'matt' })
    const [mine, ...more] = (await own()).filter(s => s.name === name)
    expect([mine!.sheen, more.length]).toEqual(['matt', 0])
    for (const silly of [
      { ...body, layers: [] },
      { ...body, name: ' ' },
      { ...body, layers: [{ ...layer, product: 'paste-wax' }] },
      { ...body, layers: Array(25).fill(layer) as object[] },
    ])
      expect((await people.lead.send('POST /api/surfaces', silly)).status).toBe(422)
    // a damaged row leaves the others readable
    await sql.query("UPDATE known_surface SET layers = '[{}]' WHERE id = ?", [mine!.id])
    expect((await own()).some(s => s.name === name)).toBe(false)
    await people.lead.ok(`DELETE /api/surfaces/${mine!.id}`)
    expect((await people.lead.send(`DELETE /api/surfaces/${mine!.id}`)).status).toBe(404)
  })
})

/** Works a plan to its end, each step at its earliest safe moment, the air kept fresh. */
async function workThrough(id: number): Promise<number> {
  let clock = 0
  for (;;) {
    const plan = await people.owner.ok<PlanView & { dates: { safe: { key: string; start_ms: number }[] } }>(
      `GET /api/pieces/${id}/plan`,
    )
    const next = plan.steps.find(s => s.state === 'planned')
    if (!next) return clock
    clock = Math.max(clock, plan.dates.safe.find(f => f.key === next.key)!.start_ms)
    await setClock(people.owner, new Date(clock - 60_000).toISOString())
    await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
    await setClock(people.owner, new Date(clock).toISOString())
    const started = await act(people.finisher, 'start', next, new Date(clock).toISOString())
    expect(started.status, `${next.title}: ${started.body.message}`).toBe(200)
    clock += Math.max(1, next.attended_min) * 60_000
    await setClock(people.owner, new Date(clock).toISOString())
    const running = await stepOf(people.owner, id, next.key)
    const done = await act(people.finisher, 'finish', running, new Date(clock).toISOString(), {
      gate: next.kind === 'gate' ? 'pass' : null,
    })
    expect(done.status, `${next.title}: ${done.body.message}`).toBe(200)
  }
}

describe('worked by its plan', () => {
  test.each(['Bleached and paint-washed, matt', 'Varnish oil, five coats'])(
    '%s: to ready',
    async name => {
      const id = await laid(KNOWN_SURFACES.find(k => k.name === name)!)
      await sayYes(people.office, id)
      const { now_ms } = await people.owner.ok<{ now_ms: number }>('GET /api/now')
      const end = await workThrough(id)
      const days = (end - now_ms) / 86_400_000
      // overnight waits between coats, and the bleach two days to dry (common practice)
      expect(days).toBeGreaterThan(4)
      expect(days).toBeLessThan(60)
      await setClock(people.owner, new Date(now_ms).toISOString())
    },
    60_000,
  )
})

describe('another wish', () => {
  it('asks the client again where the look changes, and not where it does not', async () => {
    const id = await laid(KNOWN_SURFACES.at(-1)!)
    const done = "UPDATE plan_step SET state = 'done', started_at = NOW(3), finished_at = NOW(3)"
    await sql.query(`${done} WHERE piece_id = ? AND kind = 'approval'`, [id])
    await sql.query('UPDATE piece SET agreed_minor = 5, accepted_worst_minor = 9 WHERE id = ?', [id])
    const change = async (what: object) => {
      const { piece } = await people.office.ok<{ piece: { row_version: number } }>(`GET /api/pieces/${id}`)
      await people.office.ok(`PATCH /api/pieces/${id}`, { ...what, rowVersion: piece.row_version })
      return (await planOf(people.owner, id)).steps.filter(s => s.kind === 'approval').map(s => s.state)
    }
    expect(await change({ note: 'Fragile foot' })).toEqual(['done'])
    expect(await change({ sheen: 'satin' })).toEqual(['done'])
    expect(await change({ sheen: 'gloss' })).toEqual(['done', 'planned'])
    const [[money]] = await sql.query<mysql.RowDataPacket[]>('SELECT agreed_minor FROM piece WHERE id = ?', [id])
    expect(money!.agreed_minor).toBeNull()
  })
})
