/** What the lines of a file that is read in would do. */
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
