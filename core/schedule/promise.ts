/** What can be promised: shares of lives by the day on which a piece would leave. Days are local dates. */

export interface DayCount {
  day: string
  /** lives in which it leaves on that day */
  n: number
}
export interface Lived {
  runs: number
  /** in order; what is missing never leaves within the time that is planned ahead */
  days: readonly DayCount[]
}
/** A promise under this share warns. */
export const HONEST = 0.8

/** Parts of lives, each with another seed, as one. */
export function together(parts: readonly Lived[]): Lived {
  const counts = new Map<string, number>()
  for (const { days } of parts) for (const { day, n } of days) counts.set(day, (counts.get(day) ?? 0) + n)
  return {
    runs: parts.reduce((sum, p) => sum + p.runs, 0),
    days: [...counts].map(([day, n]) => ({ day, n })).sort((a, b) => (a.day < b.day ? -1 : 1)),
  }
}

/** Share of lives in which it has left by a day. */
export const chanceBy = ({ runs, days }: Lived, day: string): number =>
  runs === 0 ? 0 : days.reduce((sum, d) => sum + (d.day <= day ? d.n : 0), 0) / runs

/** The first day by which such a share has left; null: none within the time that is planned ahead. */
export function dayOf({ runs, days }: Lived, share: number): string | null {
  let sum = 0
  for (const { day, n } of days) {
    sum += n
    if (sum >= share * runs) return day
  }
  return null
}
