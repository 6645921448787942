import fc from 'fast-check'
import { nnls } from 'nnls'
import { describe, expect, it, test } from 'vitest'
import { lookOf, type StepKind } from '#core/acts'
import * as c from '#core/colour'
import { fitBounded } from '../../core/colour/fit'
import { nonNegative } from '../../core/colour/nnls'
import { aged, numbered, OLD_STAINS, WOODS } from '../../demo/colours'

const factor = fc.double({ min: 0.01, max: 0.98, noNaN: true })
const spectrum = fc.array(factor, { minLength: c.BANDS, maxLength: c.BANDS })
const lab = fc.tuple(
  fc.double({ min: 5, max: 95, noNaN: true }),
  fc.double({ min: -60, max: 60, noNaN: true }),
  fc.double({ min: -60, max: 60, noNaN: true }),
)
const gloss = fc.constantFrom<c.Gloss>('included', 'excluded')
const close = (a: readonly number[], b: readonly number[], digits = 9) =>
  a.forEach((v, i) => expect(v).toBeCloseTo(b[i]!, digits))
const surface = (clear: string | null): c.Surface => ({ clear: clear ? c.clearCoat(clear) : null, gloss: 'excluded' })
const dyes = numbered.filter(k => k.group === 'water-dye')
const toners = numbered.filter(k => k.group === 'lacquer-toner')
const question = (q: Partial<c.SearchQuestion>): c.SearchQuestion => ({
  substrates: [WOODS.oak],
  target: WOODS.walnut,
  colourants: dyes,
  atMost: 3,
  lights: ['d65', 'a', 'led'],
  observer: '10',
  coats: 1,
  wipe: 'none',
  surface: surface('waterborne-polyurethane'),
  ...q,
})
/** A target that the shop's own colourants make. */
const made = (shares: readonly c.Share[], q: c.SearchQuestion, set: readonly c.Colourant[] = dyes) =>
  c.readOf(
    c.colouredInner(
      q.substrates[0]!,
      set,
      set.map(k => c.strengthOf(shares.find(s => s.id === k.id)?.pct ?? 0, q.coats, q.wipe)),
    ),
    q.surface,
  )
const noisy = (s: c.Spectrum, seed: number, size = 0.004) =>
  s.map((r, i) => r * (1 + size * Math.sin(seed * 12.9898 + i * 78.233) * 1.4))

describe('spectra', () => {
  it('takes 380 to 730 nm and keeps 400 to 700', () => {
    const wide = Array.from({ length: 36 }, (_, i) => 380 + 10 * i)
    expect(
      c.spectrumFrom(
        wide,
        wide.map(nm => nm / 1000),
      ),
    ).toEqual(c.WAVELENGTHS_nm.map(nm => nm / 1000))
  })
  test.each([
    ['a gap', c.WAVELENGTHS_nm.slice(1), 'at 400 nm'],
    ['a double', [...c.WAVELENGTHS_nm, 500], 'twice'],
  ])('refuses %s', (_, nm, says) =>
    expect(() =>
      c.spectrumFrom(
        nm,
        nm.map(() => 0.5),
      ),
    ).toThrow(says),
  )
  test.each([-0.1, 1.3, Number.NaN])('refuses %d', r =>
    expect(() => c.spectrumFrom(c.WAVELENGTHS_nm, c.flat(r))).toThrow('no reflectance'),
  )
})

describe('colorimetry', () => {
  it('gives 100, 0, 0 to a perfect white under every light', () => {
    for (const l of c.LIGHTS)
      for (const o of ['2', '10'] as const) close(c.labOf(c.flat(1), c.viewingOf(l, o)), [100, 0, 0], 8)
  })
  it('comes back from XYZ and LCh', () =>
    fc.assert(
      fc.property(lab, t => {
        const { white } = c.viewingOf('a')
        close(c.labFromXyz(c.xyzFromLab(t, white), white), t, 7)
        close(c.labFromLch(c.lchOf(t)), t, 7)
      }),
    ))
  it('is the same both ways, nought only for the same, and the sum of its parts for many at once', () =>
    fc.assert(
      fc.property(lab, lab, (a, b) => {
        expect(c.deltaE00(a, b)).toBeCloseTo(c.deltaE00(b, a), 7)
        expect(c.deltaE00(a, a)).toBe(0)
        const out = new Float64Array(2)
        c.deltaE00Pairs(Float64Array.from([...a, ...b]), Float64Array.from([...b, ...b]), out)
        expect([...out]).toEqual([c.deltaE00(a, b), 0])
      }),
    ))
  it('refuses sides of unequal length', () =>
    expect(() => c.deltaE00Pairs(new Float64Array(6), new Float64Array(3), new Float64Array(2))).toThrow(RangeError))
  it('shows what the screen can, keeping lightness and hue', () => {
    expect(c.screenOfLab([50, 0, 0]).hex).toBe('#777777')
    expect(c.screenOfLab([60, 20, 20]).mapped).toBe(false)
    const wild = c.screenOfLab([50, 120, -90])
    expect(wild.mapped).toBe(true)
    expect(wild.hex).toMatch(/^#[0-9a-f]{6}$/)
  })
  test.each([
    [0.5, 'hard-to-see'],
    [1.5, 'passes'],
    [3, 'trained-eye'],
    [4, 'anyone-sees'],
    [9, 'another-colour'],
  ] as const)('%d is %s', (de, grade) => expect(c.gradeOf(de)).toBe(grade))
  it('has no metamerism for the same spectrum, and finds it for a pair that only daylight joins', () => {
    expect(c.metamerismIndex(WOODS.oak, WOODS.oak, 'd65', 'a')).toBeCloseTo(0, 9)
    const twin = c.reconstruct(
      c.labOf(aged(WOODS.beech, OLD_STAINS.trap, 'waterborne-polyurethane', 0), c.viewingOf('d65')),
      'd65',
      '10',
    )
    expect(
      c.metamerismIndex(aged(WOODS.beech, OLD_STAINS.trap, 'waterborne-polyurethane', 0), twin, 'd65', 'a'),
    ).toBeGreaterThan(0.5)
  })
  it('names the lights under which a match breaks', () =>
    expect(
      c.breaksUnder([
        { light: 'd65', de: 0.5 },
        { light: 'a', de: 3 },
        { light: 'led', de: 1.9 },
      ]),
    ).toEqual([{ light: 'a', de: 3 }]))
})

describe('wood and finish', () => {
  it('goes through K/S and through the surface and back', () =>
    fc.assert(
      fc.property(factor, gloss, (r, g) => {
        expect(c.reflectanceOf(c.absorptionOf(r))).toBeCloseTo(r, 9)
        expect(c.belowSurface(c.throughSurface(r, g), g)).toBeCloseTo(r, 9)
      }),
    ))
  it('predicts under a finish from bare, and bare from under a finish', () =>
    fc.assert(
      fc.property(
        spectrum,
        fc.constantFrom('dewaxed-shellac', 'oil-polyurethane', 'waterborne-polyurethane'),
        gloss,
        (r, coat, g) => {
          const finished = { clear: c.clearCoat(coat), gloss: g }
          close(c.innerOf(c.readOf(r, finished), finished), r, 8)
        },
      ),
    ))
  it(
    'darkens monotonely: more colourant, more coats, less wiped off, in wood and in film, and never below ' + 'nought',
    () =>
      fc.assert(
        fc.property(
          spectrum,
          fc.constantFrom(...numbered),
          fc.double({ min: 0, max: 50, noNaN: true }),
          fc.double({ min: 0, max: 50, noNaN: true }),
          (r, k, a, more) => {
            const [less, darker] = [c.colouredInner(r, [k], [a]), c.colouredInner(r, [k], [a + more])]
            darker.forEach((v, i) => {
              expect(v).toBeGreaterThan(0)
              expect(v).toBeLessThanOrEqual(less[i]! + 1e-12)
            })
          },
        ),
      ),
  )
  it('every clear coat darkens, amber ones more, and more with the years', () => {
    const L = (coat: string, years = 0) =>
      c.labOfSpectrum(c.readOf(WOODS.birch, { clear: c.clearCoat(coat, years), gloss: 'excluded' }))
    expect(L('waterborne-polyurethane')[0]).toBeLessThan(c.labOfSpectrum(WOODS.birch)[0])
    expect(L('shellac-garnet')[0]).toBeLessThan(L('shellac-bleached')[0])
    expect(L('oil-polyurethane', 10)[2]).toBeGreaterThan(L('oil-polyurethane')[2])
    expect(() => c.clearCoat('paint')).toThrow('no clear coat')
  })
  it('colour in the film and in the wood are not the same thing', () => {
    const k = toners[0]!
    const [film, wood] = [
      c.colouredInner(WOODS.birch, [k], [40]),
      c.colouredInner(WOODS.birch, [{ ...k, lies: 'wood' }], [40]),
    ]
    expect(film[0]! / WOODS.birch[0]!).not.toBeCloseTo(wood[0]! / WOODS.birch[0]!, 1)
    film.forEach((r, i) => expect(r).toBeCloseTo(WOODS.birch[i]! * Math.exp(-2 * 40 * k.k[i]!), 12))
  })
  it('bleach takes absorption away', () =>
    c.withAbsorption(WOODS.walnut, c.BLEACH_LEAVES).forEach((r, i) => expect(r).toBeGreaterThan(WOODS.walnut[i]!)))
  it('light darkens cherry and pales walnut', () => {
    expect(c.shiftInLight('cherry')).toBeGreaterThan(1)
    expect(c.shiftInLight('walnut')).toBeLessThan(1)
  })
})

describe('a reading of CIELAB only', () => {
  it('becomes a spectrum with exactly that colour, between 0 and 1', () =>
    fc.assert(
      fc.property(fc.constantFrom(...Object.values(WOODS)), fc.constantFrom(...c.LIGHTS), (wood, light) => {
        const wanted = c.labOf(wood, c.viewingOf(light, '2'))
        const found = c.reconstruct(wanted, light, '2')
        close(c.labOf(found, c.viewingOf(light, '2')), wanted, 5)
        found.forEach(r => {
          expect(r).toBeGreaterThan(0)
          expect(r).toBeLessThan(1)
        })
      }),
      { numRuns: 40 },
    ))
  it('is nearer to the truth with a wood to go by', () => {
    const truth = made([{ id: 5, pct: 40 }], question({}))
    const wanted = c.labOf(truth, c.viewingOf('d65'))
    const off = (s: c.Spectrum) => c.deltaE00(c.labOf(s, c.viewingOf('a')), c.labOf(truth, c.viewingOf('a')))
    expect(
      off(c.reconstruct(wanted, 'd65', '10', c.readOf(WOODS.oak, surface('waterborne-polyurethane')))),
    ).toBeLessThan(Math.max(0.3, off(c.reconstruct(wanted, 'd65', '10'))))
  })
  it('says when no surface has such a colour', () =>
    expect(() => c.reconstruct([50, 150, 150], 'd65', '10')).toThrow('No surface'))
})

describe('bounded least squares', () => {
  it('finds the point, and rests at a limit', () => {
    const fit = c_fit([10, 10], (x, out) => {
      out[0] = x[0]! - 3
      out[1] = x[1]! + 2
    })
    expect([...fit.x][0]).toBeCloseTo(3, 5)
    expect(fit.x[1]).toBe(0)
  })
})
const c_fit = (most: number[], residuals: (x: Float64Array, out: Float64Array) => void) =>
  fitBounded(
    { most, size: most.length, residuals },
    most.map(m => m / 2),
  )

describe('recipe search', () => {
  it('finds a target again that the shop made, with no more colourants than needed', () => {
    const q = question({})
    const best = c.bestRecipes({
      ...q,
      target: made(
        [
          { id: 5, pct: 35 },
          { id: 1, pct: 12 },
        ],
        q,
      ),
    })
    const r = c.proposed(best)!
    expect(r.score).toBeLessThan(0.3)
    expect(r.shares.length).toBeLessThanOrEqual(2)
  })
  it('gives a first answer at once, better ones later, and counts its progress', () => {
    const states = [...c.searchRecipes(question({ target: aged(WOODS.oak, OLD_STAINS.seat, 'shellac-blond', 20) }))]
    expect(states[0]!.done).toBeLessThanOrEqual(3)
    expect(states.at(-1)!.done).toBe(states.at(-1)!.all)
    expect(states.at(-1)!.all).toBe(8 + 28 + 56)
    states.slice(1).forEach((s, i) => expect(s.best[0]!.score).toBeLessThanOrEqual(states[i]!.best[0]!.score + 1e-9))
  })
  it('keeps every share from 0 to its limit and the sum at 100 %', () =>
    fc.assert(
      fc.property(
        fc.constantFrom(...Object.values(WOODS)),
        fc.constantFrom(...Object.values(WOODS)),
        fc.integer({ min: 5, max: 100 }),
        (wood, target, most) => {
          for (const r of c.bestRecipes(
            question({ substrates: [wood], target, atMost: 2, colourants: dyes.map(d => ({ ...d, most_pct: most })) }),
          )) {
            for (const s of r.shares) {
              expect(s.pct).toBeGreaterThan(0)
              expect(s.pct).toBeLessThanOrEqual(most + 1e-9)
            }
            expect(r.shares.reduce((sum, s) => sum + s.pct, 0)).toBeLessThanOrEqual(100 + 1e-6)
          }
        },
      ),
      { numRuns: 12 },
    ))
  it('never mixes what does not mix', () => {
    for (const r of c.bestRecipes(question({ colourants: numbered, atMost: 2 })))
      expect(new Set(r.shares.map(s => numbered.find(k => k.id === s.id)!.group)).size).toBe(1)
  })
  it('says that a target is lighter than the wood, and what bleach would do', () => {
    const q = question({ substrates: [WOODS.walnut], target: c.readOf(WOODS.oak, surface('waterborne-polyurethane')) })
    const reason = c.whyNot(q, c.proposed(c.bestRecipes(q))!).find(r => r.slug === 'lighter')
    expect(reason).toMatchObject({ slug: 'lighter' })
    if (reason?.slug === 'lighter') {
      expect(reason.by).toBeGreaterThan(5)
      expect(reason.bleached!).toBeLessThan(c.proposed(c.bestRecipes(q))!.score)
    }
  })
  it('says which colourant stands at its limit, and which light breaks the match', () => {
    const weak = question({
      target: aged(WOODS.oak, OLD_STAINS.seat, 'shellac-blond', 20),
      colourants: dyes.map(d => ({ ...d, most_pct: 5 })),
    })
    expect(c.whyNot(weak, c.proposed(c.bestRecipes(weak))!).map(r => r.slug)).toContain('limit')
    const trap = question({
      substrates: [WOODS.beech],
      target: aged(WOODS.beech, OLD_STAINS.trap, 'waterborne-polyurethane', 0),
      lights: ['d65'],
    })
    const r = c.judgeRecipe({ ...trap, lights: ['d65', 'a', 'f11', 'led'] }, c.proposed(c.bestRecipes(trap))!.shares)
    expect(r.under[0]!.de).toBeLessThan(2)
    expect(r.breaks.length).toBeGreaterThan(0)
  })
  it('serves sapwood and heartwood with one recipe no better than either alone', () => {
    const target = made([{ id: 5, pct: 50 }], question({}))
    const both = c.bestRecipes(question({ substrates: [WOODS.oak, WOODS['oak-sapwood']], target }))[0]!
    expect(both.predicted).toHaveLength(2)
    expect(both.score).toBeGreaterThanOrEqual(c.bestRecipes(question({ target }))[0]!.score)
  })
  it('brings sapwood to heartwood, aimed at under the same finish', () => {
    const s = surface('waterborne-polyurethane')
    const target = c.aimOf({ role: 'wood', spectrum: WOODS.oak }, c.BARE, s)
    expect(target).toEqual(c.readOf(WOODS.oak, s))
    expect(c.aimOf({ role: 'target', spectrum: WOODS.oak }, c.BARE, s)).toEqual(WOODS.oak)
    expect(c.proposed(c.bestRecipes(question({ substrates: [WOODS['oak-sapwood']], target })))!.worst).toBeLessThan(2)
  })
  it('proposes fewer colourants when one more gains little', () => {
    const r = (score: number, n: number) =>
      ({ score, shares: Array.from({ length: n }, (_, id) => ({ id, pct: 1 })) }) as c.Recipe
    expect(c.proposed([r(1.5, 3), r(1.6, 2), r(4, 1)])!.shares).toHaveLength(2)
    expect(c.proposed([])).toBeNull()
  })
})

describe('correcting a pot', () => {
  const q = question({})
  const target = made(
    [
      { id: 5, pct: 40 },
      { id: 1, pct: 15 },
    ],
    q,
  )
  const pot = (brown: number, yellow: number): c.Pot => ({
    parts: [
      { id: 5, g: brown },
      { id: 1, g: yellow },
    ],
    carrier_g: 200 - brown - yellow,
    left_g: 180,
  })
  it('adds what is short and dilutes what is too strong', () => {
    const short = c.correctPot({ ...q, target }, pot(60, 30), made(c.sharesOf(pot(60, 30)), q))
    expect(short.add.map(a => a.id)).toContain(5)
    expect(short.after).toBeLessThan(0.5)
    expect(short.newPot).toBe(false)
    const strong = c.correctPot({ ...q, target }, pot(100, 37), made(c.sharesOf(pot(100, 37)), q))
    expect(strong.addCarrier_g).toBeGreaterThan(20)
    expect(strong.after).toBeLessThan(0.5)
  })
  it('learns from the trial: a wood that takes a fifth more is met by adding for what was seen', () => {
    const first = pot(60, 22)
    const trial = made(
      c.sharesOf(first).map(s => ({ ...s, pct: s.pct * 1.2 })),
      q,
    )
    const fixed = c.correctPot({ ...q, target }, first, trial)
    const reached = made(
      fixed.shares.map(s => ({ ...s, pct: s.pct * 1.2 })),
      q,
    )
    expect(c.differencesUnder(target, reached, ['d65'])[0]!.de).toBeLessThan(fixed.before / 2)
  })
  it('leaves a good pot as it is, and says when a new one is better', () => {
    const good = c.correctPot({ ...q, target }, pot(80, 30), target)
    expect(good.before).toBeCloseTo(0, 3)
    expect(good.total_g - 180).toBeLessThan(2)
    const wrong = { parts: [{ id: 6, g: 150 }], carrier_g: 50, left_g: 180 }
    expect(c.correctPot({ ...q, target }, wrong, made(c.sharesOf(wrong), q)).newPot).toBe(true)
    expect(() => c.correctPot({ ...q, target }, { ...wrong, left_g: 0 }, target)).toThrow('nothing left')
  })
  it('never adds less than nothing', () =>
    fc.assert(
      fc.property(fc.integer({ min: 5, max: 90 }), fc.integer({ min: 5, max: 90 }), (brown, yellow) => {
        const fixed = c.correctPot({ ...q, target }, pot(brown, yellow), made(c.sharesOf(pot(brown, yellow)), q))
        for (const a of fixed.add) expect(a.g).toBeGreaterThan(0)
        expect(fixed.addCarrier_g).toBeGreaterThanOrEqual(0)
        expect(fixed.after).toBeLessThanOrEqual(fixed.before + 1e-6)
      }),
      { numRuns: 25 },
    ))
})

describe('the step panel', () => {
  const step = (key: string, kind: StepKind, product: string | null = null): c.LookStep => ({
    key,
    look: lookOf({ kind }),
    title: key,
    product,
    coat: 1,
  })
  const planned: c.PlannedColour = { group: 'water-dye', set: dyes, shares: [{ id: 5, pct: 30 }], wipe: 'none' }
  const states = (steps: c.LookStep[]) => c.panelStates(steps, WOODS.oak, [planned], 'excluded')
  it('lies under finish only once the finish is on: a sealer alone is none', () => {
    const s = states([
      step('sand', 'sand'),
      step('dye', 'dye', 'water-dye'),
      step('seal', 'coat', 'vinyl-sealer'),
      step('top', 'coat', 'urethane-2c'),
      step('wax', 'wax', 'paste-wax'),
    ])
    expect(s.map(x => [x.key, x.coat, x.underFinish])).toEqual([
      ['bare', null, false],
      ['dye', null, false],
      ['seal', 'vinyl-sealer', false],
      ['top', 'urethane-2c', true],
      ['wax', 'urethane-2c', true],
    ])
    expect(states([step('wax', 'wax', 'paste-wax')])[1]).toMatchObject({ coat: 'paste-wax', underFinish: true })
  })
  it('bleach comes before colour, and what has no recipe is not foretold from there on', () => {
    const [bare, bleached, dyed] = states([step('bleach', 'bleach'), step('dye', 'dye', 'water-dye')]).map(
      x => c.labOfSpectrum(x.predicted!)[0],
    )
    expect(bleached!).toBeGreaterThan(bare!)
    expect(dyed!).toBeLessThan(bleached!)
    expect(
      states([step('gel', 'gel', 'gel-stain'), step('top', 'coat', 'urethane-2c')]).map(x =>
        x.predicted === null ? x.why : 'known',
      ),
    ).toEqual(['known', 'no-recipe', 'no-recipe'])
  })
})

describe('non-negative least squares', () => {
  it('cannot be bettered, nor does the npm package nnls (where that comes to an end)', () =>
    fc.assert(
      fc.property(
        fc.integer({ min: 1, max: 4 }),
        fc.infiniteStream(fc.integer({ min: -300, max: 300 }).map(v => v / 100)),
        (n, stream) => {
          const X = Array.from({ length: 7 }, () => Array.from({ length: n }, () => stream.next().value as number))
          const y = X.map(() => stream.next().value as number)
          const off = (x: readonly number[]) =>
            X.reduce((s, row, r) => s + (row.reduce((t, v, j) => t + v * x[j]!, 0) - y[r]!) ** 2, 0)
          const mine = nonNegative(X, y)
          for (const v of mine) expect(v).toBeGreaterThanOrEqual(0)
          // at the best point no unknown would gain by growing, and those above nought would not by shrinking (Karush,
          // Kuhn, Tucker)
          const pull = mine.map((_, j) =>
            X.reduce((s, row, r) => s + row[j]! * (y[r]! - row.reduce((t, v, k) => t + v * mine[k]!, 0)), 0),
          )
          pull.forEach((p, j) => {
            expect(p).toBeLessThan(1e-6)
            if (mine[j]! > 1e-9) expect(Math.abs(p)).toBeLessThan(1e-6)
          })
          try {
            expect(off(mine)).toBeLessThanOrEqual(off(nnls(X, y, { maxIterations: 50 }).x.to1DArray()) + 1e-7)
          } catch (error) {
            if (!String(error).includes('Maximum number')) throw error
          }
        },
      ),
      { numRuns: 60 },
    ))
})

describe('learning', () => {
  const truth = dyes.slice(0, 3)
  const onRecord = truth.map((k, j) => ({ ...k, k: k.k.map((v, i) => v * (1.25 - 0.2 * j + 0.1 * Math.sin(i / 5))) }))
  const bandOf = (id: number, shares: c.Share[], seed: number): c.Band => {
    const s = surface('waterborne-polyurethane')
    return {
      id,
      inner: WOODS.oak,
      shares,
      coats: 1,
      wipe: 'none',
      surface: s,
      read: noisy(made(shares, question({}), truth), seed),
    }
  }
  const some = (n: number) =>
    Array.from({ length: n }, (_, i) =>
      bandOf(
        i + 1,
        [
          { id: truth[i % 3]!.id, pct: 15 + 12 * (i % 5) },
          { id: truth[(i + 1) % 3]!.id, pct: 10 + 7 * (i % 4) },
        ],
        i,
      ),
    )
  it('brings the predictions nearer, the more bands the nearer', () => {
    const fresh = [
      bandOf(
        90,
        [
          { id: 1, pct: 30 },
          { id: 3, pct: 25 },
        ],
        77,
      ),
      bandOf(91, [{ id: 2, pct: 45 }], 78),
    ]
    const off = (k: readonly c.Colourant[]) => Math.max(...fresh.map(b => c.bandError(k, b)))
    const twelve = off(c.learn(onRecord, some(12)).colourants)
    expect(twelve).toBeLessThan(off(onRecord) / 3)
    expect(twelve).toBeLessThan(0.6)
  })
  it('keeps spectra at nought or above', () => {
    for (const k of c.learn(onRecord, some(3)).colourants) for (const v of k.k) expect(v).toBeGreaterThanOrEqual(0)
  })
  it('points at the band that cannot be right, and learns without it when told', () => {
    const bands = [
      ...some(8),
      { ...bandOf(99, [{ id: 1, pct: 30 }], 5), read: made([{ id: 2, pct: 80 }], question({}), truth) },
    ]
    const learnt = c.learn(onRecord, bands)
    expect(learnt.bands.filter(b => b.outlier).map(b => b.id)).toEqual([99])
    const without = c.learn(onRecord, bands, [99])
    expect(Math.max(...without.bands.filter(b => b.id !== 99).map(b => b.after))).toBeLessThan(0.8)
  })
  it('takes a new colourant from one band', () => {
    const k = c.colourantFromBand(bandOf(1, [{ id: 1, pct: 50 }], 3), 'wood', 50)
    expect(k[2]!).toBeCloseTo(truth[0]!.k[2]!, 2)
    expect(() => c.colourantFromBand(bandOf(1, [], 3), 'wood', 0)).toThrow('above nought')
  })
  it('refuses nothing to learn from, and two kinds at once', () => {
    expect(() => c.learn(onRecord, [])).toThrow('no band')
    expect(() => c.learn([truth[0]!, toners[0]!], some(2))).toThrow('one after the other')
  })
})
