/** What lies on a face, from the wood upward: as it was found, and as it will be when these steps are done. */
import { foundSurface, isBare, type Step, type Surface, walk } from '../acts'
import type { Context } from '../context'
import { materialOf, taken } from '../materials'
import { type Facts, groupsOf, type Group } from '../piece'
import { layerOfStep } from '../plan'
import { speciesOf } from '../wood'

/** How far a layer is; failing: a rule speaks against it. */
export type LayerState = 'found' | 'done' | 'running' | 'planned' | 'failing'
export interface FilmDrawn {
  /** the layer that it belongs to; null: found, or put in by the plan */
  layer: number | null
  /** the step that lays it; null: found */
  step: string | null
  slug: string
  name: string
  um: number
  coloured: boolean
  state: LayerState
}
export type ColourDrawn = Pick<FilmDrawn, 'layer' | 'step' | 'slug' | 'name' | 'state'>
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
  /** what was found is gone already */
  foundGone: boolean
  raised: boolean
  waxed: boolean
  sheen: Facts['sheen']
}

const IN_FILM = ['toner', 'glaze', 'gel']
const NO_COLOUR = ['conditioner', 'bleach', 'filler']

/** The face that is drawn, with its group: the one asked for, else a show face of the group that has most of them. */
function leadOf(facts: Facts, face: number | null): Group | null {
  const shows = (g: Group) => g.faces.filter(f => f.rank === 'show').length
  const groups = groupsOf(facts).sort((a, b) => shows(b) - shows(a))
  const lead = groups.find(g => g.faces.some(f => f.id === face)) ?? groups[0]
  const shown = lead?.faces.find(f => f.id === face) ?? lead?.faces.find(f => f.rank === 'show') ?? lead?.faces[0]
  return lead && shown ? { ...lead, faces: [shown] } : null
}
function nameOf(slug: string): string {
  try {
    return materialOf(slug).name
  } catch {
    return slug.replaceAll('-', ' ')
  }
}
function isInFilm({ shelf }: Pick<Context, 'shelf'>, slug: string): boolean {
  try {
    return IN_FILM.includes(taken(shelf, { product: slug, label: null })?.role ?? '')
  } catch {
    return false
  }
}

export interface Shown {
  /** null: the one that shows most */
  face?: number | null
  /** how far each step is */
  stateOf?: (step: string) => LayerState
  /** steps that a rule speaks against */
  failing?: ReadonlySet<string>
}
/** What lies on the face at last; null where nothing is in scope. */
export function surfaceOf(
  context: Context,
  steps: readonly Step[],
  { face = null, stateOf = () => 'planned', failing = new Set() }: Shown = {},
): SurfaceDrawn | null {
  const group = leadOf(context.facts, face)
  if (!group) return null
  const start = foundSurface(context.facts, group)
  const visits = walk(steps, [group], context)
  const end: Surface = visits.at(-1)?.after ?? start
  const species = speciesOf(group.species)
  const of = (step: string | null, slug: string): ColourDrawn => {
    const layer = step === null ? null : layerOfStep(step)
    const here = step !== null && failing.has(step) ? 'failing' : stateOf(step ?? '')
    return {
      layer: layer && !layer.before ? layer.layer : null,
      step,
      slug,
      name: nameOf(slug),
      state: step === null ? 'found' : here,
    }
  }
  const drawn = (films: Surface['films']): FilmDrawn[] =>
    films.map(f => ({
      ...of(f.found ? null : f.step, f.slug),
      um: f.dry_um,
      coloured: !f.found && isInFilm(context, f.slug),
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
      .filter(w => !NO_COLOUR.includes(w.role) && !end.films.some(f => f.step === w.step))
      .map(w => of(w.step, w.slug)),
    filler: last ? of(last.step.key, '').layer : null,
    filled: fillers.length > 0,
    foundGone: visits.some(v => !isBare(v.before) && isBare(v.after) && stateOf(v.step.key) === 'done'),
    raised: end.grain === 'raised' && isBare(end),
    waxed: end.waxed,
    sheen: context.facts.sheen,
  }
}
