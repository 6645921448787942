/** Grain filling. */
import type { Context } from '../context'
import { taken } from '../materials'
import { type Act, always, ANY_GROUND, NO_CAUTION, NO_NOTES, NOT_DRYING, NOTHING_MADE, perM2 } from './act'
import type { Step, StepKind } from './step'
import { lay } from './surface'
import { D, fixed, H } from './wait'

const isOil = (step: Step, { shelf }: Pick<Context, 'shelf'>) => taken(shelf, step)?.base === 'oil'
const dwell = (step: Step, k: Context) =>
  isOil(step, k)
    ? fixed('dwell', 10, 15, 20, 'wipe when it hazes; left longer it sets', 30)
    : fixed('dwell', 0, 2, 5, 'scraped off at once', 10)
const WIPE_OFF_M2 = 10

const fill: Act = {
  called: 'fill',
  needs: { roles: ['filler'], always: true },
  usesUp: true,
  pace: perM2(15),
  methods: ['hand', 'brush'],
  makes: { ...NOTHING_MADE, vapour: true, water: true },
  does: ['looks'],
  ground: ANY_GROUND,
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
  layer: { follows: ['fill-off', 'sand-back'] },
  fields: [],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: always('Stir first: old paste filler takes 20 to 30 minutes. Tint it and try it under the finish.'),
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

export const FILLING_ACTS = {
  'fill': fill,
  'fill-off': fillOff,
} satisfies Partial<Record<StepKind, Act>>
