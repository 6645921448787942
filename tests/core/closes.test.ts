import { describe, expect, it } from 'vitest'
import { closesOf, type Placed, solve } from '#core/schedule'
import { randomShop } from './randomShop'

const MIN_MS = 60_000

describe('when windows close', () => {
  const shop = randomShop(4, { jobs: 6, tasks: 8, hands: 3 })
  const { best } = solve(shop, 1).next().value
  const closes = closesOf(shop, best.placed)
  const at = new Map(best.placed.map(p => [p.task, p]))

  it('each is a longest wait after what opens it began, or was told', () => {
    const tasks = shop.jobs.flatMap(j => j.tasks)
    expect(closes.size).toBeGreaterThan(0)
    for (const [id, closes_ms] of closes) {
      const task = tasks.find(t => t.id === id)!
      const ends = task.after.flatMap(l =>
        l.max_min !== null && at.has(l.from) ? [at.get(l.from)!.start_ms + l.max_min * MIN_MS] : [],
      )
      expect([task.closes_ms, ...ends]).toContain(closes_ms)
      for (const end of ends) expect(closes_ms).toBeLessThanOrEqual(end)
    }
  })
  it('what is placed without a broken rule begins in its window', () => {
    const missed = new Set(best.missed.map(m => m.to))
    for (const [id, closes_ms] of closes)
      if (at.has(id) && !missed.has(id)) expect(at.get(id)!.start_ms).toBeLessThanOrEqual(closes_ms)
  })
  it('nothing placed, nothing opens', () => {
    const told = shop.jobs.flatMap(j => j.tasks).filter(t => t.closes_ms !== null)
    expect(closesOf(shop, [] as Placed[]).size).toBe(told.length)
  })
})
