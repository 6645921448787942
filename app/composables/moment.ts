import { DateTime } from 'luxon'

/** A moment in the shop's zone, to be counted with. */
export function useMoment() {
  const { zone } = useFormat()
  /** A date without a time is that day in the shop, wherever the page is read. */
  const at = (moment: number | string): DateTime =>
    (typeof moment === 'number'
      ? DateTime.fromMillis(moment, { zone: zone() })
      : DateTime.fromISO(moment, { zone: zone() })
    ).setLocale('en-GB')
  return { at }
}
