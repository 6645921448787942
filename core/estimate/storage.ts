/** What keeping a piece costs that is ready and that nobody fetches, by the rule of the house. */
export interface StorageRule {
  /** days that cost nothing, from the day it was ready */
  freeDays: number
  /** minor units for each day after those, with tax */
  day_minor: number
}
export interface Storage {
  /** days since it was ready */
  days: number
  /** days that are charged */
  charged_d: number
  minor: number
}
const DAY_MS = 86_400_000

/**
 * @param ready ISO day on which it was ready
 * @param until ISO day on which it was fetched, or today
 */
export function storageOf(ready: string, until: string, { freeDays, day_minor }: StorageRule): Storage {
  const days = Math.max(0, Math.round((Date.parse(until) - Date.parse(ready)) / DAY_MS))
  const charged_d = day_minor > 0 ? Math.max(0, days - freeDays) : 0
  return { days, charged_d, minor: charged_d * day_minor }
}
