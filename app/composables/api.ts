import type { InternalApi } from 'nitropack/types'
import type { z } from 'zod'
import type { API, Problem, RouteKey } from '#shared/api'

const OFFLINE: Problem = {
  code: 'offline',
  message: "The shop's server does not answer. Nothing was lost; try again in a moment.",
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
type Upload<K extends RouteKey> = (typeof API)[K] extends { file: true } ? { body: FormData } : unknown

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
type KeyOf<M extends string> = Extract<RouteKey, `${M} ${string}`>
export type WriteKey = Exclude<RouteKey, KeyOf<'GET'>>

/** A route's address with its blanks filled and its query behind it; what is undefined or empty stays away. */
function addressOf(key: RouteKey, asking: Record<string, unknown>): string {
  const path = key
    .slice(key.indexOf(' ') + 1)
    .replace(/:(\w+)/g, (_, name: string) => encodeURIComponent(String(asking[name])))
  const given = Object.entries((asking.query ?? {}) as Record<string, unknown>)
    .filter(([, value]) => value !== undefined && value !== null && value !== '')
    .map(([name, value]) => [name, Array.isArray(value) ? value.join(',') : String(value)])
  const query = new URLSearchParams(given).toString()
  return query ? `${path}?${query}` : path
}

const statusOf = (error: unknown) => (error as { status?: number }).status
/** The line broke, or the server asks to come again. */
const isAway = (error: unknown) => statusOf(error) === undefined || statusOf(error) === 503
const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

/** A request that takes longer counts as broken: it is sent again, under its UUID. */
const LIMIT_MS = { words: 25_000, file: 120_000 } as const
async function fetched<K extends RouteKey>(key: K, asking: object, uuid?: string): Promise<AnswerOf<K>> {
  const { body } = asking as { body?: BodyInit }
  const headers = {
    ...(uuid ? { 'idempotency-key': uuid } : {}),
    ...(Date.now() - touched_ms < TOUCHED_FOR_MS ? { 'x-touched': '1' } : {}),
  }
  const method = key.slice(0, key.indexOf(' ')) as 'GET'
  // a text that is no route: the types come from the key
  const path: string = addressOf(key, asking as Record<string, unknown>)
  const timeout = body instanceof FormData ? LIMIT_MS.file : LIMIT_MS.words
  const ended = useLine().begin()
  try {
    return (await $fetch<unknown>(path, { method, body, headers, retry: 0, timeout })) as AnswerOf<K>
  } finally {
    ended()
  }
}

/** Calls a route of the registry. @throws the fetch's error, whose `data` is a `Problem`. */
export const call = <K extends KeyOf<'GET'>>(key: K, ...[asking]: Args<K>): Promise<AnswerOf<K>> =>
  fetched(key, asking ?? {})

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

/** Sends to the server. Problems become a line at the foot of the page, and null comes back. */
export async function send<K extends WriteKey>(key: K, ...asking: Args<K>): Promise<AnswerOf<K> | null> {
  const notes = useNotes()
  try {
    return await sendOnce(key, ...asking)
  } catch (error) {
    notes.show(problem(error).message, 'stop')
    await sendAway(error)
    return null
  }
}

/** As long a page that has nothing yet waits for changes to be heard, so as to read once only. */
const SOON_MS = 300
const READ_AGAIN_MS = [1000, 2000, 4000, 8000, 15_000] as const

type AskedAs<K extends RouteKey> = object extends Asking<K> ? [asking?: () => Asking<K>] : [asking: () => Asking<K>]
/**
 * Reads a page's data and reads it again whenever `topics` change (all pieces, or one), and by itself when the server
 * was away.
 */
export const useLive = <K extends KeyOf<'GET'>>(
  key: K,
  concerns: (topic: string, piece: number | null) => boolean,
  ...[asking]: AskedAs<K>
) => liveFrom(key, concerns, null, asking)

/** The same of what the server writes into the page itself: it is there before any script is. */
export async function useLiveFirst<K extends KeyOf<'GET'>>(
  key: K,
  concerns: (topic: string, piece: number | null) => boolean,
) {
  const first = useState<AnswerOf<K> | null>(key, () => null)
  const live = liveFrom(key, concerns, first.value)
  // a frame that is put up later begins anew
  onMounted(() => {
    first.value = null
  })
  if (import.meta.server) {
    const got = await useRequestFetch()<unknown>(addressOf(key, {})).catch(() => null)
    live.data.value = first.value = got as AnswerOf<K> | null
  }
  return live
}

function liveFrom<K extends KeyOf<'GET'>>(
  key: K,
  concerns: (topic: string, piece: number | null) => boolean,
  first: AnswerOf<K> | null,
  asking?: () => Asking<K>,
) {
  const data = shallowRef<AnswerOf<K> | null>(first)
  const failed = ref<Problem | null>(null)
  const pending = ref(first === null)
  let asked = 0
  let away = 0
  let later: ReturnType<typeof setTimeout> | undefined
  let newest: Promise<void> = Promise.resolve()
  const read = async (mine: number) => {
    try {
      const got = await fetched(key, asking?.() ?? {})
      if (mine === asked) {
        data.value = got
        failed.value = null
        away = 0
      }
    } catch (error) {
      await sendAway(error)
      if (mine !== asked) return
      failed.value = problem(error)
      if (isAway(error)) later = setTimeout(load, READ_AGAIN_MS[Math.min(away++, READ_AGAIN_MS.length - 1)])
    } finally {
      pending.value = false
    }
    if (mine !== asked) await newest
  }
  /** Settles when the newest reading is on the page, also where another was asked for meanwhile. */
  const load = (): Promise<void> => {
    clearTimeout(later)
    newest = read(++asked)
    return newest
  }
  const events = useEvents()
  const stop = events.on((topic, piece) => {
    if (topic === 'all' || concerns(topic, piece)) void load()
  })
  const heard = (timeout?: number) => until(() => events.hears).toBe(true, { timeout })
  onMounted(async () => {
    // what changed while the page was under way is read once changes are heard
    if (!first) {
      await heard(SOON_MS)
      void load()
    }
    if (first || !events.hears) void heard().then(load)
  })
  onUnmounted(() => {
    stop()
    clearTimeout(later)
  })
  watch(() => addressOf(key, (asking?.() ?? {}) as Record<string, unknown>), load)
  return { data, failed, pending, load }
}
