import type { Problem } from '#shared/api'

export const problem = (error: unknown): Problem => {
  const data = (error as { data?: Partial<Problem> }).data
  return data?.message ? { code: 'unknown', ...data, message: data.message } : { code: 'offline', message: 'The shop\'s server does not answer. Nothing was lost; try again in a moment.' }
}

/** The fetch of this page without the route types, which are too deep for the compiler; `T` comes from the caller. */
export const fetchAs = <T>(path: string, options: { method?: string, body?: unknown } = {}): Promise<T> => ($fetch as unknown as (path: string, options: object) => Promise<T>)(path, options)

/** Sends to the server. Problems become a line at the foot of the page, and null comes back. */
export async function send<T = unknown>(method: 'POST' | 'PUT' | 'PATCH' | 'DELETE', path: string, body?: unknown): Promise<T | null> {
  const notes = useNotes()
  try { return await fetchAs<T>(path, { method, body }) }
  catch (error) {
    notes.show(problem(error).message, 'stop')
    if ((error as { status?: number }).status === 401) await navigateTo('/sign-in')
    return null
  }
}

/** Reads a page's data and reads it again whenever `topics` change (all pieces, or one). */
export function useLive<T>(path: () => string, concerns: (topic: string, piece: number | null) => boolean) {
  const data = shallowRef<T | null>(null)
  const failed = ref<Problem | null>(null)
  const pending = ref(true)
  let asked = 0
  let newest: Promise<void> = Promise.resolve()
  const read = async (mine: number) => {
    try {
      const got = await fetchAs<T>(path())
      if (mine === asked) { data.value = got; failed.value = null }
    }
    catch (error) {
      if ((error as { status?: number }).status === 401) await navigateTo('/sign-in')
      if (mine === asked) failed.value = problem(error)
    }
    finally { pending.value = false }
    if (mine !== asked) await newest
  }
  /** Settles when the newest reading is on the page, also where another was asked for meanwhile. */
  const load = (): Promise<void> => newest = read(++asked)
  const stop = useEvents().on((topic, piece) => { if (concerns(topic, piece)) void load() })
  onMounted(load)
  onUnmounted(stop)
  watch(path, load)
  return { data, failed, pending, load }
}
