/** One group at work, and what its stages share. */
import {
  type Grit,
  ladder_P,
  LEFT_BY_SANDING_OFF_UM,
  LEFT_BY_STRIPPING_UM,
  STOP_P,
  type StopFor,
  veneerBudget,
  type VeneerBudget,
} from '../../abrasives'
import { type Fields, type Gate, isBare, leave, type Method, type StepKind, stepOf, type Surface } from '../../acts'
import { type BuildUp, finishMaterial, type Layer, laidOn } from '../../build'
import type { Context } from '../../context'
import { type Material, taken } from '../../materials'
import {
  type FindingKind,
  findingsOf,
  type Group,
  mendingOf,
  type Mender,
  type RouteSlug,
  STRIPPING,
  wetOnly,
} from '../../piece'
import { isFlat } from '../../units'
import { veneerThickness } from '../../wood'
import { chanceOfFailing } from '../chances'

/** A step as a stage puts it; what it is called, what it takes and when follow from its act. */
export interface Draft {
  order: number
  kind: StepKind
  why: string
  /** how its key begins, where a layer asked for it; a step of the ground is named by its kind */
  stem?: string
  product?: string | null
  label?: number | null
  grits?: Grit[]
  method?: Method
  coat?: number
  passes?: number
  fields?: Fields
  gate?: Gate
  /** of the group, where the others get another step in its place */
  faces?: readonly number[]
}

/** One group at work: what is known, what is wanted, and the surface as the drafts so far leave it. */
export interface Bench extends Context {
  buildUp: BuildUp
  /** what is laid on this group, from the wood upward */
  layers: readonly Layer[]
  /** what the piece ends with, and whether water comes to the wood before it */
  finish: Material | null
  group: Group
  s: Surface
  /** nothing is abraded dry */
  lead: boolean
  put: (order: number, kind: StepKind, why: string, more?: Omit<Draft, 'order' | 'kind' | 'why'>) => void
}

/** A bench, and the drafts that gather on it. */
export function benchFor(
  context: Context,
  buildUp: BuildUp,
  group: Group,
  start: Surface,
): { b: Bench; drafts: Draft[] } {
  const drafts: Draft[] = []
  const layers = laidOn(context, buildUp, group).laid
  const b: Bench = {
    ...context,
    buildUp,
    layers,
    finish: finishMaterial(layers, context),
    group,
    s: start,
    lead: wetOnly(context.facts),
    put: (order, kind, why, more = {}) => {
      drafts.push({ order, kind, why, ...more })
      b.s = leave(stepOf({ key: `${kind}-${drafts.length}`, kind, ...more, faces: [] }), b.s, context)
    },
  }
  return { b, drafts }
}

export const lastGrit = (grits: readonly Grit[]) => grits.at(-1)!
/** The grit of a house method's option, such as "P180". */
export const gritOf = (option: string) => Number(option.slice(1))

/** What the bare wood is left for: its first colour in the wood, else what it ends with. */
function stopFor(context: Context, layers: readonly Layer[]): StopFor {
  const roles = layers.flatMap(l => taken(context.shelf, l)?.role ?? [])
  const colour = roles.find(r => r === 'dye' || r === 'paint-wash' || r === 'stain' || r === 'gel')
  if (colour) return colour === 'stain' || colour === 'gel' ? 'stain' : 'dye'
  const finish = finishMaterial(layers, context)
  if (finish?.slug === 'hardwax-oil-2c') return 'hardwax'
  return finish?.role === 'oil' ? 'varnish-oil' : 'film'
}

/** Patina marked, or an old piece whose age is kept in a house that stops at 90–95 %. */
export const gentle = ({ facts, house }: Pick<Context, 'facts' | 'house'>): boolean =>
  facts.keepPatina ||
  (house['old-surface'] === 'patina' && facts.age === 'keep' && ['before-1850', '1850-1925'].includes(facts.period))

/** The first grit on flat solid wood: stripper alone leaves less to sand than a scraper or a first coarse pass. */
const FIRST_P: { [G in RouteSlug]?: number } = { 'strip-chemical': 120, 'strip-both': 80 }
/** Turned, carved and profiled work begins no coarser (shop default): pads and paper leave what coarse grit scored. */
const FIRST_ON_SHAPED_P = 150
/** The dry ladder for bare wood of this group, P scale, and why it stops there. Patina: nothing coarser than P180. */
export function bareLadder(context: Context, group: Group, buildUp: BuildUp): { grits: Grit[]; stop: StopFor } {
  const { laid } = laidOn(context, buildUp, group)
  const use = stopFor(context, laid)
  const hardwax = finishMaterial(laid, context)?.slug === 'hardwax-oil-2c'
  const smooth = use === 'stain' ? gritOf(context.house['stop-under-stain']) : STOP_P[use].take
  const usualStop = context.facts.rustic ? STOP_P[use].min : smooth
  const stop = hardwax && use === 'dye' ? STOP_P.hardwax.max : usualStop
  const firstOnSolid = FIRST_P[buildUp.ground] ?? 100
  const coarsest = group.substrate === 'veneer' ? 120 : firstOnSolid
  const first = !group.faces.some(isFlat) ? Math.max(FIRST_ON_SHAPED_P, coarsest) : coarsest
  return { grits: ladder_P(gentle(context) ? 180 : Math.min(first, stop), stop), stop: use }
}

/** The veneer sum of a group; null where the wood is solid. Not measured: the thin end of what its age used. */
export function budgetOf(context: Context, group: Group, buildUp: BuildUp): VeneerBudget | null {
  if (!STRIPPING.includes(buildUp.ground)) return null
  return ladderBudget(context, group, buildUp, bareLadder(context, group, buildUp).grits)
}
/** The same for the grits that it is really sanded with, also where somebody else bared it. */
export function ladderBudget(
  { facts }: Pick<Context, 'facts'>,
  group: Group,
  { ground }: Pick<BuildUp, 'ground'>,
  ladder: readonly Grit[],
): VeneerBudget | null {
  if (group.substrate !== 'veneer' || wetOnly(facts) || ladder.length === 0) return null
  const stripped = ground === 'strip-mechanical' ? LEFT_BY_SANDING_OFF_UM : LEFT_BY_STRIPPING_UM
  return veneerBudget({
    thickness_mm: veneerThickness(group.veneer_mm, facts.period).mm,
    ladder,
    left_um: STRIPPING.includes(ground) ? stripped : 0,
  })
}

/** The machine, or wet where old finish or bare wood may hold lead or poison. */
export const dry = (b: Bench, machine: Method): Method =>
  b.lead && (b.s.films.some(f => f.found) || isBare(b.s)) ? 'wet' : machine

export function cleanOff(b: Bench, order: number, why = 'dust under a coat stays there', stem?: string) {
  const damp = b.house.dust === 'tack-cloth' && b.finish?.base === 'water'
  b.put(order, 'clean-off', why, { method: 'rag', fields: { dustBy: damp ? 'damp-cloth' : b.house.dust }, stem })
}

/** What is mended on this group by a step of its kind. Dents are filled where a film stays over them. */
export const mends = (b: Bench, by: Mender) => {
  const its = (m: Mender) => m === by || (by === 'mend' && m === 'steam' && !isBare(b.s))
  return mendingOf({ ...b.facts, faces: b.group.faces }).filter(m => its(m.by))
}
/** Faces of this group on which something of these kinds is to be mended. */
export const facesWith = (b: Bench, ...kinds: FindingKind[]): number[] => {
  const marked = findingsOf({ ...b.facts, faces: b.group.faces }, ...kinds).filter(f => f.wish === 'mend')
  return b.group.faces.filter(f => marked.some(m => m.faceId === f.id)).map(f => f.id)
}
/** A repair on the faces where it is wanted; nothing where none is. */
export function mend(b: Bench, order: number, by: Mender, why: string, fields: Fields = {}) {
  const kinds = mends(b, by).map(m => m.kind)
  if (kinds.length) b.put(order, by, why, { method: 'hand', fields, faces: facesWith(b, ...kinds) })
}
/** A step on marks of these kinds alone, on their faces; nothing where none is. */
export function onSpots(
  b: Bench,
  order: number,
  kind: StepKind,
  kinds: readonly FindingKind[],
  why: string,
  { fields, ...more }: Omit<Draft, 'order' | 'kind' | 'why' | 'faces'> = {},
) {
  const found = kinds.filter(k => facesWith(b, k).length > 0)
  if (found.length === 0) return
  const spots = found.map(k => ({ kind: k, places: 0, cm2: 0 }))
  // named by what it is for, so that other steps keep their keys when a mark is found or goes
  const stem = ['mark', kinds[0], kind, more.coat].filter(Boolean).join('.')
  b.put(order, kind, why, {
    stem,
    ...more,
    faces: facesWith(b, ...found),
    fields: { ...fields, where: 'spots', spots },
  })
}

/** A polish is judged, and taken up again where it was cut short; `fallback`: where it cannot be polished at all. */
export function polished(b: Bench, order: number, fallback: RouteSlug | null, faces?: readonly number[]) {
  b.put(order, 'gate', 'a polish is judged in raking light', {
    faces,
    gate: {
      slug: 'polished',
      look: 'Raking light, both ways; halves beside each other.',
      fails: 'Scratches stay after buffing, or colour shows.',
      fallback,
      chance: fallback ? chanceOfFailing(b.buildUp, b.facts) : SCRATCHED,
    },
  })
}
/** Chance that a rubbed ending shows scratches when it is buffed (shop default, unsourced). */
const SCRATCHED = 0.15

/** A light pass after bleach or water: paper, or a wet pad where nothing is sanded dry. */
export function lightPass(
  b: Bench,
  order: number,
  after: 'bleach' | 'water',
  why: string,
  stem?: string,
  marks?: readonly FindingKind[],
) {
  const grits = [lastGrit(bareLadder(b, b.group, b.buildUp).grits)]
  const kind = b.lead ? 'pad' : 'sand'
  const more = { grits, method: b.lead ? 'wet' : 'hand', fields: { after }, stem } as const
  if (marks) onSpots(b, order, kind, marks, why, more)
  else b.put(order, kind, why, more)
}
