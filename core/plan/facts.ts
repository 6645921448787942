/** What is known about a piece: all that routes, plans and rules may look at. */
import type { Place } from '../examine/place'
import type { FinishClass, Period } from '../identify'
import type { Bleach, Colour, Fill, Finish } from '../layers/materials'
import type { House } from './house'
import { leadSuspected, type Ban, type LeadAnswer } from '../safety'
import type { Shape } from '../units'

export const ROUTES = [
  'clean-and-wax',
  'amalgamate',
  'spot-repair',
  'scuff-and-recoat',
  'scuff-and-gel',
  'level-barrier-recoat',
  'strip-chemical',
  'strip-mechanical',
  'strip-both',
  'refer',
] as const
/** Least invasive first. */
export type RouteSlug = (typeof ROUTES)[number]
/** Routes that take the old film off. */
export const STRIPPING: readonly RouteSlug[] = ['strip-chemical', 'strip-mechanical', 'strip-both']

export const FINDING_KINDS = [
  'dirt-and-wax',
  'scratches',
  'dents',
  'nail-holes',
  'white-ring',
  'black-ring',
  'heat-mark',
  'crazing',
  'coarse-film',
  'runs',
  'brush-marks',
  'overspray',
  'swirl-marks',
  'orange-peel',
  'fish-eyes',
  'water-beads',
  'light-bleached',
  'peeling',
  'print',
  'soft-film',
  'several-layers',
  'worn-through',
  'veneer-chipped',
  'veneer-lifted',
  'veneer-blistered',
  'sanded-through',
  'crack',
  'open-joint',
  'loose-leg',
  'missing-piece',
  'woodworm',
  'mould',
  'odour',
  'old-paint',
] as const
export type FindingKind = (typeof FINDING_KINDS)[number]
export const WISHES = ['mend', 'keep', 'tolerate'] as const

export interface Face {
  id: number
  part: string
  name: string
  scope: 'refinish' | 'protect' | 'match'
  rank: 'show' | 'secondary' | 'hidden'
  shape: Shape
  orientation: 'horizontal' | 'vertical'
  length_mm: number
  /** a turned face's mean diameter */
  width_mm: number
  copies: number
  /** all copies together */
  area_m2: number
  species: string
  substrate: 'solid' | 'veneer'
  /** as measured; null: not measured */
  veneer_mm: number | null
  /** faces of one letter carry one finish */
  finishGroup: string
}

/** Grade 1 (trace) to 5 (destroyed). */
export interface Finding {
  faceId: number
  kind: FindingKind
  grade: number
  wish: (typeof WISHES)[number]
  place: Place
}

/** What one group of faces carries, from the top layer down. `finish` null: not tested. */
export interface FoundFinish {
  group: string
  layers: { finish: FinishClass; certainty: number }[]
}

export interface Facts {
  use: 'display' | 'daily' | 'hard'
  tone: 'lighter' | 'same' | 'darker' | 'match'
  sheen: 'matt' | 'satin' | 'semi-gloss' | 'gloss'
  age: 'keep' | 'new'
  period: Period
  refinished: 'yes' | 'no' | 'unknown'
  keepPatina: boolean
  lead: LeadAnswer
  /** top layer of the group that shows most; null until a finish test has been recorded */
  found: { finish: FinishClass; certainty: number } | null
  /** every group that was tested */
  finishes: FoundFinish[]
  /** what hazards that stand in the way forbid */
  bans: Ban[]
  /** faces too wet to finish, with the days until they are likely dry */
  wet: { faceId: number; most_pct: number; likely_d: number }[]
  /** hardware that waits for the client's word */
  undecided: string[]
  /** on what the client approved the colour: on nothing yet, on wood without its topcoat, or under the finish */
  sample: 'none' | 'bare' | 'under-finish'
  /** faces with a crack that moves too far for a rigid filler */
  movingCracks: number[]
  /** marks that are kept */
  marks: string[]
  /** attended minutes for each flat m² by timed patches; null: not tried, the shop's default counts */
  pace: { stripper: number | null; sanding: number | null }
  faces: Face[]
  findings: Finding[]
}

/** A route and what is laid on it. */
export interface Way {
  route: RouteSlug
  finish: Finish
  colour: Colour
  conditioner: 'auto' | 'none' | 'oil-conditioner' | 'water-conditioner'
  fill?: Fill
  bleach?: Bleach
  /** dry film wanted, µm; without it the product's usual coats */ film_um?: number | null
}
/** Faces that go another way than the rest of the piece. */
export interface OwnWay extends Way {
  faces: readonly number[]
}
export interface Choice extends Way {
  /** the shop's methods; the usual ones where it is not given */ house?: House
  own?: readonly OwnWay[]
}

/** Faces of one substrate and one finish, worked alike. */
export interface Group {
  key: string
  finishGroup: string
  species: string
  substrate: 'solid' | 'veneer'
  veneer_mm: number | null
  faces: Face[]
}

/** The faces in scope, grouped by species, substrate, veneer thickness and finish. */
export function groupsOf(facts: Facts): Group[] {
  const groups = new Map<string, Group>()
  for (const face of facts.faces.filter(f => f.scope === 'refinish')) {
    const key = [
      face.species,
      face.substrate,
      face.substrate === 'veneer' ? (face.veneer_mm ?? '?') : '',
      face.finishGroup,
    ].join('|')
    const group = groups.get(key) ?? {
      key,
      finishGroup: face.finishGroup,
      species: face.species,
      substrate: face.substrate,
      veneer_mm: face.veneer_mm,
      faces: [],
    }
    group.faces.push(face)
    groups.set(key, group)
  }
  return [...groups.values()]
}

/** What is known of some faces alone: the others, and what was found on them, are not looked at. */
export const factsOfFaces = (facts: Facts, keep: (id: number) => boolean): Facts => ({
  ...facts,
  faces: facts.faces.filter(f => f.scope !== 'refinish' || keep(f.id)),
  findings: facts.findings.filter(f => keep(f.faceId)),
})

/**
 * The piece as its ways divide it: the main way first, each with its own faces and choice. A piece of one way comes
 * back as it is.
 */
export function waysOf(facts: Facts, choice: Choice): { facts: Facts; choice: Choice }[] {
  const { own = [], ...main } = choice
  if (own.length === 0) return [{ facts, choice: main }]
  const taken = new Set(own.flatMap(w => w.faces))
  const ways = [
    { facts: factsOfFaces(facts, id => !taken.has(id)), choice: main },
    ...own.map(({ faces, ...way }) => ({
      facts: factsOfFaces(facts, id => faces.includes(id)),
      choice: { ...main, ...way },
    })),
  ]
  return ways.filter(w => w.facts.faces.some(f => f.scope === 'refinish'))
}

/** The groups of every way; faces that go different ways are never one group. */
export const groupsIn = (facts: Facts, choice: Choice): Group[] =>
  waysOf(facts, choice).flatMap((way, i) =>
    groupsOf(way.facts).map(g => (i === 0 ? g : { ...g, key: `${i}|${g.key}` })),
  )

/** Findings of a kind on the faces in scope, worst grade first. */
export function findingsOf(facts: Facts, ...kinds: FindingKind[]): Finding[] {
  const inScope = new Set(facts.faces.filter(f => f.scope === 'refinish').map(f => f.id))
  return facts.findings
    .filter(f => kinds.includes(f.kind) && inScope.has(f.faceId) && f.wish !== 'tolerate')
    .sort((a, b) => b.grade - a.grade)
}
/** Facts of a finding whatever the wish: contamination or layers cannot be tolerated away. */
export const isFound = (facts: Facts, ...kinds: FindingKind[]): boolean =>
  facts.findings.some(f => kinds.includes(f.kind))

/** What lies on this group: its own tests, else the piece's. Layers from the top down. */
export const finishOn = (facts: Facts, group: Pick<Group, 'finishGroup'>): FoundFinish['layers'] =>
  facts.finishes.find(f => f.group === group.finishGroup)?.layers ?? (facts.found ? [facts.found] : [])

/** Lead not ruled out, or another hazard in the way that forbids dust: nothing is sanded dry. */
export const wetOnly = (facts: Pick<Facts, 'lead' | 'bans'>): boolean =>
  leadSuspected(facts.lead) || facts.bans.includes('dry-sanding')
