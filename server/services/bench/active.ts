/**
 * The pieces in the shop with what is concluded of them. A piece is read and judged again only when its number, what
 * the shop or its store last told, or the room's air has changed; each instance keeps its own, and asks the database
 * for the numbers every time.
 */
import { behind_min } from '#core/timetable'
import { db } from '../../database/db'
import { readPieces } from '../piece/read'
import type { PieceFile, Unreadable } from '../piece/rows'
import { judged, type Judged } from '../plan/judge'
import { readPlans, type StoredPlan } from '../plan/rows'
import { strangeInPlan } from '../plan/strange'
import { readable } from '../platform/readable'
import { type AirHours, readAirHours } from '../shop/airHours'

export interface Active {
  file: PieceFile
  plan: StoredPlan | undefined
  verdicts: Judged
  /** minutes of hands and waits that hang on each step, by its key */
  behind: () => ReadonlyMap<string, number>
}
export interface ActivePieces {
  pieces: Active[]
  unreadable: Unreadable[]
}

interface Kept {
  no: number
  active: Active | null
  unreadable: Unreadable | null
}
/** Whoever is still reading for another number of the shop, or other air, fills a store that nobody asks any more. */
interface Store {
  shop: string
  air: AirHours
  kept: Map<number, Kept>
}
let store: Store | undefined
/** From so many changed pieces on, all are read together. */
const FEW = 6

/** Works something out when it is first asked for, and again when `key` is another. */
function once<T>(work: (key: string) => T): (key: string) => T {
  let last: { key: string; value: T } | undefined
  return key => {
    if (!last || last.key !== key) last = { key, value: work(key) }
    return last.value
  }
}

function activeOf(file: PieceFile, plan: StoredPlan | undefined): Active {
  // licences end with a day
  const ofDay = once<Judged>(day => judged(file, plan!, new Date(`${day}T12:00:00Z`)))
  const on = (at: Date) => ofDay(at.toISOString().slice(0, 10))
  const behind = once(() => behind_min(plan!.steps, plan!.waits))
  return {
    file,
    plan,
    verdicts: { standing: at => on(at).standing(at), start: at => on(at).start(at) },
    behind: () => behind(''),
  }
}

function keep({ kept }: Store, no: number, file: PieceFile, plan: StoredPlan | undefined) {
  const { id, name } = file.piece
  const why = plan && strangeInPlan(plan)
  const read = why ? { id, name, why } : readable(id, name, () => activeOf(file, plan))
  kept.set(id, 'why' in read ? { no, active: null, unreadable: read } : { no, active: read, unreadable: null })
}

/** What the shop, its people, methods, licences and store last told. */
const shopNumber = async (): Promise<string> =>
  (
    await db().rows<{ last: number | null }>(
      `SELECT MAX(id) AS last FROM event WHERE topic = 'shop'
        UNION ALL
        SELECT MAX(id) FROM event WHERE topic = 'store'`,
    )
  )
    .map(r => r.last)
    .join()

interface Numbered {
  id: number
  changed_no: number
}
/** What is kept for the shop and the air as they stand, and the pieces' numbers. */
async function open(where: string, id = 0): Promise<[Store, Numbered[]]> {
  // numbers first: what is read after them is at least as new
  const [numbers, shop, air] = await Promise.all([
    db().rows<Numbered>(`SELECT id, changed_no FROM piece WHERE ${where} ORDER BY id`, { id }),
    shopNumber(),
    readAirHours(db()),
  ])
  if (store?.shop !== shop || store.air !== air) store = { shop, air, kept: new Map() }
  return [store, numbers]
}

/** One piece that is worked on, as it is kept; null where it is not in work, or cannot be read. */
export async function readActiveOne(id: number): Promise<Active | null> {
  const [mine, [number]] = await open("id = :id AND state = 'active'", id)
  if (!number) return null
  if (mine.kept.get(id)?.no !== number.changed_no) await readOne(mine, id, number.changed_no)
  return mine.kept.get(id)?.active ?? null
}

/** A piece that is not in work yet, as if it were; null where it is in work already, or cannot be read. */
export async function readAsActive(id: number): Promise<Active | null> {
  const { files } = await readPieces(db(), { where: 'one', id })
  const [file] = files
  if (!file || file.piece.state === 'active') return null
  return activeOf(file, (await readPlans(db(), { where: 'one', id }, files)).get(id))
}

export async function readActive(): Promise<ActivePieces> {
  const [mine, numbers] = await open("state = 'active'")
  const { kept } = mine
  const ids = new Set(numbers.map(n => n.id))
  for (const id of kept.keys()) if (!ids.has(id)) kept.delete(id)
  const changed = numbers.filter(n => kept.get(n.id)?.no !== n.changed_no)
  if (changed.length > FEW) await readTogether(mine, new Map(changed.map(n => [n.id, n.changed_no])))
  else for (const n of changed) await readOne(mine, n.id, n.changed_no)
  const all = numbers.flatMap(n => kept.get(n.id) ?? [])
  return { pieces: all.flatMap(k => k.active ?? []), unreadable: all.flatMap(k => k.unreadable ?? []) }
}

async function readOne(mine: Store, id: number, no: number) {
  const { files, unreadable } = await readPieces(db(), { where: 'one', id })
  for (const u of unreadable) mine.kept.set(id, { no, active: null, unreadable: u })
  for (const file of files) {
    const plan = (await readPlans(db(), { where: 'one', id }, [file])).get(id)
    keep(mine, no, file, plan)
  }
}
async function readTogether(mine: Store, numbers: ReadonlyMap<number, number>) {
  const { files, unreadable } = await readPieces(db(), { where: 'active' })
  const plans = await readPlans(db(), { where: 'active' }, files)
  for (const u of unreadable) mine.kept.set(u.id, { no: numbers.get(u.id) ?? 0, active: null, unreadable: u })
  for (const file of files) {
    const { id, changed_no } = file.piece
    keep(mine, numbers.get(id) ?? changed_no, file, plans.get(id))
  }
}
