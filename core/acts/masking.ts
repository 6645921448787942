/** Taking apart, covering, masking, turning over, and putting together again. */
import { type Face, partsToTakeOff } from '../piece'
import { sumOf } from '../units'
import { type Act, always, perM2, PLAIN, SETUP_MIN } from './act'
import type { StepKind } from './step'

const FINISH_UP_MIN = 15
/** Taking apart, and putting together again, per part beside the largest (shop default). */
const PER_PART_MIN = 5
const MASKING_MIN_PER_M = 4
/** About the rim of all faces laid side by side. */
const rim_min = (_step: unknown, faces: readonly Face[]) =>
  SETUP_MIN + MASKING_MIN_PER_M * 4 * Math.sqrt(sumOf(faces, f => f.area_m2))
const PREPARING = { ...PLAIN, methods: ['none', 'hand'] } as const

const takeApart: Act = {
  ...PREPARING,
  called: 'take apart',
  pace: (_step, faces) => SETUP_MIN + PER_PART_MIN * partsToTakeOff(faces),
  notes: always(
    'Mark each part and bag its screws before the next comes off.',
    'A table with leaves: open it and take them out; it needs its whole length on trestles.',
  ),
  says: () => 'Take off leaves, doors, drawers and hardware; mark each',
}

const cover: Act = {
  ...PREPARING,
  called: 'cover and tape',
  pace: rim_min,
  notes: always(
    'Plastic on the floor, the base wrapped.',
    'Tape about 6 mm in from an edge, a card strip in a rule joint or groove.',
  ),
  says: () => 'Cover and tape, 6 mm in from the edges',
}

const mask: Act = {
  ...PREPARING,
  called: 'mask',
  pace: rim_min,
  notes: always('Tape on the rim only, lifted soon; press its edge down.'),
  says: () => 'Mask what is left alone; paper over faces, tape on the rim only',
}

/** Lifting, turning, and laying down again on what leaves no mark, for each board (shop default). */
const PER_BOARD_MIN = 4
const turn: Act = {
  ...PREPARING,
  called: 'turn over',
  pace: (_step, faces) => PER_BOARD_MIN * sumOf(faces, f => f.copies / 2),
  methods: ['hand'],
  notes: always(
    'Two people on a long board. Lay it on clean padded battens or points, at the places that show least.',
    'A cloth sticks to a film that is not hard. If it prints: up again, and longer.',
  ),
  says: () => 'Turn over: the finished side comes to lie',
}

const unmask: Act = {
  ...PREPARING,
  called: 'unmask',
  pace: perM2(2),
  does: ['ends'],
  notes: always('Away from the fresh colour. A bleed-under comes off with a nearly dry thinner rag.'),
  says: () => 'Peel the masking toward the masked side, slowly',
}

const finishUp: Act = {
  ...PREPARING,
  called: 'put together',
  pace: (_step, faces) => FINISH_UP_MIN + PER_PART_MIN * partsToTakeOff(faces),
  does: ['ends'],
  says: () => 'Put together, look over, label',
}

export const MASKING_ACTS = {
  'take-apart': takeApart,
  'cover': cover,
  'mask': mask,
  'turn': turn,
  'unmask': unmask,
  'finish-up': finishUp,
} satisfies Partial<Record<StepKind, Act>>
