import type { Unreadable } from '../piece/rows'

/**
 * What stands in the database is read with care: an old row, or one that was changed elsewhere, is told and holds up
 * nothing beside it.
 */
export const cannotRead = (why: string) =>
  fail(409, 'unreadable', `This cannot be read: ${why}. Everything else works. Enter it anew, or bring back a backup.`)

/** Runs what reads one piece; what it throws becomes a word about that piece. */
export function readable<T>(id: number, name: string, read: () => T): T | Unreadable {
  try {
    return read()
  } catch (error) {
    if (!(error instanceof RangeError)) console.error(`piece ${id}:`, error)
    return {
      id,
      name,
      why: error instanceof RangeError ? error.message.replace(/\.$/, '') : 'something stored of it is damaged',
    }
  }
}
export const first = <T>(rows: readonly T[], says: (row: T) => string | false | null): string | null => {
  for (const row of rows) {
    const word = says(row)
    if (word) return word
  }
  return null
}
