import { usualContext } from '#core/context'
import { describe, expect, it } from 'vitest'
import type { Air } from '#core/air'
import { workOutPlan } from '#core/plan'
import { judgePlan } from '#core/rules'
import {
  afterWorking,
  behind_min,
  barEdges,
  type BenchStep,
  type BenchWait,
  closingOf,
  forecast,
  isWorking,
  leftAt_ms,
  mayStart,
  type StartQuestion,
  potEnds_ms,
  windowOf,
  together,
  worked_min,
} from '#core/timetable'
import { EMPTY_SHELF } from '#core/materials'
import { at, choice, facts, hours, built } from '../facts'

const clock = (ms: number) => new Date(ms + 3_600_000).toISOString().slice(11, 16)
const good: Air = { temperature_C: 21, rh: 0.45 }
const c = choice({ finish: 'varnish-oil' })

/** A plan of which the steps before `key` are done by `until`. */
function bench(key: string, until: number, pick = c, ran?: { key: string; started: number; finished: number | null }) {
  const plan = workOutPlan(usualContext(facts()), built(usualContext(facts()), pick))
  const index = plan.steps.findIndex(s => s.key === key)
  const steps: BenchStep[] = plan.steps.map((s, i) => {
    if (ran && s.key === ran.key)
      return { ...s, state: ran.finished ? 'done' : 'running', started_ms: ran.started, finished_ms: ran.finished }
    return i < index
      ? { ...s, state: 'done', started_ms: until - 600_000, finished_ms: until }
      : { ...s, state: 'planned', started_ms: null, finished_ms: null }
  })
  const waits: BenchWait[] = plan.waits.map(w => ({ ...w, held_ms: null, least_min: null }))
  const ask = (now_ms: number, air: Air | null = good, more: Partial<StartQuestion> = {}) =>
    mayStart({
      ...more,
      step: steps[index]!,
      steps,
      waits,
      verdicts: judgePlan({ context: usualContext(facts()), choice: built(usualContext(facts()), pick), ...plan }),
      overruled: new Set(),
      hours,
      now_ms,
      shelf: EMPTY_SHELF,
      air,
      clock,
    })
  return { steps, waits, ask }
}
const codes = (v: { refusals: { code: string }[] }) => v.refusals.map(r => r.code)

describe('hours', () => {
  it('knows opening, closing and closures', () => {
    expect(isWorking(hours, at('2026-11-23T10:30'))).toBe(true)
    expect(isWorking(hours, at('2026-11-22T10:30'))).toBe(false)
    expect(isWorking(hours, at('2026-12-25T10:30'))).toBe(false)
    expect(clock(closingOf(hours, at('2026-11-27T10:30'))!)).toBe('15:00')
  })
  it('counts open time only, over night and weekend', () =>
    expect(afterWorking(hours, at('2026-11-27T14:30'), 60)).toBe(at('2026-11-30T08:00')))
})

describe('may it start?', () => {
  it('sands outside beside a wet coat, as long as it ends before closing', () => {
    const { ask } = bench('sand', at('2026-11-23T08:00'))
    const wet = { wetCoat: 'Stool, coat 1 of 2' }
    expect(ask(at('2026-11-24T10:30'))).toMatchObject({ may: true, outside: true })
    const inside = ask(at('2026-11-24T10:30'), good, wet)
    expect(codes(inside)).toEqual(['rule'])
    expect(inside.outside).toBe(true)
    expect(ask(at('2026-11-24T10:30'), good, { ...wet, outside: true })).toMatchObject({ may: true, outside: true })
    expect(ask(at('2026-11-24T16:55'), good, wet).outside).toBe(false)
    expect(codes(ask(at('2026-11-24T16:55'), good, { ...wet, outside: true }))).toEqual(['ends-after-closing'])
  })
  it('opens stripper only when its window ends before closing, and says the latest start', () => {
    const { ask } = bench('strip', at('2026-11-23T08:00'))
    expect(ask(at('2026-11-23T10:30'))).toMatchObject({ may: true, latest_ms: at('2026-11-23T16:30') })
    const late = ask(at('2026-11-23T16:40'))
    expect(codes(late)).toEqual(['ends-after-closing'])
    expect(late.refusals[0]!.says).toMatch(/17:10.*17:00.*16:30/)
  })
  it('counts a minimum from the end and a maximum from the start', () => {
    const { ask, steps, waits } = bench('1.oil-off.1', 0, c, {
      key: '1.oil-on.1',
      started: at('2026-11-23T10:00'),
      finished: at('2026-11-23T10:10'),
    })
    steps
      .slice(
        0,
        steps.findIndex(s => s.key === '1.oil-on.1'),
      )
      .forEach(s => Object.assign(s, { state: 'done', started_ms: 1, finished_ms: 2 }))
    expect(codes(ask(at('2026-11-23T10:30')))).toEqual(['too-early'])
    expect(ask(at('2026-11-23T10:41')).may).toBe(true)
    const window = windowOf(
      waits.find(w => w.from === '1.oil-on.1')!,
      steps.find(s => s.key === '1.oil-on.1')!,
    )!
    expect([clock(window.opens_ms!), clock(window.closes_ms!)]).toEqual(['10:40', '11:00'])
    const edges = barEdges(window, [at('2026-11-23T10:00'), at('2026-11-23T11:00')], at('2026-11-23T10:45'))
    expect(edges).toMatchObject({ start: 0, closes: 1, phase: 'closing' })
    expect(edges.opens).toBeCloseTo(2 / 3)
  })
  it('lets a late wipe go on with a warning, never leaves the oil', () => {
    const { ask } = bench('1.oil-off.1', at('2026-11-23T10:00'), c, {
      key: '1.oil-on.1',
      started: at('2026-11-23T10:00'),
      finished: at('2026-11-23T10:10'),
    })
    const late = ask(at('2026-11-23T11:30'))
    expect(late.may).toBe(true)
    expect(late.warnings.join()).toMatch(/closed at 11:00/)
  })
  it('waits for the client, and for the earlier step', () => {
    const { ask } = bench('wash', 0)
    const { steps } = bench('wash', 0)
    expect(steps[0]!.kind).toBe('approval')
    expect(ask(at('2026-11-23T10:30')).may).toBe(true)
    const early = bench('approval', 0)
    expect(codes(early.ask(at('2026-11-23T10:30')))).toEqual(['client'])
  })
  it('refuses lacquer in damp air with its figures, and in unknown air', () => {
    const { ask } = bench('1.coat.1', at('2026-11-23T08:00'), choice({ finish: 'nitrocellulose-lacquer' }))
    const damp = ask(at('2026-11-23T10:30'), { temperature_C: 20, rh: 0.62 })
    expect(codes(damp)).toEqual(['air'])
    expect(damp.refusals[0]!.says).toMatch(/15 °C.*15\.5 °C/)
    expect(codes(ask(at('2026-11-23T10:30'), null))).toEqual(['air'])
    expect(ask(at('2026-11-23T10:30')).may).toBe(true)
  })
  it('keeps closed hours', () => expect(codes(bench('wash', 0).ask(at('2026-11-22T10:30')))).toContain('closed'))
})

describe('forecast', () => {
  it('never starts a step before its wait, nor a window that ends after closing', () => {
    const plan = workOutPlan(usualContext(facts()), built(usualContext(facts()), c))
    const rows = new Map(forecast({ ...plan, hours, from_ms: at('2026-11-23T16:35'), by: 'safe' }).map(r => [r.key, r]))
    // in sections the first is taken off while others go on: measured from its start
    const earliest = (w: (typeof plan.waits)[number]) =>
      w.sections
        ? rows.get(w.from)!.start_ms + w.sections.firstOff_min * 60_000
        : rows.get(w.from)!.end_ms + w.safe * 60_000
    for (const w of plan.waits) expect(rows.get(w.to)!.start_ms).toBeGreaterThanOrEqual(earliest(w) - 1)
    for (const w of plan.waits.filter(w => w.hard && w.kind === 'dwell'))
      expect(isWorking(hours, rows.get(w.from)!.start_ms + w.max! * 60_000)).toBe(true)
  })
})

describe('heat and dust', () => {
  const start = at('2026-11-23T10:00')
  it('heat closes a window sooner, and a cool room does not open it longer', () => {
    const { steps, waits } = bench('1.oil-off.1', start, c, {
      key: '1.oil-on.1',
      started: start,
      finished: start + 600_000,
    })
    const wait = waits.find(w => w.from === '1.oil-on.1' && w.to === '1.oil-off.1')!
    const from = steps.find(s => s.key === '1.oil-on.1')!
    const closes = (temperature_C: number) =>
      (windowOf(wait, from, { temperature_C, rh: 0.45 })!.closes_ms! - start) / 60_000
    expect([closes(15), closes(21), closes(31)]).toEqual([60, 60, 30])
    expect(windowOf(wait, from)!.closes_ms! - start).toBe(60 * 60_000)
  })
  it('dust waits for a wet coat in the same room, wet work does not', () => {
    const plan = workOutPlan(usualContext(facts()), built(usualContext(facts()), c))
    const steps: BenchStep[] = plan.steps.map(s => ({ ...s, state: 'planned', started_ms: null, finished_ms: null }))
    const says = (key: string, more: Partial<BenchStep> = {}) =>
      mayStart({
        step: { ...steps.find(s => s.key === key)!, ...more },
        steps,
        waits: [],
        verdicts: [],
        overruled: new Set(),
        hours,
        now_ms: start,
        shelf: EMPTY_SHELF,
        air: good,
        wetCoat: 'Writing slope, coat 2, until 11:40',
        clock,
      })
        .refusals.map(r => r.says)
        .join()
    expect(says('sand')).toMatch(/A coat is wet in this room: Writing slope, coat 2, until 11:40/)
    expect(says('sand', { method: 'wet' })).toBe('')
    expect(says('wash')).toBe('')
  })
})

describe('a mixed pot', () => {
  const mixed = at('2026-11-23T10:00')
  const pick = choice({ finish: 'urethane-2c' })
  const plan = workOutPlan(usualContext(facts()), built(usualContext(facts()), pick))
  const steps: BenchStep[] = plan.steps.map(s => ({ ...s, state: 'planned', started_ms: null, finished_ms: null }))
  const ask = (local: string, mixed_ms: number | null, temperature_C = 21, overruled: string[] = []) =>
    mayStart({
      step: { ...steps.find(s => s.product === 'urethane-2c')!, mixed_ms },
      steps,
      waits: [],
      verdicts: [],
      overruled: new Set(overruled),
      hours,
      now_ms: at(local),
      shelf: EMPTY_SHELF,
      air: { temperature_C, rh: 0.45 },
      clock,
    })
  it('lasts two to six hours (common practice), counted by the early end: refused after it, told before it', () => {
    expect(ask('2026-11-23T11:59', mixed)).toMatchObject({ may: true, warnings: ['Use the pot by 12:00.'] })
    expect(ask('2026-11-23T12:01', mixed).refusals.map(r => r.says)).toEqual([
      'The pot was mixed at 10:00; its life ended at 12:00. Mix a new pot.',
    ])
    expect(ask('2026-11-23T12:01', null).warnings.join()).toMatch(/Touch "Mixed"/)
  })
  it('heat shortens it, a word of the owner overrules it, and a product that is not mixed has none', () => {
    expect(
      ask('2026-11-23T11:05', mixed, 31)
        .refusals.map(r => r.says)
        .join(),
    ).toMatch(/ended at 11:00/)
    expect(
      ask('2026-11-23T12:01', mixed, 21, [
        'two-part-after-pot-life|' + steps.find(s => s.product === 'urethane-2c')!.key,
      ]).may,
    ).toBe(true)
    expect(potEnds_ms({ ...steps[0]!, mixed_ms: mixed }, null, EMPTY_SHELF)).toBeNull()
  })
})

describe('a day at the bench', () => {
  const step = (key: string, attended_min: number, state: BenchStep['state'] = 'planned') => ({
    key,
    attended_min,
    state,
  })
  it('what a step holds up is the longest way behind it, waits by their safe end', () => {
    const behind = behind_min(
      [step('a', 10, 'done'), step('b', 20, 'running'), step('c', 5), step('d', 30), step('e', 1, 'skipped')],
      [
        { from: 'a', to: 'b', safe: 60 },
        { from: 'b', to: 'c', safe: 0 },
        { from: 'b', to: 'd', safe: 240 },
        { from: 'c', to: 'd', safe: 600 },
      ],
    )
    expect(Object.fromEntries(behind)).toEqual({ d: 30, c: 635, b: 655 })
  })
  it('windows before one step open with the last and close with the first', () => {
    const window = (opens_ms: number | null, closes_ms: number | null) => ({
      ...{ from: `${closes_ms}`, to: 'x', kind: 'dwell' as const, why: '', hard: true, start_ms: 0 },
      ...{ opens_ms, likely_ms: opens_ms, safe_ms: opens_ms, closes_ms },
    })
    expect(together([window(5, null), window(9, 20), window(7, 15)])).toMatchObject({
      from: '15',
      opens_ms: 9,
      closes_ms: 15,
    })
    expect(together([window(5, 20), window(null, null)])).toMatchObject({ opens_ms: null, closes_ms: 20 })
  })
  const spell = (from: string, to: string | null) => ({
    ...{ id: 1, personId: 1, by: 'Emil', at: null },
    from_ms: at(from),
    to_ms: to === null ? null : at(to),
  })
  it('minutes are those of hands: two at it count twice, put aside not at all', () => {
    const spells = [
      spell('2026-11-23T09:00', '2026-11-23T09:10'),
      spell('2026-11-23T09:30', null),
      spell('2026-11-23T09:40', '2026-11-23T09:45'),
    ]
    expect(worked_min(spells, at('2026-11-23T10:00'))).toBe(10 + 30 + 5)
    expect(worked_min(spells, at('2026-11-23T09:20'))).toBe(10)
  })
  it('what is in hand when the shop opens again was left at the closing before', () => {
    const monday = [spell('2026-11-23T16:00', null)]
    expect(leftAt_ms(monday, hours, at('2026-11-23T16:30'))).toBeNull()
    expect(leftAt_ms(monday, hours, at('2026-11-23T22:00'))).toBeNull()
    expect(leftAt_ms(monday, hours, at('2026-11-24T09:00'))).toBe(closingOf(hours, at('2026-11-23T16:00')))
    expect(leftAt_ms([spell('2026-11-22T12:00', null)], hours, at('2026-11-23T09:00'))).toBe(at('2026-11-22T12:00'))
    expect(leftAt_ms([spell('2026-11-23T09:00', '2026-11-23T09:30')], hours, at('2026-11-24T09:00'))).toBeNull()
  })
})
