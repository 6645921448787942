/**
 * The shop's own products, by the version of their label: a class's figures with what the label says over them. A class
 * stands there by its slug where the shop knows more of it than everybody.
 */
import { materialOf } from './classes'
import type { Material } from './material'

export type Shelf = Readonly<Record<number | string, Material>>
/** Nothing but the classes. */
export const EMPTY_SHELF: Shelf = {}

/** A class of product, and the label of the shop's own where one was chosen. */
export interface Taken {
  product: string | null
  label: number | null
  fields?: { thinned_pct?: number; strength?: 'thinner' | 'stronger' }
}
/** What a thinner round is thinned by, per cent (shop default, unsourced). */
const THINNER_PCT = 20
/** Reducer in it, per cent of its volume: as chosen for its layer, and for a thinner round. */
export const reducer_pct = ({ thinned_pct = 0, strength }: NonNullable<Taken['fields']>): number =>
  thinned_pct + (strength === 'thinner' ? THINNER_PCT : 0)

/**
 * What is taken, thinned where it is: by its label, else by its class; null: nothing is.
 * @throws RangeError for an unknown class.
 */
export function taken(shelf: Shelf, { product, label, fields }: Taken): Material | null {
  if (product === null) return null
  const m = (label === null ? undefined : shelf[label]) ?? shelf[product] ?? materialOf(product)
  const pct = reducer_pct(fields ?? {})
  return pct > 0 ? thinned(m, pct) : m
}

/** With so much reducer, per cent of its volume: the reducer leaves no solids (arithmetic, handbook 10.4). */
const thinned = (m: Material, pct: number): Material => {
  const share = 1 / (1 + pct / 100)
  return { ...m, solids: [m.solids[0] * share, m.solids[1] * share] }
}
