/** Routes, choices, steps and what is overruled. */
import { z } from 'zod'
import { GRIT_SCALES, isGrit } from '../../core/abrasives'
import {
  actOf,
  FIELD_VALUES,
  LAYER_USES,
  METHODS,
  STEP_KINDS,
  type StepKind,
  takesProduct,
  TYPED,
} from '../../core/acts'
import { CONDITIONERS, ENDINGS, LAYER_KINDS } from '../../core/build'
import { HOUSE_METHODS, HOUSE_SLUGS, type House } from '../../core/house'
import { BLEACHES, COLOURS, FILLS, FINISHES, materialOf } from '../../core/materials'
import { ROUTES, SHEENS, TONES } from '../../core/piece'
import { MOST_FACES, sumOf } from '../../core/units'
import { text, version, id, rowNumber, slugOf, CLASSES } from './fields'

/** House methods of one piece, each with one of its own options. */
const house = z.record(z.string().max(40), z.string().max(40)).transform((given, context) => {
  const wrong = Object.entries(given).find(
    ([slug, option]) =>
      !HOUSE_SLUGS.includes(slug as keyof House) || !Object.hasOwn(HOUSE_METHODS[slug as keyof House].options, option),
  )
  if (wrong) context.addIssue({ code: 'custom', message: 'There is no such house method.', path: [wrong[0]] })
  return given as Partial<House>
})
/** One house method of the shop; row version 0 where the shop never chose. */
export const houseChange = z
  .strictObject({
    slug: slugOf(HOUSE_SLUGS, 'There is no such house method.'),
    choice: z.string().max(40),
    rowVersion: z.number({ error: 'Load the page again and repeat.' }).int().min(0),
  })
  .refine(h => Object.hasOwn(HOUSE_METHODS[h.slug].options, h.choice), {
    error: 'This method has no such option.',
    path: ['choice'],
  })
/** The same, as text in an address. */
const houseText = z
  .string()
  .max(2000)
  .default('{}')
  .transform((text, context) => {
    try {
      return JSON.parse(text) as Record<string, string>
    } catch {
      context.addIssue({ code: 'custom', message: 'House methods are written as JSON.' })
      return {}
    }
  })
  .pipe(house)
const faceList = z
  .string()
  .max(3000, 'Choose fewer faces.')
  .regex(/^\d{1,9}(,\d{1,9})*$/, 'Choose the faces.')
  .transform(text => text.split(',').map(Number))
const film = z.coerce
  .number({ error: 'A film in µm.' })
  .int('A whole number of µm.')
  .min(5, 'A film is 5 to 500 µm.')
  .max(500, 'A film is 5 to 500 µm.')
  .nullable()
/** From which layers are proposed; without any, the layers of the piece stay. */
const picks = {
  film_um: film.optional(),
  finish: slugOf(FINISHES, 'Choose a finish.').optional(),
  colour: slugOf(COLOURS, 'Choose a colour.').optional(),
  conditioner: z.enum(CONDITIONERS).optional(),
  fill: slugOf(FILLS, 'Choose a filler.').optional(),
  bleach: slugOf(BLEACHES, 'Choose a bleach.').optional(),
}
export const routeQuery = z.strictObject({
  faces: faceList.optional(),
  ...picks,
  house: houseText,
})
/** `faces`: some faces go this way of their own; without it, the piece. */
export const choose = z.strictObject({
  rowVersion: version,
  faces: z.array(id).min(1, 'Choose the faces.').max(MOST_FACES, 'Choose fewer faces.').optional(),
  route: slugOf(ROUTES, 'Choose a route.'),
  ...picks,
  house: house.default({}),
})
/** What is chosen of a layer, whatever piece it lies on. */
const chosenOfLayer = {
  act: slugOf(LAYER_KINDS, 'Choose a kind of layer.'),
  product: slugOf(CLASSES, 'Choose a product class from the list.').nullable(),
  coats: z.number().int('Whole coats.').min(1, 'One coat at least.').max(20, 'Twenty coats at the most.').nullable(),
  film_um: film,
  method: z.enum(METHODS).nullable(),
  between: z
    .strictObject({ scale: z.enum(GRIT_SCALES), grade: z.string().max(20) })
    .refine(isGrit, { error: 'This grit is on no scale.' })
    .nullable(),
  use: z.enum(LAYER_USES).nullable(),
  fields: z
    .strictObject({
      wipe: z.enum(FIELD_VALUES.wipe),
      shade: z.enum(FIELD_VALUES.shade),
      tint_pct: z.number().min(0.1, 'A tint is 0.1 to 20 %.').max(20, 'A tint is 0.1 to 20 %.'),
      thinned_pct: z.number().min(1, 'It is thinned 1 to 200 %.').max(200, 'It is thinned 1 to 200 %.'),
      band_mm: z.number().min(1, 'A band is 1 to 2000 mm.').max(2000, 'A band is 1 to 2000 mm.'),
      recipe: text('The recipe', 120),
    })
    .partial(),
}
const fitsItsAct = ({ act, product }: { act: StepKind; product: string | null }) =>
  product === null || takesProduct({ kind: act }, materialOf(product))
const MISFIT = { error: 'This kind of layer does not take that product.', path: ['product'] }
/** One layer of a build-up; a number that the build-up does not have yet is a new layer. */
const layer = z
  .strictObject({
    id,
    productId: id.nullable(),
    ...chosenOfLayer,
    faces: z.array(id).min(1, 'Choose the faces.').max(MOST_FACES, 'Choose fewer faces.').nullable(),
  })
  .refine(fitsItsAct, MISFIT)
const MOST_COATS = 80
const layersOf = <T extends { coats: number | null }>(one: z.ZodType<T>) =>
  z
    .array(one)
    .max(24, 'Two dozen layers at the most.')
    .refine(all => sumOf(all, l => l.coats ?? 1) <= MOST_COATS, `${MOST_COATS} coats in all at the most.`)
/** A surface as it was composed; `leave`: keys of steps whose change by hand is not made again. */
export const compose = z.strictObject({
  rowVersion: version,
  buildUpId: id,
  ending: z.enum(ENDINGS),
  layers: layersOf(layer).refine(all => new Set(all.map(l => l.id)).size === all.length, 'A layer stands there twice.'),
  leave: z.array(z.string().max(60)).max(500).default([]),
})
/** A surface kept under a name, for sets and for other pieces; its faces are known by their names. */
export const knownSurface = z.strictObject({
  name: text('The name', 80),
  ending: z.enum(ENDINGS),
  sheen: z.enum(SHEENS),
  tone: z.enum(TONES),
  woods: z.array(z.string().max(40)).max(40),
  layers: layersOf(
    z
      .strictObject({ ...chosenOfLayer, on: z.array(z.string().max(200)).min(1).max(MOST_FACES).nullable() })
      .refine(fitsItsAct, MISFIT),
  ).min(1, 'Compose a layer first.'),
})
const fieldsOfStep = z
  .strictObject({
    against: z.enum(FIELD_VALUES.against),
    on: z.enum(FIELD_VALUES.on),
    as: z.enum(FIELD_VALUES.as),
    dustBy: z.enum(FIELD_VALUES.dustBy),
    wipe: z.enum(FIELD_VALUES.wipe),
    after: z.enum(FIELD_VALUES.after),
    where: z.enum(FIELD_VALUES.where),
    filler: z.enum(FIELD_VALUES.filler),
    glue: z.enum(FIELD_VALUES.glue),
    shade: z.enum(FIELD_VALUES.shade),
    strength: z.enum(FIELD_VALUES.strength),
    shaken: z.boolean(),
  })
  .partial()
/** What is left out follows from the kind of step. */
const grit = z
  .strictObject({ scale: z.enum(GRIT_SCALES), grade: z.string().max(20) })
  .refine(isGrit, { error: 'This grit is on no scale. Use one of its grades, such as P120, CAMI 400 or wool 0000.' })
const stepBody = {
  title: text('What is to be done', 200),
  attendedMin: z
    .number({ error: 'Minutes, a whole number.' })
    .int('Minutes, a whole number.')
    .min(0, 'Minutes cannot be below zero.')
    .max(10_000, 'That is more than a week.'),
  product: slugOf(CLASSES, 'Choose a product class from the list.').nullable(),
  amountMl: z.number().min(0, 'An amount cannot be below zero.').max(100_000).nullable(),
  grits: z.array(grit).max(8, 'Eight grits at the most.'),
  method: z.enum(METHODS),
  fields: fieldsOfStep,
}
export const addStep = z.strictObject({
  kind: slugOf(
    STEP_KINDS.filter(kind => actOf({ kind }).byHand),
    'Choose a kind of step.',
  ),
  after: id.nullable(),
  faces: z.array(id).min(1, 'Choose the faces.').max(MOST_FACES, 'Choose fewer faces.'),
  ...stepBody,
  title: stepBody.title.optional(),
  attendedMin: stepBody.attendedMin.optional(),
  amountMl: stepBody.amountMl.optional(),
  fields: fieldsOfStep.default({}),
  coat: z.number().int().min(1).max(20).nullable(),
})
/** `after`: move it to stand after this step; null is the beginning. */
export const changeStep = z
  .strictObject({ rowVersion: version, ...stepBody, after: id.nullable(), follow: z.array(z.enum(TYPED)).max(3) })
  .partial()
  .required({ rowVersion: true })
export const splitStep = z.strictObject({
  rowVersion: version,
  faces: z.array(id).min(1, 'Choose the faces.').max(MOST_FACES, 'Choose fewer faces.'),
})
export const stepBack = z.strictObject({ which: z.enum(['undo', 'redo']) })
/** The change that later findings ask for: taken, or left. */
export const takeFound = z.strictObject({ rowVersion: rowNumber, take: z.boolean() })
export const versionQuery = z.strictObject({ rowVersion: rowNumber })
export const mendVerdict = z.strictObject({ rule: text('The rule', 60), stepKey: text('The step', 60) })
export const overrule = z.strictObject({
  rule: text('The rule', 60),
  stepKey: text('The step', 60),
  word: text('A word why', 500),
})
