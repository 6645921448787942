import psychrolib from 'psychrolib'
import { describe, expect, it, test } from 'vitest'
import { CAMI_MEDIAN_UM, ladder_P, ladderGaps, median_um, nearestOn, P_MEDIAN_UM, P } from '#core/abrasives'
import { blushMargin_K, dewPoint_C, heatedTo, LACQUER_AIR, saturationPressure_hPa } from '#core/air'
import { dryFilm, spread_m2 } from '#core/coverage'
import { HAZARDS } from '#core/safety'
import {
  crackAdvice,
  equilibriumMoisture_pct,
  moistureAdvice,
  movement_mm,
  movementOf,
  RIGID_STANDS,
  speciesOf,
  SPECIES,
  veneerThickness,
} from '#core/wood'

describe('grain sizes (ISO 6344-2/-3; ANSI B74.18; from memory)', () => {
  test.each([
    [P(80), 201],
    [P(120), 125],
    [P(180), 82],
    [P(240), 58.5],
    [P(400), 35],
    [P(1200), 15.3],
    [P(2500), 8.4],
  ] as const)('%o', (grit, um) => expect(median_um(grit)).toBe(um))
  it('falls along both scales', () => {
    for (const table of [P_MEDIAN_UM, CAMI_MEDIAN_UM]) {
      const sizes = Object.entries(table)
        .sort((a, b) => Number(a[0]) - Number(b[0]))
        .map(([, um]) => um)
      sizes.slice(1).forEach((um, i) => expect(um).toBeLessThan(sizes[i]!))
    }
  })
  it('parts P from CAMI above 220: P1200 is about CAMI 600 (common practice)', () =>
    expect(nearestOn('CAMI', P(1200)).grade).toBe('600'))
  it('P and CAMI agree up to 220 within a fifth (common practice)', () => {
    for (const n of [60, 80, 100, 120, 150, 180, 220])
      expect(Math.abs(P_MEDIAN_UM[n]! / CAMI_MEDIAN_UM[n]! - 1)).toBeLessThan(0.2)
  })
})

describe('ladders of the trade (common practice)', () => {
  test.each([
    [100, 180, [100, 150, 180]],
    [120, 220, [120, 220]],
  ])('P%d to P%d', (first, stop, ladder) => expect(ladder_P(first, stop).map(g => Number(g.grade))).toEqual(ladder))
  it('explains the aggressive ones by naming the gap', () =>
    expect(ladderGaps([P(40), P(120), P(150)]).map(g => g.from)).toEqual([P(40)]))
})

describe('water in wood (Wood Handbook FPL-GTR-190, table 4-2, 21.1 °C, from memory)', () => {
  test.each([
    [0.3, 6.2],
    [0.5, 9.2],
    [0.65, 12.0],
    [0.8, 16.0],
  ])('%d RH → %d %%', (rh, percent) =>
    expect(equilibriumMoisture_pct({ temperature_C: 21.1, rh })).toBeCloseTo(percent, 0),
  )
})

describe('movement of wood (Wood Handbook FPL-GTR-190, table 13-5, from memory)', () => {
  test.each([
    ['walnut', 0.00274, 0.0019],
    ['cherry', 0.00248, 0.00126],
    ['white-oak', 0.00365, 0.0018],
    ['red-oak', 0.00369, 0.00158],
    ['maple', 0.00353, 0.00165],
    ['ash', 0.00274, 0.00169],
    ['birch', 0.00338, 0.00256],
    ['beech', 0.00431, 0.0019],
    ['mahogany', 0.00238, 0.00172],
    ['teak', 0.00186, 0.00101],
    ['poplar', 0.00289, 0.00158],
    ['pine', 0.00212, 0.00071],
    ['elm', 0.00338, 0.00144],
  ])('%s', (slug, tangential, radial) => expect(movementOf(slug)).toEqual({ tangential, radial, assumed: false }))
  // table 4-3 of the same book, from memory: shrinkage from green to oven-dry, %, tangential and radial
  test.each([
    ['walnut', 7.8, 5.5],
    ['cherry', 7.1, 3.7],
    ['white-oak', 10.5, 5.6],
    ['maple', 9.9, 4.8],
    ['ash', 7.8, 4.9],
    ['birch', 9.5, 7.3],
    ['beech', 11.9, 5.5],
    ['poplar', 8.2, 4.6],
    ['elm', 9.5, 4.2],
  ])('%s: its coefficients spread its whole shrinkage over about 30 points (table 4-3)', (slug, tangential, radial) => {
    const { tangential: t, radial: r } = movementOf(slug)
    for (const points of [tangential / 100 / t, radial / 100 / r]) {
      expect(points).toBeGreaterThan(27)
      expect(points).toBeLessThan(32)
    }
  })
  it('a flat-sawn white oak board of 250 mm from 6 to 12 % grows by 5.5 mm (arithmetic of ΔD = D·C·ΔM)', () =>
    expect(movement_mm(250, movementOf('white-oak').tangential, 6, 12)).toBeCloseTo(5.475, 3))
  it('moves less radially than tangentially, in every species of the table', () => {
    for (const s of SPECIES) if (s.movement) expect(s.movement.radial).toBeLessThan(s.movement.tangential)
  })
  it('swings between the seasons by the moisture table: 30 % to 65 % is 6.2 to 12.0 % (table 4-2)', () => {
    const k = crackAdvice({
      species: 'white-oak',
      board_mm: 400,
      gap_mm: 2,
      room: { temperature_C: 21.1, dryRh: 0.3, humidRh: 0.65 },
    })
    expect(k.swing_mm).toBeCloseTo(400 * 0.00365 * (12.0 - 6.2), 0)
  })
  it('a rigid filler stands 1 to 2 % of the gap (common practice)', () => {
    expect(RIGID_STANDS).toBeGreaterThanOrEqual(0.01)
    expect(RIGID_STANDS).toBeLessThanOrEqual(0.02)
  })
})

describe('moisture before finishing (common practice: more than 2 points above equilibrium, wait)', () => {
  const air = { temperature_C: 21.1, rh: 0.5 }
  test.each([
    [11.1, 'ready'],
    [11.4, 'wait'],
    [7, 'ready'],
  ])('%d % at 50 %', (reading_pct, verdict) =>
    expect(moistureAdvice([{ faceId: 1, reading_pct, at_ms: 0, thickness_mm: 20, air }], air)!.verdict).toBe(verdict),
  )
})

describe('woods, as the trade knows them (common practice, from memory; no second source)', () => {
  test.each(['oak', 'ash', 'walnut', 'mahogany', 'elm', 'teak', 'rosewood'])('%s is open-pored', slug =>
    expect(speciesOf(slug).pores).toBe('open'),
  )
  test.each(['cherry', 'maple', 'birch', 'beech', 'pine', 'poplar'])('%s is closed-pored', slug =>
    expect(speciesOf(slug).pores).toBe('closed'),
  )
  test.each(['pine', 'poplar', 'birch', 'cherry', 'maple'])('%s blotches', slug =>
    expect(speciesOf(slug).blotches).toBe(true),
  )
  test.each(['oak', 'walnut', 'mahogany', 'chestnut'])('%s holds tannin', slug =>
    expect(speciesOf(slug).tannin).toBe(true),
  )
  test.each([
    ['before-1850', 1, 2.5],
    ['1925-1960', 0.5, 0.7],
    ['after-1990', 0.3, 0.5],
  ] as const)('veneer %s: %d to %d mm', (period, thin, thick) =>
    expect(veneerThickness(null, period).range_mm).toEqual([thin, thick]),
  )
  it('lead forbids dry sanding and heat guns (US 16 CFR 1303, 1978, from memory; common practice)', () =>
    expect(HAZARDS.find(h => h.slug === 'lead')).toMatchObject({
      severity: 'forbidden',
      forbids: ['dry-sanding', 'heat-gun'],
    }))
})

describe('dew point (ASHRAE, npm package psychrolib)', () => {
  psychrolib.SetUnitSystem(psychrolib.SI)
  // Dew points above freezing only: the reference turns to frost point below.
  for (const [temperature_C, rhs] of [
    [8, [0.65, 0.9]],
    [15, [0.5, 0.65, 0.9]],
    [20, [0.3, 0.5, 0.65, 0.9]],
    [27, [0.3, 0.5, 0.9]],
    [34, [0.3, 0.65, 0.9]],
  ] as const)
    for (const rh of rhs)
      it(`${temperature_C} °C, ${rh * 100} %`, () =>
        expect(
          Math.abs(dewPoint_C({ temperature_C, rh }) - psychrolib.GetTDewPointFromRelHum(temperature_C, rh)),
        ).toBeLessThan(0.1))
  it('the same water in heated air: humidity ratio as the reference has it, within 1 %', () => {
    const [cold, warm] = [{ temperature_C: 14, rh: 0.75 }, heatedTo({ temperature_C: 14, rh: 0.75 }, 21)]
    expect(
      psychrolib.GetHumRatioFromRelHum(warm.temperature_C, warm.rh, 101_325) /
        psychrolib.GetHumRatioFromRelHum(cold.temperature_C, cold.rh, 101_325),
    ).toBeCloseTo(1, 2)
  })
  // lacquer: fast thinner cools 5 K, 3 K above the dew point (ISO 8502-4, from memory; cooling common practice)
  for (const [temperature_C, rh] of [
    [18, 0.5],
    [21, 0.6],
    [24, 0.7],
    [16, 0.45],
  ] as const)
    it(`blush margin at ${temperature_C} °C, ${rh * 100} %`, () =>
      expect(blushMargin_K(LACQUER_AIR, { temperature_C, rh })).toBeCloseTo(
        temperature_C - 5 - psychrolib.GetTDewPointFromRelHum(temperature_C, rh) - 3,
        1,
      ))
  it('saturation pressure within 0.5 %', () =>
    expect((saturationPressure_hPa(20) * 100) / psychrolib.GetSatVapPres(20)).toBeCloseTo(1, 2))
})

describe('film build and coverage', () => {
  it('4 mil wet at 25 % solids leaves 1 mil dry (arithmetic)', () => expect(dryFilm(4, 0.25)).toBe(1))
  it('1 L spreads 10 m² at 100 µm (definition)', () => expect(spread_m2(1000, 100)).toBe(10))
  it('1 US gal spreads 1604 ft² at 1 mil (definition)', () =>
    expect(spread_m2(3785.41, 25.4) / 0.09290304).toBeCloseTo(1604, 0))
})
