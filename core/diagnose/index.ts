/** What went wrong: signs, their likely causes, what mends them, and what to do another time. */
import type { Sign } from './sign'
import { COLOUR_SIGNS } from './signs/colour'
import { FILM_SIGNS } from './signs/film'
import { WOOD_SIGNS } from './signs/wood'

export const SIGNS: readonly Sign[] = [...FILM_SIGNS, ...COLOUR_SIGNS, ...WOOD_SIGNS]
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
