/** Which lot each planned step takes from, and what is short when. */
import { sumOf } from '../units'

export interface Demand {
  key: string
  /** coats of one set, which had better come from one lot */
  set: string
  pieceId: number
  /** ISO day */
  on: string
  class: string
  /** '': any, or it has none */
  grit: string
  /** null: any of its class */
  productId: number | null
  /** above nought, in the unit of its class */
  amount: number
}
export interface LotLeft {
  id: number
  productId: number
  class: string
  grit: string
  amount: number
  /** last ISO day on which it is good; null: it does not age */
  until: string | null
  opened: boolean
  /** kept by hand for a piece; null: for any */
  keptFor: number | null
}
export interface Allotted {
  key: string
  lotId: number
  amount: number
}
export interface Short extends Omit<Demand, 'amount' | 'key' | 'set'> {
  amount: number
  /** an older can would hold it, but is over its time by then */
  overId: number | null
}
const EPS = 1e-6
const fits = (d: Demand, l: LotLeft) =>
  l.class === d.class &&
  (d.grit === '' || l.grit === d.grit) &&
  (d.productId === null || l.productId === d.productId) &&
  (l.keptFor === null || l.keptFor === d.pieceId)
/** Kept for this piece, then opened, then the one that ends first, then the older number. */
const byAge = (d: Demand) => (a: LotLeft, b: LotLeft) =>
  Number(b.keptFor === d.pieceId) - Number(a.keptFor === d.pieceId) ||
  Number(b.opened) - Number(a.opened) ||
  (a.until ?? '9999').localeCompare(b.until ?? '9999') ||
  a.id - b.id

/**
 * Earliest need first, oldest lot first; coats of a set from one lot where one suffices for all that is left of it,
 * else each coat from one lot where one suffices for it.
 */
export function allot(demands: readonly Demand[], lots: readonly LotLeft[]): { allotted: Allotted[]; short: Short[] } {
  const left = new Map(lots.map(l => [l.id, l.amount]))
  const ours = new Map<string, number>()
  const allotted: Allotted[] = []
  const short: Short[] = []
  const order = [...demands].sort((a, b) => a.on.localeCompare(b.on) || a.key.localeCompare(b.key))
  const restOf = new Map<string, number>()
  for (const d of order) restOf.set(d.set, (restOf.get(d.set) ?? 0) + d.amount)
  for (const d of order) {
    const of = lots.filter(l => fits(d, l) && left.get(l.id)! > EPS).sort(byAge(d))
    const good = of.filter(l => l.until === null || l.until >= d.on)
    const holds = (amount: number) => good.find(l => left.get(l.id)! + EPS >= amount)
    const sets = good.filter(l => l.id === ours.get(d.set) && left.get(l.id)! + EPS >= d.amount)
    const one = sets[0] ?? holds(restOf.get(d.set)!) ?? holds(d.amount)
    let wanted = d.amount
    for (const l of one ? [one] : good) {
      const amount = Math.min(wanted, left.get(l.id)!)
      if (amount <= EPS) continue
      left.set(l.id, left.get(l.id)! - amount)
      ours.set(d.set, l.id)
      allotted.push({ key: d.key, lotId: l.id, amount })
      wanted -= amount
    }
    restOf.set(d.set, restOf.get(d.set)! - d.amount)
    const { key: _key, set: _set, ...what } = d
    const over = of.find(l => !good.includes(l))
    if (wanted > EPS) short.push({ ...what, amount: wanted, overId: over?.id ?? null })
  }
  return { allotted, short }
}

export interface ToBuy {
  /** sizes with how many of each, the largest first */
  containers: { size: number; n: number }[]
  total: number
}
const MOST_SIZES = 8
/**
 * The least that can be bought for an amount, in containers of these sizes; of equal totals the fewest containers.
 * @param sizes above nought; none: as much as is wanted
 */
export function toBuy(amount: number, sizes: readonly number[]): ToBuy {
  const sorted = [...new Set(sizes.filter(s => s > 0))].sort((a, b) => b - a).slice(0, MOST_SIZES)
  if (amount <= EPS) return { containers: [], total: 0 }
  if (sorted.length === 0) return { containers: [], total: amount }
  // all but the last few of the largest are sure; the rest is tried through
  const [largest = 1] = sorted
  const sure = Math.max(0, Math.floor(amount / largest) - 1)
  let best: number[] | null = null
  const total = (n: readonly number[]) => sumOf([...n.keys()], i => n[i]! * sorted[i]!)
  const count = (n: readonly number[]) => sumOf(n, x => x)
  const better = (n: readonly number[]) =>
    best === null || total(n) < total(best) - EPS || (total(n) < total(best) + EPS && count(n) < count(best))
  const rest = amount - sure * largest
  const tryOut = (i: number, n: readonly number[], open: number) => {
    if (open <= EPS) {
      const all = [...n, ...sorted.slice(n.length).map(() => 0)]
      if (better(all)) best = all
      return
    }
    if (i === sorted.length) return
    const most = Math.ceil((open - EPS) / sorted[i]!)
    // of the smallest only what closes it; of others as many as may be
    for (let k = i === sorted.length - 1 ? most : 0; k <= most; k++) tryOut(i + 1, [...n, k], open - k * sorted[i]!)
  }
  const few = Math.ceil(rest / sorted.at(-1)!) <= 60
  if (few) tryOut(0, [], rest)
  else best = sorted.map((s, i) => (i === 0 ? Math.ceil((rest - EPS) / s) : 0))
  const n = (best ?? [Math.ceil(rest / largest)]).map((x, i) => (i === 0 ? x + sure : x))
  const containers = sorted.map((size, i) => ({ size, n: n[i] ?? 0 })).filter(c => c.n > 0)
  return { containers, total: sumOf(containers, c => c.size * c.n) }
}
