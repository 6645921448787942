/** The state of a surface, and what each kind of step does to it. Planner and rules read only this. */
import type { Grit } from '../abrasives'
import type { Context } from '../context'
import { type Base, dryFilm_um, type Role, taken } from '../materials'
import { type Facts, type FinishClass, finishOn, type Group, isFound, NO_FILM } from '../piece'
import { sumOf } from '../units'
import type { Step } from './step'

export interface Film {
  slug: string
  base: Base | 'unknown'
  dry_um: number
  found: boolean
  step: string | null
}
export interface InWood {
  slug: string
  base: Base
  role: Role
  /** null: it was in the wood before */
  step: string | null
}

export interface Surface {
  /** from the wood upward */
  films: Film[]
  /** colour, conditioner and oil put on so far, in order; a gel over a film stands among the films too */
  inWood: InWood[]
  wet: 'stripper' | 'oil' | 'bleach' | 'filler' | null
  /** last grit, P scale; null: unknown */
  grit: Grit | null
  scuffed: boolean
  dirty: boolean
  waxed: boolean
  contamination: 'none' | 'untreated' | 'washed' | 'barred'
  dusty: boolean
  /** grain: as it was, standing up after water, or cut back after it */
  grain: 'as-is' | 'raised' | 'cut'
  /** colour that nothing clear lies on yet: its step */
  openColour: string | null
  /** bleached or pickled */
  pale: boolean
  /** steel wool was used on what is there now */
  steelWool: boolean
  /** filler put in and not yet coated: its step */
  filler: string | null
}

export const isBare = (s: Surface): boolean => s.films.length === 0
/** Colour of somebody else's in bare wood, and nothing on it. */
export const isOthersColour = (s: Surface): boolean => isBare(s) && s.inWood.some(w => w.step === null)

/** Thickness drawn for a film that was found, µm (shop default). */
const FOUND_UM: Partial<Record<FinishClass, number>> = {
  'shellac': 40,
  'nitrocellulose-lacquer': 60,
  'oil-varnish': 80,
  'oil-polyurethane': 90,
  'waterborne': 70,
  'catalysed': 90,
  'oil-paint': 100,
  'wax': 10,
}
const UNKNOWN_UM = 60

/** Colour that somebody else put on bare wood counts as oil until it is known (handbook 18). */
const UNKNOWN_STAIN: InWood = { slug: 'unknown-stain', base: 'oil', role: 'stain', step: null }
const isStained = ({ findings }: Facts, { faces }: Pick<Group, 'faces'>): boolean =>
  findings.some(f => f.kind === 'unknown-stain' && faces.some(own => own.id === f.faceId))

/** The film of some faces by the gauge, µm: the thinnest that was read; null: none was. */
export const filmGauged_um = ({ faces }: Pick<Group, 'faces'>): number | null => {
  const read = faces.flatMap(f => f.film_um ?? [])
  return read.length > 0 ? Math.min(...read) : null
}

/** The surface as it was found, from the wood upward. Before any test the film is unknown, and counted as there. */
export function foundSurface(facts: Facts, group: Pick<Group, 'finishGroup' | 'faces'>): Surface {
  const layers = finishOn(facts, group)
  const slugs: (FinishClass | 'unknown')[] = layers.length ? layers.map(l => l.finish).reverse() : ['unknown']
  const bare = layers[0]?.finish === 'none'
  const times = layers.length < 2 && isFound(facts, 'several-layers') ? 2 : 1
  const usual = slugs
    .filter(f => f === 'unknown' || !NO_FILM.includes(f))
    .map((f): Film => ({
      slug: f,
      base: 'unknown',
      dry_um: (f === 'unknown' ? UNKNOWN_UM : (FOUND_UM[f] ?? UNKNOWN_UM)) * times,
      found: true,
      step: null,
    }))
  const all_um = filmGauged_um(group) ?? 0
  const usual_um = sumOf(usual, f => f.dry_um)
  const films = all_um > 0 ? usual.map(f => ({ ...f, dry_um: (f.dry_um * all_um) / usual_um })) : usual
  const inWood = bare && isStained(facts, group) ? [UNKNOWN_STAIN] : []
  return {
    films,
    inWood,
    wet: null,
    grit: null,
    scuffed: false,
    // freshly bare wood is dusted, not washed
    dirty: !bare || isFound(facts, 'dirt-and-wax'),
    dusty: bare,
    grain: 'as-is',
    openColour: null,
    pale: false,
    steelWool: false,
    filler: null,
    waxed: layers.some(l => l.finish === 'wax') || isFound(facts, 'dirt-and-wax'),
    contamination: isFound(facts, 'water-beads', 'fish-eyes') ? 'untreated' : 'none',
  }
}

/** What a wiped gel stain leaves on a film, µm (shop default: 15 g/m² left, about half of it solid). */
const GEL_ON_FILM_UM = 8

/** The film of this coat by the gauge, which reads all that lies there; null: it was not measured. */
const gauged_um = ({ measured }: Step, s: Surface): number | null =>
  measured?.film_um === undefined ? null : Math.max(0, measured.film_um - sumOf(s.films, f => f.dry_um))

const WETS = ['oil', 'bleach', 'filler'] as const
const COLOURING: readonly Role[] = ['stain', 'gel', 'dye', 'toner', 'glaze', 'paint-wash']
/** Grain after water. */
export const raise = (s: Surface): Surface['grain'] => (s.grain === 'cut' ? 'cut' : 'raised')

/** What a product leaves where it is laid; a step that has none yet leaves all as it was. */
export const lay = (step: Step, s: Surface, { shelf }: Pick<Context, 'shelf'>): Surface => {
  const m = taken(shelf, step)
  if (!m) return s
  const entry: InWood = { slug: m.slug, base: m.base, role: m.role, step: step.key }
  const stillOpen = m.role === 'film' || m.role === 'oil' ? null : s.openColour
  const colours = COLOURING.includes(m.role) || Boolean(step.fields.tint_pct) || m.traits.includes('coloured')
  const openColour = colours ? step.key : stillOpen
  const onFilm = m.role === 'film' || m.role === 'toner' || m.role === 'glaze' || (m.role === 'gel' && !isBare(s))
  if (onFilm) {
    const film: Film = {
      slug: m.slug,
      base: m.base,
      dry_um: gauged_um(step, s) ?? (m.role === 'gel' ? GEL_ON_FILM_UM : dryFilm_um(m)),
      found: false,
      step: step.key,
    }
    const barred = m.slug === 'dewaxed-shellac' && s.contamination === 'washed'
    return {
      ...s,
      films: [...s.films, film],
      inWood: m.role === 'gel' ? [...s.inWood, entry] : s.inWood,
      scuffed: false,
      openColour,
      filler: m.role === 'film' ? null : s.filler,
      contamination: barred ? 'barred' : s.contamination,
    }
  }
  const water = m.base === 'water' && isBare(s)
  return {
    ...s,
    inWood: [...s.inWood, entry],
    openColour,
    grain: water ? raise(s) : s.grain,
    pale: s.pale || m.role === 'paint-wash' || m.slug === 'two-part-bleach',
    wet: WETS.find(role => role === m.role) ?? s.wet,
    filler: m.role === 'filler' ? step.key : s.filler,
  }
}
