/** The schedule: worked out, read by the week, held by hand, with people and rooms as they are. */
import { beforeAll, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import { BASE, type Caller, choice, closeOthers, intake, sayYes, setClock, shopPeople } from './http'

interface Bar {
  task: string
  pieceId: number
  stepId: number
  personId: number | null
  roomId: number | null
  start_ms: number
  end_ms: number
  ifYes: boolean
  pinned: boolean
  why: { by: string; says: string | null }
}
interface Page {
  made_ms: number | null
  working: boolean
  bars: Bar[]
  people: { id: number; name: string }[]
  rooms: { id: number; name: string }[]
  pieces: { pieceId: number; ready_ms: number | null; held: boolean; late: boolean; unplaced: unknown[] }[]
}
const DAY = '2027-03-01'
const t = (clock: string, day = DAY) => `${day}T${clock}:00+01:00`
const people = {} as Record<Role, Caller>
let agreed: number
let asked: number
const page = (from = '') => people.finisher.ok<Page>(`GET /api/timetable${from && `?from=${from}`}`)
const anew = async () => {
  await people.lead.ok('POST /api/schedule')
  return page()
}
const of = (all: Page, id: number) => all.bars.filter(b => b.pieceId === id)
beforeAll(async () => {
  Object.assign(people, await shopPeople())
  await closeOthers()
  await setClock(people.owner, t('08:00'))
  const taken = async () => {
    const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake())
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, rowVersion: 1 })
    return id
  }
  ;[agreed, asked] = [await taken(), await taken()]
  await sayYes(people.office, agreed)
}, 60_000)

describe('a schedule', () => {
  it('places what is agreed in hours, hands and rooms; what hangs on a yes holds nobody', async () => {
    expect((await page()).working).toBe(true)
    const all = await anew()
    expect(Math.abs(all.made_ms! - Date.parse(t('08:00')))).toBeLessThan(120_000)
    const bars = of(all, agreed)
    expect(bars.length).toBeGreaterThan(2)
    for (const b of bars) {
      expect(all.people.map(p => p.id)).toContain(b.personId)
      expect(all.rooms.map(r => r.id)).toContain(b.roomId)
      const hour = new Date(b.start_ms + 3_600_000).getUTCHours()
      expect(hour >= 7 && hour < 17).toBe(true)
    }
    const piece = (id: number) => all.pieces.find(p => p.pieceId === id)!
    expect([piece(agreed).held, piece(asked).held]).toEqual([false, true])
    expect(piece(agreed).unplaced).toEqual([])
    expect(of(all, asked).some(b => b.ifYes)).toBe(true)
  })
  it('says why each stands where it stands, also in another week', async () => {
    for (const b of of(await page(), agreed)) expect(b.why.by).toMatch(/^(now|wait|hand|room|hours|window|dries)$/)
    expect((await page('2027-03-08')).bars.every(b => b.end_ms > Date.parse(t('00:00', '2027-03-08')))).toBe(true)
    expect((await people.lead.send('GET /api/timetable?from=someday')).status).toBe(422)
  })
  it('keeps what was put by hand, over every solving, until it is let go', async () => {
    const [first] = of(await page(), agreed)
    const hold = { startsAt: t('10:00', '2027-03-03'), personId: null, roomId: null }
    expect((await people.office.send(`PUT /api/steps/${first!.stepId}/pin`, hold)).status).toBe(403)
    expect(
      (await people.lead.send(`PUT /api/steps/${first!.stepId}/pin`, { ...hold, startsAt: t('07:00') })).status,
    ).toBe(422)
    await people.lead.ok(`PUT /api/steps/${first!.stepId}/pin`, hold)
    const held = () => page().then(all => of(all, agreed).find(b => b.task === first!.task)!)
    for (let times = 0; times < 2; times++) {
      await anew()
      expect(await held()).toMatchObject({ pinned: true, start_ms: Date.parse(hold.startsAt), why: { by: 'pin' } })
    }
    const rest = of(await page(), agreed).filter(b => b.task !== first!.task)
    for (const b of rest) expect(b.start_ms).toBeGreaterThanOrEqual(Date.parse(hold.startsAt))
    await people.lead.ok(`DELETE /api/steps/${first!.stepId}/pin`)
    await anew()
    const free = await held()
    expect(free.pinned).toBe(false)
    expect(free.start_ms).toBeLessThan(Date.parse(hold.startsAt))
  })
  it('plans nobody into a day off', async () => {
    const shop = await people.owner.ok<{ people: { id: number; rowVersion: number }[] }>('GET /api/rooms')
    const off = [{ from: DAY, until: '2027-03-05', why: 'ill' }]
    const presence = { skills: [], week: null, off }
    for (const { id, rowVersion } of shop.people)
      await people.owner.ok(`PUT /api/people/${id}/presence`, { ...presence, rowVersion })
    const all = await anew()
    expect(of(all, agreed).filter(b => b.start_ms < Date.parse(t('00:00', '2027-03-06')))).toEqual([])
    const again = await people.owner.ok<typeof shop>('GET /api/rooms')
    for (const { id, rowVersion } of again.people)
      await people.owner.ok(`PUT /api/people/${id}/presence`, { ...presence, off: [], rowVersion })
  })
})

interface Effects {
  wasLate_h: number
  late_h: number
  pieces: { id: number; was_ms: number | null; becomes_ms: number | null; late_h: number }[]
  slipped: boolean
  week: Record<'was' | 'then', { personId: number; start_ms: number; titles: string[] }[]>
}
describe('what is not decided yet', () => {
  const IF = 'POST /api/timetable/what-if'
  it('what if: every kind is worked out, nothing is changed by it', async () => {
    await anew()
    const [one] = (await page()).people
    const days = { from: DAY, until: '2027-03-05' }
    for (const change of [
      { kind: 'rush', pieceId: agreed, by: '2027-03-04' },
      { kind: 'away', personId: one!.id, ...days },
      { kind: 'wet', ...days },
      { kind: 'booth' },
    ]) {
      const found = await people.finisher.ok<Effects>(IF, change)
      for (const p of found.pieces) expect(p.was_ms !== p.becomes_ms || p.id === agreed).toBe(true)
    }
    const away = await people.finisher.ok<Effects>(IF, { kind: 'away', personId: one!.id, ...days })
    expect(away.late_h).toBeGreaterThanOrEqual(away.wasLate_h - 0.01)
    // both weeks to be drawn: somebody's work as it is, and none of it where they are away
    const [from, until] = [Date.parse(t('00:00')), Date.parse(t('00:00', '2027-03-06'))]
    const mine = (side: 'was' | 'then') =>
      away.week[side].filter(b => b.personId === one!.id && from <= b.start_ms && b.start_ms < until)
    expect(mine('was').length).toBeGreaterThan(0)
    expect(mine('then')).toEqual([])
    expect((await page()).bars.some(b => b.personId === one!.id)).toBe(true)
    expect((await people.finisher.send(IF, { kind: 'rush', pieceId: 999_999, by: DAY })).status).toBe(409)
    expect((await people.finisher.send(IF, { kind: 'away', personId: 1, from: '2027-03-05', until: DAY })).status).toBe(
      422,
    )
  })
  it('holding a step elsewhere tells who becomes later, before it is held', async () => {
    const [first] = of(await page(), agreed)
    const hold = { startsAt: t('10:00', '2027-03-03'), personId: null, roomId: null }
    const found = await people.lead.ok<Effects>(`POST /api/steps/${first!.stepId}/pin`, hold)
    const mine = found.pieces.find(p => p.id === agreed)!
    expect(mine.becomes_ms! - mine.was_ms!).toBeGreaterThan(3_600_000)
    expect(of(await page(), agreed).some(b => b.pinned)).toBe(false)
  })
  it('a rush that is taken promises its day and goes first; days off are entered by who may', async () => {
    const TAKE = 'POST /api/timetable/take'
    await people.lead.ok(TAKE, { kind: 'rush', pieceId: agreed, by: '2027-03-19' })
    const { piece } = await people.lead.ok<{ piece: { due_on: string; goes_first: number } }>(
      `GET /api/pieces/${agreed}`,
    )
    expect([piece.due_on, piece.goes_first]).toEqual(['2027-03-19', 1])
    const [one] = (await page()).people
    const away = { kind: 'away', personId: one!.id, from: '2027-06-01', until: '2027-06-02' }
    expect((await people.lead.send(TAKE, away)).status).toBe(403)
    await people.owner.ok(TAKE, away)
    expect((await people.lead.send(TAKE, { kind: 'booth' })).status).toBe(422)
    const shop = await people.owner.ok<{ people: { id: number; rowVersion: number; off: { from: string }[] }[] }>(
      'GET /api/rooms',
    )
    const { off, rowVersion } = shop.people.find(p => p.id === one!.id)!
    expect(off.map(o => o.from)).toEqual(['2027-06-01'])
    const presence = { skills: [], week: null, off: [], rowVersion }
    await people.owner.ok(`PUT /api/people/${one!.id}/presence`, presence)
  })
  it('a promise is worked out by lives: the same part the same, and what would help', async () => {
    await anew()
    interface Lived {
      runs: number
      days: { day: string; n: number }[]
    }
    const part = (n: number) => people.finisher.ok<Lived>(`GET /api/pieces/${agreed}/promise?part=${n}`)
    const [first, again, other] = [await part(1), await part(1), await part(2)]
    expect(first).toEqual(again)
    expect(other.days).not.toEqual(first.days)
    expect(first.days.reduce((sum, d) => sum + d.n, 0)).toBeLessThanOrEqual(first.runs)
    type Help = { help: { chance: number; asItIs: number } | null }
    const help = (id: number, kind: string) =>
      people.finisher.ok<Help>(`POST /api/pieces/${id}/promise`, { by: '2027-03-19', kind })
    for (const kind of ['rush', 'answered', 'booth', 'helper']) {
      const { chance, asItIs } = (await help(asked, kind)).help!
      for (const share of [chance, asItIs]) expect(share >= 0 && share <= 1).toBe(true)
    }
    // no answer helps a piece that waits for none
    expect((await help(agreed, 'answered')).help).toBeNull()
    expect((await people.finisher.send(`GET /api/pieces/${agreed}/promise?part=9`)).status).toBe(422)
  })
  it('a search that is stopped keeps what was found', async () => {
    const [, stopped] = await Promise.all([
      people.finisher.ok('POST /api/schedule'),
      new Promise(done => setTimeout(done, 900)).then(() =>
        people.finisher.ok<{ ok: boolean }>('DELETE /api/schedule'),
      ),
    ])
    expect(stopped.ok).toBe(true)
    const page = await people.finisher.ok<{ made_ms: number; bars: unknown[]; searched: number | null }>(
      'GET /api/timetable',
    )
    expect(page.bars.length).toBeGreaterThan(0)
    expect(page.searched).toBeNull()
  })
  it('pieces carry likely and safe dates and their risk', async () => {
    await anew()
    const all = await people.finisher.ok<{ pieces: { pieceId: number; likely_ms: number; safe_ms: number }[] }>(
      'GET /api/timetable',
    )
    const mine = all.pieces.find(p => p.pieceId === agreed)!
    expect(mine.likely_ms).toBeLessThanOrEqual(mine.safe_ms)
    const { risk } = await people.finisher.ok<{ risk: number }>(`GET /api/pieces/${agreed}`)
    expect(risk >= 0 && risk <= 1).toBe(true)
  })
})

describe('the timetable elsewhere', () => {
  const read = (address: string) => fetch(`${BASE}${new URL(address).pathname}`)
  it('a calendar behind a secret address, read without signing in, until it is taken back', async () => {
    const [one] = (await page()).people
    const { address } = await people.owner.ok<{ address: string }>('POST /api/feeds', {
      ...{ kind: 'person', personId: one!.id },
    })
    const reply = await read(address)
    expect([reply.status, reply.headers.get('content-type')]).toEqual([200, 'text/calendar; charset=utf-8'])
    const text = await reply.text()
    const mine = (await page()).bars.filter(b => b.personId === one!.id && !b.ifYes)
    expect(text.match(/BEGIN:VEVENT/g)!.length).toBeGreaterThanOrEqual(mine.length)
    const feeds = await people.owner.ok<{ id: number }[]>('GET /api/feeds')
    await people.owner.ok(`DELETE /api/feeds/${feeds.at(-1)!.id}`)
    expect((await read(address)).status).toBe(404)
  })
  it('of others is made by whoever runs the shop; promised days as whole days', async () => {
    expect((await people.finisher.send('POST /api/feeds', { kind: 'promised' })).status).toBe(403)
    const { address } = await people.owner.ok<{ address: string }>('POST /api/feeds', { kind: 'promised' })
    expect(await (await read(address)).text()).toContain('DTSTART;VALUE=DATE:20270319')
    expect((await people.owner.send('POST /api/feeds', { kind: 'room', roomId: 999_999 })).status).toBe(404)
    expect(await people.finisher.ok('GET /api/feeds')).toEqual([])
  })
  it('the week as CSV', async () => {
    const { status, body } = await people.finisher.send<{ text: string }>('GET /api/timetable/week')
    expect(status).toBe(200)
    const { text } = body
    expect(text.split('\n')[0]).toBe('from,to,who,room,place,piece,name,work,depends,held')
    expect(text.split('\n').length).toBeGreaterThan(3)
  })
})
