import { createHash, randomBytes, randomUUID, webcrypto } from 'node:crypto'
import type { H3Event } from 'h3'
import { defaults, seal, unseal } from 'iron-webcrypto'
import type { Role } from '#shared/api'
import { db, type Db } from '../../database/db'
import type { Person } from './person'

/** A session is a row; the cookie carries its number, sealed with the session key. Times are real, also in a demo. */
const COOKIE = 'hantverk'
const DEVICE = 'hantverk-device'
export type SessionKind = 'own' | 'tablet'
/** A tablet of the shop stays signed in longer without a touch; everything ends some day. */
const TABLET_IDLE_H = 7 * 24
const LASTS_D: Record<SessionKind, number> = { own: 7, tablet: 30 }
const DEVICE_D = 400
const TOUCH_EVERY_MIN = 2

const ALIVE = `p.active AND session.ends_at > UTC_TIMESTAMP(3)
  AND session.seen_at > UTC_TIMESTAMP(3) - INTERVAL IF(session.kind = 'tablet', ${TABLET_IDLE_H}, shop.idle_h) HOUR`
const SESSIONS = 'session JOIN person p ON p.id = session.person_id JOIN shop ON shop.id = 1'

const sealed = (id: string) => seal(webcrypto as never, { id }, useRuntimeConfig().sessionKey, { ...defaults, ttl: 0 })
async function opened(cookie: string, key: string): Promise<string | null> {
  try {
    const { id } = (await unseal(webcrypto as never, cookie, key, defaults)) as { id?: unknown }
    return typeof id === 'string' && /^[0-9a-f-]{36}$/.test(id) ? id : null
  } catch {
    return null
  }
}

function putCookie(event: H3Event, name: string, value: string, days: number) {
  setCookie(event, name, value, {
    httpOnly: true,
    sameSite: 'lax',
    secure: useRuntimeConfig().cookieSecure,
    path: '/',
    maxAge: days * 86_400,
  })
}

/**
 * The session's number that a cookie carries. After the key was turned, cookies of the key before are taken for a day
 * and sealed anew.
 */
async function sessionIdOf(event: H3Event): Promise<string | null> {
  const cookie = getCookie(event, COOKIE)
  if (!cookie || cookie.length > 1000) return null
  const { sessionKey, sessionKeyBefore, sessionKeyBeforeUntil } = useRuntimeConfig()
  const id = await opened(cookie, sessionKey)
  if (id || !sessionKeyBefore || Date.now() > Date.parse(sessionKeyBeforeUntil)) return id
  const before = await opened(cookie, sessionKeyBefore)
  if (before) putCookie(event, COOKIE, await sealed(before), LASTS_D.own)
  return before
}

/** A page says so when somebody touched it lately; what it reads by itself keeps no session alive. */
const isTouched = (event: H3Event) => isWrite(event) || getHeader(event, 'x-touched') === '1'

/** Who calls, checked against the database; null for a session that ended, or somebody who left. */
export async function currentPerson(event: H3Event): Promise<Person | null> {
  const id = await sessionIdOf(event)
  if (!id) return null
  const row = await db().row<Person & { idle_min: number }>(
    `SELECT p.id, p.name, p.login, p.role, p.active, p.must_change, p.row_version, session.id AS session_id,
        TIMESTAMPDIFF(MINUTE, session.seen_at, UTC_TIMESTAMP(3)) AS idle_min
        FROM ${SESSIONS}
        WHERE session.id = :id AND ${ALIVE}`,
    { id },
  )
  if (row && row.idle_min >= TOUCH_EVERY_MIN && isTouched(event)) {
    await db().run('UPDATE session SET seen_at = UTC_TIMESTAMP(3) WHERE id = :id', { id })
  }
  return row
}

/** Which of these sessions are still alive. */
export async function livingSessions(ids: readonly string[]): Promise<Set<string>> {
  if (ids.length === 0) return new Set()
  const rows = await db().rows<{ id: string }>(
    `SELECT session.id FROM ${SESSIONS} WHERE session.id IN (:ids) AND ${ALIVE}`,
    { ids },
  )
  return new Set(rows.map(r => r.id))
}

/** "Firefox on Android", as far as a browser tells. */
function deviceWords(agent: string): string {
  const browser = (/(Firefox|Edg|OPR|Chrome|Safari)\//.exec(agent)?.[1] ?? 'A browser')
    .replace('Edg', 'Edge')
    .replace('OPR', 'Opera')
  const system = /(Android|iPhone|iPad|Windows|Mac OS X|CrOS|Linux)/.exec(agent)?.[1]
  return system ? `${browser} on ${system}` : browser
}

/** Begins a session on this device, and remembers the device as one that this person signs in from. */
export async function beginSession(event: H3Event, personId: number, kind: SessionKind): Promise<void> {
  const id = randomUUID()
  const device = deviceWords(getHeader(event, 'user-agent') ?? '').slice(0, 120)
  await db().run(
    `INSERT INTO session (id, person_id, kind, device, address, made_at, seen_at, ends_at)
        VALUES (
          :id, :personId, :kind, :device, :address, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3),
          UTC_TIMESTAMP(3) + INTERVAL :days DAY
        )`,
    { id, personId, kind, device, address: addressOf(event), days: LASTS_D[kind] },
  )
  putCookie(event, COOKIE, await sealed(id), LASTS_D[kind])
  const token = deviceToken(event) ?? randomBytes(32).toString('base64url')
  putCookie(event, DEVICE, token, DEVICE_D)
  await db().run('REPLACE INTO known_device (person_id, token_hash, at) VALUES (:personId, :hash, UTC_TIMESTAMP(3))', {
    personId,
    hash: tokenHash(token),
  })
}

const tokenHash = (token: string) => createHash('sha256').update(token).digest('hex')
function deviceToken(event: H3Event): string | null {
  const token = getCookie(event, DEVICE) ?? ''
  return /^[\w-]{43}$/.test(token) ? token : null
}
/** The hash of this device's token when somebody of this name has signed in from it before; else null. */
export async function knownDevice(event: H3Event, login: string): Promise<string | null> {
  const token = deviceToken(event)
  if (!token) return null
  const hash = tokenHash(token)
  const row = await db().row(
    'SELECT 1 FROM known_device d JOIN person p ON p.id = d.person_id WHERE d.token_hash = :hash AND p.login = :login',
    { hash, login },
  )
  return row ? hash : null
}

export async function endSession(event: H3Event, person: Person): Promise<void> {
  await db().run('DELETE FROM session WHERE id = :id', { id: person.session_id })
  deleteCookie(event, COOKIE, { path: '/' })
}

/** Ends all sessions of somebody, but for the one that asks. */
export const endOthers = (tx: Db, personId: number, but: string | null = null): Promise<unknown> =>
  tx.run(`DELETE FROM session WHERE person_id = :personId ${but ? 'AND id <> :but' : ''}`, { personId, but })

export interface SessionLine {
  id: string
  person_id: number
  name: string
  role: Role
  kind: SessionKind
  device: string
  address: string
  made_at: Date
  seen_at: Date
  here: boolean
}
/** Who is signed in and where: one's own; the owner sees all. */
export async function listSessions(person: Person): Promise<SessionLine[]> {
  const rows = await db().rows<Omit<SessionLine, 'here'>>(
    `SELECT session.id, session.person_id, p.name, p.role, session.kind, session.device, session.address,
        session.made_at, session.seen_at
        FROM ${SESSIONS}
        WHERE (:all OR p.id = :id) AND ${ALIVE}
        ORDER BY session.seen_at DESC
        LIMIT 200`,
    { all: person.role === 'owner', id: person.id },
  )
  return rows.map(r => ({ ...r, here: r.id === person.session_id }))
}
