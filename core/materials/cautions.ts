/** Cautions that go with product classes. */
import type { Caution } from '../safety'
import { materialOf, MATERIALS } from './classes'
import type { Material } from './material'

/** Cautions that go with handling a product class, whatever is done with it. */
export function cautionsOf(slug: string): Caution[] {
  const { role, base, traits } = materialOf(slug)
  return [
    ...(role === 'bleach' ? ['bleach' as const] : []),
    ...(slug === 'ammonia' ? ['ammonia' as const] : []),
    ...(traits.includes('catalysed') ? ['isocyanate' as const] : []),
    ...(traits.includes('hardener') ? ['hardener' as const] : []),
    ...(traits.includes('methylene-chloride') ? ['methylene-chloride' as const] : []),
    ...(base !== 'water' ? ['solvent' as const] : []),
    ...(base === 'oil' ? ['oily-rags' as const] : []),
  ]
}

/** The same of a slug as it is stored; none of a class that is not known here. */
export const cautionsIn = (slug: string): Caution[] => (MATERIALS.some(m => m.slug === slug) ? cautionsOf(slug) : [])
/** Do rags with it heat up until they burn? What dries does; what only thins or cleans goes off them. */
export const heatsRags = (slug: string): boolean =>
  MATERIALS.some(m => m.slug === slug && m.base === 'oil' && m.role !== 'cleaner' && m.role !== 'stripper')
/** Does its vapour pass cartridges for organic vapour? Isocyanates do unfelt, methylene chloride soon. */
export const passesCartridges = ({ traits }: Pick<Material, 'traits'>): boolean =>
  traits.includes('methylene-chloride') || traits.includes('catalysed')
/** The cautions of several classes together, each once. */
export const cautionsOfAll = (slugs: readonly string[]): Caution[] => [...new Set(slugs.flatMap(cautionsOf))]
