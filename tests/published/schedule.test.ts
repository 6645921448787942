/** Schedules of small shops against the optimum that HiGHS (a library for mixed integer programs) proves. */
import { describe, expect, it } from 'vitest'
import { type Shop, solve } from '#core/schedule'
import { optimumOf } from './optimum'
import { smallShop } from './smallShop'

function bestOf(shop: Shop, orders: number): number {
  for (const { best, tried } of solve(shop, 1)) if (tried >= orders) return best.cost.hours
  return Infinity
}

describe('the best that there is', () => {
  it.each([1, 2, 3, 4, 5, 6])(
    'shop %i: none is better than the optimum, and ours is near it',
    async seed => {
      const shop = smallShop(seed)
      const optimum = await optimumOf(shop, 60)
      expect(optimum.status).toBe('Optimal')
      const ours = bestOf(shop, 5000)
      expect(ours).toBeGreaterThanOrEqual(optimum.hours - 1e-6)
      expect(ours).toBeLessThanOrEqual(optimum.hours * 1.03 + 1e-6)
    },
    70_000,
  )
})
