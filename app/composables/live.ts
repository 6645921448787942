import type { Problem, RouteKey } from '#shared/api'
import type { Asking } from './api'

/** As long a page that has nothing yet waits for changes to be heard, so as to read once only. */
const SOON_MS = 300
/** So long a page stands empty where the device carries what was read before. */
const PATIENT_MS = 2500
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
    if (first.value !== null) void carryRead(pathOf(key, {}), first.value)
    live.standsFrom(useClock().now)
    first.value = null
  })
  if (import.meta.server) {
    const got = await useRequestFetch()<unknown>(pathOf(key, {})).catch(() => null)
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
  const line = useLine()
  /** where what is shown stands among all that this page shows */
  const mark = Symbol(key)
  let shown = first === null ? '' : pathOf(key, {})
  let shown_ms = 0
  /** What the device carries stands there until the server answers, with its age in the header. */
  const showCarried = async (mine: number) => {
    const address = pathOf(key, asking?.() ?? {})
    if (data.value !== null && shown === address) {
      if (shown_ms) line.carried.set(mark, shown_ms)
      return true
    }
    const carried = await carriedOf(key, asking?.() ?? {})
    if (mine !== asked || !carried || (data.value !== null && shown === address)) return false
    data.value = carried.answer as AnswerOf<K>
    shown = address
    shown_ms = carried.at_ms
    line.carried.set(mark, carried.at_ms)
    return true
  }
  const read = async (mine: number) => {
    const address = pathOf(key, asking?.() ?? {})
    // a line that is slow, or known to be gone, holds up nobody who carries it
    const patience = setTimeout(() => void showCarried(mine), line.away ? 0 : PATIENT_MS)
    try {
      const got = await fetched(key, asking?.() ?? {})
      if (mine === asked) {
        data.value = got
        failed.value = null
        away = 0
        shown = address
        shown_ms = useClock().now
        line.carried.delete(mark)
      }
    } catch (error) {
      await sendAway(error)
      if (mine !== asked) return
      if (!isAway(error)) failed.value = problem(error)
      else {
        failed.value = (await showCarried(mine)) ? null : NOT_CARRIED
        later = setTimeout(load, READ_AGAIN_MS[Math.min(away++, READ_AGAIN_MS.length - 1)])
      }
    } finally {
      clearTimeout(patience)
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
    line.carried.delete(mark)
  })
  watch(() => pathOf(key, (asking?.() ?? {}) as Record<string, unknown>), load)
  /** What stands on the page is of this moment. */
  const standsFrom = (ms: number) => {
    if (shown) shown_ms = ms
  }
  return { data, failed, pending, load, standsFrom }
}
