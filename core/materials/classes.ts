/**
 * Materials by class, with usual figures at 21 °C and 50 % RH (common practice; the product's label outranks all of
 * them) and the shop defaults for wet film, density and price (unsourced). Minutes, µm, g/m², g/ml, fractions.
 */
import type { Material } from './material'
import { COLOURS as COLOURING } from './tables/colours'
import { FILMS } from './tables/films'
import { OILS } from './tables/oils'
import { PREPARING } from './tables/preparing'

export const MATERIALS: readonly Material[] = [...FILMS, ...OILS, ...COLOURING, ...PREPARING]

const bySlug = new Map(MATERIALS.map(m => [m.slug, m]))

/** @throws RangeError when there is no such class of material. */
export function materialOf(slug: string): Material {
  const material = bySlug.get(slug)
  if (!material) throw new RangeError(`There is no product class "${slug}". Choose one from the store.`)
  return material
}

/** What the last layer may be. */
export const FINISHES = [
  'dewaxed-shellac',
  'shellac-brushed',
  'nitrocellulose-lacquer',
  'waterborne-polyurethane',
  'oil-polyurethane',
  'wiping-varnish',
  'resin-oil-varnish',
  'urethane-2c',
  'varnish-oil',
  'hardwax-oil-2c',
  'raw-linseed',
  'paste-wax',
] as const
export type Finish = (typeof FINISHES)[number]
export const COLOURS = [
  'none',
  'gel-stain',
  'pigment-stain',
  'water-dye',
  'alcohol-dye',
  'lacquer-toner',
  'glaze',
  'paint-wash',
  'ammonia',
] as const
export type Colour = (typeof COLOURS)[number]
export const FILLS = ['none', 'paste-filler', 'waterborne-filler'] as const
export type Fill = (typeof FILLS)[number]
export const BLEACHES = ['none', 'two-part-bleach', 'oxalic-acid'] as const
export type Bleach = (typeof BLEACHES)[number]

/** Volume solids to count with: the middle of the range. */
export const solidsOf = (m: Material): number => (m.solids[0] + m.solids[1]) / 2
/** Dry film of one coat, µm: wet film × volume solids. */
export const dryFilm_um = (m: Material): number => (m.wet_um === null ? 0 : m.wet_um * solidsOf(m))
