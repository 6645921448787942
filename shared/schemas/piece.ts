/** Taking a piece in and changing what is known of it. */
import { z } from 'zod'
import { LIGHTS } from '../../core/colour'
import { CONDITIONS, PIECE_KINDS } from '../../core/estimate/template'
import { FINISHES } from '../../core/materials'
import { PERIODS, PIECE_STATES, SHEENS, SUBSTRATES, TONES, USES } from '../../core/piece'
import { SHAPES } from '../../core/units'
import { SPECIES } from '../../core/wood'
import { id, written, text, maybeText, version, slugOf, length, moment, veneer, rowNumber } from './fields'

export const faceSchema = z.strictObject({
  name: text("The face's name", 80),
  rank: z.enum(['show', 'secondary', 'hidden']),
  shape: slugOf(SHAPES, 'Choose a shape.'),
  orientation: z.enum(['horizontal', 'vertical']),
  length,
  width: length,
  count: z
    .number({ error: 'How many? A whole number.' })
    .int('How many? A whole number.')
    .min(1, 'At least one.')
    .max(500, 'At most 500.'),
  species: slugOf(
    SPECIES.map(s => s.slug),
    'Choose a species.',
  ),
  substrate: z.enum(SUBSTRATES),
  veneer: veneer.or(z.literal('')).default(''),
})
export const partSchema = z.strictObject({
  name: text("The part's name", 80),
  scope: z.enum(['refinish', 'protect', 'match']),
  faces: z.array(faceSchema).min(1, 'A part needs one face at least.').max(60),
})
const someParts = z.array(partSchema).max(60)
const parts = someParts.min(1, 'Add one part at least.')
const wish = {
  use: z.enum(USES),
  tone: z.enum(TONES),
  sheen: z.enum(SHEENS),
  age: z.enum(['keep', 'new']),
  dueOn: z.iso
    .date('Give a date.')
    .refine(d => /^20\d\d-/.test(d), 'Give a date of these years.')
    .nullable(),
  period: z.enum([...PERIODS, 'unknown']),
  refinished: z.enum(['yes', 'no', 'unknown']),
  keepPatina: z.boolean(),
  lead: z.enum(['yes', 'no', 'unknown'], { error: 'Answer the lead question; "not known" counts as yes.' }),
}
const client = {
  name: text("The client's name"),
  email: z.email('This is no mail address.').max(200).or(z.literal('')),
  phone: maybeText(40),
}
export const clientQuery = z.strictObject({ find: written().min(2, 'Two letters at least.').max(80) })
export const changeClient = z.strictObject({ rowVersion: version, ...client })
export const eraseClient = z.strictObject({ rowVersion: version })
/** `into`: the record that stays. */
export const mergeClients = z.strictObject({ rowVersion: version, into: id })
export const takeIn = z.strictObject({
  name: text("The piece's name"),
  note: maybeText(2000),
  /** `id`: a client that the shop knows; else one is made, or found by name and mail */
  client: z.strictObject({ id: id.nullable().default(null), ...client }),
  ...wish,
  rustic: z.boolean().default(false),
  /** none: its faces are measured later */
  parts: someParts,
})
export type TakeIn = z.infer<typeof takeIn>
const roomRh = z
  .number({ error: 'Give the humidity in %.' })
  .gt(0.01, 'Humidity is 2 to 98 %.')
  .lt(0.99, 'Humidity is 2 to 98 %.')
  .nullable()
export const pieceChange = z
  .strictObject({
    rowVersion: version,
    name: text("The piece's name").optional(),
    ...wish,
    rustic: z.boolean(),
    goesFirst: z.boolean(),
    // no default: what is not sent stays
    note: written().max(2000, 'Too long: 2000 characters at most.'),
    roomDryRh: roomRh,
    roomHumidRh: roomRh,
    roomLight: z.enum(LIGHTS, { error: 'Choose a light.' }).nullable(),
    colourSample: z.enum(['none', 'bare'], { error: 'A colour under finish is approved by a band of the step panel.' }),
  })
  .partial()
  .required({ rowVersion: true })
  .refine(c => !(c.roomDryRh && c.roomHumidRh) || c.roomDryRh < c.roomHumidRh, {
    error: 'The dry season must be drier than the damp one.',
    path: ['roomDryRh'],
  })
export const addParts = z.strictObject({ parts })
export const pieceQuery = z.strictObject({
  find: written().max(100).default(''),
  state: z.enum([...PIECE_STATES, 'all']).default('active'),
})
/** The step at whose end it was taken, where it was. */
/** `by`, `taken`: of a photograph that waited for the line, whose it is, and when it was taken. */
export const addedPicture = z.strictObject({
  step: rowNumber.optional(),
  by: rowNumber.optional(),
  taken: moment.optional(),
})
export const pictureQuery = z.strictObject({ size: z.enum(['full', 'thumb']).default('full') })

/** A piece that is asked about before it is in: its kind and outer sizes stand for its faces. */
export const enquire = z.strictObject({
  name: text("The piece's name"),
  client: z.strictObject({ id: id.nullable().default(null), ...client }),
  kind: z.enum(PIECE_KINDS, { error: 'Choose a kind.' }),
  count: z
    .number()
    .int()
    .min(1, 'At least one.')
    .max(24, 'Up to 24 alike; ask about more in two enquiries.')
    .default(1),
  length,
  width: length,
  height: length,
  condition: z.enum(CONDITIONS, { error: 'Choose how it looks.' }),
  species: slugOf(
    SPECIES.map(s => s.slug),
    'Choose a species.',
  ),
  veneered: z.boolean().default(false),
  use: z.enum(USES),
  tone: z.enum(TONES),
  sheen: z.enum(SHEENS),
  /** null: what the house's method takes */
  finish: slugOf(FINISHES, 'Choose a finish.').nullable().default(null),
  lead: z.enum(['yes', 'no', 'unknown'], { error: 'Answer the lead question; "not known" counts as yes.' }),
})
/** It has come in; or nobody wants it done. */
export const enquiryBecomes = z.strictObject({
  rowVersion: version,
  becomes: z.enum(['active', 'declined', 'enquiry']),
})
