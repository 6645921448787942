import { db } from '../../database/db'
import { livingSessions, livingTablets } from '../shop/sessions'

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

/** Streams that stay open: each belongs to a session or a tablet, and is closed within seconds of its end. */
export type Owner = { session: string } | { tablet: number }
const streams = new Map<() => void, Owner>()
const CHECK_MS = 2000
let checking: ReturnType<typeof setInterval> | undefined

async function closeEnded() {
  try {
    const owners = [...streams.values()]
    const sessions = await livingSessions(owners.flatMap(o => ('session' in o ? o.session : [])))
    const tablets = await livingTablets(owners.flatMap(o => ('tablet' in o ? o.tablet : [])))
    for (const [close, o] of streams) if (!('session' in o ? sessions.has(o.session) : tablets.has(o.tablet))) close()
  } catch (error) {
    console.error('streams:', (error as Error).message)
  }
}

/** Keeps a stream open only as long as whose it is. Returns how to forget it. */
export function whileAlive(owner: Owner, close: () => void): () => void {
  streams.set(close, owner)
  checking ??= setInterval(closeEnded, CHECK_MS)
  return () => {
    streams.delete(close)
    if (streams.size > 0) return
    clearInterval(checking)
    checking = undefined
  }
}
