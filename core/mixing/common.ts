/**
 * Mixtures that every shop makes (common practice); densities, solids and pot lives are shop defaults, unsourced: the
 * product's label outranks them.
 */
import type { CountedBy, Ingredient } from './amounts'

/** An ingredient of a product class; `class` null where the trade has none for it. */
export interface CommonIngredient extends Ingredient {
  class: string | null
}
export interface CommonMixture {
  slug: 'urethane' | 'sealer' | 'flatting' | 'hardwax' | 'bleach'
  by: CountedBy
  pot_min: number | null
  ingredients: readonly CommonIngredient[]
}

const part = (
  name: string,
  material: string | null,
  share: number,
  of: Ingredient['of'],
  density_g_ml: number,
  solids: number | null,
): CommonIngredient => ({ name, class: material, share, of, density_g_ml, solids })

export const COMMON_MIXTURES: readonly CommonMixture[] = [
  {
    slug: 'urethane',
    by: 'volume',
    pot_min: 120,
    ingredients: [
      part('Two-part urethane', 'urethane-2c', 4, 'parts', 1, 0.42),
      part('Reducer', 'lacquer-thinner', 2, 'parts', 0.83, 0),
      part('Hardener', 'urethane-2c', 1, 'parts', 1.05, 0.5),
    ],
  },
  {
    slug: 'sealer',
    by: 'volume',
    pot_min: 480,
    ingredients: [
      part('Catalysed sealer', 'vinyl-sealer', 100, 'parts', 0.95, 0.3),
      part('Catalyst', null, 10, 'base', 1.02, 0),
      part('Reducer', 'lacquer-thinner', 25, 'sum', 0.83, 0),
    ],
  },
  {
    slug: 'flatting',
    by: 'volume',
    pot_min: 120,
    ingredients: [
      part('Colour', 'urethane-2c', 2, 'parts', 1.1, 0.4),
      part('Flatting base', null, 1, 'parts', 1, 0.25),
      part('Hardener', 'urethane-2c', 0.5, 'parts', 1.05, 0.5),
    ],
  },
  {
    slug: 'hardwax',
    by: 'volume',
    pot_min: 240,
    ingredients: [
      part('Hardwax oil, A', 'hardwax-oil-2c', 3, 'parts', 0.92, 1),
      part('Hardener, B', null, 1, 'parts', 1.1, 1),
    ],
  },
  {
    slug: 'bleach',
    by: 'volume',
    pot_min: 30,
    ingredients: [
      part('Bleach, A', 'two-part-bleach', 1, 'parts', 1.2, 0),
      part('Bleach, B', 'two-part-bleach', 1, 'parts', 1.1, 0),
    ],
  },
]
