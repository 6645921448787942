/** Dry times that learn: from limits, across products of a class, and never more sure than they may be. */
import { describe, expect, it } from 'vitest'
import { type DryLooks, learnDrying, PRIORS, shareBelow, sigmaOf } from '#core/drying'
import { chance } from '#core/schedule'

const D = 1440
const oil = { base: 'oil', of: 'varnish-oil', product: 'ours' } as const
const look = (given: Partial<DryLooks>): DryLooks => ({
  ...{ ...oil, expected_min: D, notDry_min: null, dry_min: null },
  ...given,
})

describe('the normal distribution (tables, from memory)', () => {
  it.each([
    [0, 0.5],
    [1, 0.8413447],
    [1.96, 0.9750021],
    [-2.575829, 0.005],
    [-5, 2.866516e-7],
  ])('below %f lies %f', (x, share) => expect(shareBelow(x) / share).toBeCloseTo(1, 4))
})

describe('dry times', () => {
  it('know nothing but the spreads of the handbook without looks', () => {
    for (const base of ['oil', 'lacquer'] as const) {
      const { early, likely, safe, seen } = learnDrying([])({ base, of: 'x', product: null })
      expect(likely).toBe(1)
      expect(Math.log(safe) / 1.2816).toBeCloseTo(sigmaOf(base), 2)
      expect(early * safe).toBeCloseTo(1)
      expect(seen).toEqual({ product: 0, class: 0 })
    }
  })
  it('learn a varnish oil that really takes four days from two jobs, within 25 %', () => {
    // the label says one and a half days; looked at each morning
    const job = look({ expected_min: 1.5 * D, notDry_min: 3 * D, dry_min: 4 * D })
    const { likely, safe, seen } = learnDrying([job, job])(oil)
    expect(Math.abs((likely * 1.5) / 4 - 1)).toBeLessThan(0.25)
    expect(safe * 1.5).toBeGreaterThan(4)
    expect(seen).toEqual({ product: 2, class: 0 })
  })
  it('lend what one product taught to its class, less than to itself, and nothing to others', () => {
    const slow = Array.from({ length: 6 }, () => look({ notDry_min: 1.9 * D, dry_min: 2.1 * D }))
    const learnt = learnDrying(slow)
    const [own, sister, other] = [
      learnt(oil).likely,
      learnt({ ...oil, product: 'another' }).likely,
      learnt({ base: 'water', of: 'waterborne', product: null }).likely,
    ]
    expect(own).toBeGreaterThan(1.8)
    expect([sister > 1.1, sister < own, other]).toEqual([true, true, 1])
  })
  it('take a look that found it dry as a limit only', () => {
    const early = learnDrying([look({ dry_min: 0.5 * D })])(oil).likely
    const late = learnDrying([look({ dry_min: 10 * D })])(oil).likely
    expect(early).toBeLessThan(0.75)
    expect(Math.abs(late - 1)).toBeLessThan(0.02)
    expect(learnDrying([look({ notDry_min: 3 * D })])(oil).likely).toBeGreaterThan(1.8)
  })
  it('come to an end on looks that nobody can believe, and leave out what contradicts itself', () => {
    const mad = [look({ dry_min: 1 }), look({ notDry_min: 1e6 }), look({ notDry_min: D, dry_min: 10 })]
    const { early, likely, safe, seen } = learnDrying(mad)(oil)
    expect([early, likely, safe].every(x => Number.isFinite(x) && x > 0)).toBe(true)
    expect(seen.product).toBe(2)
  })
  it('are as sure as they may be: eighty of a hundred lie between early and safe', () => {
    const random = chance(5)
    const normal = () => Math.sqrt(-2 * Math.log(1 - random())) * Math.cos(2 * Math.PI * random())
    const sd = PRIORS.other
    let [inside, below, count] = [0, 0, 0]
    for (let shop = 0; shop < 250; shop++) {
      const [base, cls, own] = [normal() * sd.base, normal() * sd.class, normal() * sd.product]
      const real = () => 600 * Math.exp(base + cls + own + normal() * sd.look)
      const of = { base: 'lacquer', of: 'lacquer', product: 'L' } as const
      const looks = Array.from({ length: 4 }, (): DryLooks => {
        const dry = real()
        // looked at every hour
        return {
          ...of,
          expected_min: 600,
          notDry_min: Math.floor(dry / 60) * 60 || null,
          dry_min: Math.ceil(dry / 60) * 60,
        }
      })
      const { early, safe } = learnDrying(looks)(of)
      for (let n = 0; n < 4; n++) {
        const next = real() / 600
        count++
        if (next >= early && next <= safe) inside++
        if (next <= safe) below++
      }
    }
    expect(Math.abs(inside / count - 0.8)).toBeLessThan(0.04)
    expect(Math.abs(below / count - 0.9)).toBeLessThan(0.03)
  })
})
