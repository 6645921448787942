/** What is decided or judged, not made: the client's word, gates, a conservator. And what none of the acts names. */
import {
  type Act,
  ANY_GROUND,
  AS_IT_WAS,
  minutes,
  NO_CAUTION,
  NO_NOTES,
  NO_WAIT,
  NOT_DRYING,
  NOTHING_MADE,
} from './act'
import type { GateSlug, Step, StepKind } from './step'
import { fixed } from './wait'

const JUDGING = {
  needs: null,
  usesUp: false,
  methods: ['none', 'hand'],
  makes: NOTHING_MADE,
  does: [],
  ground: ANY_GROUND,
  leaves: AS_IT_WAS,
  then: NO_WAIT,
  open: NOT_DRYING,
  late: 'nothing',
  rounds: null,
  asks: [],
  layer: null,
  fields: [],
  cautions: NO_CAUTION,
  inOrder: false,
  byHand: false,
  notes: NO_NOTES,
} as const

const approval: Act = {
  ...JUDGING,
  called: "client's word",
  pace: minutes(0),
  does: ['words'],
  then: () => fixed('answer', 0, 0, 0, "the client's word"),
  says: () => "Client's word on route and price",
}

const GATE_TITLES: Record<GateSlug, (step: Step) => string> = {
  'wetting-test': () => 'Wetting test: does water spread evenly?',
  'sealer-judged': () => 'Judge the sealer',
  'film-flowed': () => 'Has the film flowed together?',
  'moisture': step =>
    step.fields.most_pct ? `Moisture: ${step.fields.most_pct} % at the most` : 'Moisture of the wood',
  'barrier-clear': () => 'Fish eyes in the barrier?',
  'adhesion': () => 'Does the first coat hold?',
  'polished': () => 'Is the polish free of scratches?',
}
const gate: Act = {
  ...JUDGING,
  called: 'gate',
  pace: minutes(5),
  asks: ['gate'],
  fields: ['most_pct'],
  says: step => (step.gate ? GATE_TITLES[step.gate.slug](step) : 'Look it over'),
}

const refer: Act = {
  ...JUDGING,
  called: 'refer',
  pace: minutes(30),
  says: () => 'Hand over to a conservator or a licensed firm, with the condition report',
}

const other: Act = {
  ...JUDGING,
  called: 'other',
  pace: minutes(8),
  byHand: true,
  methods: ['hand', 'none'],
  says: () => 'Something else',
}

export const JUDGING_ACTS = {
  approval: approval,
  refer: refer,
  gate: gate,
  other: other,
} satisfies Partial<Record<StepKind, Act>>
