import { readdirSync } from 'node:fs'
import { beforeAll, beforeEach, describe, expect, it, test } from 'vitest'
import type { QuestionShown } from '#core/approval'
import { API, type RouteSpec } from '#shared/api'
import { type Right, type Role, ROLES } from '#shared/rights'
import {
  act,
  Caller,
  choice,
  intake,
  PASSWORD,
  planOf,
  replied,
  sayYes,
  setClock,
  shopPeople,
  signedIn,
  stepOf,
} from './http'

const DAY = '2026-11-24'
const t = (clock: string, day = DAY) => `${day}T${clock}:00+01:00`
const people = {} as Record<Role, Caller>
const nobody = new Caller()
let piece = 0

const wait = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))
async function until<T>(ask: () => Promise<T | undefined | false>, seconds = 10): Promise<T> {
  for (let i = 0; i < seconds * 5; i++) {
    const got = await ask()
    if (got) return got
    await wait(200)
  }
  throw new Error('it did not happen in time')
}
const freshPiece = async (more = {}) => (await people.owner.ok<{ id: number }>('POST /api/pieces', intake(more))).id
async function planned(more = {}, pick: Record<string, unknown> = choice) {
  const id = await freshPiece(more)
  for (const [test, result] of [
    ['scrape', 'curls'],
    ['lacquer-thinner-drop', 'wrinkles'],
  ])
    await people.lead.ok(`POST /api/pieces/${id}/tests`, { test, result, spot: '' })
  const { piece: row } = await people.owner.ok<{ piece: { row_version: number } }>(`GET /api/pieces/${id}`)
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...pick, rowVersion: row.row_version })
  return id
}
async function approved(more = {}, pick: Record<string, unknown> = choice) {
  const id = await planned(more, pick)
  await sayYes(people.office, id)
  return id
}

/** The clock at this moment, with good air read a minute before. */
async function inGoodAir(at: string) {
  await setClock(people.owner, new Date(Date.parse(at) - 60_000).toISOString())
  await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
  await setClock(people.owner, at)
}

beforeAll(async () => {
  Object.assign(people, await shopPeople())
  await setClock(people.owner, t('10:30'))
  piece = await freshPiece()
})

describe('who may do what', () => {
  it('has every handler in the registry and every entry a handler', () => {
    const files = (dir: string): string[] =>
      readdirSync(dir, { withFileTypes: true }).flatMap(f =>
        f.isDirectory() ? files(`${dir}/${f.name}`) : [`${dir}/${f.name}`],
      )
    const keys = files('server/api')
      .filter(f => !f.includes('[...]'))
      .map(f => {
        const [, path, method] = /^server(.*)\.(\w+)\.ts$/.exec(f)!
        return `${method!.toUpperCase()} ${path!.replace(/\/index$/, '').replace(/\[(\w+)\]/g, ':$1')}`
      })
    expect(keys.sort()).toEqual(Object.keys(API).sort())
  })
  const bench: Right[] = ['work', 'examine', 'mix', 'edit-plan']
  const desk: Right[] = ['see-prices', 'take-in', 'quote', 'hand-over']
  /** As a shop begins. */
  const usual: Record<Role, readonly Right[] | 'all'> = {
    owner: 'all',
    lead: [...bench, ...desk, 'plan', 'store'],
    finisher: bench,
    office: desk,
  }
  const mayUsually = (role: Role, { right }: RouteSpec) =>
    right === 'anyone' || usual[role] === 'all' || (usual[role] as readonly string[]).includes(right)
  const closed = Object.entries<RouteSpec>(API).filter(
    ([key, spec]) =>
      spec.right !== 'public' &&
      key !== 'DELETE /api/session' &&
      key !== 'GET /api/events' &&
      key !== 'GET /api/balance',
  )
  test.each(closed)('%s', async (key, spec) => {
    const path = key.replace(/:\w+/g, '999999')
    const body = key.startsWith('GET') || key.startsWith('DELETE') ? undefined : {}
    expect((await nobody.send(path, body)).status).toBe(401)
    for (const role of ROLES) {
      const { status, body: answer } = await people[role].send(path, body)
      if (mayUsually(role, spec)) expect([200, 404, 409, 415, 422], `${role}: ${answer.message}`).toContain(status)
      else expect(status, role).toBe(403)
    }
  })
  it('cuts off at once who left', async () => {
    const { id } = await people.owner.ok<{ id: number }>('POST /api/people', {
      name: 'Gone',
      login: 'gone',
      role: 'finisher',
      password: PASSWORD,
    })
    const gone = await signedIn('gone')
    await people.owner.ok(`PATCH /api/people/${id}`, { rowVersion: 1, active: false })
    expect((await gone.send('GET /api/now')).status).toBe(401)
  })
  it('slows down guessing', async () => {
    const tries = []
    for (let i = 0; i < 7; i++)
      tries.push((await nobody.send('POST /api/session', { login: 'guess', password: `no ${i}` })).status)
    expect(tries).toEqual([401, 401, 401, 401, 401, 429, 429])
  })
  it('makes a second owner for nobody', async () =>
    expect(
      (
        await nobody.send('POST /api/first-owner', {
          shop: 'x',
          name: 'x',
          login: 'x',
          password: PASSWORD,
          zone: 'UTC',
          currency: 'SEK',
          lengthUnit: 'mm',
        })
      ).status,
    ).toBe(409))
})

describe('bad input gets a clear message and the right status', () => {
  const face = intake().parts[0]!.faces[0]!
  const withFace = (more: object) =>
    intake({ parts: [{ name: 'lid', scope: 'refinish', faces: [{ ...face, ...more }] }] })
  test.each<[string, () => unknown, number, RegExp]>([
    ['text in a length', () => withFace({ length: 'wide' }), 422, /length/],
    ['a negative size', () => withFace({ width: '-5' }), 422, /length/],
    ['a size of a kilometre', () => withFace({ width: '1000 m' }), 422, /20 m/],
    ['half a chair', () => withFace({ count: 1.5 }), 422, /whole/],
    ['text as count', () => withFace({ count: 'two' }), 422, /whole/],
    ['an unknown species', () => withFace({ species: 'unobtainium' }), 422, /species/],
    ['no lead answer', () => intake({ lead: undefined }), 422, /lead/],
    ['a wrong mail address', () => intake({ client: { name: 'x', email: 'nope', phone: '' } }), 422, /mail/],
    ['broken JSON', () => '{"name":', 400, /JSON/],
    ['a list', () => [], 422, /./],
  ])('taking in with %s', async (_what, body, status, message) => {
    const reply = await people.owner.send('POST /api/pieces', body())
    expect(reply.status).toBe(status)
    expect(reply.body.message).toMatch(message)
  })
  test.each<[string, string, unknown, number]>([
    ['an id that is text', 'GET /api/pieces/abc', undefined, 404],
    ['an id of nobody', 'GET /api/pieces/999999', undefined, 404],
    ['an address that does not exist', 'GET /api/nothing', undefined, 404],
    [
      "a finding on another's face",
      'POST /api/pieces/1/findings',
      { faceId: 99999, kind: 'scratches', grade: 2, wish: 'mend' },
      422,
    ],
    ['a grade of nine', 'POST /api/pieces/1/findings', { faceId: 1, kind: 'scratches', grade: 9, wish: 'mend' }, 422],
    ['no part more', 'POST /api/pieces/1/parts', { parts: [] }, 422],
    ['a result that the test does not have', 'POST /api/pieces/1/tests', { test: 'scrape', result: 'sings' }, 422],
    ['a stale piece', 'PATCH /api/pieces/1', { rowVersion: 99, name: 'x' }, 409],
    ['asking before a plan', 'POST /api/pieces/1/approvals', { words: '' }, 409],
    ['handing over what is not ready', 'POST /api/pieces/1/hand-over', { rowVersion: 1, to: 'x' }, 409],
    ['a command of another kind', 'POST /api/bench', { kind: 'dance' }, 422],
    ['air of another planet', 'POST /api/air', { temperature_C: 400, rh_pct: 50 }, 422],
    ['a broken token', 'GET /api/answer/short', undefined, 404],
    ['a token of nobody', `GET /api/answer/${'a'.repeat(43)}`, undefined, 404],
    ['an answer without a name', `POST /api/answer/${'a'.repeat(43)}`, { replies: [{ no: 1, reply: 0 }] }, 422],
  ])('%s', async (_what, route, body, status) => {
    const reply = await people.owner.send(route, body)
    expect(reply.status, reply.body.message).toBe(status)
    expect(reply.body.code).toBeTruthy()
    expect(reply.body.message.length).toBeGreaterThan(10)
  })
  it('refuses what is no picture, and keeps what is one without its EXIF', async () => {
    const send = (data: Uint8Array<ArrayBuffer>) => {
      const form = new FormData()
      form.append('picture', new Blob([data]), 'a.jpg')
      return people.finisher.send<{ address: string }>(`POST /api/pieces/${piece}/photographs`, form)
    }
    expect((await send(new TextEncoder().encode('not a picture'))).status).toBe(415)
    expect((await send(new Uint8Array(26_500_000))).status).toBe(413)
    const png = Buffer.from(
      'iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNk+M9QDwADhgGAWjR9awAAAABJRU5ErkJggg==',
      'base64',
    )
    const { status, body } = await send(new Uint8Array(png))
    expect(status).toBe(200)
    expect((await people.office.send(`GET /api/photographs/${body.address}?size=thumb`)).status).toBe(200)
    expect((await nobody.send(`GET /api/photographs/${body.address}`)).status).toBe(401)
  })
})

describe('examine, route, plan', () => {
  it('keeps a length as typed and works out the area', async () => {
    const id = await freshPiece({
      parts: [
        {
          name: 'lid',
          scope: 'refinish',
          faces: [{ ...intake().parts[0]!.faces[0]!, length: '23 5/8 in', width: '¼ in' }],
        },
      ],
    })
    const page = await people.owner.ok<{ faces: { length_typed: string; length_mm: number; width_typed: string }[] }>(
      `GET /api/pieces/${id}`,
    )
    expect(page.faces[0]).toMatchObject({ length_typed: '23 5/8 in', length_mm: 600.075, width_typed: '¼ in' })
  })
  it('advises the next test and names the finish after it', async () => {
    const id = await freshPiece({ period: '1850-1925' })
    const before = await people.lead.ok<{ finishes: { layers: { next: { test: string; gain_bits: number }[] }[] }[] }>(
      `GET /api/pieces/${id}/examination`,
    )
    expect(before.finishes[0]!.layers[0]!.next[0]!.gain_bits).toBeGreaterThan(0.3)
    await people.finisher.ok(`POST /api/pieces/${id}/tests`, {
      test: 'alcohol-drop',
      result: 'sticky',
      spot: 'under the lid',
    })
    const after = await people.lead.ok<{ found: { finish: string; certainty: number } }>(`GET /api/pieces/${id}`)
    expect(after.found.finish).toBe('shellac')
    expect(after.found.certainty).toBeLessThanOrEqual(0.95)
  })
  it('refuses a route that is ruled out, with the reason', async () => {
    const id = await freshPiece({ tone: 'lighter' })
    const reply = await people.lead.send(`PUT /api/pieces/${id}/choice`, {
      ...choice,
      route: 'scuff',
      rowVersion: 1,
    })
    expect(reply.status).toBe(422)
    expect(reply.body.message).toMatch(/lighter/)
  })
  it('runs the rules on a step added by hand, and only the owner overrules a stop', async () => {
    const id = await planned({}, { ...choice, finish: 'waterborne-polyurethane' })
    const plan = await planOf(people.lead, id)
    const sand = plan.steps.find(s => s.kind === 'clean-off')!
    const faces = (await people.lead.ok<{ faces: { id: number }[] }>(`GET /api/pieces/${id}`)).faces.map(f => f.id)
    await people.lead.ok(`POST /api/pieces/${id}/steps`, {
      kind: 'wax',
      after: sand.id,
      faces,
      product: 'paste-wax',
      grits: [],
      method: 'rag',
      coat: null,
    })
    const added = (await planOf(people.lead, id)).steps.find(s => s.kind === 'wax')!
    expect(added).toMatchObject({ title: 'Wax thin, let haze, buff', typed: [] })
    expect(added.attended_min).toBeGreaterThan(8)
    const verdict = (await planOf(people.lead, id)).verdicts.find(v => v.rule === 'wax-under-anything')!
    expect((await people.lead.send(`POST /api/pieces/${id}/approvals`, { words: '' })).body.message).toMatch(/wax/)
    const word = { rule: verdict.rule, stepKey: verdict.step, word: 'a trial' }
    expect((await people.lead.send(`POST /api/pieces/${id}/overrules`, word)).status).toBe(403)
    expect((await people.owner.send(`POST /api/pieces/${id}/overrules`, word)).status).toBe(200)
  })
  it('keeps what was typed and works out the rest; a change by hand loses no caution, minute or amount', async () => {
    const id = await planned({}, { ...choice, finish: 'waterborne-polyurethane' })
    const coat = await stepOf(people.lead, id, 'coat-1')
    const patch = async (step: { id: number; rowVersion: number }, change: object) =>
      people.lead.send(`PATCH /api/steps/${step.id}`, { rowVersion: step.rowVersion, ...change })
    expect((await patch(coat, { product: null })).body.message).toBe('This step needs a product.')
    expect((await patch(coat, { product: 'mild-soap' })).body.message).toMatch(/not for this kind of step/)
    await patch(coat, { attendedMin: 44 })
    const typed = await stepOf(people.lead, id, 'coat-1')
    expect(typed).toMatchObject({ attended_min: 44, typed: ['attended_min'], title: coat.title })
    await patch(typed, { product: 'oil-polyurethane' })
    const oiled = await stepOf(people.lead, id, 'coat-1')
    expect(oiled.title).toBe('Oil polyurethane, coat 1 of 3')
    expect(oiled.attended_min).toBe(44)
    expect(oiled.amount_ml).not.toBe(typed.amount_ml)
    expect(oiled.cautions).toEqual(['solvent', 'oily-rags'])
    await patch(oiled, { fields: { as: 'barrier' } })
    const barrier = await stepOf(people.lead, id, 'coat-1')
    expect(barrier.title).toBe('Oil polyurethane barrier, coat 1 of 3')
    await patch(barrier, { fields: {} })
    const plain = await stepOf(people.lead, id, 'coat-1')
    expect(plain.title).toBe('Oil polyurethane, coat 1 of 3')
    expect((await patch(plain, { fields: { as: 'nonsense' } })).status).toBe(422)
    Object.assign(oiled, plain)
    await patch(oiled, { follow: ['attended_min'] })
    expect(await stepOf(people.lead, id, 'coat-1')).toMatchObject({ typed: [], attended_min: coat.attended_min })
  })
  it('moves, edits and removes, and refuses a stale row', async () => {
    const id = await planned()
    const wash = await stepOf(people.lead, id, 'wash')
    await people.lead.ok(`PATCH /api/steps/${wash.id}`, { rowVersion: wash.rowVersion, attendedMin: 33 })
    expect(await stepOf(people.lead, id, 'wash')).toMatchObject({ attended_min: 33 })
    expect(
      (await people.lead.send(`PATCH /api/steps/${wash.id}`, { rowVersion: wash.rowVersion, attendedMin: 34 })).status,
    ).toBe(409)
    const cover = await stepOf(people.lead, id, 'cover')
    await people.lead.ok(`PATCH /api/steps/${cover.id}`, {
      rowVersion: cover.rowVersion,
      after: (await stepOf(people.lead, id, 'approval')).id,
    })
    const keys = (await planOf(people.lead, id)).steps.map(s => s.key)
    expect(keys.indexOf('cover')).toBeLessThan(keys.indexOf('wash'))
    await people.lead.ok(`DELETE /api/steps/${cover.id}?rowVersion=${cover.rowVersion}`)
    expect((await planOf(people.lead, id)).steps.map(s => s.key)).not.toContain('cover')
  })
})

interface Mail {
  to: string
  text: string
}
const mails = async (): Promise<Mail[]> =>
  (await fetch(`${process.env.HANTVERK_MAILS}/mails`)).json() as Promise<Mail[]>
const linkOf = (m: Mail) => /answer\/([\w-]{43})/.exec(m.text)?.[1]

describe("the client's word", () => {
  it('goes by mail, is answered by the link, and opens what waited', async () => {
    const email = `c${Date.now()}@example.invalid`
    const id = await planned({ client: { name: 'Asked', email, phone: '' } })
    expect((await stepOf(people.owner, id, 'wash')).start.refusals[0]!.code).toBe('client')
    await people.office.ok(`POST /api/pieces/${id}/approvals`, { words: 'Look at the price', days: 14 })
    const token = await until(async () =>
      linkOf((await mails()).find(m => m.to.includes(email)) ?? { to: '', text: '' }),
    )
    const {
      questions: [page],
    } = await nobody.ok<{ questions: { shown: QuestionShown; state: string }[] }>(`GET /api/answer/${token}`)
    expect(page!.shown.words).toBe('Look at the price')
    expect(page!.shown.items[0]!.options[0]!.picture).toContain('<svg')
    expect(page!.state).toBe('open')
    await nobody.ok(`POST /api/answer/${token}`, { asks: 'May the lid stay dark?' })
    const [asked] = (
      await people.office.ok<{ id: number; pieceId: number; words: { says: string }[] }[]>('GET /api/answers')
    ).filter(a => a.pieceId === id)
    expect(asked!.words[0]!.says).toMatch(/dark/)
    await people.office.ok(`POST /api/approvals/${asked!.id}/words`, { says: 'It may' })
    expect((await nobody.send(`GET /api/answer/${token}`)).status).toBe(200)
    await nobody.ok(`POST /api/answer/${token}`, { ...replied(), name: 'Asked' }).catch(async () => {
      const newer = await until(async () => linkOf((await mails()).find(m => m.to.includes(email))!))
      return nobody.ok(`POST /api/answer/${newer}`, { ...replied(), name: 'Asked' })
    })
    expect((await stepOf(people.owner, id, 'wash')).start.refusals.map(r => r.code)).not.toContain('client')
    const again = await nobody.send(`POST /api/answer/${token}`, { ...replied('no'), name: 'Asked' })
    expect([again.status, again.body.code]).toEqual([409, 'answered'])
  })
  it('is superseded by a newer question, and cannot be given twice', async () => {
    const id = await planned()
    const first = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, { words: '', days: 14 })
    const second = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, { words: '', days: 14 })
    const yes = { ...replied(), via: 'counter', name: 'C', says: '' }
    expect((await people.office.send(`POST /api/approvals/${first.id}/answer`, yes)).status).toBe(409)
    expect((await people.office.send(`POST /api/approvals/${second.id}/answer`, yes)).status).toBe(200)
    expect((await people.office.send(`POST /api/approvals/${second.id}/answer`, yes)).status).toBe(409)
  })
  it('expires', async () => {
    const id = await planned()
    const { id: approval } = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, {
      words: '',
      days: 1,
    })
    await setClock(people.owner, t('10:30', '2026-11-26'))
    expect(
      (
        await people.office.send(`POST /api/approvals/${approval}/answer`, {
          ...replied(),
          via: 'phone',
          name: 'C',
          says: '',
        })
      ).status,
    ).toBe(410)
    await setClock(people.owner, t('10:30'))
  })
})

describe('at the bench', () => {
  beforeEach(() => setClock(people.owner, t('07:40')))
  it('starts, repeats without booking twice, says not yet, and takes back', async () => {
    const id = await approved()
    await setClock(people.owner, t('10:30'))
    const wash = await stepOf(people.owner, id, 'wash')
    const command = { kind: 'start', stepId: wash.id, rowVersion: wash.rowVersion, happenedAt: t('10:20') }
    const once = { 'idempotency-key': crypto.randomUUID() }
    expect((await people.finisher.send('POST /api/bench', command, once)).status).toBe(200)
    expect((await people.finisher.send('POST /api/bench', command, once)).status).toBe(200)
    expect(
      (await people.finisher.ok<unknown[]>(`GET /api/pieces/${id}/log`)).filter(
        e => (e as { kind: string }).kind === 'started',
      ),
    ).toHaveLength(1)
    expect((await act(people.lead, 'start', wash, t('10:25'))).status).toBe(409)
    const running = await stepOf(people.owner, id, 'wash')
    expect((await act(people.lead, 'finish', running, t('10:10'))).body.code).toBe('before-start')
    expect((await act(people.lead, 'finish', running, t('12:00'))).body.code).toBe('future')
    expect((await act(people.lead, 'finish', running, t('10:29'))).status).toBe(200)
    const cover = await stepOf(people.owner, id, 'cover')
    expect((await act(people.lead, 'start', cover, t('10:30'))).body.code).toBe('too-early')
    expect((await act(people.lead, 'not-dry', cover, t('10:30'))).status).toBe(200)
    expect((await act(people.lead, 'undo', await stepOf(people.owner, id, 'wash'), t('10:30'))).status).toBe(200)
    expect((await stepOf(people.owner, id, 'wash')).state).toBe('running')
  })
  it('refuses stripper whose window ends after closing, with the latest start', async () => {
    const id = await approved()
    for (const [i, { key, state }] of (await planOf(people.owner, id)).steps.entries()) {
      if (key === 'strip') break
      if (state !== 'planned') continue
      const at = t(`${String(8 + i).padStart(2, '0')}:00`)
      await setClock(people.owner, at)
      await act(people.finisher, 'start', await stepOf(people.owner, id, key), at)
      await act(people.finisher, 'finish', await stepOf(people.owner, id, key), at)
    }
    await setClock(people.owner, t('16:45'))
    const reply = await act(people.finisher, 'start', await stepOf(people.owner, id, 'strip'), t('16:45'))
    expect(reply.body).toMatchObject({ code: 'ends-after-closing' })
    expect(reply.body.message).toMatch(/17:15.*16:30/)
    await setClock(people.owner, t('10:30'))
  })
  it('never takes a lot below zero without a word, and gives back what is taken back', async () => {
    const id = await approved()
    const { id: productId } = await people.lead.ok<{ id: number }>('POST /api/products', {
      name: `soap ${id}`,
      class: 'mild-soap',
      priceMinor: 3000,
    })
    const { id: lotId } = await people.lead.ok<{ id: number }>('POST /api/lots', {
      productId,
      code: 'S1',
      amount: 10,
    })
    const left = async () =>
      (
        await people.lead.ok<{ products: { id: number; lots: { left_amount: number }[] }[] }>('GET /api/store')
      ).products.find(p => p.id === productId)!.lots[0]!.left_amount
    await setClock(people.owner, t('07:41'))
    await act(people.finisher, 'start', await stepOf(people.owner, id, 'wash'), t('07:41'))
    const running = await stepOf(people.owner, id, 'wash')
    const used = (word: string) => ({ used: [{ lotId, amountMl: 25, word }] })
    const refused = await act(people.finisher, 'finish', running, t('07:41'), used(''))
    expect(refused.status).toBe(422)
    expect(refused.body.message).toMatch(/10 ml.*25 ml/)
    expect(await left()).toBe(10)
    expect((await act(people.finisher, 'finish', running, t('07:41'), used('can was fuller'))).status).toBe(200)
    expect(await left()).toBe(0)
    expect((await planOf(people.owner, id)).cost.soFar_minor).toBeGreaterThan(0)
    await act(people.finisher, 'undo', await stepOf(people.owner, id, 'wash'), t('07:41'))
    expect(await left()).toBe(10)
  })
  it('goes over to the fallback when the gate fails, inside the accepted worst', async () => {
    const id = await approved({}, { ...choice, route: 'level-barrier-recoat', finish: 'dewaxed-shellac' })
    let day = 24
    for (let key = ''; key !== 'gate'; day++) {
      for (let hour = 8; hour < 17 && key !== 'gate'; hour++) {
        await inGoodAir(t(`${String(hour).padStart(2, '0')}:00`, `2026-11-${day}`))
        const next = (await planOf(people.owner, id)).steps.find(s => s.start.may)
        if (!next) continue
        key = next.kind === 'gate' ? 'gate' : ''
        const at = t(`${String(hour).padStart(2, '0')}:00`, `2026-11-${day}`)
        await act(people.lead, 'start', next, at)
        const reply = await act(
          people.lead,
          'finish',
          await stepOf(people.owner, id, next.key),
          at,
          key ? { gate: 'fail', note: 'halos' } : {},
        )
        if (key) expect(reply.body).toMatchObject({ ok: true, askAgain: false })
      }
      if (day > 29) break
    }
    const plan = await planOf(people.owner, id)
    expect(plan.steps.filter(s => s.state === 'skipped').length).toBeGreaterThan(0)
    expect(plan.steps.some(s => s.key === 'f-strip' && s.state === 'planned')).toBe(true)
    await setClock(people.owner, t('10:30'))
  })
  it.each(['HANTVERK_BASE', 'HANTVERK_SECOND'])(
    'hears within two seconds, on whichever instance: %s',
    async instance => {
      const reader = await people.office.open('/api/events', process.env[instance])
      await reader.read()
      const { faces } = await people.lead.ok<{ faces: { id: number }[] }>(`GET /api/pieces/${piece}`)
      const begun = Date.now()
      await people.lead.ok(`POST /api/pieces/${piece}/findings`, {
        faceId: faces[0]!.id,
        kind: 'scratches',
        grade: 2,
        wish: 'mend',
        note: '',
      })
      let text = ''
      while (!text.includes(`"piece":${piece}`)) text += new TextDecoder().decode((await reader.read()).value)
      expect(Date.now() - begun).toBeLessThan(2000)
      expect(text).not.toContain('scratches')
      await reader.cancel()
    },
  )
  it('goes from taken in to handed over', async () => {
    const id = await approved({}, { ...choice, finish: 'nitrocellulose-lacquer' })
    for (let hour = 0; hour < 24 * 16; hour++) {
      const at = new Date(Date.parse(t('08:00')) + hour * 3_600_000).toISOString()
      if (new Date(at).getUTCHours() < 7 || new Date(at).getUTCHours() > 15) continue
      await inGoodAir(at)
      const { steps } = await planOf(people.owner, id)
      if (steps.every(s => s.state === 'done')) break
      const next = steps.find(s => s.start.may)
      if (!next) continue
      const started = await act(people.lead, 'start', next, at)
      expect(started.status, `${next.key}: ${started.body.message}`).toBe(200)
      if (next.key === 'strip') await setClock(people.owner, new Date(Date.parse(at) + 20 * 60_000).toISOString())
      expect((await act(people.lead, 'finish', await stepOf(people.owner, id, next.key), at)).status).toBe(200)
    }
    const { piece: row } = await people.owner.ok<{ piece: { state: string; row_version: number } }>(
      `GET /api/pieces/${id}`,
    )
    expect(row.state).toBe('ready')
    const open = await people.office.ok<{ holds: string[]; open: string[] }>(`GET /api/pieces/${id}/hand-over`)
    expect(open.holds).toEqual([])
    expect(open.open.join(' ')).toMatch(/The finish cures until/)
    const to = (who: string, rowVersion: number) =>
      people.office.send(`POST /api/pieces/${id}/hand-over`, { rowVersion, to: who })
    expect((await to('', row.row_version)).body.fields).toHaveProperty('to')
    expect((await to('A neighbour', row.row_version)).status).toBe(200)
    const back = (rowVersion: number) =>
      people.office.send(`DELETE /api/pieces/${id}/hand-over?rowVersion=${rowVersion}`)
    expect((await back(row.row_version)).status).toBe(409)
    expect((await back(row.row_version + 1)).status).toBe(200)
    expect((await to('Test client', row.row_version + 2)).status).toBe(200)
    const clock = (await people.owner.ok<{ now_ms: number }>('GET /api/now')).now_ms
    await setClock(people.owner, new Date(clock + 25 * 3_600_000).toISOString())
    expect((await back(row.row_version + 3)).body.code).toBe('too-late')
    expect(
      (await people.lead.send(`POST /api/pieces/${id}/tests`, { test: 'look', result: 'crazed', spot: '' })).body.code,
    ).toBe('handed-over')
    await setClock(people.owner, t('10:30'))
  })
})
