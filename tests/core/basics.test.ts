import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import type { Fields } from '#core/acts'
import { ladder_P, ladderGaps, MAX_STEP_RATIO, median_um, nearestOn, P, veneerBudget } from '#core/abrasives'
import { GENERAL_AIR, judgeAir, LACQUER_AIR } from '#core/air'
import { canonicalJson, mustAskAgain } from '#core/approval'
import { usualContext } from '#core/context'
import { need_ml } from '#core/coverage'
import { dryingTime_min } from '#core/drying'
import { materialOf } from '#core/materials'
import { coveredArea_m2, wholeFace } from '#core/piece'
import { amount_ml } from '#core/plan'
import { mayOverrule } from '#core/safety'
import { faceArea_m2, inFahrenheit, parseLength_mm, toC, toF } from '#core/units'
import { face, facts } from '../facts'

describe('lengths as typed', () => {
  test.each([
    ['600', 600],
    ['60 cm', 600],
    ['1.2 m', 1200],
    ['1/4 in', 6.35],
    ['¼ in', 6.35],
    ['2¼"', 57.15],
    ['2 1/4 in', 57.15],
    ['2-1/4"', 57.15],
    ['2\' 3 1/2"', 698.5],
    ['0,5 m', 500],
    ['½ in', 12.7],
  ])('%s is %d mm', (typed, mm) => expect(parseLength_mm(typed)).toBeCloseTo(mm, 6))
  test.each(['', 'wide', '-5', '0', '1/0 in', '5 stones', '3 4', '1e9', 'NaN', '12 mm mm'])('%s is refused', typed =>
    expect(parseLength_mm(typed)).toBeNull(),
  )
  it("reads a bare number in the shop's unit", () => expect(parseLength_mm('10', 'in')).toBe(254))
})

describe('temperatures in °F', () => {
  // fixed points of both scales
  test.each([
    [0, 32],
    [100, 212],
    [-40, -40],
  ])('%d °C is %d °F', (C, F) => {
    expect(toF(C)).toBeCloseTo(F)
    expect(toC(F)).toBeCloseTo(C)
  })
  it('are written anew in a text: single, from to, and differences without the offset', () => {
    expect(inFahrenheit('The air is 21 °C; the usual window is 18 to 25 °C, 3 K above the dew point.')).toBe(
      'The air is 69.8 °F; the usual window is 64.4 to 77 °F, 5.4 F° above the dew point.',
    )
    expect(inFahrenheit('-5 °C')).toBe('23 °F')
    expect(inFahrenheit('P120, 21 h, 3 Kg')).toBe('P120, 21 h, 3 Kg')
  })
})

describe('areas', () => {
  it('a round table of 1.2 m has 1.13 m², not 1.44; a band along its rim is a ring', () => {
    const round = { shape: 'oval', length_mm: 1200, width_mm: 1200 } as const
    expect(faceArea_m2({ ...round, count: 1 })).toBeCloseTo(1.131, 3)
    const top = face({ ...round, area_m2: faceArea_m2({ ...round, count: 1 }) })
    expect(coveredArea_m2([{ place: wholeFace(), round: false }], top)).toBeCloseTo(1.131, 2)
    const context = usualContext(facts({ faces: [top] }))
    const band = { kind: 'coat', product: 'oil-polyurethane', label: null, coat: 1, passes: 1, faces: [1] } as const
    const of = (fields: Fields) => amount_ml({ ...band, faces: [1], fields }, context, false)!
    // ring: π/4 × (1.2² − 1.0²) = 0.346 of 1.131 m²
    expect(of({ band_mm: 100 }) / of({})).toBeCloseTo(0.3456 / 1.131, 2)
  })
  it('takes a turned leg as π × mean diameter × length', () =>
    expect(faceArea_m2({ shape: 'turned', length_mm: 400, width_mm: 50, count: 4 })).toBeCloseTo(
      Math.PI * 0.05 * 0.4 * 4,
      9,
    ))
  it('refuses what has no size', () => {
    expect(() => faceArea_m2({ shape: 'flat', length_mm: 0, width_mm: 5, count: 1 })).toThrow(/above zero/)
    expect(() => faceArea_m2({ shape: 'flat', length_mm: 5, width_mm: 5, count: 1.5 })).toThrow(/whole count/)
  })
})

describe('ladders', () => {
  it('never skips, whatever the ends', () => {
    const shelf = [60, 80, 100, 120, 150, 180, 220, 320, 400]
    fc.assert(
      fc.property(fc.constantFrom(...shelf), fc.constantFrom(...shelf), (a, b) => {
        const ladder = ladder_P(Math.min(a, b), Math.max(a, b))
        expect(ladderGaps(ladder)).toEqual([])
        expect(ladder.at(-1)).toEqual(P(Math.max(a, b)))
      }),
    )
  })
  it('names the grit that fills a gap', () => {
    const [gap] = ladderGaps([P(60), P(240)])
    expect(gap!.ratio).toBeGreaterThan(MAX_STEP_RATIO)
    expect([100, 120, 150].map(P)).toContainEqual(gap!.fill)
  })
  it('finds the nearest CAMI number', () => expect(nearestOn('CAMI', P(1200)).grade).toBe('600'))
  it('refuses a grit that does not exist', () => expect(() => median_um(P(137))).toThrow(/no.*grit/i))
})

describe('veneer sum', () => {
  it('shows each grit and the sum', () => {
    const budget = veneerBudget({ thickness_mm: 0.6, ladder: ladder_P(120, 220) })
    expect(budget.rows.map(r => r.takes_um)).toEqual([75, 62.5])
    expect(budget.takes_um).toBe(137.5)
    expect(budget.verdict).toBe('fine')
  })
  it('gives all three answers as the veneer thins', () => {
    const verdict = (mm: number) => veneerBudget({ thickness_mm: mm, ladder: ladder_P(120, 220) }).verdict
    expect([verdict(1), verdict(0.45), verdict(0.35)]).toEqual(['fine', 'by-hand', 'do-not-sand'])
  })
})

describe('amounts', () => {
  it('never fall with another coat or more area', () => {
    fc.assert(
      fc.property(fc.double({ min: 0.01, max: 50, noNaN: true }), fc.integer({ min: 1, max: 6 }), (area, coats) => {
        const m = materialOf('waterborne-polyurethane')
        const total = (n: number, a: number) =>
          Array.from({ length: n }, (_, i) => need_ml({ material: m, area_m2: a, coat: i + 1 })).reduce(
            (x, y) => x + y,
            0,
          )
        expect(total(coats + 1, area)).toBeGreaterThan(total(coats, area))
        expect(total(coats, area * 1.1)).toBeGreaterThan(total(coats, area))
      }),
    )
  })
})

describe('air', () => {
  it('refuses lacquer on a damp day with its figures', () => {
    const verdict = judgeAir(LACQUER_AIR, { temperature_C: 20, rh: 0.62 })
    expect(verdict.severity).toBe('stop')
    expect(verdict.lines[0]).toMatch(/cools to 15 °C \(surface 20 less 5 K\).*above 15\.5 °C/)
  })
  it('refuses lacquer on a hot day', () =>
    expect(judgeAir(LACQUER_AIR, { temperature_C: 33, rh: 0.3 }).lines.join()).toMatch(/32 °C/))
  it('only warns outside the general window', () =>
    expect(judgeAir(GENERAL_AIR, { temperature_C: 16, rh: 0.5 }).severity).toBe('warn'))
  it('takes unknown air as unknown', () => expect(judgeAir(GENERAL_AIR, null).severity).toBe('unknown'))
})

describe('drying', () => {
  it('slows in the cold and for water in damp air', () => {
    const at = (temperature_C: number, rh: number) =>
      dryingTime_min({ label_min: 120, base: 'water', air: { temperature_C, rh } })
    expect(at(11, 0.5).likely).toBeCloseTo(240)
    expect(at(21, 0.75).likely).toBeCloseTo(240)
    expect(at(21, 0.5).early).toBeLessThan(at(21, 0.5).likely)
    expect(at(21, 0.5).safe).toBeGreaterThan(at(21, 0.5).likely)
  })
})

describe('verdict classes and approvals', () => {
  it('lets nobody lift what is forbidden, a stop by its right, a warning by whoever works on it', () => {
    const [all, bench, none] = [
      { stops: true, warnings: true },
      { stops: false, warnings: true },
      { stops: false, warnings: false },
    ]
    expect(mayOverrule('forbidden', all)).toBe(false)
    expect([mayOverrule('stop', all), mayOverrule('stop', bench)]).toEqual([true, false])
    expect([mayOverrule('warn', bench), mayOverrule('warn', none)]).toEqual([true, false])
  })
  it('writes the same content as the same text', () => {
    expect(canonicalJson({ b: [1, 'é'], a: null })).toBe(canonicalJson({ a: null, b: [1, 'é'] }))
    expect(() => canonicalJson({ a: Number.NaN })).toThrow(TypeError)
  })
  it('asks again only beyond the accepted worst', () =>
    expect([mustAskAgain(100, 100), mustAskAgain(100, 101)]).toEqual([false, true]))
})
