/** The logbook: which of its entries are read. */
import { z } from 'zod'
import { rowNumber } from './fields'

/** Kinds of entry that are read together; what belongs to none is the shop's own. */
export const LOG_GROUPS = {
  work: [
    ...['started', 'finished', 'gate', 'ready', 'undone', 'paused', 'gone-on', 'handed-on', 'corrected', 'section'],
    ...['mixed', 'dry', 'not-dry', 'moisture', 'alarm', 'place', 'handed-over', 'late'],
  ],
  notes: ['note', 'photograph'],
  client: ['asked', 'question', 'answer', 'reply', 'mail', 'ask', 'taken-in', 'client'],
  overruled: ['overruled'],
  examined: [
    ...['finding', 'test', 'walk', 'patch', 'examination', 'lead', 'evidence', 'face', 'part', 'item', 'finish'],
    ...['changed', 'bare'],
  ],
  planned: ['plan', 'route', 'colour', 'recipe', 'pot', 'try', 'pour'],
} as const
export type LogGroup = keyof typeof LOG_GROUPS
const GROUPS = Object.keys(LOG_GROUPS) as [LogGroup, ...LogGroup[]]
const filters = { group: z.enum(GROUPS).optional(), person: rowNumber.optional() }
const day = z.iso.date({ error: 'This is no day.' })

/** What is looked for: letters, a number, or the address on a label. */
export const findQuery = z.strictObject({
  q: z.string().trim().min(1, 'Type what you look for.').max(100, 'Too long.'),
})
export const logQuery = z.strictObject(filters)
/** A day of the whole shop. */
export const dayLogQuery = z.strictObject({ day: day.optional(), ...filters })
/** A piece, or a day of the shop. */
export const exportLogQuery = z.strictObject({ piece: rowNumber.optional(), day: day.optional(), ...filters })
