import type { H3Event } from 'h3'
import type { z } from 'zod'
import type { Role } from '#shared/api'
import type * as s from '#shared/schemas'
import { db, transaction, type Db } from '../database/db'

export interface Person { id: number, name: string, login: string, role: Role, epoch: number, active: 0 | 1, row_version: number }

declare module '#auth-utils' {
  interface User { id: number, epoch: number }
}

/** Who calls, checked against the database: an old epoch or somebody who left is nobody. */
export async function currentPerson(event: H3Event): Promise<Person | null> {
  const { user } = await getUserSession(event)
  if (!user) return null
  return db().row<Person>(
    `SELECT id, name, login, role, epoch, active, row_version
       FROM person WHERE id = :id AND epoch = :epoch AND active`, { id: user.id, epoch: user.epoch })
}

export const publicPerson = (p: Person) => ({ id: p.id, name: p.name, login: p.login, role: p.role, active: Boolean(p.active), rowVersion: p.row_version })

const FREE_TRIES = 5
const WATCH_MIN = 15
/** Seconds to wait after n wrong passwords in a quarter of an hour: none for five, then doubling from 2 s, 5 min at the most. */
export const slowing_s = (wrong: number): number => wrong < FREE_TRIES ? 0 : Math.min(300, 2 ** (wrong - FREE_TRIES + 1))

/** Signs in; wrong tries slow down further tries for that name, counted in the database. Real time, not the demo's. */
export async function signIn(event: H3Event, input: z.infer<typeof s.signIn>) {
  const login = input.login.toLowerCase()
  const at = new Date()
  const tries = await db().row<{ wrong: number, last: Date | null }>(
    `SELECT COUNT(*) AS wrong, MAX(at) AS last FROM sign_in_attempt
      WHERE login = :login AND NOT ok AND at > :since
        AND at > COALESCE((SELECT MAX(a.at) FROM sign_in_attempt a WHERE a.login = :login AND a.ok), '2000-01-01')`,
    { login, since: new Date(at.getTime() - WATCH_MIN * 60_000) })
  const wait_s = slowing_s(tries?.wrong ?? 0) - (tries?.last ? (at.getTime() - tries.last.getTime()) / 1000 : 0)
  if (wait_s > 0) throw fail(429, 'slow-down', `Too many wrong passwords. Try again in ${Math.ceil(wait_s)} s.`)
  const row = await db().row<Person & { password_hash: string }>('SELECT * FROM person WHERE login = :login', { login })
  const right = row !== null && await verifyPassword(row.password_hash, input.password) && Boolean(row.active)
  await db().run('INSERT INTO sign_in_attempt (login, at, ok) VALUES (:login, :at, :right)', { login, at, right })
  if (!right) throw fail(401, 'wrong', 'Name or password is wrong.')
  await setUserSession(event, { user: { id: row.id, epoch: row.epoch } })
  return publicPerson(row)
}

export async function addPerson(tx: Db, input: z.infer<typeof s.addPerson>): Promise<number> {
  const { id } = await tx.run(
    'INSERT INTO person (name, login, role, password_hash) VALUES (:name, :login, :role, :hash)',
    { ...input, login: input.login.toLowerCase(), hash: await hashPassword(input.password) })
  return id
}

/** First visit of a new shop: makes the shop and its owner. Refused once there is somebody. */
export async function firstOwner(input: z.infer<typeof s.firstOwner>): Promise<number> {
  try { new Intl.DateTimeFormat('en', { timeZone: input.zone }) }
  catch { throw fail(422, 'invalid', 'This time zone is not known. Write it like Europe/Stockholm.', { zone: 'Write it like Europe/Stockholm.' }) }
  return transaction(async (tx) => {
    const made = await tx.run(
      `INSERT IGNORE INTO shop (id, name, zone, currency, length_unit, hour_minor, material_markup_bp, tax_bp)
       VALUES (1, :shop, :zone, :currency, :lengthUnit, 60000, 2500, 2500)`, input)
    if (made.changed === 0) throw fail(409, 'exists', 'This shop has an owner already. Sign in.')
    for (const weekday of [1, 2, 3, 4, 5]) await tx.run('INSERT INTO opening VALUES (:weekday, 450, 1020)', { weekday })
    return addPerson(tx, { name: input.name, login: input.login, password: input.password, role: 'owner' })
  })
}

/** Changes role or lets somebody go; the new epoch ends every session of theirs at once. */
export async function changePerson(id: number, input: z.infer<typeof s.changePerson>, by: Person) {
  return transaction(async (tx) => {
    const row = await tx.row<Person>('SELECT * FROM person WHERE id = :id FOR UPDATE', { id })
    if (!row) throw notFound('person')
    if (row.row_version !== input.rowVersion) throw stale()
    const role = input.role ?? row.role
    const active = input.active ?? Boolean(row.active)
    if (row.id === by.id && (!active || role !== 'owner')) throw fail(422, 'last-owner', 'You cannot take your own ownership away.')
    await tx.run('UPDATE person SET role = :role, active = :active, epoch = epoch + 1, row_version = row_version + 1 WHERE id = :id', { id, role, active })
    return { ok: true }
  })
}
