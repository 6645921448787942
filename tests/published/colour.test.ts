import { diff } from 'color-diff'
import Color from 'colorjs.io'
import { converter, differenceCiede2000, formatHex } from 'culori'
import { describe, expect, it, test } from 'vitest'
import * as c from '#core/colour'
import {
  alcoholShare,
  COMMON_MIXTURES,
  CUT_G_L,
  type Ingredient,
  levelsOf,
  mixture,
  recut,
  type Wanted,
} from '#core/mixing'
import { OBSERVERS, POWERS, TABLE_FROM_NM } from '../../core/colour/tables'
import { WOODS } from '../../demo/colours'
import fixture from './fixtures/observers.json'

describe('CIEDE2000 (Sharma, Wu, Dalal 2005, table 1; from memory, each confirmed by the npm package culori)', () => {
  const PAIRS: readonly (readonly [...c.Lab, ...c.Lab, number])[] = [
    [50, 2.6772, -79.7751, 50, 0, -82.7485, 2.0425],
    [50, 3.1571, -77.2803, 50, 0, -82.7485, 2.8615],
    [50, 2.8361, -74.02, 50, 0, -82.7485, 3.4412],
    [50, -1.3802, -84.2814, 50, 0, -82.7485, 1],
    [50, -1.1848, -84.8006, 50, 0, -82.7485, 1],
    [50, -0.9009, -85.5211, 50, 0, -82.7485, 1],
    [50, 0, 0, 50, -1, 2, 2.3669],
    [50, -1, 2, 50, 0, 0, 2.3669],
    [50, 2.49, -0.001, 50, -2.49, 0.0009, 7.1792],
    [50, 2.49, -0.001, 50, -2.49, 0.001, 7.1792],
    [50, 2.49, -0.001, 50, -2.49, 0.0011, 7.2195],
    [50, 2.49, -0.001, 50, -2.49, 0.0012, 7.2195],
    [50, -0.001, 2.49, 50, 0.0009, -2.49, 4.8045],
    [50, -0.001, 2.49, 50, 0.001, -2.49, 4.8045],
    [50, -0.001, 2.49, 50, 0.0011, -2.49, 4.7461],
    [50, 2.5, 0, 50, 0, -2.5, 4.3065],
    [50, 2.5, 0, 73, 25, -18, 27.1492],
    [50, 2.5, 0, 61, -5, 29, 22.8977],
    [50, 2.5, 0, 56, -27, -3, 31.903],
    [50, 2.5, 0, 58, 24, 15, 19.4535],
    [50, 2.5, 0, 50, 3.1736, 0.5854, 1],
    [50, 2.5, 0, 50, 3.2972, 0, 1],
    [50, 2.5, 0, 50, 1.8634, 0.5757, 1],
    [50, 2.5, 0, 50, 3.2592, 0.335, 1],
    [60.2574, -34.0099, 36.2677, 60.4626, -34.1751, 39.4387, 1.2644],
    [63.0109, -31.0961, -5.8663, 62.8187, -29.7946, -4.0864, 1.263],
    [61.2901, 3.7196, -5.3901, 61.4292, 2.248, -4.962, 1.8731],
    [35.0831, -44.1164, 3.7933, 35.0232, -40.0716, 1.5901, 1.8645],
    [22.7233, 20.0904, -46.694, 23.0331, 14.973, -42.5619, 2.0373],
    [36.4612, 47.858, 18.3852, 36.2715, 50.5065, 21.2231, 1.4146],
    [90.8027, -2.0831, 1.441, 91.1528, -1.6435, 0.0447, 1.4441],
    [90.9257, -0.5406, -0.9208, 88.6381, -0.8985, -0.7239, 1.5381],
    [6.7747, -0.2908, -2.4247, 5.8714, -0.0985, -2.2286, 0.6377],
    [2.0776, 0.0795, -1.135, 0.9033, -0.0636, -0.5514, 0.9082],
  ]
  const culori = differenceCiede2000()
  test.each(PAIRS)('%d %d %d and %d %d %d: %d', (L1, a1, b1, L2, a2, b2, de) => {
    expect(c.deltaE00([L1, a1, b1], [L2, a2, b2])).toBeCloseTo(de, 4)
    expect(culori({ mode: 'lab65', l: L1, a: a1, b: b1 }, { mode: 'lab65', l: L2, a: a2, b: b2 })).toBeCloseTo(de, 4)
  })
  it('has all 34', () => expect(PAIRS).toHaveLength(34))
  it('agrees with culori, colorjs.io and color-diff on a thousand pairs around the woods of a shop', () => {
    let seed = 7
    const next = (from: number, to: number) => from + (to - from) * ((seed = (seed * 16807) % 2147483647) / 2147483647)
    for (let i = 0; i < 1000; i++) {
      const [a, b]: c.Lab[] = [
        [next(5, 95), next(-20, 40), next(-20, 60)],
        [next(5, 95), next(-20, 40), next(-20, 60)],
      ]
      const de = c.deltaE00(a!, b!)
      expect(de).toBeCloseTo(
        culori({ mode: 'lab65', l: a![0], a: a![1], b: a![2] }, { mode: 'lab65', l: b![0], a: b![1], b: b![2] }),
        8,
      )
      expect(de).toBeCloseTo(new Color('lab', [...a!]).deltaE(new Color('lab', [...b!]), '2000'), 8)
      expect(de).toBeCloseTo(diff({ L: a![0], a: a![1], b: a![2] }, { L: b![0], a: b![1], b: b![2] }), 8)
    }
  })
})

describe('observers and lights (Debian package python3-colormath, and published white points)', () => {
  const column = (name: string) =>
    (fixture as unknown as Record<string, number[]>)[name]!.slice(
      (TABLE_FROM_NM - 340) / 10,
      (TABLE_FROM_NM - 340) / 10 + 41,
    )
  test.each([
    ['2', 'x', 'STDOBSERV_X2'],
    ['2', 'y', 'STDOBSERV_Y2'],
    ['2', 'z', 'STDOBSERV_Z2'],
    ['10', 'x', 'STDOBSERV_X10'],
    ['10', 'y', 'STDOBSERV_Y10'],
    ['10', 'z', 'STDOBSERV_Z10'],
  ] as const)('observer %s°, %s', (o, axis, name) =>
    OBSERVERS[o][axis].forEach((v, i) => expect(v).toBeCloseTo(column(name)[i]!, 8)),
  )
  test.each([
    ['a', 'REFERENCE_ILLUM_A'],
    ['d50', 'REFERENCE_ILLUM_D50'],
    ['d65', 'REFERENCE_ILLUM_D65'],
    ['f11', 'REFERENCE_ILLUM_F11'],
  ] as const)('light %s', (light, name) => POWERS[light].forEach((v, i) => expect(v).toBeCloseTo(column(name)[i]!, 8)))
  // CIE 015, 1 nm or 5 nm sums (from memory); ours are sums each 10 nm, hence the tolerance.
  test.each([
    ['d65', '2', 95.047, 108.883, 0.15],
    ['d65', '10', 94.811, 107.304, 0.15],
    ['a', '2', 109.85, 35.585, 0.15],
    ['a', '10', 111.144, 35.2, 0.15],
    ['d50', '2', 96.422, 82.521, 0.15],
    ['d50', '10', 96.72, 81.427, 0.15],
    ['f11', '2', 100.962, 64.35, 0.01],
    ['f11', '10', 103.863, 65.607, 0.5],
  ] as const)('white of %s at %s°', (light, observer, X, Z, off) => {
    const { white } = c.viewingOf(light, observer)
    expect(Math.abs(white[0] - X)).toBeLessThan(off)
    expect(white[1]).toBeCloseTo(100, 9)
    expect(Math.abs(white[2] - Z)).toBeLessThan(off)
  })
  it(
    'light A follows the formula of Planck for 2848 K with c₂ = 1.435 cm K, 100 at 560 nm (CIE S 014, from ' +
      'memory)',
    () =>
      POWERS.a.forEach((p, i) => {
        const planck = (nm: number) => nm ** -5 / (Math.exp(1.435e7 / (2848 * nm)) - 1)
        expect(p / ((100 * planck(TABLE_FROM_NM + 10 * i)) / planck(560)) - 1).toBeCloseTo(0, 2)
      }),
  )
  it('an equal light has its white at the middle (both observers are normalised so)', () => {
    for (const o of ['2', '10'] as const) {
      const [x, y, z] = (['x', 'y', 'z'] as const).map(k => OBSERVERS[o][k].reduce((s: number, v: number) => s + v, 0))
      expect(x! / y!).toBeCloseTo(1, 2)
      expect(z! / y!).toBeCloseTo(1, 2)
    }
  })
  test.each([
    ['d65', 6504],
    ['a', 2856],
    ['d50', 5003],
    ['f11', 4000],
    ['led', 3000],
  ] as const)('%s is near %d K (McCamy 1992)', (light, kelvin) =>
    expect(Math.abs(c.colourTemperature_K(c.viewingOf(light, '2').white) / kelvin - 1)).toBeLessThan(0.03),
  )
})

describe('CIELAB and the screen (npm packages culori and colorjs.io as second opinions)', () => {
  const labs: c.Lab[] = Object.values(WOODS).map(w => c.labOf(w, c.viewingOf('d65', '2')))
  it('CIELAB from XYZ as colorjs.io has it, under its own D65 white', () => {
    for (const w of Object.values(WOODS)) {
      const xyz = c.xyzOf(w, c.viewingOf('d65', '2'))
      const other = new Color('xyz-d65', xyz.map(v => v / 100) as [number, number, number]).to('lab-d65').coords
      c.labFromXyz(xyz, c.SCREEN_WHITE).forEach((v, i) => expect(v).toBeCloseTo(Number(other[i]), 2))
    }
  })
  it('LCh as culori has it', () => {
    const lch = converter('lch65')
    for (const [l, a, b] of labs) {
      const other = lch({ mode: 'lab65', l, a, b })
      const [L, C, h] = c.lchOf([l, a, b])
      expect([L, C, h].map(v => v.toFixed(6))).toEqual([other.l, other.c, other.h ?? 0].map(v => v.toFixed(6)))
    }
  })
  it('sRGB of woods as culori writes it, a step of 255 apart at most', () => {
    for (const lab of labs) {
      const other = formatHex({ mode: 'lab65', l: lab[0], a: lab[1], b: lab[2] })
      for (const at of [1, 3, 5])
        expect(
          Math.abs(
            Number.parseInt(c.screenOfLab(lab).hex.slice(at, at + 2), 16) -
              Number.parseInt(other.slice(at, at + 2), 16),
          ),
        ).toBeLessThanOrEqual(1)
    }
  })
  it('Bradford from D65 to D50 as colorjs.io has it', () => {
    const d50 = new Color('xyz-d65', [0.3, 0.25, 0.1]).to('xyz-d50').coords
    c.adapt([30, 25, 10], c.SCREEN_WHITE, [96.42957, 100, 82.51046]).forEach((v, i) =>
      expect(v / 100).toBeCloseTo(Number(d50[i]), 4),
    )
  })
  it('what the screen cannot show keeps lightness within one', () => {
    const lab = converter('lab65')(c.screenOfLab([45, 90, -80]).hex)!
    expect(Math.abs(lab.l - 45)).toBeLessThan(1)
  })
})

describe('wood and film', () => {
  // Kubelka and Munk 1931, worked by hand: R = 0.5 gives (1 − 0.5)² ÷ 1 = 0.25; R = 0.2 gives 0.64 ÷ 0.4 = 1.6.
  test.each([
    [0.5, 0.25],
    [0.2, 1.6],
    [0.8, 0.025],
  ])('K/S of %d is %d', (r, ks) => expect(c.absorptionOf(r)).toBeCloseTo(ks, 12))
  // Saunderson 1942 with k1 = 0.04, k2 = 0.6, worked by hand.
  test.each([
    ['included', 0.5, 0.04 + (0.96 * 0.4 * 0.5) / 0.7],
    ['excluded', 0.5, (0.96 * 0.4 * 0.5) / 0.7],
    ['included', 1, 1],
  ] as const)('Saunderson, gloss %s, %d', (gloss, inner, read) =>
    expect(c.throughSurface(inner, gloss)).toBeCloseTo(read, 12),
  )
  it('a filter is crossed twice: a toner that lets half through leaves a quarter (arithmetic)', () => {
    const toner: c.Colourant = {
      id: 1,
      name: '',
      group: 'lacquer-toner',
      lies: 'film',
      k: c.flat(Math.LN2),
      most_pct: 1,
    }
    for (const r of c.colouredInner(c.flat(0.8), [toner], [1])) expect(r).toBeCloseTo(0.2, 12)
  })
  it('wood darkens and gains chroma under a clear finish (common practice: finish deepens)', () => {
    for (const w of Object.values(WOODS)) {
      const finished = c.labOf(
        c.readOf(w, { clear: c.clearCoat('waterborne-polyurethane'), gloss: 'excluded' }),
        c.viewingOf('d65'),
      )
      expect(finished[0]).toBeLessThan(c.labOf(w, c.viewingOf('d65'))[0] - 3)
    }
  })
  test.each([
    [0.9, 'hard-to-see'],
    [1, 'passes'],
    [1.99, 'passes'],
    [2, 'trained-eye'],
    [3.49, 'trained-eye'],
    [5.1, 'another-colour'],
  ] as const)('ΔE00 %d: %s (common practice)', (de, grade) => expect(c.gradeOf(de)).toBe(grade))
})

describe('mixtures (worked examples of the trade, common practice and arithmetic)', () => {
  const i = (share: number, of: Ingredient['of'] = 'parts'): Ingredient => ({
    name: 'x',
    share,
    of,
    density_g_ml: 1,
    solids: null,
  })
  const shipped = (slug: string, wanted: Wanted) => {
    const m = COMMON_MIXTURES.find(x => x.slug === slug)!
    return mixture(m.ingredients, m.by, wanted).lines.map(l => l.ml)
  }
  it('4:2:1 urethane, reducer, hardener: 350 ml are 200, 100, 50', () =>
    expect(shipped('urethane', { total_ml: 350 })).toEqual([200, 100, 50]))
  it('2 : 1 : ½ is 40 % flatting on colour and hardener', () => {
    const [colour, flatting, hardener] = shipped('flatting', { total_ml: 100 })
    expect(flatting! / (colour! + hardener!)).toBeCloseTo(0.4, 12)
  })
  it('3:1 hardwax oil of one litre A takes a third of B', () =>
    expect(shipped('hardwax', { of: 0, ml: 1000 })[1]).toBeCloseTo(333.33, 2))
  it('sealer + 10 % catalyst, then 25 % reducer on the whole: 100, 10, 27.5', () =>
    expect(shipped('sealer', { of: 0, ml: 100 })).toEqual([100, 10, 27.5]))
  it('bleach is 1:1', () => expect(shipped('bleach', { total_ml: 500 })).toEqual([250, 250]))
  it('percent of the total: 10 % of 200 ml is 20 ml', () =>
    expect(mixture([i(1), i(10, 'total')], 'volume', { total_ml: 200 }).lines[1]!.ml).toBeCloseTo(20, 12))
  it('1-lb cut is 119.8 g/L, 2-lb is 239.7 (definition)', () => {
    expect(CUT_G_L).toBeCloseTo(119.8, 1)
    expect(2 * CUT_G_L).toBeCloseTo(239.7, 1)
  })
  it('a 2-lb cut is about 82 % alcohol by volume (common practice)', () => expect(alcoholShare(2)).toBeCloseTo(0.82, 2))
  it('2-lb to 1-lb: as much alcohol again as is in it (definition)', () =>
    expect(recut(1000, 2, 1).addAlcohol_ml).toBeCloseTo(1000 * alcoholShare(2), 9))
  it('thinning lowers solids: Σ(volume × solids) ÷ Σ volume (arithmetic)', () =>
    expect(
      mixture(
        [
          { ...i(3), solids: 0.4 },
          { ...i(1), solids: 0 },
        ],
        'volume',
        { total_ml: 1 },
      ).solids,
    ).toBeCloseTo(0.3, 12))
  test.each([
    [3, ['G1']],
    [22, ['G3', 'G4']],
    [50, ['G5']],
    [90, ['G7']],
    [7, []],
  ])('gloss %d is %j (MPI gloss levels, from memory)', (gloss, levels) => expect(levelsOf(gloss)).toEqual(levels))
})
