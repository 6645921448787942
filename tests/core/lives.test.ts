/** A schedule lived through, what can be promised by it, what one change does, and what could be put together. */
import { describe, expect, it } from 'vitest'
import {
  batches,
  byShare,
  type Change,
  chanceBy,
  changed,
  check,
  dayOf,
  dustPairs,
  effects,
  livesOf,
  newlyMissed,
  overload,
  type Schedule,
  shareBy,
  type Shop,
  solve,
  together,
  type UnsureShop,
} from '#core/schedule'
import { MONDAY_MS, randomShop } from './randomShop'

const HOUR_MS = 3_600_000
const DAY_MS = 24 * HOUR_MS
function best(shop: Shop, orders = 12): Schedule {
  for (const { best: found, tried } of solve(shop, 1)) if (tried >= orders) return found
  throw new Error('never')
}
const SURE = { opens: null, again: null, fails: null }
/** A shop in which every wait is as sure as `spread` says: likely = safe ÷ spread. */
const unsure = (shop: Shop, spread: number, more: object = {}): UnsureShop => ({
  ...shop,
  jobs: shop.jobs.map(j => ({
    ...j,
    tasks: j.tasks.map(t => ({
      ...{ ...t, steps: [], shares: null, unsure: { ...SURE, ...more } },
      after: t.after.map(l => ({
        ...l,
        dries: l.min_min > 0 && spread > 1 ? { likely_min: l.min_min / spread, safe_min: l.min_min, of: 'oil' } : null,
      })),
    })),
  })),
})
const shop = randomShop(5, { jobs: 5, tasks: 6, hands: 2, plain: true })
const made = best(shop)

describe('a schedule lived through', () => {
  it('is seldom later than planned with safe waits, and later with failing gates', () => {
    const ends = livesOf(unsure(shop, 1.5), made, { most: 60, seed: 1 })
    const gates = livesOf(unsure(shop, 1.5, { fails: { chance: 1, late_min: 3 * 1440 } }), made, { most: 60, seed: 1 })
    for (const j of shop.jobs) {
      const planned = Math.max(...made.placed.filter(p => p.jobId === j.id).map(p => p.end_ms))
      const lived = ends.get(j.id)!
      expect(byShare(lived, 0.5)).toBeLessThanOrEqual(byShare(lived, 0.9))
      expect(byShare(lived, 0.1)).toBeLessThan(planned + 5 * DAY_MS)
      expect(byShare(gates.get(j.id)!, 0.5)).toBeGreaterThan(byShare(lived, 0.5) + 2 * DAY_MS)
    }
  })
  it('gives the same lives for the same seed, others for another', () => {
    const lived = (seed: number) => [...livesOf(unsure(shop, 2), made, { most: 20, seed }).values()].map(e => [...e])
    expect(lived(1)).toEqual(lived(1))
    expect(lived(1)).not.toEqual(lived(2))
  })
  it('of one piece alone are those among all, within a day: what begins later cannot hold it up', () => {
    const first = shop.jobs.toSorted((a, b) => lastOf(a.id) - lastOf(b.id))[0]!
    const [one, all] = [{ only: first.id }, {}].map(o =>
      byShare(livesOf(unsure(shop, 1.5), made, { most: 80, seed: 3, ...o }).get(first.id)!, 0.5),
    )
    expect(Math.abs(one! - all!)).toBeLessThan(DAY_MS)
  })
})
const lastOf = (id: number) => Math.max(...made.placed.filter(p => p.jobId === id).map(p => p.start_ms))

it('shares of lives, and days by them', () => {
  const sorted = Float64Array.from([1, 2, 3, 4, Infinity])
  expect([byShare(sorted, 0.5), byShare(sorted, 0.9), shareBy(sorted, 3), shareBy(sorted, 0)]).toEqual([
    3,
    Infinity,
    0.6,
    0,
  ])
  const lived = together([
    {
      runs: 10,
      days: [
        { day: '2026-12-02', n: 4 },
        { day: '2026-12-04', n: 4 },
      ],
    },
    { runs: 10, days: [{ day: '2026-12-01', n: 6 }] },
  ])
  expect(lived.days.map(d => d.day)).toEqual(['2026-12-01', '2026-12-02', '2026-12-04'])
  expect([chanceBy(lived, '2026-12-02'), chanceBy(lived, '2026-11-30')]).toEqual([0.5, 0])
  expect([dayOf(lived, 0.5), dayOf(lived, 0.8)]).toEqual(['2026-12-02', null])
  expect([chanceBy(together([]), '2026-12-02'), dayOf(lived, 0.7)]).toEqual([0, '2026-12-04'])
})

describe('what if', () => {
  const away: Change = { kind: 'away', handId: 1, span: [MONDAY_MS, MONDAY_MS + 5 * DAY_MS] }
  it('somebody away, a second booth, a helper, a rush: sound schedules, and pieces told with their shift', () => {
    const rush: Change = { kind: 'rush', jobId: 3, due_ms: MONDAY_MS + 2 * DAY_MS }
    for (const change of [away, rush, { kind: 'booth' }, { kind: 'helper' }] as Change[]) {
      const other = changed(shop, change)
      const then = best(other)
      expect(check(other, then)).toEqual([])
      for (const e of effects(other, made, then)) expect(e.was_ms).not.toBe(e.becomes_ms)
    }
    const then = best(changed(shop, away))
    const during = then.placed.filter(p => p.handId === 1 && p.start_ms < away.span[1])
    expect(during).toEqual([])
    expect(effects(shop, made, made)).toEqual([])
    expect(newlyMissed(made, made)).toEqual([])
  })
  it('says what it does not have', () => {
    expect(() => changed(shop, { ...away, handId: 99 })).toThrow(RangeError)
    expect(() => changed(shop, { kind: 'rush', jobId: 99, due_ms: 0 })).toThrow('not in this schedule')
  })
})

it('overload is told by the day and the hours that are missing, and for a skill alone', () => {
  const spans = [[MONDAY_MS + 8 * HOUR_MS, MONDAY_MS + 16 * HOUR_MS]] as const
  const task = { ...shop.jobs[0]!.tasks[0]!, minutes: 600, hands: 1 as const, skill: null, ifYes: false, after: [] }
  const job = (minutes: number, skill: 'spray' | null = null) => ({
    ...{ id: 1, weight: 1, due_ms: MONDAY_MS + DAY_MS },
    tasks: [{ ...task, minutes, skill }],
  })
  const hands = [
    { id: 1, skills: null, spans },
    { id: 2, skills: new Set(['repair'] as const), spans },
  ]
  const of = (...jobs: ReturnType<typeof job>[]) => overload({ ...shop, now_ms: MONDAY_MS, hands, jobs })
  expect(of(job(900))).toBeNull()
  expect(of(job(900), job(120))).toMatchObject({ skill: null, need_h: 17, there_h: 16 })
  expect(of(job(540, 'spray'))).toMatchObject({ skill: 'spray', need_h: 9, there_h: 8 })
})

it('work that shares a set-up is put together only where nobody is later for it', () => {
  const all = randomShop(8, { jobs: 6, tasks: 4, hands: 2, plain: true })
  const schedule = best(all)
  const alike = all.jobs.map(j => ({
    ...{ task: j.tasks[0]!.id, kind: 'gun' as const, key: 'gun lacquer', setup_min: 20, left_ml: 40, within_min: null },
  }))
  const found = batches(all, schedule, [...alike.slice(0, 2), ...dustPairs(all, schedule.placed)])
  for (const b of found) {
    expect(new Set(b.tasks.map(t => t.jobId)).size).toBeGreaterThan(1)
    expect(b.saved_min).toBe((b.tasks.length - 1) * (b.kind === 'gun' ? 20 : all.rooms[0]!.changeOver_min))
    const pins = new Map(b.tasks.map(t => [t.task, { start_ms: t.start_ms, handId: b.handId, roomId: null }]))
    const put = {
      ...all,
      jobs: all.jobs.map(j => ({ ...j, tasks: j.tasks.map(t => ({ ...t, pin: pins.get(t.id) ?? null })) })),
    }
    expect(best(put).slipped).toEqual([])
  }
  expect(batches(all, schedule, alike.slice(0, 1))).toEqual([])
  // a pot that sets before the second piece is coated is mixed twice
  expect(
    batches(
      all,
      schedule,
      alike.map(a => ({ ...a, kind: 'pot' as const, within_min: 5 })),
    ),
  ).toEqual([])
  expect(found.length).toBeGreaterThan(0)
})
