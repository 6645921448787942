import { db } from '../database/db'

let offset = { ms: 0, read: 0 }
const CACHE_MS = 1000

/** The shop's now. Only demo and test carry an offset. */
export async function now(): Promise<Date> {
  if (useRuntimeConfig().mode === 'shop') return new Date()
  if (Date.now() - offset.read > CACHE_MS) {
    const row = await db().row<{ ms: number }>('SELECT clock_offset_ms AS ms FROM shop WHERE id = 1')
    offset = { ms: row?.ms ?? 0, read: Date.now() }
  }
  return new Date(Date.now() + offset.ms)
}

/** Sets the clock of a demo or a test. @throws Fail in a real shop. */
export async function setNow(at: Date): Promise<void> {
  if (useRuntimeConfig().mode === 'shop') throw fail(403, 'real-clock', 'The clock can be set in the demo only.')
  offset = { ms: at.getTime() - Date.now(), read: Date.now() }
  await db().run('UPDATE shop SET clock_offset_ms = :ms WHERE id = 1', { ms: offset.ms })
}
