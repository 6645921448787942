import { type Grit, P } from '../../core/abrasives'
import sharp from 'sharp'
import { beforeAll, beforeEach, describe, expect, it, test } from 'vitest'
import { canonicalJson, type Json } from '#core/approval'
import type { Role } from '#shared/rights'
import { reportSchema } from '#shared/report'
import {
  act,
  BASE,
  type Caller,
  choice,
  intake,
  planOf,
  replied,
  sayYes,
  setClock,
  setHouse,
  shopPeople,
  stepOf,
} from './http'

const t = (clock: string, day = '2026-12-08') => `${day}T${clock}:00+01:00`
const people = {} as Record<Role, Caller>
beforeAll(async () => {
  Object.assign(people, await shopPeople())
})
beforeEach(() => setClock(people.owner, t('08:00')))

interface Exam {
  faces: {
    id: number
    species: string
    substrate: string
    veneer_mm: number | null
    finishGroup: string
    rowVersion: number
  }[]
  findings: {
    id: number
    number: number
    faceId: number
    kind: string
    grade: number
    wish: string
    place: Record<string, unknown>
    rowVersion: number
    photographs: string[]
  }[]
  damage: { kind: string; area_m2: number }[]
  walk: {
    questions: { key: string; answer: string[] | null }[]
    next: { key: string } | null
    done: number
    total: number
  }
  finishes: {
    group: string
    layers: { layer: number; finish: string; verdict: string; overruled: { value: string } | null }[]
  }[]
  hazards: { slug: string; standing: string; evidence: { answer: string; method: string; by_name: string }[] }[]
  banEffect: { changes: { key: string }[]; minutes: number } | null
  moisture: { verdict: string; basis: string | null }[]
  verdicts: {
    slug: string
    subject: string
    severity: string
    mayOverrule: boolean
    overruled: { by: string } | null
  }[]
  patches: { piece_min: number }[]
  patchAdvice: { better: string } | null
  items: {
    id: number
    mark: string
    row_version: number
    taken_out: number | null
    put_back: number | null
    place: string | null
    answer: string | null
  }[]
  photographs: { address: string; before_address: string | null }[]
}
const face = intake().parts[0]!.faces[0]!
const two = {
  parts: [
    { name: 'lid', scope: 'refinish', faces: [face] },
    {
      name: 'legs',
      scope: 'refinish',
      faces: [{ ...face, name: 'round', shape: 'turned', length: '400', width: '50', count: 4, species: 'beech' }],
    },
  ],
}
const taken = async (more: Record<string, unknown> = two) =>
  (await people.office.ok<{ id: number }>('POST /api/pieces', intake(more))).id
const examOf = (id: number, who: Caller = people.finisher) => who.ok<Exam>(`GET /api/pieces/${id}/examination`)
const place = (more: Record<string, unknown>) => ({
  shape: 'area',
  copy: 1,
  x_mm: 100,
  y_mm: 50,
  x2_mm: 300,
  y2_mm: 150,
  size_mm: 0,
  ...more,
})
async function found(id: number, more: Record<string, unknown> = {}) {
  const [lid] = (await examOf(id)).faces
  return people.finisher.send<{ id: number }>(`POST /api/pieces/${id}/findings`, {
    faceId: lid!.id,
    kind: 'peeling',
    grade: 3,
    wish: 'mend',
    note: '',
    place: place({}),
    ...more,
  })
}
const only = async (id: number) => (await examOf(id)).findings[0]!

describe('findings on faces to scale', () => {
  it('keeps the place, and sums the damaged area', async () => {
    const id = await taken()
    await found(id)
    await found(id, { place: place({ x_mm: 200, x2_mm: 400 }) })
    const exam = await examOf(id)
    expect(exam.findings.map(f => f.number)).toEqual([1, 2])
    expect(exam.findings[0]!.place).toEqual(place({}))
    expect(exam.damage[0]!.area_m2).toBeCloseTo(0.03)
  })
  it('moves, withdraws and puts back, each in the log; a stale move is refused', async () => {
    const id = await taken()
    await found(id)
    const f = await only(id)
    await people.finisher.ok(`PATCH /api/findings/${f.id}`, { rowVersion: 1, place: place({ x_mm: 500, x2_mm: 700 }) })
    expect((await people.lead.send(`PATCH /api/findings/${f.id}`, { rowVersion: 1, grade: 5 })).status).toBe(409)
    await people.finisher.ok(`PATCH /api/findings/${f.id}`, { rowVersion: 2, withdrawn: true })
    expect((await examOf(id)).findings).toEqual([])
    await people.finisher.ok(`PATCH /api/findings/${f.id}`, { rowVersion: 3, withdrawn: false })
    expect((await only(id)).place).toMatchObject({ x_mm: 500 })
    const says = await people.owner.ok<{ entries: { says: string }[] } | { says: string }[]>(
      `GET /api/pieces/${id}/log`,
    )
    const text = JSON.stringify(says)
    for (const word of ['was 200 × 100 mm at 100, 50', 'withdrawn', 'put back']) expect(text).toContain(word)
  })
  test.each<[string, Record<string, unknown>, RegExp]>([
    ['off the face', { place: place({ x2_mm: 5000 }) }, /off the face/],
    ['without size', { place: place({ x2_mm: 100 }) }, /corners/],
    ['on a copy that is not there', { place: place({ copy: 2 }) }, /one of this face/],
    ['of an unknown kind', { kind: 'ghost' }, /found/],
    ['negative', { place: place({ size_mm: -2 }) }, /zero/],
  ])('refuses a place %s', async (_what, more, message) => {
    const reply = await found(await taken(), more)
    expect(reply.status).toBe(422)
    expect(reply.body.message).toMatch(message)
  })
  it('reaches route and price: mending is a step with its minutes', async () => {
    const id = await taken()
    await found(id, {
      kind: 'crack',
      place: place({ shape: 'line', x_mm: 100, y_mm: 200, x2_mm: 600, y2_mm: 200, size_mm: 2 }),
    })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    const mend = await stepOf(people.owner, id, 'mend')
    expect(mend.title).toBe('Mend: 1 × crack, the moving crack with a stretching filler')
    expect(mend.attended_min).toBe(8 + 10 + 15)
  })
})

describe('the walk', () => {
  it('goes on where another tablet left it, records findings to be drawn, and corrects the wood', async () => {
    const id = await taken({
      parts: [{ name: 'lid', scope: 'refinish', faces: [{ ...face, substrate: 'veneer', veneer: '' }] }],
    })
    const first = (await examOf(id)).walk
    await people.finisher.ok(`POST /api/pieces/${id}/walk`, { key: first.next!.key, options: ['heated'] })
    const other = (await examOf(id, people.lead)).walk
    expect(other).toMatchObject({ done: 1, next: { key: 'raking-light|lid' } })
    await people.lead.ok(`POST /api/pieces/${id}/walk`, { key: 'raking-light|lid', options: ['dents', 'crazing'] })
    await people.lead.ok(`POST /api/pieces/${id}/walk`, {
      key: 'raking-light|lid',
      options: ['dents', 'crazing', 'runs'],
    })
    const exam = await examOf(id)
    expect(exam.findings.map(f => [f.kind, f.place.shape])).toEqual([
      ['dents', 'unplaced'],
      ['crazing', 'face'],
      ['runs', 'unplaced'],
    ])
    await people.lead.ok(`POST /api/pieces/${id}/walk`, { key: 'veneer-edge|lid', options: ['solid'] })
    expect((await examOf(id)).faces[0]!.substrate).toBe('solid')
  })
  test.each<[string, object]>([
    ['an answer that is none', { key: 'smell', options: ['roses'] }],
    ['a part that is not there', { key: 'raking-light|crown', options: ['nothing'] }],
    ['a part for a question of the piece', { key: 'smell|lid', options: ['musty'] }],
    ['nothing chosen', { key: 'smell', options: [] }],
  ])('refuses %s', async (_what, body) => {
    expect((await people.finisher.send(`POST /api/pieces/${await taken()}/walk`, body)).status).toBe(422)
  })
})

describe('finishes, overruled and not', () => {
  it('keeps groups and layers apart, and lets the restorer say what it is', async () => {
    const id = await taken()
    const legs = (await examOf(id)).faces[1]!
    await people.finisher.ok(`PATCH /api/faces/${legs.id}`, { rowVersion: 1, finishGroup: 'B' })
    await people.finisher.ok(`POST /api/pieces/${id}/tests`, { test: 'look', result: 'opaque', group: 'B' })
    await people.finisher.ok(`POST /api/pieces/${id}/tests`, { test: 'alcohol-drop', result: 'sticky', layer: 2 })
    const { finishes } = await examOf(id)
    expect(finishes.map(f => [f.group, f.layers.length])).toEqual([
      ['A', 2],
      ['B', 1],
    ])
    expect(
      (await people.finisher.send(`POST /api/pieces/${id}/tests`, { test: 'look', result: 'opaque', group: 'K' }))
        .status,
    ).toBe(422)
    await people.finisher.ok(`POST /api/pieces/${id}/examination/overrules`, {
      slug: 'finish-is',
      subject: 'A:1',
      word: 'the maker told us',
      value: 'wax',
    })
    expect((await examOf(id)).finishes[0]!.layers[0]!.overruled).toMatchObject({ value: 'wax' })
    const routes = await people.lead.ok<{ verdicts: { route: string; reasons: { says: string }[] }[] }>(
      `GET /api/pieces/${id}/routes`,
    )
    const scuff = routes.verdicts.find(v => v.route === 'scuff')!
    expect(scuff.reasons.map(r => r.says).join()).toContain('Wax lies on the film')
  })
  it('lets each class of verdict be overruled by whom it allows', async () => {
    const id = await taken({ ...two, lead: 'unknown' })
    await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 50 })
    const [lid] = (await examOf(id)).faces
    await people.finisher.ok(`POST /api/pieces/${id}/moisture`, { faceId: lid!.id, reading_pct: 18, thickness: '20' })
    const say = (who: Caller, slug: string, subject = '') =>
      who.send(`POST /api/pieces/${id}/examination/overrules`, { slug, subject, word: 'known' })
    expect((await say(people.owner, 'lead')).status).toBe(403)
    expect((await say(people.lead, 'too-wet', String(lid!.id))).status).toBe(403)
    expect((await say(people.finisher, 'one-stain-two-colours')).status).toBe(200)
    expect((await say(people.owner, 'too-wet', String(lid!.id))).status).toBe(200)
    expect((await say(people.owner, 'no-such-thing')).status).toBe(404)
    const exam = await examOf(id, people.owner)
    expect(exam.verdicts.find(v => v.slug === 'lead')).toMatchObject({ severity: 'forbidden', mayOverrule: false })
    expect(exam.verdicts.find(v => v.slug === 'too-wet')!.overruled).not.toBeNull()
  })
})

describe('hazards', () => {
  const swabs = (lead: string | null) =>
    fetch(process.env.HANTVERK_SWAB_SET!, { method: 'POST', body: JSON.stringify({ lead }) })
  it('a swab lifts the ban, with who and when; what the ban changed is told', async () => {
    const id = await taken({ ...two, lead: 'unknown' })
    await found(id, { kind: 'old-paint' })
    const banned = await examOf(id)
    expect(banned.hazards.find(h => h.slug === 'lead')!.standing).toBe('open')
    expect(banned.banEffect!.changes.map(c => c.key)).toEqual(expect.arrayContaining(['sand', 'pad']))
    await swabs('unclear')
    expect((await people.finisher.send(`POST /api/pieces/${id}/swab`, { spot: 'inside the lid' })).body.code).toBe(
      'unclear',
    )
    await swabs('no')
    await people.finisher.ok(`POST /api/pieces/${id}/swab`, { spot: 'inside the lid' })
    const free = await examOf(id)
    expect(free.hazards.find(h => h.slug === 'lead')).toMatchObject({
      standing: 'cleared',
      evidence: [{ answer: 'no', method: expect.stringMatching(/simulated.*inside the lid/), by_name: 'finisher' }],
    })
    expect(free.banEffect).toBeNull()
    await swabs('yes')
    await people.finisher.ok(`POST /api/pieces/${id}/swab`, { spot: 'the back' })
    expect((await examOf(id)).hazards.find(h => h.slug === 'lead')!.standing).toBe('confirmed')
    await swabs(null)
  })
  it('powder inside forbids dust until a laboratory says no', async () => {
    const id = await taken()
    await people.finisher.ok(`POST /api/pieces/${id}/walk`, { key: 'insides', options: ['powder'] })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    expect((await planOf(people.owner, id)).steps.map(s => s.key)).toContain('pad')
    const patch = {
      faceId: (await examOf(id)).faces[0]!.id,
      method: 'sanding',
      length: '100',
      width: '100',
      minutes: 4,
      result: 'all-off',
      note: '',
    }
    expect((await people.finisher.send(`POST /api/pieces/${id}/patches`, patch)).body.code).toBe('forbidden')
    await people.lead.ok(`POST /api/pieces/${id}/evidence`, {
      kind: 'pesticide',
      answer: 'no',
      method: 'laboratory 771',
    })
    expect((await people.finisher.send(`POST /api/pieces/${id}/patches`, patch)).status).toBe(200)
  })
})

describe('wood and patches', () => {
  it('waits for wet wood: the plan gets a moisture gate with its days', async () => {
    const id = await taken()
    await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 50 })
    const faceId = (await examOf(id)).faces[0]!.id
    await people.finisher.ok(`POST /api/pieces/${id}/moisture`, { faceId, reading_pct: 16, thickness: '20' })
    expect((await examOf(id)).moisture[0]).toMatchObject({ verdict: 'wait', basis: 'thickness' })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    expect((await planOf(people.owner, id)).steps.some(s => /Moisture: 1[01]\.\d %/.test(s.title))).toBe(true)
    expect(
      (await people.finisher.send(`POST /api/pieces/${id}/moisture`, { faceId, reading_pct: 0, thickness: '20' }))
        .status,
    ).toBe(422)
    expect(
      (
        await people.finisher.send(`POST /api/pieces/${id}/moisture`, {
          faceId: 999999,
          reading_pct: 9,
          thickness: '20',
        })
      ).status,
    ).toBe(422)
  })
  it('scales two patches to the piece and says which is better', async () => {
    const id = await taken()
    const faceId = (await examOf(id)).faces[0]!.id
    const patch = (method: string, minutes: number) =>
      people.finisher.ok(`POST /api/pieces/${id}/patches`, {
        faceId,
        method,
        length: '200',
        width: '200',
        minutes,
        result: 'all-off',
        note: '',
      })
    await patch('stripper', 3)
    await patch('sanding', 5)
    const exam = await examOf(id)
    expect(exam.patchAdvice!.better).toBe('stripper')
    expect(exam.patches[0]!.piece_min).toBeCloseTo((3 / 0.04) * (0.405 + Math.PI * 0.05 * 0.4 * 4 * 2.2 * 1), 0)
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    expect((await stepOf(people.owner, id, 'scrape')).attended_min).toBe(
      Math.ceil(8 + (75 - 6) * (0.405 + Math.PI * 0.05 * 0.4 * 4 * 2.2)),
    )
    expect(
      (
        await people.finisher.send(`POST /api/pieces/${id}/patches`, {
          faceId,
          method: 'stripper',
          length: '3 m',
          width: '3 m',
          minutes: 3,
          result: 'all-off',
          note: '',
        })
      ).body.message,
    ).toMatch(/larger than its face/)
  })
})

describe('house methods', () => {
  it("are the shop's, changed by the owner alone, and a piece may differ", async () => {
    expect((await people.lead.send('PUT /api/house', { 'between-coats': 'P400' })).status).toBe(403)
    expect((await setHouse(people.owner, 'between-coats', 'P80')).body.message).toMatch(/no such option/)
    const id = await taken()
    const pick = { ...choice, finish: 'waterborne-polyurethane' }
    const grits = async () =>
      (await people.owner.ok<{ steps: { kind: string; grits: Grit[] }[] }>(`GET /api/pieces/${id}/plan`)).steps.find(
        s => s.kind === 'sand-coat',
      )!.grits
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...pick, rowVersion: 1 })
    expect(await grits()).toEqual([P(320)])
    expect((await setHouse(people.owner, 'between-coats', 'P400')).status).toBe(200)
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...pick, rowVersion: 2 })
    expect(await grits()).toEqual([P(400)])
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...pick, rowVersion: 3, house: { 'between-coats': 'P220' } })
    expect(await grits()).toEqual([P(220)])
    expect(
      (await people.lead.send(`PUT /api/pieces/${id}/choice`, { ...pick, rowVersion: 4, house: { dance: 'yes' } }))
        .status,
    ).toBe(422)
    expect((await setHouse(people.owner, 'between-coats', 'P320')).status).toBe(200)
  })
  it('judges every route, the least invasive first, with filler and bleach in the question', async () => {
    const id = await taken()
    const query = new URLSearchParams({
      finish: 'nitrocellulose-lacquer',
      fill: 'paste-filler',
      bleach: 'two-part-bleach',
      house: '{"first":"sand"}',
    })
    const { verdicts } = await people.finisher.ok<{
      verdicts: { route: string; standing: string; reversible: string; hazards: string[]; gates: unknown[] }[]
    }>(`GET /api/pieces/${id}/routes?${query}`)
    expect(verdicts.map(v => v.route)).toEqual([
      'as-it-stands',
      'clean-and-wax',
      'renew',
      'polish',
      'amalgamate',
      'spot-repair',
      'scuff',
      'level-barrier-recoat',
      'strip-chemical',
      'strip-mechanical',
      'strip-both',
      'refer',
    ])
    expect(verdicts.find(v => v.route === 'strip-both')!.hazards).toEqual(
      expect.arrayContaining(['bleach', 'solvent', 'spray']),
    )
    expect(verdicts.find(v => v.route === 'level-barrier-recoat')!.gates).toHaveLength(1)
    expect((await people.finisher.send(`GET /api/pieces/${id}/routes?house=nonsense`)).status).toBe(422)
    expect(Object.keys(await people.finisher.ok<object>(`GET /api/pieces/${id}/planning`)).sort()).toEqual([
      'context',
      'hours',
      'house',
      'now_ms',
      'own',
      'prices',
      'rates',
    ])
  })
})

describe('parts and hardware', () => {
  const add = (id: number, more: Record<string, unknown>) =>
    people.finisher.send<{ id: number; mark: string }>(`POST /api/pieces/${id}/items`, {
      name: 'knob',
      kind: 'hardware',
      count: 1,
      ...more,
    })
  const item = async (id: number, mark: string) => (await examOf(id)).items.find(i => i.mark === mark)!
  it('proposes marks, refuses a taken one, counts out and in', async () => {
    const id = await taken()
    expect([(await add(id, { count: 8 })).body.mark, (await add(id, {})).body.mark]).toEqual(['K1', 'K2'])
    expect((await add(id, { mark: 'k1' })).body.message).toMatch(/taken.*K3 is free/)
    const change = async (what: object) =>
      people.finisher.send(`PATCH /api/items/${(await item(id, 'K1')).id}`, {
        rowVersion: (await item(id, 'K1')).row_version,
        ...what,
      })
    expect((await change({ out: 9 })).body.message).toMatch(/There are 8/)
    expect((await change({ out: 8 })).status).toBe(200)
    expect((await change({ back: 9 })).body.message).toMatch(/8 came off/)
    expect((await change({ back: 7 })).status).toBe(200)
  })
  it('moves a set as one, and a place tells what lies in it', async () => {
    const id = await taken()
    await add(id, { set: 'knobs' })
    await add(id, { set: 'knobs' })
    await add(id, { name: 'lock' })
    const first = await item(id, 'K1')
    await people.finisher.ok(`PATCH /api/items/${first.id}`, {
      rowVersion: first.row_version,
      out: 1,
      place: { code: 'bag-77', kind: 'bag' },
    })
    expect((await examOf(id)).items.map(i => i.place)).toEqual(['BAG-77', 'BAG-77', null])
    await add(id, { name: 'stamp', kind: 'mark' })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    const { steps } = await people.owner.ok<{ steps: { kind: string; keeps: string[] }[] }>(
      `GET /api/pieces/${id}/plan`,
    )
    expect(new Set(steps.filter(s => s.keeps.includes('stamp')).map(s => s.kind))).toEqual(
      new Set(['strip', 'scrape', 'wash-off', 'sand']),
    )
    const there = await people.office.ok<{ items: { mark: string; piece_id: number }[] }>('GET /api/places/bag-77')
    expect(there.items.filter(i => i.piece_id === id).map(i => i.mark)).toEqual(['K1', 'K2'])
    const label = await fetch(`${BASE}/api/places/BAG-77/label`)
    expect(label.status).toBe(401)
    const pdf = await people.office.send<{ text: string }>('GET /api/places/BAG-77/label')
    expect(pdf.body.text).toMatch(/^%PDF-1\.7/)
  })
  it('asks the client about what is missing, holds colour back, and goes on with the answer', async () => {
    const id = await taken()
    const made = (
      await add(id, {
        state: 'missing',
        holes: { centres_mm: [0, 64], diameter_mm: 4, plate_w_mm: null, plate_h_mm: null },
      })
    ).body.id
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
      ...choice,
      route: 'scuff',
      finish: 'dewaxed-shellac',
      rowVersion: 1,
    })
    const { id: plan } = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, {
      words: '',
      days: 14,
    })
    const { id: question } = await people.lead.ok<{ id: number }>(`POST /api/items/${made}/question`, {
      words: 'One knob is gone',
      days: 14,
    })
    await people.office.ok(`POST /api/approvals/${plan}/answer`, { ...replied(), via: 'phone', name: 'C', says: '' })
    const held = (await stepOf(people.owner, id, 'coat-1')).start.refusals.map(r => r.says).join()
    expect(held).toMatch(/has not answered about: knob/)
    expect(
      (
        await people.office.send(`POST /api/approvals/${question}/answer`, {
          ...replied(3),
          via: 'phone',
          name: 'C',
          says: '',
        })
      ).body.message,
    ).toMatch(/does not take that answer/)
    await people.office.ok(`POST /api/approvals/${question}/answer`, {
      ...replied(1),
      via: 'phone',
      name: 'C',
      says: '',
    })
    expect((await item(id, 'K1')).answer).toBe('match')
    expect((await stepOf(people.owner, id, 'coat-1')).start.refusals.map(r => r.says).join()).not.toMatch(/knob/)
    await setClock(people.owner, t('08:05'))
    expect((await act(people.finisher, 'start', await stepOf(people.owner, id, 'take-apart'), t('08:05'))).status).toBe(
      200,
    )
  })
})

describe('two people, a lost line, a large piece', () => {
  it('refuses the later of two changes to one item, one face, one finding, and keeps the earlier', async () => {
    const id = await taken()
    await found(id)
    const { id: knob } = await people.finisher.ok<{ id: number }>(`POST /api/pieces/${id}/items`, {
      name: 'knob',
      kind: 'hardware',
      count: 4,
    })
    const { faces } = await examOf(id)
    for (const [path, one, other] of [
      [`/api/items/${knob}`, { out: 4 }, { out: 3 }],
      [`/api/faces/${faces[0]!.id}`, { species: 'ash' }, { species: 'elm' }],
      [`/api/findings/${(await only(id)).id}`, { grade: 4 }, { grade: 1 }],
    ] as const) {
      const replies = await Promise.all([
        people.finisher.send(`PATCH ${path}`, { rowVersion: 1, ...one }),
        people.lead.send(`PATCH ${path}`, { rowVersion: 1, ...other }),
      ])
      expect(replies.map(r => r.status).sort(), path).toEqual([200, 409])
      expect(replies.find(r => r.status === 409)!.body.message).toMatch(/Somebody else changed this/)
    }
  })
  it('books one answer for two taps of the same kind, and never a finding twice', async () => {
    const id = await taken()
    const tap = () =>
      people.finisher.send(`POST /api/pieces/${id}/walk`, { key: 'raking-light|lid', options: ['dents'] })
    expect((await Promise.all([tap(), tap(), tap()])).map(r => r.status)).toEqual([200, 200, 200])
    expect((await examOf(id)).findings).toHaveLength(1)
  })
  it('gives one mark to each of several items added at once', async () => {
    const id = await taken()
    await Promise.all(
      Array.from({ length: 6 }, () =>
        people.finisher.ok(`POST /api/pieces/${id}/items`, { name: 'hinge', kind: 'hardware', count: 1 }),
      ),
    )
    expect((await examOf(id)).items.map(i => i.mark).sort()).toEqual(['H1', 'H2', 'H3', 'H4', 'H5', 'H6'])
  })
  it('answers within two seconds for a piece of 120 faces and 200 findings', async () => {
    const parts = Array.from({ length: 20 }, (_, p) => ({
      name: `part ${p}`,
      scope: 'refinish',
      faces: Array.from({ length: 6 }, (_, f) => ({ ...face, name: `face ${f}`, count: 4 })),
    }))
    const id = await taken({ parts })
    const { faces } = await examOf(id)
    for (let i = 0; i < 200; i += 20)
      await Promise.all(
        Array.from({ length: 20 }, (_, k) =>
          people.finisher.ok(`POST /api/pieces/${id}/findings`, {
            faceId: faces[(i + k) % faces.length]!.id,
            kind: 'scratches',
            grade: 2,
            wish: 'mend',
            note: '',
            place: place({ x_mm: 10 + k }),
          }),
        ),
      )
    const begun = performance.now()
    const exam = await examOf(id)
    expect(performance.now() - begun).toBeLessThan(2000)
    expect(exam.findings).toHaveLength(200)
  })
  it("keeps the room's seasons, and refuses a dry season damper than the damp one", async () => {
    const id = await taken()
    await found(id, {
      kind: 'crack',
      place: place({ shape: 'line', x_mm: 100, y_mm: 200, x2_mm: 600, y2_mm: 200, size_mm: 3 }),
    })
    const swing = async () =>
      (await people.finisher.ok<{ cracks: { swing_mm: number }[] }>(`GET /api/pieces/${id}/examination`)).cracks[0]!
        .swing_mm
    const usual = await swing()
    expect(
      (await people.office.send(`PATCH /api/pieces/${id}`, { rowVersion: 1, roomDryRh: 0.7, roomHumidRh: 0.4 })).body
        .message,
    ).toMatch(/drier/)
    await people.office.ok(`PATCH /api/pieces/${id}`, { rowVersion: 1, roomDryRh: 0.45, roomHumidRh: 0.55 })
    expect(await swing()).toBeLessThan(usual / 2)
  })
  it('a failed moisture gate waits on and is measured again, nothing is repeated', async () => {
    const id = await taken()
    await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 50 })
    await people.finisher.ok(`POST /api/pieces/${id}/moisture`, {
      faceId: (await examOf(id)).faces[0]!.id,
      reading_pct: 15,
      thickness: '20',
    })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    await sayYes(people.office, id)
    const steps = async () => (await planOf(people.owner, id)).steps
    for (let day = new Date(t('09:00', '2026-12-09')); ; day = new Date(day.getTime() + 86_400_000)) {
      if ([0, 6].includes(day.getUTCDay())) continue
      const next = (await steps()).find(s => s.state === 'planned')!
      for (const minute of [-1, 0, 25]) {
        await setClock(people.owner, new Date(day.getTime() + minute * 60_000).toISOString())
        if (minute < 0) await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
        else
          await act(
            people.finisher,
            minute === 0 ? 'start' : 'finish',
            await stepOf(people.owner, id, next.key),
            new Date(day.getTime() + minute * 60_000).toISOString(),
            minute === 0 ? {} : { gate: next.kind === 'gate' ? 'fail' : null, note: 'seen' },
          )
      }
      if (next.kind === 'gate') break
    }
    const after = await steps()
    expect(after.filter(s => s.state === 'planned').map(s => s.key)[0]).toBe('gate~2')
    expect(after.filter(s => s.key.includes('~'))).toHaveLength(1)
  })
})

describe('photographs', () => {
  const shot = async (id: number, colour: string) => {
    const form = new FormData()
    form.append(
      'picture',
      new Blob([
        new Uint8Array(
          await sharp({ create: { width: 30, height: 20, channels: 3, background: colour } })
            .jpeg()
            .toBuffer(),
        ),
      ]),
      'a.jpg',
    )
    return (await people.finisher.ok<{ address: string }>(`POST /api/pieces/${id}/photographs`, form)).address
  }
  it('pairs before and after, and hangs on findings', async () => {
    const id = await taken()
    const [before, after] = [await shot(id, '#a53'), await shot(id, '#fc9')]
    await people.finisher.ok(`PATCH /api/photographs/${after}`, { rowVersion: 1, caption: 'lid', before })
    await found(id)
    await people.finisher.ok(`PATCH /api/findings/${(await only(id)).id}`, { rowVersion: 1, photographs: [before] })
    const exam = await examOf(id)
    expect(exam.photographs.find(p => p.address === after)!.before_address).toBe(before)
    expect(exam.findings[0]!.photographs).toEqual([before])
    const stranger = await shot(await taken(), '#123')
    expect(
      (await people.finisher.send(`PATCH /api/photographs/${after}`, { rowVersion: 2, before: stranger })).status,
    ).toBe(422)
    expect(
      (await people.finisher.send(`PATCH /api/photographs/${after}`, { rowVersion: 2, before: after })).status,
    ).toBe(422)
  })
  it('is in the report, which comes back without loss, in another piece too', async () => {
    const id = await taken({ ...two, lead: 'unknown' })
    await shot(id, '#842')
    await found(id)
    await people.finisher.ok(`POST /api/pieces/${id}/tests`, { test: 'alcohol-drop', result: 'sticky' })
    await people.finisher.ok(`POST /api/pieces/${id}/walk`, { key: 'smell', options: ['musty'] })
    await people.finisher.ok(`POST /api/pieces/${id}/items`, { name: 'key', kind: 'hardware', count: 1 })
    const { id: kept } = await people.finisher.ok<{ id: number }>(`POST /api/pieces/${id}/examinations`, {
      name: 'before',
    })
    const report = await people.office.ok<Record<string, unknown>>(`GET /api/pieces/${id}/report?which=${kept}`)
    const parsed = reportSchema.parse(report)
    expect(parsed.photographs[0]!.data_base64!.length).toBeGreaterThan(100)
    const other = await taken()
    const form = new FormData()
    form.append('report', new Blob([JSON.stringify(report)]), 'r.json')
    const { id: again } = await people.lead.ok<{ id: number }>(`POST /api/pieces/${other}/examinations/read`, form)
    const back = await people.office.ok<Json>(`GET /api/pieces/${other}/report?which=${again}`)
    expect(canonicalJson(back)).toBe(canonicalJson(report as Json))
    const [mine, theirs] = await Promise.all([
      people.office.ok<{ sha256: string }[]>(`GET /api/pieces/${id}/examinations`),
      people.office.ok<{ sha256: string; origin: string }[]>(`GET /api/pieces/${other}/examinations`),
    ])
    expect(theirs[0]).toMatchObject({ sha256: mine[0]!.sha256, origin: 'read-in' })
  })
  test.each<[string, string, RegExp]>([
    ['no JSON', '{', /readable JSON/],
    ['another format', '{"format":"x"}', /no condition report/],
    ['a later version', '{"format":"hantverk-condition-report","version":9}', /version 9/],
    ['a hole in it', '{"format":"hantverk-condition-report","version":1,"faces":[]}', /does not fit/],
  ])('refuses a report that is %s', async (_what, content, message) => {
    const form = new FormData()
    form.append('report', new Blob([content]), 'r.json')
    const reply = await people.lead.send(`POST /api/pieces/${await taken()}/examinations/read`, form)
    expect(reply.status).toBe(422)
    expect(reply.body.message).toMatch(message)
  })
  it('comes as PDF with its fonts, and two examinations compare', async () => {
    const id = await taken()
    await found(id, { grade: 2 })
    const { id: kept } = await people.finisher.ok<{ id: number }>(`POST /api/pieces/${id}/examinations`, {
      name: 'before',
    })
    await people.finisher.ok(`PATCH /api/findings/${(await only(id)).id}`, { rowVersion: 1, grade: 4 })
    await found(id, { kind: 'mould' })
    const pdf = (await people.office.send<{ text: string }>(`GET /api/pieces/${id}/report?format=pdf`)).body.text
    expect(pdf).toMatch(/^%PDF-1\.7/)
    expect(pdf).toMatch(/FontFile/)
    const compared = await people.office.ok<{ findings: { kind: string; change: string }[] }>(
      `GET /api/pieces/${id}/comparison?before=${kept}&after=now`,
    )
    expect(compared.findings.map(f => [f.kind, f.change])).toEqual([
      ['mould', 'new'],
      ['peeling', 'worse'],
    ])
    expect((await people.office.send(`GET /api/pieces/${id}/comparison?before=99999`)).status).toBe(404)
  })
  it('is not handed over while something lies elsewhere', async () => {
    const id = await taken()
    const { id: made } = await people.finisher.ok<{ id: number }>(`POST /api/pieces/${id}/items`, {
      name: 'key',
      kind: 'hardware',
      count: 1,
    })
    await people.finisher.ok(`PATCH /api/items/${made}`, {
      rowVersion: 1,
      out: 1,
      place: { code: 'BAG-9', kind: 'bag' },
    })
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, {
      ...choice,
      route: 'scuff',
      finish: 'dewaxed-shellac',
      rowVersion: 1,
    })
    await sayYes(people.office, id)
    for (let day = new Date(t('09:00', '2026-12-09')); ; day = new Date(day.getTime() + 86_400_000)) {
      const next = (await planOf(people.owner, id)).steps.find(s => s.state === 'planned')
      if (!next) break
      if ([0, 6].includes(day.getUTCDay())) continue
      await setClock(people.owner, new Date(day.getTime() - 60_000).toISOString())
      await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
      await setClock(people.owner, day.toISOString())
      expect((await act(people.finisher, 'start', next, day.toISOString())).status).toBe(200)
      await act(people.finisher, 'finish', await stepOf(people.owner, id, next.key), day.toISOString(), {
        gate: next.kind === 'gate' ? 'pass' : null,
      })
    }
    const handOver = async () =>
      people.office.send(`POST /api/pieces/${id}/hand-over`, {
        rowVersion: (await people.office.ok<{ piece: { row_version: number } }>(`GET /api/pieces/${id}`)).piece
          .row_version,
        to: 'C',
      })
    expect((await handOver()).body.message).toMatch(/Not everything is back: K1 key \(BAG-9\)/)
    const [key] = (await examOf(id)).items
    await people.finisher.ok(`PATCH /api/items/${made}`, { rowVersion: key!.row_version, back: 1 })
    expect((await handOver()).status).toBe(200)
  })
})
