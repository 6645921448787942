import type { InternalApi } from 'nitropack/types'
import type { z } from 'zod'
import type { API, Problem, RouteKey } from '#shared/api'
import { CARRIED } from '#shared/carried'
import { carry, type Read, readCarried } from '~/offline/carried'

const OFFLINE: Problem = {
  code: 'offline',
  message: "The shop's server does not answer. Nothing was lost; try again in a moment.",
}
export const NOT_CARRIED: Problem = {
  code: 'offline',
  message: 'There is no line to the server, and this is not carried on this device. It comes when the line is back.',
}
export const problem = (error: unknown): Problem => {
  const data = (error as { data?: Partial<Problem> }).data
  return data?.message ? { code: 'unknown', ...data, message: data.message } : OFFLINE
}

/** When somebody last touched this page: what it reads by itself keeps no session alive. */
let touched_ms = 0
const TOUCHED_FOR_MS = 60_000
if (import.meta.client) {
  const touch = () => {
    touched_ms = Date.now()
  }
  touch()
  for (const name of ['pointerdown', 'keydown']) addEventListener(name, touch, { capture: true, passive: true })
}

type MethodOf<K extends RouteKey> = K extends `${infer M} ${string}` ? M : never
type PathOf<K extends RouteKey> = K extends `${string} ${infer P}` ? P : never
type BlanksOf<P> = P extends `${string}:${infer Name}/${infer Rest}`
  ? Name | BlanksOf<Rest>
  : P extends `${string}:${infer Name}`
    ? Name
    : never
type Carried<K extends RouteKey, Part extends 'body' | 'query'> =
  (typeof API)[K] extends Record<Part, infer S extends z.ZodType> ? z.input<S> : never
type Part<Name extends string, T> = [T] extends [never]
  ? unknown
  : object extends T
    ? { [N in Name]?: T }
    : { [N in Name]: T }
type Upload<K extends RouteKey> = (typeof API)[K] extends { file: true }
  ? { body: FormData }
  : (typeof API)[K] extends { zip: true }
    ? { body: Blob }
    : unknown

/** What a call of a route carries: the blanks of its path, its body and its query, as the registry says. */
export type Asking<K extends RouteKey> = Record<BlanksOf<PathOf<K>>, string | number> &
  Part<'body', Carried<K, 'body'>> &
  Part<'query', Carried<K, 'query'>> &
  Upload<K>
/** What a route answers, as its handler says. */
export type AnswerOf<K extends RouteKey> =
  PathOf<K> extends keyof InternalApi
    ? Lowercase<MethodOf<K>> extends infer M extends keyof InternalApi[PathOf<K>]
      ? InternalApi[PathOf<K>][M]
      : never
    : never
type Args<K extends RouteKey> = object extends Asking<K> ? [asking?: Asking<K>] : [asking: Asking<K>]
export type KeyOf<M extends string> = Extract<RouteKey, `${M} ${string}`>
export type WriteKey = Exclude<RouteKey, KeyOf<'GET'>>

/** A route's address with its blanks filled and its query behind it; what is undefined or empty stays away. */
export function pathOf(key: RouteKey, asking: Record<string, unknown>): string {
  const path = key
    .slice(key.indexOf(' ') + 1)
    .replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(asking[name])))
  const given = Object.entries((asking.query ?? {}) as Record<string, unknown>)
    .filter(([, value]) => value !== undefined && value !== null && value !== '')
    .map(([name, value]) => [name, Array.isArray(value) ? value.join(',') : String(value)])
  const query = new URLSearchParams(given).toString()
  return query ? `${path}?${query}` : path
}

export const statusOf = (error: unknown) => (error as { status?: number }).status
const AWAY = new Set([undefined, 502, 503, 504])
/** The line broke, or the server, or what stands before it, asks to come again. */
export const isAway = (error: unknown) => AWAY.has(statusOf(error))
const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

/** A request that takes longer counts as broken: it is sent again, under its UUID. */
const LIMIT_MS = { words: 25_000, file: 120_000, zip: 1_800_000 } as const
export async function fetched<K extends RouteKey>(
  key: K,
  asking: object,
  uuid?: string,
  limit_ms?: number,
): Promise<AnswerOf<K>> {
  const { body } = asking as { body?: BodyInit }
  const headers = {
    ...(uuid ? { 'idempotency-key': uuid } : {}),
    ...(Date.now() - touched_ms < TOUCHED_FOR_MS ? { 'x-touched': '1' } : {}),
  }
  const method = key.slice(0, key.indexOf(' ')) as 'GET'
  // a text that is no route: the types come from the key
  const path: string = pathOf(key, asking as Record<string, unknown>)
  const timeout = limit_ms ?? limitOf_ms(body)
  const line = useLine()
  const ended = line.begin()
  try {
    const answer = (await $fetch<unknown>(path, { method, body, headers, retry: 0, timeout })) as AnswerOf<K>
    line.answered()
    if (CARRIED.has(key)) void carryRead(path, answer)
    return answer
  } catch (error) {
    if (isAway(error)) line.broken()
    else line.answered()
    throw error
  } finally {
    ended()
  }
}

function limitOf_ms(body: BodyInit | undefined): number {
  if (body instanceof Blob) return LIMIT_MS.zip
  return body instanceof FormData ? LIMIT_MS.file : LIMIT_MS.words
}

const build = () => useRuntimeConfig().app.buildId
/** Who may see prices reads other words than who may not. */
const carriedAs = (path: string, prices = useSession().may('see-prices')) => `${prices ? 'prices' : 'plain'} ${path}`
/** Keeps what was read, for when there is no line. */
export const carryRead = (path: string, answer: unknown, prices?: boolean) =>
  carry(carriedAs(path, prices), { build: build(), at_ms: momentOf(answer), answer })
/** When it was read, by the server's clock: as it says itself, or as this device knows it. */
const momentOf = (answer: unknown): number =>
  (answer as { now_ms?: number } | null)?.now_ms ?? (useClock().now || Date.now())
/** What this device carries of a reading; null where it has none, or one that is too old. */
export async function carriedOf<K extends KeyOf<'GET'>>(key: K, asking: object): Promise<Read | null> {
  if (!CARRIED.has(key)) return null
  const path = pathOf(key, asking as Record<string, unknown>)
  const [as, clock, of] = [carriedAs(path), useClock(), build()]
  await clock.recall()
  return (await readCarried(as, of, clock.now)) ?? readCarried(carriedAs(path, false), of, clock.now)
}

/** Calls a route of the registry. @throws the fetch's error, whose `data` is a `Problem`. */
export async function call<K extends KeyOf<'GET'>>(key: K, ...[asking]: Args<K>): Promise<AnswerOf<K>> {
  try {
    return await fetched(key, asking ?? {})
  } catch (error) {
    const carried = isAway(error) ? await carriedOf(key, asking ?? {}) : null
    if (!carried) throw error
    return carried.answer as AnswerOf<K>
  }
}

const AGAIN_MS = [400, 1200, 3000] as const
/**
 * Sends a write, again and again under one UUID while the line is broken or the server busy, and once more when the
 * password that it wants was given.
 * @throws what the last try threw.
 */
export async function sendOnce<K extends WriteKey>(key: K, ...[asking]: Args<K>): Promise<AnswerOf<K>> {
  const uuid = crypto.randomUUID()
  let proved = false
  for (let tries = 0; ; tries++) {
    try {
      return await fetched(key, asking ?? {}, uuid)
    } catch (error) {
      if (problem(error).code === 'prove' && !proved) {
        proved = await useProof().ask()
        if (proved) continue
      }
      const wait = AGAIN_MS[tries]
      if (!isAway(error) || wait === undefined) throw error
      await pause(wait)
    }
  }
}

/** Nobody is signed in any more: to the tablet's names, or to sign in. Whoever comes back goes on where they were. */
export async function toTheDoor() {
  const session = useSession()
  if (session.person) session.left = { personId: session.person.id, path: useRoute().fullPath }
  session.person = null
  session.byName = false
  // a tablet may have been taken back
  await session.load().catch(() => undefined)
  await navigateTo(session.tablet ? '/door' : '/sign-in')
}

/** Where somebody must go before anything else: to sign in, or to choose a password. */
export async function sendAway(error: unknown) {
  if (statusOf(error) === 401) {
    await toTheDoor()
  } else if (problem(error).code === 'choose-password') await navigateTo('/password')
}

/** Sends to the server. Problems become a line at the foot of the page, until it goes in, and null comes back. */
export async function send<K extends WriteKey>(key: K, ...asking: Args<K>): Promise<AnswerOf<K> | null> {
  const notes = useNotes()
  try {
    const sent = await sendOnce(key, ...asking)
    notes.wentIn(key)
    return sent
  } catch (error) {
    notes.show(problem(error).message, 'stop', undefined, key)
    await sendAway(error)
    return null
  }
}
