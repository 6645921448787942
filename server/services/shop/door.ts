import type { H3Event } from 'h3'
import type { z } from 'zod'
import type { Role } from '#shared/api'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import { checkPassword, hashOf, isOldHash, isPassword } from './passwords'
import { type Person, publicPerson } from './person'
import { beginSession, endOthers, knownDevice } from './sessions'

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

type WithHash = Person & { password_hash: string; one_time_until: Date | null }
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
  await beginSession(event, row.id, input.tablet ? 'tablet' : 'own')
  return publicPerson(row)
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
