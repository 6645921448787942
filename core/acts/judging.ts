/** What is decided or judged, not made: the client's word, gates, a conservator. And what none of the acts names. */
import { type Act, minutes, PLAIN } from './act'
import type { GateSlug, Step, StepKind } from './step'
import { D, fixed, H } from './wait'

const JUDGING = { ...PLAIN, methods: ['none', 'hand'], byHand: false } as const

const approval: Act = {
  ...JUDGING,
  called: "client's word",
  pace: minutes(0),
  does: ['words'],
  then: () => fixed('answer', 0, 0, 0, "the client's word"),
  says: () => "Client's word on route and price",
}

/** A strip of the same wood, sanded alike, through every step in order (shop default). */
const TEST_PIECE_MIN = 25
const testPiece: Act = {
  ...JUDGING,
  called: 'test piece',
  pace: minutes(TEST_PIECE_MIN),
  methods: ['hand'],
  then: step =>
    step.fields.tried === 'in-place'
      ? fixed('dry', 3 * D, 3 * D, 4 * D, 'a stain of unknown kind counts as oil: 72 h before anything covers it')
      : fixed('dry', 4 * H, D, 2 * D, 'colour on the test piece is judged dry, under the finish'),
  byHand: true,
  fields: ['tried'],
  notes: step =>
    step.fields.tried === 'in-place'
      ? ['Ask what it was, and when. A white rag stays white on dry stain; paper loads where it is not dry.']
      : [
          'Scrap of the same wood, sanded alike: every step in order, finish and all. A band of each is kept.',
          'Colour and filler wait for it. Judged under the light of the room it goes to.',
        ],
  says: step =>
    step.fields.tried === 'in-place'
      ? 'Rag, dust, nose: is the stain dry? Then a test spot under the finish, where nobody looks'
      : 'Try it on scrap of the same wood, under the finish',
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
  'stain-holds': () => 'Does the finish hold on the stain?',
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
  'test-piece': testPiece,
  'approval': approval,
  'refer': refer,
  'gate': gate,
  'other': other,
} satisfies Partial<Record<StepKind, Act>>
