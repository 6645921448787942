import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { withoutAnyName, withoutNames } from '#core/approval'
import { kindOf, PIECE_KINDS } from '#core/estimate'
import { cautionsIn, heatsRags } from '#core/materials'
import { ragState } from '#core/safety'
import { readLots } from '#core/store'
import { cartridgeState } from '#core/vapour'

const HOUR = 3_600_000
describe('oily rags', () => {
  it('are asked about, lie flat for two days, and are gone when somebody says so', () => {
    expect(ragState({ since_ms: 0, how: null }, 0).state).toBe('ask')
    expect(ragState({ since_ms: 0, how: 'flat' }, 47 * HOUR).state).toBe('stiffening')
    expect(ragState({ since_ms: 0, how: 'flat' }, 48 * HOUR).state).toBe('stiff')
    expect(ragState({ since_ms: 0, how: 'water' }, 900 * HOUR).state).toBe('wet')
    expect(ragState({ since_ms: 0, how: 'gone' }, 0).state).toBe('gone')
  })
  it('come of oil alone; a class that nobody knows breaks nothing', () => {
    for (const slug of ['varnish-oil', 'boiled-linseed', 'pigment-stain']) expect(heatsRags(slug), slug).toBe(true)
    for (const slug of ['white-spirit', 'dewaxed-shellac', 'no-such-class']) expect(heatsRags(slug), slug).toBe(false)
    expect(cautionsIn('no-such-class')).toEqual([])
  })
})

describe('a cartridge', () => {
  const fitted = { fitted_ms: 0, lasts_h: 8, lasts_d: 30, worn_min: 0 }
  it('is through after its hours, or its days, whichever comes first', () => {
    expect(cartridgeState(fitted, HOUR)).toMatchObject({ state: 'good', left_h: 8 })
    expect(cartridgeState({ ...fitted, worn_min: 440 }, HOUR).state).toBe('soon')
    expect(cartridgeState({ ...fitted, worn_min: 480 }, HOUR).state).toBe('over')
    expect(cartridgeState(fitted, 29.5 * 24 * HOUR).state).toBe('soon')
    expect(cartridgeState(fitted, 30 * 24 * HOUR).state).toBe('over')
  })
})

describe("a piece's kind", () => {
  it.each([
    ['Chest of drawers, oak', 'chest-of-drawers'],
    ['Seed chest', 'box'],
    ['Linen press', 'wardrobe'],
    ['Six dining chairs', 'chair'],
    ['Rocking chair', 'armchair'],
    ['Tabletop, elm', 'table'],
    ['SIDEBOARD', 'cabinet'],
    ['Writing-desk', null],
    ['Bureau', 'desk'],
    ['Thing', null],
    ['Tablet holder', null],
  ])('of "%s" is %s', (name, kind) => {
    expect(kindOf(name)).toBe(kind)
  })
  it('is one that is known, whatever the name', () => {
    fc.assert(
      fc.property(fc.string(), name => {
        const kind = kindOf(name)
        return kind === null || PIECE_KINDS.includes(kind)
      }),
    )
  })
})

describe('names taken out', () => {
  it('go however they are written, whole words only', () => {
    const names = ['Åsa Ek', 'asa@example.invalid', '070 77']
    expect(withoutNames('For ÅSA  EK, asa@example.invalid, 070 77; Eken stays', names)).toBe(
      'For (erased), (erased), (erased); Eken stays',
    )
    expect(withoutAnyName('Åsa calls; the oak of Oak', ['Åsa Oak'])).toBe('(erased) calls; the oak of (erased)')
  })
  it('leave none of it, wherever it stands', () => {
    const word = fc.stringMatching(/^[A-Z][a-z]{3,9}$/)
    fc.assert(
      fc.property(word, word, fc.string(), (given, family, text) => {
        const out = withoutAnyName(`${text} ${given} ${family}, ${given.toUpperCase()} ${family}`, [
          `${given} ${family}`,
        ])
        return !new RegExp(`(?<![\\p{L}\\p{N}])(${given}|${family})(?![\\p{L}\\p{N}])`, 'u').test(out)
      }),
    )
  })
  it('are taken as they are written, whatever signs they hold', () => {
    expect(withoutAnyName('a.b(c)*', ['.*('])).toBe('a.b(c)*')
    expect(withoutNames('for A+B (Ltd.), 3 chairs', ['A+B (Ltd.)'])).toBe('for (erased), 3 chairs')
    expect(withoutNames('unchanged', ['', 'x'])).toBe('unchanged')
  })
})

describe('cans from a table', () => {
  const read = (text: string) => readLots(text)
  it('have days in both ways of writing, and numbers too', () => {
    const { lines, wrong } = read(
      'product;code;left in ml;best before;place\nOil;A-1;1,5;31.5.2027;s-1\nOil;A-2;0;2027-06-01;\n',
    )
    expect(wrong).toEqual([])
    expect(lines).toMatchObject([
      { product: 'Oil', code: 'A-1', left: 1.5, bestBefore: '2027-05-31', place: 'S-1' },
      { code: 'A-2', left: 0, bestBefore: '2027-06-01', place: '' },
    ])
  })
  it('that cannot be are told by line', () => {
    const says = read(
      'product,lot,left,opened\n,A,1,\nOil,,1,\nOil,B,-1,\nOil,C,1,2027-02-30\nOil,D,1,\nOil,d,2,\n',
    ).wrong
    expect(says.map(x => x.line)).toEqual([2, 3, 4, 5, 7])
    expect(() => read('product,left\nOil,1\n')).toThrow('there is no column "code"')
  })
})
