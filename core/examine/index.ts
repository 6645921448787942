/** The examination of a piece: everything known before a hand is laid on it, and the verdicts that follow. */
import type { Air } from '../air'
import { identifyGroups, type GroupFound, type LayerReading } from '../identify'
import { groupsOf, isFound, type Facts, type Finding } from '../plan/facts'
import { bansOf, hazardsOf, type Ban, type HazardStanding, type LeadAnswer } from '../safety'
import { crackAdvice, moistureAdvice, speciesOf, USUAL_ROOM, veneerThickness, type CrackAdvice, type MoistureAdvice, type MoistureReading, type Room, type VeneerThickness } from '../wood'
import { damageOf, type Damage } from './damage'
import { boardAcross_mm } from './place'
import { judgeExamination, type ExamineVerdict } from './verdicts'
import { saidOf, walkRound, type Walk, type WalkAnswer } from './walk'

export * from './findings'
export * from './place'
export * from './damage'
export * from './layout'
export * from './questions'
export * from './walk'
export * from './patch'
export * from './verdicts'

export interface ExamineInput {
  facts: Facts
  readings: readonly LayerReading[]
  answers: readonly WalkAnswer[]
  /** newest recorded answer to each hazard */
  evidence: Readonly<Record<string, 'yes' | 'no'>>
  /** oldest first */
  moisture: readonly MoistureReading[]
  air: Air | null
  /** the client's room; null: a usual heated house */
  room: Room | null
}

export interface CrackFound extends CrackAdvice { finding: Finding, species: string }
export interface VeneerFound extends VeneerThickness { faceIds: number[], part: string }

export interface Examined {
  /** the facts with what was concluded: finishes, lead, bans */
  facts: Facts
  finishes: GroupFound[]
  walk: Walk
  hazards: HazardStanding[]
  bans: Ban[]
  moisture: MoistureAdvice[]
  cracks: CrackFound[]
  veneers: VeneerFound[]
  damage: Damage[]
  verdicts: ExamineVerdict[]
  /** what was not looked at, in words */
  notExamined: string[]
}

/** The lead answer that counts: evidence before what was said at intake. */
export const leadOf = (intake: LeadAnswer, evidence: ExamineInput['evidence']): LeadAnswer => evidence.lead ?? intake

function cracksOf(facts: Facts, room: Room): CrackFound[] {
  return facts.findings.flatMap((finding) => {
    const face = facts.faces.find(f => f.id === finding.faceId)
    if (finding.kind !== 'crack' || finding.place.shape !== 'line' || finding.place.size_mm <= 0 || !face) return []
    return [{ finding, species: face.species, ...crackAdvice({ species: face.species, board_mm: boardAcross_mm(finding.place, face), gap_mm: finding.place.size_mm, room }) }]
  })
}

/** Veneered faces of a part with one thickness, and what that rests on. */
function veneersOf(facts: Facts): VeneerFound[] {
  const rows = new Map<string, VeneerFound>()
  for (const face of facts.faces.filter(f => f.substrate === 'veneer')) {
    const key = `${face.part}|${face.veneer_mm ?? '?'}`
    const row = rows.get(key) ?? { ...veneerThickness(face.veneer_mm, facts.period), part: face.part, faceIds: [] }
    row.faceIds.push(face.id)
    rows.set(key, row)
  }
  return [...rows.values()]
}

/** Letters of the finish groups in scope, the one that shows most first. */
const finishGroupsOf = (facts: Facts) => {
  const area = new Map<string, number>()
  for (const f of facts.faces) area.set(f.finishGroup, (area.get(f.finishGroup) ?? 0) + f.area_m2 * (f.rank === 'show' ? 1 : 0.25))
  return [...area].sort((a, b) => b[1] - a[1]).map(([group]) => group)
}

function notExaminedOf(facts: Facts, walk: Walk, finishes: readonly GroupFound[]): string[] {
  const untested = finishes.flatMap(f => f.layers.filter(l => l.readings.length === 0).map(l => `finish ${f.group}${f.layers.length > 1 ? `, layer ${l.layer}` : ''}: no test`))
  const open = walk.stations.filter(s => s.done < s.total).map(s => `${s.station.replaceAll('-', ' ')}: ${s.total - s.done} of ${s.total} questions open`)
  const unnamed = [...new Set(facts.faces.filter(f => speciesOf(f.species).slug === 'unknown').map(f => `${f.part}: wood not named`))]
  const unplaced = facts.findings.filter(f => f.place.shape === 'unplaced').length
  return [...untested, ...open, ...unnamed, ...(unplaced ? [`${unplaced} findings not yet drawn on a face`] : [])]
}

/** Works everything out from what was recorded. `facts.found`, `finishes` and `bans` of the input are not read. */
export function examine(input: ExamineInput): Examined {
  const { answers, evidence, air } = input
  const said = saidOf(answers)
  const groups = finishGroupsOf(input.facts)
  const several = said.has('layers-at-chip:several') || isFound(input.facts, 'several-layers')
  const tested = (group: string) => input.readings.some(r => r.group === group)
  const finishes = identifyGroups({
    period: input.facts.period, refinished: input.facts.refinished, groups, readings: input.readings,
    layersOf: group => several && group === groups[0] && input.readings.some(r => r.group === group && r.layer > 1) ? 2 : 1 })
  const main = finishes[0]
  const lead = leadOf(input.facts.lead, evidence)
  const hazards = hazardsOf({ lead, period: input.facts.period, species: input.facts.faces.map(f => f.species), findings: new Set(input.facts.findings.map(f => f.kind)), said, evidence })
  const bans = bansOf(hazards)
  const tell = (l: GroupFound['layers'][number]) => ({ finish: l.finish, certainty: l.certainty })
  const facts: Facts = {
    ...input.facts, lead, bans,
    found: main && tested(main.group) ? tell(main.layers[0]!) : null,
    finishes: finishes.filter(f => tested(f.group)).map(f => ({ group: f.group, layers: f.layers.filter(l => l.readings.length > 0).map(tell) })),
  }
  const walk = walkRound(facts, answers)
  const moisture = [...new Set(input.moisture.map(m => m.faceId))].map(id => moistureAdvice(input.moisture.filter(m => m.faceId === id), air)!)
  const cracks = cracksOf(facts, input.room ?? USUAL_ROOM)
  const veneers = veneersOf(facts)
  const rest = { facts, finishes, walk, hazards, bans, moisture, cracks, veneers, damage: damageOf(facts) }
  return { ...rest, verdicts: judgeExamination({ ...rest, said }), notExamined: notExaminedOf(facts, walk, finishes) }
}

/** Species in scope that one stain would colour differently. */
export const mixedSpecies = (facts: Facts): string[] => [...new Set(groupsOf(facts).map(g => g.species))]
