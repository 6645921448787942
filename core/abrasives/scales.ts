/** Grit scales and the shortest ladder on them. */
import { CAMI_MEDIAN_UM, P_MEDIAN_UM, SHELF_P } from './tables'

export type GritScale = 'P' | 'CAMI'
export interface Grit {
  scale: GritScale
  number: number
}
/** Numbers that each scale has, coarse to fine. */
export const P_GRITS: readonly number[] = Object.keys(P_MEDIAN_UM)
  .map(Number)
  .sort((a, b) => a - b)
export const CAMI_GRITS: readonly number[] = Object.keys(CAMI_MEDIAN_UM)
  .map(Number)
  .sort((a, b) => a - b)
export const P = (number: number): Grit => ({ scale: 'P', number })
export const gritName = (grit: Grit): string => (grit.scale === 'P' ? `P${grit.number}` : `CAMI ${grit.number}`)

/**
 * Median grain size in µm (ISO 6344, ANSI B74.18, from memory).
 * @throws RangeError when the table has no such grit.
 */
export function median_um(grit: Grit): number {
  const size = (grit.scale === 'P' ? P_MEDIAN_UM : CAMI_MEDIAN_UM)[grit.number]
  if (size === undefined)
    throw new RangeError(`No grit ${gritName(grit)} in the table. Use one of that scale's numbers.`)
  return size
}

/** The grit of the other scale with the nearest median size. */
export function nearestOn(scale: GritScale, grit: Grit): Grit {
  const size = median_um(grit)
  const numbers = Object.keys(scale === 'P' ? P_MEDIAN_UM : CAMI_MEDIAN_UM).map(Number)
  const off = (n: number) => Math.abs(Math.log(median_um({ scale, number: n }) / size))
  return { scale, number: numbers.reduce((best, n) => (off(n) < off(best) ? n : best)) }
}

/** A step finer than this ratio of medians may leave scratches (common practice). */
export const MAX_STEP_RATIO = 1.9

/** Gaps in a ladder: pairs whose ratio is above 1.9, with the shelf grit that fills each. */
export function ladderGaps(
  ladder: readonly Grit[],
  shelf: readonly number[] = SHELF_P,
): { from: Grit; to: Grit; ratio: number; fill: Grit | null }[] {
  return ladder.slice(1).flatMap((to, i) => {
    const from = ladder[i]!
    const ratio = median_um(from) / median_um(to)
    if (ratio <= MAX_STEP_RATIO) return []
    const between = shelf.map(P).filter(g => median_um(g) < median_um(from) && median_um(g) > median_um(to))
    const middle = Math.sqrt(median_um(from) * median_um(to))
    const fill =
      between.sort(
        (a, b) => Math.abs(Math.log(median_um(a) / middle)) - Math.abs(Math.log(median_um(b) / middle)),
      )[0] ?? null
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
