/** Opening hours in the shop's own zone. Instants are epoch milliseconds, named `_ms`. */
import { DateTime } from 'luxon'

/** Local minutes of the day, per ISO weekday (1 Monday … 7 Sunday); closures are local dates. */
export interface Hours {
  zone: string
  week: Readonly<Record<number, readonly (readonly [number, number])[]>>
  closures: readonly string[]
}

const MIN_MS = 60_000
const DAYS_AHEAD = 370
/** Days that are remembered before all are forgotten. */
const MOST_DAYS = 10_000

/** Spans of a day, remembered per hours and day: every step of every piece asks for the same few days. */
const remembered = new WeakMap<Hours, Map<number, [number, number][]>>()

function openSpans(hours: Hours, day: DateTime): [number, number][] {
  const known = remembered.get(hours) ?? new Map<number, [number, number][]>()
  remembered.set(hours, known)
  const key = day.toMillis()
  const spans = known.get(key) ?? spansOn(hours, day)
  if (known.size >= MOST_DAYS) known.clear()
  known.set(key, spans)
  return spans
}

function spansOn(hours: Hours, day: DateTime): [number, number][] {
  if (hours.closures.includes(day.toISODate()!)) return []
  return (hours.week[day.weekday] ?? []).map(([from, to]) => {
    const at = (minutes: number) => day.set({ hour: Math.floor(minutes / 60), minute: minutes % 60 }).toMillis()
    return [at(from), at(to)]
  })
}

/** Midnights of every zone fall on a quarter hour, so all moments of one quarter share their day. */
const QUARTER_MS = 15 * MIN_MS
const days = new Map<string, DateTime>()

/** The local day of a moment, remembered: a question of the shop asks for few days many times. */
function dayOf({ zone }: Hours, at_ms: number): DateTime {
  const key = `${zone}/${Math.floor(at_ms / QUARTER_MS)}`
  const known = days.get(key)
  if (known) return known
  const day = DateTime.fromMillis(at_ms, { zone }).startOf('day')
  if (days.size >= MOST_DAYS) days.clear()
  days.set(key, day)
  return day
}

/** The open span that holds this moment, or null when the shop is closed. */
export const spanAt = (hours: Hours, at_ms: number): [number, number] | null =>
  openSpans(hours, dayOf(hours, at_ms)).find(([from, to]) => from <= at_ms && at_ms < to) ?? null

/** The next open span that ends after this moment. @throws RangeError when the shop never opens within a year. */
export function nextSpan(hours: Hours, at_ms: number): [number, number] {
  let day = dayOf(hours, at_ms)
  for (let i = 0; i < DAYS_AHEAD; i++, day = day.plus({ days: 1 })) {
    const span = openSpans(hours, day).find(([, to]) => to > at_ms)
    if (span) return span
  }
  throw new RangeError('The shop has no opening hours in the next year. Set them under Shop.')
}

/** When the shop closes for the day that holds this moment; null when no opening is left that day. */
export const closingOf = (hours: Hours, at_ms: number): number | null =>
  openSpans(hours, dayOf(hours, at_ms))
    .filter(([, to]) => to > at_ms)
    .at(-1)?.[1] ?? null

/** Is this moment inside hours (the closing minute included)? */
export const isWorking = (hours: Hours, at_ms: number): boolean =>
  openSpans(hours, dayOf(hours, at_ms)).some(([from, to]) => from <= at_ms && at_ms <= to)

/** Open time of a usual week, ms. */
const weekOpen_ms = ({ week }: Hours): number =>
  Object.values(week)
    .flat()
    .reduce((sum, [from, to]) => sum + (to - from) * MIN_MS, 0)

/** Open time that closures take from the days between, ms. */
function closed_ms(hours: Hours, from: DateTime, until: DateTime): number {
  const [first, last] = [from.toISODate()!, until.toISODate()!]
  const days = new Set(hours.closures.filter(day => day >= first && day < last))
  return [...days]
    .flatMap(day => hours.week[DateTime.fromISO(day, { zone: hours.zone }).weekday] ?? [])
    .reduce((sum, [from_min, to_min]) => sum + (to_min - from_min) * MIN_MS, 0)
}

/** More than this nobody dates: some twenty years of one pair of hands. */
const MOST_MIN = 2_500_000

/**
 * The moment when `minutes` of open time have passed since `from_ms`. Whole weeks are stepped over at once, so that it
 * takes as long for a year as for a day.
 * @throws RangeError for no number, or for more work than can be dated.
 */
export function afterWorking(hours: Hours, from_ms: number, minutes: number): number {
  if (!(minutes <= MOST_MIN) || !Number.isFinite(from_ms))
    throw new RangeError('This is more work than can be dated. Look at its sizes and minutes.')
  const week_ms = weekOpen_ms(hours)
  let left = Math.max(0, minutes) * MIN_MS
  let at = from_ms
  for (;;) {
    const [open, close] = nextSpan(hours, at)
    const begin = Math.max(open, at)
    if (begin + left <= close) return begin + left
    left -= close - begin
    at = close
    const weeks = Math.floor(left / week_ms) - 1
    if (weeks < 1 || closingOf(hours, at) !== null) continue
    const morning = dayOf(hours, at).plus({ days: 1 })
    const later = morning.plus({ weeks })
    left += closed_ms(hours, morning, later) - weeks * week_ms
    at = later.toMillis()
  }
}
