/** The schedule where calendar or shop are odd: clocks that change, closures, midnight, another zone, nothing. */
import { DateTime } from 'luxon'
import { describe, expect, it } from 'vitest'
import { check, presentSpans, type Schedule, type Shop, solve } from '#core/schedule'
import { dayColumns, xOf } from '#core/timetable/axis'
import { hours } from '../facts'
import { randomShop } from './randomShop'

const HOUR_MS = 3_600_000
const always = { week: null, off: [] }
const at = (iso: string, zone = hours.zone) => DateTime.fromISO(iso, { zone }).toMillis()
const clocks = (spans: readonly (readonly [number, number])[], zone: string) =>
  spans.map(s => s.map(ms => DateTime.fromMillis(ms, { zone }).toFormat('d HH:mm')).join('–'))
function best(shop: Shop, orders = 6): Schedule {
  for (const { best: found, tried } of solve(shop, 1)) if (tried >= orders) return found
  throw new Error('never')
}
const shop = randomShop(11, { jobs: 4, tasks: 5, hands: 2, plain: true })

describe('hours', () => {
  it('keep their clock over a change to winter and to summer time', () => {
    for (const [from, until] of [
      ['2026-10-23', '2026-10-28'],
      ['2027-03-26', '2027-03-31'],
    ] as const) {
      const spans = presentSpans(hours, always, at(from), at(until))
      for (const said of clocks(spans, hours.zone)) expect(said).toMatch(/^\d+ 07:30–/)
      const night = { ...hours, week: { 7: [[0, 360]] as [number, number][] } }
      const [sunday] = presentSpans(night, always, at(from), at(until))
      // the night of the change has five hours, or seven
      expect((sunday![1] - sunday![0]) / HOUR_MS).toBe(from.startsWith('2026') ? 7 : 5)
    }
  })
  it('close on closed days, and run to midnight and on from there', () => {
    const closed = presentSpans({ ...hours, closures: ['2026-12-01'] }, always, at('2026-11-30'), at('2026-12-03'))
    expect(closed.map(([from]) => DateTime.fromMillis(from, { zone: hours.zone }).toISODate())).not.toContain(
      '2026-12-01',
    )
    const late = { ...hours, week: { 1: [[1200, 1440]], 2: [[0, 120]] } as Record<number, [number, number][]> }
    const spans = presentSpans(late, always, at('2026-11-30'), at('2026-12-02'))
    expect(clocks(spans, hours.zone)).toEqual(['30 20:00–1 00:00', '1 00:00–1 02:00'])
    const over = { ...shop, hands: [{ id: 1, skills: null, spans }], now_ms: at('2026-11-30T20:00') }
    const task = { ...shop.jobs[0]!.tasks[0]!, minutes: 300, after: [], whole: false, ifYes: false, hands: 1 as const }
    const jobs = [
      { id: 1, due_ms: null, weight: 1, tasks: [{ ...task, skill: null, opens_ms: null, closes_ms: null }] },
    ]
    const made = best({ ...over, jobs })
    expect(check({ ...over, jobs }, made)).toEqual([])
    expect(made.placed[0]!.end_ms).toBe(at('2026-12-01T01:00'))
  })
  it('are those of the shop, wherever the machine stands', () => {
    const zone = 'America/St_Johns'
    const spans = presentSpans({ ...hours, zone }, always, at('2026-11-30', zone), at('2026-12-01', zone))
    expect(clocks(spans, zone)[0]).toMatch(/^30 07:30–/)
    const columns = dayColumns({ ...hours, zone }, '2026-11-30', 7)
    expect(xOf(columns, at('2026-11-30T07:30', zone))).toBe(0)
  })
})

describe('an odd shop', () => {
  it('without pieces, people or rooms has a schedule that says so', () => {
    expect(best({ ...shop, jobs: [] })).toMatchObject({ placed: [], unplaced: [], missed: [] })
    const nobody = best({ ...shop, hands: [] })
    const work = shop.jobs.flatMap(j => j.tasks).filter(t => t.hands > 0)
    expect(nobody.unplaced.length).toBeGreaterThanOrEqual(work.length)
    expect(best({ ...shop, rooms: [] }).unplaced[0]!.why).toBe('never')
  })
  it('of 300 pieces has a sound one in seconds', () => {
    const large = randomShop(2, { jobs: 300, tasks: 6, hands: 6, plain: true })
    const begun = performance.now()
    const made = best(large, 1)
    expect(performance.now() - begun).toBeLessThan(20_000)
    expect(made.unplaced).toEqual([])
    expect(check(large, made)).toEqual([])
  })
})
