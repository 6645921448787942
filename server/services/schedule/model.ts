/** The shop as it is to be scheduled: people, rooms, and the open steps of every piece in work. */
import { DateTime } from 'luxon'
import { rainSpans } from '#core/air'
import { does, makesDust, type Step } from '#core/acts'
import type { Material } from '#core/materials'
import {
  airNeeds,
  jobOf,
  longestStretch_min,
  mustLeaveOn,
  type PlannedJob,
  presentSpans,
  type Room,
  RUSH_WEIGHT,
  type Said,
  type Shop,
  type Span,
  type Work,
} from '#core/schedule'
import type { GateRecord } from '#core/plan'
import { closingOf, type Hours } from '#core/timetable'
import { db } from '../../database/db'
import { type Active, readActive, readAsActive } from '../bench/active'
import type { Unreadable } from '../piece/rows'
import { readGateRecord } from '../plan/asking'
import { readable } from '../platform/readable'
import { readAir } from '../shop/air'
import { readPaces } from '../shop/paces'
import { readPresence } from '../shop/presence'
import { type RackRow, readFetchDays, readRacks, readRooms, type RoomRow } from '../shop/rooms'
import { readHours } from '../shop/rows'
import { type Ahead, closedIn, type Needs, readAhead } from './ahead'
import { failingGates } from './failing'

const DAY_MS = 86_400_000
const HOUR_MS = 3_600_000
/** Nothing is placed further ahead. */
const AHEAD_D = 240
/** So long a client usually takes to answer (shop default, unsourced). */
const ANSWER_D = 2

export interface PlannedShop extends Shop {
  jobs: PlannedJob[]
}
export interface ShopToPlan {
  shop: PlannedShop
  unreadable: Unreadable[]
}

interface Last {
  task: string
  start_at: Date
  person_id: number | null
  room_id: number | null
  place_id: number | null
}
interface PinRow {
  step_id: number
  start_at: Date
  person_id: number | null
  room_id: number | null
}
async function readSaid(): Promise<Map<number, Said>> {
  const [last, pins] = await Promise.all([
    db().rows<Last>(
      `SELECT task, start_at, person_id, room_id, place_id
          FROM schedule_step
          WHERE schedule_id = (SELECT MAX(id) FROM schedule) AND task NOT LIKE '%/%'`,
    ),
    db().rows<PinRow>('SELECT step_id, start_at, person_id, room_id FROM step_pin'),
  ])
  const said = new Map<number, Said>()
  for (const { task, start_at, ...at } of last)
    said.set(Number(task), {
      pin: null,
      last: { start_ms: start_at.getTime(), handId: at.person_id, roomId: at.room_id, supportId: at.place_id },
    })
  for (const { step_id, start_at, person_id, room_id } of pins)
    said.set(step_id, {
      pin: { start_ms: start_at.getTime(), handId: person_id, roomId: room_id },
      last: said.get(step_id)?.last ?? null,
    })
  return said
}

function roomOf(room: RoomRow, racks: readonly RackRow[], needs: Needs, ahead: Ahead): Room {
  return {
    id: room.id,
    allows: { dust: Boolean(room.dust), wet: Boolean(room.wet), other: Boolean(room.other) },
    changeOver_min: room.change_over_min,
    oneAtATime: Boolean(room.one_at_a_time),
    supports: racks
      .filter(k => k.room_id === room.id)
      .map(k => ({ id: k.id, area_m2: k.area_m2, length_mm: k.length_mm })),
    closedTo: closedIn(room, needs, ahead),
    shut: room.outdoors ? [...rainSpans(ahead.outdoors), ...(ahead.wet ? [ahead.wet] : [])] : [],
  }
}

/** When a day's work ends, or the day itself where the shop is closed. */
export function endOfDay(day: string, hours: Hours): number {
  const start = DateTime.fromISO(day, { zone: hours.zone })
  return closingOf(hours, start.toMillis()) ?? start.endOf('day').toMillis()
}

/**
 * @param at the server's moment
 * @param also a piece that is not in work yet, planned with the others
 * @param wet a time in which it rains: nothing is done outdoors, and the air indoors is damp
 */
export async function readShopToPlan(
  at: Date,
  wet: Span | null = null,
  also: number | null = null,
): Promise<ShopToPlan> {
  const now_ms = at.getTime()
  const until_ms = now_ms + AHEAD_D * DAY_MS
  const [active, guest, hours, people, rooms, racks, fetchDays, said, record] = await Promise.all([
    readActive(),
    also === null ? null : readAsActive(also),
    readHours(),
    readPresence(),
    readRooms(),
    readRacks(),
    readFetchDays(),
    readSaid(),
    readGateRecord(),
  ])
  const [ahead, { air }, paceOf] = await Promise.all([
    readAhead({ at, hours, rooms, wet, until_ms }),
    readAir(at),
    readPaces(at),
  ])
  const pace = (of: Work) => paceOf(of).factor
  const makesOf = (step: Step) => {
    if (does(step, 'lingers')) return 'wet' as const
    return makesDust(step) ? ('dust' as const) : ('other' as const)
  }
  const day = {
    now_ms,
    longest_min: longestStretch_min(hours),
    roomOf: (step: Step) => rooms.find(r => r[makesOf(step)] && !(does(step, 'lingers') && r.outdoors))?.id ?? null,
  }
  const needs = new Map<string, Material>()
  const jobs: PlannedJob[] = []
  const strange: Unreadable[] = []
  for (const piece of guest ? [...active.pieces, guest] : active.pieces) {
    if (!piece.plan) continue
    const { id, name } = piece.file.piece
    const job = readable(id, name, () => {
      for (const [key, product] of airNeeds(piece.plan!.steps, piece.file.context.shelf)) needs.set(key, product)
      return jobOf(pieceToPlan(piece, { at, hours, said, air, pace, fetchDays, record }), day)
    })
    if ('why' in job) strange.push(job)
    else if (job.tasks.length > 0) jobs.push(job)
  }
  return {
    shop: {
      ...{ now_ms, until_ms, jobs },
      hands: people.map(({ id, skills, week, off }) => ({
        id,
        skills: skills.length ? new Set(skills) : null,
        spans: presentSpans(hours, { week, off }, now_ms - (now_ms % HOUR_MS), until_ms),
      })),
      rooms: rooms.map(r => roomOf(r, racks, needs, ahead)),
    },
    unreadable: [...active.unreadable, ...strange],
  }
}

interface Around {
  at: Date
  hours: Hours
  said: ReadonlyMap<number, Said>
  air: Parameters<typeof jobOf>[0]['air']
  pace: (of: Work) => number
  fetchDays: readonly number[]
  record: Readonly<Record<string, GateRecord>>
}
function pieceToPlan(
  piece: Active,
  { at, hours, said, air, pace, fetchDays, record }: Around,
): Parameters<typeof jobOf>[0] {
  const { file, plan } = piece
  const { id, due_on } = file.piece
  return {
    ...{ id, weight: file.piece.goes_first ? RUSH_WEIGHT : 1, steps: plan!.steps, waits: plan!.waits, said, air, pace },
    due_ms: due_on === null ? null : endOfDay(mustLeaveOn(due_on, fetchDays, hours.closures), hours),
    context: file.context,
    answer_ms: at.getTime() + ANSWER_D * DAY_MS,
    failing: failingGates(piece, { hours, record, now_ms: at.getTime() }),
  }
}
