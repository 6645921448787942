/** Oil and wax. */
import type { Context } from '../context'
import { materialOf, type Material, taken, type Taken } from '../materials'
import {
  type Act,
  always,
  AS_PRODUCT,
  plainLayer,
  ANY_GROUND,
  NO_CAUTION,
  NO_NOTES,
  NO_WAIT,
  NOT_DRYING,
  NOTHING_MADE,
  perM2,
} from './act'
import { useSaid } from './coats'
import type { StepKind } from './step'
import { isBare, lay } from './surface'
import { drying, D, fixed, ONE_AFTER_THE_OTHER } from './wait'
import { called, capital, coatOf } from './words'

const WIPE_OFF_M2 = 8
const dwell = (m: Material) =>
  m.slug === 'varnish-oil'
    ? fixed('dwell', 30, 40, 50, 'wipe all of it off 30 to 60 min after it went on', 60)
    : fixed('dwell', 5, 15, 30, `all excess off within ${m.wipe_min} min`, m.wipe_min)
/** Plans stored before oils were told apart carry no product here. */
const oilOf = (step: Taken, { shelf }: Context) => taken(shelf, step) ?? materialOf('varnish-oil')

const oilOn: Act = {
  called: 'oil on',
  needs: { roles: ['oil'], always: true },
  usesUp: true,
  pace: perM2(8),
  methods: ['rag', 'brush'],
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['covers', 'finishes', 'lingers'],
  ground: s =>
    isBare(s)
      ? null
      : { rule: 'oil-on-sealed-surface', says: `${s.films.at(-1)!.slug.replaceAll('-', ' ')} seals the wood` },
  leaves: (s, step, k) => lay(step, s, k),
  // only wiping it off closes the window; what comes later waits from there
  then: (step, next, k) => (next.kind === 'oil-off' ? dwell(oilOf(step, k)) : ONE_AFTER_THE_OTHER),
  open: (step, k) => {
    const wait = dwell(oilOf(step, k))
    return {
      open_min: wait.max! - wait.likely,
      min_m2: WIPE_OFF_M2,
      says: `wiped off between ${wait.likely} and ${wait.max} min`,
    }
  },
  late: 'wet-again',
  rounds: {
    with: [{ kind: 'oil-off', stands: 'after' }],
    worst: null,
    passes: 'Even sheen in raking light; the wood drinks no more.',
  },
  asks: ['used', 'mixed'],
  layer: {
    place: use => (use === 'under-shellac' ? 390 : 510),
    apart: 10,
    rounds: AS_PRODUCT,
    finish: true,
    why: ({ step }) => {
      if (step.fields.as) return 'deepens the figure under shellac'
      return step.product === 'hardwax-oil-2c'
        ? 'one coat: a second finds nothing to hold on'
        : 'keep it wet until it is wiped'
    },
    after: ({ step }) => [
      {
        kind: 'oil-off',
        why: step.fields.as ? 'what stays on floats up into the shellac' : 'what stays on goes sticky',
        takesProduct: true,
        method: 'rag',
        fields: step.fields.of ? { of: step.fields.of } : {},
      },
    ],
    everyday: 'oiled with',
  },
  fields: ['as', 'of'],
  cautions: NO_CAUTION,
  inOrder: true,
  byHand: true,
  notes: always('Feed thirsty spots; keep it wet until it is wiped.'),
  says: (step, k) => {
    if (step.fields.as) return `${capital(called(step, k))}${useSaid(step)}`
    const feed = step.product === 'varnish-oil' ? '; feed thirsty spots at 10 to 15 min' : ''
    return `${capital(called(step, k))} on${coatOf(step)}${feed}`
  },
}

const oilOff: Act = {
  called: 'wipe oil off',
  needs: { roles: ['oil'], always: false },
  usesUp: false,
  pace: perM2(WIPE_OFF_M2),
  methods: ['rag'],
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['cleans'],
  ground: ANY_GROUND,
  leaves: s => ({ ...s, wet: null }),
  then: (step, next, k) => {
    const oil = oilOf(step, k)
    if (oil.slug === 'boiled-linseed' && next.kind === 'coat')
      return fixed('dry', 14 * D, 14 * D, 21 * D, 'boiled linseed about 14 days before shellac, or bubbles')
    return next.kind === 'oil-on'
      ? drying(oil, [D, D], 'recoat', 'label 24 h; in a cool shop up to 4 days. The rag tells', k.air)
      : drying(oil, [D, oil.handle_min], 'dry', 'dry enough to handle when the rag picks up nothing', k.air)
  },
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: ['of'],
  cautions: () => ['oily-rags'],
  inOrder: false,
  byHand: true,
  notes: always('All of it, corners too. Rags flat outdoors or under water.'),
  says: step => `Wipe all oil off${step.fields.of ? coatOf(step) : ''}`,
}

const wax: Act = {
  called: 'wax',
  needs: { roles: ['wax'], always: true },
  usesUp: true,
  pace: perM2(12),
  methods: ['rag', 'brush'],
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['covers'],
  ground: ANY_GROUND,
  leaves: s => ({ ...s, waxed: true }),
  then: NO_WAIT,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: ['used'],
  layer: plainLayer(510, 'thin, hazed, buffed', {
    apart: 10,
    rounds: m => m?.coats[1] ?? 1,
    finish: true,
    everyday: 'waxed with',
  }),
  fields: ['of'],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: step => (step.fields.of ? `Wax${coatOf(step)}, buffed` : 'Wax thin, let haze, buff'),
}

export const OILS_ACTS = {
  'oil-on': oilOn,
  'oil-off': oilOff,
  'wax': wax,
} satisfies Partial<Record<StepKind, Act>>
