/** The veneer budget: what a ladder takes against what is there. */
import { gritName, type Grit, median_um } from './scales'

export interface BudgetRow {
  grit: Grit
  takes_um: number
  why: string
}
export interface VeneerBudget {
  rows: BudgetRow[]
  takes_um: number
  worst_um: number
  thickness_um: number
  reserve_um: number
  left_um: number
  verdict: 'fine' | 'by-hand' | 'do-not-sand'
  passes: number
}

/**
 * Depth a stripped face asks of the first grit (50–100 µm) and a raised grain's extra pass; model to be tuned (common
 * practice).
 */
export const LEFT_BY_STRIPPING_UM = 75
/** The same where the whole film is sanded off: 150–300 µm. */
export const LEFT_BY_SANDING_OFF_UM = 225
export const VENEER_RESERVE_UM = 250

/**
 * What a ladder takes off a veneer against what is there (common practice, a model to be tuned).
 * The first grit takes what stripping left; each later one half the median of the grit before it.
 * Worst: the ladder once more after a failed gate.
 */
export function veneerBudget(input: {
  thickness_mm: number
  ladder: readonly Grit[]
  left_um?: number
  raised?: boolean
  reserve_um?: number
}): VeneerBudget {
  const { ladder, left_um = LEFT_BY_STRIPPING_UM, raised = false, reserve_um = VENEER_RESERVE_UM } = input
  const rows: BudgetRow[] = ladder.map((grit, i) =>
    i === 0
      ? { grit, takes_um: left_um, why: 'what stripping left' }
      : { grit, takes_um: median_um(ladder[i - 1]!) / 2, why: `half of ${gritName(ladder[i - 1]!)}` },
  )
  const last = ladder.at(-1)
  if (raised && last) rows.push({ grit: last, takes_um: median_um(last) / 2, why: 'raised grain, the last grit again' })
  const takes_um = rows.reduce((sum, row) => sum + row.takes_um, 0)
  const worst_um = takes_um + rows.slice(1).reduce((sum, row) => sum + row.takes_um, 0)
  const thickness_um = input.thickness_mm * 1000
  const budget = thickness_um - reserve_um
  const handVerdict = takes_um <= budget ? 'by-hand' : 'do-not-sand'
  const verdict = worst_um <= budget * 0.75 ? 'fine' : handVerdict
  return {
    rows,
    takes_um,
    worst_um,
    thickness_um,
    reserve_um,
    left_um: budget - takes_um,
    verdict,
    passes: rows.length,
  }
}
