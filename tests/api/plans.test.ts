import { P } from '../../core/abrasives'
import { beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import type { planOf, Caller, Composed } from './http'
import {
  act,
  composed,
  freshLayer,
  intake,
  named,
  setClock,
  setHouse,
  shopPeople,
  stepOf,
  sayYes,
  workTo,
} from './http'

const t = (clock: string, day = '2026-12-14') => `${day}T${clock}:00+01:00`
const people = {} as Record<Role, Caller>
beforeAll(async () => {
  Object.assign(people, await shopPeople())
})
beforeEach(() => setClock(people.owner, t('08:00')))

const face = {
  name: 'outside',
  rank: 'show',
  shape: 'flat',
  orientation: 'horizontal',
  length: '900',
  width: '450',
  count: 1,
  species: 'oak',
  substrate: 'solid',
  veneer: '',
}
const shellac = { route: 'strip-chemical', finish: 'dewaxed-shellac', colour: 'none', conditioner: 'auto' }
interface Plan {
  undo: string | null
  redo: string | null
  steps: (Awaited<ReturnType<typeof planOf>>['steps'][number] & {
    faces: number[]
    grits: { scale: string; grade: string }[]
    notes: string[]
  })[]
  loops: { step: string; worst: number }[]
  verdicts: { rule: string; step: string }[]
}
const plan = (id: number) => people.owner.ok<Plan>(`GET /api/pieces/${id}/plan`)
const keys = async (id: number) => (await plan(id)).steps.filter(s => s.state !== 'skipped').map(named)
interface Routes {
  rowVersion: number
  main: string | null
  own: { route: string; faces: number[] }[]
  finishDefault: string
  faces: { id: number; part: string }[]
  verdicts: {
    route: string
    chance: number
    record: { tries: number } | null
    likely: { total_minor: number }
    expected: { total_minor: number }
    worst: { total_minor: number }
  }[]
}
const routes = (id: number, query = '') =>
  people.lead.ok<Routes>(`GET /api/pieces/${id}/routes?finish=dewaxed-shellac${query}`)

/** A table of two parts; its top and legs are faces of their own. */
async function table() {
  const { id } = await people.office.ok<{ id: number }>(
    'POST /api/pieces',
    intake({
      parts: [
        { name: 'top', scope: 'refinish', faces: [face] },
        {
          name: 'legs',
          scope: 'refinish',
          faces: [
            {
              ...face,
              shape: 'turned',
              orientation: 'vertical',
              length: '700',
              width: '60',
              count: 4,
              rank: 'secondary',
            },
          ],
        },
      ],
    }),
  )
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...shellac, rowVersion: 1 })
  const { faces, rowVersion } = await routes(id)
  return { id, top: faces[0]!.id, legs: faces[1]!.id, rowVersion }
}
describe('faces that go their own way', () => {
  it('legs are scuffed while the top is stripped; price, plan and question follow; all go one way again', async () => {
    const { id, legs, top, rowVersion } = await table()
    const whole = (await routes(id)).verdicts.find(v => v.route === 'strip-chemical')!.likely.total_minor
    const alone = (await routes(id, `&faces=${legs}`)).verdicts.find(v => v.route === 'scuff')!
    expect(alone.likely.total_minor).toBeLessThan(whole)
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
      ...shellac,
      route: 'scuff',
      faces: [legs],
      rowVersion,
    })
    const mixed = await routes(id)
    expect(mixed).toMatchObject({ main: 'strip-chemical', own: [{ route: 'scuff', faces: [legs] }] })
    expect(mixed.verdicts.find(v => v.route === 'strip-chemical')!.likely.total_minor).toBeLessThan(whole)
    const { steps } = await plan(id)
    expect(steps.find(s => s.kind === 'scuff')!.faces).toEqual([legs])
    expect(steps.find(s => s.kind === 'strip')!.faces).toEqual([top])
    await people.lead.ok(`DELETE /api/pieces/${id}/ways?rowVersion=${mixed.rowVersion}`)
    expect((await plan(id)).steps.some(s => s.kind === 'scuff')).toBe(false)
  })
  it('refuses all faces, foreign faces, and own ways before the piece has a route', async () => {
    const { id, top, legs, rowVersion } = await table()
    const send = (faces: number[]) =>
      people.lead.send(`PUT /api/pieces/${id}/choice`, { ...shellac, faces, rowVersion })
    expect((await send([top, legs])).body.message).toMatch(/all the faces/)
    expect((await send([999_999])).body.fields).toHaveProperty('faces')
    const fresh = (await people.office.ok<{ id: number }>('POST /api/pieces', intake())).id
    expect(
      (await people.lead.send(`PUT /api/pieces/${fresh}/choice`, { ...shellac, faces: [1], rowVersion: 1 })).body.code,
    ).toBe('no-route')
  })
  it(
    "a failed gate sends its own faces to the fallback, and the others go on; the shop's record learns " + 'from it',
    async () => {
      const { id, legs, top, rowVersion } = await table()
      await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
        ...shellac,
        route: 'scuff',
        faces: [legs],
        rowVersion,
      })
      await sayYes(people.office, id)
      const before = (await routes(id, `&faces=${legs}`)).verdicts.find(v => v.route === 'scuff')!
      await workTo(people, id, t('09:00'), 'gate', 'fail')
      const { steps } = await plan(id)
      const left = steps.filter(s => s.state === 'planned')
      expect(left.find(s => named(s) === 'f-strip')!.faces).toEqual([legs])
      expect(left.filter(s => s.kind === 'strip')).toHaveLength(1)
      expect(left.find(s => named(s) === 'coat-2')!.faces).toEqual([top])
      expect(left.filter(s => s.kind === 'finish-up').map(s => [...s.faces].sort())).toEqual([[top, legs].sort()])
      const after = (await routes(id, `&faces=${legs}`)).verdicts.find(v => v.route === 'scuff')!
      expect(after.record!.tries).toBeGreaterThan(before.record?.tries ?? 0)
      expect(after.chance).toBeGreaterThan(before.chance)
      expect(after.expected.total_minor - after.likely.total_minor).toBeGreaterThan(
        before.expected.total_minor - before.likely.total_minor,
      )
      // the surface of the faces that fell back is composed; the others keep their steps
      const { choice } = await people.lead.ok<Pick<Composed, 'choice'>>(`GET /api/pieces/${id}/build-up`)
      const own = choice.buildUps.find(b => b.faces?.includes(legs))!
      const waxed = await composed(people.lead, id, own.id, layers => [
        ...layers,
        freshLayer(9_000_000, { act: 'wax', product: 'paste-wax', coats: 1 }),
      ])
      expect(waxed.status, waxed.body.message).toBe(200)
      expect(waxed.body.lost).toEqual([])
      const planned = (await plan(id)).steps.filter(s => s.state === 'planned')
      expect(planned.filter(s => s.kind === 'wax').map(s => s.faces)).toEqual([[legs]])
      for (const was of left.filter(s => s.kind !== 'approval'))
        expect(planned.find(s => s.key === was.key)?.faces, was.key).toEqual(was.faces)
    },
    90_000,
  )
})

describe('changing a plan', () => {
  it('moves, changes, splits; takes back and makes again, in words', async () => {
    const { id, legs, top } = await table()
    const first = await keys(id)
    const [sand, clean] = [await stepOf(people.owner, id, 'sand'), await stepOf(people.owner, id, 'clean-off')]
    await people.lead.ok(`PATCH /api/steps/${sand.id}`, { rowVersion: sand.rowVersion, grits: [P(180)] })
    expect(await stepOf(people.owner, id, 'sand')).toMatchObject({ title: 'Sand P180' })
    expect((await stepOf(people.owner, id, 'sand')).attended_min).toBeLessThan(sand.attended_min)
    await people.lead.ok(`PATCH /api/steps/${clean.id}`, {
      rowVersion: clean.rowVersion,
      after: (await stepOf(people.owner, id, 'wash-off')).id,
    })
    const coat = await stepOf(people.owner, id, 'coat-1')
    await people.lead.ok(`POST /api/steps/${coat.id}/split`, { rowVersion: coat.rowVersion, faces: [legs] })
    const split = (await plan(id)).steps.filter(s => named(s) === 'coat-1')
    expect(split.map(s => s.faces)).toEqual([[top], [legs]])
    expect(split[0]!.amount_ml! + split[1]!.amount_ml!).toBeCloseTo(coat.amount_ml!, 0)
    expect(await plan(id)).toMatchObject({ undo: expect.stringMatching(/^Step split/), redo: null })
    const back = (which: 'undo' | 'redo') => people.lead.send(`POST /api/pieces/${id}/plan-back`, { which })
    for (let i = 0; i < 3; i++) expect((await back('undo')).status).toBe(200)
    expect(await keys(id)).toEqual(first)
    expect(await stepOf(people.owner, id, 'sand')).toMatchObject({ title: sand.title, attended_min: sand.attended_min })
    expect((await back('undo')).body.message).toMatch(/nothing to take back/)
    for (let i = 0; i < 3; i++) expect((await back('redo')).status).toBe(200)
    expect((await plan(id)).steps.filter(s => named(s) === 'coat-1').map(s => s.faces)).toEqual([[top], [legs]])
    expect((await back('redo')).body.code).toBe('nothing')
    await back('undo')
    const wash = await stepOf(people.owner, id, 'wash')
    await people.lead.ok(`DELETE /api/steps/${wash.id}?rowVersion=${wash.rowVersion}`)
    expect(await plan(id)).toMatchObject({ undo: expect.stringMatching(/^Step removed/), redo: null })
    await back('undo')
    expect(await keys(id)).toEqual(expect.arrayContaining(['wash']))
  })
  it('never takes a started step back, and refuses a split into all or none', async () => {
    const { id, top, legs } = await table()
    const apart = await stepOf(people.owner, id, 'take-apart')
    await people.lead.ok(`PATCH /api/steps/${apart.id}`, { rowVersion: apart.rowVersion, attendedMin: 40 })
    for (const faces of [[top, legs], [999]])
      expect(
        (await people.lead.send(`POST /api/steps/${apart.id}/split`, { rowVersion: apart.rowVersion + 1, faces }))
          .status,
      ).toBe(422)
    await sayYes(people.office, id)
    await setClock(people.owner, t('08:30'))
    expect((await act(people.lead, 'start', await stepOf(people.owner, id, 'take-apart'), t('08:30'))).status).toBe(200)
    expect((await people.lead.send(`POST /api/pieces/${id}/plan-back`, { which: 'undo' })).body.message).toMatch(
      /frozen/,
    )
    expect(await stepOf(people.owner, id, 'take-apart')).toMatchObject({ attended_min: 40, state: 'running' })
  })
  it(
    "two at once: one of two edits of a step wins, the other is told; an undo after another's edit undoes " +
      'that one',
    async () => {
      const { id } = await table()
      const sand = await stepOf(people.owner, id, 'sand')
      const replies = await Promise.all(
        [people.lead, people.finisher].map((p, i) =>
          p.send(`PATCH /api/steps/${sand.id}`, { rowVersion: sand.rowVersion, attendedMin: 50 + i }),
        ),
      )
      expect(replies.map(r => r.status).sort()).toEqual([200, 409])
      await people.owner.ok(`POST /api/pieces/${id}/plan-back`, { which: 'undo' })
      expect(await stepOf(people.owner, id, 'sand')).toMatchObject({ attended_min: sand.attended_min })
    },
  )
  it('each step says how it is done; loops say how often at worst', async () => {
    const { id } = await table()
    const { steps, loops } = await plan(id)
    expect(steps.find(s => s.kind === 'coat')!.notes.join(' ')).toMatch(/sections of .* m²: the wet edge/)
    expect(loops.find(l => l.step === 'strip')).toMatchObject({ worst: 2 })
  })
  it("a default finish comes from the house's school", async () => {
    expect((await routes((await table()).id)).finishDefault).toBe('waterborne-polyurethane')
    expect((await setHouse(people.owner, 'finish-school', 'oil')).status).toBe(200)
    expect((await routes((await table()).id)).finishDefault).toBe('varnish-oil')
    expect((await setHouse(people.owner, 'finish-school', 'film')).status).toBe(200)
  })
})

describe('the air, and what dust may do in it', () => {
  const logOf = (days: number, more = '') =>
    [
      'time;°C;%',
      ...Array.from(
        { length: days * 24 },
        (_, i) =>
          `2026-12-${String(8 + Math.floor(i / 24)).padStart(2, '0')} ` +
          `${String(i % 24).padStart(2, '0')}:00;19,${i % 10};48`,
      ),
      more,
    ].join('\n')
  it("a logger's file is read once, told apart by moment, and the plan shows the coming days", async () => {
    const first = await people.finisher.ok<{ taken: number; known: number }>('POST /api/air-log', { text: logOf(6) })
    expect(first.taken + first.known).toBe(144)
    expect(await people.finisher.ok<{ taken: number; known: number }>('POST /api/air-log', { text: logOf(6) })).toEqual(
      { taken: 0, known: 144 },
    )
    await people.lead.ok('POST /api/air', { temperature_C: 20, rh_pct: 48 })
    const { id } = await table()
    const { ahead } = await people.owner.ok<{
      ahead: { seen: number; hours: { temperature_C: number; rh: number; open: boolean }[] }
    }>(`GET /api/pieces/${id}/plan`)
    expect(ahead.seen).toBe(24)
    expect(ahead.hours).toHaveLength(120)
    expect(ahead.hours.some(h => h.open) && ahead.hours.some(h => !h.open)).toBe(true)
    for (const h of ahead.hours)
      expect(h.temperature_C > 15 && h.temperature_C < 25 && h.rh > 0.3 && h.rh < 0.7).toBe(true)
  })
  it('a broken file is refused with its line, and nothing of it is kept', async () => {
    const broken = await people.finisher.send('POST /api/air-log', { text: `${logOf(1)}\n2026-12-09 04:00;twenty;48` })
    expect(broken.body).toMatchObject({ code: 'invalid', message: expect.stringMatching(/^Line \d+: wanted a time/) })
    expect((await people.finisher.send('POST /api/air-log', { text: '2027-12-09 04:00;20;48' })).body.message).toMatch(
      /future/,
    )
    expect((await people.office.send('POST /api/air-log', { text: logOf(1) })).status).toBe(403)
  })
  it('while dust and finish share a room, a wet coat elsewhere stops sanding; the owner may overrule', async () => {
    /** All in one room, or coats in one of their own. */
    const room = async (shared: boolean) => {
      const { rooms } = await people.owner.ok<{ rooms: Record<string, unknown>[] }>('GET /api/rooms')
      const { id, racks, air: _air, ...workshop } = rooms.find(r => r.name === 'Workshop')!
      expect(racks).toEqual([])
      await people.owner.ok(`PUT /api/rooms/${Number(id)}`, { ...workshop, wet: shared })
      const own = rooms.find(r => r.name === 'Finishing room')
      if (shared) await people.owner.ok(`DELETE /api/rooms/${Number(own!.id)}`)
      else
        await people.owner.ok('POST /api/rooms', {
          ...{ name: 'Finishing room', dust: false, wet: true, other: true, changeOverMin: 30 },
        })
    }
    const [coated, sanded] = [await table(), await table()]
    for (const { id } of [coated, sanded]) await sayYes(people.office, id)
    const before = (await keys(sanded.id)).indexOf('sand') - 1
    await workTo(people, sanded.id, t('08:30'), (await keys(sanded.id))[before]!)
    await workTo(people, coated.id, t('08:30', '2026-12-16'), 'coat-1')
    const says = async () => (await stepOf(people.owner, sanded.id, 'sand')).start.refusals.map(r => r.says).join(' ')
    expect(await says()).not.toMatch(/A coat is wet/)
    await room(true)
    expect(await says()).toMatch(/A coat is wet in this room: .*, Dewaxed shellac, coat 1 of 2, until \d\d:\d\d/)
    const sand = await stepOf(people.owner, sanded.id, 'sand')
    expect(sand.start).toMatchObject({ may: false, outside: true })
    const outside = {
      kind: 'start',
      stepId: sand.id,
      rowVersion: sand.rowVersion,
      happenedAt: new Date((await people.lead.ok<{ now_ms: number }>('GET /api/now')).now_ms).toISOString(),
    }
    expect((await people.finisher.send('POST /api/bench', outside)).status).toBe(409)
    await people.finisher.ok('POST /api/bench', { ...outside, outside: true })
    expect(await stepOf(people.owner, sanded.id, 'sand')).toMatchObject({ state: 'running', outside: true })
    const back = { kind: 'undo', stepId: sand.id, rowVersion: sand.rowVersion + 1, happenedAt: outside.happenedAt }
    await people.finisher.ok('POST /api/bench', back)
    expect(await stepOf(people.owner, sanded.id, 'sand')).toMatchObject({ state: 'planned', outside: false })
    await people.owner.ok(`POST /api/pieces/${sanded.id}/overrules`, {
      rule: 'no-dust-work-in-finishing-room',
      stepKey: 'sand',
      word: 'with the door shut and the extraction on',
    })
    expect(await says()).not.toMatch(/A coat is wet/)
    await room(false)
  }, 90_000)
  it(
    'what is too soon waits longer by one touch; the wait is kept through later changes and can be taken ' + 'back',
    async () => {
      const { id } = await table()
      const coat = await stepOf(people.owner, id, 'coat-1')
      await people.lead.ok(`POST /api/pieces/${id}/steps`, {
        kind: 'coat',
        after: coat.id,
        title: 'Oil polyurethane',
        faces: (await plan(id)).steps.find(s => named(s) === 'coat-1')!.faces,
        product: 'oil-polyurethane',
        grits: [],
        method: 'brush',
        coat: 1,
        attendedMin: 10,
        amountMl: null,
      })
      const oil = (await plan(id)).steps.find(s => s.key.startsWith('hand-coat'))!
      await people.lead.ok(`POST /api/pieces/${id}/steps`, {
        kind: 'coat',
        after: oil.id,
        title: 'Waterborne',
        faces: oil.faces,
        product: 'waterborne-polyurethane',
        grits: [],
        method: 'brush',
        coat: 1,
        attendedMin: 10,
        amountMl: null,
      })
      const broken = async () =>
        (await plan(id)).verdicts.find(v => v.rule === 'water-over-uncured-oil') as
          { step: string; oneTouch?: string } | undefined
      const verdict = (await broken())!
      expect(verdict.oneTouch).toBe('Wait 7 days')
      await people.lead.ok(`POST /api/pieces/${id}/mends`, { rule: 'water-over-uncured-oil', stepKey: verdict.step })
      expect(await broken()).toBeUndefined()
      const wash = await stepOf(people.owner, id, 'wash')
      await people.lead.ok(`PATCH /api/steps/${wash.id}`, { rowVersion: wash.rowVersion, attendedMin: 21 })
      expect(await broken()).toBeUndefined()
      for (let i = 0; i < 2; i++) await people.lead.ok(`POST /api/pieces/${id}/plan-back`, { which: 'undo' })
      expect(await broken()).toBeDefined()
    },
  )
  it('a pot is mixed at the bench, and its end refuses the coat until a new one is mixed', async () => {
    const { id, rowVersion } = await table()
    const urethaneWanted = { ...shellac, finish: 'urethane-2c', rowVersion }
    const refused = await people.lead.send(`PUT /api/pieces/${id}/choice`, urethaneWanted)
    expect(refused.body.message).toMatch(/without a licence/)
    const shop = await people.owner.ok<{ people: { id: number; active: boolean }[] }>('GET /api/shop')
    const licence = { kind: 'isocyanates', number: 'AV-2231', validUntil: '2027-06-30' }
    const holder = shop.people.find(p => p.active)!.id
    const past = { ...licence, personId: holder, validUntil: '2020-01-01' }
    expect((await people.owner.send('POST /api/licences', past)).body.fields).toHaveProperty('validUntil')
    const held = await people.owner.ok<{ id: number }>('POST /api/licences', { ...licence, personId: holder })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, urethaneWanted)
    const urethane = async () =>
      (await plan(id)).steps.find(s => (s as unknown as { product: string }).product === 'urethane-2c')!
    const says = async () => (await urethane()).start.refusals.map(r => r.says).join(' ')
    const wash = await stepOf(people.owner, id, 'wash')
    expect((await act(people.finisher, 'mixed', wash, t('08:00'))).body.code).toBe('no-pot')
    expect((await act(people.finisher, 'mixed', await urethane(), t('08:00'))).status).toBe(200)
    await setClock(people.owner, t('10:30'))
    expect(await says()).toMatch(/The pot was mixed at 08:00; its life ended at \d\d:\d\d/)
    expect((await act(people.finisher, 'mixed', await urethane(), t('10:30'))).status).toBe(200)
    expect(await says()).not.toMatch(/pot was mixed/)
    await people.owner.ok(`DELETE /api/licences/${held.id}`)
    expect(await says()).toMatch(/without a licence/)
  })
  it('colour approved on a sample without topcoat is warned of, under the finish it is not', async () => {
    const { id, rowVersion } = await table()
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...shellac, colour: 'pigment-stain', rowVersion })
    const set = async (colourSample: string) =>
      people.office.ok(`PATCH /api/pieces/${id}`, {
        rowVersion: (await people.owner.ok<{ piece: { row_version: number } }>(`GET /api/pieces/${id}`)).piece
          .row_version,
        colourSample,
      })
    const warned = async () => (await plan(id)).verdicts.some(v => v.rule === 'sample-under-finish')
    expect(await warned()).toBe(false)
    await set('bare')
    expect(await warned()).toBe(true)
    await expect(set('under-finish')).rejects.toThrow('band of the step panel')
    const { lines } = await people.office.ok<{ lines: { key: string }[] }>(`GET /api/pieces/${id}/panel`)
    const band = await people.finisher.ok<{ id: number }>(`POST /api/pieces/${id}/bands`, {
      stepKey: lines.at(-1)!.key,
      clearCoat: 'dewaxed-shellac',
      applicator: 'cloth',
      wipe: 'normal',
    })
    await people.lead.ok(`PATCH /api/bands/${band.id}`, {
      kind: 'approve',
      rowVersion: 1,
      by: 'Test client',
      light: 'd65',
    })
    expect(await warned()).toBe(false)
  })
  it('a wanted film decides the coats, and is kept with the choice', async () => {
    const { id, rowVersion } = await table()
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
      ...shellac,
      finish: 'waterborne-polyurethane',
      film_um: 100,
      rowVersion,
    })
    expect((await keys(id)).filter(k => /^coat-\d/.test(k))).toEqual(['coat-1', 'coat-2', 'coat-3'])
    expect((await people.owner.ok<{ picks: object }>(`GET /api/pieces/${id}/routes`)).picks).toMatchObject({
      film_um: 100,
    })
    expect(
      (
        await people.lead.send(`PUT /api/pieces/${id}/choice`, {
          ...shellac,
          film_um: 4000,
          rowVersion: rowVersion + 1,
        })
      ).body.fields,
    ).toHaveProperty('film_um')
  })
})
