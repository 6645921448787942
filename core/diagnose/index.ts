/** What went wrong: signs, their likely causes, what mends them, and what to do another time. */
import type { FindingKind } from '../piece'
import type { Sign } from './sign'
import { COLOUR_SIGNS } from './signs/colour'
import { FILM_SIGNS } from './signs/film'
import { WOOD_SIGNS } from './signs/wood'

export const SIGNS: readonly Sign[] = [...FILM_SIGNS, ...COLOUR_SIGNS, ...WOOD_SIGNS]
/** What was found at the examination, as a sign of something that went wrong. */
export const SIGN_OF_FINDING: Readonly<Partial<Record<FindingKind, string>>> = {
  ...{ 'white-ring': 'white-ring', 'black-ring': 'black-spots', 'heat-mark': 'white-ring', 'mould': 'black-spots' },
  ...{ 'runs': 'runs', 'brush-marks': 'brush-marks', 'swirl-marks': 'swirls', 'orange-peel': 'orange-peel' },
  ...{ 'nibs': 'nibs', 'fish-eyes': 'fish-eyes', 'water-beads': 'fish-eyes', 'peeling': 'peeling' },
  ...{ 'soft-film': 'sticky', 'sanded-through': 'cut-through', 'tape-residue': 'tape' },
}
export const SIGN_SLUGS = SIGNS.map(s => s.slug)
/** @throws RangeError for a sign that is not listed. */
export function signOf(slug: string): Sign {
  const sign = SIGNS.find(s => s.slug === slug)
  if (!sign) throw new RangeError(`There is no sign "${slug}".`)
  return sign
}
export * from './facts'
export * from './infer'
export * from './mends'
export * from './sign'
export * from './simulate'
export * from './steps'
