/** Washing, wiping wax and contamination off, taking dust off. */
import { type Act, ANY_GROUND, NO_CAUTION, NO_NOTES, NO_WAIT, NOT_DRYING, NOTHING_MADE, perM2, PLAIN } from './act'
import type { Fields, StepKind } from './step'
import { fixed, H } from './wait'
import { called } from './words'

const DUST_OFF: Record<NonNullable<Fields['dustBy']>, string> = {
  'tack-cloth': 'Vacuum, then tack cloth, lightly',
  'damp-cloth': 'Vacuum, then a barely damp cloth',
  'air-only': 'Air and vacuum only',
  'after-wet': 'Clean and let the water go',
}

const wash: Act = {
  called: 'wash',
  needs: { roles: ['cleaner'], always: true },
  usesUp: true,
  pace: perM2(6),
  methods: ['rag', 'hand'],
  makes: { ...NOTHING_MADE, vapour: true, water: true },
  does: ['cleans'],
  ground: ANY_GROUND,
  leaves: s => ({ ...s, dirty: false, waxed: false }),
  then: () => fixed('dry', 30, 30, H, 'the washed surface dries'),
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
  says: (step, k) => `Wash with ${called(step, k)}`,
}

const solventWash: Act = {
  called: 'solvent wash',
  needs: { roles: ['cleaner'], always: true },
  usesUp: true,
  pace: perM2(12),
  methods: ['rag', 'hand'],
  makes: { ...NOTHING_MADE, vapour: true },
  does: ['cleans'],
  ground: ANY_GROUND,
  leaves: s => ({
    ...s,
    films: s.films.filter(f => !(f.found && f.slug === 'wax')),
    dirty: false,
    waxed: false,
    contamination: s.contamination === 'untreated' ? 'washed' : s.contamination,
  }),
  then: () => fixed('dry', 30, 30, H, 'the solvent leaves the surface'),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: ['used'],
  layer: null,
  fields: ['against', 'where'],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: (step, k) =>
    step.fields.against === 'contamination'
      ? 'Solvent wash against contamination'
      : `Take ${(step.fields.against ?? 'wax').replace('-', ' ')} off with ${called(step, k)}`,
}

const cleanOff: Act = {
  called: 'clean off',
  needs: { roles: ['cleaner'], always: false },
  usesUp: true,
  pace: perM2(3),
  methods: ['rag', 'hand'],
  makes: NOTHING_MADE,
  does: ['cleans'],
  ground: ANY_GROUND,
  leaves: s => ({ ...s, dusty: false }),
  then: NO_WAIT,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: ['dustBy'],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: NO_NOTES,
  says: step => DUST_OFF[step.fields.dustBy ?? 'tack-cloth'],
}

const rinse: Act = {
  called: 'rinse',
  needs: null,
  usesUp: false,
  pace: perM2(20),
  methods: ['rag', 'hand'],
  makes: { ...NOTHING_MADE, water: true },
  does: ['cleans', 'floods'],
  ground: ANY_GROUND,
  leaves: s => ({ ...s, wet: null, grain: s.grain === 'cut' ? 'cut' : 'raised' }),
  then: () =>
    fixed(
      'dry',
      24 * H,
      36 * H,
      48 * H,
      'wood dries 24 to 48 h after the rinse, near equilibrium before anything goes on',
    ),
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: ['where'],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: true,
  notes: step =>
    step.fields.where === 'spots'
      ? ['A sponge, clean water, twice; wipe up at once.']
      : ['A cabinet takes 40 to 45 litres; little at a time on veneer.'],
  says: step =>
    step.fields.where === 'spots' ? 'Rinse the place, twice' : 'Rinse or neutralise as the kit says, buckets of water',
}

const wetOut: Act = {
  ...PLAIN,
  called: 'wet out and look',
  needs: { roles: ['cleaner'], always: true },
  pace: perM2(3),
  methods: ['rag'],
  makes: { ...NOTHING_MADE, vapour: true },
  then: () => fixed('dry', 20, 30, H, 'the spirit leaves the pores'),
  notes: step => [
    'Look along it while wet: scratches across, arcs of the sander, pale glue, dark old finish, the undertone.',
    ...(step.fields.after === 'bleach' ? ['Orange left? A paint wash before the sealer takes it back.'] : []),
    'Mark what shows as a finding: the plan then offers its mend. An indication of colour, no approval.',
  ],
  says: (step, k) => `Wet the wood out with ${called(step, k)}, and look`,
}

export const WASHING_ACTS = {
  'wet-out': wetOut,
  'wash': wash,
  'solvent-wash': solventWash,
  'clean-off': cleanOff,
  'rinse': rinse,
} satisfies Partial<Record<StepKind, Act>>
