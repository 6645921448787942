/** What clients are asked and answer. */
import { z } from 'zod'
import { ITEM_ANSWERS } from '../../core/parts'
import { text, maybeText, version } from './fields'

/** `to`: the address to send it to this time; it becomes the client's. */
export const mailAgain = z.strictObject({
  rowVersion: version,
  to: z.email('This is no mail address.').max(200).optional(),
})
export const releaseMail = z.strictObject({})
export const ask = z.strictObject({ words: maybeText(1000), days: z.number().int().min(1).max(90).default(14) })
export const clientAnswer = z
  .strictObject({
    kind: z.enum(['yes', 'no', 'question', ...ITEM_ANSWERS]),
    name: maybeText(120),
    says: maybeText(1000),
  })
  .refine(a => a.kind !== 'question' || a.says.length > 0, { error: 'Write your question.', path: ['says'] })
  .refine(a => a.kind === 'question' || a.name.length > 0, { error: 'Write your name.', path: ['name'] })
export const recordAnswer = z.strictObject({
  answer: z.enum(['yes', 'no', ...ITEM_ANSWERS]),
  via: z.enum(['phone', 'counter']),
  name: text('Who said it'),
  says: maybeText(1000),
})
export const replyWord = z.strictObject({ says: text('Your answer', 1000) })
