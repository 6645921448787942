/** Films: coats, local coats, a film let flow together. */
import { taken } from '../materials'
import { workArea_m2 } from '../piece'
import {
  type Act,
  ANY_GROUND,
  AS_IT_WAS,
  NO_CAUTION,
  NO_NOTES,
  NOT_DRYING,
  NOTHING_MADE,
  perM2,
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
}
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
    if (next.kind === 'finish-up')
      return drying(
        m,
        [m.handle_min, m.handle_min],
        'dry',
        `${m.name} may be handled after ${m.handle_min / H} h`,
        k.air,
      )
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
  layer: { follows: ['sand-coat'] },
  fields: ['as', 'of', 'shaken'],
  cautions: NO_CAUTION,
  inOrder: true,
  byHand: true,
  notes: step => (step.method === 'spray' ? SPRAYED : BRUSHED),
  says: (step, k) => {
    const counted = step.fields.of !== undefined || step.fields.as === undefined
    return `${capital(called(step, k))}${useSaid(step)}${counted ? coatOf(step) : ''}`
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
  fields: ['of'],
  inOrder: false,
  notes: NO_NOTES,
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
  fields: [],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: (step, k) =>
    step.product === 'alcohol'
      ? 'Let the old shellac flow with alcohol, pad after pad'
      : `Mist ${called(step, k)} with retarder until the film flows`,
}

export const COATS_ACTS = {
  'coat': coat,
  'amalgamate': amalgamate,
  'spot-coat': spotCoat,
} satisfies Partial<Record<StepKind, Act>>
