/**
 * Works the schedule out anew when something has changed that it rests on. Of several instances one does it, under a
 * lease. A first schedule is written at once, a better one after it.
 */
import { closesOf, type Schedule, whyHere } from '#core/schedule'
import { isWorking } from '#core/timetable'
import { db, type Db, transaction } from '../../database/db'
import { tell } from '../platform/log'
import { takeJob } from '../platform/jobs'
import { readHours } from '../shop/rows'
import { type PlannedShop, readShopToPlan } from './model'

/** What a schedule rests on. */
const TOPICS = "('piece', 'pieces', 'store', 'shop')"
/** Events gather for so long before it is worked out anew. */
const GATHER_S = 5
/** Time alone makes one old, while the shop is open. */
const OLD_MIN = 15
/** One instance solves at a time, and no longer than this. */
const LEASE_S = 20
const KEPT = 3
const FIRST = { within_ms: 500, orders: 6 }
const BETTER = { within_ms: 3000, orders: 2000 }
/** So often at most each schedule is lived through for its likely and safe dates. */
const LIVES = 200
/** The same shop and seed give the same schedules. */
const SEED = 1

interface Stand {
  upto: number | null
  made_at: Date | null
  last: number | null
  /** since the last event, by the database's clock */
  quiet_s: number | null
}
type Solved = Schedule & { tried: number }
const readStand = (at: Date) =>
  db().row<Stand>(
    `SELECT s.upto, s.made_at, e.id AS last, TIMESTAMPDIFF(SECOND, e.at, :at) AS quiet_s
        FROM (SELECT 1 AS one) AS always
        LEFT JOIN schedule s ON s.id = (SELECT MAX(id) FROM schedule)
        LEFT JOIN event e ON e.id = (SELECT MAX(id) FROM event WHERE topic IN ${TOPICS})`,
    { at },
  )

/** Is there something that the newest schedule does not know, and has it been quiet since? */
export async function isDue(at: Date): Promise<boolean> {
  const stand = await readStand(at)
  if (!stand) return false
  const { upto, made_at, last, quiet_s } = stand
  if (made_at === null) return last !== null
  const old = Math.abs(at.getTime() - made_at.getTime()) > OLD_MIN * 60_000
  if (old && isWorking(await readHours(), at.getTime())) return true
  return (last ?? 0) > (upto ?? 0) && (quiet_s ?? GATHER_S) >= GATHER_S
}

/** Solves, where it is due and nobody else does. True when a schedule was written. */
export async function solveIfDue(at: Date): Promise<boolean> {
  if (!(await isDue(at)) || !(await takeJob('schedule', LEASE_S))) return false
  await solveNow(at)
  return true
}

let underway: Promise<void> | undefined
/** Works it out now; whoever asks meanwhile waits for the same. */
export async function solveNow(at: Date): Promise<void> {
  underway ??= solveAnew(at).finally(() => {
    underway = undefined
  })
  return underway
}

/** A better schedule than the first is being searched for, by this instance. */
let search: { stop: AbortController; began_ms: number } | null = null
/** How much of the search is through, 0 to 1; null: none is under way here. */
export const searched = (): number | null => search && Math.min(1, (Date.now() - search.began_ms) / BETTER.within_ms)
/** What was found so far stays. */
export const stopSearch = (): void => search?.stop.abort()

async function betterThan(first: Solved, shop: PlannedShop): Promise<Solved> {
  search = { stop: new AbortController(), began_ms: Date.now() }
  const { signal } = search.stop
  try {
    const better = await inWorker('schedule', { shop, seed: SEED, ...BETTER }, { signal })
    return better.cost.hours < first.cost.hours - 0.01 ? better : first
  } catch (error) {
    if (signal.aborted) return first
    throw error
  } finally {
    search = null
  }
}

async function solveAnew(at: Date): Promise<void> {
  const upto = (await readStand(at))?.last ?? 0
  const { shop } = await readShopToPlan(at)
  const first = await inWorker('schedule', { shop, seed: SEED, ...FIRST })
  const firstId = await keep(shop, first, { upto, at })
  if (shop.jobs.length === 0) return
  const best = await betterThan(first, shop)
  const id = best === first ? firstId : await keep(shop, best, { upto, at })
  await keepOutlook(id, shop, best, at)
  const { batches, overload } = await inWorker('proposals', { shop, schedule: best })
  await transaction(async tx => {
    await tx.run('UPDATE schedule SET batches = :batches, overload = :overload WHERE id = :id', {
      ...{ id, batches: JSON.stringify(batches), overload: JSON.stringify(overload) },
    })
    await tell(tx, 'schedule', null, at)
  })
}

/** When pieces are likely and safely ready by this schedule. */
async function keepOutlook(scheduleId: number, shop: PlannedShop, { placed }: Schedule, at: Date): Promise<void> {
  const outlook = await inWorker('lives', { shop, placed, most: LIVES, seed: SEED })
  const day = (ms: number | null) => (ms === null ? null : new Date(ms))
  await transaction(async tx => {
    const there = await tx.rows<{ id: number }>('SELECT id FROM piece WHERE id IN (:ids)', {
      ids: outlook.map(o => o.id),
    })
    const known = new Set(there.map(r => r.id))
    const rows = outlook
      .filter(o => known.has(o.id))
      .map(o => [scheduleId, o.id, day(o.likely_ms), day(o.safe_ms), o.risk, o.runs])
    if (rows.length === 0) return
    await tx.run('INSERT INTO schedule_piece (schedule_id, piece_id, likely_at, safe_at, risk, runs) VALUES :rows', {
      rows,
    })
    await tell(tx, 'schedule', null, at)
  })
}

interface Made {
  upto: number
  at: Date
}
async function keep(shop: PlannedShop, schedule: Solved, { upto, at }: Made): Promise<number> {
  return transaction(async tx => {
    const { cost, tried, missed, unplaced } = schedule
    const { id } = await tx.run(
      `INSERT INTO schedule (made_at, upto, seed, tried, late_h, change_overs, moved, missed, unplaced)
          VALUES (:at, :upto, :seed, :tried, :late_h, :changeOvers, :moved, :missed, :unplaced)`,
      {
        ...{ at, upto, seed: SEED, tried, late_h: cost.hours, changeOvers: cost.changeOvers, moved: cost.moved },
        ...{ missed: JSON.stringify(missed), unplaced: JSON.stringify(unplaced) },
      },
    )
    await keepSteps(tx, id, shop, schedule)
    await tx.run('DELETE FROM schedule WHERE id <= :old', { old: id - KEPT })
    await tell(tx, 'schedule', null, at)
    return id
  })
}

const AT_ONCE = 200
async function keepSteps(tx: Db, scheduleId: number, shop: PlannedShop, schedule: Schedule): Promise<void> {
  const tasks = new Map(shop.jobs.flatMap(j => j.tasks.map(t => [t.id, t] as const)))
  const why = whyHere(shop, schedule)
  const closes = closesOf(shop, schedule.placed)
  const there = new Set(
    (
      await tx.rows<{ id: number }>(
        "SELECT s.id FROM plan_step s JOIN piece ON piece.id = s.piece_id AND piece.state = 'active'",
      )
    ).map(r => r.id),
  )
  const rows = schedule.placed.flatMap(p => {
    const task = tasks.get(p.task)!
    const dry_at = new Date(p.end_ms + task.wet_min * 60_000)
    const closes_ms = closes.get(p.task)
    const was =
      task.last && !task.ifYes && (task.last.start_ms !== p.start_ms || task.last.handId !== p.handId)
        ? task.last
        : null
    return task.steps
      .filter(s => there.has(s.stepId))
      .map(s => [
        ...[scheduleId, p.task, s.stepId, p.jobId, p.handId, p.roomId, p.supportId],
        ...[new Date(p.start_ms), new Date(p.end_ms), dry_at, JSON.stringify(p.parts), task.ifYes],
        ...[JSON.stringify(why.get(p.task) ?? { by: 'hours' }), was && new Date(was.start_ms), was?.handId ?? null],
        closes_ms === undefined ? null : new Date(closes_ms),
      ])
  })
  for (let i = 0; i < rows.length; i += AT_ONCE)
    await tx.run(
      `INSERT INTO schedule_step (
          schedule_id, task, step_id, piece_id, person_id, room_id, place_id, start_at, end_at, dry_at, parts, if_yes,
          why, was_at, was_person_id, closes_at
        )
        VALUES :rows`,
      { rows: rows.slice(i, i + AT_ONCE) },
    )
}
