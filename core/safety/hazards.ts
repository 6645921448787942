/**
 * What may hurt someone, or breaks a law: what raises it, what it forbids, what it asks for, and where to turn. Common
 * practice; local rules decide.
 */
import { BANS, type Ban, type FindingKind, type LeadAnswer, leadSuspected, type Period } from '../piece'
import { speciesOf } from '../wood'
import type { Severity } from './cautions'

export interface HazardFacts {
  lead: LeadAnswer
  period: Period
  species: readonly string[]
  findings: ReadonlySet<FindingKind>
  /** options chosen on the walk, as `question:option` */
  said: ReadonlySet<string>
  /** the newest recorded answer to each hazard */
  evidence: Readonly<Record<string, 'yes' | 'no'>>
}

export interface Hazard {
  slug: string
  name: string
  severity: Severity
  forbids: readonly Ban[]
  says: string
  asks: string
  turnTo: string
  /** how it may be settled, shown as a hint where the answer is typed in */
  settledBy: string
  raised: (f: HazardFacts) => string | null
}

const OLD: readonly Period[] = ['before-1850', '1850-1925', 'unknown']
const LOCAL = 'Local rules decide; turn to licensed practice.'

export const HAZARDS: readonly Hazard[] = [
  {
    slug: 'lead',
    name: 'Lead',
    severity: 'forbidden',
    forbids: ['dry-sanding', 'heat-gun'],
    says: 'Old paint or varnish may hold lead.',
    asks: 'A lead test. Until then wet methods, HEPA vacuum, clothes that stay in the shop.',
    turnTo: `A laboratory or a licensed lead firm. ${LOCAL}`,
    settledBy: 'swab or laboratory, which spot',
    raised: f => {
      if (f.findings.has('old-paint')) return 'Old paint counts as lead until it is tested.'
      if (leadSuspected(f.lead)) return 'Lead was not ruled out at intake; not known counts as yes.'
      return null
    },
  },
  {
    slug: 'pesticide',
    name: 'Arsenic, DDT and other old pesticides',
    severity: 'forbidden',
    forbids: ['dry-sanding', 'dry-brushing'],
    says: 'Collection and museum pieces were dusted with arsenic or DDT.',
    asks: 'Gloves, HEPA vacuum, nothing that raises dust, until a laboratory says no.',
    turnTo: `A conservator or a laboratory. ${LOCAL}`,
    settledBy: 'laboratory, report number',
    raised: f => {
      if (f.said.has('insides:powder')) return 'White powder or crystals were seen inside.'
      if (f.said.has('stood-where:collection')) return 'It stood in a collection.'
      return null
    },
  },
  {
    slug: 'worm-treatment',
    name: 'Residue of woodworm treatment',
    severity: 'stop',
    forbids: ['dry-sanding'],
    says: 'Treated wood carries residues that sanding throws into the air.',
    asks: 'Ask the owner with what and when; without an answer work wet, with cartridges and gloves.',
    turnTo: `The maker's safety data sheet. ${LOCAL}`,
    settledBy: 'who treated it, with what, or that nobody did',
    raised: f => (f.said.has('worm:treated') ? 'It was treated against woodworm.' : null),
  },
  {
    slug: 'mould',
    name: 'Mould',
    severity: 'stop',
    forbids: ['dry-brushing'],
    says: 'Spores fly when mould is brushed or blown.',
    asks: 'Keep it apart, dry it, HEPA vacuum, wipe damp, mask for particles.',
    turnTo: `A licensed firm when it is more than a patch. ${LOCAL}`,
    settledBy: 'cleaned and dry, how',
    raised: f => {
      if (f.findings.has('mould')) return 'Mould was found.'
      if (f.said.has('smell:musty')) return 'It smells musty.'
      return null
    },
  },
  {
    slug: 'asbestos',
    name: 'Asbestos board',
    severity: 'forbidden',
    forbids: ['opening', 'dry-sanding'],
    says: 'Grey board behind stoves and lamps may be asbestos.',
    asks: 'Do not drill, cut, brush or take it out.',
    turnTo: `A licensed asbestos firm. ${LOCAL}`,
    settledBy: 'laboratory, report number',
    raised: f =>
      f.said.has('insides:board') && !f.said.has('board-lining:wood')
        ? 'There is a lining board, not shown to be wood.'
        : null,
  },
  {
    slug: 'mercury-mirror',
    name: 'Mercury behind the mirror',
    severity: 'forbidden',
    forbids: ['opening'],
    says: 'Old mirrors are backed with tin and mercury that beads and evaporates.',
    asks: 'Leave the glass in its frame, upright, cool; do not scrape the back.',
    turnTo: `A conservator of glass. ${LOCAL}`,
    settledBy: 'who looked at the back, what it is',
    raised: f =>
      f.said.has('insides:mirror') && OLD.includes(f.period) && !f.said.has('mirror-back:painted')
        ? 'There is a mirror, and the piece is old enough for a mercury backing.'
        : null,
  },
  {
    slug: 'cites',
    name: 'Protected wood',
    severity: 'note',
    forbids: ['sale-across-borders'],
    says: 'Rosewoods and some mahoganies fall under CITES when sold across borders.',
    asks: 'Record the species; keep proof of age.',
    turnTo: 'The CITES authority of the country decides.',
    settledBy: 'who named the species, permit',
    raised: f => f.species.map(s => speciesOf(s).cites).find(Boolean) ?? null,
  },
  {
    slug: 'ivory',
    name: 'Ivory',
    severity: 'note',
    forbids: ['sale-across-borders'],
    says: 'Ivory may not be traded in most places.',
    asks: 'Record it; do not replace it with new ivory.',
    turnTo: 'The CITES authority of the country decides.',
    settledBy: 'who looked, what it is',
    raised: f => (f.said.has('ivory-inlay:ivory') ? 'An inlay looks like ivory.' : null),
  },
]

export interface HazardStanding extends Omit<Hazard, 'raised'> {
  why: string
  /** open: not settled, counts as yes · confirmed: recorded as yes · cleared: recorded as no */
  standing: 'open' | 'confirmed' | 'cleared'
}

const STANDING = { no: 'cleared', yes: 'confirmed' } as const

/** Every hazard that is raised or was answered. */
export function hazardsOf(f: HazardFacts): HazardStanding[] {
  return HAZARDS.flatMap(({ raised, ...hazard }) => {
    const why = raised(f)
    const answer = f.evidence[hazard.slug]
    if (!why && !answer) return []
    return [
      {
        ...hazard,
        why: why ?? 'It was recorded.',
        standing: answer === undefined ? ('open' as const) : STANDING[answer],
      },
    ]
  })
}

/** What the hazards in the way forbid together. */
export const bansOf = (hazards: readonly HazardStanding[]): Ban[] =>
  BANS.filter(b => hazards.some(h => h.standing !== 'cleared' && h.forbids.includes(b)))
