/**
 * Reads what a climate logger wrote: lines of time, °C and % relative humidity, with comma, semicolon or tab between
 * them.
 */
import { DateTime } from 'luxon'
import { toC } from '../units'
import type { Reading } from './forecast'

const MOST_LINES = 20_000
const FORMATS = [
  'yyyy-MM-dd HH:mm',
  'yyyy-MM-dd HH:mm:ss',
  'dd.MM.yyyy HH:mm',
  'dd.MM.yyyy HH:mm:ss',
  'dd/MM/yyyy HH:mm',
  'dd/MM/yyyy HH:mm:ss',
  'yyyy/MM/dd HH:mm:ss',
  'yyyy/MM/dd HH:mm',
] as const
/** Months first, where a day of the file stands in their place. */
const MONTHS_FIRST = ['MM/dd/yyyy HH:mm', 'MM/dd/yyyy HH:mm:ss', 'MM/dd/yyyy hh:mm a', 'MM/dd/yyyy hh:mm:ss a'] as const

/** Where each figure stands in a line, from 0. */
export interface LogColumns {
  time: number
  /** where day and time stand apart: the day */
  day: number | null
  temperature: number
  humidity: number
  fahrenheit: boolean
}
const FIRST_THREE: LogColumns = { time: 0, day: null, temperature: 1, humidity: 2, fahrenheit: false }
/** Headings, in the words of those who make loggers; the first that fits counts. */
const HEADS = {
  both: /date.?time|time.?stamp|zeitstempel|^time \(|datum.?(und|och|\/).?(zeit|tid)/i,
  day: /^(date|datum|day|dag|tag)\b/i,
  time: /^(time|zeit|uhrzeit|tid|klocka|clock)\b/i,
  temperature: /temp|celsius|fahrenheit|°\s?[cf]/i,
  humidity: /humid|feuch|fukt|\brh\b|\br\.?h\.?|%/i,
} as const
/** A heading may stand below so many lines about the logger itself. */
const HEADING_WITHIN = 40

/** Cells of a line, with comma, semicolon or tab between them. */
export const cellsOf = (line: string): string[] => {
  const separator = [';', '\t'].find(mark => line.includes(mark)) ?? ','
  return line.split(separator).map(c => c.trim().replace(/^"|"$/g, ''))
}
/** The columns that a heading names; null where it is none. */
function columnsIn(cells: readonly string[]): LogColumns | null {
  const at = (head: RegExp, not: readonly number[] = []) => cells.findIndex((c, i) => head.test(c) && !not.includes(i))
  const temperature = at(HEADS.temperature)
  const humidity = at(HEADS.humidity, [temperature])
  if (temperature < 0 || humidity < 0) return null
  const [both, day] = [at(HEADS.both), at(HEADS.day)]
  const time = both >= 0 ? both : at(HEADS.time, [day])
  if (time < 0 && day < 0) return null
  return {
    time: time < 0 ? day : time,
    day: both >= 0 || time < 0 || day < 0 ? null : day,
    ...{ temperature, humidity, fahrenheit: /°\s?f|fahrenheit|\(f\)/i.test(cells[temperature]!) },
  }
}
/** Where figures begin, and where each stands. */
function layoutOf(lines: readonly string[]): { from: number; columns: LogColumns } {
  for (const [i, line] of lines.slice(0, HEADING_WITHIN).entries()) {
    const columns = columnsIn(cellsOf(line))
    if (columns) return { from: i + 1, columns }
  }
  return { from: 0, columns: FIRST_THREE }
}

function momentOf(text: string, zone: string, formats: readonly string[]): number | null {
  const iso = DateTime.fromISO(text, { zone })
  const at = iso.isValid ? iso : formats.map(f => DateTime.fromFormat(text, f, { zone })).find(d => d.isValid)
  return at ? at.toMillis() : null
}
/** Which comes first in 03/04/2026 is told by a day above the twelfth anywhere in the file; else by the hour's AM. */
function formatsOf(times: readonly string[]): readonly string[] {
  const parts = times.flatMap(t => /^(\d{1,2})\/(\d{1,2})\/\d{4}/.exec(t)?.slice(1, 3).map(Number) ?? [])
  const second = parts.filter((_, i) => i % 2 === 1)
  const monthsFirst = second.some(n => n > 12) || times.some(t => /[ap]m$/i.test(t))
  return monthsFirst ? [...MONTHS_FIRST, ...FORMATS] : FORMATS
}
const figureIn = (cell: string | undefined): number =>
  cell === undefined || cell === '' ? Number.NaN : Number(cell.replace(',', '.').replace(/[°%CFRH\s]/g, ''))

/**
 * Readings of a logger's file, in order of time; local times are in `zone`. Columns by their headings, in any order,
 * below whatever the logger says of itself; without headings time, °C and % in this order.
 * @param given where each figure stands, where the file does not say it
 * @throws RangeError with the number of the line that cannot be read, and what was wanted there.
 */
export function parseClimateLog(text: string, zone: string, given?: LogColumns): Reading[] {
  const lines = text.replace(/^\uFEFF/, '').split(/\r?\n/)
  if (lines.length > MOST_LINES) throw new RangeError(`${lines.length} lines are too many; ${MOST_LINES} at the most.`)
  const { from, columns } = given ? { from: 0, columns: given } : layoutOf(lines)
  const timeIn = (cells: readonly string[]) =>
    [columns.day === null ? '' : cells[columns.day], cells[columns.time]].filter(Boolean).join(' ')
  const rows = lines.map((line, i) => ({ i, line, cells: cellsOf(line) })).slice(from)
  const formats = formatsOf(rows.map(r => timeIn(r.cells)))
  const readings: Reading[] = []
  for (const { i, line, cells } of rows) {
    if (!line.trim()) continue
    const at_ms = momentOf(timeIn(cells), zone, formats)
    if (at_ms === null) {
      if (readings.length === 0 && (i === 0 || given)) continue
      throw new RangeError(`Line ${i + 1}: "${timeIn(cells)}" is no time. Wanted: 2026-11-20 14:05, then °C, then %.`)
    }
    const [read, humidity] = [figureIn(cells[columns.temperature]), figureIn(cells[columns.humidity])]
    const temperature = columns.fahrenheit ? toC(read) : read
    if (!Number.isFinite(temperature) || !Number.isFinite(humidity))
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
