/** Days as they are written on paper and in letters. */
import { DateTime } from 'luxon'

/**
 * A moment as the day that it falls on, in words: "3 December 2026".
 * @param at a moment, or an ISO day without a time, which is the same day in every zone
 * @param zone IANA name of the shop's zone
 */
export const dayWords = (at: Date | string, zone: string, form = 'd LLLL yyyy'): string =>
  (typeof at === 'string' ? DateTime.fromISO(at, { zone }) : DateTime.fromJSDate(at, { zone }))
    .setLocale('en-GB')
    .toFormat(form)
