/** When people are there, as spans: the shop's opening hours or their own, without days off. */
import { DateTime } from 'luxon'
import type { Hours } from '../timetable'
import type { Span } from './model'

export interface Presence {
  /** null: the shop's opening hours */
  week: Hours['week'] | null
  /** local dates, first and last included */
  off: readonly { from: string; until: string }[]
}

/** Minutes of two lists of a day that lie in both. */
function common(a: Hours['week'][number], b: Hours['week'][number]): [number, number][] {
  return a.flatMap(([from, to]) =>
    b.flatMap(([f, t]): [number, number][] => {
      const [begin, end] = [Math.max(from, f), Math.min(to, t)]
      return begin < end ? [[begin, end]] : []
    }),
  )
}

/** Spans between two moments. Own hours count only while the shop is open; closures close for everybody. */
export function presentSpans(hours: Hours, { week, off }: Presence, from_ms: number, until_ms: number): Span[] {
  const spans: Span[] = []
  const closed = new Set(hours.closures)
  const last = DateTime.fromMillis(until_ms, { zone: hours.zone })
  for (
    let day = DateTime.fromMillis(from_ms, { zone: hours.zone }).startOf('day');
    day <= last;
    day = day.plus({ days: 1 })
  ) {
    const date = day.toISODate()!
    if (closed.has(date) || off.some(o => o.from <= date && date <= o.until)) continue
    const open = hours.week[day.weekday] ?? []
    for (const [from, to] of week ? common(open, week[day.weekday] ?? []) : open) {
      const at = (minutes: number) => day.set({ hour: Math.floor(minutes / 60), minute: minutes % 60 }).toMillis()
      const [begin, end] = [Math.max(at(from), from_ms), Math.min(at(to), until_ms)]
      if (begin < end) spans.push([begin, end])
    }
  }
  return spans
}

/** The longest stretch of a week without a break, minutes. */
export const longestStretch_min = (hours: Hours): number =>
  Math.max(0, ...Object.values(hours.week).flatMap(day => day.map(([from, to]) => to - from)))
