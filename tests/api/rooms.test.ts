/** Rooms, racks, and when people are there. */
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { Role } from '#shared/rights'
import type { Caller } from './http'
import { choice, intake, planOf, setClock, shopPeople } from './http'

interface Room {
  id: number
  name: string
  rowVersion: number
  racks: { id: number; code: string; area_m2: number | null; length_text: string }[]
  air: { now: { temperature_C: number; rh: number } | null; rain: unknown } | null
}
interface Page {
  rooms: Room[]
  people: { id: number; name: string; rowVersion: number; skills: string[]; week: unknown; off: unknown[] }[]
  fetchDays: number[]
  hours: { closures: string[] }
}
const people = {} as Record<Role, Caller>
interface Settings {
  rowVersion: number
  hours: { week: Record<number, [number, number][]> }
  closures: { day: string; why: string }[]
}
let before: Settings
let sql: mysql.Connection
beforeAll(async () => {
  sql = await mysql.createConnection(process.env.HANTVERK_SQL!)
  Object.assign(people, await shopPeople())
  await setClock(people.owner, '2026-12-03T08:00:00+01:00')
  before = await people.owner.ok<Settings>('GET /api/shop')
})
afterAll(async () => {
  await people.owner.ok('POST /api/rooms', {
    ...{ name: 'Finishing room', dust: false, wet: true, other: true, changeOverMin: 30 },
  })
  const { rowVersion } = await people.owner.ok<Settings>('GET /api/shop')
  const week = [1, 2, 3, 4, 5, 6, 7].map(d => before.hours.week[d] ?? [])
  await people.owner.ok('PUT /api/shop/hours', { rowVersion, week, closures: before.closures })
})
const page = () => people.finisher.ok<Page>('GET /api/rooms')
const booth = {
  ...{ name: 'Booth', dust: false, wet: true, other: false, outdoors: false, oneAtATime: true, changeOverMin: 45 },
  ...{ length: '118 1/8 in', volume_m3: 40, airChanges_h: 60 },
}

describe('rooms', () => {
  it('a new shop has one for dust and one for coats', async () => {
    expect((await page()).rooms.map(r => r.name)).toEqual(['Workshop', 'Finishing room'])
  })
  it('are added, changed and taken out, each once under its name', async () => {
    const { id } = await people.owner.ok<{ id: number }>('POST /api/rooms', booth)
    expect((await people.owner.send('POST /api/rooms', booth)).body.fields).toHaveProperty('name')
    const mine = async () => (await page()).rooms.find(r => r.id === id)!
    expect(await mine()).toMatchObject({ length: '118 1/8 in', volume_m3: 40, airChanges_h: 60, oneAtATime: true })
    const change = { ...booth, name: 'Spray booth', rowVersion: (await mine()).rowVersion }
    await people.owner.ok(`PUT /api/rooms/${id}`, change)
    expect((await people.owner.send(`PUT /api/rooms/${id}`, change)).status).toBe(409)
    await people.owner.ok('POST /api/racks', { roomId: id, code: 'rack-9', kind: 'rack', area_m2: 6, length: '2 m' })
    expect((await mine()).racks).toMatchObject([{ code: 'RACK-9', area_m2: 6, length_text: '2 m' }])
    await people.owner.ok(`DELETE /api/racks/${(await mine()).racks[0]!.id}`)
    expect((await mine()).racks).toEqual([])
    await people.owner.ok(`DELETE /api/rooms/${id}`)
    expect(await mine()).toBeUndefined()
  })
  it.each([
    ['no name', { name: ' ' }],
    ['a day and more of cleaning', { changeOverMin: 1441 }],
    ['no air at all', { airChanges_h: 0 }],
    ['a length that is none', { length: 'long' }],
    ['a field that nobody knows', { colour: 'red' }],
  ])('refuses %s', async (_, more) => {
    expect((await people.owner.send('POST /api/rooms', { ...booth, ...more })).status).toBe(422)
  })
  it('a room with a logger of its own has its own air, and coats there wait for it', async () => {
    const mine = async (id: number) => (await page()).rooms.find(r => r.id === id)!
    const { id } = await people.owner.ok<{ id: number }>('POST /api/rooms', { ...booth, logger: 'booth-9' })
    expect((await mine(id)).air).toEqual({ now: null, rain: null })
    const byHand = { temperature_C: 24.5, rh_pct: 40, roomId: id }
    await people.finisher.ok('POST /api/air', byHand)
    expect((await mine(id)).air).toEqual({ now: { temperature_C: 24.5, rh: 0.4 }, rain: null })
    const { air } = await people.finisher.ok<{ air: { rooms: unknown[] } }>('GET /api/now')
    expect(air.rooms).toEqual([{ id, name: 'Booth', air: { temperature_C: 24.5, rh: 0.4 }, rain: null }])
    await people.owner.ok(`DELETE /api/rooms/${id}`)
    const other = (await page()).rooms[0]!
    expect(other).toMatchObject({ air: null })
    expect((await people.finisher.send('POST /api/air', { ...byHand, roomId: other.id })).body.code).toBe('no-logger')
    expect((await people.finisher.send('POST /api/air', { ...byHand, roomId: id })).status).toBe(404)
  })
  it('a coat asks for the air of the room where it goes on, not for that of the shop', async () => {
    const room = (await page()).rooms.find(r => r.name === 'Finishing room')!
    const { id: roomId, racks: _racks, air: _air, rowVersion, ...fields } = room as Room & { [field: string]: unknown }
    await people.finisher.ok('POST /api/air', { temperature_C: 21, rh_pct: 45 })
    const { id } = await people.office.ok<{ id: number }>('POST /api/pieces', intake())
    await people.lead.ok(`PUT /api/pieces/${id}/choice`, { ...choice, finish: 'dewaxed-shellac', rowVersion: 1 })
    const coatIn = async () => {
      const { steps } = await planOf(people.owner, id)
      return (steps.find(s => s.kind === 'coat') as unknown as { start: { air: { severity: string } } }).start.air
        .severity
    }
    expect(await coatIn()).toBe('ok')
    await people.owner.ok(`PUT /api/rooms/${roomId}`, { ...fields, logger: 'silent', rowVersion })
    expect(await coatIn()).toBe('unknown')
    await people.finisher.ok('POST /api/air', { temperature_C: 21, rh_pct: 99, roomId })
    expect(await coatIn()).toBe('stop')
    await people.owner.ok(`PUT /api/rooms/${roomId}`, { ...fields, logger: '', rowVersion: rowVersion + 1 })
    expect(await coatIn()).toBe('ok')
  })
  it('outdoors the weather counts; where nobody foretells it, it is not known', async () => {
    const hour = { temperature_C: 21, rh: 0.5, rain_mm: 0 }
    const yard = { ...booth, name: 'Yard', outdoors: true }
    const { id } = await people.owner.ok<{ id: number }>('POST /api/rooms', yard)
    const its = async () => (await page()).rooms.find(r => r.id === id)!.air
    // the stand-in is not asked meanwhile
    await sql.query("REPLACE INTO job (name, due_at) VALUES ('weather', '2099-01-01'), ('weather-none', '2099-01-01')")
    await sql.query('DELETE FROM weather_hour')
    expect(await its()).toEqual({ now: null, rain: null })
    for (const [at, rain_mm] of [
      ['2026-12-03 07:00', 0],
      ['2026-12-03 08:00', 0.4],
      ['2026-12-03 09:00', 0],
    ] as const)
      await sql.query('INSERT INTO weather_hour SET ?', [
        { ...hour, at: `${at}:00`, rain_mm, simulated: true, read_at: '2026-12-03 06:30:00' },
      ])
    expect(await its()).toEqual({
      now: { temperature_C: 21, rh: 0.5 },
      rain: {
        next: { from_ms: Date.parse('2026-12-03T08:00:00Z'), to_ms: Date.parse('2026-12-03T09:00:00Z') },
        simulated: true,
      },
    })
    // behind the bars: the rain stops a coat, and nobody knows what comes after
    const drawn = async () =>
      (await people.finisher.ok<{ rooms: { id: number; air: unknown[] }[] }>('GET /api/timetable')).rooms.find(
        r => r.id === id,
      )!.air
    expect(await drawn()).toMatchObject([
      { from_ms: Date.parse('2026-12-03T08:00:00Z'), severity: 'stop' },
      { from_ms: Date.parse('2026-12-03T10:00:00Z'), severity: 'unknown' },
    ])
    // what was foretold too long ago is no weather
    await sql.query("UPDATE weather_hour SET read_at = '2026-12-02 20:00:00'")
    expect(await its()).toEqual({ now: null, rain: null })
    await people.owner.ok(`DELETE /api/rooms/${id}`)
    await sql.query("DELETE FROM job WHERE name IN ('weather', 'weather-none')")
  })
  it('only who sets up the shop changes them', async () => {
    expect((await people.finisher.send('POST /api/rooms', booth)).status).toBe(403)
    expect((await people.office.send('PUT /api/shop/fetch-days', { weekdays: [1] })).status).toBe(403)
  })
  it('the last one stays', async () => {
    const { rooms } = await page()
    for (const r of rooms.slice(1)) await people.owner.ok(`DELETE /api/rooms/${r.id}`)
    expect((await people.owner.send(`DELETE /api/rooms/${rooms[0]!.id}`)).body.code).toBe('last-room')
  })
})

describe('people', () => {
  const of = async (name: string) => (await page()).people.find(p => p.name === name)!
  it('have skills, hours and days off of their own, or those of the shop', async () => {
    const [one] = (await page()).people
    expect(one).toMatchObject({ skills: [], week: null, off: [] })
    const week = [[[480, 720]], [], [], [], [], [], []]
    const off = [{ from: '2026-12-21', until: '2027-01-03', why: 'away' }]
    const body = { rowVersion: one!.rowVersion, skills: ['colour', 'spray'], week, off }
    await people.owner.ok(`PUT /api/people/${one!.id}/presence`, body)
    expect(await of(one!.name)).toMatchObject({ skills: ['colour', 'spray'], week: { 1: [[480, 720]] }, off })
    expect((await people.owner.send(`PUT /api/people/${one!.id}/presence`, body)).status).toBe(409)
    const again = { rowVersion: (await of(one!.name)).rowVersion, skills: [], week: null, off: [] }
    await people.owner.ok(`PUT /api/people/${one!.id}/presence`, again)
    expect(await of(one!.name)).toMatchObject({ skills: [], week: null, off: [] })
  })
  it.each([
    [
      'hours that overlap',
      {
        week: [
          [
            [480, 720],
            [700, 800],
          ],
          [],
          [],
          [],
          [],
          [],
          [],
        ],
      },
    ],
    ['six days', { week: [[], [], [], [], [], []] }],
    ['days off that end before they begin', { off: [{ from: '2026-12-21', until: '2026-12-20' }] }],
    ['a skill that nobody knows', { skills: ['singing'] }],
  ])('refuses %s', async (_, more) => {
    const [one] = (await page()).people
    const body = { rowVersion: one!.rowVersion, skills: [], week: null, off: [], ...more }
    expect((await people.owner.send(`PUT /api/people/${one!.id}/presence`, body)).status).toBe(422)
  })
})

describe('holidays', () => {
  const ics = (...events: string[]) =>
    ['BEGIN:VCALENDAR', 'VERSION:2.0', 'PRODID:-//x', ...events, 'END:VCALENDAR'].join('\r\n')
  const event = (lines: string[]) => ['BEGIN:VEVENT', `UID:${lines.join()}`, ...lines, 'END:VEVENT'].join('\r\n')
  it('close their days, also where they last or repeat', async () => {
    const text = ics(
      event(['SUMMARY:Christmas', 'DTSTART;VALUE=DATE:20261224', 'DTEND;VALUE=DATE:20261227']),
      event(['SUMMARY:First of May', 'DTSTART;VALUE=DATE:20200501', 'RRULE:FREQ=YEARLY']),
      event(['SUMMARY:Long ago', 'DTSTART;VALUE=DATE:20200101']),
    )
    expect(await people.owner.ok('POST /api/shop/holidays', { text })).toMatchObject({ taken: expect.any(Number) })
    const { closures } = (await page()).hours
    expect(closures).toEqual(expect.arrayContaining(['2026-12-24', '2026-12-25', '2026-12-26', '2027-05-01']))
    expect(closures).not.toContain('2026-12-27')
    expect(await people.owner.ok('POST /api/shop/holidays', { text })).toMatchObject({ taken: 0 })
  })
  it.each([
    ['no calendar', 'hello'],
    ['one without coming days', ics(event(['DTSTART;VALUE=DATE:20200101']))],
  ])('refuses %s in words', async (_, text) => {
    const { status, body } = await people.owner.send('POST /api/shop/holidays', { text })
    expect([status, body.message.length > 20]).toEqual([422, true])
  })
})
