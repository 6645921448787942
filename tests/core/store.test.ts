import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { P } from '#core/abrasives'
import { stepOf } from '#core/acts'
import {
  addMonths,
  ageState,
  allot,
  buyWithin,
  CONSUMABLE_SLUGS,
  type Demand,
  eatenBy,
  goodUntil,
  keepsOf,
  leftByWeight,
  type LotLeft,
  toBuy,
} from '#core/store'

const demand = (key: string, more: Partial<Demand> = {}): Demand => ({
  ...{ key, set: 's', pieceId: 1, on: '2027-03-01', class: 'varnish-oil', grit: '', productId: null, amount: 100 },
  ...more,
})
const lot = (id: number, amount: number, more: Partial<LotLeft> = {}): LotLeft => ({
  ...{ id, productId: 1, class: 'varnish-oil', grit: '', amount, until: null, opened: false, keptFor: null },
  ...more,
})

describe('what each step takes from', () => {
  it('is the opened can first, then the one that ends first, never one over its time', () => {
    const lots = [
      lot(1, 500, { until: '2027-02-01' }),
      lot(2, 500, { until: '2028-01-01' }),
      lot(3, 500, { until: '2027-06-01' }),
      lot(4, 500, { until: '2029-01-01', opened: true }),
    ]
    expect(allot([demand('a')], lots).allotted).toEqual([{ key: 'a', lotId: 4, amount: 100 }])
    expect(allot([demand('a')], lots.slice(0, 3)).allotted[0]!.lotId).toBe(3)
    expect(allot([demand('a')], lots.slice(0, 1)).short).toMatchObject([{ amount: 100, overId: 1 }])
  })
  it('is one lot for the coats of a set where one suffices', () => {
    const coats = ['a', 'b', 'c'].map((key, i) => demand(key, { on: `2027-03-0${i + 1}` }))
    expect(allot(coats, [lot(1, 150), lot(2, 400)]).allotted.map(a => a.lotId)).toEqual([2, 2, 2])
    expect(allot(coats, [lot(1, 150), lot(2, 200)]).allotted.map(a => a.lotId)).toEqual([1, 2, 2])
  })
  it('is what is kept for the piece, and never what is kept for another', () => {
    const lots = [lot(1, 500, { keptFor: 2 }), lot(2, 500, { keptFor: 1 }), lot(3, 500)]
    expect(allot([demand('a')], lots).allotted[0]!.lotId).toBe(2)
    expect(allot([demand('a', { pieceId: 9 })], lots).allotted[0]!.lotId).toBe(3)
  })
  it('never takes more than there is, and accounts for all that is wanted', () => {
    const some = fc.integer({ min: 1, max: 500 })
    fc.assert(
      fc.property(fc.array(some, { maxLength: 12 }), fc.array(some, { maxLength: 6 }), (needs, cans) => {
        const demands = needs.map((amount, i) =>
          demand(`d${i}`, { amount, set: `s${i % 3}`, on: `2027-03-0${1 + (i % 9)}` }),
        )
        const { allotted, short } = allot(
          demands,
          cans.map((amount, i) => lot(i, amount)),
        )
        for (const [id, can] of cans.entries())
          expect(allotted.filter(a => a.lotId === id).reduce((n, a) => n + a.amount, 0)).toBeLessThanOrEqual(can + 1e-6)
        const sum = (rows: readonly { amount: number }[]) => rows.reduce((n, r) => n + r.amount, 0)
        expect(sum(allotted) + sum(short)).toBeCloseTo(sum(demands), 6)
        expect(sum(short)).toBeCloseTo(Math.max(0, sum(demands) - cans.reduce((a, b) => a + b, 0)), 6)
      }),
    )
  })
})

describe('the least to buy', () => {
  it('is the smallest total of whole containers, and of equal ones the fewest', () => {
    expect(toBuy(1200, [1000, 250])).toEqual({
      containers: [
        { size: 1000, n: 1 },
        { size: 250, n: 1 },
      ],
      total: 1250,
    })
    expect(toBuy(900, [1000, 250])).toEqual({ containers: [{ size: 1000, n: 1 }], total: 1000 })
    expect(toBuy(700, [1000, 750, 250]).containers).toEqual([{ size: 750, n: 1 }])
    expect(toBuy(12_300, [5000, 1000]).total).toBe(13_000)
    expect(toBuy(0, [1000])).toEqual({ containers: [], total: 0 })
    expect(toBuy(33, [])).toEqual({ containers: [], total: 33 })
  })
  it('always suffices, and no container of it is needless', () => {
    const sizes = fc.uniqueArray(
      fc.integer({ min: 1, max: 20 }).map(n => n * 50),
      { minLength: 1, maxLength: 4 },
    )
    fc.assert(
      fc.property(fc.integer({ min: 1, max: 4000 }), sizes, (amount, of) => {
        const { containers, total } = toBuy(amount, of)
        expect(total).toBeGreaterThanOrEqual(amount)
        for (const c of containers) expect(total - c.size).toBeLessThan(amount)
      }),
    )
  })
})

describe('what is bought', () => {
  const oil = keepsOf({ base: 'oil', potLife_min: null })
  const march = { on: '2027-03-01', amount: 600 }
  it('is used up while it keeps opened: what comes half a year later has a can of its own', () => {
    const days = [march, { on: '2027-04-01', amount: 400 }, { on: '2027-12-01', amount: 900 }]
    const { containers, total, later } = buyWithin(days, [2000, 1000], oil, '2027-02-20')
    expect({ containers, total, later }).toEqual({ containers: [{ size: 1000, n: 2 }], total: 2000, later: null })
    expect(buyWithin(days.slice(0, 2), [2000, 1000], oil, '2027-02-20').total).toBe(1000)
  })
  it('is not bought yet where it would be over before it is wanted', () => {
    const { total, later } = buyWithin([march, { on: '2030-01-01', amount: 50 }], [1000], oil, '2027-02-20')
    expect({ total, later }).toEqual({ total: 1000, later: { on: '2030-01-01', amount: 50 } })
  })
  it('is one amount where it does not age', () => {
    expect(buyWithin([march, { on: '2040-01-01', amount: 400 }], [1000], null, '2027-02-20').total).toBe(1000)
  })
})

describe('how long a can keeps', () => {
  it('is by its label before its class, and shorter once it is opened', () => {
    const oil = keepsOf({ base: 'oil', potLife_min: null })
    const closed = { received_on: '2026-01-31', opened_on: null, best_before: null }
    expect(goodUntil(closed, oil)).toBe('2028-01-31')
    expect(goodUntil({ ...closed, opened_on: '2026-08-31' }, oil)).toBe('2027-02-28')
    expect(goodUntil({ ...closed, best_before: '2026-12-01' }, oil)).toBe('2026-12-01')
    expect(goodUntil(closed, keepsOf({ base: 'oil', potLife_min: null }, { keepsClosed_mo: 6 }))).toBe('2026-07-31')
    expect(goodUntil(closed, null)).toBe(null)
    expect(addMonths('2024-12-31', 2)).toBe('2025-02-28')
  })
  it('is good, soon over, or over', () => {
    const states = ['2027-05-01', '2027-03-20', '2027-02-28', null].map(until => ageState(until, '2027-03-01'))
    expect(states).toEqual(['good', 'soon', 'over', 'good'])
  })
  it('what is left is told by weight', () => {
    expect(leftByWeight(1100, 200, 0.9)).toBeCloseTo(1000)
    expect(() => leftByWeight(100, 200, 0.9)).toThrow('lighter than the empty can')
    expect(() => leftByWeight(5000, 200, 0.9, 1000)).toThrow('in a can of 1000 ml')
  })
})

describe('what an act eats', () => {
  const step = (more: object) => stepOf({ key: 'a', kind: 'sand', faces: [1], method: 'random-orbit', ...more })
  it('is an abrasive of each grit, by the area', () => {
    const eaten = eatenBy(step({ grits: [P(120), P(180)] }), 2)
    expect(eaten).toEqual([
      { slug: 'abrasive-disc', grit: 'P120', amount: 3 },
      { slug: 'abrasive-disc', grit: 'P180', amount: 3 },
    ])
    expect(eatenBy(step({ grits: [P(220)], method: 'hand' }), 0.2)).toMatchObject([
      { slug: 'abrasive-sheet', amount: 1 },
    ])
  })
  it('is rags for what is wiped, a filter for each sprayed coat, tape and paper for what is masked', () => {
    const slugs = (more: object, m2 = 1) => eatenBy(step(more), m2).map(e => e.slug)
    expect(slugs({ kind: 'oil-off', method: 'rag' })).toContain('rag')
    expect(slugs({ kind: 'coat', method: 'spray', product: 'nitrocellulose-lacquer' })).toEqual(
      expect.arrayContaining(['paint-filter', 'gloves']),
    )
    expect(slugs({ kind: 'mask', method: 'none' })).toEqual(['masking-tape', 'masking-paper'])
    expect(CONSUMABLE_SLUGS.length).toBe(new Set(CONSUMABLE_SLUGS).size)
  })
})
