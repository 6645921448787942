/** Metal, cane, leather and glass on a piece of furniture: parts with work of their own. */
import { type Act, always, NOTHING_MADE, perM2, PLAIN, SETUP_MIN } from './act'
import type { StepKind } from './step'
import { gritsSaid } from './words'

const derust: Act = {
  ...PLAIN,
  called: 'take rust off',
  pace: perM2(40),
  methods: ['hand', 'wet'],
  makes: { ...NOTHING_MADE, dust: true, wears: true },
  does: ['abrades'],
  fields: ['grits'],
  notes: always(
    'Wire brush, scraper, paper; pits stay. Sound old paint is feathered out.',
    'Degrease and prime the same day: bare iron rusts overnight in damp air.',
  ),
  says: step => `Rust off to sound metal, ${gritsSaid(step.grits)}`,
}

const brighten: Act = {
  ...PLAIN,
  called: 'brighten metal',
  pace: perM2(60),
  methods: ['rag', 'hand'],
  notes: always(
    'Metal polish without silicone, off with white spirit: what stays in the corners keeps a lacquer from holding.',
    'Old lacquer off first. Gilt and patinated mounts are only dusted.',
  ),
  says: () => 'Brighten the metal, and degrease it',
}

/** Taking one part out, or putting it back, with its screws, tacks or beads (shop default). */
const OUT_MIN = 15
const takeOut: Act = {
  ...PLAIN,
  called: 'take out',
  pace: (_step, faces) => SETUP_MIN + OUT_MIN * new Set(faces.map(f => f.part)).size,
  methods: ['hand'],
  notes: always('Photograph how it sits; bag and label what held it. It stands clean, dry and out of the dust.'),
  says: () => 'Take out what is no wood, and store it',
}
const putBack: Act = {
  ...PLAIN,
  called: 'put back',
  pace: (_step, faces) => SETUP_MIN + OUT_MIN * new Set(faces.map(f => f.part)).size,
  methods: ['hand'],
  notes: always('Not on a film that still prints: felt, or longer.'),
  says: () => 'Put back what was taken out',
}
const dampClean: Act = {
  ...PLAIN,
  called: 'clean cane or rush',
  pace: perM2(20),
  methods: ['rag', 'brush'],
  makes: { ...NOTHING_MADE, water: true },
  does: ['cleans'],
  notes: always('Barely damp, both sides, then dry with moving air. No stripper. A dry brush goes one direction.'),
  says: () => 'Clean the weave, barely damp',
}

export const NOT_WOOD_ACTS = {
  'derust': derust,
  'brighten': brighten,
  'take-out': takeOut,
  'put-back': putBack,
  'damp-clean': dampClean,
} satisfies Partial<Record<StepKind, Act>>
