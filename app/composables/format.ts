import { inFahrenheit, toF } from '#core/units/temperature'

const PARTS: Intl.DateTimeFormatOptions = {
  ...({ weekday: 'short', day: 'numeric', month: 'short', year: 'numeric' } as const),
  ...({ hour: '2-digit', minute: '2-digit' } as const),
  hourCycle: 'h23',
}
const formats = new Map<string, Intl.DateTimeFormat>()
function formatIn(timeZone: string): Intl.DateTimeFormat {
  const known = formats.get(timeZone)
  if (known) return known
  const format = inZone(timeZone)
  formats.set(timeZone, format)
  return format
}
/** A zone that nobody knows breaks no page. */
function inZone(timeZone: string): Intl.DateTimeFormat {
  try {
    return new Intl.DateTimeFormat('en-GB', { ...PARTS, timeZone })
  } catch {
    return new Intl.DateTimeFormat('en-GB', { ...PARTS, timeZone: 'UTC' })
  }
}
/** Days further away than this say their year. */
const NEAR_MS = 300 * 86_400_000
const ZONELESS = /^\d{4}-\d{2}-\d{2}$/
/** A moment as it is written in a zone; a date without a time is that day, wherever the page is read. */
function written(moment: number | string, zone: string): { day: string; time: string } {
  const at = new Date(moment)
  if (Number.isNaN(at.getTime())) return { day: '', time: '' }
  const format = formatIn(typeof moment === 'string' && ZONELESS.test(moment) ? 'UTC' : zone)
  const p = Object.fromEntries(format.formatToParts(at).map(({ type, value }) => [type, value]))
  const far = Math.abs(at.getTime() - Date.now()) > NEAR_MS
  return { day: `${p.weekday} ${p.day} ${p.month}${far ? ` ${p.year}` : ''}`, time: `${p.hour}:${p.minute}` }
}

/** How moments, spans and money are written, in the shop's zone and currency. */
export function useFormat() {
  const session = useSession()
  const zone = () => session.shop?.zone ?? 'UTC'
  const time = (moment: number | string) => written(moment, zone()).time
  const day = (moment: number | string) => written(moment, zone()).day
  const dayTime = (moment: number | string) => `${day(moment)} ${time(moment)}`
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
  /** A likely sum, with the worst where that is another. */
  const sum = (likely_minor: number, worst_minor: number) =>
    worst_minor > likely_minor ? `${money(likely_minor)}, ${w('worst')} ${money(worst_minor)}` : money(likely_minor)
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
  return { time, day, dayTime, span, hours, money, sum, amount, percent, zone, degrees, inUnit }
}
