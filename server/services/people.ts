import type { H3Event } from 'h3'
import type { z } from 'zod'
import type { Role } from '#shared/api'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../database/db'
import { checkPassword, hashOf, isOldHash, isPassword, oneTimePassword } from './passwords'
import { logShop, tell } from './record'
import { beginSession, endOthers, knownDevice } from './sessions'

export interface Person {
  id: number
  name: string
  login: string
  role: Role
  active: 0 | 1
  must_change: 0 | 1
  row_version: number
  session_id: string
}

export const publicPerson = (p: Person) => ({
  id: p.id,
  name: p.name,
  login: p.login,
  role: p.role,
  active: Boolean(p.active),
  mustChange: Boolean(p.must_change),
  rowVersion: p.row_version,
})

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

const ONE_TIME_H = 24
/**
 * A password for one sign-in, to be told by mouth: at that sign-in another must be chosen. All their sessions end. It
 * is shown once and kept nowhere.
 */
export async function resetPassword(id: number, input: z.infer<typeof s.resetPassword>, by: Person, at: Date) {
  const oneTime = oneTimePassword()
  const hash = await hashOf(oneTime)
  return transaction(async tx => {
    const row = await tx.row<Person>('SELECT * FROM person WHERE id = :id FOR UPDATE', { id })
    if (!row) throw notFound('person')
    if (row.row_version !== input.rowVersion) throw stale()
    await tx.run(
      `UPDATE person
          SET password_hash = :hash, must_change = TRUE,
            one_time_until = UTC_TIMESTAMP(3) + INTERVAL ${ONE_TIME_H} HOUR, row_version = row_version + 1
          WHERE id = :id`,
      { hash, id },
    )
    await endOthers(tx, id)
    await logShop(tx, 'people', `One-time password made for ${row.name}; their sessions ended`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { oneTime, hours: ONE_TIME_H }
  })
}

interface NewPerson {
  name: string
  login: string
  role: Role
  hash: string
}
const insertPerson = (tx: Db, p: NewPerson) =>
  tx.run('INSERT INTO person (name, login, role, password_hash) VALUES (:name, :login, :role, :hash)', { ...p })

/** Takes somebody into the shop. */
export async function addPerson(input: z.infer<typeof s.addPerson>, by: Person, at: Date) {
  const login = input.login.toLowerCase()
  checkPassword(input.password, [login, input.name])
  const hash = await hashOf(input.password)
  return transaction(async tx => {
    const { id } = await insertPerson(tx, { name: input.name, login, role: input.role, hash })
    await logShop(tx, 'people', `${input.name} (${login}) came to the shop as ${input.role}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { id }
  })
}

/** First visit of a new shop: makes the shop and its owner, who is signed in. Refused once there is somebody. */
export async function firstOwner(event: H3Event, input: z.infer<typeof s.firstOwner>, at: Date) {
  try {
    new Intl.DateTimeFormat('en', { timeZone: input.zone })
  } catch {
    throw fail(422, 'invalid', 'This time zone is not known. Write it like Europe/Stockholm.', {
      zone: 'Write it like Europe/Stockholm.',
    })
  }
  const login = input.login.toLowerCase()
  checkPassword(input.password, [login, input.name, input.shop])
  if (await db().row('SELECT id FROM shop WHERE id = 1'))
    throw fail(409, 'exists', 'This shop has an owner already. Sign in.')
  const hash = await hashOf(input.password)
  const id = await transaction(async tx => {
    const made = await tx.run(
      `INSERT IGNORE INTO shop (id, name, zone, currency, length_unit, hour_minor, material_markup_bp, tax_bp)
       VALUES (1, :shop, :zone, :currency, :lengthUnit, 60000, 2500, 2500)`,
      input,
    )
    if (made.changed === 0) throw fail(409, 'exists', 'This shop has an owner already. Sign in.')
    for (const weekday of [1, 2, 3, 4, 5]) await tx.run('INSERT INTO opening VALUES (:weekday, 450, 1020)', { weekday })
    const owner = await insertPerson(tx, { name: input.name, login, hash, role: 'owner' })
    await logShop(tx, 'people', `${input.name} (${login}) opened the shop as its owner`, at, owner.id)
    return owner.id
  })
  await beginSession(event, id, 'own')
  return { ok: true }
}

/**
 * Changes role or lets somebody go; their sessions end at once. The shop keeps one owner: owners are locked together,
 * so two at once cannot both go.
 */
export async function changePerson(id: number, input: z.infer<typeof s.changePerson>, by: Person, at: Date) {
  return transaction(async tx => {
    const owners = await tx.rows<{ id: number }>(
      "SELECT id FROM person WHERE role = 'owner' AND active ORDER BY id FOR UPDATE",
    )
    const row = await tx.row<Person>('SELECT * FROM person WHERE id = :id FOR UPDATE', { id })
    if (!row) throw notFound('person')
    if (!owners.some(o => o.id === by.id)) throw fail(403, 'forbidden', 'You are no owner any more.')
    if (row.row_version !== input.rowVersion) throw stale()
    const role = input.role ?? row.role
    const active = input.active ?? Boolean(row.active)
    const stays = active && role === 'owner'
    if (!stays && owners.every(o => o.id === id))
      throw fail(422, 'last-owner', 'This is the last owner. Make somebody else an owner first.')
    await tx.run('UPDATE person SET role = :role, active = :active, row_version = row_version + 1 WHERE id = :id', {
      id,
      role,
      active,
    })
    await endOthers(tx, id, id === by.id && stays ? by.session_id : null)
    const cameOrWent = active ? `${row.name} is back in the shop` : `${row.name} was let go`
    const says = role === row.role ? cameOrWent : `${row.name} is ${role} now, was ${row.role}`
    await logShop(tx, 'people', says, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}

/** Ends a session: one's own, or anybody's by the owner. */
export const endById = (sessionId: string, by: Person, at: Date) =>
  transaction(async tx => {
    const row = await tx.row<{ person_id: number; name: string; device: string }>(
      `SELECT session.person_id, person.name, session.device
          FROM session
          JOIN person ON person.id = session.person_id
          WHERE session.id = :sessionId`,
      { sessionId },
    )
    if (!row || (row.person_id !== by.id && by.role !== 'owner')) throw notFound('session')
    await tx.run('DELETE FROM session WHERE id = :sessionId', { sessionId })
    if (row.person_id !== by.id) await logShop(tx, 'people', `Session of ${row.name} ended: ${row.device}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
