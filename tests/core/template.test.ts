import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { doneSaid, stageOf, STAGES, STEP_KINDS } from '#core/acts'
import { PIECE_KINDS, templateOf, USUAL_SIZE } from '#core/estimate'
import { everydayOf, FINISHES, materialOf } from '#core/materials'
import { comesOff } from '#core/papers'
import { faceArea_m2, sumOf } from '#core/units'

const area = (kind: (typeof PIECE_KINDS)[number], s: { length: number; width: number; height: number }) =>
  sumOf(templateOf(kind, s), f => faceArea_m2(f))

describe('a template', () => {
  const mm = fc.integer({ min: 100, max: 3000 })
  it('has faces of positive size that grow with the piece', () => {
    fc.assert(
      fc.property(fc.constantFrom(...PIECE_KINDS), fc.record({ length: mm, width: mm, height: mm }), (kind, size) => {
        const faces = templateOf(kind, size)
        expect(faces.every(f => f.length_mm > 0 && f.width_mm > 0 && f.count > 0)).toBe(true)
        const larger = { length: size.length * 2, width: size.width * 2, height: size.height * 2 }
        expect(area(kind, larger)).toBeGreaterThan(area(kind, size))
      }),
    )
  })
  it('begins with sizes that such a piece usually has, and none is out of bounds', () => {
    for (const kind of PIECE_KINDS) {
      const m2 = area(kind, USUAL_SIZE[kind])
      expect(m2, kind).toBeGreaterThan(0.1)
      expect(m2, kind).toBeLessThan(12)
    }
  })
  it('of a box covers all but its bottom', () => {
    const box = { length: 1000, width: 500, height: 400 }
    expect(area('box', box)).toBeCloseTo(1 * 0.5 + 2 * 1 * 0.4 + 2 * 0.5 * 0.4, 2)
  })
  it('of a table is mostly its top', () => {
    const table = { length: 1900, width: 1050, height: 740 }
    const top = sumOf(
      templateOf('table', table).filter(f => f.name === 'upper'),
      f => faceArea_m2(f),
    )
    expect(top / area('table', table)).toBeGreaterThan(0.45)
  })
})

describe('in everyday words', () => {
  it('every finish has a name at home, a look and a care', () => {
    for (const f of FINISHES)
      expect(everydayOf(f), f).toMatchObject({
        says: expect.stringMatching(/./) as string,
        care: expect.stringMatching(/\./) as string,
      })
    expect(everydayOf('constructor')).toBeNull()
  })
  it('work is told by stages, coats counted', () => {
    const kinds = [
      'approval',
      'wash',
      'strip',
      'scrape',
      'sand',
      'stain',
      'coat',
      'sand-coat',
      'coat',
      'finish-up',
    ] as const
    expect(doneSaid(kinds.map(kind => ({ kind })))).toEqual([
      ...['Cleaned', 'The old finish taken off', 'Sanded', 'Coloured', 'Finished, in 2 coats', 'Put together'],
    ])
    expect(new Set(STEP_KINDS.map(stageOf)).size).toBe(STAGES.length)
  })
})

describe('how a material comes off again (common practice)', () => {
  it.each([
    ['dewaxed-shellac', /alcohol/],
    ['nitrocellulose-lacquer', /lacquer thinner/],
    ['oil-polyurethane', /stripper/],
    ['urethane-2c', /two parts/],
    ['paste-wax', /white spirit/],
    ['varnish-oil', /lies in the wood/],
    ['pigment-stain', /lies in the wood/],
  ])('%s', (slug, says) => {
    expect(comesOff(materialOf(slug))).toMatch(says)
  })
})
