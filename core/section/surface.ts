/**
 * The surface composed, as a cut through the wood: pores open or filled, colour as depth in the wood, films to one
 * stated scale, the line of the surface from matt to gloss. Geometry in µm and px; who draws it adds the look.
 */
import { foundSurface, isBare, type Step, type Surface, walk } from '../acts'
import type { Context } from '../context'
import { taken } from '../materials'
import { type Facts, groupsOf, type Group } from '../piece'
import { layerOfStep } from '../plan'
import { speciesOf } from '../wood'

export interface FilmDrawn {
  /** the layer that it belongs to; null: found, or put in by the plan */
  layer: number | null
  slug: string
  um: number
  found: boolean
  coloured: boolean
}
export interface ColourDrawn {
  layer: number | null
  slug: string
}
export interface SurfaceDrawn {
  species: string
  tone: string
  pores: 'open' | 'closed'
  found: FilmDrawn[]
  films: FilmDrawn[]
  colours: ColourDrawn[]
  /** the layer whose filler lies in the pores; null: they are open */
  filler: number | null
  filled: boolean
  raised: boolean
  waxed: boolean
  sheen: Facts['sheen']
}

const IN_FILM = ['toner', 'glaze', 'gel']

/** What lies on the face at last. `face`: null for the one that shows most. */
export function surfaceOf(context: Context, steps: readonly Step[], face: number | null = null): SurfaceDrawn | null {
  const groups = groupsOf(context.facts)
  const all = groups.flatMap(g => g.faces)
  const shown = all.find(f => f.id === face) ?? all.find(f => f.rank === 'show') ?? all[0]
  const lead = groups.find(g => g.faces.some(f => f.id === shown?.id))
  if (!lead || !shown) return null
  const group: Group = { ...lead, faces: [shown] }
  const start = foundSurface(context.facts, group)
  const visits = walk(steps, [group], context)
  const end: Surface = visits.at(-1)?.after ?? start
  const species = speciesOf(group.species)
  const layerAt = (step: string | null) => {
    const of = step === null ? null : layerOfStep(step)
    return of && !of.before ? of.layer : null
  }
  const drawn = (films: Surface['films']): FilmDrawn[] =>
    films.map(f => ({
      layer: layerAt(f.step),
      slug: f.slug,
      um: f.dry_um,
      found: f.found,
      coloured: f.found ? false : IN_FILM.includes(roleOf(context, f.slug)),
    }))
  const fillers = visits.filter(v => v.product?.role === 'filler' && v.step.kind === 'fill')
  const last = fillers.at(-1)
  return {
    species: species.name,
    tone: species.tone,
    pores: species.pores,
    found: drawn(start.films),
    films: drawn(end.films),
    colours: end.inWood
      .filter(w => !['conditioner', 'bleach', 'filler'].includes(w.role) && !end.films.some(f => f.step === w.step))
      .map(w => ({ slug: w.slug, layer: layerAt(w.step) })),
    filler: last ? layerAt(last.step.key) : null,
    filled: fillers.length > 0,
    raised: end.grain === 'raised' && isBare(end),
    waxed: end.waxed,
    sheen: context.facts.sheen,
  }
}
function roleOf({ shelf }: Pick<Context, 'shelf'>, slug: string): string {
  try {
    return taken(shelf, { product: slug, label: null })?.role ?? ''
  } catch {
    return ''
  }
}

export interface Band {
  y: number
  h: number
  film: FilmDrawn
}
export interface SurfaceGeometry {
  pxPerUm: number
  mark_um: number
  woodTop: number
  found: Band[]
  planned: Band[]
  pores: { x: number; r: number; h: number }[]
}

const MARKS_UM = [10, 20, 50, 100, 200, 500]
/** Places it in a box of `width` × `height` px; wood takes the lower part, films keep one scale among each other. */
export function drawSurface(s: SurfaceDrawn, width: number, height: number): SurfaceGeometry {
  const sum = (films: readonly FilmDrawn[]) => films.reduce((um, f) => um + f.um, 0)
  const tallest_um = Math.max(sum(s.found), sum(s.films), 30)
  const woodTop = Math.round(height * 0.58)
  const pxPerUm = (woodTop - 28) / tallest_um
  const stack = (films: readonly FilmDrawn[]): Band[] => {
    let y = woodTop
    return films.map(film => {
      const h = film.um * pxPerUm
      y -= h
      return { y, h, film }
    })
  }
  const count = s.pores === 'open' ? Math.max(3, Math.round(width / 44)) : 0
  return {
    pxPerUm,
    mark_um: MARKS_UM.find(um => um * pxPerUm > 40) ?? 500,
    woodTop,
    found: stack(s.found),
    planned: stack(s.films),
    pores: Array.from({ length: count }, (_, i) => ({
      x: (width * (i + 0.5)) / count + ((i * 7) % 9) - 4,
      r: 4 + ((i * 5) % 3),
      h: 20 + ((i * 13) % 26),
    })),
  }
}
