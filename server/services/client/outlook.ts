/** When a piece that is only asked about would be ready among all else in the shop, were it agreed to today. */
import { DateTime } from 'luxon'
import { byShare, changed } from '#core/schedule'
import { db } from '../../database/db'
import type { Outlook } from '../piece/outlook'
import { readShopToPlan } from '../schedule/model'
import { readShop } from '../shop/rows'

const SEARCH = { within_ms: 700, orders: 400, seed: 1 }
const LIVES = 250

interface State {
  piece_id: number
  changed_no: number
  schedule_id: number
  day: string
}

async function stateOf(id: number, at: Date): Promise<State | null> {
  const { zone } = await readShop()
  const row = await db().row<Omit<State, 'day'>>(
    `SELECT id AS piece_id, changed_no, (SELECT COALESCE(MAX(id), 0) FROM schedule) AS schedule_id
        FROM piece
        WHERE id = :id AND state = 'enquiry'`,
    { id },
  )
  return row && { ...row, day: DateTime.fromJSDate(at, { zone }).toISODate()! }
}

async function lived(id: number, at: Date): Promise<Outlook | null> {
  const { shop } = await readShopToPlan(at, null, id)
  const job = shop.jobs.find(j => j.id === id)
  if (!job) return null
  const agreed = job.tasks.some(t => t.ifYes) ? changed(shop, { kind: 'answered', jobId: id }) : shop
  const { placed } = await inWorker('schedule', { shop: agreed, ...SEARCH })
  const ends = await inWorker('livesOfOne', { shop: agreed, placed, most: LIVES, seed: 1, only: id })
  const by = (share: number) => {
    const end_ms = byShare(ends, share)
    return Number.isFinite(end_ms) ? new Date(end_ms) : null
  }
  return { likely_at: by(0.5), safe_at: by(0.9) }
}

/**
 * Worked out where the piece, the schedule or the day is another than the last time, and kept; takes a second or two,
 * so it is asked before a transaction, which then reads what was kept.
 * @param now by the newest schedule; else one of today is good enough
 * @returns null for a piece that is not asked about, or has no plan
 */
export async function freshOutlook(id: number, at: Date, { now = true } = {}): Promise<Outlook | null> {
  const state = await stateOf(id, at)
  if (!state) return null
  const kept = await db().row<Outlook>(
    `SELECT likely_at, safe_at
        FROM outlook
        WHERE piece_id = :piece_id AND changed_no = :changed_no AND day = :day
          AND (NOT :now OR schedule_id = :schedule_id)`,
    { ...state, now },
  )
  if (kept) return kept
  const found = await lived(id, at)
  if (found)
    await db().run(
      `REPLACE INTO outlook (piece_id, changed_no, schedule_id, day, likely_at, safe_at)
          VALUES (:piece_id, :changed_no, :schedule_id, :day, :likely_at, :safe_at)`,
      { ...state, ...found },
    )
  return found
}
