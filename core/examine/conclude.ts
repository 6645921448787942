/** The examination of a piece: everything known before a hand is laid on it, and the verdicts that follow. */
import type { Air } from '../air'
import { type GroupFound, identifyGroups, type LayerReading, MOST_CERTAIN } from '../identify'
import {
  type Ban,
  boardAcross_mm,
  damageOf,
  type Damage,
  type Facts,
  type FinishClass,
  type LeadAnswer,
  type RecordedFacts,
} from '../piece'
import { bansOf, hazardsOf, type HazardStanding } from '../safety'
import {
  crackAdvice,
  MOISTURE_MARGIN_PCT,
  moistureAdvice,
  type MoistureAdvice,
  type MoistureReading,
  type Room,
  speciesOf,
  USUAL_ROOM,
  veneerThickness,
} from '../wood'
import { type Patch, scalePatch, WORKED } from './patch'
import { type CrackFound, type ExamineVerdict, judgeExamination, type VeneerFound } from './verdicts'
import { saidOf, type WalkAnswer, walkRound, type Walk } from './walk'

/** What was recorded about a piece, as far as the facts for route and plan rest on it. */
export interface Recorded {
  facts: RecordedFacts
  readings: readonly LayerReading[]
  answers: readonly WalkAnswer[]
  /** newest recorded answer to each hazard */
  evidence: Readonly<Record<string, 'yes' | 'no'>>
  /** oldest first */
  moisture: readonly MoistureReading[]
  /** the client's room; null: a usual heated house */
  room: Room | null
  /** oldest first */
  patches?: readonly Patch[]
  /** verdicts overruled, as `slug|subject`; for `finish-is` the finish that the restorer says it is */
  overruled?: ReadonlyMap<string, string | null>
}

export interface ExamineInput extends Recorded {
  /** of the room now */
  air: Air | null
}

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

function cracksOf(facts: RecordedFacts, room: Room): CrackFound[] {
  return facts.findings.flatMap(finding => {
    const face = facts.faces.find(f => f.id === finding.faceId)
    if (finding.kind !== 'crack' || finding.place.shape !== 'line' || finding.place.size_mm <= 0 || !face) return []
    return [
      {
        finding,
        species: face.species,
        ...crackAdvice({
          species: face.species,
          board_mm: boardAcross_mm(finding.place, face),
          gap_mm: finding.place.size_mm,
          room,
        }),
      },
    ]
  })
}

/** Veneered faces of a part with one thickness, and what that rests on. */
function veneersOf(facts: RecordedFacts): VeneerFound[] {
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
const finishGroupsOf = (facts: RecordedFacts) => {
  const area = new Map<string, number>()
  for (const f of facts.faces)
    area.set(f.finishGroup, (area.get(f.finishGroup) ?? 0) + f.area_m2 * (f.rank === 'show' ? 1 : 0.25))
  return [...area].sort((a, b) => b[1] - a[1]).map(([group]) => group)
}

function notExaminedOf(facts: Facts, walk: Walk, finishes: readonly GroupFound[]): string[] {
  const untested = finishes.flatMap(f =>
    f.layers
      .filter(l => l.readings.length === 0)
      .map(l => `finish ${f.group}${f.layers.length > 1 ? `, layer ${l.layer}` : ''}: no test`),
  )
  const open = walk.stations
    .filter(s => s.done < s.total)
    .map(s => `${s.station.replaceAll('-', ' ')}: questions open, ${s.total - s.done} of ${s.total}`)
  const unnamed = [
    ...new Set(facts.faces.filter(f => speciesOf(f.species).slug === 'unknown').map(f => `${f.part}: wood not named`)),
  ]
  const unplaced = facts.findings.filter(f => f.place.shape === 'unplaced').length
  return [
    ...untested,
    ...open,
    ...unnamed,
    ...(unplaced ? [`${unplaced} ${unplaced === 1 ? 'finding' : 'findings'} not yet drawn on a face`] : []),
  ]
}

/** Days to plan with where the wood does not dry, until somebody knows why. Shop default. */
const STALLED_D = 14

/** Faces too wet to finish by the air of their reading, unless overruled. */
function wetFacesOf({ moisture, overruled }: Recorded): Facts['wet'] {
  return [...new Set(moisture.map(m => m.faceId))].flatMap(faceId => {
    const own = moisture.filter(m => m.faceId === faceId)
    const advice = moistureAdvice(own, own.at(-1)!.air)
    return advice?.verdict === 'wait' && !overruled?.has(`too-wet|${faceId}`)
      ? [{ faceId, most_pct: advice.equilibrium_pct! + MOISTURE_MARGIN_PCT, likely_d: advice.likely_d ?? STALLED_D }]
      : []
  })
}

/** Minutes for each flat m² by the newest patch of each method that worked; null where none did. */
function paceOf({ facts, patches = [] }: Recorded): Facts['pace'] {
  const pace = (method: Patch['method']) => {
    const last = patches.findLast(p => p.method === method && WORKED.includes(p.result))
    return last ? scalePatch(last, facts).minutes_m2 : null
  }
  return { stripper: pace('stripper'), sanding: pace('sanding') }
}

export interface Concluded {
  facts: Facts
  finishes: GroupFound[]
  hazards: HazardStanding[]
  bans: Ban[]
  said: Set<string>
}

/** Layers of a group that somebody named. */
const saidLayers = (group: string, overruled: Recorded['overruled'] = new Map()): number[] =>
  [...overruled.keys()].filter(k => k.startsWith(`finish-is|${group}:`)).map(k => Number(k.split(':')[1]) || 1)

/** The facts with what follows from the record: finishes, lead, bans, wet faces, paces, moving cracks. */
export function conclude(recorded: Recorded): Concluded {
  const { answers, evidence, readings, overruled } = recorded
  const said = saidOf(answers)
  const groups = finishGroupsOf(recorded.facts)
  const finishes = identifyGroups({
    period: recorded.facts.period,
    refinished: recorded.facts.refinished,
    use: recorded.facts.use,
    groups,
    readings,
    least: group => Math.max(1, ...saidLayers(group, overruled)),
  })
  const lead = leadOf(recorded.facts.lead, evidence)
  const hazards = hazardsOf({
    lead,
    period: recorded.facts.period,
    species: recorded.facts.faces.map(f => f.species),
    findings: new Set(recorded.facts.findings.map(f => f.kind)),
    said,
    evidence,
  })
  const known = finishes
    .map(f => ({
      group: f.group,
      layers: f.layers.flatMap(l => {
        const word = overruled?.get(`finish-is|${f.group}:${l.layer}`)
        if (word) return [{ finish: word as FinishClass, certainty: MOST_CERTAIN }]
        return l.readings.length ? [{ finish: l.finish, certainty: l.certainty }] : []
      }),
    }))
    .filter(f => f.layers.length > 0)
  const bans = bansOf(hazards)
  const facts: Facts = {
    ...recorded.facts,
    lead,
    bans,
    found: known.find(f => f.group === groups[0])?.layers[0] ?? null,
    finishes: known,
    wet: wetFacesOf(recorded),
    pace: paceOf(recorded),
    movingCracks: cracksOf(recorded.facts, recorded.room ?? USUAL_ROOM)
      .filter(k => k.filler === 'stretching')
      .map(k => k.finding.faceId),
  }
  return { facts, finishes, hazards, bans, said }
}

/** Works everything out from what was recorded. `concluded`: where it is known already. */
export function examine(input: ExamineInput, concluded: Concluded = conclude(input)): Examined {
  const { facts, finishes, hazards, bans, said } = concluded
  const walk = walkRound(facts, input.answers)
  const moisture = [...new Set(input.moisture.map(m => m.faceId))].map(id => {
    const own = input.moisture.filter(m => m.faceId === id)
    return moistureAdvice(own, input.air ?? own.at(-1)!.air)!
  })
  const cracks = cracksOf(facts, input.room ?? USUAL_ROOM)
  const veneers = veneersOf(facts)
  const rest = { facts, finishes, walk, hazards, bans, moisture, cracks, veneers, damage: damageOf(facts) }
  return { ...rest, verdicts: judgeExamination({ ...rest, said }), notExamined: notExaminedOf(facts, walk, finishes) }
}
