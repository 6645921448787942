/** iCalendar (RFC 5545): days of a file, and calendars of our own. */
import ICAL from 'ical.js'

export interface CalendarDay {
  /** local date */
  day: string
  says: string
}
/** More days than this nobody closes. */
const MOST = 2000

/**
 * Every day that an event of the file covers, between two local dates, first and last included. Events that repeat are
 * unrolled. Events with a time of day count for the days that they touch.
 * @throws RangeError in words, for what is no calendar.
 */
export function calendarDays(text: string, from: string, until: string): CalendarDay[] {
  const days = new Map<string, string>()
  const put = (start: ICAL.Time, end: ICAL.Time | null, says: string) => {
    const day = start.clone()
    day.isDate = true
    const last = end?.clone() ?? start.clone()
    last.isDate = true
    // an all-day event ends on the day after its last
    if (end && start.isDate && last.compare(day) > 0) last.adjust(-1, 0, 0, 0)
    for (let n = 0; day.compare(last) <= 0 && n < MOST; n++) {
      const date = day.toString().slice(0, 10)
      if (date >= from && date <= until && days.size < MOST) days.set(date, days.get(date) ?? says)
      if (date > until) return
      day.adjust(1, 0, 0, 0)
    }
  }
  for (const event of eventsOf(text)) {
    const says = String(event.summary || 'closed').slice(0, 120)
    if (!event.startDate) continue
    if (!event.isRecurring()) {
      put(event.startDate, event.endDate, says)
      continue
    }
    const all = event.iterator()
    for (let [at, n] = [all.next() as ICAL.Time | null, 0]; at && n < MOST; at = all.next(), n++) {
      if (at.toString().slice(0, 10) > until) break
      const { startDate, endDate } = event.getOccurrenceDetails(at)
      put(startDate, endDate, says)
    }
  }
  return [...days].map(([day, says]) => ({ day, says })).sort((a, b) => a.day.localeCompare(b.day))
}

function eventsOf(text: string): ICAL.Event[] {
  try {
    const parsed = new ICAL.Component(ICAL.parse(text) as ConstructorParameters<typeof ICAL.Component>[0])
    if (parsed.name !== 'vcalendar') throw new RangeError('no calendar')
    return parsed.getAllSubcomponents('vevent').map(e => new ICAL.Event(e))
  } catch {
    throw new RangeError('This is no iCalendar file. Take one that ends in .ics, with holidays as events.')
  }
}

export interface Appointment {
  /** the same for the same thing, whenever the calendar is written */
  uid: string
  says: string
  where?: string
  more?: string
  /** a moment to another, or a whole local date */
  at: { from_ms: number; to_ms: number } | { day: string }
}

/** A calendar of appointments, to be read by any program. Lines end as the standard says. */
export function writeCalendar(name: string, appointments: readonly Appointment[], written_ms: number): string {
  const calendar = new ICAL.Component('vcalendar')
  calendar.updatePropertyWithValue('version', '2.0')
  calendar.updatePropertyWithValue('prodid', '-//Hantverk//Timetable//EN')
  calendar.updatePropertyWithValue('x-wr-calname', name)
  const moment = (ms: number) => ICAL.Time.fromJSDate(new Date(ms), true)
  for (const { uid, says, where, more, at } of appointments) {
    const event = new ICAL.Component('vevent')
    event.updatePropertyWithValue('uid', uid)
    event.updatePropertyWithValue('dtstamp', moment(written_ms))
    event.updatePropertyWithValue('summary', says)
    if (where) event.updatePropertyWithValue('location', where)
    if (more) event.updatePropertyWithValue('description', more)
    if ('day' in at) event.updatePropertyWithValue('dtstart', ICAL.Time.fromDateString(at.day))
    else {
      event.updatePropertyWithValue('dtstart', moment(at.from_ms))
      event.updatePropertyWithValue('dtend', moment(at.to_ms))
    }
    calendar.addSubcomponent(event)
  }
  return `${calendar.toString()}\r\n`
}
