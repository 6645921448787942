import { kindsThat } from '#core/acts'
import { type Shelf, taken } from '#core/materials'
import type { Db } from '../../database/db'
import { SHARED_ROOM } from '../shop/rows'
import { readShelf } from '../store/shelf'
import { type PlannedStep, stepOf, type StepRow } from './rows'

const DAY_MS = 86_400_000
const STAYS_WET_D = 3
/** A coat that is wet somewhere in the shop, in words, while dust and finish share a room; else null. */
export async function readWetCoat(on: Db, at: Date, clock: (at_ms: number) => string): Promise<string | null> {
  const rows = await on.rows<StepRow & { piece: string }>(
    `SELECT s.*, piece.name AS piece,
        (SELECT MAX(id) FROM product_label WHERE product_id = s.product_id) AS label
        FROM plan_step s
        JOIN piece ON piece.id = s.piece_id
        WHERE (${SHARED_ROOM}) AND piece.state = 'active' AND s.kind IN (:kinds)
          AND (s.state = 'running' OR (s.state = 'done' AND s.finished_at > :since))`,
    { kinds: kindsThat('lingers'), since: new Date(at.getTime() - STAYS_WET_D * DAY_MS) },
  )
  if (rows.length === 0) return null
  const shelf = await readShelf(on)
  const wet = rows
    .map(row => {
      const step = stepOf(row, [], shelf)
      const until_ms = step.finished_ms === null ? Infinity : step.finished_ms + wetFor_min(step, shelf) * 60_000
      return { says: `${row.piece}, ${step.title}`, until_ms }
    })
    .filter(w => w.until_ms > at.getTime())
    .sort((a, b) => b.until_ms - a.until_ms)[0]
  if (!wet) return null
  return `${wet.says}${wet.until_ms < Infinity ? `, until ${clock(wet.until_ms)}` : ''}`
}
/** Minutes until dust no longer sticks: as long as the next coat waits at least. */
function wetFor_min(step: PlannedStep, shelf: Shelf): number {
  try {
    return taken(shelf, step)?.recoat_min[0] ?? 0
  } catch {
    return 0
  }
}
