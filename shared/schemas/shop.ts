/** Who gets in, the people, licences and settings of the shop. */
import { z } from 'zod'
import { LIGHTS } from '../../core/colour'
import { LICENCES } from '../../core/safety'
import { TEMPERATURE_UNITS } from '../../core/units'
import { text, maybeText, version, id, moment, placeMark } from './fields'
import { openings } from './rooms'

const passwordGiven = z
  .string({ error: 'The password is missing.' })
  .min(1, 'The password is missing.')
  .max(200, 'Too long: 200 characters at most.')
export const signIn = z.strictObject({
  login: text('The name', 80),
  password: passwordGiven,
})
export const proof = z.strictObject({ password: passwordGiven })
const pinGiven = z.string({ error: 'The PIN is missing.' }).regex(/^\d{4,8}$/, 'A PIN is four to eight figures.')
/** All the same, or counted up or down: what others try first. */
const isEasyPin = (pin: string) =>
  [0, 1, 9].some(step => [...pin].every((d, i) => i === 0 || (Number(pin[i - 1]) + step) % 10 === Number(d)))
export const tap = z.strictObject({ personId: id, pin: pinGiven })
export const choosePin = z.strictObject({
  password: passwordGiven,
  pin: pinGiven.refine(pin => !isEasyPin(pin), 'Others try this one first. Take another.'),
})
const tabletName = text("The tablet's name", 60)
/** Registers the device that asks. `place`: the code of where it hangs. */
export const registerTablet = z.strictObject({ name: tabletName, place: placeMark.nullable() })
export const changeTablet = z.strictObject({ rowVersion: version, name: tabletName, place: placeMark.nullable() })
/** What else is wrong with a password (blank, common, a name) the server says. */
const password = z
  .string({ error: 'The password is missing.' })
  .min(10, 'Take a password of 10 characters or more.')
  .max(200, 'Too long: 200 characters at most.')
export const changePassword = z.strictObject({ before: passwordGiven, password })
export const resetPassword = z.strictObject({ rowVersion: version })
export const firstOwner = z.strictObject({
  shop: text("The shop's name"),
  name: text('Your name', 80),
  login: text('The name to sign in with', 80),
  password,
  zone: text('The time zone', 60),
  currency: z.string().regex(/^[A-Z]{3}$/, 'Three capital letters, such as SEK or EUR.'),
  lengthUnit: z.enum(['mm', 'in']),
})

export const shopChange = z.strictObject({
  rowVersion: version,
  name: text("The shop's name"),
  hourMinor: z.number().int().min(0).max(10_000_000),
  materialMarkupBp: z.number().int().min(0).max(50_000),
  taxBp: z.number().int().min(0).max(10_000),
  lengthUnit: z.enum(['mm', 'in']),
  temperatureUnit: z.enum(TEMPERATURE_UNITS).default('C'),
  handAirMin: z
    .number({ error: 'How many minutes?' })
    .int('Whole minutes.')
    .min(1, 'One minute at least.')
    .max(480, 'Eight hours at the most.')
    .default(15),
  light: z.enum(LIGHTS, { error: 'Choose a light.' }).default('led'),
  idleH: z
    .number({ error: 'How many hours?' })
    .int('Whole hours.')
    .min(1, 'One hour at least.')
    .max(168, 'A week at the most.')
    .default(12),
  tabletIdleMin: z
    .number({ error: 'How many minutes?' })
    .int('Whole minutes.')
    .min(1, 'One minute at least.')
    .max(120, 'Two hours at the most.')
    .default(5),
  mailName: maybeText(120),
  mailAddress: z.email('This is no mail address.').max(200).or(z.literal('')).default(''),
})
export const hoursChange = z.strictObject({
  rowVersion: version,
  /** Monday first */
  week: z
    .array(openings)
    .length(7, 'A week has seven days.')
    .refine(week => week.some(day => day.length > 0), 'One opening in the week at least, or nothing can be dated.'),
  closures: z
    .array(
      z.strictObject({
        day: z.iso.date('Give a date.').refine(d => /^20\d\d-/.test(d), 'Give a date of these years.'),
        why: maybeText(120),
      }),
    )
    .max(400, 'Fewer closed days.')
    .refine(days => new Set(days.map(d => d.day)).size === days.length, 'One of these days stands there twice.'),
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
