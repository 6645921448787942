/** Money and days as the shop writes them. */
import { DateTime } from 'luxon'
import type { ShopRow } from './rows'

export const moneyIn = (currency: string) => (minor: number) =>
  new Intl.NumberFormat('en-GB', { style: 'currency', currency, currencyDisplay: 'code' }).format(minor / 100)
type Zone = Pick<ShopRow, 'zone'>
const dayAs = (form: string, { zone }: Zone, at: Date | string) =>
  DateTime.fromJSDate(new Date(at), { zone }).setLocale('en-GB').toFormat(form)
/** Days in words. */
export const dayIn = (shop: Zone) => (at: Date | string) => dayAs('d LLLL yyyy', shop, at)
export const shortDayIn = (shop: Zone) => (at: Date | string) => dayAs('d LLL yyyy', shop, at)
