import { db } from '../database/db'

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
    const events = await eventsSince(last)
    if (events.length === 0) return
    last = events.at(-1)!.id
    for (const tell of listeners) tell(events)
  }
  catch (error) { console.error('events:', (error as Error).message) }
}

/** Follows the event table twice a second while anybody listens. From its return on nothing is missed. Returns how to stop. */
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
