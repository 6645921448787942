import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { inSections, sectionsWithin } from '#core/acts'
import { usualContext } from '#core/context'
import { workOutPlan } from '#core/plan'
import { type BenchStep, type BenchWait, forecast, isWorking, mayStart, windowOf } from '#core/timetable'
import { at, built, choice, face, facts, hours, type Picked } from '../facts'

const MIN = 60_000

describe('sections that keep their window', () => {
  it('whatever the work and the window: none comes off too soon or too late, by one pair of hands', () => {
    const minutes = fc.double({ min: 0.5, max: 300, noNaN: true })
    fc.assert(
      fc.property(minutes, minutes, fc.double({ min: 0, max: 180, noNaN: true }), minutes, (on, off, opens, room) => {
        const s = inSections({ on_min: on, off_min: off, opens_min: opens, closes_min: opens + room })
        if (!s) {
          expect((on + off) / room).toBeGreaterThan(399)
          return
        }
        expect(s.turns).toHaveLength(2 * s.count)
        for (const [i, t] of s.turns.entries()) {
          const took = t.what === 'on' ? s.on_min : s.off_min
          expect(s.turns[i + 1]?.at_min ?? s.span_min).toBeGreaterThanOrEqual(t.at_min + took - 1e-6)
          if (t.what === 'on') continue
          const on_at = s.turns.find(u => u.what === 'on' && u.no === t.no)!.at_min
          expect(t.at_min).toBeGreaterThanOrEqual(on_at + s.on_min + opens - 1e-6)
          expect(t.at_min + s.off_min).toBeLessThanOrEqual(on_at + opens + room + 1e-6)
        }
      }),
      { numRuns: 300 },
    )
  })
  it('a window that is shorter than its own wait has none', () => {
    expect(inSections({ on_min: 5, off_min: 5, opens_min: 30, closes_min: 30 })).toBeNull()
  })
})

const planned = (picks: Partial<Picked>, area_m2 = 2, temperature_C = 21) => {
  const f = facts({
    faces: [face({ area_m2, length_mm: 2000, width_mm: area_m2 * 500 })],
    found: { finish: 'oil-varnish', certainty: 0.9 },
  })
  const context = { ...usualContext(f), air: { temperature_C, rh: 0.5 } }
  return workOutPlan(context, built(context, choice(picks)))
}
const between = (plan: ReturnType<typeof planned>, from: string, to: string) => {
  const key = (kind: string) => plan.steps.find(s => s.kind === kind)!.key
  return plan.waits.find(w => w.from === key(from) && w.to === key(to))!
}

/** Handbook 5: 15 to 30 min open; 10: all excess oil off within its time; 9.2 and 11.4: heat shortens windows. */
describe('plans hold no window that cannot be kept', () => {
  it('stripper, oil and filler go on in as many sections as their windows allow', () => {
    const stripped = between(planned({}), 'strip', 'scrape')
    expect(stripped.sections!.count).toBeGreaterThan(1)
    const { on_min, off_min, opens_min, closes_min } = stripped.sections!
    expect(on_min + opens_min + off_min).toBeLessThanOrEqual(closes_min)
    expect(between(planned({ finish: 'varnish-oil' }), 'oil-on', 'oil-off').sections!.count).toBeGreaterThan(1)
    expect(between(planned({ fill: 'paste-filler' }), 'fill', 'fill-off').sections!.count).toBeGreaterThan(1)
    expect(between(planned({}, 0.05), 'strip', 'scrape').sections!.count).toBe(1)
  })
  it('hot air makes them smaller', () => {
    const count = (t: number) => between(planned({ finish: 'varnish-oil' }, 2, t), 'oil-on', 'oil-off').sections!.count
    expect(count(30)).toBeGreaterThan(count(21))
    expect(count(15)).toBe(count(21))
  })
  it('the forecast takes them off while others go on', () => {
    const plan = planned({})
    const rows = forecast({ ...plan, hours, from_ms: at('2026-11-23T08:00'), by: 'likely' })
    const [on, off] = ['strip', 'scrape'].map(k => rows.find(r => r.key === k)!)
    const s = between(plan, 'strip', 'scrape').sections!
    expect(off!.start_ms).toBeLessThan(on!.end_ms)
    expect((off!.end_ms - on!.start_ms) / MIN).toBeCloseTo(16 + s.span_min, 0)
  })
})

describe('sections and closing time', () => {
  it('none goes on that would not come off while the shop is open', () => {
    const plan = planned({}, 6)
    const strip = plan.steps.find(s => s.kind === 'strip')!
    const s = between(plan, 'strip', 'scrape').sections!
    const rowsFrom = (from: string) => forecast({ ...plan, hours, from_ms: at(from), by: 'likely' })
    const begun = rowsFrom('2026-11-23T14:00')
    const [on, off] = ['strip', 'scrape'].map(k => begun.find(r => r.key === k)!)
    // what is done in the afternoon, and what is left for the next opening, each with its own last one off
    expect(on!.start_ms).toBeGreaterThan(at('2026-11-23T14:00'))
    const open = [...Array(2 * 24 * 60).keys()].map(m => on!.start_ms + m * MIN).filter(t => t < off!.end_ms)
    const worked = open.filter(t => isWorking(hours, t) && isWorking(hours, t + MIN)).length
    expect(worked).toBeGreaterThan(s.span_min)
    expect(strip.attended_min).toBeLessThan(s.span_min)
  })
  it('as many as fit in the time that is left, and no more', () => {
    const s = between(planned({}, 6), 'strip', 'scrape').sections!
    const within = sectionsWithin(s, s.count, s.span_min / 2)!
    expect(within.span_min).toBeLessThanOrEqual(s.span_min / 2)
    expect(within.count).toBeGreaterThan(0)
    expect(sectionsWithin(s, s.count, s.span_min)!.count).toBe(s.count)
    expect(sectionsWithin(s, s.count, s.opens_min)).toBeNull()
  })
})

describe('at the bench', () => {
  const plan = planned({})
  const on_ms = at('2026-11-23T09:00')
  const wait: BenchWait = { ...between(plan, 'strip', 'scrape'), held_ms: null, least_min: null }
  const bench = (laid: BenchStep['laid'], state: BenchStep['state'] = 'running') =>
    plan.steps.map((s): BenchStep => {
      const done = { state: 'done' as const, started_ms: on_ms - 60 * MIN, finished_ms: on_ms - 50 * MIN }
      const its = { state, started_ms: on_ms, finished_ms: state === 'done' ? on_ms + 24 * MIN : null, laid }
      const before = plan.steps.indexOf(s) < plan.steps.findIndex(x => x.kind === 'strip')
      if (s.kind === 'strip') return { ...s, ...its }
      return { ...s, ...(before ? done : { state: 'planned' as const, started_ms: null, finished_ms: null }) }
    })
  const laid = (no: number, after: number, off: number | null = null) => ({
    no,
    on_ms: on_ms + after * MIN,
    off_ms: off === null ? null : on_ms + off * MIN,
  })
  const asked = (steps: BenchStep[], now_min: number) =>
    mayStart({
      ...{ step: steps.find(s => s.kind === 'scrape')!, steps, waits: [wait], verdicts: [], overruled: new Set() },
      ...{ hours, now_ms: on_ms + now_min * MIN, shelf: usualContext(facts()).shelf, air: null },
      clock: ms => new Date(ms).toISOString(),
    })
  it('the section that closes first is the clock', () => {
    const strip = (l: BenchStep['laid']) => bench(l).find(s => s.kind === 'strip')!
    expect(windowOf(wait, strip([laid(1, 0), laid(2, 3)]))).toMatchObject({ section: 1, closes_ms: on_ms + 30 * MIN })
    expect(windowOf(wait, strip([laid(1, 0, 25), laid(2, 3)]))).toMatchObject({
      section: 2,
      closes_ms: on_ms + 33 * MIN,
    })
    expect(windowOf(wait, strip([laid(1, 0, 25)]))).toBeNull()
  })
  it('scraping may begin while the rest still goes on, once the first has worked', () => {
    expect(asked(bench([laid(1, 0)]), 10).refusals.map(r => r.code)).toEqual(['too-early'])
    expect(asked(bench([laid(1, 0)]), 16).may).toBe(true)
    expect(asked(bench([]), 16).refusals.map(r => r.code)).toContain('earlier-step')
  })
})
