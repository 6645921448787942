/** What can be promised for a piece: its schedule lived through, part by part, and what would help. */
import { DateTime } from 'luxon'
import type { z } from 'zod'
import { type Change, changed, effects, type Lived, leavesOn, mustLeaveOn, type Placed, shareBy } from '#core/schedule'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import { readActive } from '../bench/active'
import { readFetchDays } from '../shop/rooms'
import { readHours } from '../shop/rows'
import { endOfDay, type PlannedShop, readShopToPlan } from './model'
import { readTitles } from './titles'

/** Lives of one part at most; eight parts are asked for. */
const RUNS = 250

const readPlaced = async (): Promise<Placed[]> =>
  (
    await db().rows<{ task: string; piece_id: number; person_id: number | null; start_at: Date; end_at: Date }>(
      `SELECT DISTINCT task, piece_id, person_id, start_at, end_at
          FROM schedule_step
          WHERE schedule_id = (SELECT MAX(id) FROM schedule)`,
    )
  ).map(r => ({
    ...{ task: r.task, jobId: r.piece_id, handId: r.person_id, roomId: null, supportId: null, parts: [] },
    ...{ start_ms: r.start_at.getTime(), end_ms: r.end_at.getTime() },
  }))

function jobIn(shop: PlannedShop, id: number) {
  const job = shop.jobs.find(j => j.id === id)
  if (!job) throw fail(409, 'not-planned', 'Nothing of it is left to be planned, or it has no plan yet.')
  return job
}

/** Some lives of the shop: on which day the piece leaves in each. The same part gives the same lives. */
export async function promisePart(id: number, { part }: z.infer<typeof s.promiseQuery>, at: Date): Promise<Lived> {
  const [{ shop }, placed, hours, fetchDays] = await Promise.all([
    readShopToPlan(at),
    readPlaced(),
    readHours(),
    readFetchDays(),
  ])
  jobIn(shop, id)
  const ends = await inWorker('livesOfOne', { shop, placed, most: RUNS, seed: part, only: id })
  const counts = new Map<string, number>()
  for (const end_ms of ends) {
    if (!Number.isFinite(end_ms)) continue
    const ready = DateTime.fromMillis(end_ms, { zone: hours.zone }).toISODate()!
    const day = leavesOn(ready, fetchDays, hours.closures)
    counts.set(day, (counts.get(day) ?? 0) + 1)
  }
  return {
    runs: ends.length,
    days: [...counts].map(([day, n]) => ({ day, n })).sort((a, b) => (a.day < b.day ? -1 : 1)),
  }
}

const SEARCH = { within_ms: 700, orders: 2000, seed: 1 }
export interface Help {
  kind: z.infer<typeof s.promiseHelp>['kind']
  /** share of lives in which it leaves by that day, with this help and as it is */
  chance: number
  asItIs: number
  /** what becomes ready later for it, by whole days */
  later: { pieceId: number; piece: string; days: number; late: boolean }[]
}
/** What one kind of help does to the chance of a day; null where there is nothing that it could help with. */
export async function promiseHelp(
  id: number,
  { by, kind }: z.infer<typeof s.promiseHelp>,
  at: Date,
): Promise<{ help: Help | null }> {
  const [{ shop }, hours, fetchDays] = await Promise.all([readShopToPlan(at), readHours(), readFetchDays()])
  const { tasks } = jobIn(shop, id)
  if (kind === 'answered' && !tasks.some(t => t.ifYes)) return { help: null }
  const due_ms = endOfDay(mustLeaveOn(by, fetchDays, hours.closures), hours)
  const changes: Record<typeof kind, Change> = {
    rush: { kind: 'rush', jobId: id, due_ms },
    answered: { kind: 'answered', jobId: id },
    booth: { kind: 'booth' },
    helper: { kind: 'helper' },
  }
  const lived = async (its: PlannedShop) => {
    const schedule = await inWorker('schedule', { shop: its, ...SEARCH })
    const ends = await inWorker('livesOfOne', { shop: its, placed: schedule.placed, most: RUNS, seed: 1, only: id })
    return { schedule, chance: shareBy(ends, due_ms) }
  }
  const [base, tried] = await Promise.all([lived(shop), lived({ ...shop, ...changed(shop, changes[kind]) })])
  const { pieces } = await readTitles((await readActive()).pieces)
  const later = effects(shop, base.schedule, tried.schedule).flatMap(e => {
    const days = Math.round(((e.becomes_ms ?? NaN) - (e.was_ms ?? NaN)) / 86_400_000)
    if (e.id === id || !(days > 0)) return []
    return [{ pieceId: e.id, piece: pieces.get(e.id)?.name ?? '', days, late: e.late_h > 0 }]
  })
  return { help: { kind, chance: tried.chance, asItIs: base.chance, later } }
}
