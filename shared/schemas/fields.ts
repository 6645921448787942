/** Kinds of fields that every form shares: texts, numbers of rows, lengths, moments. */
import { z } from 'zod'
import { MATERIALS } from '../../core/materials'
import { isWithin, LENGTH_MM, parseLength_mm, VENEER_MM } from '../../core/units'

/** What no line of text needs: control characters, half characters, and marks that turn the reading direction about. */
const UNSEEN = new RegExp(
  [
    String.raw`[\u0000-\u0008\u000b\u000c\u000e-\u001f\u007f\u202a-\u202e\u2066-\u2069]`,
    String.raw`[\ud800-\udbff](?![\udc00-\udfff])`,
    String.raw`(?<![\ud800-\udbff])[\udc00-\udfff]`,
  ].join('|'),
  'g',
)
export const written = (error?: string) =>
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
export const veneer = written()
  .max(40)
  .refine(t => fits(t, VENEER_MM), "Give the veneer's thickness, such as 0.6, from 0.1 to 10 mm.")

export const moment = z.iso
  .datetime({ offset: true, error: 'This is no moment in time.' })
  .refine(t => /^20\d\d-/.test(t), 'This is no moment of these years.')
/** A place's code, as on its label. */
export const placeMark = z
  .string({ error: 'A place has a short code, such as BAG-12.' })
  .trim()
  .toUpperCase()
  .regex(/^[A-Z0-9][A-Z0-9-]{0,19}$/, 'A place has a short code, such as BAG-12.')
/** Product classes. */
export const CLASSES = MATERIALS.map(m => m.slug)
