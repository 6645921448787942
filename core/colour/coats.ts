/**
 * The clear coat's own colour and what light does to it and to the wood. All figures: shop default, unsourced, until a
 * band is read.
 */
import { type Spectrum, WAVELENGTHS_nm } from './spectrum'

interface ClearCoatRow {
  slug: string
  /** absorbance (natural) of the whole film, one crossing, at 400 nm */
  at400: number
  /** nm in which it falls to 1/e */
  falls_nm: number
  /** what ten years of light in a room add to `at400` */
  tenYears: number
}
const row = <S extends string>(slug: S, at400: number, falls_nm: number, tenYears: number) => ({
  slug,
  at400,
  falls_nm,
  tenYears,
})

export const CLEAR_COATS = [
  row('waterborne-polyurethane', 0, 50, 0.02),
  row('urethane-2c', 0.01, 50, 0.03),
  row('paste-wax', 0.02, 60, 0.02),
  row('hardwax-oil-2c', 0.08, 55, 0.06),
  row('nitrocellulose-lacquer', 0.04, 50, 0.25),
  row('wiping-varnish', 0.1, 55, 0.2),
  row('resin-oil-varnish', 0.12, 55, 0.22),
  row('varnish-oil', 0.12, 55, 0.2),
  row('oil-polyurethane', 0.14, 55, 0.3),
  row('raw-linseed', 0.16, 55, 0.35),
  row('dewaxed-shellac', 0.14, 60, 0.03),
  row('shellac-brushed', 0.2, 65, 0.04),
  row('vinyl-sealer', 0.01, 50, 0.05),
  row('lacquer-sanding-sealer', 0.03, 50, 0.2),
  row('shellac-bleached', 0.04, 55, 0.03),
  row('shellac-blond', 0.14, 60, 0.03),
  row('shellac-orange', 0.4, 75, 0.04),
  row('shellac-garnet', 0.75, 95, 0.04),
  row('shellac-seed', 0.6, 85, 0.04),
] as const satisfies readonly ClearCoatRow[]
export type ClearCoat = (typeof CLEAR_COATS)[number]['slug']
/** Is this product class a clear coat whose colour is known? */
export const isClearCoat = (slug: string): slug is ClearCoat => CLEAR_COATS.some(c => c.slug === slug)
export const CLEAR_COAT_SLUGS: readonly ClearCoat[] = CLEAR_COATS.map(c => c.slug)
const bySlug = new Map<string, ClearCoatRow>(CLEAR_COATS.map(c => [c.slug, c]))

/**
 * What the film lets through in one crossing, new or after `years` of room light.
 * @throws RangeError for a coat that is not in the table.
 */
export function clearCoat(slug: string, years = 0): Spectrum {
  const coat = bySlug.get(slug)
  if (!coat) throw new RangeError(`There is no clear coat "${slug}".`)
  const at400 = coat.at400 + (coat.tenYears * years) / 10
  return WAVELENGTHS_nm.map(nm => Math.exp(-at400 * Math.exp(-(nm - 400) / coat.falls_nm)))
}

/** Where a face stood: freshly cut or sanded, years in light, or shaded (inside, underside, below a leaf). */
export const LIGHT_HISTORIES = ['fresh', 'in-light', 'shaded'] as const
export type LightHistory = (typeof LIGHT_HISTORIES)[number]

/**
 * Factor on a wood's K/S after years in light, from fresh. That cherry and mahogany darken and walnut pales is common
 * practice; the factors are shop defaults, unsourced.
 */
const IN_LIGHT: Record<string, number> = {
  cherry: 1.5,
  mahogany: 1.35,
  pine: 1.35,
  walnut: 0.78,
  rosewood: 0.85,
  maple: 1.2,
  birch: 1.15,
  poplar: 1.15,
}
const USUAL_IN_LIGHT = 1.1
export const shiftInLight = (species: string): number => IN_LIGHT[species] ?? USUAL_IN_LIGHT

/** What one round of two-part bleach leaves of a wood's K/S. Shop default, unsourced: a band tells. */
export const BLEACH_LEAVES = 0.35
