import { defineStore } from 'pinia'

type Listener = (topic: string, piece: number | null) => void

/** One event stream for all open parts of the page; the browser replays by Last-Event-ID after a break. */
export const useEvents = defineStore('events', () => {
  const connected = ref(true)
  const listeners = new Set<Listener>()
  let source: EventSource | undefined
  function open() {
    if (source || import.meta.server) return
    source = new EventSource('/api/events')
    source.addEventListener('changed', (event) => {
      const { topic, piece } = JSON.parse((event as MessageEvent<string>).data) as { topic: string, piece: number | null }
      for (const listener of listeners) listener(topic, piece)
    })
    source.onopen = () => {
      if (!connected.value) for (const listener of listeners) listener('all', null)
      connected.value = true
    }
    source.onerror = () => { connected.value = false }
  }
  function on(listener: Listener) {
    listeners.add(listener)
    return () => { listeners.delete(listener) }
  }
  function close() {
    source?.close()
    source = undefined
  }
  return { connected, open, close, on }
})
