/** Questions to the shop's record. */
import { z } from 'zod'
import { PIECE_KINDS } from '../../core/estimate'
import { DECIMALS } from '../../core/formats'
import { CLASSES, rowNumber } from './fields'

export const RECORD_ASKS = [
  ...(['hours', 'pieces', 'people', 'amounts', 'spread', 'materials', 'waste', 'cost', 'earned'] as const),
  ...(['promises', 'missed', 'gates', 'lasts'] as const),
] as const
export type RecordAsk = (typeof RECORD_ASKS)[number]
const day = z.iso
  .date('Give a date.')
  .refine(d => /^20\d\d-/.test(d), 'Give a date of these years.')
  .nullable()
  .default(null)
export const RECORD_TIMES = ['year', 'all', 'between'] as const
export type RecordTime = (typeof RECORD_TIMES)[number]
/** `time`: null takes the question's usual one; `of`: lines of one figure; every other narrows, null leaves all. */
export const recordQuery = z.strictObject({
  ask: z.enum(RECORD_ASKS, { error: 'Choose a question.' }).default('hours'),
  of: z.string().max(160).nullable().default(null),
  time: z.enum(RECORD_TIMES, { error: 'Choose a time.' }).nullable().default(null),
  from: day,
  to: day,
  kind: z.enum(PIECE_KINDS, { error: 'There is no such kind of piece.' }).nullable().default(null),
  wood: z.string().max(40).nullable().default(null),
  finish: z
    .enum(CLASSES as [string, ...string[]], { error: 'There is no such finish.' })
    .nullable()
    .default(null),
  person: rowNumber.nullable().default(null),
})
export const recordListQuery = recordQuery.extend({ decimal: z.enum(DECIMALS).default('point') })
