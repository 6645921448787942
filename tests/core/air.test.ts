import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import type { Step } from '#core/acts'
import {
  type Air,
  airBetween,
  blushMargin_K,
  coatingHours,
  coatingSpans,
  dewPoint_C,
  forecastAir,
  GENERAL_AIR,
  heatedTo,
  judgeAir,
  LACQUER_AIR,
  parseClimateLog,
  type Reading,
  whatHelps,
} from '#core/air'
import { usualContext } from '#core/context'
import { STANDARD_AIR } from '#core/drying'
import { waitsOf, workOutPlan } from '#core/plan'
import { isWorking } from '#core/timetable'
import { at, built, choice, facts, hours } from '../facts'

const H = 3_600_000
const NOW = at('2026-11-25T10:00')
const hourOf = (ms: number) => (new Date(ms).getUTCHours() + 1) % 24
/** A made-up room: warm days, cool nights, the same water in the air. */
const room = (days: number, more: (i: number) => Partial<Reading> = () => ({})): Reading[] =>
  Array.from({ length: days * 24 }, (_, i) => {
    const at_ms = NOW - (days * 24 - 1 - i) * H
    const temperature_C = 18 + 3 * Math.sin(((hourOf(at_ms) - 9) / 24) * 2 * Math.PI)
    return { at_ms, ...heatedTo({ temperature_C: 18, rh: 0.55 }, temperature_C), ...more(i) }
  })

describe('waits in the air of the room', () => {
  const cold = { temperature_C: 11, rh: 0.5 }
  const logged = [0, 1, 2, 3].map(h => ({ at_ms: h * 3_600_000, air: h < 2 ? STANDARD_AIR : cold }))
  it('mean air is that of the hours between two moments; none is known outside the log', () => {
    expect(airBetween(logged, 0, 4 * 3_600_000)).toEqual({ temperature_C: 16, rh: 0.5 })
    expect(airBetween(logged, 9e9, 10e9)).toBeNull()
  })
  it('a coat in a room 10 K colder takes twice as long (common practice); the least is the label’s', () => {
    const within = usualContext(facts())
    const { steps } = workOutPlan(within, built(within, choice({ finish: 'oil-polyurethane' })))
    const after = (air: Air) => waitsOf(steps, { ...within, air }).find(w => w.from.endsWith('coat.1'))!
    expect(after(cold).likely).toBeCloseTo(2 * after(STANDARD_AIR).likely)
    expect(after(cold).min).toBe(after(STANDARD_AIR).min)
    const first = (s: Step) => (s.key.endsWith('coat.1') ? cold : STANDARD_AIR)
    const waits = waitsOf(steps, within, first)
    expect(waits.find(w => w.from.endsWith('coat.1'))!.likely).toBeCloseTo(after(cold).likely)
  })
})

describe('a simple forecast of the room', () => {
  it('repeats the usual day when today is usual', () => {
    const { hours: ahead, seen } = forecastAir(room(4), NOW, 48, hourOf)!
    expect(seen).toBe(24)
    for (const h of ahead)
      expect(h.air.temperature_C).toBeCloseTo(18 + 3 * Math.sin(((hourOf(h.at_ms) - 9) / 24) * 2 * Math.PI), 6)
  })
  it('lets what is unusual now fade over a day', () => {
    const warm = room(4)
    warm[warm.length - 1]!.temperature_C += 4
    const [usual, now] = [forecastAir(room(4), NOW, 48, hourOf)!, forecastAir(warm, NOW, 48, hourOf)!]
    const off = (i: number) => now.hours[i]!.air.temperature_C - usual.hours[i]!.air.temperature_C
    expect(off(1)).toBeGreaterThan(2)
    expect(off(30)).toBeLessThan(off(1) / 2)
  })
  it('grows damp when the room cools at night with the same water in it', () => {
    const { hours: ahead } = forecastAir(room(4), NOW, 24, hourOf)!
    const [coldest, warmest] = [
      ahead.toSorted((a, b) => a.air.temperature_C - b.air.temperature_C)[0]!,
      ahead.toSorted((a, b) => b.air.temperature_C - a.air.temperature_C)[0]!,
    ]
    expect(coldest.air.rh).toBeGreaterThan(warmest.air.rh)
    expect(dewPoint_C(coldest.air)).toBeCloseTo(dewPoint_C(warmest.air), 1)
  })
  it('goes on with the last reading while the day is not known, and is nothing without one', () => {
    const few = forecastAir(room(4).slice(-3), NOW, 24, hourOf)!
    expect(few.seen).toBe(3)
    expect(new Set(few.hours.map(h => h.air.temperature_C.toFixed(6))).size).toBe(1)
    expect(forecastAir([], NOW, 24, hourOf)).toBeNull()
  })
  it('never leaves what air can be, whatever was logged', () => {
    const any = fc
      .array(
        fc.record({
          at_ms: fc.integer({ min: NOW - 96 * H, max: NOW }),
          temperature_C: fc.double({ min: -5, max: 40, noNaN: true }),
          rh: fc.double({ min: 0.05, max: 1, noNaN: true }),
        }),
        { minLength: 1, maxLength: 60 },
      )
      .map(rs => rs.sort((a, b) => a.at_ms - b.at_ms))
    fc.assert(
      fc.property(any, rs => {
        for (const h of forecastAir(rs, NOW, 48, hourOf)!.hours)
          expect(h.air.rh > 0 && h.air.rh <= 1 && h.air.temperature_C > -60 && h.air.temperature_C < 90).toBe(true)
      }),
    )
  })
})

describe('the hours in which a coat may go on', () => {
  const open = (ms: number) => isWorking(hours, ms)
  const ahead = forecastAir(
    room(4, () => ({})),
    NOW,
    48,
    hourOf,
  )!
  it('are working hours whose air does not stop it', () => {
    const spans = coatingSpans(coatingHours(GENERAL_AIR, ahead, 0, open))
    expect(spans.length).toBeGreaterThan(0)
    for (const s of spans) expect(open(s.from_ms) && s.to_ms > s.from_ms).toBe(true)
  })
  it('leave out hours after which the film would still be wet when the night turns damp', () => {
    const damp = forecastAir(
      room(4, i => (hourOf(NOW - (95 - i) * H) >= 19 ? { rh: 0.97 } : {})),
      NOW,
      24,
      hourOf,
    )!
    const may = (wet: number) =>
      coatingHours(LACQUER_AIR, damp, wet, open).filter(h => h.open && h.severity !== 'stop').length
    expect(may(6)).toBeLessThan(may(0))
    expect(
      coatingHours(LACQUER_AIR, damp, 6, open).find(h => h.open && h.severity === 'stop' && /later/.test(h.why!))?.why,
    ).toMatch(/turns cloudy.* h later, while it is still wet/)
  })
})

describe('what would help', () => {
  const damp = { temperature_C: 17, rh: 0.72 }
  const ahead = coatingHours(LACQUER_AIR, forecastAir(room(4), NOW, 48, hourOf)!, 0, ms => isWorking(hours, ms))
  const helps = whatHelps(LACQUER_AIR, damp, 1, ahead, NOW)
  it('heat and drying are told with the air to come to, and do what they say', () => {
    expect(judgeAir(LACQUER_AIR, damp).severity).toBe('stop')
    for (const help of helps.filter(h => h.kind === 'heat'))
      expect(judgeAir(LACQUER_AIR, heatedTo(damp, help.to_C!)).severity).toBe(help.makes)
    for (const help of helps.filter(h => h.kind === 'dry'))
      expect(judgeAir(LACQUER_AIR, { ...damp, rh: help.to_rh! }).severity).toBe(help.makes)
    expect(helps.map(h => h.kind)).toEqual(expect.arrayContaining(['heat', 'dry']))
  })
  it('each says what it costs in hours', () => {
    for (const help of helps) expect(help.hours).toBeGreaterThan(0)
  })
  it('a retarder helps lacquer alone, and only where 3 K are the difference', () => {
    expect(whatHelps(LACQUER_AIR, { temperature_C: 20, rh: 0.62 }, 1, [], NOW).map(h => h.kind)).toContain('retarder')
    expect(whatHelps(GENERAL_AIR, { temperature_C: 20, rh: 0.9 }, 1, [], NOW).map(h => h.kind)).not.toContain(
      'retarder',
    )
  })
  it('good air needs no help', () =>
    expect(whatHelps(LACQUER_AIR, { temperature_C: 21, rh: 0.45 }, 1, ahead, NOW)).toEqual([]))
  test.each([
    [21, 0.5, 5, 2.79],
    [21, 0.5, 2, 5.79],
    [20, 0.7, 5, -2.36],
  ])('blush margin at %d °C, %d, cooling %d K: %d K (Magnus, arithmetic)', (temperature_C, rh, cooling_K, margin) =>
    expect(blushMargin_K({ ...LACQUER_AIR, cooling_K }, { temperature_C, rh })).toBeCloseTo(margin, 1),
  )
})

describe("a logger's file", () => {
  const zone = 'Europe/Stockholm'
  test.each([
    ['time,temperature,humidity\n2026-11-20 14:05,19.5,48\n2026-11-20 15:05,19.7,47.5', 2],
    ['"2026-11-20T14:05:00+01:00";"19,5 °C";"48 %"\r\n', 1],
    ['20.11.2026 14:05\t19,5\t48\n\n20.11.2026 15:05\t19,6\t48\n', 2],
  ])('is read: %j', (text, n) => {
    const readings = parseClimateLog(text, zone)
    expect(readings).toHaveLength(n)
    expect(readings[0]).toEqual({ at_ms: at('2026-11-20T14:05'), temperature_C: 19.5, rh: 0.48 })
  })
  // shapes that loggers write (common practice)
  test.each([
    ['Model,X1\nSerial,123\nNo.,Date,Time,Temperature (°C),Humidity (%RH)\n1,2026-11-20,14:05:00,19.5,48\n', 1],
    ['Record,Timestamp,RH %,Temp °F\n1,11/20/2026 14:05,48,67.1\n2,11/21/2026 14:05,50,68\n', 2],
    ['Datum;Zeit;Feuchte;Temperatur\n20.11.2026;14:05;48,0;19,5\n', 1],
    ['Date Time,Celsius(°C),Humidity(%rh),Dew Point(°C)\n11/20/2026 02:05 PM,19.5,48,8\n', 1],
  ])('is read by its headings: %j', (text, n) => {
    const readings = parseClimateLog(text, zone)
    expect(readings).toHaveLength(n)
    expect(readings[0]!.at_ms).toBe(at('2026-11-20T14:05'))
    expect(readings[0]!.temperature_C).toBeCloseTo(19.5, 1)
    expect(readings[0]!.rh).toBeCloseTo(0.48, 5)
  })
  it('without headings is read by the columns that somebody names', () => {
    const columns = { time: 2, day: 1, temperature: 4, humidity: 3, fahrenheit: false }
    const text = 'a,b,c,d,e\n7,20.11.2026,14:05,48,19.5\n'
    expect(parseClimateLog(text, zone, columns)).toEqual([
      { at_ms: at('2026-11-20T14:05'), temperature_C: 19.5, rh: 0.48 },
    ])
    expect(() => parseClimateLog(text, zone, { ...columns, temperature: 9 })).toThrow('wanted a time')
  })
  test.each([
    ['2026-11-20 14:05,19.5,48\nyesterday,19,50', /Line 2: "yesterday" is no time/],
    ['2026-11-20 14:05,warm,48', /Line 1: wanted a time, °C and %/],
    ['2026-11-20 14:05,19.5,480', /Line 1: 480 % is no relative humidity/],
    ['2026-11-20 14:05,195,48', /Line 1: 195 °C/],
    ['nothing here', /no reading/],
  ])('is refused with the line: %j', (text, says) => expect(() => parseClimateLog(text, zone)).toThrow(says))
})
