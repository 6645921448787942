import { db, openPool } from '../database/db'

export interface ShopEvent { id: number, topic: string, piece_id: number | null }
type Listener = (events: ShopEvent[]) => void

const POLL_MS = 500
const listeners = new Set<Listener>()
let timer: ReturnType<typeof setInterval> | undefined
let last = -1

export const eventsSince = (id: number) => db().rows<ShopEvent>('SELECT id, topic, piece_id FROM event WHERE id > :id ORDER BY id LIMIT 500', { id })
export const lastEvent = async (): Promise<number> => (await db().row<{ last: number }>('SELECT last FROM event_counter WHERE id = 1'))!.last

async function poll() {
  try {
    if (last < 0) last = await lastEvent()
    const events = await eventsSince(last)
    if (events.length === 0) return
    last = events.at(-1)!.id
    for (const tell of listeners) tell(events)
  }
  catch (error) { console.error('events:', (error as Error).message) }
}

/** Follows the event table twice a second while anybody listens. Returns how to stop. */
export function listen(listener: Listener): () => void {
  openPool()
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
