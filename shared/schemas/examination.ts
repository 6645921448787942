/** Findings, tests, moisture, patches, hardware, photographs, reports. */
import { z } from 'zod'
import { MEASURES } from '../../core/acts'
import { PATCH_METHODS, PATCH_RESULTS } from '../../core/examine'
import { TESTS } from '../../core/identify'
import { ITEM_STATES, PLACE_KINDS } from '../../core/parts'
import { FINDING_KINDS, FINISH_CLASSES, SUBSTRATES, WISHES } from '../../core/piece'
import { HAZARDS } from '../../core/safety'
import { SPECIES } from '../../core/wood'
import { written, text, maybeText, version, id, rowNumber, slugOf, length, veneer, placeMark } from './fields'

const mm = z
  .number({ error: 'A place is given in mm.' })
  .min(-1, 'This place is off the face.')
  .max(70_000, 'This place is off the face.')
export const placeSchema = z.strictObject({
  shape: z.enum(['unplaced', 'point', 'line', 'area', 'face']),
  copy: z.number().int().min(0).max(500),
  x_mm: mm,
  y_mm: mm,
  x2_mm: mm,
  y2_mm: mm,
  size_mm: z.number().min(0, 'A size cannot be below zero.').max(20_000, 'That is wider than 20 m.'),
})
const unplaced = { shape: 'unplaced' as const, copy: 0, x_mm: 0, y_mm: 0, x2_mm: 0, y2_mm: 0, size_mm: 0 }
const findingBody = {
  faceId: id,
  kind: slugOf(FINDING_KINDS, 'Choose what was found.'),
  grade: z.number().int().min(1, 'Grade 1 to 5.').max(5, 'Grade 1 to 5.'),
  wish: z.enum(WISHES),
  note: written().max(500, 'Too long: 500 characters at most.'),
}
export const address = z.string().regex(/^[0-9a-f]{64}$/, 'There is no such photograph.')
export const addFinding = z.strictObject({ ...findingBody, note: maybeText(500), place: placeSchema.default(unplaced) })
export const changeFinding = z
  .strictObject({
    rowVersion: version,
    ...findingBody,
    place: placeSchema,
    withdrawn: z.boolean(),
    photographs: z.array(address).max(20),
  })
  .partial()
  .required({ rowVersion: true })
const group = z.string().regex(/^[A-Z]$/, 'A group of faces has one letter.')
export const changeFace = z
  .strictObject({
    rowVersion: version,
    species: slugOf(
      SPECIES.map(s => s.slug),
      'Choose a species.',
    ),
    substrate: z.enum(SUBSTRATES),
    veneer: veneer.or(z.literal('')),
    filmUm: z
      .number({ error: 'Give the film in µm.' })
      .int('Whole µm.')
      .min(MEASURES.film_um.least, 'At least 1 µm.')
      .max(MEASURES.film_um.most, 'At most 3000 µm.')
      .nullable(),
    finishGroup: group,
  })
  .partial()
  .required({ rowVersion: true })
export const addTest = z
  .strictObject({
    test: z.string().max(40),
    result: z.string().max(40),
    spot: maybeText(120),
    group: group.default('A'),
    layer: z.number().int().min(1, 'Layer 1 is the top.').max(5, 'Five layers at the most.').default(1),
  })
  .refine(t => TESTS.some(k => k.slug === t.test && Object.hasOwn(k.results, t.result)), {
    error: 'This test has no such result.',
    path: ['result'],
  })
export const addEvidence = z.strictObject({
  kind: slugOf(
    HAZARDS.map(h => h.slug),
    'Choose the hazard.',
  ),
  answer: z.enum(['yes', 'no']),
  method: text('How it was settled', 200),
})
export const readSwab = z.strictObject({ spot: text('The spot that was swabbed', 120) })
export const answerWalk = z.strictObject({
  key: written().min(1).max(140),
  options: z.array(z.string().max(40)).min(1, 'Choose an answer.').max(20),
})
export const addMoisture = z.strictObject({
  faceId: id,
  reading_pct: z.number({ error: 'Give the reading in %.' }).min(1, '1 to 100 %.').max(100, '1 to 100 %.'),
  thickness: length.default('20 mm'),
})
export const addPatch = z.strictObject({
  faceId: id,
  method: z.enum(PATCH_METHODS),
  length,
  width: length,
  minutes: z
    .number({ error: 'How many minutes?' })
    .positive('How many minutes?')
    .max(600, 'A patch is small: 10 hours at most.'),
  result: z.enum(PATCH_RESULTS),
  note: maybeText(500),
})
export const overruleExamination = z.strictObject({
  slug: text('The verdict', 40),
  subject: written().max(60),
  word: text('A word why', 500),
  value: z.enum(FINISH_CLASSES).nullable().default(null),
})

const holes = z.strictObject({
  centres_mm: z.array(z.number().min(0).max(2000)).min(1, 'Give the hole centres.').max(12),
  diameter_mm: z.number({ error: "Give the holes' diameter." }).positive("Give the holes' diameter.").max(100),
  plate_w_mm: z.number().positive().max(1000).nullable(),
  plate_h_mm: z.number().positive().max(1000).nullable(),
})
const itemBody = {
  name: text('The name'),
  kind: z.enum(['part', 'hardware', 'mark']),
  count: z
    .number({ error: 'How many? A whole number.' })
    .int('How many? A whole number.')
    .min(1, 'At least one.')
    .max(500),
  state: z.enum(ITEM_STATES),
  set: written().max(60),
  note: written().max(500),
  holes: holes.nullable(),
}
const counted = z.number({ error: 'Count them.' }).int('A whole number.').min(0).max(500).nullable()
export const addItem = z.strictObject({
  ...itemBody,
  state: itemBody.state.default('present'),
  set: itemBody.set.default(''),
  note: itemBody.note.default(''),
  holes: holes.nullable().default(null),
  mark: written()
    .regex(/^[A-Za-z0-9-]{0,12}$/, 'A mark is short: letters and numbers.')
    .default(''),
})
const placeCode = z.strictObject({
  code: placeMark,
  kind: z.enum(PLACE_KINDS),
})
/** Where a piece stands; null: nobody says. */
export const standsAt = z.strictObject({ place: placeCode.nullable() })
export const changeItem = z
  .strictObject({
    rowVersion: version,
    ...itemBody,
    mark: written().regex(/^[A-Za-z0-9-]{1,12}$/, 'A mark is short: letters and numbers.'),
    out: counted,
    back: counted,
    place: placeCode.nullable(),
  })
  .partial()
  .required({ rowVersion: true })
export const askItem = z.strictObject({ words: maybeText(1000), days: z.number().int().min(1).max(90).default(14) })
export const changePhotograph = z
  .strictObject({
    rowVersion: version,
    caption: written().max(200, 'Too long: 200 characters at most.'),
    before: address.nullable(),
    released: z.boolean(),
  })
  .partial()
  .required({ rowVersion: true })

export const saveExamination = z.strictObject({ name: text('A name, such as "before" or "2026"') })
const which = z.union([z.literal('now'), rowNumber])
export const reportQuery = z.strictObject({
  which: which.default('now'),
  format: z.enum(['json', 'pdf']).default('json'),
})
export const compareQuery = z.strictObject({ before: which.default('now'), after: which.default('now') })
