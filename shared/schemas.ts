/** What browser and server say to each other. Messages are written for a restorer. */
import { z } from 'zod'
import { GRIT_SCALES, isGrit } from '../core/abrasives'
import { actOf, FIELD_VALUES, METHODS, STEP_KINDS, TYPED } from '../core/acts'
import { CONDITIONERS, ROUTES } from '../core/build'
import { LIGHTS } from '../core/colour'
import { PATCH_METHODS, PATCH_RESULTS } from '../core/examine'
import { HOUSE_METHODS, HOUSE_SLUGS, type House } from '../core/house'
import { TESTS } from '../core/identify'
import { BLEACHES, COLOURS, FILLS, FINISHES, MATERIALS } from '../core/materials'
import { ITEM_ANSWERS, ITEM_STATES, PLACE_KINDS } from '../core/parts'
import { FINDING_KINDS, FINISH_CLASSES, PERIODS, WISHES } from '../core/piece'
import { HAZARDS, LICENCES } from '../core/safety'
import { isWithin, LENGTH_MM, MOST_FACES, parseLength_mm, SHAPES, VENEER_MM } from '../core/units'
import { SPECIES } from '../core/wood'

/** What no line of text needs: control characters, half characters, and marks that turn the reading direction about. */
const UNSEEN = new RegExp(
  [
    String.raw`[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u202a-\u202e\u2066-\u2069]`,
    String.raw`[\ud800-\udbff](?![\udc00-\udfff])`,
    String.raw`(?<![\ud800-\udbff])[\udc00-\udfff]`,
  ].join('|'),
  'g',
)
const written = (error?: string) =>
  z
    .string(error ? { error } : undefined)
    .overwrite(t => t.replace(UNSEEN, ''))
    .trim()
export const text = (what: string, max = 120) =>
  written(`${what} is missing.`)
    .min(1, `${what} is missing.`)
    .max(max, `${what} is too long: ${max} characters at most.`)
export const maybeText = (max: number) => written().max(max, `Too long: ${max} characters at most.`).default('')
export const version = z.number({ error: 'Load the page again and repeat.' }).int().min(1)
export const id = z.number().int().min(1).max(4294967295)
/** A number of a row, in an address. */
export const rowNumber = z.coerce.number().int().min(1).max(4294967295)
export const slugOf = <T extends string>(list: readonly T[], message: string) =>
  z.enum(list as readonly [T, ...T[]], { error: message })

/** A bare number is in the shop's unit, which only the server knows: here it passes when it fits in one of them. */
const fits = (typed: string, bounds: { least: number; most: number }) =>
  (['mm', 'in'] as const).some(unit => isWithin(parseLength_mm(typed, unit), bounds))
/** A length as typed; kept as typed, checked to be one. */
export const length = z
  .string({ error: 'Give a length, such as 600, 60 cm or 23 5/8 in.' })
  .trim()
  .max(40, 'Too long for a length.')
  .refine(t => fits(t, LENGTH_MM), 'Give a length, such as 600, 60 cm or 23 5/8 in, from 0.5 mm to 20 m.')
const veneer = written()
  .max(40)
  .refine(t => fits(t, VENEER_MM), "Give the veneer's thickness, such as 0.6, from 0.1 to 10 mm.")

const passwordGiven = z
  .string({ error: 'The password is missing.' })
  .min(1, 'The password is missing.')
  .max(200, 'Too long: 200 characters at most.')
/** `tablet`: this is a tablet of the shop, which stays signed in longer. */
export const signIn = z.strictObject({
  login: text('The name', 80),
  password: passwordGiven,
  tablet: z.boolean().default(false),
})
/** What else is wrong with a password (blank, common, a name) the server says. */
const password = z
  .string({ error: 'The password is missing.' })
  .min(10, 'Take a password of 10 characters or more.')
  .max(200, 'Too long: 200 characters at most.')
export const changePassword = z.strictObject({ before: passwordGiven, password })
export const resetPassword = z.strictObject({ rowVersion: version })
/** `to`: the address to send it to this time; it becomes the client's. */
export const mailAgain = z.strictObject({
  rowVersion: version,
  to: z.email('This is no mail address.').max(200).optional(),
})
export const releaseMail = z.strictObject({})
export const firstOwner = z.strictObject({
  shop: text("The shop's name"),
  name: text('Your name', 80),
  login: text('The name to sign in with', 80),
  password,
  zone: text('The time zone', 60),
  currency: z.string().regex(/^[A-Z]{3}$/, 'Three capital letters, such as SEK or EUR.'),
  lengthUnit: z.enum(['mm', 'in']),
})

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
  substrate: z.enum(['solid', 'veneer']),
  veneer: veneer.or(z.literal('')).default(''),
})
export const partSchema = z.strictObject({
  name: text("The part's name", 80),
  scope: z.enum(['refinish', 'protect', 'match']),
  faces: z.array(faceSchema).min(1, 'A part needs one face at least.').max(60),
})
const parts = z.array(partSchema).min(1, 'Add one part at least.').max(60)
const wish = {
  use: z.enum(['display', 'daily', 'hard']),
  tone: z.enum(['lighter', 'same', 'darker', 'match']),
  sheen: z.enum(['matt', 'satin', 'semi-gloss', 'gloss']),
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
export const takeIn = z.strictObject({
  name: text("The piece's name"),
  note: maybeText(2000),
  client: z.strictObject({
    name: text("The client's name"),
    email: z.email('This is no mail address.').max(200).or(z.literal('')),
    phone: maybeText(40),
  }),
  ...wish,
  parts,
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
    note: maybeText(2000),
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
  state: z.enum(['active', 'ready', 'handed-over', 'all']).default('active'),
})
export const pictureQuery = z.strictObject({ size: z.enum(['full', 'thumb']).default('full') })

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
    substrate: z.enum(['solid', 'veneer']),
    veneer: veneer.or(z.literal('')),
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
export const changeItem = z
  .strictObject({
    rowVersion: version,
    ...itemBody,
    mark: written().regex(/^[A-Za-z0-9-]{1,12}$/, 'A mark is short: letters and numbers.'),
    out: counted,
    back: counted,
    place: z
      .strictObject({
        code: z
          .string()
          .trim()
          .toUpperCase()
          .regex(/^[A-Z0-9][A-Z0-9-]{0,19}$/, 'A place has a short code, such as BAG-12.'),
        kind: z.enum(PLACE_KINDS),
      })
      .nullable(),
  })
  .partial()
  .required({ rowVersion: true })
export const askItem = z.strictObject({ words: maybeText(1000), days: z.number().int().min(1).max(90).default(14) })
export const changePhotograph = z
  .strictObject({
    rowVersion: version,
    caption: written().max(200, 'Too long: 200 characters at most.'),
    before: address.nullable(),
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

const pick = {
  finish: slugOf(FINISHES, 'Choose a finish.'),
  colour: slugOf(COLOURS, 'Choose a colour.'),
  conditioner: z.enum(CONDITIONERS),
  fill: slugOf(FILLS, 'Choose a filler.'),
  bleach: slugOf(BLEACHES, 'Choose a bleach.'),
}
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
export const routeQuery = z.strictObject({
  faces: faceList.optional(),
  film_um: film.optional(),
  finish: pick.finish.default('waterborne-polyurethane'),
  colour: pick.colour.default('none'),
  conditioner: pick.conditioner.default('auto'),
  fill: pick.fill.default('none'),
  bleach: pick.bleach.default('none'),
  house: houseText,
})
/** `faces`: some faces go this way of their own; without it, the piece. */
export const choose = z.strictObject({
  rowVersion: version,
  faces: z.array(id).min(1, 'Choose the faces.').max(MOST_FACES, 'Choose fewer faces.').optional(),
  route: slugOf(ROUTES, 'Choose a route.'),
  film_um: film.default(null),
  ...pick,
  fill: pick.fill.default('none'),
  bleach: pick.bleach.default('none'),
  house: house.default({}),
})
const CLASSES = MATERIALS.map(m => m.slug)
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
export const versionQuery = z.strictObject({ rowVersion: rowNumber })
export const mendVerdict = z.strictObject({ rule: text('The rule', 60), stepKey: text('The step', 60) })
export const overrule = z.strictObject({
  rule: text('The rule', 60),
  stepKey: text('The step', 60),
  word: text('A word why', 500),
})

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

const moment = z.iso
  .datetime({ offset: true, error: 'This is no moment in time.' })
  .refine(t => /^20\d\d-/.test(t), 'This is no moment of these years.')
const command = { stepId: id, rowVersion: version, happenedAt: moment }
export const benchCommand = z.discriminatedUnion(
  'kind',
  [
    z.strictObject({ kind: z.literal('start'), ...command }),
    z.strictObject({
      kind: z.literal('finish'),
      ...command,
      gate: z.enum(['pass', 'fail']).nullable().default(null),
      used: z
        .array(
          z.strictObject({
            lotId: id,
            amountMl: z
              .number({ error: 'Give the amount in ml.' })
              .min(0, 'An amount cannot be below zero.')
              .max(100_000),
            word: maybeText(300),
          }),
        )
        .max(5)
        .default([]),
      note: maybeText(500),
    }),
    z.strictObject({ kind: z.literal('not-dry'), ...command }),
    z.strictObject({ kind: z.literal('mixed'), ...command }),
    z.strictObject({ kind: z.literal('undo'), ...command }),
  ],
  { error: 'This is no act at the bench.' },
)
export type BenchCommand = z.infer<typeof benchCommand>
export const alarmAck = z.strictObject({ pieceId: id, from: text('The step', 60), to: text('The step', 60) })
export const airReading = z.strictObject({
  temperature_C: z.number({ error: 'Give °C.' }).min(-20, 'Below any shop.').max(60, 'Above any shop.'),
  rh_pct: z.number({ error: 'Give %.' }).min(1, '1 to 100 %.').max(100, '1 to 100 %.'),
})
export const airLog = z.strictObject({
  text: z
    .string({ error: 'Choose a file.' })
    .min(1, 'The file is empty.')
    .max(2_000_000, 'That file is too long: 2 MB at most.'),
})
export const handOver = z.strictObject({ rowVersion: version, to: text('Who takes it') })

export const addProduct = z.strictObject({
  name: text("The product's name"),
  class: slugOf(CLASSES, 'Choose a product class.'),
  priceMinor: z.number().int('Whole minor units.').min(0, 'A price cannot be below zero.').max(10_000_000),
})
export const addLot = z.strictObject({
  productId: id,
  code: text("The lot's number", 60),
  amountMl: z
    .number({ error: 'Give ml.' })
    .positive('Give an amount above zero.')
    .max(1_000_000, 'That is more than a cubic metre.'),
})

export const shopChange = z.strictObject({
  rowVersion: version,
  name: text("The shop's name"),
  hourMinor: z.number().int().min(0).max(10_000_000),
  materialMarkupBp: z.number().int().min(0).max(50_000),
  taxBp: z.number().int().min(0).max(10_000),
  lengthUnit: z.enum(['mm', 'in']),
  oneRoom: z.boolean().default(false),
  light: z.enum(LIGHTS, { error: 'Choose a light.' }).default('led'),
  idleH: z
    .number({ error: 'How many hours?' })
    .int('Whole hours.')
    .min(1, 'One hour at least.')
    .max(168, 'A week at the most.')
    .default(12),
  mailName: maybeText(120),
  mailAddress: z.email('This is no mail address.').max(200).or(z.literal('')).default(''),
})
const role = z.enum(['owner', 'lead', 'finisher', 'office'])
export const addLicence = z.strictObject({
  personId: id,
  kind: z.enum(LICENCES, { error: 'Choose what the licence is for.' }),
  number: text("The licence's number", 80),
  validUntil: z.iso.date('Give the last day that it is valid.'),
})
export const addPerson = z.strictObject({
  name: text('The name', 80),
  login: text('The name to sign in with', 80),
  role,
  password,
})
export const changePerson = z.strictObject({
  rowVersion: version,
  role: role.optional(),
  active: z.boolean().optional(),
})
export const setClock = z.strictObject({ at: moment })
