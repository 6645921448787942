/** Grits as they are typed, and a ladder explained rung by rung. */
import { gritName, type Grit, isCoarser, isGrit, ladderGaps, MAX_STEP_RATIO, median_um, P, P_GRITS } from './scales'
import { P_MEDIAN_UM } from './tables'

/** Up to here P and CAMI mean about the same paper. */
const SCALES_AGREE_TO = 220
/** A size in µm is taken for the P grit nearest to it, within this factor. */
const NEAR = 1.15

const PAPER = /^(p|cami)?\s*(\d+(?:[.,]\d+)?)\s*(µm|um|micron)?$/i
/** A grit by its word: "foam 3000", "wool 0000" or "0000", "grey pad", "pumice". */
function byWord(typed: string): Grit | null {
  if (/^0+$/.test(typed)) return { scale: 'wool', grade: typed }
  const words = typed.toLowerCase().split(/\s+/)
  const scale = (['foam', 'wool', 'pad'] as const).find(s => words.includes(s))
  return { scale: scale ?? 'powder', grade: words.filter(word => word !== scale).join(' ') }
}
/**
 * A grit as typed: "P180", "CAMI 600", "35 µm" (the nearest P grit), "wool 0000", "grey pad", "foam 3000", "pumice", or
 * a bare number where both scales of paper agree.
 * @throws RangeError for a bare number above 220, and for what no scale has.
 */
export function parseGrit(given: string): Grit {
  const typed = given.trim()
  const [, scale = '', digits = '', micron] = PAPER.exec(typed) ?? []
  if (!digits || /^0+$/.test(typed)) {
    const grit = byWord(typed)
    if (grit && isGrit(grit)) return grit
    throw new RangeError('Type a grit with its scale: P180, CAMI 400, 35 µm, wool 0000, grey pad, foam 3000 or pumice.')
  }
  const number = Number(digits.replace(',', '.'))
  if (micron) {
    const off = (n: number) => Math.abs(Math.log(P_MEDIAN_UM[n]! / number))
    const nearest = P_GRITS.reduce((best, n) => (off(n) < off(best) ? n : best))
    if (off(nearest) > Math.log(NEAR)) throw new RangeError(`No grit of the P scale is near ${number} µm.`)
    return P(nearest)
  }
  if (!scale && number > SCALES_AGREE_TO)
    throw new RangeError(`${number} on which scale? P${number} or CAMI ${number} are not the same paper.`)
  const grit: Grit = { scale: /cami/i.test(scale) ? 'CAMI' : 'P', grade: String(number) }
  if (!isGrit(grit)) throw new RangeError(`No grit ${gritName(grit)} is made. Use one of that scale's numbers.`)
  return grit
}
/** Grits as they are stored and shown, "P120, P180": each by its name. A bare number is one of the P scale. */
export const gritsWritten = (grits: readonly Grit[]): string => grits.map(gritName).join(', ')
/** @throws RangeError for a grit that no scale has. */
export const gritsRead = (text: string): Grit[] =>
  text
    .split(',')
    .map(name => name.trim())
    .filter(Boolean)
    .map(name => (/^\d+$/.test(name) && !name.startsWith('0') ? P(name) : parseGrit(name)))

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
export const gritsFrom = (ladder: readonly Grit[], first: Grit): Grit[] => ladder.filter(g => !isCoarser(g, first))
