/** Grits as they are typed, and a ladder explained rung by rung. */
import { gritName, type Grit, ladderGaps, MAX_STEP_RATIO, median_um, P } from './scales'
import { CAMI_MEDIAN_UM, P_MEDIAN_UM } from './tables'

/** Up to here P and CAMI mean about the same paper. */
const SCALES_AGREE_TO = 220
/** A size in µm is taken for the P grit nearest to it, within this factor. */
const NEAR = 1.15

/**
 * A grit as typed: "P180", "CAMI 600", "35 µm" (the nearest P grit), or a bare number where both scales agree.
 * @throws RangeError for a bare number above 220, and for what no scale has.
 */
export function parseGrit(typed: string): Grit {
  const [, scale = '', digits = '', micron] =
    /^\s*(p|cami)?\s*(\d+(?:[.,]\d+)?)\s*(µm|um|micron)?\s*$/i.exec(typed) ?? []
  const number = Number(digits.replace(',', '.'))
  if (!number) throw new RangeError('Type a grit with its scale: P180, CAMI 400 or 35 µm.')
  if (micron) {
    const off = (n: number) => Math.abs(Math.log(P_MEDIAN_UM[n]! / number))
    const nearest = Object.keys(P_MEDIAN_UM)
      .map(Number)
      .reduce((best, n) => (off(n) < off(best) ? n : best))
    if (off(nearest) > Math.log(NEAR)) throw new RangeError(`No grit of the P scale is near ${number} µm.`)
    return P(nearest)
  }
  if (!scale && number > SCALES_AGREE_TO)
    throw new RangeError(`${number} on which scale? P${number} or CAMI ${number} are not the same paper.`)
  const grit: Grit = { scale: /cami/i.test(scale) ? 'CAMI' : 'P', number }
  if (!(grit.scale === 'P' ? P_MEDIAN_UM : CAMI_MEDIAN_UM)[number])
    throw new RangeError(`No grit ${gritName(grit)} is made. Use one of that scale's numbers.`)
  return grit
}

/** What may excuse a step that is too wide. */
export interface LadderUse {
  opaque?: boolean
  rustic?: boolean
  oilOnOpenPores?: boolean
  lastByHand?: boolean
}
const EXCUSES: Readonly<Record<keyof LadderUse, string>> = {
  opaque: 'opaque colour hides what is left',
  rustic: 'rustic work may show it',
  oilOnOpenPores: 'oil on coarse pores hides it',
  lastByHand: 'the last pass is by hand, looked at in raking light',
}

export interface Rung {
  grit: Grit
  /** median of the grit before it ÷ its own; null on the first */
  ratio: number | null
  /** too wide a step, with the shelf grit that fills it and what excuses it */
  gap: boolean
  fill: Grit | null
  excuse: string | null
  /** could be left out: its neighbours lie within one step */
  spare: boolean
}

/** A ladder rung by rung: even, too wide (1.9, common practice), or more than is needed. */
export function explainLadder(ladder: readonly Grit[], use: LadderUse): Rung[] {
  const gaps = ladderGaps(ladder)
  const excuse = (Object.keys(EXCUSES) as (keyof LadderUse)[]).find(k => use[k])
  return ladder.map((grit, i) => {
    const before = ladder[i - 1]
    const after = ladder[i + 1]
    const gap = before ? gaps.find(g => g.from === before && g.to === grit) : undefined
    return {
      grit,
      ratio: before ? median_um(before) / median_um(grit) : null,
      gap: Boolean(gap),
      fill: gap?.fill ?? null,
      excuse: gap && excuse ? EXCUSES[excuse] : null,
      spare: Boolean(before && after && median_um(before) / median_um(after) <= MAX_STEP_RATIO),
    }
  })
}

/**
 * Grits to try on a hand's breadth, the finest that might work first: those at least as coarse as what must come off,
 * µm. Where none is, the coarsest alone (common practice).
 */
export function finestToTry(ladder: readonly Grit[], left_um: number): Grit[] {
  const able = ladder.filter(g => median_um(g) >= left_um).reverse()
  return able.length ? able : ladder.slice(0, 1)
}

/** What is left of a ladder when a finer first grit was found to work. P scale. */
export const gritsFrom = (ladder: readonly number[], first: number): number[] =>
  ladder.filter(g => median_um(P(g)) <= median_um(P(first)))
