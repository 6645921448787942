import { createHash, randomBytes, randomUUID, webcrypto } from 'node:crypto'
import type { H3Event } from 'h3'
import { defaults, seal, unseal } from 'iron-webcrypto'
import { LEFT_COOKIE } from '#shared/carried'
import type { Role } from '#shared/rights'
import { db, type Db } from '../../database/db'
import { atTheBench, type Person, type PersonRow, rightsOf, type ShopWays } from './person'

/**
 * Sessions and tablets are rows; each has a cookie that carries its number, sealed with the session key. Times are
 * real, also in a demo.
 */
const PERSON = 'hantverk'
const TABLET = 'hantverk-tablet'
const DEVICE = 'hantverk-device'
/** Everything ends some day. */
const LASTS_D = 7
const DEVICE_D = 400
const TOUCH_EVERY_MIN = 1

/** On a tablet of the shop somebody leaves by standing idle for minutes, elsewhere for hours. */
const ALIVE = `p.active AND session.ends_at > UTC_TIMESTAMP(3) AND (session.tablet_id IS NULL OR t.ended_at IS NULL)
  AND session.seen_at >
    UTC_TIMESTAMP(3) - INTERVAL IF(session.tablet_id IS NULL, shop.idle_h * 60, shop.tablet_idle_min) MINUTE`
const SESSIONS = `session JOIN person p ON p.id = session.person_id JOIN shop ON shop.id = 1
  LEFT JOIN tablet t ON t.id = session.tablet_id`

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
    secure: useRuntimeConfig().cookieSecure || 'encrypted' in event.node.req.socket,
    path: '/',
    maxAge: days * 86_400,
  })
}

/** The number that a cookie carries. After the key was turned, cookies of the key before are taken for a day. */
async function numberIn(event: H3Event, name: string, days: number): Promise<string | null> {
  const cookie = getCookie(event, name)
  if (!cookie || cookie.length > 1000) return null
  const { sessionKey, sessionKeyBefore, sessionKeyBeforeUntil } = useRuntimeConfig()
  const id = await opened(cookie, sessionKey)
  if (id || !sessionKeyBefore || Date.now() > Date.parse(sessionKeyBeforeUntil)) return id
  const before = await opened(cookie, sessionKeyBefore)
  if (before) putCookie(event, name, await sealed(before), days)
  return before
}

/** A page says so when somebody touched it lately; what it reads by itself keeps no session alive. */
const isTouched = (event: H3Event) => isWrite(event) || getHeader(event, 'x-touched') === '1'

/** Who calls, checked against the database; null for a session that ended, or somebody who left. */
export const currentPerson = async (event: H3Event): Promise<Person | null> =>
  getCookie(event, LEFT_COOKIE) ? null : sessionPerson(event)

/** Whose session this device holds, also where they left it while there was no line. */
export async function sessionPerson(event: H3Event): Promise<Person | null> {
  const id = await numberIn(event, PERSON, LASTS_D)
  if (!id) return null
  const row = await db().row<Omit<Person, 'shop'> & ShopWays & { idle_min: number; names: string | null }>(
    `SELECT p.id, p.name, p.login, p.role, p.active, p.must_change, p.row_version, session.id AS session_id,
        session.tablet_id, session.proved_at, shop.currency, shop.temperature_unit AS temperature,
        TIMESTAMPDIFF(MINUTE, session.seen_at, UTC_TIMESTAMP(3)) AS idle_min,
        (SELECT GROUP_CONCAT(r.name) FROM role_right r WHERE r.role = p.role) AS names
        FROM ${SESSIONS}
        WHERE session.id = :id AND ${ALIVE}`,
    { id },
  )
  if (row && row.idle_min >= TOUCH_EVERY_MIN && isTouched(event)) {
    await db().run('UPDATE session SET seen_at = UTC_TIMESTAMP(3) WHERE id = :id', { id })
  }
  if (!row) return null
  const { names, currency, temperature, ...person } = row
  return { ...person, rights: rightsOf(row.role, names), shop: { currency, temperature } }
}

/**
 * Somebody of the bench by their number alone, at a tablet of the shop: who did what comes in late from there.
 * @throws Fail 403 where nobody of that number works at the bench any more.
 */
export async function personNamed(personId: number, tablet: TabletHere): Promise<Person> {
  const row = await db().row<PersonRow & { names: string | null }>(
    `SELECT p.id, p.name, p.login, p.role, p.active, p.must_change, p.row_version,
        (SELECT GROUP_CONCAT(r.name) FROM role_right r WHERE r.role = p.role) AS names
        FROM person p
        WHERE p.id = :personId AND ${atTheBench('p')}`,
    { personId },
  )
  if (!row) throw fail(403, 'forbidden', 'Whoever did this does not work at the bench any more.')
  const { names, ...person } = row
  const [rights, { shop, id }] = [rightsOf(row.role, names), tablet]
  return { ...person, session_id: '', tablet_id: id, proved_at: null, rights, shop }
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

/** Which of these tablets are still the shop's. */
export async function livingTablets(ids: readonly number[]): Promise<Set<number>> {
  if (ids.length === 0) return new Set()
  const rows = await db().rows<{ id: number }>('SELECT id FROM tablet WHERE id IN (:ids) AND ended_at IS NULL', { ids })
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

export interface TabletHere {
  id: number
  name: string
  place: string | null
  idleMin: number
  shop: ShopWays
}
/** The tablet of the shop that calls; null where none is registered, or it was taken back. */
export async function currentTablet(event: H3Event): Promise<TabletHere | null> {
  const seal = await numberIn(event, TABLET, DEVICE_D)
  if (!seal) return null
  const row = await db().row<Omit<TabletHere, 'shop'> & ShopWays & { idle_min: number }>(
    `SELECT t.id, t.name, place.code AS place, shop.tablet_idle_min AS idleMin, shop.currency,
        shop.temperature_unit AS temperature,
        TIMESTAMPDIFF(MINUTE, t.seen_at, UTC_TIMESTAMP(3)) AS idle_min
        FROM tablet t
        JOIN shop ON shop.id = 1
        LEFT JOIN place ON place.id = t.place_id
        WHERE t.seal = :seal AND t.ended_at IS NULL`,
    { seal },
  )
  if (!row) return null
  const { idle_min, currency, temperature, ...tablet } = row
  if (idle_min >= TOUCH_EVERY_MIN)
    await db().run('UPDATE tablet SET seen_at = UTC_TIMESTAMP(3) WHERE id = :id', { id: row.id })
  return { ...tablet, shop: { currency, temperature } }
}
export const sealTablet = async (event: H3Event, seal: string): Promise<void> =>
  putCookie(event, TABLET, await sealed(seal), DEVICE_D)

/**
 * Begins a session on this device, and remembers the device as one that this person signs in from. `proved`: by the
 * password, not by a PIN.
 */
export async function beginSession(event: H3Event, personId: number, proved: boolean): Promise<void> {
  const tablet = await currentTablet(event)
  const id = randomUUID()
  const device = deviceWords(getHeader(event, 'user-agent') ?? '').slice(0, 120)
  await db().run(
    `INSERT INTO session (id, person_id, tablet_id, device, address, made_at, seen_at, ends_at, proved_at)
        VALUES (
          :id, :personId, :tabletId, :device, :address, UTC_TIMESTAMP(3), UTC_TIMESTAMP(3),
          UTC_TIMESTAMP(3) + INTERVAL ${LASTS_D} DAY, IF(:proved, UTC_TIMESTAMP(3), NULL)
        )`,
    { id, personId, tabletId: tablet?.id ?? null, device, address: addressOf(event), proved },
  )
  putCookie(event, PERSON, await sealed(id), LASTS_D)
  if (getCookie(event, LEFT_COOKIE)) deleteCookie(event, LEFT_COOKIE, { path: '/' })
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
  deleteCookie(event, PERSON, { path: '/' })
}

/** Ends all sessions of somebody, but for the one that asks. */
export const endOthers = (tx: Db, personId: number, but: string | null = null): Promise<unknown> =>
  tx.run(`DELETE FROM session WHERE person_id = :personId ${but ? 'AND id <> :but' : ''}`, { personId, but })

export interface SessionLine {
  id: string
  person_id: number
  name: string
  role: Role
  tablet: string | null
  device: string
  address: string
  made_at: Date
  seen_at: Date
  here: boolean
}
/** Who is signed in and where: one's own, or all for who looks after the people. */
export async function listSessions(person: Person): Promise<SessionLine[]> {
  const rows = await db().rows<Omit<SessionLine, 'here'>>(
    `SELECT session.id, session.person_id, p.name, p.role, t.name AS tablet, session.device, session.address,
        session.made_at, session.seen_at
        FROM ${SESSIONS}
        WHERE (:all OR p.id = :id) AND ${ALIVE}
        ORDER BY session.seen_at DESC
        LIMIT 200`,
    { all: person.rights.has('people'), id: person.id },
  )
  return rows.map(r => ({ ...r, here: r.id === person.session_id }))
}
