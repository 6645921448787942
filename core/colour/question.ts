/** What a recipe must answer, built from readings: the page that searches and the server that keeps it ask alike. */
import { BLEACH_LEAVES, type ClearCoat, clearCoat } from './coats'
import type { Gloss } from './kubelka'
import type { Light, Observer } from './lights'
import { aimOf, type Colourant, innerOf, type Surface, type Wipe, withAbsorption } from './predict'
import type { SearchQuestion } from './search'
import type { Spectrum } from './spectrum'

/** A reading with what lies over what was read. */
export interface Read {
  role: string
  spectrum: Spectrum
  clear_coat: ClearCoat | null
  gloss: Gloss
}
/** What lay over what was read. */
export const surfaceOf = ({ clear_coat, gloss }: Pick<Read, 'clear_coat' | 'gloss'>): Surface => ({
  clear: clear_coat ? clearCoat(clear_coat) : null,
  gloss,
})

/**
 * The question: woods (heartwood, or heartwood and sapwood) brought to a target, under one finish and several lights.
 * @throws RangeError for a clear coat that is not known.
 */
export function searchQuestion(q: {
  woods: readonly Read[]
  target: Read
  colourants: readonly Colourant[]
  clearCoat: ClearCoat | null
  bleached: boolean
  lights: readonly Light[]
  coats: number
  wipe: Wipe
  atMost?: SearchQuestion['atMost']
  observer?: Observer
}): SearchQuestion {
  const inners = q.woods.map(wood => innerOf(wood.spectrum, surfaceOf(wood)))
  const surface = surfaceOf({ clear_coat: q.clearCoat, gloss: q.target.gloss })
  return {
    substrates: q.bleached ? inners.map(s => withAbsorption(s, BLEACH_LEAVES)) : inners,
    target: aimOf(q.target, surfaceOf(q.target), surface),
    colourants: q.colourants,
    atMost: q.atMost ?? 4,
    lights: q.lights.length ? q.lights : ['d65'],
    observer: q.observer ?? '10',
    coats: q.coats,
    wipe: q.wipe,
    surface,
  }
}
