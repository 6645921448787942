/** What browser and server say to each other about colour and mixing. */
import { z } from 'zod'
import { CAMI_GRITS, P_GRITS } from '../core/abrasives'
import { APPLICATORS, BANDS, CLEAR_COAT_SLUGS, LEFT_ON, LIGHT_HISTORIES, LIGHTS } from '../core/colour'
import { COLOURS, MATERIALS } from '../core/materials'
import { SHARES_OF } from '../core/mixing'
import { SPECIES } from '../core/wood'
import { address, id, maybeText, rowNumber, slugOf, text, version } from './schemas'

export const READING_ROLES = ['wood', 'target', 'band', 'other'] as const
const species = slugOf(
  SPECIES.map(s => s.slug),
  'Choose a wood.',
)
const clearCoat = slugOf(CLEAR_COAT_SLUGS, 'Choose the clear coat.').nullable().default(null)
const light = z.enum(LIGHTS, { error: 'Choose a light.' })
const observer = z.enum(['2', '10']).default('10')
const wipe = z.enum(Object.keys(LEFT_ON) as [keyof typeof LEFT_ON])
const percent = z
  .number({ error: 'Give a percent.' })
  .gt(0, 'Above nought, up to 100 %.')
  .max(100, 'Above nought, up to 100 %.')
const above = (what: string, most: number) =>
  z
    .number({ error: `${what}: a number.` })
    .gt(0, `${what}: above nought.`)
    .max(most, `${what}: ${most} at the most.`)

/** What a reading is of. */
const about = {
  pieceId: id.nullable().default(null),
  name: text('What was read'),
  role: z.enum(READING_ROLES),
  species: species.default('unknown'),
  zone: z.enum(['heartwood', 'sapwood']).default('heartwood'),
  clearCoat,
  gloss: z.enum(['included', 'excluded']).default('excluded'),
  lightHistory: z.enum(LIGHT_HISTORIES).default('fresh'),
}
const spectrum = z
  .array(
    z
      .number({ error: 'A reflectance is a number.' })
      .min(0, 'A reflectance is 0 to 1.2.')
      .max(1.2, 'A reflectance is 0 to 1.2.'),
  )
  .length(BANDS, '400 to 700 nm each 10 nm: 31 values.')
const lab = z.strictObject({
  L: z.number({ error: 'L* is 0 to 100.' }).min(0, 'L* is 0 to 100.').max(100, 'L* is 0 to 100.'),
  a: z.number({ error: 'a* is a number.' }).min(-128).max(128),
  b: z.number({ error: 'b* is a number.' }).min(-128).max(128),
  light,
  observer,
})
export const addReading = z
  .strictObject({
    ...about,
    spectrum: spectrum.nullable().default(null),
    lab: lab.nullable().default(null),
    likeId: id.nullable().default(null),
  })
  .refine(r => (r.spectrum === null) !== (r.lab === null), { error: 'Give a spectrum, or L*, a*, b*.', path: ['lab'] })
export const measure = z.strictObject(about)
export const importReadings = z.strictObject({
  ...about,
  name: maybeText(120),
  text: z.string().min(1, 'The file is empty.').max(1_000_000, 'The file is too long.'),
})
export const exportQuery = z.strictObject({
  format: z.enum(['cgats', 'csv']).default('cgats'),
  piece: rowNumber.optional(),
})
export const colourQuery = z.strictObject({ piece: rowNumber.optional() })

export const addColourant = z.strictObject({
  productId: id,
  lies: z.enum(['wood', 'film']),
  most_pct: percent,
  woodId: id,
  bandId: id,
  pct: percent,
  coats: z.number().int().min(1).max(10).default(1),
  wipe: wipe.default('none'),
})
export const learn = z.strictObject({
  class: slugOf(COLOURS, 'Choose a kind of colour.'),
  species,
  record: z.string().max(120),
  without: z.array(id).max(200).default([]),
  apply: z.boolean().default(false),
})

const shares = z
  .array(z.strictObject({ id, pct: percent }))
  .min(1, 'A recipe has one colourant at least.')
  .max(4, 'Four colourants at the most.')
  .refine(s => s.reduce((sum, x) => sum + x.pct, 0) <= 100.0001, 'The shares come to more than 100 %.')
  .refine(s => new Set(s.map(x => x.id)).size === s.length, 'A colourant stands there twice.')
export const saveRecipe = z.strictObject({
  name: text('A name for the recipe'),
  pieceId: id.nullable().default(null),
  woodId: id,
  sapwoodId: id.nullable().default(null),
  targetId: id,
  shares,
  coats: z.number().int().min(1).max(10),
  wipe,
  clearCoat,
  lights: z.array(light).min(1, 'Choose a light.').max(5),
  observer,
  bleached: z.boolean().default(false),
  fromId: id.nullable().default(null),
  note: maybeText(500),
})
export const recipeQuery = z.strictObject({
  find: z.string().max(100).default(''),
  species: species.optional(),
  target: rowNumber.optional(),
})

const grams = z
  .number({ error: 'Give grams.' })
  .min(0, 'Grams cannot be below nought.')
  .max(100_000, 'That is more than 100 kg.')
const smallest_g = above('The smallest step of the balance', 100).default(0.1)
const ingredient = z.strictObject({
  name: text('The ingredient'),
  class: slugOf(
    MATERIALS.map(m => m.slug),
    'Choose a kind of product.',
  )
    .nullable()
    .default(null),
  productId: id.nullable().default(null),
  share: above('A share', 10_000),
  of: z.enum(SHARES_OF),
  density_g_ml: above('A density', 20),
  solids: z.number().min(0).max(1).nullable().default(null),
})
const wanted = z.union(
  [
    z.strictObject({ total_g: above('Grams', 100_000) }),
    z.strictObject({ total_ml: above('Millilitres', 100_000) }),
    z.strictObject({ of: z.number().int().min(0).max(9), g: above('Grams', 100_000) }),
    z.strictObject({ of: z.number().int().min(0).max(9), ml: above('Millilitres', 100_000) }),
  ],
  { error: 'How much is wanted?' },
)
const pot = {
  pieceId: id.nullable().default(null),
  smallest_g,
  pot_min: z
    .number({ error: 'Pot life in minutes.' })
    .int()
    .min(1)
    .max(10_080, 'A week at the most.')
    .nullable()
    .default(null),
  note: maybeText(500),
}
export const addBatch = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('recipe'), recipeId: id, total_g: above('Grams', 100_000), ...pot }),
    z.strictObject({
      kind: z.literal('mix'),
      name: text('A name for the pot'),
      by: z.enum(['volume', 'weight']),
      ingredients: z.array(ingredient).min(1, 'A mix needs an ingredient.').max(10),
      wanted,
      ...pot,
    }),
  ],
  { error: 'Mix a recipe, or parts.' },
)
const act = { rowVersion: version }
export const batchAct = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({
      kind: z.literal('pour'),
      ...act,
      lineId: id,
      lotId: id.nullable().default(null),
      poured_g: grams,
    }),
    z.strictObject({ kind: z.literal('scale-up'), ...act }),
    z.strictObject({ kind: z.literal('mixed'), ...act }),
    z.strictObject({ kind: z.literal('try'), ...act, readingId: id }),
    z.strictObject({ kind: z.literal('correct'), ...act, left_g: above('Grams left', 100_000) }),
    z.strictObject({ kind: z.literal('left'), ...act, left_g: grams, place: maybeText(60) }),
    z.strictObject({ kind: z.literal('close'), ...act }),
  ],
  { error: 'This is no act on a pot.' },
)
export type BatchAct = z.infer<typeof batchAct>
export const batchQuery = z.strictObject({
  which: z.enum(['open', 'all']).default('open'),
  piece: rowNumber.optional(),
})
export const balanceAct = z.strictObject({
  act: z.enum(['tare', 'pour', 'stop']),
  g_s: above('Grams a second', 200).default(6),
})

export const addBand = z
  .strictObject({
    stepKey: text('The step', 60),
    readingId: id.nullable().default(null),
    recipeId: id.nullable().default(null),
    batchId: id.nullable().default(null),
    photograph: address.nullable().default(null),
    coats: z.number().int().min(0).max(12).default(1),
    clearCoat,
    lightHistory: z.enum(LIGHT_HISTORIES).default('fresh'),
    grit: z.number().int().nullable().default(null),
    scale: z.enum(['P', 'CAMI']).default('P'),
    conditioner: slugOf(
      ['none', ...MATERIALS.filter(m => m.role === 'conditioner').map(m => m.slug)],
      'Choose the conditioner.',
    ).default('none'),
    applicator: z.enum(APPLICATORS),
    dwell_min: z.number().min(0).max(1440, 'A day at the most.').nullable().default(null),
    wipe,
    temperature_C: z.number().min(-10).max(50, '−10 to 50 °C.').nullable().default(null),
    note: maybeText(300),
  })
  .refine(b => b.grit === null || (b.scale === 'P' ? P_GRITS : CAMI_GRITS).includes(b.grit), {
    error: 'This grit is not on that scale.',
    path: ['grit'],
  })
export const changeBand = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('approve'), rowVersion: version, by: text('Who said it'), light }),
  z.strictObject({ kind: z.literal('withdraw'), rowVersion: version }),
])
export const askBand = z.strictObject({
  rowVersion: version,
  words: maybeText(1000),
  days: z.number().int().min(1).max(90).default(14),
  light,
})
