/** Verdicts of the examination: each with its reasons, its class, and who to turn to. */
import type { GroupFound } from '../identify'
import { type Facts, type Finding, groupsOf, isFound } from '../piece'
import type { HazardStanding, Severity } from '../safety'
import { round } from '../units'
import {
  type CrackAdvice,
  MOISTURE_MARGIN_PCT,
  type MoistureAdvice,
  RIGID_STANDS,
  speciesOf,
  type VeneerThickness,
} from '../wood'

export interface CrackFound extends CrackAdvice {
  finding: Finding
  species: string
}
export interface VeneerFound extends VeneerThickness {
  faceIds: number[]
  part: string
}

export interface ExamineVerdict {
  slug: string
  /** what it is about: a finish layer, a face, a part; with the slug it names the verdict */
  subject: string
  severity: Severity
  says: string
  reasons: string[]
  mend: string
  source: string
}

export interface VerdictContext {
  facts: Facts
  finishes: readonly GroupFound[]
  hazards: readonly HazardStanding[]
  moisture: readonly MoistureAdvice[]
  cracks: readonly CrackFound[]
  veneers: readonly VeneerFound[]
  /** options chosen on the walk */
  said: ReadonlySet<string>
}

const COMMON = 'common practice'
const faceName = (facts: Facts, id: number) => {
  const face = facts.faces.find(f => f.id === id)
  return face ? `${face.part}, ${face.name}` : 'this face'
}
const daysSaid = (d: number) => (Math.round(d) <= 1 ? 'a day' : `${Math.round(d)} days`)
const DRYING_BASIS = {
  readings: 'the pace between the readings',
  thickness: 'the usual pace of this thickness (shop default)',
}
const words = (slug: string) => slug.replaceAll('-', ' ')
const percent = (p: number) => `${Math.round(p * 100)} %`

type Judge = (c: VerdictContext) => ExamineVerdict[]

const hazards: Judge = c =>
  c.hazards
    .filter(h => h.standing !== 'cleared')
    .map(h => ({
      slug: h.slug,
      subject: '',
      severity: h.severity,
      says: `${h.name}: ${h.standing === 'confirmed' ? 'found' : 'not ruled out'}`,
      reasons: [h.why, h.says, `Forbidden: ${h.forbids.map(words).join(', ')}.`],
      mend: `${h.asks} ${h.turnTo}`,
      source: COMMON,
    }))

const finishes: Judge = c =>
  c.finishes.flatMap(g =>
    g.layers
      .filter(l => l.readings.length > 0)
      .flatMap((l): ExamineVerdict[] => {
        const subject = `${g.group}:${l.layer}`
        const name = `Finish ${g.group}${g.layers.length > 1 ? `, layer ${l.layer}` : ''}`
        const [first, second] = l.ranked
        if (l.verdict === 'contradictory')
          return [
            {
              slug: 'contradictory',
              subject,
              severity: 'warn',
              says: `${name}: the readings contradict each other`,
              source: 'shop default likelihoods',
              reasons: l.against.map(
                a =>
                  `"${a.result}" in ${words(a.test)} comes up in ${percent(a.p)} of cases of ` +
                  `${words(first!.finish)}, or a test done twice did not agree.`,
              ),
              mend: 'Perhaps two layers, perhaps a misread test. Repeat the odd one on another spot.',
            },
          ]
        if (l.verdict === 'test-again')
          return [
            {
              slug: 'test-again',
              subject,
              severity: 'warn',
              says: `${name}: ${words(first!.finish)}, only ${percent(l.certainty)} sure`,
              source: 'shop default likelihoods',
              reasons: [`Second guess: ${words(second!.finish)}, ${percent(second!.p)}.`],
              mend: l.next[0]
                ? `Next: ${words(l.next[0].test.slug)}. ${l.next[0].test.how}`
                : 'All tests are done; ask a colleague, or treat it as either.',
            },
          ]
        return []
      }),
  )

const wetWood: Judge = c =>
  c.moisture
    .filter(m => m.verdict === 'wait')
    .map(m => ({
      slug: 'too-wet',
      subject: String(m.faceId),
      severity: 'stop',
      says:
        `${faceName(c.facts, m.faceId)} holds ${round(m.reading_pct, 1)} % water; ` +
        `${round(m.equilibrium_pct! + MOISTURE_MARGIN_PCT, 1)} % is the most`,
      reasons: [
        `Equilibrium with the room is ${round(m.equilibrium_pct!, 1)} %; more than ${MOISTURE_MARGIN_PCT} ` +
          'points above it is too wet to finish.',
        m.stalled
          ? 'It is not drying: look for where the water comes from.'
          : `About ${daysSaid(m.likely_d!)} at ${DRYING_BASIS[m.basis ?? 'thickness']}.`,
      ],
      mend: 'Let it stand with air round it and measure again.',
      source: 'Wood Handbook FPL-GTR-190, eq. 4-5, from memory; margin common practice',
    }))

const mixedWood: Judge = c => {
  const species = [...new Set(groupsOf(c.facts).map(g => speciesOf(g.species).name))]
  return species.length < 2
    ? []
    : [
        {
          slug: 'one-stain-two-colours',
          subject: '',
          severity: 'warn',
          says: `${species.join(' and ')} in one piece`,
          reasons: [
            'One stain gives two colours on two woods.',
            ...[...new Set(groupsOf(c.facts).map(g => g.species))]
              .filter(s => speciesOf(s).blotches)
              .map(s => `${speciesOf(s).name} takes stain in patches.`),
          ],
          mend: 'Plan the colour for each wood, and agree it with the client.',
          source: COMMON,
        },
      ]
}

const cracks: Judge = c =>
  c.cracks.map(k => ({
    slug: k.filler === 'stretching' ? 'crack-moves' : 'crack-quiet',
    subject: `${k.finding.faceId}:${round(k.finding.place.x_mm)}`,
    severity: k.filler === 'stretching' ? 'warn' : 'note',
    says:
      `Crack on ${faceName(c.facts, k.finding.faceId)}: ` +
      `${k.filler === 'stretching' ? 'a stretching filler' : 'a rigid filler stands it'}`,
    reasons: [
      `${round(k.board_mm)} mm × ${k.coefficient} × (${round(k.humid_pct, 1)} − ${round(k.dry_pct, 1)} %) = ` +
        `${round(k.swing_mm, 2)} mm between the seasons.`,
      `The gap is ${round(k.gap_mm, 1)} mm; a rigid filler stands about ${percent(RIGID_STANDS)[0]}–2 % of ` +
        `it (${round(k.gap_mm * RIGID_STANDS, 2)} mm).`,
      ...(k.assumed ? ['This wood is not in the table: the largest movement was taken.'] : []),
      'Counted tangentially, with the board held nowhere: the safe end.',
    ],
    mend:
      k.filler === 'stretching'
        ? 'Fill with what stretches, or let in a strip of the same wood.'
        : 'Any filler of the right colour.',
    source: 'Wood Handbook table 13-5, from memory; 1–2 % common practice',
  }))

const veneers: Judge = c =>
  c.veneers
    .filter(v => !v.measured)
    .map(v => ({
      slug: 'veneer-estimated',
      subject: v.part,
      severity: 'warn',
      says: `${v.part}: veneer counted as ${v.mm} mm, not measured`,
      reasons: [`By its age it may be ${v.range_mm[0]} to ${v.range_mm[1]} mm; the thin end counts.`],
      mend: 'Measure at an edge, a keyhole or a screw hole.',
      source: COMMON,
    }))

const dirty: Judge = c =>
  c.said.has('water-sign:beads') || isFound(c.facts, 'water-beads', 'fish-eyes')
    ? [
        {
          slug: 'contaminated',
          subject: '',
          severity: 'warn',
          says: 'Silicone, wax or oil on the surface',
          reasons: ['Water beaded or pooled in patches.', 'It comes back as fish eyes in stain, sealer and topcoat.'],
          mend: 'The plan washes with solvent, tests the wetting and puts a barrier.',
          source: COMMON,
        },
      ]
    : []

const hardware: Judge = c =>
  c.facts.undecided.length === 0
    ? []
    : [
        {
          slug: 'hardware-undecided',
          subject: '',
          severity: 'stop',
          says: `Hardware not decided: ${c.facts.undecided.join(', ')}`,
          reasons: [
            'Old holes are plugged and new ones placed before surface repair and colour; those steps do ' +
              'not start before the client has answered.',
          ],
          mend: 'Measure the holes and ask the client under Parts.',
          source: COMMON,
        },
      ]

const JUDGES: readonly Judge[] = [hazards, wetWood, hardware, finishes, dirty, cracks, veneers, mixedWood]
const RANK: Record<Severity, number> = { forbidden: 0, stop: 1, warn: 2, note: 3 }

/** All verdicts, the gravest first. */
export const judgeExamination = (c: VerdictContext): ExamineVerdict[] =>
  JUDGES.flatMap(judge => judge(c)).sort((a, b) => RANK[a.severity] - RANK[b.severity])
