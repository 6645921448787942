/** Schedules of small shops against the optimum that HiGHS (a library for mixed integer programs) proves. */
import { describe, expect, it } from 'vitest'
import { chance, FLOW_WEIGHT, type Shop, solve } from '#core/schedule'
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

const MIN_MS = 60_000
const NOON_MS = Date.UTC(2026, 10, 30, 12)
interface Plain {
  minutes: number
  weight: number
  due_min: number | null
}
/** Jobs of one task each, for some hands that are there all the time. */
const plainShop = (hands: number, jobs: readonly Plain[]): Shop => ({
  ...smallShop(1),
  ...{ now_ms: NOON_MS, until_ms: NOON_MS + 20_000 * MIN_MS },
  hands: Array.from({ length: hands }, (_, id) => ({
    ...{ id, skills: null, spans: [[NOON_MS, NOON_MS + 20_000 * MIN_MS] as const] },
  })),
  jobs: jobs.map(({ minutes, weight, due_min }, id) => ({
    ...{ id, weight, due_ms: due_min === null ? null : NOON_MS + due_min * MIN_MS },
    tasks: [{ ...smallShop(1).jobs[0]!.tasks[0]!, id: `${id}`, minutes, skill: null, after: [] }],
  })),
})
const quarters = (random: () => number, most: number) => 15 * (1 + Math.floor(random() * most))
const drawn = (seed: number, count: number, of: (random: () => number) => Plain) => {
  const random = chance(seed)
  return Array.from({ length: count }, () => of(random))
}
/** When each job is through where they are taken in an order by whoever is free first, hours. */
function endsInOrder(hands: number, jobs: readonly Plain[]): number[] {
  const free = new Array<number>(hands).fill(0)
  return jobs.map(({ minutes }) => {
    const who = free.indexOf(Math.min(...free))
    free[who]! += minutes
    return free[who]! / 60
  })
}

describe('what is proved of sequences', () => {
  it.each([1, 2, 3, 4])("weighted lateness of one pair of hands, all due at once: Smith's rule (1956), %i", seed => {
    const jobs = drawn(seed, 9, random => ({
      ...{ minutes: quarters(random, 12), weight: 1 + Math.floor(random() * 5), due_min: 0 },
    }))
    const byRule = jobs.toSorted((a, b) => a.minutes / a.weight - b.minutes / b.weight)
    const weighted = endsInOrder(1, byRule).reduce((sum, end, i) => sum + byRule[i]!.weight * end, 0)
    const ours = bestOf(plainShop(1, jobs), 1500)
    // a hundredth of the hours until ready is added to the weighted ones, and may choose another order among equals
    expect(ours).toBeGreaterThan(weighted)
    const flow = endsInOrder(1, byRule).reduce((sum, end) => sum + end, 0)
    expect(ours).toBeLessThanOrEqual(weighted + FLOW_WEIGHT * flow + 1e-6)
  })
  it.each([1, 2, 3, 4])(
    'hours until ready on like hands: the shortest first (Conway, Maxwell and Miller 1967), %i',
    seed => {
      const jobs = drawn(seed + 10, 10, random => ({ minutes: quarters(random, 16), weight: 1, due_min: null }))
      const byRule = jobs.toSorted((a, b) => a.minutes - b.minutes)
      const flow = endsInOrder(3, byRule).reduce((sum, end) => sum + end, 0)
      expect(bestOf(plainShop(3, jobs), 1500)).toBeCloseTo(FLOW_WEIGHT * flow, 6)
    },
  )
  it.each([1, 2, 3, 4])('what can be in time is in time: the first due first (Jackson 1955), %i', seed => {
    const jobs = drawn(seed + 20, 9, random => ({ minutes: quarters(random, 12), weight: 1, due_min: 0 }))
    // due when this very order is through, and not a minute later
    let through = 0
    const due = jobs.map(j => ({ ...j, due_min: (through += j.minutes) }))
    const late = bestOf(plainShop(1, due), 1500) - FLOW_WEIGHT * endsInOrder(1, due).reduce((sum, end) => sum + end, 0)
    expect(late).toBeLessThanOrEqual(1e-6)
  })
})
