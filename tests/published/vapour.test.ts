import { describe, expect, it } from 'vitest'
import { MATERIALS, passesCartridges } from '#core/materials'
import {
  airVerdict,
  dilution,
  explosiveOf,
  limitOf,
  mgPerM3,
  mixtureOf,
  SOLVENT_SLUGS,
  type Solvent,
  SOLVENTS,
} from '#core/vapour'

describe('limits in air', () => {
  // NIOSH Pocket Guide to Chemical Hazards, conversion factors at 25 °C and 1 atm; from memory
  it.each([
    ['acetone', 2.38],
    ['ethanol', 1.89],
    ['toluene', 3.77],
    ['xylene', 4.34],
    ['butyl-acetate', 4.75],
    ['turpentine', 5.56],
    ['methylene-chloride', 3.47],
  ] as const)('one ppm of %s is %f mg/m³', (slug, factor) => {
    expect(mgPerM3(1, SOLVENTS[slug].molar_g)).toBeCloseTo(factor, 1)
  })
  // the same guide gives both units of its limits; from memory
  it.each([
    ['acetone', 590],
    ['ethanol', 1900],
    ['toluene', 375],
    ['xylene', 435],
    ['butyl-acetate', 710],
    ['turpentine', 560],
    ['white-spirit', 350],
  ] as const)('%s: %i mg/m³ over a working day', (slug, mg) => {
    expect(Math.abs(limitOf(SOLVENTS[slug] as Solvent) / mg - 1)).toBeLessThan(0.015)
  })
  // common practice: what people may breathe is far below what burns
  it('are hundreds of times below what burns', () => {
    for (const slug of SOLVENT_SLUGS.filter(s => s !== 'methylene-chloride')) {
      const s = SOLVENTS[slug] as Solvent
      expect(explosiveOf(s) / limitOf(s)).toBeGreaterThan(30)
    }
  })
})

describe('general dilution', () => {
  // ACGIH, Industrial Ventilation, general dilution: Q [cfm] = 403 · SG · 10⁶ · K · (pints/min) / (MW · TLV);
  // its example of methyl chloroform, two pints in 90 minutes, K 5, TLV 350 ppm; from memory
  it('follows the equation of the industrial ventilation manual', () => {
    const cfm = (403 * 0.87 * 1e6 * 6 * (1 / 60)) / (92.14 * 100)
    const pint_g = 473.2 * 0.87
    const { exposure_m3_h } = dilution([{ mass_g: pint_g, minutes: 60, mixture: { toluene: 1 } }], 'usual')
    expect(Math.abs(exposure_m3_h / (cfm * 1.699) - 1)).toBeLessThan(0.03)
  })
  // ACGIH additive mixture formula: Σ C/TLV ≤ 1; from memory
  it('adds up over solvents and over pieces of work', () => {
    const one = { mass_g: 100, minutes: 60, mixture: { toluene: 1 } }
    const other = { mass_g: 50, minutes: 30, mixture: { acetone: 1 } }
    const sum = dilution([one, other], 'well')
    const parts = [dilution([one], 'well'), dilution([other], 'well')]
    expect(sum.exposure_m3_h).toBeCloseTo(parts[0]!.exposure_m3_h + parts[1]!.exposure_m3_h, 6)
    expect(dilution([one], 'badly').exposure_m3_h / dilution([one], 'well').exposure_m3_h).toBeCloseTo(10 / 3, 6)
  })
  // common practice: lacquer sprayed in a closed room is for a booth; oil wiped on in an open shop is not
  it('tells fine from mask from never', () => {
    const lacquer = MATERIALS.find(m => m.slug === 'nitrocellulose-lacquer')!
    const sprayed = dilution([{ mass_g: 0.68 * 1500, minutes: 40, mixture: mixtureOf(lacquer) }], 'usual')
    expect(airVerdict(sprayed, 60)).toBe('never')
    expect(airVerdict(sprayed, 3000)).toBe('mask')
    const wiped = dilution([{ mass_g: 0.4 * 80, minutes: 60, mixture: { 'white-spirit': 1 } }], 'usual')
    expect(airVerdict(wiped, 1000)).toBe('fine')
    expect(airVerdict(wiped, null)).toBe('unknown')
    expect(airVerdict(dilution([], 'usual'), null)).toBe('fine')
    expect(sprayed.exposure_m3_h).toBeGreaterThan(sprayed.explosive_m3_h)
  })
  // OSHA 29 CFR 1910.1052 (methylene chloride: supplied air); common practice for isocyanates; from memory
  it('sends nobody behind cartridges that do not hold the vapour', () => {
    const passing = MATERIALS.filter(passesCartridges).map(m => m.slug)
    expect(passing.toSorted()).toEqual(['methylene-chloride-stripper', 'urethane-2c'])
    const source = { mass_g: 200, minutes: 40, mixture: { 'methylene-chloride': 1 } } as const
    expect(airVerdict(dilution([{ ...source, passesCartridges: true }], 'usual'), 300)).toBe('supplied')
    expect(airVerdict(dilution([source], 'usual'), 300)).toBe('mask')
  })
})

describe('what evaporates of a class', () => {
  const voc = (slug: string) => MATERIALS.find(m => m.slug === slug)!.voc_g_l
  // common practice: water, soap and bleach give off no solvent; thinners are solvent alone
  it('is nothing of soap and bleach, little of what is waterborne, most of what thins', () => {
    for (const slug of ['mild-soap', 'two-part-bleach', 'oxalic-acid']) expect(voc(slug), slug).toBe(0)
    for (const m of MATERIALS.filter(x => x.base === 'water')) expect(m.voc_g_l, m.slug).toBeLessThanOrEqual(150)
    for (const slug of ['white-spirit', 'alcohol', 'lacquer-thinner']) expect(voc(slug), slug).toBeGreaterThan(700)
  })
  // definition: no litre gives off more than it weighs
  it('is never more than it weighs', () => {
    for (const m of MATERIALS) expect(m.voc_g_l, m.slug).toBeLessThanOrEqual(m.density * 1000)
  })
  // common practice: each class with solvent in it is known by a solvent with a limit, or is waterborne
  it('has a limit wherever there is much of it', () => {
    for (const m of MATERIALS.filter(x => x.voc_g_l > 150)) expect(Object.keys(mixtureOf(m)), m.slug).not.toEqual([])
  })
})
