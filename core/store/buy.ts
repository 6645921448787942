/** The least to buy of what is short, in containers, so that each is used up while it is good. */
import { sumOf } from '../units'
import { addMonths, type keepsOf } from './age'

const EPS = 1e-6

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

export interface Wanted {
  /** ISO day */
  on: string
  /** above nought */
  amount: number
}
export interface BuyNow extends ToBuy {
  /** what is wanted after a can that is bought now is over; bought later */
  later: Wanted | null
}
/**
 * Containers for what is wanted by day. Cans are opened when they are needed: what is wanted later than one keeps
 * opened comes from cans of its own, and what is wanted later than one keeps closed is not bought yet.
 * @param today ISO day; null of `keeps`: it does not age
 */
export function buyWithin(
  wanted: readonly Wanted[],
  sizes: readonly number[],
  keeps: ReturnType<typeof keepsOf>,
  today: string,
): BuyNow {
  const days = [...wanted].sort((a, b) => a.on.localeCompare(b.on))
  const until = keeps ? addMonths(today, keeps.closed_mo) : '9999'
  const [now, after] = [days.filter(d => d.on <= until), days.filter(d => d.on > until)]
  const windows: { until: string; amount: number }[] = []
  for (const { on, amount } of now) {
    const open = windows.at(-1)
    if (open && on <= open.until) open.amount += amount
    else windows.push({ until: keeps ? addMonths(on, keeps.opened_mo) : '9999', amount })
  }
  const bought = windows.map(w => toBuy(w.amount, sizes))
  const counts = new Map<number, number>()
  for (const c of bought.flatMap(b => b.containers)) counts.set(c.size, (counts.get(c.size) ?? 0) + c.n)
  return {
    containers: [...counts].sort(([a], [b]) => b - a).map(([size, n]) => ({ size, n })),
    total: sumOf(bought, b => b.total),
    later: after[0] ? { on: after[0].on, amount: sumOf(after, d => d.amount) } : null,
  }
}
