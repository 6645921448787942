/** The axis of a timetable: days beside each other, each from its opening to its closing; nights take no room. */
import { DateTime } from 'luxon'
import type { Hours } from './hours'

export interface DayColumn {
  /** local date */
  day: string
  /** drawn from and to; a closed day's noon */
  from_ms: number
  to_ms: number
  /** when the shop is open, in order */
  open: [number, number][]
  /** where it lies, as fractions of the whole */
  left: number
  width: number
}
/** A closed day takes this much of an open one's width. */
const CLOSED_WIDTH = 0.2

/** Hours as they travel: spans are lists of two. */
type SentHours = Omit<Hours, 'week'> & { week: Readonly<Record<number, readonly (readonly number[])[]>> }

export function dayColumns(hours: SentHours, first: string, days: number): DayColumn[] {
  const start = DateTime.fromISO(first, { zone: hours.zone })
  const plain = Array.from({ length: days }, (_, i) => {
    const day = start.plus({ days: i })
    const date = day.toISODate()!
    const at = (min: number) => day.set({ hour: Math.floor(min / 60), minute: min % 60 }).toMillis()
    const week = hours.closures.includes(date) ? [] : (hours.week[day.weekday] ?? [])
    const open = week.map(([from, to]): [number, number] => [at(from!), at(to!)])
    const [from_ms, to_ms] = open.length ? [open[0]![0], open.at(-1)![1]] : [at(720), at(720)]
    return { day: date, from_ms, to_ms, open, weight: open.length ? 1 : CLOSED_WIDTH }
  })
  const all = plain.reduce((sum, d) => sum + d.weight, 0)
  let left = 0
  return plain.map(({ weight, ...d }) => {
    const column = { ...d, left, width: weight / all }
    left += column.width
    return column
  })
}

/** Where a moment lies, 0 to 1; nights lie on the line between two days, what is before or after on the edge. */
export function xOf(columns: readonly DayColumn[], at_ms: number): number {
  const column = columns.findLast(c => c.from_ms <= at_ms)
  if (!column) return 0
  const part =
    column.to_ms > column.from_ms ? Math.min(1, (at_ms - column.from_ms) / (column.to_ms - column.from_ms)) : 1
  return column.left + part * column.width
}

const QUARTER_MS = 900_000
/** The moment at a place, on a quarter of an hour. */
export function momentAt(columns: readonly DayColumn[], x: number): number {
  const column = columns.findLast(c => c.left <= x) ?? columns[0]!
  const part = column.width ? Math.min(1, Math.max(0, (x - column.left) / column.width)) : 0
  return Math.round((column.from_ms + part * (column.to_ms - column.from_ms)) / QUARTER_MS) * QUARTER_MS
}

/** The row of each span, so that none overlaps another in its row; as few rows as it takes. */
export function rowsOf(spans: readonly { start: number; end: number }[]): number[] {
  const ends: number[] = []
  const rows: number[] = []
  const order = spans
    .map((_, i) => i)
    .sort((a, b) => spans[a]!.start - spans[b]!.start || spans[b]!.end - spans[a]!.end)
  for (const i of order) {
    const free = ends.findIndex(end => end <= spans[i]!.start)
    const row = free < 0 ? ends.length : free
    ends[row] = spans[i]!.end
    rows[i] = row
  }
  return rows
}
