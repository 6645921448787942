/** What is known about a piece: as recorded, and as concluded. */
import { type Ban, type LeadAnswer, leadSuspected } from './danger'
import { type Face, isWooden } from './face'
import type { FindingKind, Finding } from './finding'
import type { FinishClass, FoundFinish } from './finish'
import type { Period } from './period'

export const TONES = ['lighter', 'same', 'darker', 'match'] as const
/** Where and how it is used. */
export const USES = ['display', 'daily', 'hard', 'outdoors'] as const
export const SHEENS = ['matt', 'satin', 'semi-gloss', 'gloss'] as const

/** What somebody said, saw or measured of a piece, before anything is concluded. */
export interface RecordedFacts {
  use: (typeof USES)[number]
  tone: (typeof TONES)[number]
  sheen: (typeof SHEENS)[number]
  age: 'keep' | 'new'
  period: Period
  refinished: 'yes' | 'no' | 'unknown'
  keepPatina: boolean
  /** marks and blotches may show: they are its look */
  rustic: boolean
  /** as answered at intake */
  lead: LeadAnswer
  /** hardware that waits for the client's word */
  undecided: string[]
  /** on what the client approved the colour: on nothing yet, on wood without its topcoat, or under the finish */
  sample: 'none' | 'bare' | 'under-finish'
  /** marks that are kept */
  marks: string[]
  faces: Face[]
  findings: Finding[]
}

/** What is known of a piece: what was recorded, and what follows from it. All that routes, plans and rules look at. */
export interface Facts extends RecordedFacts {
  /** the answer that counts: evidence before what was said at intake */
  lead: LeadAnswer
  /** top layer of the group that shows most; null until a finish test has been recorded */
  found: { finish: FinishClass; certainty: number } | null
  /** every group that was tested */
  finishes: FoundFinish[]
  /** what hazards that stand in the way forbid */
  bans: Ban[]
  /** faces too wet to finish, with the days until they are likely dry */
  wet: { faceId: number; most_pct: number; likely_d: number }[]
  /** faces with a crack that moves too far for a rigid filler */
  movingCracks: number[]
  /** attended minutes for each flat m² by timed patches; null: not tried, the shop's default counts */
  pace: { stripper: number | null; sanding: number | null }
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
export function groupsOf(facts: Pick<Facts, 'faces'>): Group[] {
  const groups = new Map<string, Group>()
  for (const face of facts.faces.filter(f => f.scope === 'refinish')) {
    const key = [
      face.species,
      face.substrate,
      face.substrate === 'veneer' ? (face.veneer_mm ?? '?') : '',
      face.finishGroup,
    ].join('|')
    if (!isWooden(face.substrate)) continue
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
export const factsOfFaces = <F extends Pick<Facts, 'faces' | 'findings'>>(
  facts: F,
  keep: (id: number) => boolean,
): F => ({
  ...facts,
  faces: facts.faces.filter(f => f.scope !== 'refinish' || keep(f.id)),
  findings: facts.findings.filter(f => keep(f.faceId)),
})

/** Findings of a kind on the faces in scope, worst grade first. */
export function findingsOf(facts: Facts, ...kinds: FindingKind[]): Finding[] {
  const inScope = new Set(facts.faces.filter(f => f.scope === 'refinish').map(f => f.id))
  return facts.findings
    .filter(f => kinds.includes(f.kind) && inScope.has(f.faceId) && f.wish !== 'tolerate')
    .sort((a, b) => b.grade - a.grade)
}
/** Facts of a finding whatever the wish: contamination or layers cannot be tolerated away. */
export const isFound = (facts: Pick<Facts, 'findings'>, ...kinds: FindingKind[]): boolean =>
  facts.findings.some(f => kinds.includes(f.kind))

/** What lies on this group by its own tests; where no group was told apart, the piece's. Layers from the top down. */
export const finishOn = (facts: Facts, group: Pick<Group, 'finishGroup'>): FoundFinish['layers'] =>
  facts.finishes.find(f => f.group === group.finishGroup)?.layers ??
  (facts.finishes.length === 0 && facts.found ? [facts.found] : [])

/** The layer that a group is worked as once wax is off it; the top one where all is wax; undefined: not tested. */
export const underWax = (
  facts: Facts,
  group: Pick<Group, 'finishGroup'>,
): FoundFinish['layers'][number] | undefined => {
  const layers = finishOn(facts, group)
  return layers.find(l => l.finish !== 'wax') ?? layers[0]
}

/** Lead not ruled out, or another hazard in the way that forbids dust: nothing is sanded dry. */
export const wetOnly = (facts: Pick<Facts, 'lead' | 'bans'>): boolean =>
  leadSuspected(facts.lead) || facts.bans.includes('dry-sanding')
