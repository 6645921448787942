/** What browser and server say to each other. Messages are written for a restorer. */
import { z } from 'zod'
import { PERIODS, TESTS } from '../core/identify'
import { COLOURS, FINISHES, MATERIALS } from '../core/layers/materials'
import { FINDING_KINDS, ROUTES, STEP_KINDS, WISHES } from '../core/plan'
import { parseLength_mm, SHAPES } from '../core/units'
import { SPECIES } from '../core/wood'

const text = (what: string, max = 120) => z.string({ error: `${what} is missing.` }).trim().min(1, `${what} is missing.`).max(max, `${what} is too long: ${max} characters at most.`)
const maybeText = (max: number) => z.string().trim().max(max, `Too long: ${max} characters at most.`).default('')
const version = z.number({ error: 'Load the page again and repeat.' }).int().min(1)
const id = z.number().int().min(1).max(4294967295)
const slugOf = <T extends string>(list: readonly T[], message: string) => z.enum(list as readonly [T, ...T[]], { error: message })

/** A length as typed; kept as typed, checked to be one. */
export const length = z.string({ error: 'Give a length, such as 600, 60 cm or 23 5/8 in.' }).trim().max(40, 'Too long for a length.')
  .refine((t) => { const mm = parseLength_mm(t); return mm !== null && mm <= 20_000 }, 'Give a length above zero, such as 600, 60 cm or 23 5/8 in, up to 20 m.')
const veneer = z.string().trim().max(40).refine((t) => { const mm = parseLength_mm(t); return mm !== null && mm <= 10 }, 'Give the veneer\'s thickness, such as 0.6, up to 10 mm.')

export const signIn = z.object({ login: text('The name', 80), password: z.string({ error: 'The password is missing.' }).min(1, 'The password is missing.').max(200) })
const password = z.string({ error: 'The password is missing.' }).min(10, 'Take a password of 10 characters or more.').max(200)
export const firstOwner = z.object({ shop: text('The shop\'s name'), name: text('Your name', 80), login: text('The name to sign in with', 80), password, zone: text('The time zone', 60), currency: z.string().regex(/^[A-Z]{3}$/, 'Three capital letters, such as SEK or EUR.'), lengthUnit: z.enum(['mm', 'in']) })

export const faceSchema = z.object({
  name: text('The face\'s name', 80),
  rank: z.enum(['show', 'secondary', 'hidden']),
  shape: slugOf(SHAPES, 'Choose a shape.'),
  orientation: z.enum(['horizontal', 'vertical']),
  length,
  width: length,
  count: z.number({ error: 'How many? A whole number.' }).int('How many? A whole number.').min(1, 'At least one.').max(500, 'At most 500.'),
  species: slugOf(SPECIES.map(s => s.slug), 'Choose a species.'),
  substrate: z.enum(['solid', 'veneer']),
  veneer: veneer.or(z.literal('')).default(''),
})
export const partSchema = z.object({ name: text('The part\'s name', 80), scope: z.enum(['refinish', 'protect', 'match']), faces: z.array(faceSchema).min(1, 'A part needs one face at least.').max(60) })
const parts = z.array(partSchema).min(1, 'Add one part at least.').max(60)
const wish = {
  use: z.enum(['display', 'daily', 'hard']), tone: z.enum(['lighter', 'same', 'darker', 'match']), sheen: z.enum(['matt', 'satin', 'semi-gloss', 'gloss']), age: z.enum(['keep', 'new']),
  dueOn: z.iso.date('Give a date.').nullable(), period: z.enum([...PERIODS, 'unknown']), refinished: z.enum(['yes', 'no', 'unknown']), keepPatina: z.boolean(),
  lead: z.enum(['yes', 'no', 'unknown'], { error: 'Answer the lead question; "not known" counts as yes.' }),
}
export const takeIn = z.object({
  name: text('The piece\'s name'), note: maybeText(2000),
  client: z.object({ name: text('The client\'s name'), email: z.email('This is no mail address.').max(200).or(z.literal('')), phone: maybeText(40) }),
  ...wish, parts,
})
export type TakeIn = z.infer<typeof takeIn>
export const pieceChange = z.object({ rowVersion: version, name: text('The piece\'s name').optional(), ...wish, note: maybeText(2000) }).partial().required({ rowVersion: true })
export const addParts = z.object({ parts })
export const pieceQuery = z.object({ find: z.string().max(100).default(''), state: z.enum(['active', 'ready', 'handed-over', 'all']).default('active') })
export const pictureQuery = z.object({ size: z.enum(['full', 'thumb']).default('full') })

export const addFinding = z.object({ faceId: id, kind: slugOf(FINDING_KINDS, 'Choose what was found.'), grade: z.number().int().min(1, 'Grade 1 to 5.').max(5, 'Grade 1 to 5.'), wish: z.enum(WISHES), note: maybeText(500) })
export const addTest = z.object({ test: z.string(), result: z.string(), spot: maybeText(120) })
  .refine(t => TESTS.some(k => k.slug === t.test && t.result in k.results), { error: 'This test has no such result.', path: ['result'] })
export const addEvidence = z.object({ kind: z.literal('lead-test'), answer: z.enum(['yes', 'no']), method: text('How it was tested', 200) })

const pick = { finish: slugOf(FINISHES, 'Choose a finish.'), colour: slugOf(COLOURS, 'Choose a colour.'), conditioner: z.enum(['auto', 'none', 'oil-conditioner', 'water-conditioner']) }
export const routeQuery = z.object({ finish: pick.finish.default('waterborne-polyurethane'), colour: pick.colour.default('none'), conditioner: pick.conditioner.default('auto') })
export const choose = z.object({ rowVersion: version, route: slugOf(ROUTES, 'Choose a route.'), ...pick })
const CLASSES = MATERIALS.map(m => m.slug)
const stepBody = {
  title: text('What is to be done', 200), attendedMin: z.number({ error: 'Minutes, a whole number.' }).int('Minutes, a whole number.').min(0, 'Minutes cannot be below zero.').max(10_000, 'That is more than a week.'),
  product: slugOf(CLASSES, 'Choose a product class from the list.').nullable(), amountMl: z.number().min(0, 'An amount cannot be below zero.').max(100_000).nullable(),
  grits: z.array(z.number().int()).max(8), method: z.enum(['hand', 'random-orbit', 'wet', 'brush', 'spray', 'rag', 'none']),
}
export const addStep = z.object({ kind: slugOf(STEP_KINDS.filter(k => k !== 'approval' && k !== 'gate'), 'Choose a kind of step.'), after: id.nullable(), faces: z.array(id).min(1, 'Choose the faces.'), ...stepBody, coat: z.number().int().min(1).max(20).nullable() })
export const changeStep = z.object({ rowVersion: version, ...stepBody, moveBy: z.number().int().min(-50).max(50) }).partial().required({ rowVersion: true })
export const versionQuery = z.object({ rowVersion: z.coerce.number().int().min(1) })
export const overrule = z.object({ rule: text('The rule', 60), stepKey: text('The step', 60), word: text('A word why', 500) })

export const ask = z.object({ words: maybeText(1000), days: z.number().int().min(1).max(90).default(14) })
export const clientAnswer = z.object({ kind: z.enum(['yes', 'no', 'question']), name: maybeText(120), says: maybeText(1000) })
  .refine(a => a.kind !== 'question' || a.says.length > 0, { error: 'Write your question.', path: ['says'] })
  .refine(a => a.kind === 'question' || a.name.length > 0, { error: 'Write your name.', path: ['name'] })
export const recordAnswer = z.object({ answer: z.enum(['yes', 'no']), via: z.enum(['phone', 'counter']), name: text('Who said it'), says: maybeText(1000) })
export const replyWord = z.object({ says: text('Your answer', 1000) })

const moment = z.iso.datetime({ offset: true, error: 'This is no moment in time.' })
const command = { uuid: z.uuid('Repeat from a fresh page.'), stepId: id, rowVersion: version, happenedAt: moment }
export const benchCommand = z.discriminatedUnion('kind', [
  z.object({ kind: z.literal('start'), ...command }),
  z.object({ kind: z.literal('finish'), ...command, gate: z.enum(['pass', 'fail']).nullable().default(null),
    used: z.array(z.object({ lotId: id, amountMl: z.number({ error: 'Give the amount in ml.' }).min(0, 'An amount cannot be below zero.').max(100_000), word: maybeText(300) })).max(5).default([]), note: maybeText(500) }),
  z.object({ kind: z.literal('not-dry'), ...command }),
  z.object({ kind: z.literal('undo'), ...command }),
], { error: 'This is no act at the bench.' })
export type BenchCommand = z.infer<typeof benchCommand>
export const alarmAck = z.object({ pieceId: id, from: text('The step', 60), to: text('The step', 60) })
export const airReading = z.object({ temperature_C: z.number({ error: 'Give °C.' }).min(-20, 'Below any shop.').max(60, 'Above any shop.'), rh_pct: z.number({ error: 'Give %.' }).min(1, '1 to 100 %.').max(100, '1 to 100 %.') })
export const handOver = z.object({ rowVersion: version, to: text('Who takes it') })

export const addProduct = z.object({ name: text('The product\'s name'), class: slugOf(CLASSES, 'Choose a product class.'), priceMinor: z.number().int('Whole minor units.').min(0, 'A price cannot be below zero.').max(10_000_000) })
export const addLot = z.object({ productId: id, code: text('The lot\'s number', 60), amountMl: z.number({ error: 'Give ml.' }).positive('Give an amount above zero.').max(1_000_000, 'That is more than a cubic metre.') })

export const shopChange = z.object({ rowVersion: version, name: text('The shop\'s name'), hourMinor: z.number().int().min(0).max(10_000_000), materialMarkupBp: z.number().int().min(0).max(50_000), taxBp: z.number().int().min(0).max(10_000), lengthUnit: z.enum(['mm', 'in']) })
const role = z.enum(['owner', 'lead', 'finisher', 'office'])
export const addPerson = z.object({ name: text('The name', 80), login: text('The name to sign in with', 80), role, password })
export const changePerson = z.object({ rowVersion: version, role: role.optional(), active: z.boolean().optional() })
export const setClock = z.object({ at: moment })
