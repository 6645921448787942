/** How long a can keeps: as bought, and once it was opened. */
import type { LabelFigures, Material } from '../materials'

export interface LotAge {
  /** ISO days; null: not known, or not opened */
  received_on: string | null
  opened_on: string | null
  best_before: string | null
}
/** Months closed and opened, where no label says them, by what it is made of. From memory, for kept cool and shut. */
const KEEPS_MO: Readonly<Record<Material['base'] | 'two-part', readonly [closed: number, opened: number]>> = {
  'water': [18, 9],
  'oil': [24, 6],
  'alcohol': [12, 6],
  'lacquer': [36, 18],
  'two-part': [12, 3],
  'none': [60, 60],
}

export const addMonths = (day: string, months: number): string => {
  const [y = 0, m = 1, d = 1] = day.split('-').map(Number)
  const first = new Date(Date.UTC(y, m - 1 + Math.round(months), 1))
  const last = new Date(Date.UTC(first.getUTCFullYear(), first.getUTCMonth() + 1, 0)).getUTCDate()
  first.setUTCDate(Math.min(d, last))
  return first.toISOString().slice(0, 10)
}
type Keeps = Pick<LabelFigures, 'keepsClosed_mo' | 'keepsOpened_mo'>
/** Months that it keeps: by its label, else by its class; null: it does not age. */
export function keepsOf(material: Pick<Material, 'base' | 'potLife_min'> | null, label: Keeps = {}) {
  if (!material) return null
  const [closed, opened] = KEEPS_MO[material.potLife_min ? 'two-part' : material.base]
  return { closed_mo: label.keepsClosed_mo ?? closed, opened_mo: label.keepsOpened_mo ?? opened }
}
/** The last day on which it is good; null: it does not age, or nobody knows how old it is. */
export function goodUntil(age: LotAge, keeps: ReturnType<typeof keepsOf>): string | null {
  const closed = age.best_before ?? (keeps && age.received_on ? addMonths(age.received_on, keeps.closed_mo) : null)
  const opened = keeps && age.opened_on ? addMonths(age.opened_on, keeps.opened_mo) : null
  const ends = [closed, opened].filter(x => x !== null).sort()
  return ends[0] ?? null
}
const SOON_D = 30
const DAY_MS = 86_400_000
export type AgeState = 'good' | 'soon' | 'over'
export function ageState(until: string | null, today: string): AgeState {
  if (until === null) return 'good'
  const left_d = (Date.parse(until) - Date.parse(today)) / DAY_MS
  if (left_d < 0) return 'over'
  return left_d <= SOON_D ? 'soon' : 'good'
}

/**
 * What is left in a can by its weight.
 * @returns ml, never below nought
 * @throws RangeError in words for a weight below the empty can's, or more than a can of that volume holds.
 */
export function leftByWeight(gross_g: number, tare_g: number, density: number, holds_ml: number | null = null): number {
  const ml = (gross_g - tare_g) / density
  if (ml < -1) throw new RangeError(`That is lighter than the empty can, ${tare_g} g. Weigh it again, or its can.`)
  if (holds_ml !== null && ml > holds_ml * 1.1)
    throw new RangeError(`That would be ${Math.round(ml)} ml in a can of ${Math.round(holds_ml)} ml. Weigh it again.`)
  return Math.max(0, ml)
}
