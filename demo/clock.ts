/** The demo's people, its clock and its days. */
import { DateTime } from 'luxon'
import type { Caller } from './caller'
import { OWNER } from './shop'

export const MIN = 60_000
export const people = {} as Record<'ingrid' | 'tove' | 'emil' | 'sara', Caller>

/** The demo opens on a work day at 10:30: today, or the Monday after. */
function opening(): DateTime {
  const today = DateTime.now().setZone(OWNER.zone).set({ hour: 10, minute: 30, second: 0, millisecond: 0 })
  return today.weekday > 5 ? today.plus({ days: 8 - today.weekday }) : today
}
export const open = opening()
let now = open.toMillis()
export const nowMs = () => now
export async function at(ms: number) {
  now = ms
  await people.ingrid.send('POST', '/api/clock', { at: new Date(ms).toISOString() })
}
/** The clock at `ms`, with the air read by hand a minute before. */
export async function inAir(ms: number) {
  await at(ms - MIN)
  await people.emil.send('POST', '/api/air', { temperature_C: 20.6, rh_pct: 45 })
  await at(ms)
}
export const today = (clock: string) =>
  open.set({ hour: Number(clock.slice(0, 2)), minute: Number(clock.slice(3)) }).toMillis()
/** A work day about so many days ago, at a clock time. */
export function ago(days: number, clock: string): number {
  let day = open.minus({ days })
  while (day.weekday > 5) day = day.minus({ days: 1 })
  return day.set({ hour: Number(clock.slice(0, 2)), minute: Number(clock.slice(3)) }).toMillis()
}
/** Letters bear the moment at which they go out: none waits any more when the clock leaps. */
export async function lettersOut() {
  const waits = async () => {
    const all = await people.sara.get<{ mail: { state: string } | null }[]>('/api/answers')
    return all.some(a => a.mail && ['waiting', 'sending'].includes(a.mail.state))
  }
  for (let tries = 0; tries < 60 && (await waits()); tries++) await new Promise(done => setTimeout(done, 500))
}
