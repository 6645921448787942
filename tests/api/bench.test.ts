import mysql from 'mysql2/promise'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import { MATERIALS } from '#core/materials'
import { productProblem } from '#core/plan'
import type { Role } from '#shared/rights'
import {
  act,
  type Caller,
  choice,
  intake,
  type PlanStep,
  planOf,
  sayYes,
  setClock,
  shopPeople,
  stepOf,
  workTo,
} from './http'

const t = (clock: string, day = '2026-12-01') => `${day}T${clock}:00+01:00`
const people = {} as Record<Role, Caller>
const ids: Record<string, number> = {}
let sql: mysql.Connection
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())
beforeEach(() => setClock(people.owner, t('08:00')))

interface Spelled extends PlanStep {
  spells: { id: number; personId: number; by: string; from_ms: number; to_ms: number | null }[]
}
interface Now {
  people: { id: number; name: string }[]
  pieces: Record<string, { place: string | null; last_by: number | null }>
  running: { stepId: number; left_ms: number | null }[]
  may: { stepId: number; pieceId: number; behind_min: number }[]
  windows: {
    pieceId: number
    opens_ms: number | null
    closes_ms: number | null
    late: string | null
    step: { stepId: number }
  }[]
}
const now = () => people.owner.ok<Now>('GET /api/now')
const washOf = async (id: number) => (await stepOf(people.owner, id, 'wash')) as Spelled
const log = (id: number) => people.owner.ok<{ kind: string; says: string }[]>(`GET /api/pieces/${id}/log`)
/** An agreed piece whose wash runs since `from`. */
async function washing(from: string, more = {}) {
  const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake(more))
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  await sayYes(people.office, id)
  for (const p of (await now()).people) ids[p.name] = p.id
  await at(from)
  const first = (await planOf(people.owner, id)).steps.find(s => s.state === 'planned')!
  if (first.kind !== 'wash') await workTo(people, id, from, first.kind)
  expect((await act(people.lead, 'start', await washOf(id), from)).status).toBe(200)
  return id
}
const at = async (moment: string) => {
  await setClock(people.owner, moment)
  await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
}
const minutes = (step: Spelled) => step.spells.reduce((sum, s) => sum + ((s.to_ms ?? NaN) - s.from_ms) / 60_000, 0)

describe('a step in hand', () => {
  it('is put aside, gone on with, helped with and handed on; its minutes are those of hands', async () => {
    const id = await washing(t('09:00'))
    await at(t('10:30'))
    const does = async (caller: Caller, kind: string, clock: string, more = {}) => {
      const reply = await act(caller, kind, await washOf(id), t(clock), more)
      return reply.status === 200 ? 200 : `${reply.status} ${reply.body.code}`
    }
    expect(await does(people.lead, 'pause', '09:10')).toBe(200)
    expect(await does(people.lead, 'pause', '09:20')).toBe('409 paused')
    expect(await does(people.lead, 'go-on', '09:05')).toBe('422 before-start')
    expect(await does(people.lead, 'go-on', '09:30')).toBe(200)
    expect(await does(people.finisher, 'go-on', '09:40')).toBe(200)
    expect(await does(people.finisher, 'go-on', '09:41')).toBe('409 in-hand')
    const [lead, helper] = (await washOf(id)).spells.slice(1)
    expect([lead!.to_ms, helper!.to_ms]).toEqual([null, null])
    expect(await does(people.lead, 'hand-on', '09:50', { personId: helper!.personId })).toBe(200)
    expect(await does(people.lead, 'hand-on', '09:55', { personId: 999_999 })).toBe('422 invalid')
    expect(await does(people.lead, 'finish', '10:00')).toBe(200)
    // 10 before, 20 of the lead, 10 of the helper, 10 handed on
    expect(minutes(await washOf(id))).toBe(50)
    expect((await log(id)).map(e => e.says).join(' | ')).toContain('50 min (planned')
    expect((await now()).pieces[id]!.last_by).toBe(helper!.personId)
  })
  it('each touch is taken back by one, and the end goes on with whoever had it', async () => {
    const id = await washing(t('09:00'))
    await at(t('10:30'))
    const touch = async (kind: string, clock: string, more = {}) =>
      expect((await act(people.lead, kind, await washOf(id), t(clock), more)).status, kind).toBe(200)
    const open = async () => (await washOf(id)).spells.map(s => s.to_ms === null)
    await touch('pause', '09:10')
    await touch('spell-back', '10:30')
    expect(await open()).toEqual([true])
    await touch('pause', '09:10')
    await touch('go-on', '09:20')
    await touch('spell-back', '10:30')
    expect(await open()).toEqual([false])
    await touch('spell-back', '10:30')
    expect((await act(people.lead, 'spell-back', await washOf(id), t('10:30'))).status).toBe(409)
    await touch('finish', '09:40')
    await touch('undo', '10:30')
    expect(await open()).toEqual([true])
    await touch('undo', '10:30')
    expect((await washOf(id)).spells).toEqual([])
  })
  it('times are put right with a word, never into the future, over each other, or before the start', async () => {
    const id = await washing(t('09:00'))
    await at(t('10:30'))
    await act(people.lead, 'finish', await washOf(id), t('10:00'))
    const step = await washOf(id)
    const correct = (from: string, to: string | null, word = 'the phone rang') =>
      act(people.lead, 'correct', step, t('10:30'), {
        spellId: step.spells[0]!.id,
        from: t(from),
        to: to && t(to),
        word,
      })
    expect((await correct('08:50', '09:30')).body.fields).toHaveProperty('from')
    expect((await correct('09:00', '10:10')).body.fields).toHaveProperty('to')
    expect((await correct('09:40', '09:20')).body.fields).toHaveProperty('to')
    expect((await correct('09:00', null)).body.fields).toHaveProperty('to')
    expect((await correct('09:00', '09:30', ' ')).status).toBe(422)
    expect((await correct('09:00', '09:30')).status).toBe(200)
    expect(minutes(await washOf(id))).toBe(30)
    expect((await log(id))[0]!.says).toMatch(/^Corrected, .*09:00 to .*10:00 becomes .*the phone rang$/)
  })
  it('left in hand over night it is asked about in the morning, and ended when it ended', async () => {
    const id = await washing(t('16:00'))
    await at(t('20:00'))
    const left = async () => {
      const { id: step } = await washOf(id)
      return (await now()).running.find(r => r.stepId === step)!.left_ms
    }
    expect(await left()).toBeNull()
    await at(t('08:30', '2026-12-02'))
    expect(await left()).toBe(Date.parse(t('17:00')))
    expect((await act(people.lead, 'go-on', await washOf(id), t('17:00'))).status).toBe(422)
    expect((await act(people.lead, 'pause', await washOf(id), t('17:00'))).status).toBe(200)
    expect(minutes(await washOf(id))).toBe(60)
    expect(await left()).toBeNull()
  })
  it('a note is kept with its step, also when it is done', async () => {
    const id = await washing(t('09:00'))
    await act(people.lead, 'finish', await washOf(id), t('09:00'))
    const note = { says: 'dirt in the mouldings' }
    expect((await act(people.finisher, 'note', await washOf(id), t('09:00'), note)).status).toBe(200)
    expect((await log(id))[0]!).toMatchObject({ kind: 'note', says: expect.stringMatching(/: dirt in the mouldings$/) })
    expect((await act(people.office, 'note', await washOf(id), t('09:00'), note)).status).toBe(403)
  })
})

describe('what was used', () => {
  async function received(name: string, kind: string) {
    const { id: productId } = await people.lead.ok<{ id: number }>('POST /api/products', {
      name,
      class: kind,
      priceMinor: 10_000,
    })
    const lot = { productId, code: 'L-1', amount: 500 }
    return { productId, lotId: (await people.lead.ok<{ id: number }>('POST /api/lots', lot)).id }
  }
  type Shown = Spelled & { product: string; plannedProduct: string | null; usedSaid: string }
  const shown = async (id: number) => (await washOf(id)) as Shown
  const leftOf = async (lotId: number) =>
    (await people.lead.ok<{ products: { lots: { id: number; left_amount: number }[] }[] }>('GET /api/store')).products
      .flatMap(p => p.lots)
      .find(l => l.id === lotId)!.left_amount

  it('comes from several lots; another class is told against the rules, and the record stays true', async () => {
    const id = await washing(t('09:00'))
    await at(t('09:30'))
    const step = await shown(id)
    const other = await received(`stripper of ${id}`, 'methylene-chloride-stripper')
    const soap = await received(`soap of ${id}`, step.product)
    const used = (word: string) => [
      { lotId: soap.lotId, amountMl: 30, word: '' },
      { lotId: other.lotId, amountMl: 20, word },
    ]
    const wordless = await act(people.lead, 'finish', step, t('09:20'), { used: used('') })
    expect(wordless.body).toMatchObject({ code: 'other-kind', fields: { 'used.1.word': 'Say a word why.' } })
    const most = [{ ...used('none left')[0]!, amountMl: 10 }, used('none left')[1]!]
    expect((await act(people.lead, 'finish', step, t('09:20'), { used: most })).status).toBe(200)
    const [entry] = (await log(id)).filter(e => e.kind === 'finished')
    expect(entry!.says).toMatch(/20 ml stripper of \d+, lot L-1 instead of/)
    expect(entry!.says).toMatch(/10 ml soap of \d+, lot L-1/)
    expect(entry!.says).toMatch(/Against the rules: .*without a licence/)
    expect((await shown(id)).product, 'no wash is done with a stripper').toBe(step.product)
  })
  it('goes on by what lies on the piece, beside what was planned; taken back it is as it was', async () => {
    const id = await washing(t('09:00'))
    await at(t('09:30'))
    const step = await shown(id)
    const kind = MATERIALS.find(m => m.slug !== step.product && !productProblem({ kind: 'wash', product: m.slug }))!
    const { lotId } = await received(`${kind.name} of ${id}`, kind.slug)
    const used = [{ lotId, amountMl: 40, word: 'suits this piece better' }]
    expect((await act(people.lead, 'finish', step, t('09:20'), { used })).status).toBe(200)
    expect(await shown(id)).toMatchObject({
      product: kind.slug,
      plannedProduct: step.product,
      usedSaid: expect.stringMatching(/^Planned \d+ ml, .*; used 40 ml .*, L-1 \(suits this piece better\)$/),
    })
    expect((await act(people.lead, 'undo', await washOf(id), t('09:20'))).status).toBe(200)
    expect(await shown(id)).toMatchObject({ product: step.product, plannedProduct: null, usedSaid: '' })
    expect(await leftOf(lotId)).toBe(500)
  })
  it('from a pot books no lot again, costs its share by weight, and goes back into it', async () => {
    const id = await washing(t('09:00'))
    await at(t('09:30'))
    const step = await shown(id)
    const soap = await received(`potted soap of ${id}`, step.product)
    const mix = { productId: soap.productId, class: step.product, name: 'soap', share: 1, of: 'parts', density_g_ml: 1 }
    const pot = await people.lead.ok<{ id: number }>('POST /api/batches', {
      kind: 'mix',
      name: `Soap ${id}`,
      ingredients: [mix, { ...mix, name: 'Water', productId: null, class: null }],
      by: 'weight',
      wanted: { total_g: 200 },
      pieceId: id,
    })
    type Pot = { row_version: number; left_g: number | null; lines: { id: number; product_id: number | null }[] }
    const potNow = () => people.lead.ok<Pot>(`GET /api/batches/${pot.id}`)
    const onPot = async (kind: string, more = {}) =>
      people.lead.ok(`POST /api/batches/${pot.id}/acts`, { kind, rowVersion: (await potNow()).row_version, ...more })
    const from = (amountG: number, word = '') => ({ used: [{ batchId: pot.id, amountG, word }] })
    expect((await act(people.lead, 'finish', step, t('09:20'), from(50))).body.code).toBe('no-pot')
    for (const l of (await potNow()).lines)
      await onPot('pour', { lineId: l.id, lotId: l.product_id ? soap.lotId : null, poured_g: 100 })
    await onPot('mixed')
    expect(await leftOf(soap.lotId)).toBe(400)
    const tooMuch = await act(people.lead, 'finish', step, t('09:20'), from(201))
    expect(tooMuch.body.fields).toEqual({ 'used.0.word': 'Say a word why.' })
    expect((await act(people.lead, 'finish', step, t('09:20'), from(50))).status).toBe(200)
    expect(await leftOf(soap.lotId)).toBe(400)
    expect((await potNow()).left_g).toBe(150)
    expect((await shown(id)).usedSaid).toMatch(/used 50 g pot \d+, Soap/)
    const cost = async () => (await planOf(people.owner, id)).cost.soFar_minor
    const labour = await cost()
    expect((await act(people.lead, 'undo', await washOf(id), t('09:20'))).status).toBe(200)
    expect((await potNow()).left_g).toBe(150 + 50)
    expect((await act(people.lead, 'finish', await washOf(id), t('09:20'))).status).toBe(200)
    // 50 of 200 g: a quarter of 100 ml at 100 a litre, with markup and tax
    expect(labour - (await cost())).toBeCloseTo(250 * 1.25 * 1.25, -1)
  })
})

describe('is it dry?', () => {
  it('keeps each look by what it was tried, and proposes the next inside opening hours', async () => {
    const id = await washing(t('16:30'))
    await at(t('16:50'))
    await act(people.lead, 'finish', await washOf(id), t('16:50'))
    const { steps, waits } = (await planOf(people.owner, id)) as unknown as {
      steps: PlanStep[]
      waits: { from: string; to: string; kind: string }[]
    }
    const wash = steps.find(s => s.kind === 'wash')!
    const wait = waits.find(w => w.from === wash.key && w.kind !== 'order')!
    const next = steps.find(s => s.key === wait.to)!
    const look = (kind: string, more = {}) => act(people.lead, kind, next, t('16:50'), more)
    const not = await look('not-dry', { by: 'rag' })
    expect(not.status, not.body.message).toBe(200)
    expect((await log(id))[0]!.says).toMatch(/A clean rag: it still picks up oil\. Look again Wed 2 Dec 07:30/)
    expect((await look('not-dry', { until: t('16:40') })).status).toBe(422)
    expect((await look('not-dry', { by: 'ears' })).status).toBe(422)
    expect((await look('dry', { by: 'tack' })).status).toBe(200)
    expect((await log(id))[0]!).toMatchObject({ kind: 'dry', says: expect.stringContaining('no tack') })
  })
})

describe('where a piece stands', () => {
  it('anybody moves it, by the code of a place', async () => {
    const id = await washing(t('09:00'))
    const move = (code: string) =>
      people.finisher.send(`PUT /api/pieces/${id}/place`, { place: { code, kind: 'rack' } })
    expect((await move('rack-2')).status).toBe(200)
    expect((await now()).pieces[id]!.place).toBe('RACK-2')
    expect((await move('<b>')).status).toBe(422)
    await people.office.ok(`PUT /api/pieces/${id}/place`, { place: null })
    expect((await now()).pieces[id]!.place).toBeNull()
  })
})

describe('the log', () => {
  interface Entry {
    kind: string
    says: string
    piece_id: number | null
    by_name: string | null
    temperature_C: number | null
    rh: number | null
  }
  it('is read by piece and by day, with the air of the moment, by kind and person, and taken out as CSV', async () => {
    const id = await washing(t('09:00'), { name: '=1+1' })
    await act(people.lead, 'note', await washOf(id), t('09:00'), { says: 'fine' })
    const of = (query: string) => people.owner.ok<Entry[]>(`GET /api/pieces/${id}/log${query}`)
    expect((await of('?group=notes')).map(e => e.kind)).toEqual(['note'])
    const [started] = (await of('?group=work')).filter(e => e.kind === 'started')
    expect(started).toMatchObject({ temperature_C: 21, rh: 0.45 })
    expect(await of(`?person=${ids.finisher}&group=work`)).toEqual([])
    const day = await people.finisher.ok<{ day: string; entries: Entry[] }>('GET /api/log?day=2026-12-01')
    expect(day.entries.some(e => e.piece_id === id && e.kind === 'started')).toBe(true)
    expect((await people.owner.ok<{ entries: Entry[] }>('GET /api/log?day=2031-01-01')).entries).toEqual([])
    expect((await people.owner.send('GET /api/log?day=yesterday')).status).toBe(422)
    expect((await people.owner.send(`GET /api/pieces/${id}/log?group=secrets`)).status).toBe(422)
    const csv = (await people.owner.ok<{ text: string }>(`GET /api/log/export?piece=${id}`)).text
    expect(csv.split('\n')[0]).toBe('entry,happened,written,by,piece,name,kind,says,°C,% RH,ml,g,takes back')
    expect(csv).toMatch(/2026-12-01 09:00:00,.*,started,/)
    // a cell never begins as a formula
    expect(csv).toContain(`,${id},'=1+1,started,`)
  })
})

describe('a client is one record', () => {
  interface Page {
    client: { id: number; name: string; email: string; phone: string; rowVersion: number }
    pieces: { id: number; name: string }[]
    letters: { piece_id: number; kind: string }[]
    alike: { id: number }[]
  }
  const page = (id: number) => people.finisher.ok<Page>(`GET /api/clients/${id}`)
  const seek = (find: string) =>
    people.office.ok<{ id: number; name: string; pieces: number }[]>(
      `GET /api/clients?find=${encodeURIComponent(find)}`,
    )
  const takes = async (name: string, client: object) =>
    (await people.office.ok<{ id: number }>('POST /api/pieces', intake({ name, client }))).id

  it('found while one types and taken again; two of one person become one, with pieces and letters', async () => {
    const name = `Birgit ${crypto.randomUUID().slice(0, 8)}`
    const chest = await takes('Chest', { name, email: 'birgit@example.invalid', phone: '' })
    const [known] = await seek(name.slice(0, 12))
    expect(known).toMatchObject({ name, pieces: 1 })
    const stool = await takes('Stool', { id: known!.id, name, email: '', phone: '' })
    expect((await page(known!.id)).pieces.map(p => p.id)).toEqual([stool, chest])
    const chair = await takes('Chair', { name, email: '', phone: '070 55' })
    const other = (await seek(name)).find(c => c.id !== known!.id)!
    expect((await page(other.id)).alike.map(c => c.id)).toEqual([known!.id])
    await people.lead.ok(`PUT /api/pieces/${chair}/choice`, { ...choice, rowVersion: 1 })
    const { client: second } = await page(other.id)
    const merge = (into: number, rowVersion = second.rowVersion) =>
      people.office.send(`POST /api/clients/${other.id}/merge`, { rowVersion, into })
    expect((await merge(other.id)).status).toBe(422)
    expect((await merge(999_999)).status).toBe(422)
    expect((await merge(known!.id, 9)).status).toBe(409)
    expect((await people.finisher.send(`POST /api/clients/${other.id}/merge`, {})).status).toBe(403)
    expect((await merge(known!.id)).status).toBe(200)
    expect((await merge(known!.id)).status).toBe(404)
    // the record that was merged away leads to the one that stays
    const one = await page(other.id)
    expect(one.client).toMatchObject({ id: known!.id, email: 'birgit@example.invalid', phone: '070 55' })
    expect(one.pieces.map(p => p.id)).toEqual([chair, stool, chest])
    expect((await log(chair))[0]!.says).toMatch(/are one$/)
    expect(await seek(name)).toHaveLength(1)
    expect(
      (await people.office.send('POST /api/pieces', intake({ client: { ...second, rowVersion: undefined } }))).status,
    ).toBe(422)
  })
  it('is changed with its version, and what cannot be one is refused', async () => {
    const name = `Carl ${crypto.randomUUID().slice(0, 8)}`
    await takes('Desk', { name, email: '', phone: '' })
    const { id } = (await seek(name))[0]!
    const change = (more: object) =>
      people.office.send(`PATCH /api/clients/${id}`, { rowVersion: 1, name, email: '', phone: '', ...more })
    for (const wrong of [{ name: ' ' }, { name: 'x'.repeat(121) }, { email: 'no mail' }, { phone: '1'.repeat(41) }])
      expect((await change(wrong)).status, JSON.stringify(wrong).slice(0, 30)).toBe(422)
    expect((await change({ email: 'carl@example.invalid' })).status).toBe(200)
    expect((await change({})).status).toBe(409)
    expect((await people.office.send('GET /api/clients?find=x')).status).toBe(422)
    expect(await seek('%%')).toEqual([])
  })
})

describe('finding anything', () => {
  interface Found {
    kind: string
    title: string
    to: string
  }
  const find = (q: string) => people.finisher.ok<Found[]>(`GET /api/find?q=${encodeURIComponent(q)}`)
  it('by name, number, client, words of the log, a label; wildcards and quotes are letters', async () => {
    const client = { name: "Åse O'Hara 100%", email: 'ase@example.org', phone: '070 123 45' }
    const id = await washing(t('09:00'), { name: 'Pie safe, tinned', client })
    await act(people.lead, 'note', await washOf(id), t('09:00'), { says: 'smells of turpentine inside' })
    const leads = async (q: string) => (await find(q)).map(f => `${f.kind} ${f.to}`)
    expect((await leads('pie saf'))[0]).toBe(`piece /pieces/${id}`)
    expect((await leads(String(id)))[0]).toBe(`piece /pieces/${id}`)
    expect((await leads(`#${id}`))[0]).toBe(`piece /pieces/${id}`)
    expect((await find("o'hara")).some(f => f.kind === 'client' && f.title === client.name)).toBe(true)
    expect((await find('07012345')).some(f => f.title === client.name)).toBe(true)
    expect((await find('100%')).every(f => f.kind === 'entry' || /100%/.test(f.title))).toBe(true)
    await expect.poll(() => leads('turpent')).toContain(`entry /pieces/${id}/log`)
    expect(await leads(`https://shop.example/pieces/${id}`)).toEqual([`place /pieces/${id}`])
    expect(await find('+-*"() <>~@')).toEqual([])
    expect((await people.finisher.send('GET /api/find?q=')).status).toBe(422)
    expect((await people.finisher.send(`GET /api/find?q=${'x'.repeat(101)}`)).status).toBe(422)
  })
})

describe('the air', () => {
  interface Shop {
    rowVersion: number
    name: string
    hour_minor: number
    material_markup_bp: number
    tax_bp: number
    length_unit: 'mm' | 'in'
  }
  async function shopWays(more: object) {
    const s = await people.owner.ok<Shop>('GET /api/shop')
    const same = { name: s.name, hourMinor: s.hour_minor, materialMarkupBp: s.material_markup_bp, taxBp: s.tax_bp }
    return people.owner.send('PUT /api/shop', {
      ...{ rowVersion: s.rowVersion, ...same, lengthUnit: s.length_unit },
      ...{ mailName: 'The shop', mailAddress: 'shop@example.invalid', ...more },
    })
  }
  type Air = { air: { fresh: boolean; reading: { temperature_C: number; source: string } | null } }
  const airNow = async () => (await people.lead.ok<Air>('GET /api/now')).air
  const measured = (moment: string, temperature_C: number) =>
    sql.query("INSERT INTO climate_reading (at, temperature_C, rh, source) VALUES (?, ?, 0.5, 'climate logger')", [
      new Date(moment),
      temperature_C,
    ])

  it("read by hand counts for the house's minutes against newer readings of the logger, then they count", async () => {
    const day = '2027-03-02'
    expect((await shopWays({ handAirMin: 30 })).status).toBe(200)
    await setClock(people.owner, t('09:00', day))
    await people.lead.ok('POST /api/air', { temperature_C: 15.5, rh_pct: 40 })
    await measured(t('09:20', day), 22)
    await setClock(people.owner, t('09:25', day))
    expect((await airNow()).reading).toMatchObject({ temperature_C: 15.5, source: 'by hand' })
    await setClock(people.owner, t('09:31', day))
    expect((await airNow()).reading).toMatchObject({ source: expect.not.stringMatching('by hand') })
    for (const wrong of [0, 481, 1.5]) expect((await shopWays({ handAirMin: wrong })).status).toBe(422)
    expect((await shopWays({ handAirMin: 15 })).status).toBe(200)
  })
  it('is written in °F where the shop wants it, also in what the server says; kept in °C', async () => {
    expect((await shopWays({ temperatureUnit: 'F' })).status).toBe(200)
    await people.lead.ok('POST /api/air', { temperature_C: 20, rh_pct: 45 })
    const says = async () =>
      (await people.lead.ok<{ entries: { says: string }[] }>('GET /api/log')).entries.find(e =>
        e.says.startsWith('Air'),
      )!.says
    expect(await says()).toBe('Air read by hand: 68 °F, 45 %')
    expect((await airNow()).reading).toMatchObject({ temperature_C: 20 })
    expect((await shopWays({ temperatureUnit: 'C' })).status).toBe(200)
    expect(await says()).toBe('Air read by hand: 20 °C, 45 %')
  })
})
