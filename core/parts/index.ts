/** What comes off a piece: marks, places, counting out and in, holes of hardware. Lengths in mm. */

export const ITEM_STATES = ['present', 'missing', 'mismatched', 'replace'] as const
export type ItemState = (typeof ITEM_STATES)[number]
export const PLACE_KINDS = ['bay', 'rack', 'box', 'bag', 'shelf'] as const
export type PlaceKind = (typeof PLACE_KINDS)[number]

/**
 * A mark that nobody in the piece has yet: the name's first letter and the lowest free number; a mark is written where
 * sanding will not take it.
 */
export function proposeMark(name: string, taken: readonly string[]): string {
  const letter = /[a-z]/i.exec(name.normalize('NFD'))?.[0]?.toUpperCase() ?? 'X'
  const used = new Set(taken.map(m => m.toUpperCase()))
  let n = 1
  while (used.has(`${letter}${n}`)) n++
  return `${letter}${n}`
}

/** Holes of a fitting: centres along a line from the first hole, their diameters, and the backplate's footprint. */
export interface Holes {
  centres_mm: readonly number[]
  diameter_mm: number
  plate_w_mm: number | null
  plate_h_mm: number | null
}

export interface HoleFit {
  fits: boolean
  says: string[]
}
/** Centres may differ by this much and still be drilled alike (common practice). */
export const CENTRES_WITHIN_MM = 0.5

/** Whether a new fitting goes into the old holes, and whether its plate hides them. */
export function holeFit(old: Holes, fresh: Holes): HoleFit {
  const says: string[] = []
  const sameCount = old.centres_mm.length === fresh.centres_mm.length
  const centres = sameCount && old.centres_mm.every((c, i) => Math.abs(c - fresh.centres_mm[i]!) <= CENTRES_WITHIN_MM)
  if (!sameCount) says.push(`${old.centres_mm.length} holes here, ${fresh.centres_mm.length} on the new fitting.`)
  else if (!centres)
    says.push(
      `The holes stand ${old.centres_mm.at(-1)} mm apart here, ${fresh.centres_mm.at(-1)} mm on the new fitting.`,
    )
  if (fresh.diameter_mm < old.diameter_mm) says.push('The old holes are wider: plug them first.')
  const covers = (a: number | null, b: number | null) => a === null || (b !== null && b >= a)
  const hidden = covers(old.plate_w_mm, fresh.plate_w_mm) && covers(old.plate_h_mm, fresh.plate_h_mm)
  if (!hidden) says.push('The new plate is smaller: the shadow of the old one stays in sight.')
  if (!centres) says.push('Plug the old holes before surface repair and colour.')
  return { fits: centres && hidden, says: says.length ? says : ['It goes into the old holes.'] }
}

export interface ItemCount {
  count: number
  out: number | null
  back: number | null
  state: ItemState
}
/** Counting: null while nothing is off; else how many are still away, and whether the numbers agree. */
export function countOf(item: ItemCount): { away: number; short: number } {
  const out = item.out ?? 0
  return { away: out - (item.back ?? 0), short: item.out === null ? 0 : Math.max(0, item.count - out) }
}

/** A question for the client about one item, in words. */
export function itemQuestion(item: string, state: ItemState, holes: Holes | null): string {
  const name = item.slice(0, 1).toUpperCase() + item.slice(1)
  const what = {
    present: `${name}: leave as it is?`,
    missing: `${name} is missing. Shall we replace it, look for a match, or leave it?`,
    mismatched: `${name} does not match the others. Replace, match, or leave?`,
    replace: `${name} is worn out. Replace, match, or leave?`,
  }[state]
  if (!holes) return what
  const count = holes.centres_mm.length
  const plate = holes.plate_w_mm && holes.plate_h_mm ? `, plate ${holes.plate_w_mm} × ${holes.plate_h_mm} mm` : ''
  return (
    `${what} Holes: ${count === 1 ? 'one' : `${count}, centres at ${holes.centres_mm.join(', ')} mm`}, ` +
    `diameter ${holes.diameter_mm} mm${plate}.`
  )
}
export const ITEM_ANSWERS = ['replace', 'match', 'leave'] as const
export type ItemAnswer = (typeof ITEM_ANSWERS)[number]
