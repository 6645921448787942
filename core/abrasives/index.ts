/** Grit scales, ladders and what sanding takes off. */
import { CAMI_MEDIAN_UM, P_MEDIAN_UM, SHELF_P } from './tables'

export * from './tables'

export type GritScale = 'P' | 'CAMI'
export interface Grit { scale: GritScale, number: number }
export const P = (number: number): Grit => ({ scale: 'P', number })
export const gritName = (grit: Grit): string => grit.scale === 'P' ? `P${grit.number}` : `CAMI ${grit.number}`

/**
 * Median grain size in µm (ISO 6344, ANSI B74.18, from memory).
 * @throws RangeError when the table has no such grit.
 */
export function median_um(grit: Grit): number {
  const size = (grit.scale === 'P' ? P_MEDIAN_UM : CAMI_MEDIAN_UM)[grit.number]
  if (size === undefined) throw new RangeError(`No grit ${gritName(grit)} in the table. Use one of that scale's numbers.`)
  return size
}

/** The grit of the other scale with the nearest median size. */
export function nearestOn(scale: GritScale, grit: Grit): Grit {
  const size = median_um(grit)
  const numbers = Object.keys(scale === 'P' ? P_MEDIAN_UM : CAMI_MEDIAN_UM).map(Number)
  const off = (n: number) => Math.abs(Math.log(median_um({ scale, number: n }) / size))
  return { scale, number: numbers.reduce((best, n) => off(n) < off(best) ? n : best) }
}

/** A step finer than this ratio of medians may leave scratches (common practice). */
export const MAX_STEP_RATIO = 1.9

/** Gaps in a ladder: pairs whose ratio is above 1.9, with the shelf grit that fills each. */
export function ladderGaps(ladder: readonly Grit[], shelf: readonly number[] = SHELF_P): { from: Grit, to: Grit, ratio: number, fill: Grit | null }[] {
  return ladder.slice(1).flatMap((to, i) => {
    const from = ladder[i]!
    const ratio = median_um(from) / median_um(to)
    if (ratio <= MAX_STEP_RATIO) return []
    const between = shelf.map(P).filter(g => median_um(g) < median_um(from) && median_um(g) > median_um(to))
    const middle = Math.sqrt(median_um(from) * median_um(to))
    const fill = between.sort((a, b) => Math.abs(Math.log(median_um(a) / middle)) - Math.abs(Math.log(median_um(b) / middle)))[0] ?? null
    return [{ from, to, ratio, fill }]
  })
}

/**
 * The shortest ladder on the P scale from `first` to `stop` that never skips (ratio ≤ 1.9).
 * When `first` is as fine as `stop` or finer, the ladder is the stop grit alone.
 */
export function ladder_P(first: number, stop: number, shelf: readonly number[] = SHELF_P): Grit[] {
  const target = median_um(P(stop))
  const rungs = [...new Set([...shelf, stop])].sort((a, b) => a - b)
  const ladder: number[] = []
  let at = median_um(P(first)) <= target ? stop : first
  while (at !== stop) {
    ladder.push(at)
    const size = median_um(P(at))
    const reach = rungs.filter(n => n > at && n <= stop && size / median_um(P(n)) <= MAX_STEP_RATIO)
    at = reach.at(-1) ?? rungs.find(n => n > at)!
  }
  return [...ladder, stop].map(P)
}

export interface BudgetRow { grit: Grit, takes_um: number, why: string }
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

/** Depth a stripped face asks of the first grit (50–100 µm) and a raised grain's extra pass; model to be tuned (common practice). */
export const LEFT_BY_STRIPPING_UM = 75
export const VENEER_RESERVE_UM = 250

/**
 * What a ladder takes off a veneer against what is there (common practice, a model to be tuned).
 * The first grit takes what stripping left; each later one half the median of the grit before it.
 * Worst: the ladder once more after a failed gate.
 */
export function veneerBudget(input: { thickness_mm: number, ladder: readonly Grit[], left_um?: number, raised?: boolean, reserve_um?: number }): VeneerBudget {
  const { ladder, left_um = LEFT_BY_STRIPPING_UM, raised = false, reserve_um = VENEER_RESERVE_UM } = input
  const rows: BudgetRow[] = ladder.map((grit, i) => i === 0
    ? { grit, takes_um: left_um, why: 'what stripping left' }
    : { grit, takes_um: median_um(ladder[i - 1]!) / 2, why: `half of ${gritName(ladder[i - 1]!)}` })
  const last = ladder.at(-1)
  if (raised && last) rows.push({ grit: last, takes_um: median_um(last) / 2, why: 'raised grain, the last grit again' })
  const takes_um = rows.reduce((sum, row) => sum + row.takes_um, 0)
  const worst_um = takes_um + rows.slice(1).reduce((sum, row) => sum + row.takes_um, 0)
  const thickness_um = input.thickness_mm * 1000
  const budget = thickness_um - reserve_um
  const verdict = worst_um <= budget * 0.75 ? 'fine' : takes_um <= budget ? 'by-hand' : 'do-not-sand'
  return { rows, takes_um, worst_um, thickness_um, reserve_um, left_um: budget - takes_um, verdict, passes: rows.length }
}
