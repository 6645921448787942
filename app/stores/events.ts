import { defineStore } from 'pinia'

type Listener = (topic: string, piece: number | null) => void
/** The server beats every fifteen seconds; a line that was silent for longer is dead, whatever the browser thinks. */
const SILENT_MS = 40_000
const LOOK_MS = 5000

/** One event stream for all open parts of the page; the browser replays by Last-Event-ID after a break. */
export const useEvents = defineStore('events', () => {
  const connected = ref(true)
  /** from now on every change is heard */
  const hears = ref(false)
  const listeners = new Set<Listener>()
  let source: EventSource | undefined
  let tries = 0
  let heard_ms = 0
  let later: ReturnType<typeof setTimeout> | undefined
  let watching: ReturnType<typeof setInterval> | undefined
  function tell(topic: string, piece: number | null) {
    for (const listener of listeners) listener(topic, piece)
  }
  /** Everything on the page is read again. */
  const again = () => tell('all', null)
  function open() {
    if (source || import.meta.server) return
    clearTimeout(later)
    heard_ms = Date.now()
    watching ??= setInterval(look, LOOK_MS)
    source = new EventSource('/api/events')
    const heard = () => (heard_ms = Date.now())
    source.addEventListener('beat', heard)
    source.addEventListener('changed', event => {
      heard()
      const { topic, piece } = JSON.parse((event as MessageEvent<string>).data) as {
        topic: string
        piece: number | null
      }
      tell(topic, piece)
    })
    source.onopen = () => {
      heard()
      if (!connected.value) again()
      connected.value = hears.value = true
      tries = 0
    }
    source.onerror = () => {
      connected.value = hears.value = false
      // a browser comes back by itself after a broken line, but never after an error of the server
      if (source?.readyState !== EventSource.CLOSED) return
      source = undefined
      // whoever was signed out learns it by what the page reads now
      again()
      later = setTimeout(open, Math.min(15_000, 1000 * 2 ** tries++))
    }
  }
  /** After a night asleep, or where the line broke without a word: another one, and all is read again. */
  function look() {
    if (!source || Date.now() - heard_ms < SILENT_MS) return
    connected.value = false
    reopen()
  }
  function on(listener: Listener) {
    listeners.add(listener)
    return () => {
      listeners.delete(listener)
    }
  }
  function close() {
    clearTimeout(later)
    source?.close()
    source = undefined
    hears.value = false
  }
  /** As whoever stands here now. */
  function reopen() {
    close()
    open()
  }
  if (import.meta.client) {
    // a page that comes back into sight looks at once, not at the next tick of a clock that slept
    addEventListener('visibilitychange', () => !document.hidden && look())
    addEventListener('online', () => {
      look()
      again()
    })
  }
  return { connected, hears, open, reopen, close, on, again }
})
