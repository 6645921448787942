/** Films: coats, local coats, a film let flow together. */
import { type Base, materialOf, taken } from '../materials'
import { workArea_m2 } from '../piece'
import {
  type Act,
  always,
  AS_PRODUCT,
  ANY_GROUND,
  AS_IT_WAS,
  NO_CAUTION,
  NO_NOTES,
  NOT_DRYING,
  NOTHING_MADE,
  perM2,
  plainLayer,
  SETUP_MIN,
} from './act'
import type { LayerUse, Step, StepKind } from './step'
import { lay } from './surface'
import { drying, D, fixed, H } from './wait'
import { called, capital, coatOf } from './words'

/** Minutes that a wet edge stays open under the brush (common practice; where none is known, a shop default of 4). */
const WET_EDGE_MIN: Readonly<Record<string, number>> = {
  'dewaxed-shellac': 1.5,
  'shellac-brushed': 1.5,
  'oil-polyurethane': 7.5,
  'wiping-varnish': 7.5,
  'resin-oil-varnish': 7.5,
}
const WET_EDGE_DEFAULT_MIN = 4
const BRUSHED = [
  'Stir, strain; thin, from the middle out to each end, join, one pass over the whole length, then leave it.',
  'Come off the edges lightly, so that nothing runs down.',
]
/** Brushed coats of shellac that one day bears: four or five, an hour apart (common practice). */
export const SHELLAC_A_DAY = 4
/** What is particular to a base under the brush (handbook 18). */
const BY_BASE: Partial<Record<Base, readonly string[]>> = {
  oil: ['A brush of natural hair; between coats wrapped airtight, in the cool.'],
  water: ['A synthetic brush. Milky while wet is normal: it dries clear. It is not worked over.'],
  alcohol: ['Four or five coats a day, an hour apart, then overnight. Flat: no shiny spot, and the dust is white.'],
}
const brushed = ({ product }: Step) => [...BRUSHED, ...((product && BY_BASE[materialOf(product).base]) || [])]
const SPRAYED = [
  'Strain; test pattern first. Start before the piece and release after it, a third to a half overlapping.',
  'Underside first: it tunes gun and strength.',
]
const FOR: Record<LayerUse, string> = {
  'barrier': ' barrier',
  'against-contamination': ' barrier against contamination',
  'under-glaze': ' under the glaze',
  'over-glaze': ' over the dry glaze',
  'under-toner': ' under the toner',
  'before-filler': ' before the filler',
  'over-filler': ' over the filler',
  'under-lacquer': ' between the old film and the lacquer',
  'sealer': '',
  'under-shellac': ', very thin',
  'fills-pores': ' to fill the pores',
}
/** Why a coat is laid that is not the finish itself. */
const WHY: Record<LayerUse, string> = {
  'barrier': 'keeps what is below from what comes above',
  'against-contamination': 'a barrier between what was there and the topcoat',
  'under-glaze': 'the glaze is wiped on a sealed surface, and stays in the recesses',
  'over-glaze': 'holds the oil glaze away from the next film',
  'under-toner': 'colour lies in the film, not in the wood',
  'before-filler': 'keeps filler colour out of the wood, and the paper off what lies below',
  'over-filler': 'oil filler under a waterborne coat wants three days, or shellac between',
  'under-lacquer': 'lacquer solvent wrinkles an oil film',
  'sealer': 'raises and holds the fibres, and keeps the wood from drinking the topcoat',
  'under-shellac': 'deepens the figure under shellac',
  'fills-pores': 'day after day the ridges go and the pores rise, until it is mirror-sharp',
}
/** Where a coat usually stands among the work on other faces. */
const PLACE: Partial<Record<LayerUse | 'finish', number>> & { finish: number } = {
  'before-filler': 336,
  'against-contamination': 400,
  'under-toner': 450,
  'under-glaze': 450,
  'over-glaze': 465,
  'finish': 510,
}
/** Sessions of French polish, of three to six (common practice). */
const SESSIONS = 4
/** What transfers less than this is made for the gun. */
const SPRAYED_BELOW = 0.9
export const useSaid = (step: Step): string => (step.fields.as ? FOR[step.fields.as] : '')

const coat: Act = {
  called: 'coat',
  needs: { roles: ['film'], always: true },
  usesUp: true,
  pace: (step, faces, k) => {
    const m = taken(k.shelf, step)
    return (m?.setup_min ?? SETUP_MIN) + workArea_m2(faces) * (m?.minutes_m2 ?? 10) * step.passes
  },
  methods: ['brush', 'spray', 'rag'],
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['covers', 'films', 'finishes', 'lingers'],
  ground: ANY_GROUND,
  leaves: (s, step, k) => lay(step, s, k),
  then: (step, next, k) => {
    const m = taken(k.shelf, step)
    if (!m) return null
    const [cured_d, safe_d] = m.cure_d
    if (next.kind === 'rub-out')
      return fixed(
        'cure',
        cured_d * D,
        cured_d * D,
        safe_d * D,
        `${m.name} cures ${cured_d} to ${safe_d} days before it is rubbed`,
      )
    if (next.kind === 'gate' && next.gate?.slug !== 'adhesion')
      return fixed('harden', 12 * H, D, 3 * D, 'the sealer hardens overnight to three days before it is judged')
    if (next.kind === 'finish-up' || next.kind === 'turn') {
      const why = `${m.name} may be handled after ${m.handle_min / H} h`
      return drying(m, [m.handle_min, m.handle_min], 'dry', why, k.air)
    }
    if (m.base === 'alcohol' && step.method === 'brush' && step.coat !== null && step.coat % SHELLAC_A_DAY === 0)
      return fixed('harden', 10 * H, 14 * H, D, 'four shellac coats a day, then overnight; white dust says it is hard')
    const max = next.kind === 'coat' && next.product === step.product && !m.meltsIn ? m.recoatMax_min : null
    const why = `${m.name}: next coat from ${spanSaid(m.recoat_min[0])} by the usual label`
    return drying(m, m.recoat_min, 'recoat', why, k.air, max)
  },
  open: (step, k) => {
    const m = taken(k.shelf, step)
    if (step.method !== 'brush' || !m) return null
    const open_min = WET_EDGE_MIN[m.slug] ?? WET_EDGE_DEFAULT_MIN
    return {
      open_min,
      min_m2: m.minutes_m2,
      says: `the wet edge stays open about ${open_min} min`,
    }
  },
  late: 'scuff',
  rounds: { with: [{ kind: 'sand-coat', stands: 'before' }], worst: null, passes: 'Even sheen in raking light.' },
  asks: ['used', 'mixed'],
  layer: {
    place: use => PLACE[use ?? 'finish'] ?? PLACE.finish,
    apart: 10,
    rounds: AS_PRODUCT,
    finish: true,
    sanded: true,
    method: m => {
      if (m.traits.includes('wiped')) return 'rag'
      return m.transfer < SPRAYED_BELOW ? 'spray' : 'brush'
    },
    why: ({ step, no, of, k }) => {
      if (step.fields.as) return WHY[step.fields.as]
      return no === of ? `the last coat sets the sheen: ${k.facts.sheen}` : 'thin, on the wet edge, then left alone'
    },
    after: () => [],
    everyday: 'coated with',
  },
  fields: ['as', 'of', 'shaken'],
  cautions: NO_CAUTION,
  inOrder: true,
  byHand: true,
  notes: step => (step.method === 'spray' ? SPRAYED : brushed(step)),
  says: (step, k) => {
    const counted = step.fields.of !== undefined || step.fields.as === undefined
    const tint = step.fields.tint_pct ? ', with a little dye' : ''
    return `${capital(called(step, k))}${useSaid(step)}${tint}${counted ? coatOf(step) : ''}`
  },
}

/** "2 h" or "30 min". */
export const spanSaid = (min: number): string => {
  if (min < 2 * H) return `${min} min`
  return min < 2 * D ? `${min / H} h` : `${min / D} days`
}

const spotCoat: Act = {
  ...coat,
  called: 'local coat',
  pace: perM2(6),
  methods: ['brush', 'spray'],
  does: ['lingers'],
  leaves: AS_IT_WAS,
  then: (_step, next) =>
    next.kind === 'rub-out'
      ? fixed('cure', 7 * D, 7 * D, 14 * D, 'local coats cure a week before they are levelled')
      : fixed('recoat', H, H, 2 * H, 'local coats an hour apart'),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: ['used'],
  layer: null,
  fields: ['of', 'where'],
  inOrder: false,
  notes: always(
    'Thin, a little beyond the place, feathered out; spray: small gun, fan nearly closed, low pressure, tried on card.',
    'Lacquer: the first with retarder, so that it bites in.',
  ),
  says: step => `Local coat ${step.coat ?? 1}${step.fields.of ? ` of ${step.fields.of}` : ''}, the last one full`,
}

/** A film that its own solvent melts is let flow together again. */
const amalgamate: Act = {
  called: 'let the film flow',
  needs: { roles: ['cleaner'], always: true },
  usesUp: true,
  pace: perM2(20),
  methods: ['rag', 'spray'],
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['looks'],
  ground: ANY_GROUND,
  leaves: AS_IT_WAS,
  then: () => fixed('harden', 12 * H, D, 3 * D, 'the film hardens before it is judged'),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: ['used'],
  layer: null,
  fields: ['where'],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: (step, k) =>
    step.product === 'alcohol'
      ? 'Let the old shellac flow with alcohol, pad after pad'
      : `Mist ${called(step, k)} with retarder until the film flows`,
}

/** Shellac padded on in sessions, each left a day. */
const frenchPolish: Act = {
  ...coat,
  called: 'french polish',
  needs: { roles: ['film'], always: true, base: 'alcohol' },
  pace: perM2(40, 15),
  methods: ['rag'],
  does: ['covers', 'films', 'finishes'],
  then: (_step, next) =>
    next.kind === 'finish-up'
      ? fixed('dry', 2 * D, 7 * D, 7 * D, 'French polish rests a week before it is used')
      : fixed('recoat', 12 * H, D, 2 * D, 'a day between sessions'),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: { with: [], worst: 6, passes: 'Mirror-sharp; no pore and no pad mark shows.' },
  layer: plainLayer(520, 'body in circles and figures of eight, with a trace of oil', {
    apart: 10,
    rounds: () => SESSIONS,
    finish: true,
    flattens: true,
    everyday: 'French polished with',
  }),
  fields: ['of'],
  notes: always(
    'Charge the pad inside; lift it off the edge, never stop on the face.',
    'At the end the oil comes off with spirit, along the grain. Not for hot, wet or alcohol use.',
  ),
  says: step => `French polish, session ${step.coat ?? 1}${step.fields.of ? ` of ${step.fields.of}` : ''}`,
}

export const COATS_ACTS = {
  'coat': coat,
  'french-polish': frenchPolish,
  'amalgamate': amalgamate,
  'spot-coat': spotCoat,
} satisfies Partial<Record<StepKind, Act>>
