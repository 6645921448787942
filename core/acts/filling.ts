/** Grain filling. */
import { P } from '../abrasives'
import type { Context } from '../context'
import { taken, type Taken } from '../materials'
import { wetOnly, workArea_m2 } from '../piece'
import { sumOf } from '../units'
import {
  type Act,
  always,
  AS_PRODUCT,
  plainLayer,
  SETUP_MIN,
  ANY_GROUND,
  NO_CAUTION,
  NO_NOTES,
  NOT_DRYING,
  NOTHING_MADE,
  perM2,
  type Unfit,
} from './act'
import type { Step, StepKind } from './step'
import { lay, type Surface } from './surface'
import { D, fixed, H } from './wait'

const isOil = (step: Taken, { shelf }: Pick<Context, 'shelf'>) => taken(shelf, step)?.base === 'oil'
const dwell = (step: Step, k: Context) =>
  isOil(step, k)
    ? fixed('dwell', 10, 15, 20, 'wipe when it hazes; left longer it sets', 30)
    : fixed('dwell', 0, 2, 5, 'scraped off at once', 10)
const WIPE_OFF_M2 = 10

/** More film than a thin sealer has closed the pores, µm (shop default). */
const PORES_OPEN_UM = 40
/** Filler goes on bare or thinly sealed wood. */
function closed(s: Surface): Unfit | null {
  const found = s.films.find(f => f.found)
  if (found)
    return { rule: 'filler-on-film', says: `an old film of ${found.slug.replaceAll('-', ' ')} lies in the pores` }
  const film_um = sumOf(s.films, f => f.dry_um)
  return film_um > PORES_OPEN_UM
    ? { rule: 'filler-on-film', says: `${Math.round(film_um)} µm of film have closed the pores` }
    : null
}

const FILL_M2 = 15
/** Solids of a paste filler settle like concrete: stirring takes 20 to 30 minutes the first time (common practice). */
const STIR_MIN = 25
const fill: Act = {
  called: 'fill',
  needs: { roles: ['filler'], always: true },
  usesUp: true,
  pace: (step, faces, k) =>
    SETUP_MIN + workArea_m2(faces) * FILL_M2 * step.passes + (isOil(step, k) && (step.coat ?? 1) === 1 ? STIR_MIN : 0),
  methods: ['hand', 'brush'],
  makes: { ...NOTHING_MADE, vapour: true, water: true },
  does: ['looks'],
  ground: closed,
  leaves: (s, step, k) => lay(step, s, k),
  then: (step, _next, k) => dwell(step, k),
  open: (step, k) => {
    const wait = dwell(step, k)
    return {
      open_min: wait.max! - wait.likely,
      min_m2: WIPE_OFF_M2,
      says: `wiped between ${wait.likely} and ${wait.max} min`,
    }
  },
  late: 'soften',
  rounds: {
    with: [
      { kind: 'fill-off', stands: 'after' },
      { kind: 'sand-back', stands: 'after' },
    ],
    worst: null,
    passes: 'Level pores in raking light.',
  },
  asks: ['used'],
  layer: plainLayer(240, 'the pores of open wood show pits under a film', {
    apart: 6,
    everyday: 'pores filled with',
    rounds: AS_PRODUCT,
    dusty: true,
    after: ({ step, k }) => [
      {
        kind: 'fill-off',
        why: isOil(step, k) ? 'when it hazes; left longer it sets like stone' : 'no cloudiness may stay',
        takesProduct: true,
        method: 'rag',
        fields: { wipe: step.fields.wipe ?? k.house['fill-wipe'] },
      },
      {
        kind: 'sand-back',
        why: 'filler on the surface greys the finish',
        grits: [P(isOil(step, k) ? 320 : 220)],
        method: wetOnly(k.facts) ? 'wet' : 'hand',
      },
    ],
  }),
  fields: [],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: always(
    'Stir first: old paste filler takes 20 to 30 minutes, counted here. Tint it and try it under the finish.',
  ),
  says: (step, k) => {
    if (isOil(step, k)) return 'Paste filler, thinned to a slow thread, across the grain'
    return `Grain filler, ${(step.coat ?? 1) === 1 ? 'stiff' : 'runny'}, trowelled across`
  },
}

const fillOff: Act = {
  called: 'wipe filler off',
  needs: { roles: ['filler'], always: false },
  usesUp: false,
  pace: perM2(WIPE_OFF_M2),
  methods: ['rag', 'hand'],
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['cleans'],
  ground: ANY_GROUND,
  leaves: s => ({ ...s, wet: null }),
  then: (step, _next, k) =>
    isOil(step, k)
      ? fixed('dry', D, D, 2 * D, 'paste filler 24 h, thick fills longer')
      : fixed('dry', 2 * H, 3 * H, 4 * H, 'waterborne filler dries'),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: ['wipe'],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: (step, k) => {
    if (!isOil(step, k)) return 'Scrape off with a steep blade'
    return step.fields.wipe === 'with'
      ? 'Wipe with the grain'
      : 'Wipe across the grain with burlap, then very lightly with it'
  },
}

/** Putty in thin layers on a surfaced film that opaque colour will cover. */
const putty: Act = {
  called: 'putty',
  needs: { roles: ['putty'], always: true },
  usesUp: true,
  pace: perM2(8),
  methods: ['hand'],
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['looks'],
  ground: ANY_GROUND,
  leaves: s => s,
  then: () => fixed('dry', 30, H, 2 * H, 'putty dries in thin layers, under 250 µm each'),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: { with: [], worst: 2, passes: 'No pit and no scratch shows in raking light.' },
  asks: ['used'],
  layer: plainLayer(520, 'pits and scratches would show in the colour', {
    apart: 4,
    after: ({ k }) => [
      {
        kind: 'sand-coat',
        why: 'flat, or its edge shows in the colour',
        grits: [P(320)],
        method: wetOnly(k.facts) ? 'wet' : 'hand',
      },
    ],
  }),
  fields: [],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: always('Thin layers, one dry before the next.'),
  says: () => 'Putty into pits and scratches, in thin layers',
}

export const FILLING_ACTS = {
  'putty': putty,
  'fill': fill,
  'fill-off': fillOff,
} satisfies Partial<Record<StepKind, Act>>
