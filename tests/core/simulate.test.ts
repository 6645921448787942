import { describe, expect, it } from 'vitest'
import {
  airFactor,
  byLabel,
  bySafeWaits,
  bySchedule,
  DAY_MS,
  FIRST_MS,
  HANDS,
  HOUR_MS,
  isOpen,
  liveThrough,
  openings,
  type Policy,
  RECIPES,
  type Seen,
  World,
} from '#core/simulate'

const DAYS = 28
const lived = (make: (seed: number) => Policy, seed = 1) => liveThrough(new World(seed, DAYS), make(seed))

describe('a made-up shop', () => {
  it.each([
    ['labels', byLabel],
    ['safe waits', bySafeWaits],
    ['a schedule', bySchedule],
  ])('lives the same by %s each time', (_, make) => {
    const [first, again] = [lived(make), lived(make)]
    expect(again).toEqual(first)
    expect(first.jobs).toBeGreaterThan(10)
  })
  it('gets the same pieces, whatever is done, and others by another seed', () => {
    const arrivals = (seed: number) => new World(seed, DAYS).arrivals
    expect(arrivals(1)).toEqual(arrivals(1))
    expect(arrivals(2)).not.toEqual(arrivals(1))
    expect(RECIPES.reduce((sum, r) => sum + r.share, 0)).toBeCloseTo(1, 9)
  })
  it('gives nobody two things at once, and shows nobody what is not answered yet', () => {
    const seenAll: Seen[] = []
    const watching = (policy: Policy): Policy => ({
      ...policy,
      begins(seen) {
        const hands = seen.jobs.flatMap(j => j.inHand?.handId ?? [])
        expect(new Set(hands).size).toBe(hands.length)
        expect(hands.some(h => seen.free.includes(h))).toBe(false)
        for (const j of seen.jobs)
          if (j.n === 0 && !j.inHand) expect(j.arrival.answered_ms).toBeLessThanOrEqual(seen.now_ms)
        seenAll.push(seen)
        return policy.begins(seen)
      },
    })
    liveThrough(new World(3, 14), watching(bySafeWaits()))
    expect(seenAll.length).toBeGreaterThan(100)
  })
  it('spoils less with safe waits than by labels', () => {
    const sum = (make: () => Policy) =>
      [1, 2, 3]
        .map(seed => liveThrough(new World(seed, 84), make()))
        .reduce((s, t) => s + t.redone + t.missedWindows, 0)
    expect(sum(bySafeWaits)).toBeLessThan(0.6 * sum(byLabel))
  })
})

describe('what a made-up shop cannot know', () => {
  const world = new World(7, 364)
  const mean = (all: readonly number[]) => all.reduce((sum, x) => sum + x, 0) / all.length

  it('is open from Monday to Friday, with a break at noon', () => {
    const at = (day: number, hour: number) => isOpen(FIRST_MS + day * DAY_MS + hour * HOUR_MS)
    expect([at(0, 7), at(0, 8), at(0, 12), at(0, 13), at(0, 17), at(5, 10), at(7, 10)]).toEqual([
      false,
      true,
      false,
      true,
      false,
      false,
      true,
    ])
    expect(openings(FIRST_MS, 7)).toHaveLength(10)
    for (const [from, to] of openings(FIRST_MS, 7)) expect(isOpen(from) && !isOpen(to)).toBe(true)
  })
  it('the air slows films as the handbook says', () => {
    expect(airFactor({ base: 'oil' }, 0.75)).toBe(1.5)
    expect(airFactor({ base: 'oil' }, 0.6)).toBe(1)
    expect(airFactor({ base: 'water' }, 0.75)).toBeCloseTo(2, 9)
    expect(airFactor({ base: 'lacquer' }, 0.8)).toBe(1)
  })
  it('the air stays within what a shop knows, and is the same for all seeds', () => {
    const days = Array.from({ length: 364 }, (_, d) => world.rh(FIRST_MS + d * DAY_MS))
    for (const rh of days) expect(rh >= 0.3 && rh <= 0.85).toBe(true)
    expect(days).toEqual(Array.from({ length: 364 }, (_, d) => new World(8, 364).rh(FIRST_MS + d * DAY_MS)))
  })
  it('one product keeps its own way: all its dryings lean to one side', () => {
    const film = RECIPES[0]!.operations.find(o => o.name === 'wipe off')!.dries!
    const ratio = (w: World) =>
      mean(Array.from({ length: 200 }, (_, n) => Math.log(w.drying(film, FIRST_MS, n, 1) / film.label_min)))
    const shops = Array.from({ length: 60 }, (_, seed) => ratio(new World(seed, 1)))
    // spread between shops: that of base, class and product together
    const sd = Math.sqrt(mean(shops.map(x => (x - mean(shops)) ** 2)))
    expect(sd).toBeGreaterThan(0.28)
    expect(sd).toBeLessThan(0.55)
  })
  it('somebody is ill now and then, and is back', () => {
    const days = Array.from({ length: 364 }, (_, d) => FIRST_MS + d * DAY_MS + 9 * HOUR_MS).filter(isOpen)
    for (const id of HANDS) {
      const away = days.filter(ms => !world.isThere(id, ms))
      expect(away.length).toBeLessThan(days.length / 5)
      for (const ms of away) expect(world.illUntil(id, ms)!).toBeGreaterThan(ms)
    }
  })
  it('what is spoilt costs: a policy that waits for nothing redoes more', () => {
    const hasty = (): Policy => ({
      name: 'at once',
      begins: ({ free, jobs }) => {
        const idle = jobs.filter(j => !j.inHand)
        return free.slice(0, idle.length).map((handId, i) => ({ handId, jobId: idle[i]!.arrival.id }))
      },
    })
    const [hurried, patient] = [hasty, bySafeWaits].map(make => liveThrough(new World(2, 56), make()))
    expect(hurried!.redone).toBeGreaterThan(patient!.redone)
    expect(hurried!.jobs).toBeLessThan(patient!.jobs)
  })
})
