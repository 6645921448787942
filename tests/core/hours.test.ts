import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import {
  afterWorking,
  barEdges,
  closingOf,
  type Hours,
  isWorking,
  nextSpan,
  openingsRead,
  openingsSaid,
  spanAt,
  type Window,
} from '#core/timetable'
import { at, hours } from '../facts'

const MIN = 60_000

describe('opening hours as they are typed', () => {
  it.each([
    ['8-12, 13:00–17:30', '08:00–12:00, 13:00–17:30'],
    ['13 to 17 and 7.30 to 12', '07:30–12:00, 13:00–17:00'],
    ['0800-2400', '08:00–24:00'],
    ['closed', ''],
    ['  ', ''],
  ])('%s', (typed, said) => expect(openingsSaid(openingsRead(typed))).toBe(said))
  it.each([
    ['8', 'a beginning and an end'],
    ['8-25', 'no time of the day'],
    ['8:70-9', 'no time of the day'],
    ['12-8', 'ends before it begins'],
    ['8-12, 11-13', 'overlap'],
    ['<script>-9', 'no time of the day'],
  ])('%s is refused', (typed, why) => expect(() => openingsRead(typed)).toThrow(why))
  it('what is said is read again as it was', () => {
    const minute = fc.integer({ min: 0, max: 1440 })
    fc.assert(
      fc.property(fc.uniqueArray(minute, { minLength: 2, maxLength: 8 }), times => {
        const ends = times.sort((a, b) => a - b)
        const spans = ends.flatMap((from, i) => (i % 2 === 0 && i + 1 < ends.length ? [[from, ends[i + 1]!]] : []))
        expect(openingsRead(openingsSaid(spans))).toEqual(spans)
      }),
    )
  })
})

describe("opening hours in the shop's zone", () => {
  it('keep local time over the change to summer time', () => {
    const sunday = { ...hours, week: { ...hours.week, 7: [[450, 1020]] as [number, number][] } }
    const [open, close] = nextSpan(sunday, Date.parse('2026-03-29T00:00:00+01:00'))
    expect(new Date(open).toISOString()).toBe('2026-03-29T05:30:00.000Z')
    expect((close - open) / MIN).toBe(570)
  })
  it('skip closures and weekends', () => {
    expect(nextSpan(hours, at('2026-12-24T18:00'))[0]).toBe(at('2026-12-28T07:30'))
    expect(spanAt(hours, at('2026-12-25T10:00'))).toBeNull()
    expect(closingOf(hours, at('2026-11-28T10:00'))).toBeNull()
  })
  it('count the closing minute as working, and nothing after it', () => {
    expect([isWorking(hours, at('2026-11-23T17:00')), isWorking(hours, at('2026-11-23T17:01'))]).toEqual([true, false])
  })
  it('take a midday break for what it is', () => {
    const broken: Hours = {
      ...hours,
      week: {
        1: [
          [480, 720],
          [780, 1020],
        ],
      },
    }
    expect(isWorking(broken, at('2026-11-23T12:30'))).toBe(false)
    expect(afterWorking(broken, at('2026-11-23T11:30'), 60)).toBe(at('2026-11-23T13:30'))
    expect(closingOf(broken, at('2026-11-23T11:30'))).toBe(at('2026-11-23T17:00'))
  })
  it('say so when the shop never opens', () =>
    expect(() => nextSpan({ ...hours, week: {} }, at('2026-11-23T10:00'))).toThrow(/Set them under Shop/))
  it('end work inside hours, later for more work, and the sum of two goes is one go', () => {
    fc.assert(
      fc.property(
        fc.integer({ min: 0, max: 7 * 1440 }),
        fc.integer({ min: 1, max: 2000 }),
        fc.integer({ min: 1, max: 600 }),
        (offset, minutes, more) => {
          const from = at('2026-11-23T00:00') + offset * MIN
          const end = afterWorking(hours, from, minutes)
          expect(isWorking(hours, end)).toBe(true)
          expect(afterWorking(hours, from, minutes + more)).toBeGreaterThan(end)
          expect(afterWorking(hours, end, more)).toBe(afterWorking(hours, from, minutes + more))
        },
      ),
    )
  })
})

describe('the window bar', () => {
  const window = (more: Partial<Window>): Window => ({
    from: 'strip',
    to: 'scrape',
    kind: 'dwell',
    why: '',
    start_ms: at('2026-11-23T10:00'),
    opens_ms: at('2026-11-23T10:15'),
    likely_ms: null,
    safe_ms: null,
    closes_ms: at('2026-11-23T11:30'),
    hard: true,
    ...more,
  })
  const span = [at('2026-11-23T08:00'), at('2026-11-23T12:00')] as const
  const phase = (clock: string, more: Partial<Window> = {}) =>
    barEdges(window(more), span, at(`2026-11-23T${clock}`)).phase
  it('waits, may, closes, is late', () =>
    expect(['10:10', '10:30', '11:10', '11:31'].map(c => phase(c))).toEqual(['waits', 'may', 'closing', 'late']))
  it('runs while the earlier step runs, and never closes without a maximum', () => {
    expect(phase('10:10', { opens_ms: null })).toBe('running')
    expect(phase('11:59', { closes_ms: null })).toBe('may')
  })
  it('has its edges where the moments are, cut off at the drawn span', () => {
    expect(barEdges(window({}), span, at('2026-11-23T10:00'))).toMatchObject({
      start: 0.5,
      opens: 0.5625,
      closes: 0.875,
      now: 0.5,
    })
    expect(
      barEdges(
        window({ start_ms: at('2026-11-20T10:00'), closes_ms: at('2026-11-30T10:00') }),
        span,
        at('2026-11-23T10:00'),
      ),
    ).toMatchObject({ start: 0, closes: 1 })
  })
  it('keeps its edges in order', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -600, max: 600 }), { minLength: 3, maxLength: 3 }), offsets => {
        const [start, opens, closes] = offsets.sort((a, b) => a - b).map(m => at('2026-11-23T10:00') + m * MIN)
        const e = barEdges(
          window({ start_ms: start!, opens_ms: opens!, closes_ms: closes! }),
          span,
          at('2026-11-23T10:00'),
        )
        expect(e.start <= e.opens! && e.opens! <= e.closes!).toBe(true)
      }),
    )
  })
})

describe('much work', () => {
  /** Day by day, as it was reckoned before whole weeks were stepped over. */
  function dayByDay(hours: Hours, from_ms: number, minutes: number): number {
    let left = minutes * 60_000
    for (let at = from_ms; ;) {
      const [open, close] = nextSpan(hours, at)
      const begin = Math.max(open, at)
      if (begin + left <= close) return begin + left
      left -= close - begin
      at = close
    }
  }
  const closures = ['2026-12-24', '2026-12-25', '2026-12-26', '2027-01-01', '2027-07-05', '2027-07-06']
  const hours: Hours = {
    zone: 'Europe/Stockholm',
    week: {
      1: [
        [450, 720],
        [765, 1020],
      ],
      2: [[450, 1020]],
      4: [[450, 1020]],
      6: [[540, 720]],
    },
    closures,
  }
  it('ends at the same moment as reckoned day by day, over closures and both changes of the clock', () => {
    fc.assert(
      fc.property(fc.integer({ min: 0, max: 400 * 1440 }), fc.integer({ min: 0, max: 60_000 }), (offset, minutes) => {
        const from = Date.parse('2026-11-02T00:00:00Z') + offset * 60_000
        expect(afterWorking(hours, from, minutes)).toBe(dayByDay(hours, from, minutes))
      }),
      { seed: 11, numRuns: 150 },
    )
  })
  it('takes no longer for twenty years than for a week, and refuses what nobody can date', () => {
    const begun = performance.now()
    for (let i = 0; i < 50; i++)
      afterWorking({ ...hours, closures: [...closures] }, Date.parse('2026-11-02T00:00:00Z') + i * 60_000, 2_400_000)
    expect(performance.now() - begun).toBeLessThan(2000)
    for (const minutes of [2_600_000, Infinity, Number.NaN])
      expect(() => afterWorking(hours, 0, minutes)).toThrow(/more work than can be dated/)
  })
})
