/**
 * From readings to what lies below them, and from a recipe to what will be seen. Colourants in the wood add to its
 * K/S; colourants in the film are a filter crossed twice; the clear coat is such a filter too, and the finish's
 * surface lies over all.
 */
import { absorption, belowSurface, type Gloss, reflectanceOf, throughSurface } from './kubelka'
import { clampFactor, type Spectrum } from './spectrum'

/**
 * The surface a reading was taken from, or is wanted for. `clear`: what the whole clear film lets through in one
 * crossing; null: bare.
 */
export interface Surface {
  clear: Spectrum | null
  gloss: Gloss
}
export const BARE: Surface = { clear: null, gloss: 'excluded' }

/** The wood's inner reflectance from a reading of it, bare or under a finish. */
export const innerOf = (read: Spectrum, { clear, gloss }: Surface): Spectrum =>
  clear ? read.map((r, i) => clampFactor(belowSurface(r, gloss) / (clear[i]! * clear[i]!))) : read.map(clampFactor)

/** What a meter reads of a wood with this inner reflectance, bare or under a finish; the inverse of `innerOf`. */
export const readOf = (inner: Spectrum, { clear, gloss }: Surface): Spectrum =>
  clear ? inner.map((r, i) => throughSurface(r * clear[i]! * clear[i]!, gloss)) : inner

/** A reading taken through one surface as it would be through another: a bare trial as under the finish, say. */
export const readUnder = (read: Spectrum, own: Surface, planned: Surface): Spectrum =>
  readOf(innerOf(read, own), planned)

/**
 * What to aim at: a target as it was read, or another wood (sapwood is brought to heartwood, say) as it would be read
 * under the same finish.
 */
export const aimOf = (reading: { role: string; spectrum: Spectrum }, own: Surface, planned: Surface): Spectrum =>
  reading.role === 'wood' ? readUnder(reading.spectrum, own, planned) : reading.spectrum

/** Where a colourant lies, which decides how it acts. */
export type Lies = 'wood' | 'film'

/**
 * What a colourant does, per 1 % by weight of the mix and per standard coat: K/S added in the wood, or absorbance
 * (natural, one crossing) in the film.
 */
export interface Colourant {
  id: number
  name: string
  /** colourants of one group mix with one another and share a carrier: a product class */
  group: string
  lies: Lies
  k: Spectrum
  /** the strongest that is of use, % of the mix */
  most_pct: number
}
export interface Share {
  id: number
  pct: number
}

/**
 * How much of a standard coat stays on the wood by wiping. Shop default, unsourced; gel stain left on heavily is
 * another colour.
 */
export const LEFT_ON = { none: 1, light: 1.5, normal: 1, hard: 0.6 } as const
export type Wipe = keyof typeof LEFT_ON
export const WIPES = Object.keys(LEFT_ON) as Wipe[]
/** Strength that a film or wood sees: percent × coats × what wiping leaves on. */
export const strengthOf = (pct: number, coats: number, wipe: Wipe): number => pct * coats * LEFT_ON[wipe]

/** Strengths of `set` in a mix of these shares, in the order of `set`; wiping counts for what lies in the wood only. */
export const strengthsOf = (set: readonly Colourant[], shares: readonly Share[], coats: number, wipe: Wipe): number[] =>
  set.map(c => strengthOf(shares.find(s => s.id === c.id)?.pct ?? 0, coats, c.lies === 'wood' ? wipe : 'none'))

/**
 * Inner reflectance of a wood after colour: `strengths` are percent × coats × left on, in the order of `colourants`,
 * all in wood or all in film.
 */
export function colouredInner(
  inner: Spectrum,
  colourants: readonly Colourant[],
  strengths: readonly number[],
): Spectrum {
  const ks = absorption(inner)
  return inner.map((r, i) => {
    let inWood = ks[i]!
    let inFilm = 0
    for (const [j, c] of colourants.entries()) {
      if (c.lies === 'wood') inWood += strengths[j]! * c.k[i]!
      else inFilm += strengths[j]! * c.k[i]!
    }
    return (inWood === ks[i]! ? r : reflectanceOf(inWood)) * Math.exp(-2 * inFilm)
  })
}

/** The wood after bleach or light: its K/S times `factor`. */
export const withAbsorption = (inner: Spectrum, factor: number): Spectrum =>
  absorption(inner).map(ks => reflectanceOf(ks * factor))
