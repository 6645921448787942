/** Opening hours of a day as they are typed and shown. Minutes of the local day. */

export type Opening = readonly [from_min: number, to_min: number]
const DAY_MIN = 1440
const TIME = /^(\d{1,2})(?:[:.h]?(\d{2}))?$/

const MOST_QUOTED = 24
const quoted = (typed: string) =>
  typed.trim().length > MOST_QUOTED ? `"${typed.trim().slice(0, MOST_QUOTED)}…"` : `"${typed.trim()}"`

function minutesRead(typed: string): number {
  const [, hour = '', minute = '0'] = TIME.exec(typed.trim()) ?? []
  const min = Number(hour) * 60 + Number(minute)
  if (hour === '' || Number(minute) > 59 || min > DAY_MIN)
    throw new RangeError(`${quoted(typed)} is no time of the day. Type hours such as 8-12, 13:00-17:30.`)
  return min
}

/**
 * "8-12, 13:00–17:30"; blank or "closed": none. In order, and apart.
 * @throws RangeError in words, for what is no opening.
 */
export function openingsRead(text: string): Opening[] {
  const typed = text.trim()
  if (typed === '' || /^closed$/i.test(typed)) return []
  const spans = typed
    .split(/[,;]|\band\b/)
    .map((part): Opening => {
      const ends = part.split(/[-–]|\bto\b/)
      if (ends.length !== 2 || ends.some(e => e.trim() === ''))
        throw new RangeError(`${quoted(part)} wants a beginning and an end, such as 8-12.`)
      return [minutesRead(ends[0]!), minutesRead(ends[1]!)]
    })
    .sort((a, b) => a[0] - b[0])
  const wrong = spans.find(([from, to]) => from >= to)
  if (wrong) throw new RangeError(`${openingsSaid([wrong])} ends before it begins.`)
  if (spans.some(([from], i) => i > 0 && from < spans[i - 1]![1])) throw new RangeError('Two of these hours overlap.')
  return spans
}

/** What is wrong with hours as they are typed, in words; undefined: nothing. */
export function openingsWrong(text: string): string | undefined {
  try {
    openingsRead(text)
    return undefined
  } catch (error) {
    return (error as Error).message
  }
}

const clock = (min: number) => `${String(Math.floor(min / 60)).padStart(2, '0')}:${String(min % 60).padStart(2, '0')}`
/** "08:00–12:00, 13:00–17:30"; nothing where it is closed. */
export const openingsSaid = (spans: readonly (readonly number[])[]): string =>
  spans.map(([from, to]) => `${clock(from!)}–${clock(to!)}`).join(', ')
