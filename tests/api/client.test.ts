import { createHash } from 'node:crypto'
import mysql from 'mysql2/promise'
import sharp from 'sharp'
import { afterAll, beforeAll, beforeEach, describe, expect, it } from 'vitest'
import type { QuestionShown } from '#core/approval'
import type { Role } from '#shared/rights'
import { act, BASE, Caller, choice, intake, planOf, replied, setClock, shopPeople, turnOf } from './http'

/** What a client is asked: items with their options, links, what an answer does, and when it no longer holds. */
const people = {} as Record<Role, Caller>
const nobody = new Caller()
let sql: mysql.Connection
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
})
afterAll(() => sql.end())
beforeEach(() => setClock(people.owner, '2027-03-08T09:00:00+01:00'))

let count = 0
async function planned() {
  count++
  const client = { name: `Runa Test ${count}`, email: `runa${Date.now()}${count}@example.invalid`, phone: '' }
  const { id } = await people.owner.ok<{ id: number }>('POST /api/pieces', intake({ client }))
  await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
  return { id, ...client }
}
const ask = (id: number, body: object) =>
  people.office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, { words: '', ...body })
interface Line {
  id: number
  state: string
  reminded: number
  mail: { id: number; state: string; error: string; rowVersion: number } | null
  items: { no: number; kind: string; state: string; reply: unknown }[]
}
const line = async (id: number) => (await people.office.ok<Line[]>('GET /api/answers')).find(a => a.id === id)!
interface Mail {
  to: string
  subject: string
  text: string
  html: string
  inReplyTo: string
}
const mailTo = async (address: string, n = 1): Promise<Mail> => {
  for (let tries = 0; tries < 100; tries++) {
    const all = (await (await fetch(`${process.env.HANTVERK_MAILS}/mails`)).json()) as Mail[]
    const its = all.filter(m => m.to.includes(address))
    if (its.length >= n) return its[0]!
    await new Promise(r => setTimeout(r, 200))
  }
  throw new Error(`no mail to ${address}`)
}
const tokenIn = (m: Mail) => /answer\/([\w-]{43})/.exec(m.text)![1]!
interface Page {
  whole: boolean
  where: { says: string } | null
  photographs: unknown[]
  questions: { id: number; state: string; shown: QuestionShown; standing: { no: number; state: string }[] }[]
}
const open = (token: string) => nobody.ok<Page>(`GET /api/answer/${token}`)
const agreed = async (id: number) => {
  const [[row]] = await sql.query<mysql.RowDataPacket[]>(
    'SELECT agreed_minor, accepted_worst_minor FROM piece WHERE id = ?',
    [id],
  )
  return row as { agreed_minor: number | null; accepted_worst_minor: number | null }
}
/** A form as a browser without a script sends it. */
const form = (token: string, fields: Record<string, string>, headers: Record<string, string> = { origin: BASE }) =>
  fetch(`${BASE}/answer/${token}`, {
    ...{ method: 'POST', redirect: 'manual', body: new URLSearchParams(fields) },
    headers: { 'content-type': 'application/x-www-form-urlencoded', ...headers },
  })

describe('alternatives', () => {
  const beside = ['waterborne-polyurethane', 'wiping-varnish']
  it('are worked out when asking; the one that is chosen is taken with exactly its steps and its sum', async () => {
    const piece = await planned()
    const before = await planOf(people.lead, piece.id)
    await ask(piece.id, { beside, words: `Dear ${piece.name}` })
    const token = tokenIn(await mailTo(piece.email))
    const [question] = (await open(token)).questions
    const { items, sums, words } = question!.shown
    expect(items[0]!.options).toHaveLength(3)
    expect(new Set(sums.map(s => s.likely_minor)).size).toBe(3)
    expect(items[0]!.options[2]!.says).toMatch(/^Thin varnish/)
    expect(words).not.toContain(piece.name)
    for (const o of items[0]!.options) expect(o.picture).toContain('<svg')
    // worked out, not taken
    expect((await planOf(people.lead, piece.id)).steps.map(s => s.key)).toEqual(before.steps.map(s => s.key))
    const said = await form(token, {
      'question': String(question!.id),
      'item-1': '2',
      'name': 'Runa',
      'uuid': crypto.randomUUID(),
    })
    expect([said.status, said.headers.get('location')]).toEqual([303, `/answer/${token}?said=thanks`])
    const plan = await planOf(people.lead, piece.id)
    expect(plan.steps.filter(s => s.kind !== 'approval').map(s => (s as unknown as { title: string }).title)).toEqual(
      items[0]!.options[2]!.steps,
    )
    expect(plan.steps.find(s => s.kind === 'approval')!.state).toBe('done')
    expect(plan.steps.some(s => s.kind === 'oil-on')).toBe(false)
    const sum = sums.find(s => s.picks[0] === 2)!
    expect(await agreed(piece.id)).toMatchObject({
      agreed_minor: sum.likely_minor,
      accepted_worst_minor: sum.worst_minor,
    })
  })
  it('may go another way: what becomes of the old finish is said, and the way that is chosen is taken', async () => {
    const piece = await planned()
    const { ways } = await people.office.ok<{ ways: string[] }>(`GET /api/pieces/${piece.id}/asking`)
    expect(ways.length).toBeGreaterThan(1)
    for (const way of ways) {
      const { shown } = await people.office.ok<{ shown: QuestionShown }>(
        `POST /api/pieces/${piece.id}/approvals/preview`,
        { words: '', days: 14, beside: [way] },
      )
      expect(shown.items[0]!.title, way).toBe('Which way shall it go?')
      const [planned, other] = shown.items[0]!.options
      expect(other!.says, way).not.toBe(planned!.says)
      expect(other!.steps.length, way).toBeGreaterThan(0)
    }
    const way = ways.find(r => r !== 'as-it-stands')!
    const { id } = await ask(piece.id, { beside: [way, 'wiping-varnish'] })
    const given = await people.office.ok<{ holds: boolean }>(`POST /api/approvals/${id}/answer`, {
      ...{ replies: [{ no: 1, reply: 1 }], via: 'counter', name: 'Runa', says: '' },
    })
    expect(given.holds).toBe(true)
    expect((await people.office.ok<{ route: string }>(`GET /api/pieces/${piece.id}`)).route).toBe(way)
    const refused = await people.office.send(`POST /api/pieces/${(await planned()).id}/approvals`, {
      ...{ words: '', beside: ['nothing-such'] },
    })
    expect(refused.status).toBe(422)
  })
  it('are looked at before they go: the same page, and nothing is written or sent', async () => {
    const { id } = await planned()
    const body = { words: 'Look', beside, days: 14 }
    const seen = await people.office.ok<{ shown: QuestionShown; letter: { text: string; html: string } }>(
      `POST /api/pieces/${id}/approvals/preview`,
      body,
    )
    expect(
      (await people.office.ok<Line[]>('GET /api/answers')).some(
        a => (a as unknown as { pieceId: number }).pieceId === id,
      ),
    ).toBe(false)
    expect(seen.letter.text).toContain('Look')
    expect(seen.letter.html).toContain('<p>Look</p>')
    const { id: asked } = await ask(id, body)
    const [[row]] = await sql.query<mysql.RowDataPacket[]>(
      'SELECT content FROM plan_snapshot s JOIN approval a ON a.snapshot_id = s.id WHERE a.id = ?',
      [asked],
    )
    const { shown } = JSON.parse(row!.content as string) as { shown: QuestionShown }
    expect(shown.sums).toEqual(seen.shown.sums)
    expect(shown.items.map(i => i.options.map(o => o.steps))).toEqual(
      seen.shown.items.map(i => i.options.map(o => o.steps)),
    )
  })
  it('are other finishes, each once', async () => {
    const { id } = await planned()
    for (const twice of [['varnish-oil'], ['wiping-varnish', 'wiping-varnish'], ['strip-chemical', 'strip-both']])
      expect(
        (await people.office.send(`POST /api/pieces/${id}/approvals`, { words: '', beside: twice })).body.fields,
      ).toHaveProperty('beside')
  })
  it('more ways than can be worked out are asked in two questions', async () => {
    const { id } = await planned()
    const work = ['A', 'B', 'C'].map(says => ({ says, priceMinor: 1000 }))
    expect((await people.office.send(`POST /api/pieces/${id}/approvals`, { words: '', beside, work })).status).toBe(200)
    const made = await people.finisher.ok<{ id: number }>(`POST /api/pieces/${id}/items`, {
      ...{ name: 'Knob', kind: 'hardware', count: 1, state: 'missing' },
    })
    const hardware = [{ itemId: made.id, prices: { replace: 500, match: 900, leave: 0 } }]
    const refused = await people.office.send(`POST /api/pieces/${id}/approvals`, { words: '', beside, work, hardware })
    expect([refused.status, refused.body.code]).toEqual([422, 'too-many'])
  })
})

describe('items', () => {
  it('are answered one by one; prices of work and hardware are agreed, and "let us talk" keeps the rest', async () => {
    const piece = await planned()
    const knob = await people.finisher.ok<{ id: number }>(`POST /api/pieces/${piece.id}/items`, {
      ...{ name: 'Knob', kind: 'hardware', count: 1, state: 'missing' },
    })
    const { id } = await ask(piece.id, {
      work: [{ says: 'New glass', priceMinor: 80_000, days: 3 }],
      hardware: [{ itemId: knob.id, prices: { replace: 12_000, match: 30_000, leave: 0 } }],
      dueOn: '2027-06-01',
    })
    const answer = (replies: object[]) =>
      people.office.send(`POST /api/approvals/${id}/answer`, { replies, via: 'phone', name: 'Runa', says: '' })
    expect(
      (
        await answer([
          { no: 1, reply: 0 },
          { no: 3, reply: 1 },
        ])
      ).status,
    ).toBe(200)
    const first = await agreed(piece.id)
    expect((await line(id)).items.map(i => i.state)).toEqual(['yes', 'open', 'yes', 'open'])
    expect((await line(id)).state).toBe('open')
    expect((await answer([{ no: 1, reply: 'no' }])).body.code).toBe('answered')
    expect(
      (
        await answer([
          { no: 2, reply: 0 },
          { no: 4, reply: 'talk' },
        ])
      ).status,
    ).toBe(200)
    const then = await agreed(piece.id)
    expect(then.agreed_minor! - first.agreed_minor!).toBe(80_000)
    expect((await line(id)).state).toBe('yes')
    const plan = await people.owner.ok<{ cost: { planned_minor: number }; extras: { price_minor: number }[] }>(
      `GET /api/pieces/${piece.id}/plan`,
    )
    expect(plan.extras.map(e => e.price_minor).sort()).toEqual([30_000, 80_000])
    expect(plan.cost.planned_minor).toBe(then.agreed_minor)
    const { piece: row } = await people.owner.ok<{ piece: { due_on: string | null } }>(`GET /api/pieces/${piece.id}`)
    expect(row.due_on).not.toBe('2027-06-01')
  })
  it('in any order: work first does not make the price of the surface look higher', async () => {
    const piece = await planned()
    const { id } = await ask(piece.id, { work: [{ says: 'New glass', priceMinor: 9_000_000 }] })
    const answer = (no: number) =>
      people.office.send<{ holds: boolean }>(`POST /api/approvals/${id}/answer`, {
        ...{ replies: [{ no, reply: 0 }], via: 'phone', name: 'Runa', says: '' },
      })
    expect((await answer(2)).body.holds).toBe(true)
    expect((await answer(1)).body.holds).toBe(true)
    const plan = await people.owner.ok<{ cost: { planned_minor: number } }>(`GET /api/pieces/${piece.id}/plan`)
    expect((await agreed(piece.id)).agreed_minor).toBe(plan.cost.planned_minor)
  })
  it('what was found is done also when it is wanted later than the surface, and its price is agreed', async () => {
    const piece = await planned()
    const { faces } = await people.owner.ok<{ faces: { id: number }[] }>(`GET /api/pieces/${piece.id}`)
    const dent = { faceId: faces[0]!.id, kind: 'open-joint', grade: 3, wish: 'mend' }
    await people.finisher.ok(`POST /api/pieces/${piece.id}/findings`, dent)
    const { id } = await ask(piece.id, { found: true })
    const answer = (no: number) =>
      people.office.ok(`POST /api/approvals/${id}/answer`, {
        ...{ replies: [{ no, reply: 0 }], via: 'phone', name: 'Runa', says: '' },
      })
    await answer(1)
    const [before, first] = [(await planOf(people.lead, piece.id)).steps.length, await agreed(piece.id)]
    await answer(2)
    expect((await planOf(people.lead, piece.id)).steps.length).toBeGreaterThan(before)
    const plan = await people.owner.ok<{ cost: { planned_minor: number } }>(`GET /api/pieces/${piece.id}/plan`)
    const then = await agreed(piece.id)
    expect(then.agreed_minor).toBe(plan.cost.planned_minor)
    expect(then.agreed_minor!).toBeGreaterThan(first.agreed_minor!)
  })
  it('a yes to a price that no longer holds agrees to nothing; the shop sees it and asks anew', async () => {
    const piece = await planned()
    const { id } = await ask(piece.id, {})
    await sql.query('UPDATE shop SET hour_minor = hour_minor * 2')
    try {
      const since = await people.office.ok<{ since: { beyond: boolean } }>(`GET /api/approvals/${id}/since`)
      expect(since.since.beyond).toBe(true)
      const said = await form(tokenIn(await mailTo(piece.email)), {
        'question': String(id),
        'item-1': '0',
        'name': 'Runa',
      })
      expect(said.headers.get('location')).toMatch(/said=overtaken$/)
    } finally {
      await sql.query('UPDATE shop SET hour_minor = hour_minor / 2')
    }
    expect((await line(id)).state).toBe('superseded')
    expect(await agreed(piece.id)).toMatchObject({ agreed_minor: null })
    expect((await planOf(people.lead, piece.id)).steps.find(s => s.kind === 'approval')!.state).toBe('planned')
  })
  it('a plan that is chosen anew overtakes what was asked about it, and leaves the rest open', async () => {
    const piece = await planned()
    const { id } = await ask(piece.id, { work: [{ says: 'New glass', priceMinor: 80_000 }] })
    const { rowVersion } = await planOf(people.lead, piece.id)
    await people.lead.ok(`PUT /api/pieces/${piece.id}/choice`, { ...choice, finish: 'wiping-varnish', rowVersion })
    expect((await line(id)).items.map(i => i.state)).toEqual(['overtaken', 'open'])
  })
})

describe('work that was agreed to', () => {
  it('stays a step of the plan, whatever finish or route is taken after it', async () => {
    const { id } = await planned()
    const { id: asked } = await ask(id, { surface: false, work: [{ says: 'New lock', priceMinor: 45_000, days: 0 }] })
    await people.office.ok(`POST /api/approvals/${asked}/answer`, { ...replied(), via: 'phone', name: 'C', says: '' })
    const titles = async () => (await planOf(people.owner, id)).steps.map(s => s.title)
    expect(await titles()).toContain('New lock')
    const { id: surface } = await ask(id, { beside: ['wiping-varnish'] })
    await people.office.ok(`POST /api/approvals/${surface}/answer`, {
      ...{ replies: [{ no: 1, reply: 1 }], via: 'phone', name: 'C', says: '' },
    })
    expect(await titles()).toContain('New lock')
    const { rowVersion } = await planOf(people.lead, id)
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, finish: 'oil-polyurethane', rowVersion })
    expect((await titles()).filter(t => t === 'New lock')).toHaveLength(1)
  })
})

describe('a higher price than was agreed', () => {
  it('is asked for by its reason, replaces an older question about it, and counts once it is agreed to', async () => {
    const { id } = await planned()
    const cost = (mostMinor: number) =>
      people.office.send<{ id: number; code: string }>(`POST /api/pieces/${id}/approvals`, {
        ...{ words: '', surface: false, mostMinor },
      })
    expect((await cost(9_000_000)).body.code).toBe('nothing-to-ask')
    const { id: first } = await ask(id, {})
    await people.office.ok(`POST /api/approvals/${first}/answer`, { ...replied(), via: 'phone', name: 'C', says: '' })
    const worst = async () =>
      ((await planOf(people.owner, id)) as unknown as { acceptedWorst_minor: number }).acceptedWorst_minor
    const agreed = await worst()
    expect((await cost(agreed)).status).toBe(422)
    const [older, newer] = [(await cost(agreed + 10_000)).body.id, (await cost(agreed + 20_000)).body.id]
    expect((await line(older)).state).toBe('superseded')
    expect((await line(newer)).items).toMatchObject([{ kind: 'cost', state: 'open' }])
    await people.office.ok(`POST /api/approvals/${newer}/answer`, { ...replied(), via: 'phone', name: 'C', says: '' })
    expect(await worst()).toBe(agreed + 20_000)
  })
})

describe('a question whose time has passed', () => {
  it('is closed once, in the log of its piece', async () => {
    const piece = await planned()
    await ask(piece.id, { days: 1 })
    const closed = async () =>
      (await people.owner.ok<{ says: string }[]>(`GET /api/pieces/${piece.id}/log`)).filter(e =>
        /Nobody answered in time/.test(e.says),
      ).length
    await setClock(people.owner, '2027-03-10T10:00:00+01:00')
    const due = () => sql.query("UPDATE job SET due_at = UTC_TIMESTAMP(3) WHERE name = 'remind'")
    await expect.poll(async () => due().then(closed), { timeout: 120_000, interval: 1000 }).toBe(1)
    await turnOf(sql, 'remind')
    expect(await closed()).toBe(1)
  }, 240_000)
})

describe('links', () => {
  it('open their own question and no other; reading answers nothing; a foreign form is refused', async () => {
    const [mine, other] = [await planned(), await planned()]
    const [asked, foreign] = [await ask(mine.id, {}), await ask(other.id, {})]
    const token = tokenIn(await mailTo(mine.email))
    expect(
      (await nobody.send(`POST /api/answer/${token}`, { ...replied(), questionId: foreign.id, name: 'X' })).status,
    ).toBe(404)
    const confirm = `/answer/${token}/confirm?question=${asked.id}&item-1=0`
    for (const path of [`/answer/${token}`, confirm, confirm]) {
      const page = await fetch(BASE + path)
      expect(page.headers.get('x-robots-tag')).toContain('noindex')
      expect(page.headers.get('referrer-policy')).toBe('same-origin')
      expect(await page.text()).not.toContain('<script')
    }
    expect((await line(asked.id)).state).toBe('open')
    const fields = { 'question': String(asked.id), 'item-1': '0', 'name': 'Runa' }
    for (const headers of [{ origin: 'http://elsewhere.invalid' }, { origin: 'null' }])
      expect((await form(token, fields, headers)).headers.get('location')).toMatch(/said=closed$/)
    expect((await line(asked.id)).state).toBe('open')
    expect((await form(token, { question: String(asked.id), name: 'Runa' })).headers.get('location')).toMatch(
      /said=choose$/,
    )
    expect((await form(token, { ...fields, name: ' ' })).headers.get('location')).toMatch(/said=name$/)
    const uuid = crypto.randomUUID()
    const twice = await Promise.all([form(token, { ...fields, uuid }), form(token, { ...fields, uuid })])
    expect(twice.map(r => r.headers.get('location')?.split('=')[1])).toEqual(['thanks', 'thanks'])
    expect((await line(asked.id)).state).toBe('yes')
  })
  it("to a piece's page open all that is asked, say where the piece is, and are taken back", async () => {
    const piece = await planned()
    const asked = await ask(piece.id, {})
    const { address } = await people.office.ok<{ address: string }>(`POST /api/pieces/${piece.id}/link`, {})
    const token = address.split('/').at(-1)!
    const page = await open(token)
    expect(page).toMatchObject({ whole: true, where: { says: 'We wait for your word.' } })
    expect(page.questions.map(q => q.id)).toEqual([asked.id])
    expect(JSON.stringify(page)).not.toMatch(/office|markup|hour_minor/)
    await nobody.ok(`POST /api/answer/${token}`, { ...replied('talk'), questionId: asked.id, name: 'Runa' })
    expect((await line(asked.id)).state).toBe('talk')
    await people.office.ok(`DELETE /api/pieces/${piece.id}/link`)
    expect((await nobody.send(`GET /api/answer/${token}`)).status).toBe(410)
    // the question's own link lives on
    expect((await open(tokenIn(await mailTo(piece.email)))).questions[0]!.state).toBe('talk')
  })
})

describe('letters', () => {
  it('come as text and as HTML, in one thread for each piece, and remind by the rule of the house', async () => {
    const piece = await planned()
    const { id } = await ask(piece.id, { words: 'First <b>words</b>' })
    const first = await mailTo(piece.email)
    expect(first.text).toContain(`Dear ${piece.name},`)
    expect(first.html).toContain('&lt;b&gt;')
    const due = () => sql.query("UPDATE job SET due_at = UTC_TIMESTAMP(3) WHERE name = 'remind'")
    // questions of other pieces may be due before this one
    const reminded = (n: number) =>
      expect
        .poll(async () => due().then(async () => (await line(id)).reminded), { timeout: 120_000, interval: 1000 })
        .toBe(n)
    // at night nobody is reminded
    await setClock(people.owner, '2027-03-13T23:00:00+01:00')
    await turnOf(sql, 'remind')
    expect((await line(id)).reminded).toBe(0)
    await setClock(people.owner, '2027-03-15T10:00:00+01:00')
    await reminded(1)
    const second = await mailTo(piece.email, 2)
    expect(second.subject).toMatch(/still wait/)
    expect(second.inReplyTo).not.toBe('')
    expect((await open(tokenIn(second))).questions[0]!.id).toBe(id)
    await people.owner.ok('PUT /api/shop/reminders', { days: 4, most: 1 })
    await setClock(people.owner, '2027-03-19T10:00:00+01:00')
    await turnOf(sql, 'remind')
    expect((await line(id)).reminded).toBe(1)
    await people.owner.ok('PUT /api/shop/reminders', { days: 4, most: 2 })
  }, 300_000)
  it("come in the house's own words, filled in, and its pages say what stands at their foot", async () => {
    const own = (body: object) => people.owner.send('PUT /api/shop/letters', { kind: 'ask', ...body })
    expect((await own({ subject: 'About {pice}', words: '' })).status).toBe(422)
    expect((await people.lead.send('PUT /api/shop/letters', { kind: 'ask', subject: '', words: '' })).status).toBe(403)
    await own({ subject: 'About your {piece}', words: '{shop} greets {client}: <i>no mark-up</i>' })
    await people.owner.ok('PUT /api/shop/page-words', { words: 'Open on Mondays' })
    const piece = await planned()
    await ask(piece.id, {})
    const letter = await mailTo(piece.email)
    expect(letter.subject).toMatch(/^About your \w/)
    expect(letter.text).toContain(`greets ${piece.name}: <i>`)
    expect(letter.html).toContain('&lt;i&gt;')
    expect(await (await fetch(`${BASE}/answer/${tokenIn(letter)}`)).text()).toContain('Open on Mondays')
    await own({ subject: '', words: '' })
    await people.owner.ok('PUT /api/shop/page-words', { words: '' })
    const next = await planned()
    await ask(next.id, {})
    expect((await mailTo(next.email)).subject).toMatch(/your answer is wanted$/)
  })
  it('that come back are marked by hand, and go out again to a better address', async () => {
    const piece = await planned()
    const { id } = await ask(piece.id, {})
    await mailTo(piece.email)
    const mail = async () => (await line(id)).mail!
    await expect.poll(async () => (await mail()).state).toBe('sent')
    const back = { rowVersion: (await mail()).rowVersion, says: 'no such mailbox' }
    await people.office.ok(`POST /api/mails/${(await mail()).id}/back`, back)
    expect(await mail()).toMatchObject({ state: 'back', error: 'no such mailbox' })
    expect((await people.office.send(`POST /api/mails/${(await mail()).id}/back`, back)).status).toBe(409)
    const to = `right-${piece.email}`
    await people.office.ok(`POST /api/mails/${(await mail()).id}/again`, { rowVersion: (await mail()).rowVersion, to })
    expect(tokenIn(await mailTo(to))).toMatch(/\S/)
  })
})

describe('what hangs on a question', () => {
  interface Hangs {
    id: number
    hangs: { says: string; at: string | null }[]
  }
  const hangs = async (id: number) =>
    (await people.office.ok<Hangs[]>('GET /api/answers')).find(a => a.id === id)!.hangs
  it('is told step by step, with the days of the timetable, until it is answered', async () => {
    const piece = await planned()
    const { id } = await ask(piece.id, {})
    await people.lead.ok('POST /api/schedule')
    const steps = (await planOf(people.lead, piece.id)).steps.filter(s => s.kind !== 'approval')
    const told = await hangs(id)
    expect(told.map(h => h.says).sort()).toEqual(steps.map(s => (s as unknown as { title: string }).title).sort())
    const days = told.map(h => Date.parse(h.at!))
    expect(days.every(Number.isFinite)).toBe(true)
    expect(days).toEqual(days.toSorted((a, b) => a - b))
    await people.office.ok(`POST /api/approvals/${id}/answer`, {
      ...{ replies: [{ no: 1, reply: 0 }], via: 'phone', name: 'Runa', says: '' },
    })
    expect(await hangs(id)).toEqual([])
  })
  it('stands without days before the piece is in, and nothing hangs on an answer about extra work', async () => {
    const enquiry = await people.office.ok<{ id: number }>('POST /api/enquiries', {
      ...{ name: 'Table', client: { name: 'Ulrika', email: '', phone: '' }, kind: 'table', condition: 'worn' },
      ...{ length: '900', width: '900', height: '740', species: 'oak', use: 'daily', tone: 'same', sheen: 'satin' },
      lead: 'no',
    })
    const { id } = await ask(enquiry.id, {})
    const told = await hangs(id)
    expect(told.length).toBeGreaterThan(5)
    expect(told.every(h => h.at === null)).toBe(true)
    const piece = await planned()
    const extra = await ask(piece.id, { surface: false, work: [{ says: 'A new foot', priceMinor: 90_000, days: 2 }] })
    expect(await hangs(extra.id)).toEqual([])
  })
})

describe('an enquiry', () => {
  const asked = (more: object = {}) => ({
    ...{ name: 'Table', client: { name: 'Ulrika', email: '', phone: '' }, kind: 'table', condition: 'worn' },
    ...{ length: '1900', width: '1050', height: '740', species: 'oak', use: 'daily', tone: 'same', sheen: 'satin' },
    lead: 'no',
    ...more,
  })
  interface Estimate {
    ready: boolean
    likely_min: number
    worst_min: number
    likely_minor: number
    worst_minor: number
    earliest: { likely: string; safe: string } | null
    doubts: { says: string; price_minor: number }[]
  }
  const estimateOf = async (more: object = {}) => {
    const { id } = await people.office.ok<{ id: number }>('POST /api/enquiries', asked(more))
    return { id, ...(await people.office.ok<Estimate>(`GET /api/pieces/${id}/estimate`)) }
  }
  it('is planned from its kind and size: hours, price, an honest day, and what would change them', async () => {
    const [table, small, six] = [
      await estimateOf(),
      await estimateOf({ length: '600', width: '400' }),
      await estimateOf({ count: 6 }),
    ]
    expect(table.ready).toBe(true)
    expect(table.worst_min).toBeGreaterThanOrEqual(table.likely_min)
    expect(small.likely_minor).toBeLessThan(table.likely_minor)
    expect(six.likely_min).toBeGreaterThan(3 * table.likely_min)
    expect(table.earliest!.safe >= table.earliest!.likely).toBe(true)
    expect(table.earliest!.likely > '2027-03-08').toBe(true)
    expect(table.doubts.map(d => d.says)).toContain('If it is a tenth larger each way')
    expect(table.doubts.every(d => d.price_minor > 0)).toBe(true)
  })
  it('is in no work before it comes in, can be quoted, declined and taken up again', async () => {
    const { id } = await estimateOf({ condition: 'bare' })
    const listed = async (state: string) =>
      (await people.office.ok<{ id: number }[]>(`GET /api/pieces?state=${state}`)).some(p => p.id === id)
    expect([await listed('active'), await listed('enquiry')]).toEqual([false, true])
    const first = (await planOf(people.lead, id)).steps.find(s => s.kind !== 'approval')!
    const begun = await act(people.lead, 'start', first, '2027-03-08T09:00:00+01:00')
    expect(begun.body.code).toBe('not-in')
    await ask(id, {})
    const become = async (becomes: string) => {
      const { piece } = await people.office.ok<{ piece: { row_version: number } }>(`GET /api/pieces/${id}`)
      return (await people.office.send(`PUT /api/pieces/${id}/state`, { rowVersion: piece.row_version, becomes }))
        .status
    }
    expect([await become('declined'), await become('enquiry'), await become('active'), await become('active')]).toEqual(
      [200, 200, 200, 409],
    )
    expect(await listed('active')).toBe(true)
  })
  it('is asked with the days that the shop has for it, and a yes is measured by those of that day', async () => {
    const { id, earliest } = await estimateOf()
    const shown = async () => {
      const its = await people.office.ok<{ shown: QuestionShown }>(`POST /api/pieces/${id}/approvals/preview`, {
        ...{ words: '', days: 14 },
      })
      return its.shown.sums[0]!
    }
    const days = (from: string, to: string) => (Date.parse(to) - Date.parse(from)) / 86_400_000
    expect(days(earliest!.likely, (await shown()).readyLikely)).toBeLessThanOrEqual(0)
    const later = (by: number) =>
      sql.query(
        `UPDATE outlook JOIN piece ON piece.id = outlook.piece_id
            SET likely_at = likely_at + INTERVAL ? DAY, safe_at = safe_at + INTERVAL ? DAY,
              outlook.changed_no = piece.changed_no
            WHERE piece_id = ?`,
        [by, by, id],
      )
    await later(40)
    expect(Math.abs(days(earliest!.likely, (await shown()).readyLikely) - 40)).toBeLessThanOrEqual(1)
    const answer = async () => {
      const { id: asked } = await ask(id, { days: 14 })
      return (more: number) =>
        later(more).then(() =>
          people.office.ok<{ holds: boolean }>(`POST /api/approvals/${asked}/answer`, {
            ...{ replies: [{ no: 1, reply: 0 }], via: 'phone', name: 'Ulrika', says: '' },
          }),
        )
    }
    // the shop has filled since by more than the days that the question was open for
    expect(await (await answer())(60)).toEqual({ holds: false })
    expect(await (await answer())(0)).toEqual({ holds: true })
  })
  it('refuses what is silly, with words', async () => {
    for (const silly of [
      { kind: 'sofa' },
      { count: 99 },
      { length: '90000' },
      { length: 'long' },
      { condition: 'odd' },
      { name: '' },
    ])
      expect((await people.office.send('POST /api/enquiries', asked(silly))).status, JSON.stringify(silly)).toBe(422)
  })
})

describe('a piece that went home', () => {
  it('comes back as another, with its faces, and each leads to the other', async () => {
    const { id } = await planned()
    expect((await people.office.send(`POST /api/pieces/${id}/again`, {})).status).toBe(409)
    await sql.query(
      "UPDATE piece SET state = 'handed-over', handed_over_at = '2027-03-01', changed_no = changed_no + 1 WHERE id = ?",
      [id],
    )
    const again = await people.office.ok<{ id: number }>(`POST /api/pieces/${id}/again`, {})
    interface Back {
      piece: { follows_id: number; refinished: string; client_id: number }
      became: number | null
      area_m2: number
    }
    const [now, before] = [
      await people.office.ok<Back>(`GET /api/pieces/${again.id}`),
      await people.office.ok<Back>(`GET /api/pieces/${id}`),
    ]
    expect(now.piece).toMatchObject({ follows_id: id, refinished: 'yes', client_id: before.piece.client_id })
    expect([before.became, now.area_m2]).toEqual([again.id, before.area_m2])
  })
})

describe('a question from before questions had items', () => {
  const shown = {
    ...{ about: 'plan', version: 2, shop: 'S', piece: 'P', client: 'Old Client', words: 'Look', currency: 'SEK' },
    ...{
      work: 'Strip with stripper',
      surface: ['oiled'],
      sheen: 'satin',
      ways: [],
      why: [],
      gate: null,
      steps: ['Wash'],
    },
    ...{ likely_minor: 100_000, worst_minor: 9_000_000, readyLikely: '2027-04-01', readySafe: '2028-05-01' },
    answerBy: '2027-04-30',
  }
  it('is shown in the new form, and answered as it was meant', async () => {
    const { id } = await planned()
    const token = 'o'.repeat(43)
    const run = async (text: string, values: unknown[]) =>
      (await sql.query<mysql.ResultSetHeader>(text, values))[0].insertId
    const snapshot = await run(
      `INSERT INTO plan_snapshot (piece_id, reason, at, content, picture, sha256)
        VALUES (?, 'asked', NOW(), ?, '<svg></svg>', 'x')`,
      [id, JSON.stringify({ shown, steps: [], waits: [] })],
    )
    const approval = await run(
      `INSERT INTO approval (piece_id, snapshot_id, step_key, likely_minor, worst_minor, asked_by, asked_at, expires_at)
        VALUES (?, ?, 'approval', 100000, 9000000, (SELECT MIN(id) FROM person), '2027-03-01', '2027-04-30')`,
      [id, snapshot],
    )
    await run("INSERT INTO question_item (approval_id, no, kind) VALUES (?, 1, 'surface')", [approval])
    await run('INSERT INTO link (hash, piece_id, approval_id, made_at) VALUES (?, ?, ?, NOW())', [
      createHash('sha256').update(token).digest('hex'),
      id,
      approval,
    ])
    const [question] = (await open(token)).questions
    expect(question!.shown).toMatchObject({
      client: { name: 'Old Client' },
      sums: [{ picks: [0], likely_minor: 100_000 }],
    })
    expect(question!.shown.items[0]!.options[0]).toMatchObject({ says: 'Strip with stripper', picture: '<svg></svg>' })
    await nobody.ok(`POST /api/answer/${token}`, { ...replied(), name: 'Old Client' })
    expect((await line(approval)).state).toBe('yes')
    expect(await agreed(id)).toMatchObject({ agreed_minor: 100_000, accepted_worst_minor: 9_000_000 })
    expect((await planOf(people.lead, id)).steps.find(s => s.kind === 'approval')!.state).toBe('done')
  })
})

describe('every link and every item', () => {
  const hash = (token: string) => createHash('sha256').update(token).digest('hex')
  const statusOf = async (token: string, questionId: number | null) => [
    (await nobody.send(`GET /api/answer/${token}`)).status,
    (await nobody.send(`POST /api/answer/${token}`, { ...replied('talk'), questionId, name: 'X' })).status,
    (await fetch(`${BASE}/answer/${token}`)).status,
  ]
  it('opens what it is for, while it is open: question and piece × own and other × expired × taken back', async () => {
    const [mine, other] = [await planned(), await planned()]
    const ids = { mine: (await ask(mine.id, {})).id, other: (await ask(other.id, {})).id }
    const token = (kind: string) => kind.padEnd(43, 'l').slice(0, 43)
    const make = (kind: string, approval: number | null, expires: string | null, revoked: string | null) =>
      sql.query(
        'INSERT INTO link (hash, piece_id, approval_id, made_at, expires_at, revoked_at) VALUES (?, ?, ?, NOW(), ?, ?)',
        [hash(token(kind)), mine.id, approval, expires, revoked],
      )
    const [past, future] = ['2027-01-01', '2028-01-01']
    for (const [what, approval] of [
      ['question', ids.mine],
      ['piece', null],
    ] as const) {
      await make(`${what}-open`, approval, future, null)
      await make(`${what}-expired`, approval, past, null)
      await make(`${what}-revoked`, approval, future, past)
      expect(await statusOf(token(`${what}-expired`), ids.mine), what).toEqual([410, 410, 410])
      expect(await statusOf(token(`${what}-revoked`), ids.mine), what).toEqual([410, 410, 410])
      expect(await statusOf(token(`${what}-open`), ids.other), what).toEqual([200, 404, 200])
    }
    // a piece's link says which question it answers; a question's need not
    expect((await statusOf(token('piece-open'), null))[1]).toBe(404)
    expect((await statusOf(token('question-open'), null))[1]).toBe(200)
    expect((await line(ids.mine)).state).toBe('talk')
    expect((await line(ids.other)).state).toBe('open')
    expect(await statusOf(token('nobody'), null)).toEqual([404, 404, 404])
  })
  it('two answers at once: one counts, whichever comes first', async () => {
    for (let round = 0; round < 3; round++) {
      const piece = await planned()
      const { id } = await ask(piece.id, { work: [{ says: 'New glass', priceMinor: 50_000 }] })
      const token = tokenIn(await mailTo(piece.email))
      const say = (reply: number | 'no') =>
        nobody.send(`POST /api/answer/${token}`, { replies: [{ no: 2, reply }], name: 'Runa' })
      const both = await Promise.all([say(0), say('no')])
      expect(both.map(r => r.status).sort()).toEqual([200, 409])
      const yes = both[0].status === 200
      expect((await line(id)).items[1]!.state).toBe(yes ? 'yes' : 'no')
      const [[{ n }]] = (await sql.query<mysql.RowDataPacket[]>('SELECT COUNT(*) AS n FROM extra WHERE piece_id = ?', [
        piece.id,
      ])) as unknown as [[{ n: number }]]
      expect(n).toBe(yes ? 1 : 0)
    }
  })
  it.each([
    ['yes', 0, 'yes', 200],
    ['no', 'no', 'no', 200],
    ['let us talk', 'talk', 'talk', 200],
    ['an option that is not there', 4, 'open', 422],
  ] as const)('%s leaves its item so, and no later answer moves it', async (_says, reply, state, status) => {
    const piece = await planned()
    const { id } = await ask(piece.id, { surface: false, work: [{ says: 'New glass', priceMinor: 50_000 }] })
    const answer = (no: number, said: number | 'no' | 'talk') =>
      people.office.send(`POST /api/approvals/${id}/answer`, {
        ...{ replies: [{ no, reply: said }], via: 'counter', name: 'Runa', says: '' },
      })
    expect((await answer(1, reply)).status).toBe(status)
    expect((await line(id)).items[0]!.state).toBe(state)
    expect((await answer(2, 0)).status).toBe(state === 'open' ? 422 : 409)
    if (state !== 'open') expect((await answer(1, 'no')).body.code).toBe('answered')
    expect((await line(id)).items[0]!.state).toBe(state)
  })
  it('refuses a question about nothing, and one about what is not there', async () => {
    const { id } = await planned()
    const refused = async (body: object) =>
      (await people.office.send(`POST /api/pieces/${id}/approvals`, { words: '', surface: false, ...body })).status
    expect(await refused({})).toBe(422)
    expect(await refused({ bands: [999_999] })).toBe(404)
    expect(await refused({ hardware: [{ itemId: 999_999 }] })).toBe(404)
    expect(await refused({ found: true })).toBe(409)
    expect(await refused({ photographs: ['a'.repeat(64)], work: [{ says: 'X', priceMinor: 1 }] })).toBe(422)
    expect(await refused({ work: [{ says: 'X', priceMinor: -1 }] })).toBe(422)
    expect(await refused({ dueOn: 'soon' })).toBe(422)
    expect(await refused({ work: [{ says: 'X', priceMinor: 1e12 }] })).toBe(422)
  })
})

describe('photographs', () => {
  const taken = async (id: number, red: number) => {
    const background = { r: red, g: 90, b: 60 }
    const picture = await sharp({ create: { width: 40, height: 20, channels: 3, background } })
      .jpeg()
      .toBuffer()
    const form = new FormData()
    form.append('picture', new Blob([new Uint8Array(picture)]), 'a.jpg')
    return (await people.finisher.ok<{ address: string }>(`POST /api/pieces/${id}/photographs`, form)).address
  }
  it('are seen through a link only once the shop lets them go, of this piece alone', async () => {
    const [piece, other] = [await planned(), await planned()]
    const [shown, kept] = [await taken(piece.id, 200), await taken(piece.id, 20)]
    const foreign = await taken(other.id, 120)
    const { id } = await ask(piece.id, { photographs: [shown] })
    const token = tokenIn(await mailTo(piece.email))
    const seen = async (address: string) =>
      (await fetch(`${BASE}/api/answer/${token}/photographs/${address}?size=thumb`)).status
    expect([await seen(shown), await seen(kept), await seen(foreign)]).toEqual([200, 404, 404])
    expect((await open(token)).questions[0]!.shown.photographs.map(p => p.address)).toEqual([shown])
    // a preview lets nothing go
    await people.office.ok(`POST /api/pieces/${piece.id}/approvals/preview`, { words: '', photographs: [kept] })
    expect(await seen(kept)).toBe(404)
    const change = (released: boolean, rowVersion: number) =>
      people.finisher.ok(`PATCH /api/photographs/${kept}`, { rowVersion, released })
    await change(true, 1)
    const { address } = await people.office.ok<{ address: string }>(`POST /api/pieces/${piece.id}/link`, {})
    expect((await open(address.split('/').at(-1)!)).photographs).toHaveLength(2)
    expect(await seen(kept)).toBe(200)
    await change(false, 2)
    expect(await seen(kept)).toBe(404)
    expect((await line(id)).state).toBe('open')
  })
})
