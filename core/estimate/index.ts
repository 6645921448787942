/** Hours, materials and price of a plan. Money in integer minor units, tax in basis points. */
import type { Step } from '../acts'
import { materialOf } from '../materials'
import type { Plan } from '../plan'
import { sumOf } from '../units'

export interface Rates {
  hour_minor: number
  materialMarkup_bp: number
  tax_bp: number
}

export interface Estimate {
  attended_min: number
  labour_minor: number
  materials_minor: number
  net_minor: number
  tax_minor: number
  total_minor: number
}

const BP = 10_000

/** Share of `amount` given in basis points, rounded once. */
export const share_minor = (amount_minor: number, bp: number): number => Math.round((amount_minor * bp) / BP)

/** What prices call the shop's own product by a version of its label. */
export const pricedLabel = (label: number): string => `label ${label}`

/**
 * Cost of the liquid of one step: by the price of the shop's own product where it takes one, else by its class, else
 * by the class's default.
 */
export function materialCost_minor(
  { product, label, amount_ml }: Pick<Step, 'product' | 'label' | 'amount_ml'>,
  price?: (slug: string) => number | undefined,
): number {
  if (!product || !amount_ml) return 0
  const own = label === null ? undefined : price?.(pricedLabel(label))
  return Math.round((amount_ml / 1000) * (own ?? price?.(product) ?? materialOf(product).price_minor))
}

/** Price of a list of steps; each line rounded once. */
export function estimate(steps: readonly Step[], rates: Rates, price?: (slug: string) => number | undefined): Estimate {
  const attended_min = sumOf(steps, s => s.attended_min)
  const labour_minor = Math.round((attended_min / 60) * rates.hour_minor)
  const raw = sumOf(steps, s => materialCost_minor(s, price))
  const materials_minor = raw + share_minor(raw, rates.materialMarkup_bp)
  const net_minor = labour_minor + materials_minor
  const tax_minor = share_minor(net_minor, rates.tax_bp)
  return { attended_min, labour_minor, materials_minor, net_minor, tax_minor, total_minor: net_minor + tax_minor }
}

/** Both estimates together, for a plan and the fallback that a failed gate adds. */
export const addEstimates = (a: Estimate, b: Estimate): Estimate => ({
  attended_min: a.attended_min + b.attended_min,
  labour_minor: a.labour_minor + b.labour_minor,
  materials_minor: a.materials_minor + b.materials_minor,
  net_minor: a.net_minor + b.net_minor,
  tax_minor: a.tax_minor + b.tax_minor,
  total_minor: a.total_minor + b.total_minor,
})

/** Work of a plan up to and including its first gate with a fallback: what is lost when that gate fails. */
export function lostAtGate({ steps }: Pick<Plan, 'steps'>): Step[] {
  const at = steps.findIndex(s => s.gate?.fallback)
  return at < 0 ? [] : steps.slice(0, at + 1)
}
export * from './storage'
export * from './kind'
export * from './template'
