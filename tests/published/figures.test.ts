import psychrolib from 'psychrolib'
import { describe, expect, it, test } from 'vitest'
import { CAMI_MEDIAN_UM, ladder_P, ladderGaps, median_um, nearestOn, P, P_MEDIAN_UM } from '#core/abrasives'
import { dewPoint_C, saturationPressure_hPa } from '#core/air'
import { dryFilm, spread_m2 } from '#core/coverage'
import { equilibriumMoisture_pct } from '#core/wood'

describe('grain sizes (ISO 6344-2/-3; ANSI B74.18; from memory)', () => {
  test.each([[P(80), 201], [P(120), 125], [P(180), 82], [P(240), 58.5], [P(400), 35], [P(1200), 15.3], [P(2500), 8.4]] as const)('%o', (grit, um) => expect(median_um(grit)).toBe(um))
  it('falls along both scales', () => {
    for (const table of [P_MEDIAN_UM, CAMI_MEDIAN_UM]) {
      const sizes = Object.entries(table).sort((a, b) => Number(a[0]) - Number(b[0])).map(([, um]) => um)
      sizes.slice(1).forEach((um, i) => expect(um).toBeLessThan(sizes[i]!))
    }
  })
  it('parts P from CAMI above 220: P1200 is about CAMI 600 (common practice)', () => expect(nearestOn('CAMI', P(1200)).number).toBe(600))
  it('P and CAMI agree up to 220 within a fifth (common practice)', () => {
    for (const n of [60, 80, 100, 120, 150, 180, 220]) expect(Math.abs(P_MEDIAN_UM[n]! / CAMI_MEDIAN_UM[n]! - 1)).toBeLessThan(0.2)
  })
})

describe('ladders of the trade (common practice)', () => {
  test.each([[100, 180, [100, 150, 180]], [120, 220, [120, 220]]])('P%d to P%d', (first, stop, ladder) => expect(ladder_P(first, stop).map(g => g.number)).toEqual(ladder))
  it('explains the aggressive ones by naming the gap', () => expect(ladderGaps([P(40), P(120), P(150)]).map(g => g.from.number)).toEqual([40]))
})

describe('water in wood (Wood Handbook FPL-GTR-190, table 4-2, 21.1 °C, from memory)', () => {
  test.each([[0.3, 6.2], [0.5, 9.2], [0.65, 12.0], [0.8, 16.0]])('%d RH → %d %%', (rh, percent) => expect(equilibriumMoisture_pct({ temperature_C: 21.1, rh })).toBeCloseTo(percent, 0))
})

describe('dew point (ASHRAE, npm package psychrolib)', () => {
  psychrolib.SetUnitSystem(psychrolib.SI)
  // Dew points above freezing only: the reference turns to frost point below.
  for (const [temperature_C, rhs] of [[8, [0.65, 0.9]], [15, [0.5, 0.65, 0.9]], [20, [0.3, 0.5, 0.65, 0.9]], [27, [0.3, 0.5, 0.9]], [34, [0.3, 0.65, 0.9]]] as const) for (const rh of rhs)
    it(`${temperature_C} °C, ${rh * 100} %`, () => expect(Math.abs(dewPoint_C({ temperature_C, rh }) - psychrolib.GetTDewPointFromRelHum(temperature_C, rh))).toBeLessThan(0.1))
  it('saturation pressure within 0.5 %', () => expect(saturationPressure_hPa(20) * 100 / psychrolib.GetSatVapPres(20)).toBeCloseTo(1, 2))
})

describe('film build and coverage', () => {
  it('4 mil wet at 25 % solids leaves 1 mil dry (arithmetic)', () => expect(dryFilm(4, 0.25)).toBe(1))
  it('1 L spreads 10 m² at 100 µm (definition)', () => expect(spread_m2(1000, 100)).toBe(10))
  it('1 US gal spreads 1604 ft² at 1 mil (definition)', () => expect(spread_m2(3785.41, 25.4) / 0.09290304).toBeCloseTo(1604, 0))
})
