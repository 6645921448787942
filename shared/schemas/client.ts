/** What clients are asked and answer. */
import { z } from 'zod'
import { LIGHTS } from '../../core/colour/lights'
import { FINISHES } from '../../core/materials'
import { LABEL_STOCKS } from '../../core/papers/labels'
import { LETTER_KINDS, unknownFills } from '../../core/papers/letter'
import { PAPER_SIZES } from '../../core/papers/paper'
import { OWN_ROUTES } from '../../core/piece/ground'
import { address } from './examination'
import { id, maybeText, slugOf, text, version } from './fields'

/** `to`: the address to send it to this time; it becomes the client's. */
export const mailAgain = z.strictObject({
  rowVersion: version,
  to: z.email('This is no mail address.').max(200).optional(),
})
export const mailBack = z.strictObject({ rowVersion: version, says: maybeText(200) })
const filled = (name: string, most: number) =>
  maybeText(most).refine(words => unknownFills(words).length === 0, {
    error: `${name}: only {piece}, {client} and {shop} can be filled in.`,
  })
/** The house's words for letters of one kind; both empty: the usual ones again. */
export const letterWords = z.strictObject({
  kind: z.enum(LETTER_KINDS),
  subject: filled('Subject', 120),
  words: filled('Words', 1000),
})
export const tellReady = z.strictObject({ rowVersion: version, by: z.enum(['mail', 'word']) })
export const pageWords = z.strictObject({ words: maybeText(1000) })
export const releaseMail = z.strictObject({})
export const noBody = z.strictObject({})
const minor = z.number().int('A price in whole cents.').min(0, 'Not below nothing.').max(100_000_000, 'Too much.')
const daysMore = z.number().int().min(0).max(365, 'A year at most.')
const PRICELESS = { replace: 0, match: 0, leave: 0 }
const BESIDE = [...FINISHES, ...OWN_ROUTES] as const
/** A question to a client: what is asked, with words, and how long it waits. */
export const ask = z.strictObject({
  words: maybeText(1000),
  days: z.number().int().min(1).max(90).default(14),
  /** the plan as it stands; and beside it the same with other finishes, or by other ways */
  surface: z.boolean().default(true),
  beside: z.array(slugOf(BESIDE, 'Choose a finish or a way.')).max(2, 'Two beside it at most.').default([]),
  /** what was found since the plan was made */
  found: z.boolean().default(false),
  /** more work, at its price with tax */
  work: z
    .array(z.strictObject({ says: text('What is to be done', 200), priceMinor: minor, days: daysMore.default(0) }))
    .max(3, 'Three at most.')
    .default([]),
  hardware: z
    .array(
      z.strictObject({
        itemId: id,
        prices: z.strictObject({ replace: minor, match: minor, leave: minor }).default(PRICELESS),
        days: daysMore.default(0),
      }),
    )
    .max(6, 'Six at most.')
    .default([]),
  bands: z.array(id).max(4, 'Four bands at most.').default([]),
  light: z.enum(LIGHTS).default('d65'),
  dueOn: z.iso.date('This is no day.').nullable().default(null),
  /** the most that it may cost from now on, with tax */
  mostMinor: minor.nullable().default(null),
  photographs: z.array(address).max(6, 'Six photographs at most.').default([]),
})
/** What is said to one item: the number of an option, from 0; no; or that it wants talking about. */
const reply = z.union([z.number().int().min(0).max(9), z.literal('no'), z.literal('talk')], {
  error: 'Choose an answer.',
})
export const replies = z
  .array(z.strictObject({ no: z.number().int().min(1).max(20), reply }))
  .max(20)
  .refine(all => new Set(all.map(a => a.no)).size === all.length, { error: 'One answer to each.' })
export const clientAnswer = z
  .strictObject({
    /** the question that is answered; null: the link's own */
    questionId: id.nullable().default(null),
    replies: replies.default([]),
    /** a question back */
    asks: maybeText(1000),
    name: maybeText(120),
    says: maybeText(1000),
  })
  .refine(a => a.replies.length > 0 || a.asks.length > 0, { error: 'Choose an answer.', path: ['replies'] })
  .refine(a => a.replies.length === 0 || a.name.length > 0, { error: 'Write your name.', path: ['name'] })
export const recordAnswer = z.strictObject({
  replies: replies.min(1, 'Choose an answer.'),
  via: z.enum(['phone', 'counter']),
  name: text('Who said it'),
  says: maybeText(1000),
})
export const quote = z.strictObject({ words: maybeText(1000), by: z.enum(['stage', 'part']).default('stage') })
/** How quotations are made: how long they hold, what is asked for before work begins, the house's words. */
export const quoting = z.strictObject({
  days: z.number().int().min(1, 'One day at least.').max(365, 'A year at most.'),
  depositBp: z.number().int().min(0).max(10_000, '100 % at most.'),
  freeDays: z.number().int().min(0).max(365, 'A year at most.'),
  dayMinor: minor,
  words: maybeText(1000),
  by: z.enum(['stage', 'part']).default('stage'),
})
export const deposit = z.strictObject({ rowVersion: version, minor })
export const paperQuery = z.strictObject({ size: z.enum(PAPER_SIZES).optional() })
/** `part`: what it says if the piece goes home part done */
export const careQuery = paperQuery.extend({ part: z.literal('yes').optional() })
/** Labels on the size of their kind, a 57×32 mm roll, or a sheet whose cells before `from` are used up. */
export const labelQuery = paperQuery.extend({
  stock: z.enum(LABEL_STOCKS).default('own'),
  from: z.coerce.number().int().min(1).max(30).default(1),
})
export const pieceLabelQuery = labelQuery.extend({ of: z.enum(['piece', 'parts', 'hidden']).default('piece') })
export const reminding = z.strictObject({
  days: z.number().int().min(0).max(60, '60 days at most.'),
  most: z.number().int().min(0).max(5, 'Five times at most.'),
})
export const replyWord = z.strictObject({ says: text('Your answer', 1000) })
