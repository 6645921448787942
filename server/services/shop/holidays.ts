/** Holidays of an iCalendar file become closed days. */
import { DateTime } from 'luxon'
import { db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from './person'
import { readShop } from './rows'

const AHEAD = { days: 550 }

/** From today on for a year and a half; days that are closed already keep their word. */
export async function addHolidays(text: string, by: Person, at: Date) {
  const { zone } = await readShop(db())
  const today = DateTime.fromJSDate(at, { zone })
  const span = { from: today.toISODate()!, until: today.plus(AHEAD).toISODate()! }
  const days = await refusedInWorker(inWorker('calendar', { text, ...span }), 'text')
  if (days.length === 0)
    throw fail(422, 'invalid', 'No day of this file lies in the coming year and a half.', { text: 'No coming day.' })
  return transaction(async tx => {
    let fresh = 0
    for (const { day, says } of days)
      fresh += (await tx.run('INSERT IGNORE INTO closure (day, why) VALUES (:day, :says)', { day, says })).changed
    await tx.run('UPDATE shop SET row_version = row_version + 1 WHERE id = 1')
    const first = `${days[0]!.day} to ${days.at(-1)!.day}`
    await logShop(tx, 'shop', `Holidays read: ${fresh} closed days, ${first}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { taken: fresh, known: days.length - fresh }
  })
}
