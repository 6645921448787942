import { describe, expect, it } from 'vitest'
import { GENERAL_AIR, type HourWeather, rainSpans, shutOutdoors } from '#core/air'

const HOUR = 3_600_000
const T0 = Date.UTC(2027, 5, 1, 6)
const at = (h: number) => T0 + h * HOUR
/** Hours of mild dry weather, but for those that are given. */
const weather = (n: number, odd: Record<number, Partial<{ rain: number; t: number }>> = {}): HourWeather[] =>
  Array.from({ length: n }, (_, h) => ({
    at_ms: at(h),
    air: { temperature_C: odd[h]?.t ?? 21, rh: 0.5 },
    rain_mm: odd[h]?.rain ?? 0,
  }))
const within = [T0, at(48)] as const

describe('outdoors', () => {
  it('no coat begins that rain would reach while it is wet, nor beyond what is foretold', () => {
    const shut = shutOutdoors(GENERAL_AIR, weather(24, { 10: { rain: 0.5 } }), 2, within)
    expect(shut).toEqual([
      [at(8), at(11)],
      [at(22), at(48)],
    ])
  })
  it('without weather all of it is closed', () => {
    expect(shutOutdoors(GENERAL_AIR, [], 2, within)).toEqual([within])
    expect(shutOutdoors(null, [], 2, within)).toEqual([within])
  })
  it('outside the usual window a coat waits; what minds only the rain does not', () => {
    const cold = weather(6, { 0: { t: 9 }, 1: { t: 9 } })
    expect(shutOutdoors(GENERAL_AIR, cold, 1, [T0, at(5)])).toEqual([[T0, at(2)]])
    expect(shutOutdoors(null, cold, 1, [T0, at(5)])).toEqual([])
  })
  it('rain is told by its spans', () => {
    expect(rainSpans(weather(6, { 1: { rain: 1 }, 2: { rain: 0.1 }, 4: { rain: 3 } }))).toEqual([
      [at(1), at(3)],
      [at(4), at(5)],
    ])
  })
})
