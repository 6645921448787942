/** Grit scales and the shortest ladder on them. */
import { ABOUT_UM, CAMI_MEDIAN_UM, P_MEDIAN_UM, SHELF_P } from './tables'

export const GRIT_SCALES = ['P', 'CAMI', 'foam', 'wool', 'pad', 'powder'] as const
export type GritScale = (typeof GRIT_SCALES)[number]
/** A grit as it is called on its scale: P 320, CAMI 400, foam 3000, wool 0000, pad grey, powder pumice. */
export interface Grit {
  scale: GritScale
  grade: string
}
const MEDIAN_UM: Readonly<Record<GritScale, Readonly<Record<string, number>>>> = {
  P: P_MEDIAN_UM,
  CAMI: CAMI_MEDIAN_UM,
  ...ABOUT_UM,
}
/** Grades of a scale, coarse to fine. */
export const gradesOf = (scale: GritScale): string[] =>
  Object.entries(MEDIAN_UM[scale])
    .sort(([, a], [, b]) => b - a)
    .map(([grade]) => grade)
/** Numbers of the two scales of paper, coarse to fine. */
export const P_GRITS: readonly number[] = gradesOf('P').map(Number)
export const CAMI_GRITS: readonly number[] = gradesOf('CAMI').map(Number)
export const P = (grade: number | string): Grit => ({ scale: 'P', grade: String(grade) })
/** A number that was kept before grits had scales is one of the P scale. */
export const asGrit = (kept: Grit | number): Grit => (typeof kept === 'number' ? P(kept) : kept)
export const isGrit = ({ scale, grade }: Grit): boolean => Object.hasOwn(MEDIAN_UM[scale] ?? {}, grade)

const NAMES: Readonly<Record<GritScale, (grade: string) => string>> = {
  P: grade => `P${grade}`,
  CAMI: grade => `CAMI ${grade}`,
  foam: grade => `foam ${grade}`,
  wool: grade => `wool ${grade}`,
  pad: grade => `${grade} pad`,
  powder: grade => grade,
}
/** From a levelled film to gloss, before the compound (handbook 12); P1200 is about CAMI 600. */
export const TO_GLOSS: Grit[] = [
  P(1200),
  { scale: 'CAMI', grade: '1000' },
  { scale: 'CAMI', grade: '1500' },
  { scale: 'foam', grade: '3000' },
]

export const gritName = (grit: Grit): string => NAMES[grit.scale](grit.grade)

/**
 * Median grain size in µm (ISO 6344, ANSI B74.18, from memory); of foam, wool, pads and powders about the size of paper
 * that leaves the same scratch.
 * @throws RangeError when the table has no such grit.
 */
export function median_um(grit: Grit): number {
  if (!isGrit(grit)) throw new RangeError(`No grit ${gritName(grit)} in the table. Use one of that scale's grades.`)
  return MEDIAN_UM[grit.scale][grit.grade]!
}
export const isCoarser = (a: Grit, b: Grit): boolean => median_um(a) > median_um(b)
/** The finest of some grits; null of none. */
export const finest = (grits: readonly Grit[]): Grit | null =>
  grits.reduce<Grit | null>((best, g) => (best && !isCoarser(best, g) ? best : g), null)

/** The grit of the other scale with the nearest median size. */
export function nearestOn(scale: GritScale, grit: Grit): Grit {
  const size = median_um(grit)
  const off = (grade: string) => Math.abs(Math.log(MEDIAN_UM[scale][grade]! / size))
  return { scale, grade: gradesOf(scale).reduce((best, grade) => (off(grade) < off(best) ? grade : best)) }
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
 * The shortest ladder of shelf grits from `first` to `stop` that never skips (ratio ≤ 1.9).
 * When `first` is as fine as `stop` or finer, the ladder is the stop grit alone.
 */
export function ladderBetween(first: Grit, stop: Grit, shelf: readonly number[] = SHELF_P): Grit[] {
  const between = shelf.map(P).filter(g => isCoarser(first, g) && isCoarser(g, stop))
  const rungs = [...between.sort((a, b) => median_um(b) - median_um(a)), stop]
  const ladder: Grit[] = []
  let at = isCoarser(first, stop) ? first : stop
  while (at !== stop) {
    ladder.push(at)
    const size = median_um(at)
    const finer = rungs.filter(g => median_um(g) < size)
    at = finer.findLast(g => size / median_um(g) <= MAX_STEP_RATIO) ?? finer[0] ?? stop
  }
  return [...ladder, stop]
}
export const ladder_P = (first: number, stop: number): Grit[] => ladderBetween(P(first), P(stop))
