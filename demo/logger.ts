import type { DateTime } from 'luxon'

/** A made-up week of the room as a logger writes it: cool damp mornings, mild days. */
export function loggerFile(open: DateTime): string {
  const lines = ['time;temperature;humidity']
  for (let h = 6 * 24; h >= 1; h--) {
    const hour = open.minus({ hours: h }).startOf('hour')
    // the heating is off at night: coolest at seven
    const cool = Math.max(0, 1 - Math.abs(hour.hour - 7) / 4)
    lines.push(
      [
        hour.toFormat('yyyy-MM-dd HH:mm'),
        (20 - 6.5 * cool).toFixed(1),
        (47 + 28 * cool + (hour.day % 3)).toFixed(0),
      ].join(';'),
    )
  }
  return lines.join('\n')
}
