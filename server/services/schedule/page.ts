import { DateTime } from 'luxon'
import type { z } from 'zod'
import { type Batch, leavesOn, type Missed, type Overload, type Schedule, type Why } from '#core/schedule'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import { readActive } from '../bench/active'
import { readPresence } from '../shop/presence'
import { readFetchDays, readRooms } from '../shop/rooms'
import { AHEAD_H } from '../shop/page'
import { readHours } from '../shop/rows'
import { airSpans, readAhead } from './ahead'
import { isDue, searched } from './solve'
import { readTitles, type Titled } from './titles'

interface ScheduleRow {
  id: number
  made_at: Date
  missed: Missed[]
  unplaced: Schedule['unplaced']
  moved: number
  batches: Batch[] | null
  overload: Overload | null
}
interface StepRow {
  task: string
  step_id: number
  piece_id: number
  person_id: number | null
  room_id: number | null
  place: string | null
  start_at: Date
  end_at: Date
  dry_at: Date
  parts: [number, number][]
  if_yes: 0 | 1
  why: Why
  was_at: Date | null
  was_person_id: number | null
  closes_at: Date | null
  pinned: 0 | 1
}
/** One task of the schedule: one step, or those that one window ties. */
export interface Bar {
  task: string
  pieceId: number
  titles: string[]
  stepId: number
  state: string
  personId: number | null
  roomId: number | null
  place: string | null
  parts: [number, number][]
  start_ms: number
  end_ms: number
  /** until when it is wet */
  dry_ms: number
  /** when the window in which it must begin closes; null: nothing presses */
  closes_ms: number | null
  ifYes: boolean
  pinned: boolean
  why: { by: Why['by']; says: string | null }
  /** where the schedule before had it; null: there */
  was: { start_ms: number; personId: number | null } | null
}
interface PieceLine {
  pieceId: number
  piece: string
  dueOn: string | null
  /** by the schedule, with safe waits; null: nothing of it is placed */
  ready_ms: number | null
  /** the first day after that on which pieces leave */
  leavesOn: string | null
  late: boolean
  /** where nothing is sure: ready in half of all lives, in nine of ten; share of lives in which it is late */
  likely_ms: number | null
  safe_ms: number | null
  risk: number | null
  /** something of it hangs on a word */
  held: boolean
  /** steps that have no place, and why */
  unplaced: { says: string; why: Schedule['unplaced'][number]['why'] }[]
}

const readSteps = (scheduleId: number) =>
  db().rows<StepRow>(
    `SELECT s.task, s.step_id, s.piece_id, s.person_id, s.room_id, place.code AS place, s.start_at, s.end_at, s.dry_at,
        s.parts, s.if_yes, s.why, s.was_at, s.was_person_id, s.closes_at,
        step_pin.step_id IS NOT NULL AS pinned
        FROM schedule_step s
        LEFT JOIN place ON place.id = s.place_id
        LEFT JOIN step_pin ON step_pin.step_id = s.step_id
        WHERE s.schedule_id = :scheduleId
        ORDER BY s.start_at, s.task, s.step_id`,
    { scheduleId },
  )

export interface OutlookRow {
  piece_id: number
  likely_at: Date | null
  safe_at: Date | null
  risk: number | null
}
/** Likely and safe dates by the newest schedule that was lived through, by piece. */
export const readOutlook = async (): Promise<ReadonlyMap<number, OutlookRow>> =>
  new Map(
    (
      await db().rows<OutlookRow>(
        `SELECT piece_id, likely_at, safe_at, risk
            FROM schedule_piece
            WHERE schedule_id = (SELECT MAX(schedule_id) FROM schedule_piece)`,
      )
    ).map(r => [r.piece_id, r]),
  )

function barsOf(rows: readonly StepRow[], steps: ReadonlyMap<number, Titled>): Map<string, Bar> {
  const bars = new Map<string, Bar>()
  for (const r of rows) {
    const its = steps.get(r.step_id)
    // done or left out since it was scheduled
    if (!its || its.state === 'done' || its.state === 'skipped') continue
    const known = bars.get(r.task)
    if (known) {
      known.titles.push(its.title)
      continue
    }
    bars.set(r.task, {
      ...{ task: r.task, pieceId: r.piece_id, stepId: r.step_id, titles: [its.title], state: its.state },
      ...{ personId: r.person_id, roomId: r.room_id, place: r.place, parts: r.parts },
      ...{ start_ms: r.start_at.getTime(), end_ms: r.end_at.getTime(), dry_ms: r.dry_at.getTime() },
      closes_ms: r.closes_at?.getTime() ?? null,
      ...{ ifYes: Boolean(r.if_yes), pinned: Boolean(r.pinned), why: { by: r.why.by, says: null } },
      was: r.was_at && { start_ms: r.was_at.getTime(), personId: r.was_person_id },
    })
  }
  for (const r of rows) {
    const bar = bars.get(r.task)
    const other = 'task' in r.why ? bars.get(r.why.task) : undefined
    if (bar && other) bar.why = { by: r.why.by, says: `${other.pieceId}: ${other.titles[0]}` }
  }
  return bars
}

/** A week of the schedule, or all of it, with each piece's day. */
export async function timetablePage(
  { from }: z.infer<typeof s.timetableQuery>,
  at: Date,
  much: 'week' | 'all' = 'week',
) {
  const [{ pieces: active, unreadable }, hours, people, rooms, fetchDays, due, outlook] = await Promise.all([
    readActive(),
    readHours(),
    readPresence(),
    readRooms(),
    readFetchDays(),
    isDue(at),
    readOutlook(),
  ])
  const made = await db().row<ScheduleRow>(
    `SELECT id, made_at, missed, unplaced, moved, batches, overload
        FROM schedule
        WHERE id = (SELECT MAX(id) FROM schedule)`,
  )
  const { steps, pieces, strange } = await readTitles(active)
  const bars = [...barsOf(made ? await readSteps(made.id) : [], steps).values()]
  const today = DateTime.fromJSDate(at, { zone: hours.zone }).startOf('day')
  const first = from ? DateTime.fromISO(from, { zone: hours.zone }) : today
  const [begin, end] = [first.toMillis(), first.plus({ days: 7 }).toMillis()]
  const air = await readAhead({ at, hours, rooms, wet: null, until_ms: end })
  const byTask = new Map(bars.map(b => [b.task, b]))
  /** windows that what is begun or held by hand does not keep */
  const missed = (made?.missed ?? []).flatMap(({ to, what, by_min }) => {
    const bar = byTask.get(to)
    return bar && bar.state === 'planned'
      ? [{ task: to, pieceId: bar.pieceId, says: bar.titles[0]!, what, by_min: Math.round(by_min) }]
      : []
  })
  const batches = (made?.batches ?? []).flatMap(({ tasks, ...b }) => {
    const its = tasks.flatMap(({ task, start_ms }) => {
      const bar = byTask.get(task)
      return bar && bar.state === 'planned' && !bar.pinned && start_ms >= at.getTime()
        ? [{ stepId: bar.stepId, pieceId: bar.pieceId, says: bar.titles[0]!, start_ms }]
        : []
    })
    return its.length === tasks.length ? [{ ...b, steps: its }] : []
  })
  return {
    moved: made?.moved ?? 0,
    ...{ missed, batches, overload: made?.overload ?? null },
    /** from then on the air is what was usual at each hour, not foretold */
    usualAirFrom_ms: at.getTime() + AHEAD_H * 3_600_000,
    ...{
      now_ms: at.getTime(),
      from: first.toISODate()!,
      hours,
      working: due,
      /** how much of the search for a better one is through; null: none is under way */
      searched: searched(),
      made_ms: made?.made_at.getTime() ?? null,
    },
    people: people.map(({ id, name, week, off }) => ({ id, name, week, off })),
    rooms: rooms.map(r => ({ id: r.id, name: r.name, air: r.wet ? airSpans(r, air, [begin, end]) : [] })),
    bars: much === 'all' ? bars : bars.filter(b => b.start_ms < end && Math.max(b.end_ms, b.dry_ms) > begin),
    pieces: [...pieces.values()].map((p): PieceLine => {
      const its = bars.filter(b => b.pieceId === p.id)
      const ready_ms = its.length ? Math.max(...its.map(b => b.end_ms)) : null
      const ready = ready_ms === null ? null : DateTime.fromMillis(ready_ms, { zone: hours.zone }).toISODate()!
      const leaves = ready && leavesOn(ready, fetchDays, hours.closures)
      const look = outlook.get(p.id)
      const without = (made?.unplaced ?? []).filter(u => u.jobId === p.id)
      return {
        ...{ pieceId: p.id, piece: p.name, dueOn: p.due_on, ready_ms, held: its.some(b => b.ifYes) },
        ...{ leavesOn: leaves, risk: look?.risk ?? null },
        ...{ likely_ms: look?.likely_at?.getTime() ?? null, safe_ms: look?.safe_at?.getTime() ?? null },
        late: p.due_on !== null && leaves !== null && leaves > p.due_on,
        unplaced: without.flatMap(u => {
          const its = steps.get(Number.parseInt(u.task, 10))
          return its && its.state === 'planned' ? [{ says: its.title, why: u.why }] : []
        }),
      }
    }),
    unreadable: [...unreadable, ...strange],
  }
}
