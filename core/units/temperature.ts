/** Temperatures are kept in °C, and written in °F for a shop that wants it. */
export const TEMPERATURE_UNITS = ['C', 'F'] as const
export type TemperatureUnit = (typeof TEMPERATURE_UNITS)[number]

export const toF = (C: number): number => C * 1.8 + 32
export const toC = (F: number): number => (F - 32) / 1.8

const tenth = (x: number): string => String(Math.round(x * 10) / 10)
/** "21.4 °C", "3 to 5 °C"; a difference, "3 K". */
const WRITTEN = /(-?\d+(?:\.\d+)?)(?: to (-?\d+(?:\.\d+)?))? °C|(\d+(?:\.\d+)?) K\b/g
/** The same text with its temperatures in °F, and differences of temperature in degrees of it. */
export const inFahrenheit = (text: string): string =>
  text.replace(WRITTEN, (_, from?: string, to?: string, difference?: string) => {
    if (difference !== undefined) return `${tenth(Number(difference) * 1.8)} F°`
    return `${tenth(toF(Number(from)))}${to === undefined ? '' : ` to ${tenth(toF(Number(to)))}`} °F`
  })
