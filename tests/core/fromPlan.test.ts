/** Plans as jobs: what one window ties is one task, what hangs on a word is marked, and all of it can be placed. */
import { describe, expect, it } from 'vitest'
import { DateTime } from 'luxon'
import { usualContext } from '#core/context'
import { EMPTY_SHELF, taken } from '#core/materials'
import { workOutPlan } from '#core/plan'
import {
  check,
  closedHours,
  jobOf,
  leavesOn,
  longestStretch_min,
  mustLeaveOn,
  type OpenStep,
  type PieceToPlan,
  presentSpans,
  type Schedule,
  type Shop,
  solve,
} from '#core/schedule'
import { at, built, choice, facts, hours } from '../facts'
import { randomPiece } from '../golden/randomPieces'

const DAY_MS = 86_400_000
const now_ms = at('2026-11-30T08:00')
const day = { now_ms, longest_min: longestStretch_min(hours), roomOf: () => 1 }
type Plan = ReturnType<typeof workOutPlan>

const open = (piece: number, steps: Plan['steps'], done: readonly string[]): OpenStep[] =>
  steps.map((s, i) => ({
    ...{ ...s, id: piece * 1000 + i + 1, spells: [] },
    ...(done.includes(s.key)
      ? { state: 'done' as const, started_ms: now_ms - 1_200_000, finished_ms: now_ms - 600_000 }
      : { state: 'planned' as const, started_ms: null, finished_ms: null }),
  }))
const pieceOf = (
  id: number,
  plan: Plan,
  context: ReturnType<typeof usualContext>,
  done: string[] = [],
): PieceToPlan => ({
  ...{ id, due_ms: now_ms + 14 * DAY_MS, weight: 1, steps: open(id, plan.steps, done), context },
  waits: plan.waits.map(w => ({ ...w, held_ms: null, least_min: null })),
  ...{ air: null, pace: () => 1, answer_ms: now_ms + 2 * DAY_MS, said: new Map(), failing: new Map() },
})
const context = usualContext(facts())
const oil = workOutPlan(context, built(context, choice({ finish: 'varnish-oil' })))
const rooms = [
  {
    ...{ id: 1, allows: { dust: true, wet: true, other: true }, changeOver_min: 30, oneAtATime: false },
    ...{ supports: [], closedTo: {}, shut: [] },
  },
]
const until_ms = now_ms + 150 * DAY_MS
const spans = presentSpans(hours, { week: null, off: [] }, now_ms, until_ms)
const shopOf = (jobs: Shop['jobs']): Shop => ({
  ...{ now_ms, until_ms, rooms, jobs },
  hands: [1, 2].map(id => ({ id, skills: null, spans })),
})
function best(shop: Shop, orders = 5): Schedule {
  for (const progress of solve(shop, 1)) if (progress.tried >= orders) return progress.best
  throw new Error('never')
}

describe('a plan as a job', () => {
  const job = jobOf(pieceOf(1, oil, context), day)
  const idOf = (key: string) => 1001 + oil.steps.findIndex(s => s.key === key)
  const onKey = oil.steps.find(s => s.kind === 'oil-on')!.key
  const tied = job.tasks.find(t => t.steps.some(s => s.stepId === idOf(onKey)))!
  it('puts on and wipes off as one task that is not laid aside', () => {
    expect(tied.steps.map(s => oil.steps[s.stepId - 1001]!.kind)).toEqual(['oil-on', 'oil-off'])
    expect(tied).toMatchObject({ whole: true, makes: 'wet' })
    expect(tied.minutes).toBe(Math.max(...tied.steps.map(s => s.to_min)))
  })
  it('names every open step once', () => {
    const named = job.tasks.flatMap(t => (t.id.includes('/') ? [] : t.steps.map(s => s.stepId)))
    expect(named.sort((a, b) => a - b)).toEqual(oil.steps.map((_, i) => 1001 + i))
  })
  it('marks all that hangs on the word, and counts from what is done', () => {
    const word = oil.steps.find(s => s.kind === 'approval')
    if (word)
      expect(job.tasks.find(t => t.steps[0]!.stepId === idOf(word.key))).toMatchObject({ hands: 0, ifYes: true })
    const done = oil.steps
      .slice(
        0,
        oil.steps.findIndex(s => s.key === onKey),
      )
      .map(s => s.key)
    const left = jobOf(pieceOf(1, oil, context, done), day)
    expect(left.tasks[0]!.steps[0]!.stepId).toBe(idOf(onKey))
    expect(left.tasks[0]!.after).toEqual([])
    expect(left.tasks[0]!.ifYes).toBe(false)
  })
  it('takes a face that outlasts an opening in stints', () => {
    const large = usualContext(facts({ faces: facts().faces.map(f => ({ ...f, area_m2: f.area_m2 * 40 })) }))
    const plan = workOutPlan(large, built(large, choice({ finish: 'varnish-oil' })))
    const long = jobOf(pieceOf(1, plan, large), day)
    const stints = long.tasks.filter(t => t.id.includes('/'))
    expect(stints.length).toBeGreaterThan(0)
    for (const t of stints) expect(t.minutes).toBeLessThanOrEqual(day.longest_min)
  })
})

it('plans of 60 random pieces together are placed without a broken rule', () => {
  const jobs = Array.from({ length: 60 }, (_, i) => {
    const { facts: known, choice: pick, house } = randomPiece(i + 1)
    const around = { ...usualContext(known), house }
    return jobOf(pieceOf(i + 1, workOutPlan(around, built(around, pick)), around), day)
  })
  const shop = shopOf(jobs)
  const found = best(shop)
  expect(check(shop, found)).toEqual([])
  expect(found.missed).toEqual([])
  expect(found.unplaced.filter(u => u.why === 'never')).toEqual([])
  expect(found.unplaced.length / jobs.flatMap(j => j.tasks).length).toBeLessThan(0.02)
})

describe('when people are there', () => {
  const one = (zone: string, from: string, days: number, more: Partial<typeof hours> = {}) => {
    const start = DateTime.fromISO(from, { zone })
    const end = start.plus({ days })
    return presentSpans({ ...hours, ...more, zone }, { week: null, off: [] }, start.toMillis(), end.toMillis())
  }
  const week = { 1: [[480, 720]], 7: [[60, 240]] } as const
  it('keeps wall-clock hours over a change of the clock', () => {
    // the last Sunday of March 2027 in Stockholm loses an hour between two and three
    const [first] = one('Europe/Stockholm', '2027-03-28', 1, { week, closures: [] })
    expect((first![1] - first![0]) / 3_600_000).toBe(2)
    const [autumn] = one('Europe/Stockholm', '2026-10-25', 1, { week, closures: [] })
    expect((autumn![1] - autumn![0]) / 3_600_000).toBe(4)
  })
  it('is in the zone of the shop', () => {
    const [there] = one('America/New_York', '2026-11-30', 1, { week, closures: [] })
    expect(new Date(there![0]).toISOString()).toBe('2026-11-30T13:00:00.000Z')
  })
  it('knows closures, days off and own hours', () => {
    const start = DateTime.fromISO('2026-11-30', { zone: 'Europe/Stockholm' })
    const ask = (presence: Parameters<typeof presentSpans>[1], closures: string[] = []) =>
      presentSpans(
        { zone: 'Europe/Stockholm', week: { 1: [[480, 720]], 2: [[480, 720]] }, closures },
        presence,
        start.toMillis(),
        start.plus({ days: 2 }).toMillis(),
      )
    expect(ask({ week: null, off: [] })).toHaveLength(2)
    expect(ask({ week: null, off: [] }, ['2026-12-01'])).toHaveLength(1)
    expect(ask({ week: null, off: [{ from: '2026-11-30', until: '2026-11-30' }] })).toHaveLength(1)
    expect(ask({ week: { 1: [[600, 900]] }, off: [] })).toEqual([
      [start.plus({ hours: 10 }).toMillis(), start.plus({ hours: 12 }).toMillis()],
    ])
  })
})

it('closes the hours in which the air stops a coat, and none that nobody foretells', () => {
  const coat = oil.steps.find(s => s.kind === 'oil-on')!
  const product = taken(EMPTY_SHELF, coat)!
  const hour = (i: number, rh: number) => ({ at_ms: now_ms + i * 3_600_000, air: { temperature_C: 5, rh } })
  expect(closedHours(product, [hour(0, 0.9), hour(1, 0.9)])).toEqual([[now_ms, now_ms + 7_200_000]])
  expect(closedHours(product, [])).toEqual([])
})

it('pieces leave on days on which they are fetched', () => {
  // 2026-12-03 is a Thursday
  expect(leavesOn('2026-12-03', [], [])).toBe('2026-12-03')
  expect(leavesOn('2026-12-03', [2, 5], [])).toBe('2026-12-04')
  expect(leavesOn('2026-12-03', [2, 5], ['2026-12-04'])).toBe('2026-12-08')
  expect(mustLeaveOn('2026-12-03', [2, 5], [])).toBe('2026-12-01')
})
