/**
 * Reads what a climate logger wrote: lines of time, °C and % relative humidity, with comma, semicolon or tab between
 * them.
 */
import { DateTime } from 'luxon'
import type { Reading } from './forecast'

const MOST_LINES = 20_000
const FORMATS = [
  'yyyy-MM-dd HH:mm',
  'yyyy-MM-dd HH:mm:ss',
  'dd.MM.yyyy HH:mm',
  'dd.MM.yyyy HH:mm:ss',
  'dd/MM/yyyy HH:mm',
  'dd/MM/yyyy HH:mm:ss',
] as const

function momentOf(text: string, zone: string): number | null {
  const iso = DateTime.fromISO(text, { zone })
  const at = iso.isValid ? iso : FORMATS.map(f => DateTime.fromFormat(text, f, { zone })).find(d => d.isValid)
  return at ? at.toMillis() : null
}

/**
 * Readings of a logger's file, in order of time; local times are in `zone`. A first line without figures is taken for
 * a heading.
 * @throws RangeError with the number of the line that cannot be read, and what was wanted there.
 */
export function parseClimateLog(text: string, zone: string): Reading[] {
  const lines = text.split(/\r?\n/)
  if (lines.length > MOST_LINES) throw new RangeError(`${lines.length} lines are too many; ${MOST_LINES} at the most.`)
  const readings: Reading[] = []
  for (const [i, line] of lines.entries()) {
    if (!line.trim()) continue
    const separator = [';', '\t'].find(mark => line.includes(mark)) ?? ','
    const cells = line.split(separator).map(c => c.trim().replace(/^"|"$/g, ''))
    const [time = '', ...rest] = cells
    const [temperature, humidity] = rest.map(c => Number(c.replace(',', '.').replace(/[°%CRH\s]/g, '')))
    const at_ms = momentOf(time, zone)
    if (at_ms === null) {
      if (readings.length === 0 && i === 0) continue
      throw new RangeError(`Line ${i + 1}: "${time}" is no time. Wanted: 2026-11-20 14:05, then °C, then %.`)
    }
    if (
      temperature === undefined ||
      humidity === undefined ||
      !Number.isFinite(temperature) ||
      !Number.isFinite(humidity)
    )
      throw new RangeError(`Line ${i + 1}: wanted a time, °C and %, found "${line.slice(0, 60)}".`)
    if (temperature < -20 || temperature > 60)
      throw new RangeError(`Line ${i + 1}: ${temperature} °C is outside any shop.`)
    if (humidity <= 0 || humidity > 100)
      throw new RangeError(`Line ${i + 1}: ${humidity} % is no relative humidity; 1 to 100.`)
    readings.push({ at_ms, temperature_C: temperature, rh: humidity / 100 })
  }
  if (readings.length === 0) throw new RangeError('There is no reading in this file. Wanted: lines of time, °C and %.')
  return readings.sort((a, b) => a.at_ms - b.at_ms)
}
