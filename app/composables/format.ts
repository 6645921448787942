import { DateTime } from 'luxon'
import { inFahrenheit, toF } from '#core/units'

/** How moments, spans and money are written, in the shop's zone and currency. */
export function useFormat() {
  const session = useSession()
  const zone = () => session.shop?.zone ?? 'UTC'
  const at = (ms: number | string) =>
    // a date without a time is that day in the shop, wherever the page is read
    (typeof ms === 'number'
      ? DateTime.fromMillis(ms, { zone: zone() })
      : DateTime.fromISO(ms, { zone: zone() })
    ).setLocale('en-GB')
  const time = (ms: number | string) => at(ms).toFormat('HH:mm')
  const day = (ms: number | string) => at(ms).toFormat('ccc d LLL')
  const dayTime = (ms: number | string) => at(ms).toFormat('ccc d LLL HH:mm')
  const span = (ms: number) => {
    const minutes = Math.max(0, Math.round(ms / 60_000))
    if (minutes < 60) return `${minutes} min`
    if (minutes < 24 * 60) return `${Math.floor(minutes / 60)} h ${String(minutes % 60).padStart(2, '0')}`
    return `${Math.round(minutes / 1440)} d`
  }
  const hours = (min: number) =>
    min < 60 ? `${Math.round(min)} min` : `${Math.floor(min / 60)} h ${String(Math.round(min % 60)).padStart(2, '0')}`
  const money = (minor: number, currency = session.shop?.currency ?? 'SEK') =>
    new Intl.NumberFormat('en-GB', {
      style: 'currency',
      currency,
      maximumFractionDigits: 0,
      currencyDisplay: 'code',
    }).format(minor / 100)
  const amount = (ml: number | null) => {
    if (ml === null) return ''
    if (ml >= 1000) return `${(ml / 1000).toFixed(2)} L`
    return `${Math.ceil(ml)} ml`
  }
  const percent = (p: number) => `${Math.round(p * 100)} %`
  const fahrenheit = () => session.shop?.temperature_unit === 'F'
  /** "21.4 °C", in the shop's unit. */
  const degrees = (C: number, digits = 1) => (fahrenheit() ? `${toF(C).toFixed(digits)} °F` : `${C.toFixed(digits)} °C`)
  /** A text of core's, with its temperatures in the shop's unit. */
  const inUnit = (text: string) => (fahrenheit() ? inFahrenheit(text) : text)
  return { at, time, day, dayTime, span, hours, money, amount, percent, zone, degrees, inUnit }
}
