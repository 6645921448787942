import { describe, expect, it } from 'vitest'
import type { Face } from '#core/piece'
import { chance, learnPaces, shapeOf, type Worked } from '#core/schedule'

const work = (kind: Worked['kind'], ...ratios: number[]): Worked[] =>
  ratios.map(r => ({ kind, shape: 'flat', planned_min: 40, real_min: 40 * r }))
const flat = (kind: Worked['kind']) => ({ kind, shape: 'flat' as const })
const random = chance(5)
const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())

describe('minutes as they were', () => {
  it('nothing done teaches nothing', () => {
    expect(learnPaces([])(flat('sand'))).toEqual({ factor: 1, seen: 0 })
  })
  it('one step is by hand the mean of what is believed and what was seen', () => {
    // of shop, kind and shape together after one look y: y · (a² + b² + c²) / (a² + b² + c² + e²)
    const known = 0.15 ** 2 + 0.2 ** 2 + 0.15 ** 2
    const share = known / (known + 0.35 ** 2)
    const { factor, seen } = learnPaces(work('sand', 2))(flat('sand'))
    expect(factor).toBeCloseTo(Math.exp(share * Math.log(2)), 9)
    expect(seen).toBe(1)
  })
  it('a kind that nobody has done leans on the shop', () => {
    const of = learnPaces(work('sand', 1.5, 1.5, 1.5, 1.6, 1.4))
    expect(of(flat('coat')).factor).toBeGreaterThan(1.05)
    expect(of(flat('coat')).factor).toBeLessThan(of(flat('sand')).factor)
  })
  it('a shape has its own pace within its kind, and another shape leans on the kind', () => {
    const turned = Array.from({ length: 12 }, () => ({ ...work('sand', 2)[0]!, shape: 'turned' as const }))
    const of = learnPaces([...turned, ...work('sand', ...Array.from({ length: 12 }, () => 1))])
    const [slow, usual, carved] = (['turned', 'flat', 'carved'] as const).map(
      shape => of({ kind: 'sand', shape }).factor,
    )
    expect(slow!).toBeGreaterThan(carved!)
    expect(carved!).toBeGreaterThan(usual!)
  })
  it('a step is of the shape of most of its faces', () => {
    const face = (shape: Face['shape'], length_mm: number) => ({ shape, length_mm, width_mm: 100, copies: 1 })
    expect(shapeOf([face('turned', 400), face('oval', 300), face('flat', 200)])).toBe('flat')
    expect(shapeOf([])).toBeNull()
  })
  it('what was left in hand, or entered afterwards, is no pace', () => {
    expect(learnPaces(work('sand', 40, 0.01, NaN))(flat('sand'))).toEqual({ factor: 1, seen: 0 })
  })
  it('many steps find the hidden pace', () => {
    const all = Array.from({ length: 200 }, () => work('sand', 1.3 * Math.exp(0.35 * normal()))).flat()
    expect(learnPaces(all)(flat('sand')).factor).toBeCloseTo(1.3, 1)
  })
})
