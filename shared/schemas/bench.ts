/** Acts at the bench, alarms, the air, handing over. */
import { z } from 'zod'
import { FIELD_VALUES, HALVES, MEASURES, SEEN } from '../../core/acts'
import { DRY_TRIES } from '../../core/drying'
import { MOST_FACES } from '../../core/units'
import { text, maybeText, version, id, moment } from './fields'

/**
 * Of an act that was done without a line: whose it is, by a name alone or not, and the UUID of the act on the same step
 * that it follows, where that waited too. `piece` and `says` are for the log, where the step is no more.
 */
const late = z.strictObject({
  personId: id,
  byName: z.boolean().default(false),
  follows: z.uuid().nullable().default(null),
  pieceId: id,
  says: text('What it was', 300),
})
export type Late = z.infer<typeof late>
const command = { stepId: id, rowVersion: version, happenedAt: moment, late: late.optional() }
const bounded = ({ least, most }: { least: number; most: number }) =>
  z.number({ error: 'Give a number.' }).min(least, `At least ${least}.`).max(most, `At most ${most}.`).optional()
const measured = z.strictObject({
  before_mm: bounded(MEASURES.before_mm),
  hollow_before_mm: bounded(MEASURES.hollow_before_mm),
  thickness_mm: bounded(MEASURES.thickness_mm),
  taken_mm: bounded(MEASURES.taken_mm),
  hollow_mm: bounded(MEASURES.hollow_mm),
  shiny: bounded(MEASURES.shiny),
  moisture_pct: bounded(MEASURES.moisture_pct),
  film_um: bounded(MEASURES.film_um),
  gun: maybeText(200).optional(),
  halves: z.enum(HALVES).optional(),
})
const used = (unit: string) =>
  z
    .number({ error: `Give the amount in ${unit}.` })
    .min(0, 'An amount cannot be below zero.')
    .max(100_000)
/** What was used, from a lot or from a pot; `word`: why so much, or why another product. */
const usedOfLot = z.strictObject({ lotId: id, amountMl: used('ml'), word: maybeText(300) })
const usedOfPot = z.strictObject({ batchId: id, amountG: used('g'), word: maybeText(300) })
export const benchCommand = z.discriminatedUnion(
  'kind',
  [
    /** `outside`: dusty work that is carried out of the building today */
    z.strictObject({ kind: z.literal('start'), outside: z.boolean().default(false), ...command }),
    z.strictObject({
      kind: z.literal('finish'),
      ...command,
      gate: z.enum(['pass', 'fail']).nullable().default(null),
      used: z
        .array(z.union([usedOfLot, usedOfPot]))
        .max(5)
        .default([]),
      note: maybeText(500),
      /** what showed at the end, where the step asks for it */
      seen: z.enum(SEEN).nullable().default(null),
      /** faces on which its round did not pass: one more on those */
      again: z.array(id).max(MOST_FACES, 'Choose fewer faces.').default([]),
      strength: z.enum(FIELD_VALUES.strength).optional(),
      measured: measured.default({}),
    }),
    z.strictObject({ kind: z.literal('pause'), ...command }),
    /** nobody named: who acts; while others have it in hand, one more helps */
    z.strictObject({ kind: z.literal('go-on'), personId: id.optional(), ...command }),
    z.strictObject({ kind: z.literal('hand-on'), personId: id, ...command }),
    z.strictObject({ kind: z.literal('spell-back'), ...command }),
    z.strictObject({
      kind: z.literal('correct'),
      ...command,
      spellId: id,
      from: moment,
      to: moment.nullable(),
      word: text('A word why', 300),
    }),
    z.strictObject({ kind: z.literal('note'), ...command, says: text('The note', 800) }),
    /** `by`: what it was tried by; `until`: the next look, where another was wished than the proposed one */
    z.strictObject({
      kind: z.literal('not-dry'),
      ...command,
      by: z.enum(DRY_TRIES).nullable().default(null),
      until: moment.nullable().default(null),
    }),
    z.strictObject({ kind: z.literal('dry'), ...command, by: z.enum(DRY_TRIES).nullable().default(null) }),
    z.strictObject({ kind: z.literal('mixed'), ...command }),
    z.strictObject({ kind: z.literal('section'), what: z.enum(['on', 'off', 'back']), ...command }),
    z.strictObject({ kind: z.literal('undo'), ...command }),
  ],
  { error: 'This is no act at the bench.' },
)
export type BenchCommand = z.infer<typeof benchCommand>
/** What was held: both worked, the times were others, or it is taken back. */
export const settleLate = z.discriminatedUnion('way', [
  z.strictObject({ way: z.literal('both') }),
  z.strictObject({ way: z.literal('times'), from: moment, to: moment }),
  z.strictObject({ way: z.literal('back') }),
])
/** What was entered by a name alone: was it this person? */
export const nameLate = z.strictObject({ ids: z.array(id).min(1).max(200), mine: z.boolean() })
/** `personId`: who heard, on a tablet at which nobody is signed in. */
export const alarmAck = z.strictObject({
  pieceId: id,
  from: text('The step', 60),
  to: text('The step', 60),
  personId: id.optional(),
})
export const airReading = z.strictObject({
  temperature_C: z.number({ error: 'Give °C.' }).min(-20, 'Below any shop.').max(60, 'Above any shop.'),
  rh_pct: z.number({ error: 'Give %.' }).min(1, '1 to 100 %.').max(100, '1 to 100 %.'),
  /** a room with a logger of its own; none: the shop */
  roomId: id.nullable().default(null),
})
const column = z.number().int().min(0).max(200)
export const airLog = z.strictObject({
  text: z
    .string({ error: 'Choose a file.' })
    .min(1, 'The file is empty.')
    .max(2_000_000, 'That file is too long: 2 MB at most.'),
  /** where each figure stands, from 0, where the file does not say it */
  columns: z
    .strictObject({
      time: column,
      day: column.nullable(),
      temperature: column,
      humidity: column,
      fahrenheit: z.boolean(),
    })
    .optional(),
})
/** A path of pen strokes, in a box of 300 × 100. */
const signature = z
  .string()
  .max(20_000, 'Too long a signature.')
  .regex(/^(M\d{1,3}(\.\d)? \d{1,3}(\.\d)?( L\d{1,3}(\.\d)? \d{1,3}(\.\d)?)* ?)*$/, 'This is no signature.')
/** `part`: it goes home with steps open; the owner goes on alone. `remind`: by the client's leave */
export const handOver = z.strictObject({
  rowVersion: version,
  to: text('Who takes it'),
  part: z.boolean().default(false),
  signature: signature.default(''),
  remind: z.boolean().default(false),
})
