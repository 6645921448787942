import { defineStore } from 'pinia'

type Listener = (topic: string, piece: number | null) => void

/** One event stream for all open parts of the page; the browser replays by Last-Event-ID after a break. */
export const useEvents = defineStore('events', () => {
  const connected = ref(true)
  /** from now on every change is heard */
  const hears = ref(false)
  const listeners = new Set<Listener>()
  let source: EventSource | undefined
  let tries = 0
  let later: ReturnType<typeof setTimeout> | undefined
  function open() {
    if (source || import.meta.server) return
    clearTimeout(later)
    source = new EventSource('/api/events')
    source.addEventListener('changed', event => {
      const { topic, piece } = JSON.parse((event as MessageEvent<string>).data) as {
        topic: string
        piece: number | null
      }
      for (const listener of listeners) listener(topic, piece)
    })
    source.onopen = () => {
      if (!connected.value) for (const listener of listeners) listener('all', null)
      connected.value = hears.value = true
      tries = 0
    }
    source.onerror = () => {
      connected.value = hears.value = false
      // a browser comes back by itself after a broken line, but never after an error of the server
      if (source?.readyState !== EventSource.CLOSED) return
      source = undefined
      // whoever was signed out learns it by what the page reads now
      for (const listener of listeners) listener('all', null)
      later = setTimeout(open, Math.min(15_000, 1000 * 2 ** tries++))
    }
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
  return { connected, hears, open, reopen, close, on }
})
