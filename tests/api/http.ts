import mysql, { type Connection } from 'mysql2/promise'
import type { Role } from '#shared/rights'

/** A caller of the API with its own cookie. */
export const BASE = process.env.HANTVERK_BASE ?? ''
export const PASSWORD = 'verdigris-9'

export interface Reply<T = Record<string, never>> {
  status: number
  body: T & { code: string; message: string; fields?: Record<string, string> }
}

export class Caller {
  private readonly jar = new Map<string, string>()
  get cookie() {
    return [...this.jar.values()].join('; ')
  }
  /** As a page of the shop sends: with its origin, and each write under a UUID of its own. */
  async send<T = unknown>(route: string, body?: unknown, headers: Record<string, string> = {}): Promise<Reply<T>> {
    const [method, path] = route.split(' ')
    const raw = typeof body === 'string' || body instanceof FormData
    const own: Record<string, string> =
      method === 'GET' ? {} : { 'origin': BASE, 'idempotency-key': crypto.randomUUID() }
    const reply = await fetch(BASE + path, {
      method,
      headers: {
        ...(body === undefined || body instanceof FormData ? {} : { 'content-type': 'application/json' }),
        cookie: this.cookie,
        ...own,
        ...headers,
      },
      body: raw || body === undefined ? (body as BodyInit | undefined) : JSON.stringify(body),
    })
    for (const set of reply.headers.getSetCookie()) this.jar.set(set.split('=')[0]!, set.split(';')[0]!)
    const text = await reply.text()
    return {
      status: reply.status,
      body: (text && /json/.test(reply.headers.get('content-type') ?? '')
        ? JSON.parse(text)
        : { text }) as Reply<T>['body'],
    }
  }

  /** Opens server-sent events, on another instance if wanted. */
  async open(path: string, base = BASE): Promise<ReadableStreamDefaultReader<Uint8Array>> {
    return (await fetch(base + path, { headers: { cookie: this.cookie } })).body!.getReader()
  }

  /** Sends and expects 200. */
  async ok<T = never>(route: string, body?: unknown): Promise<T> {
    const reply = await this.send<T>(route, body)
    if (reply.status !== 200) throw new Error(`${route}: ${reply.status} ${JSON.stringify(reply.body)}`)
    return reply.body
  }
}

export async function signedIn(login: string): Promise<Caller> {
  const caller = new Caller()
  await caller.ok('POST /api/session', { login, password: PASSWORD })
  return caller
}

/** The test shop with one person for each role; made by whichever file of tests comes first. */
export async function shopPeople(): Promise<Record<Role, Caller>> {
  const owner = new Caller()
  const made = await owner.send('POST /api/first-owner', {
    shop: 'Test shop',
    name: 'Owner',
    login: 'owner',
    password: PASSWORD,
    zone: 'Europe/Stockholm',
    currency: 'SEK',
    lengthUnit: 'mm',
  })
  if (made.status !== 200) await owner.ok('POST /api/session', { login: 'owner', password: PASSWORD })
  const people = { owner } as Record<Role, Caller>
  for (const role of ['lead', 'finisher', 'office'] as const) {
    if (made.status === 200) await owner.ok('POST /api/people', { name: role, login: role, role, password: PASSWORD })
    people[role] = await signedIn(role)
  }
  return people
}

const face = {
  name: 'outside',
  rank: 'show',
  shape: 'flat',
  orientation: 'horizontal',
  length: '900',
  width: '45 cm',
  count: 1,
  species: 'oak',
  substrate: 'solid',
  veneer: '',
}
export const intake = (more: Record<string, unknown> = {}) => ({
  name: 'Chart chest',
  note: '',
  client: { name: 'Test client', email: 'client@example.invalid', phone: '' },
  use: 'daily',
  tone: 'same',
  sheen: 'satin',
  age: 'keep',
  dueOn: null,
  period: '1960-1990',
  refinished: 'no',
  keepPatina: false,
  lead: 'no',
  parts: [{ name: 'lid', scope: 'refinish', faces: [face] }],
  ...more,
})
export const choice = { route: 'strip-chemical', finish: 'varnish-oil', colour: 'none', conditioner: 'auto' }
/** Chooses a house method as the page does: with the version of its row. */
export async function setHouse(owner: Caller, slug: string, option: string): Promise<Reply> {
  const { rowVersions } = await owner.ok<{ rowVersions: Record<string, number> }>('GET /api/house')
  return owner.send('PUT /api/house', { slug, choice: option, rowVersion: rowVersions[slug] ?? 0 })
}
export const setClock = (owner: Caller, at: string) => owner.ok('POST /api/clock', { at })
export interface PlanStep {
  product: string | null
  id: number
  key: string
  kind: string
  title: string
  coat: number | null
  state: string
  rowVersion: number
  position: number
  amount_ml: number | null
  faces: number[]
  attended_min: number
  typed: string[]
  cautions: string[]
  start: { may: boolean; refusals: { code: string; says: string }[] }
}
export interface PlanView {
  steps: PlanStep[]
  rowVersion: number
  verdicts: { rule: string; step: string }[]
  cost: { soFar_minor: number }
}
/** An answer to a question's only item: an option, from 0; no; or that it wants talking about. */
export const replied = (reply: number | 'no' | 'talk' = 0) => ({ replies: [{ no: 1, reply }] })
/** Asks the client of a piece, who says yes by phone. */
export async function sayYes(office: Caller, id: number) {
  const asked = await office.ok<{ id: number }>(`POST /api/pieces/${id}/approvals`, { words: 'Please', days: 14 })
  const yes = { ...replied(), via: 'phone', name: 'Test client', says: '' }
  await office.ok(`POST /api/approvals/${asked.id}/answer`, yes)
}
export const planOf = (caller: Caller, id: number) => caller.ok<PlanView>(`GET /api/pieces/${id}/plan`)
export const act = (
  caller: Caller,
  kind: string,
  step: PlanStep,
  happenedAt: string,
  more: Record<string, unknown> = {},
) => caller.send('POST /api/bench', { kind, stepId: step.id, rowVersion: step.rowVersion, happenedAt, ...more })
/** What a step is called in tests: kind and coat, "f-" before those of a fallback. */
export const named = ({ key, kind, coat }: Pick<PlanStep, 'key' | 'kind' | 'coat'>): string =>
  `${key.startsWith('f-') ? 'f-' : ''}${kind}${coat === null ? '' : `-${coat}`}`
export const stepOf = async (caller: Caller, id: number, key: string): Promise<PlanStep> =>
  (await planOf(caller, id)).steps.find(s => s.key === key || named(s) === key)!

/** Works through the plan to a step, an hour apart inside the hours of the shop, the air kept fresh. */
export async function workTo(
  people: Record<Role, Caller>,
  id: number,
  from_at: string,
  stop: string,
  gate: 'pass' | 'fail' = 'pass',
) {
  for (let at = Date.parse(from_at), tries = 0; tries < 400; at += 3_600_000, tries++) {
    const clock = new Date(at)
    if ([0, 6].includes(clock.getUTCDay()) || clock.getUTCHours() < 7 || clock.getUTCHours() > 13) continue
    await setClock(people.owner, clock.toISOString())
    await people.lead.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
    const next = (await planOf(people.owner, id)).steps.find(s => s.state === 'planned')!
    for (let from = at; from < at + 3_000_000; from += 600_000) {
      await setClock(people.owner, new Date(from).toISOString())
      const started = await act(people.lead, 'start', next, new Date(from).toISOString())
      if (started.status !== 200) continue
      await act(people.lead, 'finish', await stepOf(people.owner, id, next.key), new Date(from).toISOString(), {
        gate: next.kind === 'gate' ? gate : null,
        note: 'halos',
      })
      if (named(next as never) === stop) return
      break
    }
  }
  throw new Error(`${stop} was not reached`)
}

/** A layer as a page sends it. */
export interface SentLayer {
  id: number
  act: string
  product: string | null
  productId: number | null
  coats: number | null
  film_um: number | null
  method: string | null
  between: { scale: string; grade: string } | null
  use: string | null
  fields: object
  faces: number[] | null
}
export interface Composed {
  rowVersion: number
  choice: {
    buildUps: {
      id: number
      ground: string
      ending: string
      faces: number[] | null
      layers: (SentLayer & { label: number | null })[]
    }[]
  }
  frozen: number[]
  out: { layer: number; why: string }[]
  products: { id: number; class: string; label: number }[]
}
export const freshLayer = (id: number, given: Partial<SentLayer> & Pick<SentLayer, 'act' | 'product'>): SentLayer => ({
  id,
  productId: null,
  coats: null,
  film_um: null,
  method: null,
  between: null,
  use: null,
  fields: {},
  faces: null,
  ...given,
})
/** Loads a build-up, changes its layers and sends it back, as a page does. */
export async function composed(
  caller: Caller,
  id: number,
  buildUpId: number | null,
  change: (layers: SentLayer[]) => SentLayer[],
  more: object = {},
) {
  const page = await caller.ok<Composed>(`GET /api/pieces/${id}/build-up`)
  const target = page.choice.buildUps.find(b => b.id === buildUpId) ?? page.choice.buildUps[0]!
  return caller.send<{ lost: { title: string }[]; kept: { title: string }[] }>(`PUT /api/pieces/${id}/build-up`, {
    rowVersion: page.rowVersion,
    buildUpId: target.id,
    ending: target.ending,
    layers: change(target.layers.map(({ label: _label, ...l }) => ({ ...l, productId: null }))),
    ...more,
  })
}

/** What other files left in the shop is not in the way any more: a schedule has the pieces of this one alone. */
export async function closeOthers(): Promise<void> {
  const sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
  await sql.query(
    "UPDATE piece SET state = 'declined', changed_no = changed_no + 1 WHERE state IN ('active', 'ready', 'enquiry')",
  )
  await sql.end()
}

/** A turn of one of the server's own jobs, seen to be over. */
export async function turnOf(sql: Connection, job: string): Promise<void> {
  await sql.query('UPDATE job SET due_at = UTC_TIMESTAMP(3) WHERE name = ?', [job])
  for (let due = true; due;) {
    await new Promise(r => setTimeout(r, 200))
    const [rows] = await sql.query('SELECT 1 FROM job WHERE name = ? AND due_at <= UTC_TIMESTAMP(3)', [job])
    due = (rows as unknown[]).length > 0
  }
  // it has begun; a turn takes far less than this
  await new Promise(r => setTimeout(r, 1500))
}
