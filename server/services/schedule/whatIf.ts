/** What one change would do to every piece: worked out beside the schedule as it is, and taken by whoever may. */
import { DateTime } from 'luxon'
import type { z } from 'zod'
import {
  begunFrom,
  type Change,
  changed,
  type Effect,
  effects,
  mustLeaveOn,
  newlyMissed,
  type Schedule,
  type Span,
} from '#core/schedule'
import type { Hours } from '#core/timetable'
import type * as s from '#shared/schemas'
import { db } from '../../database/db'
import { readActive } from '../bench/active'
import { changePiece } from '../plan/wish'
import { changePresence, readPresence } from '../shop/presence'
import type { Person } from '../shop/person'
import { readFetchDays } from '../shop/rooms'
import { readHours } from '../shop/rows'
import { endOfDay, type PlannedShop, readShopToPlan } from './model'
import type { Bar } from './page'
import { readTitles } from './titles'

/** Both are searched for so long, so that they compare. */
const SEARCH = { within_ms: 600, orders: 2000, seed: 1 }
const WEEK_MS = 7 * 86_400_000
type Asked = z.infer<typeof s.whatIf>

const daysOf = (from: string, until: string, { zone }: Hours): Span => [
  DateTime.fromISO(from, { zone }).toMillis(),
  DateTime.fromISO(until, { zone }).plus({ days: 1 }).toMillis(),
]

export interface Effects {
  /** the piece that was asked about; null: none */
  asked: number | null
  pieces: (Effect & { piece: string; dueOn: string | null })[]
  /** hours late of all pieces, before and after */
  wasLate_h: number
  late_h: number
  /** windows that would break: what is to be done in them */
  breaks: { pieceId: number; says: string; what: 'early' | 'late'; by_min: number }[]
  /** it cannot be put there, and would stand elsewhere */
  slipped: boolean
  /** the coming week as it is and as it would be: what somebody does */
  week: { was: Bar[]; then: Bar[] }
}

const solved = (shop: PlannedShop) => inWorker('schedule', { shop, ...SEARCH })
/** With and without it; each is searched on from the other's, so that luck in searching is no effect of the change. */
async function bothSolved(shop: PlannedShop, other: PlannedShop): Promise<[Schedule, Schedule]> {
  const [was, becomes] = await Promise.all([solved(shop), solved(other)])
  const again = await Promise.all([solved(begunFrom(shop, becomes)), solved(begunFrom(other, was))])
  const better = (a: Schedule, b: Schedule) => (b.cost.hours < a.cost.hours ? b : a)
  return [better(was, again[0]), better(becomes, again[1])]
}

async function compared(
  shop: PlannedShop,
  [was, becomes]: [Schedule, Schedule],
  asked: { id: number; by: string } | null,
): Promise<Effects> {
  const found = effects(shop, was, becomes, asked?.id)
  const { pieces, steps } = await readTitles((await readActive()).pieces)
  const at = new Map(shop.jobs.flatMap(j => j.tasks.map(t => [t.id, [j.id, t.steps[0]!.stepId] as const])))
  /** by person only: neither drying nor reasons */
  const weekOf = (its: Schedule): Bar[] =>
    its.placed.flatMap(({ task, jobId, handId, roomId, parts, start_ms, end_ms }) => {
      const [, stepId = 0] = at.get(task) ?? []
      const step = steps.get(stepId)
      if (handId === null || !step || start_ms > shop.now_ms + WEEK_MS) return []
      const { title, state } = step
      return [
        {
          ...{ task, stepId, state, roomId, start_ms, end_ms, pieceId: jobId, titles: [title], personId: handId },
          ...{ parts: parts.map(([from, to]): [number, number] => [from, to]), place: null, closes_ms: null },
          ...{ dry_ms: end_ms, ifYes: false, pinned: false, why: { by: 'hours' as const, says: null }, was: null },
        },
      ]
    })
  const breaks = newlyMissed(was, becomes).flatMap(({ to, what, by_min }) => {
    const [pieceId, stepId] = at.get(to) ?? []
    return pieceId ? [{ pieceId, says: steps.get(stepId!)?.title ?? '', what, by_min: Math.round(by_min) }] : []
  })
  const late = (of: (e: Effect) => number) => found.reduce((sum, e) => sum + of(e), 0)
  return {
    asked: asked?.id ?? null,
    pieces: found.map(e => {
      const piece = pieces.get(e.id)
      return { ...e, piece: piece?.name ?? '', dueOn: e.id === asked?.id ? asked.by : (piece?.due_on ?? null) }
    }),
    ...{ wasLate_h: late(e => e.wasLate_h), late_h: late(e => e.late_h), breaks },
    slipped: becomes.slipped.some(t => !was.slipped.includes(t)),
    week: { was: weekOf(was), then: weekOf(becomes) },
  }
}
const refused = (work: () => PlannedShop): PlannedShop => {
  try {
    return work()
  } catch (e) {
    throw e instanceof RangeError ? fail(409, 'not-planned', `${e.message} It is worked out in a moment.`) : e
  }
}

/** @throws Fail 409 for a piece or a person that the schedule does not have. */
export async function whatIf(asked: Asked, at: Date): Promise<Effects> {
  const hours = await readHours()
  const { shop } = await readShopToPlan(at)
  if (asked.kind === 'wet') {
    const wet = await readShopToPlan(at, daysOf(asked.from, asked.until, hours))
    return compared(shop, await bothSolved(shop, wet.shop), null)
  }
  if (asked.kind === 'rush') {
    const due_ms = endOfDay(mustLeaveOn(asked.by, await readFetchDays(), hours.closures), hours)
    return tried(shop, { kind: 'rush', jobId: asked.pieceId, due_ms }, { id: asked.pieceId, by: asked.by })
  }
  if (asked.kind === 'booth') return tried(shop, asked)
  return tried(shop, { kind: 'away', handId: asked.personId, span: daysOf(asked.from, asked.until, hours) })
}

async function tried(
  shop: PlannedShop,
  change: Change,
  asked: { id: number; by: string } | null = null,
): Promise<Effects> {
  const other = refused(() => ({ ...shop, ...changed(shop, change) }))
  return compared(other, await bothSolved(shop, other), asked)
}

/** What holding a step there would do; nothing is held yet. */
export async function tryPin(id: number, input: z.infer<typeof s.pinStep>, at: Date): Promise<Effects> {
  if (new Date(input.startsAt) < at) throw fail(422, 'past', 'That has passed.', { startsAt: 'That has passed.' })
  const { shop } = await readShopToPlan(at)
  const task = shop.jobs.flatMap(j => j.tasks).find(t => t.steps.some(step => step.stepId === id))
  if (!task) throw fail(409, 'not-planned', 'It is not in this schedule. It is worked out in a moment.')
  const pin = { start_ms: new Date(input.startsAt).getTime(), handId: input.personId, roomId: input.roomId }
  return tried(shop, { kind: 'pin', task: task.id, pin })
}

/** The right that each asks for by itself. */
const NEEDS = { rush: 'take-in', away: 'people' } as const
export async function takeChange(asked: z.infer<typeof s.takeChange>, by: Person, at: Date): Promise<{ ok: true }> {
  if (!by.rights.has(NEEDS[asked.kind]))
    throw fail(403, 'forbidden', 'Somebody with the right to do that must take it.')
  if (asked.kind === 'rush') {
    const piece = await db().row<{ row_version: number }>('SELECT row_version FROM piece WHERE id = :id', {
      id: asked.pieceId,
    })
    if (!piece) throw notFound('piece')
    await changePiece(asked.pieceId, { rowVersion: piece.row_version, dueOn: asked.by, goesFirst: true }, by, at)
  }
  if (asked.kind === 'away') {
    const person = (await readPresence()).find(p => p.id === asked.personId)
    if (!person) throw notFound('person')
    const { rowVersion, skills, week, off } = person
    const days = Array.from({ length: 7 }, (_, i) => week?.[i + 1] ?? [])
    const fresh = { from: asked.from, until: asked.until, why: 'away' }
    const kept = off.filter(o => o.from !== asked.from)
    await changePresence(
      asked.personId,
      { rowVersion, skills, week: week ? days : null, off: [...kept, fresh] },
      by,
      at,
    )
  }
  return { ok: true }
}
