/** What the lines of a file that is read in would do. */
import type { TableRead } from '#core/formats'
import type { Db } from '../../database/db'
import type { Person } from '../shop/person'

/** What one line does to the shop. */
export interface Planned {
  name: string
  /** what changes of it; null: it is new */
  what: string[] | null
  take: () => Promise<unknown>
}
export interface PlannedList {
  plans: Planned[]
  wrong: { line: number; says: string }[]
}
export interface Taking {
  tx: Db
  person: Person
  at: Date
}

/** Lines put to what is known; what a line refuses stands among the wrong ones. */
export async function eachOf<L extends { line: number }>(
  read: TableRead<L>,
  planOf: (line: L) => Planned | Promise<Planned>,
): Promise<PlannedList> {
  const list: PlannedList = { plans: [], wrong: [...read.wrong] }
  for (const line of read.lines) {
    try {
      list.plans.push(await planOf(line))
    } catch (error) {
      if (!(error instanceof RangeError)) throw error
      list.wrong.push({ line: line.line, says: error.message })
    }
  }
  return list
}
