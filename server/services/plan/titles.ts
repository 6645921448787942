/** What steps are called, read by their numbers: a title is stored only where it was typed. */
import type { Db } from '../../database/db'
import { readShelf } from '../store/shelf'
import { STEPS, stepOf, type StepRow } from './rows'

const AT_ONCE = 2000
/** Titles of these steps; '' of a number that is none. */
export async function readTitles(on: Db, ids: Iterable<number | null>): Promise<(id: number | null) => string> {
  const wanted = [...new Set(ids)].filter(id => id !== null)
  const titles = new Map<number, string>()
  const shelf = wanted.length ? await readShelf(on) : null
  for (let i = 0; i < wanted.length; i += AT_ONCE) {
    const some = wanted.slice(i, i + AT_ONCE)
    for (const row of await on.rows<StepRow>(`${STEPS} WHERE s.id IN (:some)`, { some }))
      titles.set(row.id, stepOf(row, [], shelf!).title)
  }
  return id => (id === null ? '' : (titles.get(id) ?? ''))
}
