/** Rooms, what stands in them, and when people are there. */
import { z } from 'zod'
import { SKILLS } from '../../core/schedule/model'
import { id, length, maybeText, moment, placeMark, text, version } from './fields'

const some = (most: number, message: string) =>
  z.number({ error: message }).positive(message).max(most, message).nullable().default(null)

export const roomBody = z.strictObject({
  name: text("The room's name", 60),
  dust: z.boolean(),
  wet: z.boolean(),
  other: z.boolean(),
  outdoors: z.boolean().default(false),
  oneAtATime: z.boolean().default(false),
  changeOverMin: z
    .number({ error: 'How many minutes?' })
    .int('Whole minutes.')
    .min(0, 'No less than none.')
    .max(1440, 'A day at the most.'),
  length: length.or(z.literal('')).default(''),
  volume_m3: some(100_000, 'Cubic metres, above zero and to 100000.'),
  airChanges_h: some(500, 'Air changes an hour, above zero and to 500.'),
  /** the name of its own climate logger; none: the air of the shop, and outdoors the weather */
  logger: maybeText(40),
})
export const changeRoom = roomBody.extend({ rowVersion: version })
export const addRack = z.strictObject({
  roomId: id,
  code: placeMark,
  kind: z.enum(['rack', 'trestles'], { error: 'A rack, or trestles.' }),
  area_m2: some(1000, 'Square metres, above zero and to 1000.'),
  length: length.or(z.literal('')).default(''),
})

const day = z.iso.date('Give a date.').refine(d => /^20\d\d-/.test(d), 'Give a date of these years.')
const minute = z.number({ error: 'Give a time of the day.' }).int().min(0).max(1440, 'A day ends at 24:00.')
/** Openings of one day: in order, apart, each ending after it begins. */
export const openings = z
  .array(z.tuple([minute, minute]))
  .max(4, 'Four openings a day at the most.')
  .refine(spans => spans.every(([from, to]) => from < to), 'Each opening ends after it begins.')
  .refine(spans => spans.every(([from], i) => i === 0 || from >= spans[i - 1]![1]), 'Two of these hours overlap.')
export const daysOff = z
  .array(
    z
      .strictObject({ from: day, until: day, why: maybeText(120) })
      .refine(o => o.from <= o.until, { error: 'It ends before it begins.', path: ['until'] }),
  )
  .max(200, 'Fewer days off.')
  .refine(all => new Set(all.map(o => o.from)).size === all.length, 'Two of these begin on one day.')
/** When somebody is there and what they do; no week: the shop's hours, no skill: all of them. */
export const presenceChange = z.strictObject({
  rowVersion: version,
  skills: z.array(z.enum(SKILLS)).max(SKILLS.length),
  week: z.array(openings).length(7, 'A week has seven days.').nullable(),
  off: daysOff,
})
/** From when work teaches minutes; null: all of it. */
export const pacesFrom = z.strictObject({ from: moment.nullable() })
export const fetchDays = z.strictObject({
  weekdays: z
    .array(z.number().int().min(1).max(7))
    .max(7)
    .refine(d => new Set(d).size === d.length, 'One of these days stands there twice.'),
})
export const holidaysFile = z.strictObject({
  text: z.string().min(1, 'The file is empty.').max(2_000_000, 'Too large.'),
})

/** The week that begins on a day. */
export const timetableQuery = z.strictObject({ from: day.optional() })
/** Lives of the schedule, in parts of some hundred. */
export const promiseQuery = z.strictObject({ part: z.coerce.number().int().min(1).max(8) })
/** What may help a promise, each tried by itself. */
export const HELPS = ['rush', 'answered', 'booth', 'helper'] as const
export const promiseHelp = z.strictObject({ by: day, kind: z.enum(HELPS) })

/** A calendar to be read elsewhere: of one person, of one room, or of promised days. */
export const feedBody = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('person'), personId: id }),
  z.strictObject({ kind: z.literal('room'), roomId: id }),
  z.strictObject({ kind: z.literal('promised') }),
])
const inOrder = (c: { from: string; until: string }) => c.from <= c.until
const ENDS = { error: 'It ends before it begins.', path: ['until'] }
const rush = z.strictObject({ kind: z.literal('rush'), pieceId: id, by: day })
const away = z.strictObject({ kind: z.literal('away'), personId: id, from: day, until: day }).refine(inOrder, ENDS)
const wet = z.strictObject({ kind: z.literal('wet'), from: day, until: day }).refine(inOrder, ENDS)
/** One thing that might be otherwise. */
export const whatIf = z.discriminatedUnion('kind', [rush, away, wet, z.strictObject({ kind: z.literal('booth') })])
/** What of it somebody can decide. */
export const takeChange = z.discriminatedUnion('kind', [rush, away])
/** A step is held where somebody put it; nobody or no room named: whoever and wherever it fits. */
export const pinStep = z.strictObject({ startsAt: moment, personId: id.nullable(), roomId: id.nullable() })
