/** Products and lots. */
import { z } from 'zod'
import { gritsRead, P_GRITS } from '../../core/abrasives'
import { DECIMALS } from '../../core/formats'
import { CONSUMABLE_SLUGS, CONSUMABLES, isConsumable } from '../../core/store'
import { CLASSES, id, maybeText, placeMark, slugOf, text, version } from './fields'

const isGrit = (typed: string): boolean => {
  try {
    return gritsRead(typed).length === 1
  } catch {
    return false
  }
}

const ofStore = [...CLASSES, ...CONSUMABLE_SLUGS]
const price = z.number().int('Whole minor units.').min(0, 'A price cannot be below zero.').max(10_000_000)
const quantity = (message: string) =>
  z.number({ error: message }).positive('Give an amount above zero.').max(1_000_000, 'That is more than a shop holds.')
const productBody = z.strictObject({
  name: text("The product's name"),
  priceMinor: price,
  supplier: maybeText(120),
  /** sizes in which it is bought, in its unit */
  containers: z.array(quantity('Sizes are numbers.')).max(8, 'Eight sizes at the most.').default([]),
  /** no less than this is kept in the house, in its unit */
  least: z.number().min(0, 'No less than none.').max(1_000_000, 'That is more than a shop holds.').default(0),
  /** of an abrasive: "P120" */
  grit: z
    .string()
    .trim()
    .max(12)
    .default('')
    .refine(g => g === '' || isGrit(g), 'A grit with its scale, such as P120.'),
})
export const addProduct = productBody
  .extend({ class: slugOf(ofStore, 'Choose a product class.') })
  .refine(p => p.grit === '' || (isConsumable(p.class) && CONSUMABLES[p.class].graded), {
    error: 'Only abrasives have a grit.',
    path: ['grit'],
  })
export const changeProduct = productBody.extend({ rowVersion: version })
const figure = (what: string, most: number) =>
  z
    .number({ error: `${what}, a number.` })
    .positive(`${what} is above zero.`)
    .max(most, `${what} is too large.`)
const minutes = (what: string) => figure(what, 525_600)
const words = z.string().trim().max(120, 'A label says it in 120 letters.')
/** What a label says; each figure outranks its class's, what is left out follows the class. */
export const labelFigures = z
  .strictObject({
    solids_pct: figure('Solids', 100),
    wet_um: figure('The wet film', 1000),
    spread_m2_l: figure('The spread', 200),
    density_g_ml: figure('The density', 5),
    recoat_min: minutes('The time to the next coat'),
    recoatMax_min: minutes('The latest next coat'),
    handle_min: minutes('The time to handling'),
    cure_d: figure('The days to cure', 365),
    wipe_min: minutes('The time to wipe off'),
    potLife_min: minutes('The pot life'),
    ratio: words,
    reducer: words,
    reduceMost_pct: figure('The reducer', 100),
    airMin_C: z.number().min(-10).max(40, 'Between −10 and 40 °C.'),
    airMax_C: z.number().min(0).max(60, 'Between 0 and 60 °C.'),
    rhMax_pct: figure('The humidity', 100),
    between_P: z
      .number()
      .int()
      .refine(g => P_GRITS.includes(g), { error: 'This grit is not on the P scale.' }),
    coats: z.number().int('Whole coats.').min(1, 'One coat at least.').max(20, 'Twenty coats at the most.'),
    voc_g_l: z.number().min(0).max(1000, 'VOC is 0 to 1000 g/l.'),
    flash_C: z.number().min(-60).max(400, 'A flash point is −60 to 400 °C.'),
    sheen: words,
    keepsClosed_mo: figure('Months closed', 240),
    keepsOpened_mo: figure('Months opened', 240),
    safetySheet: z.string().trim().max(300),
  })
  .partial()
  .refine(l => l.recoatMax_min === undefined || l.recoatMax_min >= (l.recoat_min ?? 0), {
    error: 'The latest next coat cannot come before the earliest.',
    path: ['recoatMax_min'],
  })
  .refine(l => l.airMin_C === undefined || l.airMax_C === undefined || l.airMin_C < l.airMax_C, {
    error: 'The coolest must be below the warmest.',
    path: ['airMax_C'],
  })
/** `was`: the version of the label that was changed. */
export const changeLabel = z.strictObject({ was: id, figures: labelFigures })
const day = z.iso.date('Give a date.').refine(d => /^20\d\d-/.test(d), 'Give a date of these years.')
const amount = quantity('Give an amount.')
/** One or several cans alike. */
export const addLot = z.strictObject({
  productId: id,
  code: text("The lot's number", 60),
  /** in the unit of its product */
  amount,
  bestBefore: day.nullable().default(null),
  paidMinor: price.nullable().default(null),
  place: placeMark.nullable().default(null),
})
const word = text('A word why', 300)
/** What is done with a can. */
export const lotAct = z.strictObject({
  rowVersion: version,
  act: z.discriminatedUnion('kind', [
    z.strictObject({ kind: z.literal('count'), amount: amount.or(z.literal(0)), word: maybeText(300) }),
    z.strictObject({
      kind: z.literal('weigh'),
      gross_g: z
        .number({ error: 'Give its weight.' })
        .positive('Give its weight.')
        .max(200_000, 'Too heavy for a can.'),
      tare_g: z.number({ error: "Give the empty can's weight." }).min(0).max(50_000, 'Too heavy for an empty can.'),
    }),
    z.strictObject({ kind: z.literal('spill'), amount, word }),
    z.strictObject({ kind: z.literal('take'), amount, pieceId: id, word: maybeText(300) }),
    z.strictObject({ kind: z.literal('return'), amount, pieceId: id }),
    z.strictObject({ kind: z.literal('throw'), word }),
    z.strictObject({ kind: z.literal('back') }),
    z.strictObject({ kind: z.literal('move'), place: placeMark.nullable() }),
    z.strictObject({ kind: z.literal('open') }),
    z.strictObject({ kind: z.literal('skin') }),
    z.strictObject({ kind: z.literal('strain') }),
    z.strictObject({ kind: z.literal('keep'), pieceId: id.nullable() }),
  ]),
})
/** `take`: false shows what it would do. */
export const readIn = z.strictObject({
  list: z.enum(['products', 'lots', 'clients', 'recipes', 'pots'], { error: 'This list is not read in.' }),
  text: z.string().min(1, 'The file is empty.').max(1_000_000, 'Too large.'),
  take: z.boolean(),
})
/** A list as CSV. */
export const listQuery = z.strictObject({ decimal: z.enum(DECIMALS).default('point') })
export const orderQuery = z.strictObject({
  supplier: z.string().max(120).default(''),
  size: z.enum(['A4', 'LETTER']).optional(),
})
