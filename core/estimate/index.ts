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

/** Cost of the liquid of one step by its class's default price; `price` overrides it per product. */
export const materialCost_minor = (
  step: Pick<Step, 'product' | 'amount_ml'>,
  price?: (slug: string) => number | undefined,
): number =>
  step.product && step.amount_ml
    ? Math.round((step.amount_ml / 1000) * (price?.(step.product) ?? materialOf(step.product).price_minor))
    : 0

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
export function lostAtGate(plan: Plan): Step[] {
  const at = plan.steps.findIndex(s => s.gate?.fallback)
  return at < 0 ? [] : plan.steps.slice(0, at + 1)
}
