import type { H3Event } from 'h3'
import type { z } from 'zod'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import { type NewPerson, ONE_TIME_H } from './door'
import { checkPassword, hashOf, oneTimePassword } from './passwords'
import type { Person, PersonRow } from './person'
import { beginSession, endOthers } from './sessions'

/** Owners are made, changed and let go by owners alone. @throws Fail 403. */
function onlyOwner(by: Person) {
  if (by.role !== 'owner') throw fail(403, 'forbidden', 'Only an owner makes or changes an owner.')
}
const refuseOwner = (row: PersonRow | null, by: Person) => row?.role === 'owner' && onlyOwner(by)

/**
 * A password for one sign-in, to be told by mouth: at that sign-in another must be chosen. All their sessions end. It
 * is shown once and kept nowhere.
 */
export async function resetPassword(id: number, input: z.infer<typeof s.resetPassword>, by: Person, at: Date) {
  const oneTime = oneTimePassword()
  const hash = await hashOf(oneTime)
  return transaction(async tx => {
    const row = await tx.row<PersonRow>('SELECT * FROM person WHERE id = :id FOR UPDATE', { id })
    refuseOwner(row, by)
    if (!row) throw notFound('person')
    if (row.row_version !== input.rowVersion) throw stale()
    await tx.run(
      `UPDATE person
          SET password_hash = :hash, must_change = TRUE, pin_hash = NULL, pin_wrong = 0,
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
const insertPerson = (tx: Db, p: NewPerson) =>
  tx.run('INSERT INTO person (name, login, role, password_hash) VALUES (:name, :login, :role, :hash)', { ...p })

/** Takes somebody into the shop. */
export async function addPerson(input: z.infer<typeof s.addPerson>, by: Person, at: Date) {
  if (input.role === 'owner') onlyOwner(by)
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
  await beginSession(event, id, true)
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
    const row = await tx.row<PersonRow>('SELECT * FROM person WHERE id = :id FOR UPDATE', { id })
    refuseOwner(row, by)
    if (!row) throw notFound('person')
    if (by.role === 'owner' && !owners.some(o => o.id === by.id))
      throw fail(403, 'forbidden', 'You are no owner any more.')
    if (input.role === 'owner') onlyOwner(by)
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

/** Ends a session: one's own, or anybody's by who looks after the people. */
export const endById = (sessionId: string, by: Person, at: Date) =>
  transaction(async tx => {
    const row = await tx.row<{ person_id: number; name: string; device: string }>(
      `SELECT session.person_id, person.name, session.device
          FROM session
          JOIN person ON person.id = session.person_id
          WHERE session.id = :sessionId`,
      { sessionId },
    )
    if (!row || (row.person_id !== by.id && !by.rights.has('people'))) throw notFound('session')
    await tx.run('DELETE FROM session WHERE id = :sessionId', { sessionId })
    if (row.person_id !== by.id) await logShop(tx, 'people', `Session of ${row.name} ended: ${row.device}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
