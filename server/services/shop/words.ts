/** Money and days as the shop writes them. */
import { dayWords } from '#core/timetable'
import type { ShopRow } from './rows'

export const moneyIn = (currency: string) => (minor: number) =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency, currencyDisplay: 'code' }).format(minor / 100)
type Zone = Pick<ShopRow, 'zone'>
/** Days in words. */
export const dayIn =
  ({ zone }: Zone) =>
  (at: Date | string) =>
    dayWords(at, zone)
export const shortDayIn =
  ({ zone }: Zone) =>
  (at: Date | string) =>
    dayWords(at, zone, 'd LLL yyyy')
