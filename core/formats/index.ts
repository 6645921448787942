/** Open formats in and out. */
import { parseCgats } from './cgats'
import { parseSamplesCsv } from './csv'
import type { Sample } from './samples'

export { parseCgats, writeCgats } from './cgats'
export { cellText, type Decimal, DECIMALS, parseSamplesCsv, textCell, writeSamplesCsv, writeTable } from './csv'
export { textOf } from './encoding'
export { type Appointment, type CalendarDay, calendarDays, writeCalendar } from './calendar'
export { type PotLine, readPots, readRecipes, type RecipeLine } from './mixtures'
export { type Column, numberIn, readLines, readTable, type TableLine, type TableRead } from './table'
export { type Card, type CardLine, readPeople, writeCards } from './vcard'
export type { Sample } from './samples'

/** Samples of a file, whichever of the two it is. @throws RangeError with the line that cannot be read. */
export const parseSamples = (text: string): Sample[] =>
  /^\s*BEGIN_DATA/im.test(text) || /^\s*(CGATS|ISO28178)/i.test(text) ? parseCgats(text) : parseSamplesCsv(text)
