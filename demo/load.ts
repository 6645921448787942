/**
 * Loads the demo shop through the running server's own API, as its people would have worked it. Usage: load.ts BASE
 * CLIMATE MAILS METER
 */
import { DateTime } from 'luxon'
import { Caller, signIn, tokenTo } from './caller'
import { tellColour } from './colourStory'
import { picture } from './picture'
import { loggerFile } from './logger'
import { COMPOSED, composeAsKnown } from './composed'
import { GROUNDS } from './grounds'
import { type DemoPiece, LAST, PIECES as OTHERS, placeOf } from './pieces'
import { wentHome } from './home'
import { askMore } from './questions'
import { furnish } from './rooms'
import { OWNER, PASSWORD, PEOPLE, PIN, PRODUCTS } from './shop'

const [base = '', climate = '', mails = '', meter = ''] = process.argv.slice(2)
const MIN = 60_000
const PIECES: readonly DemoPiece[] = [...OTHERS, ...COMPOSED, ...GROUNDS, ...LAST]
const people = {} as Record<'ingrid' | 'tove' | 'emil' | 'sara', Caller>

interface Step {
  id: number
  key: string
  kind: string
  state: string
  rowVersion: number
  attended_min: number
  amount_ml: number | null
  product: string | null
  start: { may: boolean; opens_ms: number | null; refusals: { code: string; says: string }[] }
}
interface Plan {
  ready: boolean
  steps: Step[]
  dates: { safe: { key: string; start_ms: number }[] }
}

/** The demo opens on a work day at 10:30: today, or the Monday after. */
function opening(): DateTime {
  const today = DateTime.now().setZone(OWNER.zone).set({ hour: 10, minute: 30, second: 0, millisecond: 0 })
  return today.weekday > 5 ? today.plus({ days: 8 - today.weekday }) : today
}
const open = opening()
let now = open.toMillis()
async function at(ms: number) {
  now = ms
  await people.ingrid.send('POST', '/api/clock', { at: new Date(ms).toISOString() })
}
/** The clock at `ms`, with the air read by hand a minute before. */
async function inAir(ms: number) {
  await at(ms - MIN)
  await people.emil.send('POST', '/api/air', { temperature_C: 20.6, rh_pct: 45 })
  await at(ms)
}
const today = (clock: string) =>
  open.set({ hour: Number(clock.slice(0, 2)), minute: Number(clock.slice(3)) }).toMillis()
/** A work day about so many days ago, at a clock time. */
function ago(days: number, clock: string): number {
  let day = open.minus({ days })
  while (day.weekday > 5) day = day.minus({ days: 1 })
  return day.set({ hour: Number(clock.slice(0, 2)), minute: Number(clock.slice(3)) }).toMillis()
}

const planOf = (id: number) => people.tove.get<Plan>(`/api/pieces/${id}/plan`)
const lots = new Map<string, number>()

async function act(id: number, kind: 'start' | 'finish', key: string, more: object = {}) {
  const step = (await planOf(id)).steps.find(s => s.key === key || (s.kind === key && s.state !== 'done'))!
  const used =
    kind === 'finish' && step.product && lots.has(step.product) && step.amount_ml
      ? [{ lotId: lots.get(step.product)!, amountMl: Math.round(step.amount_ml), word: '' }]
      : []
  await people.emil.send('POST', '/api/bench', {
    kind,
    stepId: step.id,
    rowVersion: step.rowVersion,
    happenedAt: new Date(now).toISOString(),
    ...(kind === 'finish' ? { used } : {}),
    ...more,
  })
}

/** Works the plan step by step, each at its earliest safe moment, until `stop` is next or the plan is done. */
async function workTo(id: number, stop: string | null, latest_ms: number) {
  for (;;) {
    const plan = await planOf(id)
    const next = plan.steps.find(s => s.state === 'planned')
    if (!next || next.kind === stop) return
    const due = plan.dates.safe.find(f => f.key === next.key)!.start_ms
    const start = Math.max(now, due)
    if (start + next.attended_min * MIN > latest_ms)
      throw new Error(
        `Piece ${id}: "${next.key}" would start ${DateTime.fromMillis(start).toISO()}, too late for its story`,
      )
    await inAir(start)
    await act(id, 'start', next.key)
    await at(start + Math.max(1, Math.round(next.attended_min * 0.95)) * MIN)
    await act(id, 'finish', next.key, next.kind === 'gate' ? { gate: 'pass' } : {})
  }
}

async function takeIn(p: DemoPiece): Promise<number> {
  const parts = [...new Set(p.faces.map(f => f[0]))].map(name => ({
    name,
    scope: p.alone?.includes(name) ? 'protect' : 'refinish',
    faces: p.faces
      .filter(f => f[0] === name)
      .map(([, face, shape, orientation, length, width, count, species, veneer]) => ({
        name: face,
        rank: 'show',
        shape,
        orientation,
        length,
        width,
        count,
        species,
        substrate: p.made?.[name] ?? (veneer === undefined ? 'solid' : 'veneer'),
        veneer: veneer ?? '',
      })),
  }))
  const due = open.plus({ days: 12 + (p.name.length % 5) * 4 }).toISODate()
  const { id } = await people.sara.send<{ id: number }>('POST', '/api/pieces', {
    name: p.name,
    note: '',
    client: { name: p.client[0], email: p.client[1], phone: '' },
    use: 'daily',
    tone: 'same',
    sheen: 'satin',
    age: 'keep',
    dueOn: due,
    period: 'unknown',
    refinished: 'unknown',
    keepPatina: false,
    lead: 'unknown',
    parts,
    ...p.more,
  })
  await people.sara.picture(`/api/pieces/${id}/photographs`, await picture(p.name))
  return id
}

async function countItems(id: number, p: DemoPiece) {
  for (const { place, out, ask, ...item } of p.items ?? []) {
    const made = await people.emil.send<{ id: number }>('POST', `/api/pieces/${id}/items`, {
      kind: 'hardware',
      count: 1,
      ...item,
    })
    if (place || out)
      await people.emil.send('PATCH', `/api/items/${made.id}`, {
        rowVersion: (await itemsOf(id)).find(i => i.id === made.id)!.row_version,
        out: out ?? null,
        place: place ? { kind: place[0], code: place[1] } : null,
      })
    if (ask) await people.tove.send('POST', `/api/items/${made.id}/question`, { words: ask, days: 14 })
  }
}
const itemsOf = async (id: number) =>
  (await people.emil.get<{ items: { id: number; row_version: number }[] }>(`/api/pieces/${id}/examination`)).items

async function examine(id: number, p: DemoPiece) {
  const { faces } = await people.tove.get<{ faces: { id: number; copies: number; row_version: number }[] }>(
    `/api/pieces/${id}`,
  )
  for (const [face, finishGroup] of Object.entries(p.groups ?? {}))
    await people.tove.send('PATCH', `/api/faces/${faces[Number(face)]!.id}`, { rowVersion: 1, finishGroup })
  for (const [test, result, group = 'A', layer = 1] of p.tests ?? [])
    await people.tove.send('POST', `/api/pieces/${id}/tests`, { test, result, spot: 'under the edge', group, layer })
  const { photographs } = await people.tove.get<{ photographs: { address: string }[] }>(`/api/pieces/${id}/examination`)
  for (const [i, [face, kind, grade, wish = 'mend', place, note = '']] of (p.findings ?? []).entries()) {
    const { id: made } = await people.tove.send<{ id: number }>('POST', `/api/pieces/${id}/findings`, {
      faceId: faces[face]!.id,
      kind,
      grade,
      wish,
      note,
      place: placeOf(place, faces[face]!.copies),
    })
    if (i === 0)
      await people.tove.send('PATCH', `/api/findings/${made}`, {
        rowVersion: 1,
        photographs: photographs.map(x => x.address),
      })
  }
  for (const [key, ...options] of p.walk ?? [])
    await people.emil.send('POST', `/api/pieces/${id}/walk`, { key, options })
  const begun = now
  for (const [face, reading_pct, thickness, daysAgo] of p.moisture ?? []) {
    await inAir(daysAgo === 0 ? today('08:05') : ago(daysAgo, '10:05'))
    await people.emil.send('POST', `/api/pieces/${id}/moisture`, { faceId: faces[face]!.id, reading_pct, thickness })
  }
  if (p.moisture) await at(begun)
  for (const { face, ...patch } of p.patches ?? [])
    await people.emil.send('POST', `/api/pieces/${id}/patches`, {
      ...patch,
      faceId: faces[face]!.id,
      length: '200',
      width: '200',
    })
  await countItems(id, p)
  if (p.kept) await people.tove.send('POST', `/api/pieces/${id}/examinations`, { name: p.kept })
}

/** A photograph after the work, beside the first one. */
async function showAfter(id: number, p: DemoPiece) {
  const { photographs } = await people.sara.get<{ photographs: { address: string }[] }>(`/api/pieces/${id}/examination`)
  const { address } = await people.sara.picture<{ address: string }>(
    `/api/pieces/${id}/photographs`,
    await picture(p.name, true),
  )
  await people.emil.send('PATCH', `/api/photographs/${address}`, {
    rowVersion: 1,
    caption: p.after,
    before: photographs[0]!.address,
  })
}

async function planAndAsk(id: number, p: DemoPiece) {
  const { piece } = await people.tove.get<{ piece: { row_version: number } }>(`/api/pieces/${id}`)
  await people.tove.send('PUT', `/api/pieces/${id}/choice`, {
    colour: 'none',
    conditioner: 'auto',
    ...p.choice,
    rowVersion: piece.row_version,
  })
  if (p.own) {
    const { faces } = await people.tove.get<{ faces: { id: number }[] }>(`/api/pieces/${id}`)
    const { rowVersion } = await people.tove.get<{ rowVersion: number }>(`/api/pieces/${id}/routes`)
    await people.tove.send('PUT', `/api/pieces/${id}/choice`, {
      colour: 'none',
      conditioner: 'auto',
      ...p.own,
      faces: p.own.faces.map(i => faces[i]!.id),
      rowVersion,
    })
  }
  if (p.surface) await composeAsKnown(people.tove, id, p.surface)
  if (p.story === 'planned') return
  const { id: approval } = await people.sara.send<{ id: number }>('POST', `/api/pieces/${id}/approvals`, {
    words: p.words ?? 'This is what we would do.',
    days: p.story === 'asked-expired' ? 7 : 21,
  })
  if (p.story?.startsWith('asked')) return
  await at(now + 25 * MIN)
  await people.sara.send('POST', `/api/approvals/${approval}/answer`, {
    replies: [{ no: 1, reply: p.story === 'declined' ? 'no' : 0 }],
    via: p.name.length % 2 ? 'phone' : 'counter',
    name: p.client[0],
    says: '',
  })
}

/** Starts a step this morning, so that something is always running when the demo opens. */
async function morning(id: number, key: string, start: string, end: string | null) {
  await inAir(today(start))
  await act(id, 'start', key)
  if (!end) return
  await at(today(end))
  await act(id, 'finish', key)
}

const STORY: Record<NonNullable<DemoPiece['story']>, (id: number) => Promise<void>> = {
  'planned': async () => {},
  'coated': id => workTo(id, 'coat', today('09:00')),
  'oiled': id => workTo(id, 'oil-on', today('09:00')),
  'asked': async () => {},
  'asked-question': async id => {
    const piece = PIECES[id - 1]!
    const client = new Caller(base)
    const token = await tokenTo(mails, piece.client[1])
    await at(today('08:52'))
    await client.send('POST', `/api/answer/${token}`, {
      asks: 'Do the arms come off, and will they stay numbered?',
    })
  },
  'approved': async () => {},
  'asked-expired': async () => {},
  'declined': async () => {},
  'handed-over': async id => {
    await workTo(id, null, ago(5, '15:00'))
    const { piece } = await people.sara.get<{ piece: { row_version: number } }>(`/api/pieces/${id}`)
    await at(ago(4, '14:10'))
    await people.sara.send('POST', `/api/pieces/${id}/hand-over`, {
      rowVersion: piece.row_version,
      to: 'Greta Almqvist',
      remind: true,
    })
  },
  'ready': id => workTo(id, null, today('09:00')),
  'curing': id => workTo(id, 'rub-out', today('09:00')),
  'dwelling': async id => {
    await workTo(id, 'strip', today('09:00'))
    await morning(id, 'strip', '10:09', '10:18')
  },
  'oil-on': async id => {
    await workTo(id, 'oil-on', today('09:00'))
    await morning(id, 'oil-on', '09:48', '10:01')
  },
  'conditioned': async id => {
    await workTo(id, 'conditioner', today('09:00'))
    await morning(id, 'conditioner', '09:20', '09:36')
  },
  'dyed': async id => {
    await workTo(id, 'dye', today('09:00'))
    await morning(id, 'dye', '09:40', '09:58')
  },
  'drying': async id => {
    await workTo(id, 'coat', today('09:00'))
    await morning(id, 'coat', '09:05', '09:25')
  },
  'gate-open': id => workTo(id, 'gate', today('09:30')),
  'lacquer-next': id => workTo(id, 'coat', today('09:30')),
  'gate-failed': async id => {
    await workTo(id, 'gate', today('09:30'))
    await inAir(today('08:10'))
    await act(id, 'start', 'gate')
    await at(today('08:16'))
    await act(id, 'finish', 'gate', { gate: 'fail', note: 'halos round the runs' })
  },
}

async function main() {
  people.ingrid = new Caller(base)
  await people.ingrid.send('POST', '/api/first-owner', OWNER)
  for (const [name, login, role] of PEOPLE) {
    await people.ingrid.send('POST', '/api/people', { name, login, role, password: PASSWORD })
    people[login] = await signIn(base, login, PASSWORD)
  }
  for (const caller of Object.values(people))
    await caller.send('PUT', '/api/session/pin', { password: PASSWORD, pin: PIN })
  await furnish(people.ingrid)
  await at(ago(25, '08:00'))
  for (const [name, slug, priceMinor, stock] of PRODUCTS) {
    const { id: productId } = await people.tove.send<{ id: number }>('POST', '/api/products', {
      ...{ name, class: slug, priceMinor },
    })
    for (const [code, amountMl] of stock) {
      const { id } = await people.tove.send<{ id: number }>('POST', '/api/lots', { productId, code, amountMl })
      if (!lots.has(slug)) lots.set(slug, id)
    }
  }
  if (climate)
    await fetch(`${climate}/set`, { method: 'POST', body: JSON.stringify({ temperature_C: 20.5, rh: 0.46 }) })
  for (const p of PIECES) {
    await at(ago(p.begun ?? 0, (p.begun ?? 0) === 0 ? '08:20' : '09:10'))
    const id = await takeIn(p)
    await examine(id, p)
    if (p.choice) await planAndAsk(id, p)
    if (p.story) await STORY[p.story](id)
    if (p.after) await showAfter(id, p)
    console.log(`${id} ${p.name}`)
  }
  const pieceOf = (name: string) => PIECES.findIndex(p => p.name === name) + 1
  if (meter)
    await tellColour({
      ...people,
      ...{ meter, at, today, ago },
      pieces: {
        chairs: pieceOf('Five chairs to match an old one'),
        sewingTable: pieceOf('Sewing table'),
        hallBench: pieceOf('Hall bench'),
      },
    })
  await askMore({ ...people, at, today, pieceOf })
  await wentHome({ ...people, at, today, pieceOf })
  await inAir(open.toMillis())
  await people.emil.send('POST', '/api/air-log', { text: loggerFile(open) })
}

main().catch(error => {
  console.error(error)
  process.exit(1)
})
