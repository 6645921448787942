import { db } from '../../database/db'
import { livingSessions } from '../shop/sessions'

export interface ShopEvent {
  id: number
  topic: string
  piece_id: number | null
}
type Listener = (events: ShopEvent[]) => void

const POLL_MS = 500
const listeners = new Set<Listener>()
let timer: ReturnType<typeof setInterval> | undefined
let last = -1
let polling = false

export const eventsSince = (id: number) =>
  db().rows<ShopEvent>('SELECT id, topic, piece_id FROM event WHERE id > :id ORDER BY id LIMIT 500', { id })
export const lastEvent = async (): Promise<number> =>
  (await db().row<{ last: number }>('SELECT last FROM event_counter WHERE id = 1'))!.last

async function poll() {
  if (polling) return
  polling = true
  try {
    const events = await eventsSince(last)
    if (events.length === 0) return
    last = events.at(-1)!.id
    for (const tell of listeners) tell(events)
  } catch (error) {
    console.error('events:', (error as Error).message)
  } finally {
    polling = false
  }
}

/**
 * Follows the event table twice a second while anybody listens. From its return on nothing is missed. Returns how to
 * stop.
 */
export async function listen(listener: Listener): Promise<() => void> {
  if (last < 0) last = await lastEvent()
  listeners.add(listener)
  timer ??= setInterval(poll, POLL_MS)
  return () => {
    listeners.delete(listener)
    if (listeners.size > 0 || !timer) return
    clearInterval(timer)
    timer = undefined
    last = -1
  }
}

/** Streams that stay open: each belongs to a session, and is closed within seconds of that session's end. */
const streams = new Map<() => void, string>()
const CHECK_MS = 2000
let checking: ReturnType<typeof setInterval> | undefined

async function closeEnded() {
  try {
    const alive = await livingSessions([...new Set(streams.values())])
    for (const [close, session] of streams) if (!alive.has(session)) close()
  } catch (error) {
    console.error('streams:', (error as Error).message)
  }
}

/** Keeps a stream open only as long as its session lives. Returns how to forget it. */
export function whileSignedIn(session: string, close: () => void): () => void {
  streams.set(close, session)
  checking ??= setInterval(closeEnded, CHECK_MS)
  return () => {
    streams.delete(close)
    if (streams.size > 0) return
    clearInterval(checking)
    checking = undefined
  }
}
