import type { Problem } from '#shared/api'

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
const TOUCHED_FOR_MS = 5 * 60_000
if (import.meta.client) {
  const touch = () => {
    touched_ms = Date.now()
  }
  touch()
  for (const name of ['pointerdown', 'keydown']) addEventListener(name, touch, { capture: true, passive: true })
}

type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE'
interface Sending {
  method?: Method
  body?: unknown
  /** the write's own name; a repeat under it is never done twice */ uuid?: string
}
const statusOf = (error: unknown) => (error as { status?: number }).status
/** The line broke, or the server asks to come again. */
const isAway = (error: unknown) => statusOf(error) === undefined || statusOf(error) === 503
const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

/**
 * The fetch of this page without the route types, which are too deep for the compiler; `T` comes from the caller. Each
 * write carries a UUID of its own.
 */
export function fetchAs<T>(
  path: string,
  { method = 'GET', body, uuid = method === 'GET' ? undefined : crypto.randomUUID() }: Sending = {},
): Promise<T> {
  const headers = {
    ...(uuid ? { 'idempotency-key': uuid } : {}),
    ...(Date.now() - touched_ms < TOUCHED_FOR_MS ? { 'x-touched': '1' } : {}),
  }
  return ($fetch as unknown as (path: string, options: object) => Promise<T>)(path, { method, body, headers, retry: 0 })
}

const AGAIN_MS = [400, 1200, 3000] as const
/**
 * Sends a write, again and again under one UUID while the line is broken or the server busy.
 * @throws what the last try threw.
 */
export async function sendOnce<T>(method: Exclude<Method, 'GET'>, path: string, body?: unknown): Promise<T> {
  const uuid = crypto.randomUUID()
  for (let tries = 0; ; tries++) {
    try {
      return await fetchAs<T>(path, { method, body, uuid })
    } catch (error) {
      const wait = AGAIN_MS[tries]
      if (!isAway(error) || wait === undefined) throw error
      await pause(wait)
    }
  }
}

/** Where somebody must go before anything else: to sign in, or to choose a password. */
async function sendAway(error: unknown) {
  if (statusOf(error) === 401) {
    useSession().$patch({ person: null })
    await navigateTo('/sign-in')
  } else if (problem(error).code === 'choose-password') await navigateTo('/password')
}

/** Sends to the server. Problems become a line at the foot of the page, and null comes back. */
export async function send<T = unknown>(
  method: Exclude<Method, 'GET'>,
  path: string,
  body?: unknown,
): Promise<T | null> {
  const notes = useNotes()
  try {
    return await sendOnce<T>(method, path, body)
  } catch (error) {
    notes.show(problem(error).message, 'stop')
    await sendAway(error)
    return null
  }
}

const READ_AGAIN_MS = [1000, 2000, 4000, 8000, 15_000] as const

/**
 * Reads a page's data and reads it again whenever `topics` change (all pieces, or one), and by itself when the server
 * was away.
 */
export function useLive<T>(path: () => string, concerns: (topic: string, piece: number | null) => boolean) {
  const data = shallowRef<T | null>(null)
  const failed = ref<Problem | null>(null)
  const pending = ref(true)
  let asked = 0
  let away = 0
  let later: ReturnType<typeof setTimeout> | undefined
  let newest: Promise<void> = Promise.resolve()
  const read = async (mine: number) => {
    try {
      const got = await fetchAs<T>(path())
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
  const stop = useEvents().on((topic, piece) => {
    if (concerns(topic, piece)) void load()
  })
  onMounted(load)
  onUnmounted(() => {
    stop()
    clearTimeout(later)
  })
  watch(path, load)
  return { data, failed, pending, load }
}
