import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { labOf, viewingOf, WAVELENGTHS_nm } from '#core/colour'
import { parseSamples, type Sample, writeCgats, writeSamplesCsv } from '#core/formats'
import { cautionsOfAll } from '#core/materials'
import * as m from '#core/mixing'
import { WOODS } from '../../demo/colours'

const part = (
  share: number,
  of: m.ShareOf = 'parts',
  density_g_ml = 1,
  solids: number | null = null,
): m.Ingredient => ({ name: `part ${share}`, share, of, density_g_ml, solids })
const above = fc.double({ min: 0.05, max: 50, noNaN: true })

describe('parts and percent', () => {
  it('adds up to what is wanted, by volume and by weight', () =>
    fc.assert(
      fc.property(
        fc.array(
          fc.tuple(
            above,
            fc.constantFrom<m.ShareOf>('parts', 'base', 'sum'),
            fc.double({ min: 0.6, max: 1.6, noNaN: true }),
          ),
          { minLength: 1, maxLength: 5 },
        ),
        fc.constantFrom<m.CountedBy>('volume', 'weight'),
        above,
        (rows, by, total) => {
          const list = rows.map(([share, of, density], i) => part(share, i === 0 ? 'parts' : of, density))
          const ml = m.mixture(list, by, { total_ml: total })
          expect(ml.lines.reduce((s, l) => s + l.ml, 0)).toBeCloseTo(total, 6)
          const g = m.mixture(list, by, { total_g: total })
          expect(g.lines.reduce((s, l) => s + l.g, 0)).toBeCloseTo(total, 6)
          g.lines.forEach((l, i) => expect(l.g / l.ml).toBeCloseTo(list[i]!.density_g_ml, 9))
          expect(g.lines.reduce((s, l) => s + l.byWeight, 0)).toBeCloseTo(1, 9)
        },
      ),
    ))
  it('tells percent of base, of the sum so far and of the total apart', () => {
    const ml = (of: m.ShareOf) => m.mixture([part(2), part(1), part(10, of)], 'volume', { of: 0, ml: 200 }).lines[2]!.ml
    expect(ml('base')).toBeCloseTo(20, 9)
    expect(ml('sum')).toBeCloseTo(30, 9)
    expect(ml('total')).toBeCloseTo(300 / 9, 9)
  })
  it('percents of the sum reckon with percents of the total before them', () => {
    const [a, b, c] = m
      .mixture([part(1), part(20, 'total'), part(10, 'sum')], 'volume', { total_ml: 100 })
      .lines.map(l => l.ml)
    expect(b).toBeCloseTo(20, 9)
    expect(c).toBeCloseTo((a! + b!) / 10, 9)
  })
  it('starts from what is left in the can', () =>
    expect(m.mixture([part(4, 'parts', 1.2), part(1)], 'volume', { of: 0, g: 240 }).lines[1]!.ml).toBeCloseTo(50, 9))
  test.each([
    ['no base', [part(10, 'base')], 'first ingredient'],
    ['a share of nought', [part(0)], 'above nought'],
    ['more than the total', [part(1), part(60, 'total'), part(40, 'total')], '100 or more'],
    ['no density', [part(1, 'parts', 0)], 'density'],
  ])('refuses %s', (_, list, says) => expect(() => m.mixture(list, 'volume', { total_ml: 1 })).toThrow(says))
  it('refuses an amount of nothing', () =>
    expect(() => m.mixture([part(1)], 'volume', { total_ml: 0 })).toThrow('above nought'))
  it('rounds to what can be measured and says how far a share is off', () => {
    const rows = m.measured(
      [
        { name: 'base', amount: 100.04 },
        { name: 'tint', amount: 0.26 },
      ],
      0.1,
    )
    expect(rows.map(r => r.measure.toFixed(1))).toEqual(['100.0', '0.3'])
    expect(rows[1]!.error).toBeGreaterThan(0.1)
    expect(m.leastTotal([{ amount: 99 }, { amount: 1 }], 0.1)).toBeCloseTo(250, 9)
    expect(() => m.measured([], 0)).toThrow('smallest')
  })
  it('the least total keeps every share within the error', () =>
    fc.assert(
      fc.property(above, above, fc.constantFrom(0.01, 0.1, 1), (a, b, step) => {
        const total = m.leastTotal([{ amount: a }, { amount: b }], step)
        for (const r of m.measured(
          [
            { name: 'a', amount: (a * total) / (a + b) },
            { name: 'b', amount: (b * total) / (a + b) },
          ],
          step,
        ))
          expect(Math.abs(r.measure / r.wanted - 1)).toBeLessThanOrEqual(m.SHOWN_ERROR + 1e-9)
      }),
    ))
  it('counts ladles by the quarter', () => expect(m.ladles(130, 60)).toBe(2.25))
})

describe('shellac', () => {
  it('thins and strengthens, and comes back', () =>
    fc.assert(
      fc.property(
        fc.double({ min: 0.5, max: 4, noNaN: true }),
        fc.double({ min: 0.5, max: 4, noNaN: true }),
        above,
        (from, to, ml) => {
          const r = m.recut(ml, from, to)
          expect(r.addAlcohol_ml === 0 || r.addFlakes_g === 0).toBe(true)
          const alcohol = ml * m.alcoholShare(from) + r.addAlcohol_ml
          const flakes = ((ml * m.alcoholShare(from)) / 1000) * m.flakes_g_l(from) + r.addFlakes_g
          expect(flakes / (alcohol / 1000) / m.CUT_G_L).toBeCloseTo(to, 6)
          expect(r.total_ml).toBeCloseTo(alcohol + flakes / m.FLAKES_G_ML, 6)
        },
      ),
    ))
  it('dissolves flakes for a wanted amount', () => {
    const { flakes_g, alcohol_ml } = m.dissolve(500, 2)
    expect(alcohol_ml + flakes_g / m.FLAKES_G_ML).toBeCloseTo(500, 9)
    expect(m.shellac_g_ml(2)).toBeCloseTo((alcohol_ml * m.ALCOHOL_G_ML + flakes_g) / 500, 9)
    expect(() => m.dissolve(0, 2)).toThrow('above nought')
  })
})

describe('sheen', () => {
  const table = [
    { pct: 0, gloss: 90 },
    { pct: 20, gloss: 50 },
    { pct: 40, gloss: 20 },
  ]
  test.each([
    [70, 10],
    [35, 30],
    [20, 40],
    [90, 0],
  ])('gloss %d takes %d %% by the table', (gloss, pct) => expect(m.flattingFor(table, gloss)).toBeCloseTo(pct, 9))
  test.each([5, 95])('says nothing at %d, outside the table', gloss => expect(m.flattingFor(table, gloss)).toBeNull())
  it('refuses a table that turns round or is too short', () => {
    expect(() =>
      m.flattingFor(
        [
          { pct: 0, gloss: 20 },
          { pct: 10, gloss: 30 },
        ],
        25,
      ),
    ).toThrow('duller')
    expect(() => m.flattingFor([{ pct: 0, gloss: 20 }], 20)).toThrow('two lines')
  })
})

describe('pouring', () => {
  test.each([
    [0, 'empty'],
    [50, 'pouring'],
    [95, 'nearly'],
    [99.5, 'there'],
    [101, 'there'],
    [101.5, 'over'],
  ] as const)('%d g of 100 g is %s', (g, state) => expect(m.pourState(g, 100, 1)).toBe(state))
  it('too much of one scales the rest up, and nothing is taken out', () => {
    const rest = m.scaledUp(
      [
        { name: 'base', wanted_g: 100, poured_g: 100 },
        { name: 'brown', wanted_g: 20, poured_g: 25 },
        { name: 'red', wanted_g: 5, poured_g: 0 },
      ],
      t => m.toleranceOf(t, 0.1),
    )
    expect(rest.factor).toBeCloseTo(1.25, 9)
    expect(rest.lines.map(l => l.add_g)).toEqual([25, 0, 6.25])
    expect(rest.total_g).toBeCloseTo(156.25, 9)
  })
  it('keeps the shares whatever was poured', () =>
    fc.assert(
      fc.property(fc.array(fc.tuple(above, above), { minLength: 1, maxLength: 5 }), rows => {
        const lines = rows.map(([wanted_g, poured_g], i) => ({ name: String(i), wanted_g, poured_g }))
        const rest = m.scaledUp(lines, () => 0)
        rest.lines.forEach((l, i) => {
          expect(l.add_g).toBeGreaterThanOrEqual(0)
          expect(lines[i]!.poured_g + l.add_g).toBeCloseTo(lines[i]!.wanted_g * rest.factor, 6)
        })
      }),
    ))
})

describe('common mixtures', () => {
  test.each(m.COMMON_MIXTURES.map(x => [x.slug, x] as const))(
    '%s is of known classes, adds up, and carries its cautions',
    (slug, { by, ingredients }) => {
      const mixed = m.mixture(ingredients, by, { total_g: 300 })
      expect(mixed.lines.reduce((s, l) => s + l.g, 0)).toBeCloseTo(300, 9)
      const cautions = cautionsOfAll(ingredients.flatMap(i => i.class ?? []))
      expect(cautions).toContain(
        { urethane: 'isocyanate', flatting: 'isocyanate', sealer: 'solvent', hardwax: 'oily-rags', bleach: 'bleach' }[
          slug
        ],
      )
    },
  )
  it('water dye has no caution of its own', () => expect(cautionsOfAll(['water-dye'])).toEqual([]))
})

describe('what is in a pot', () => {
  it('is what was left of it, with what was added: a used pot weighs less in the sum', () => {
    const fillings = [
      {
        left_g: null,
        lines: [
          { name: 'brown', g: 100 },
          { name: 'water', g: 100 },
        ],
      },
      { left_g: 50, lines: [{ name: 'brown', g: 25 }] },
    ]
    expect(m.contentsOf(fillings)).toEqual([
      { name: 'brown', g: 50 },
      { name: 'water', g: 25 },
    ])
    expect(m.contentsOf([])).toEqual([])
  })
})

describe('files of readings', () => {
  const spectral: Sample[] = Object.entries(WOODS).map(([name, spectrum]) => ({
    name: `${name}, "bare"`,
    spectrum,
    lab: null,
    light: 'd65',
    observer: '10',
  }))
  const labs: Sample[] = spectral.map(s => ({ ...s, spectrum: null, lab: labOf(s.spectrum!, viewingOf('d65')) }))
  const mixed: Sample[] = [...spectral.slice(0, 3), ...labs.slice(3, 5), { ...labs[5]!, light: 'a', observer: '2' }]
  test.each([
    ['CGATS, spectra', spectral, (s: Sample[]) => writeCgats(s, '2026-11-23')],
    ['CGATS, CIELAB', labs, (s: Sample[]) => writeCgats(s, '2026-11-23')],
    ['CSV, spectra', spectral, writeSamplesCsv],
    ['CSV, CIELAB', labs, writeSamplesCsv],
    ['CGATS, both', mixed, (s: Sample[]) => writeCgats(s, '2026-11-23')],
    ['CSV, both', mixed, writeSamplesCsv],
  ] as const)('%s comes back as it was written', (_, samples, write) => {
    const back = parseSamples(write([...samples]))
    back.forEach((s, i) => {
      expect(s.name).toBe(samples[i]!.name)
      expect([s.light, s.observer]).toEqual([samples[i]!.light, samples[i]!.observer])
      expect(s.spectrum === null).toBe(samples[i]!.spectrum === null)
      for (const [j, v] of (s.spectrum ?? s.lab)!.entries())
        expect(v).toBeCloseTo((samples[i]!.spectrum ?? samples[i]!.lab)![j]!, 3)
    })
    expect(back).toHaveLength(samples.length)
  })
  const head =
    'CGATS.17\nNUMBER_OF_SETS 1\nBEGIN_DATA_FORMAT\nSAMPLE_NAME LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\nBEGIN_DATA\n'
  it('takes other writers: percent, other names of the columns, 380 to 730 nm, comments, D50 unless said', () => {
    const nm = Array.from({ length: 36 }, (_, i) => 380 + 10 * i)
    const text =
      'ISO28178\r\n# made elsewhere\r\nBEGIN_DATA_FORMAT\r\nSAMPLE_ID ' +
      `${nm.map(n => `SPEC_${n}`).join(' ')}\r\nEND_DATA_FORMAT\r\nBEGIN_DATA\r\nA1 ` +
      `${nm.map(() => '42.5').join(' ')}\r\nEND_DATA\r\n`
    expect(parseSamples(text)[0]).toMatchObject({
      name: 'A1',
      light: 'd50',
      observer: '2',
      spectrum: WAVELENGTHS_nm.map(() => 0.425),
    })
    const dark = `name,${nm.slice(2, 33).join(',')}\n`
    expect(
      parseSamples(`${dark}black,${nm.slice(2, 33).map(() => 1.5)}\nwhite,${nm.slice(2, 33).map(() => 80)}\n`)[0]!
        .spectrum![0],
    ).toBeCloseTo(0.015, 9)
    expect(parseSamples('name;L;a;b\nseat;41,5;12,25;"20,5"\n')[0]).toMatchObject({
      name: 'seat',
      lab: [41.5, 12.25, 20.5],
      light: 'd65',
    })
  })
  test.each([
    ['a word for a number', `${head}seat 50 x 10\nEND_DATA`, 'Line 7: "x" is no number'],
    ['a value too few', `${head}seat 50 10\nEND_DATA`, 'Line 7: 4 values are wanted, found 3'],
    ['no end', `${head}seat 50 10 10\n`, 'END_DATA is missing'],
    ['another count', `${head}END_DATA`, 'Line 2: NUMBER_OF_SETS says 1, but 0'],
    ['data without columns', 'CGATS.17\nBEGIN_DATA\n', 'Line 2: the data begin before'],
    [
      'no colour',
      'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_ID CMYK_C\nEND_DATA_FORMAT\n',
      'Line 2: there is no column of colour',
    ],
    ['an unknown light', `WEIGHTING_FUNCTION "ILLUMINANT, F2"\n${head}`, 'Line 1: the light "F2" is not known'],
    ['nothing', 'CGATS.17\n', 'no sample'],
    ['an impossible L*', `${head}seat 500 10 10\nEND_DATA`, 'Line 7: L* is 0 to 100'],
    ['a gap in the spectrum', 'name,400,410\noak,0.2,0.3\n', 'Line 2: There is no value at 420 nm'],
    ['an empty CSV', '', 'Line 1: the file is empty'],
    ['a heading alone', 'name,L,a,b\n', 'Line 2: there is no sample'],
    ['a CSV row too short', 'name,L,a,b\noak,50,1\n', 'Line 2: 4 values are wanted'],
    ['a CSV of something else', 'time,temperature\n1,2\n', 'Line 1: there is no column of colour'],
  ])('names the line of %s', (_, text, says) => expect(() => parseSamples(text)).toThrow(says))
  it('never breaks in another way, whatever comes', () =>
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 300 }), junk => {
        try {
          parseSamples(head.slice(0, 60) + junk)
        } catch (error) {
          expect((error as Error).message).toMatch(/^Line \d+: /)
        }
      }),
      { numRuns: 300 },
    ))
})
