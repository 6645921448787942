/** Which lot each planned step takes from, and what is short when. */

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
