import type { H3Event } from 'h3'
import type { z } from 'zod'
import type { Role } from '#shared/rights'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import { checkPassword, hashOf, isOldHash, isPassword, isPin, pinHashOf } from './passwords'
import { type Person, type PersonRow, publicPerson } from './person'
import { beginSession, currentTablet, endOthers, knownDevice } from './sessions'

const WATCH_MIN = 15
/** How many wrong passwords in a quarter of an hour go unslowed, and the longest pause after that, seconds. */
export const GATES = {
  /** a device that this person has signed in from before: only its own tries count */
  device: { free: 5, most_s: 30 },
  /** any other device: the tries on this name */
  name: { free: 5, most_s: 60 },
  /** and those from its address, on any name */
  address: { free: 30, most_s: 60 },
} as const
/** Seconds to wait after n wrong passwords: none for the free ones, then doubling from 2 s. */
export const slowing_s = (wrong: number, gate: { free: number; most_s: number }): number =>
  wrong < gate.free ? 0 : Math.min(gate.most_s, 2 ** (wrong - gate.free + 1))

interface Tries {
  wrong: number
  ago_s: number | null
}
const TRIES = `SELECT COUNT(*) AS wrong, MIN(TIMESTAMPDIFF(MICROSECOND, at, UTC_TIMESTAMP(3))) / 1000000 AS ago_s
  FROM sign_in_attempt WHERE NOT ok AND at > UTC_TIMESTAMP(3) - INTERVAL ${WATCH_MIN} MINUTE`
const SINCE = (which: string) =>
  `AND id > COALESCE((SELECT MAX(a.id) FROM sign_in_attempt a WHERE a.login = :login AND ${which} AND a.ok), 0)`

const waitOf = ({ wrong, ago_s }: Tries, gate: (typeof GATES)[keyof typeof GATES]) =>
  slowing_s(wrong, gate) - (ago_s ?? 0)

/**
 * Counts a try before it is checked, under one lock, so that many at once do not slip through together. Others' wrong
 * tries never hold up a device that this person has signed in from before. @returns the try's number, to be marked
 * when it was right. @throws Fail 429.
 */
async function countTry(login: string, address: string, device: string | null): Promise<number> {
  return transaction(async tx => {
    await tx.row('SELECT id FROM shop WHERE id = 1 FOR UPDATE')
    const asked = { login, address, device }
    const wait_s = device
      ? waitOf(
          (await tx.row<Tries>(
            `${TRIES} AND login = :login AND device = :device ${SINCE('a.device = :device')}`,
            asked,
          ))!,
          GATES.device,
        )
      : Math.max(
          waitOf(
            (await tx.row<Tries>(
              `${TRIES} AND login = :login AND device IS NULL ${SINCE('a.device IS NULL')}`,
              asked,
            ))!,
            GATES.name,
          ),
          waitOf((await tx.row<Tries>(`${TRIES} AND address = :address AND device IS NULL`, asked))!, GATES.address),
        )
    if (wait_s > 0) throw fail(429, 'slow-down', `Too many wrong passwords. Try again in ${Math.ceil(wait_s)} s.`)
    return (
      await tx.run(
        `INSERT INTO sign_in_attempt (login, address, device, at, ok)
            VALUES (:login, :address, :device, UTC_TIMESTAMP(3), FALSE)`,
        asked,
      )
    ).id
  })
}

type WithHash = PersonRow & {
  password_hash: string
  one_time_until: Date | null
  pin_hash: string | null
  pin_wrong: number
}
/**
 * Checks a password, slowed by name and address; the unknown name takes as long as the known.
 * @throws Fail 401, 429.
 */
async function checked(event: H3Event, login: string, password: string): Promise<WithHash> {
  const attempt = await countTry(login, addressOf(event), await knownDevice(event, login))
  const row = await db().row<WithHash>('SELECT * FROM person WHERE login = :login', { login })
  const right = await isPassword(row?.active ? row.password_hash : null, password)
  if (!row || !right) throw fail(401, 'wrong', 'Name or password is wrong.')
  if (row.one_time_until && row.one_time_until.getTime() < Date.now())
    throw fail(401, 'run-out', 'This one-time password has run out. Ask the owner for another.')
  await db().run('UPDATE sign_in_attempt SET ok = TRUE WHERE id = :attempt', { attempt })
  return row
}

/** Signs in on this device. A hash that was made with other figures is made anew. */
export async function signIn(event: H3Event, input: z.infer<typeof s.signIn>) {
  const row = await checked(event, input.login.toLowerCase(), input.password)
  if (isOldHash(row.password_hash)) {
    await db().run('UPDATE person SET password_hash = :hash WHERE id = :id AND password_hash = :before', {
      id: row.id,
      hash: await hashOf(input.password),
      before: row.password_hash,
    })
  }
  await db().run('UPDATE person SET pin_wrong = 0 WHERE id = :id AND pin_wrong > 0', { id: row.id })
  await beginSession(event, row.id, true)
  return publicPerson(row)
}

/** The password once more, in a session that stands: opens for some minutes what wants it. */
export async function prove(event: H3Event, { password }: z.infer<typeof s.proof>, person: Person) {
  await checked(event, person.login, password)
  await db().run('UPDATE session SET proved_at = UTC_TIMESTAMP(3) WHERE id = :id', { id: person.session_id })
  return { ok: true }
}

const MOST_WRONG_PINS = 10
/** Counts a try before it is looked at, so that many at once do not slip through. @throws Fail 403, 404, 409. */
const countPin = (personId: number): Promise<WithHash> =>
  transaction(async tx => {
    const row = await tx.row<WithHash>('SELECT * FROM person WHERE id = :personId AND active FOR UPDATE', { personId })
    if (!row) throw notFound('person')
    if (row.pin_hash === null) throw fail(409, 'no-pin', `${row.name} has no PIN yet: give the password.`)
    if (row.pin_wrong >= MOST_WRONG_PINS)
      throw fail(403, 'pin-shut', `${MOST_WRONG_PINS} wrong PINs: give the password, which opens the PIN again.`)
    await tx.run('UPDATE person SET pin_wrong = pin_wrong + 1 WHERE id = :personId', { personId })
    return row
  })

/** Somebody steps up to a tablet of the shop: a tap on the name, and a PIN. @throws Fail 401, 403, 404, 409. */
export async function tap(event: H3Event, { personId, pin }: z.infer<typeof s.tap>) {
  if (!(await currentTablet(event)))
    throw fail(403, 'no-tablet', 'A PIN opens only a tablet that the shop has registered. Give name and password.')
  const row = await countPin(personId)
  if (row.pin_hash === null || !(await isPin(row.pin_hash, pin))) {
    const left = MOST_WRONG_PINS - row.pin_wrong - 1
    throw fail(401, 'wrong', left <= 3 ? `Wrong PIN; ${left} more, then the password.` : 'Wrong PIN.')
  }
  await db().run('UPDATE person SET pin_wrong = 0 WHERE id = :personId', { personId })
  await beginSession(event, row.id, false)
  return publicPerson(row)
}

/** One's own PIN, chosen with the password. */
export async function choosePin(event: H3Event, input: z.infer<typeof s.choosePin>, person: Person, at: Date) {
  await checked(event, person.login, input.password)
  const hash = await pinHashOf(input.pin)
  return transaction(async tx => {
    await tx.run('UPDATE person SET pin_hash = :hash, pin_wrong = 0 WHERE id = :id', { hash, id: person.id })
    await logShop(tx, 'people', `${person.name} chose a PIN`, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}

/** Somebody's own new password. Their other sessions end. */
export async function changePassword(
  event: H3Event,
  input: z.infer<typeof s.changePassword>,
  person: Person,
  at: Date,
) {
  await checked(event, person.login, input.before)
  checkPassword(input.password, [person.login, person.name])
  if (input.password === input.before)
    throw fail(422, 'weak-password', 'This is the password you have. Take another.', {
      password: 'The same as before.',
    })
  const hash = await hashOf(input.password)
  return transaction(async tx => {
    await tx.run(
      `UPDATE person
          SET password_hash = :hash, must_change = FALSE, one_time_until = NULL, row_version = row_version + 1
          WHERE id = :id`,
      { hash, id: person.id },
    )
    await endOthers(tx, person.id, person.session_id)
    await logShop(tx, 'people', `${person.name} chose a new password; other sessions of theirs ended`, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}

export const ONE_TIME_H = 24

export interface NewPerson {
  name: string
  login: string
  role: Role
  hash: string
}
