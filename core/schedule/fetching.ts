/** On which day a piece leaves: pieces are fetched and delivered on some weekdays only. Days are local dates. */
import { DateTime } from 'luxon'

const MOST_D = 60

function nearest(day: string, weekdays: readonly number[], closures: readonly string[], step: 1 | -1): string {
  if (weekdays.length === 0) return day
  let at = DateTime.fromISO(day, { zone: 'utc' })
  for (let n = 0; n < MOST_D; n++, at = at.plus({ days: step }))
    if (weekdays.includes(at.weekday) && !closures.includes(at.toISODate()!)) return at.toISODate()!
  return day
}

/** The first day on which a piece that is ready on `day` leaves; ISO weekdays, none: any day. */
export const leavesOn = (day: string, weekdays: readonly number[], closures: readonly string[]): string =>
  nearest(day, weekdays, closures, 1)
/** The last day on which it may leave so that it is there on `day`. */
export const mustLeaveOn = (day: string, weekdays: readonly number[], closures: readonly string[]): string =>
  nearest(day, weekdays, closures, -1)
