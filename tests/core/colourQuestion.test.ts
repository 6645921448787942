import { describe, expect, it, test } from 'vitest'
import * as c from '#core/colour'
import { numbered, WOODS } from '../../demo/colours'

/** The one question of a colour search: the page and the server build it from the same readings. */
const read = (more: Partial<c.Read> = {}): c.Read => ({
  role: 'wood',
  spectrum: WOODS.oak,
  clear_coat: null,
  gloss: 'excluded',
  ...more,
})
const asked = (more: Partial<Parameters<typeof c.searchQuestion>[0]> = {}) =>
  c.searchQuestion({
    woods: [read()],
    target: read({ role: 'target', spectrum: WOODS.walnut }),
    colourants: numbered,
    clearCoat: 'waterborne-polyurethane',
    bleached: false,
    lights: ['a', 'led'],
    coats: 2,
    wipe: 'normal',
    ...more,
  })
const mean = (s: c.Spectrum) => s.reduce((sum, v) => sum + v, 0) / s.length

describe('the question of a colour search', () => {
  it('is judged under daylight where no light is chosen, by the wide observer', () =>
    expect([asked({ lights: [] }).lights, asked().observer, asked().atMost]).toEqual([['d65'], '10', 4]))
  it('takes the target as it was read, and another wood as it would be under the same finish', () => {
    expect(asked().target).toEqual(WOODS.walnut)
    const likeWalnut = asked({ target: read({ spectrum: WOODS.walnut }) })
    expect(mean(likeWalnut.target)).toBeLessThan(mean(WOODS.walnut))
  })
  it('looks below what lies over the wood that was read', () => {
    const bare = asked().substrates[0]!
    const coated = read({
      spectrum: c.readUnder(WOODS.oak, c.BARE, c.surfaceOf({ ...read(), clear_coat: 'oil-polyurethane' })),
      clear_coat: 'oil-polyurethane',
    })
    asked({ woods: [coated] }).substrates[0]!.forEach((v, i) => expect(v).toBeCloseTo(bare[i]!, 6))
  })
  it('bleach makes every wood lighter, and two woods are served at once', () => {
    const woods = [read(), read({ spectrum: WOODS.beech })]
    const [plain, bleached] = [asked({ woods }), asked({ woods, bleached: true })]
    expect(plain.substrates).toHaveLength(2)
    plain.substrates.forEach((s, i) => expect(mean(bleached.substrates[i]!)).toBeGreaterThan(mean(s)))
  })
  test.each(['varnish', '', '__proto__'])('a clear coat "%s" is refused or none', slug => {
    const ask = () => asked({ clearCoat: slug as c.ClearCoat })
    if (slug === '') expect(ask().surface.clear).toBeNull()
    else expect(ask).toThrow()
  })
})
