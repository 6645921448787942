/** iCalendar files, against examples and rules of RFC 5545 (2009), sections 3.1, 3.6.1 and 3.8.5.3. */
import ical, { type VEvent } from 'node-ical'
import { describe, expect, it } from 'vitest'
import { calendarDays, writeCalendar } from '#core/formats'

const file = (...lines: string[]) =>
  [
    'BEGIN:VCALENDAR',
    'VERSION:2.0',
    'PRODID:-//test//EN',
    'BEGIN:VEVENT',
    ...lines,
    'END:VEVENT',
    'END:VCALENDAR',
  ].join('\r\n')
const days = (text: string, from: string, until: string) => calendarDays(text, from, until).map(d => d.day)

describe('RFC 5545', () => {
  it('3.6.1: an event of days ends before its DTEND', () => {
    const festival = file(
      'UID:20070423T123432Z-541111@example.com',
      'DTSTAMP:20070423T123432Z',
      'DTSTART;VALUE=DATE:20070628',
      'DTEND;VALUE=DATE:20070709',
      'SUMMARY:A festival of eleven days',
      'TRANSP:TRANSPARENT',
    )
    const all = days(festival, '2007-01-01', '2007-12-31')
    expect([all.length, all[0], all.at(-1)]).toEqual([11, '2007-06-28', '2007-07-08'])
  })
  it('3.6.1: an anniversary without an end lasts its day, every year', () => {
    const yearly = file(
      'UID:19970901T130000Z-123403@example.com',
      'DTSTAMP:19970901T130000Z',
      'DTSTART;VALUE=DATE:19971102',
      'SUMMARY:An anniversary',
      'RRULE:FREQ=YEARLY',
    )
    expect(days(yearly, '1999-01-01', '2001-12-31')).toEqual(['1999-11-02', '2000-11-02', '2001-11-02'])
  })
  it('3.8.5.3: every fourth year the first Tuesday after a Monday of November', () => {
    const vote = file(
      'UID:1',
      'DTSTART;TZID=America/New_York:19961105T090000',
      'RRULE:FREQ=YEARLY;INTERVAL=4;BYMONTH=11;BYDAY=TU;BYMONTHDAY=2,3,4,5,6,7,8',
    )
    expect(days(vote, '1996-01-01', '2004-12-31')).toEqual(['1996-11-05', '2000-11-07', '2004-11-02'])
  })
  it('3.8.5.3: daily for ten occurrences, without an exception (3.8.5.1)', () => {
    const daily = ['UID:2', 'DTSTART;VALUE=DATE:19970902', 'RRULE:FREQ=DAILY;COUNT=10']
    expect(days(file(...daily), '1997-01-01', '1997-12-31')).toHaveLength(10)
    const skipping = days(file(...daily, 'EXDATE;VALUE=DATE:19970904'), '1997-01-01', '1997-12-31')
    expect([skipping.length, skipping.includes('1997-09-04')]).toEqual([9, false])
  })
  it('refuses what is no calendar in words', () => {
    expect(() => days('Dear shop', '2026-01-01', '2026-12-31')).toThrow('no iCalendar file')
    expect(() => days('BEGIN:VCARD\r\nEND:VCARD', '2026-01-01', '2026-12-31')).toThrow('no iCalendar file')
  })
  it('unrolls no end of days', () => {
    const endless = file('UID:3', 'DTSTART;VALUE=DATE:20200101', 'RRULE:FREQ=DAILY')
    expect(days(endless, '2026-01-01', '2026-01-31').length).toBeLessThanOrEqual(31)
  })
})

/** Read by node-ical, a library that shares nothing with the one that writes. */
describe('a calendar of our own', () => {
  const from_ms = Date.UTC(2026, 10, 30, 7, 30)
  const text = writeCalendar(
    'Lake; shop, Åsa',
    [
      {
        ...{ uid: '7-0@hantverk', says: '7: Stain on, wipe; then "dry"\nand look', where: 'Finishing room' },
        at: { from_ms, to_ms: from_ms + 5_400_000 },
      },
      { uid: 'promised-7@hantverk', says: 'Promised: 7 Linen press', at: { day: '2026-12-16' } },
      { uid: 'long@hantverk', says: 'å'.repeat(300), at: { day: '2026-12-31' } },
    ],
    from_ms,
  )
  const events = Object.values(ical.parseICS(text)).filter(e => e?.type === 'VEVENT') as VEvent[]
  it('is read by another library with the same moments, days and words', () => {
    const [work, promised, long] = events
    expect([work!.start.getTime(), work!.end!.getTime()]).toEqual([from_ms, from_ms + 5_400_000])
    expect([work!.summary, work!.location]).toEqual(['7: Stain on, wipe; then "dry"\nand look', 'Finishing room'])
    expect([promised!.datetype, promised!.start.getDate(), promised!.summary]).toEqual([
      'date',
      16,
      'Promised: 7 Linen press',
    ])
    expect(long!.summary).toBe('å'.repeat(300))
  })
  it('3.1: no line is longer than 75 octets, and lines end in CRLF', () => {
    for (const line of text.split('\r\n')) expect(Buffer.byteLength(line)).toBeLessThanOrEqual(75)
    expect(text.replaceAll('\r\n', '')).not.toMatch(/[\r\n]/)
  })
  it('is read back by our own reader', () =>
    expect(calendarDays(text, '2026-12-16', '2026-12-16')).toEqual([
      { day: '2026-12-16', says: 'Promised: 7 Linen press' },
    ]))
})
