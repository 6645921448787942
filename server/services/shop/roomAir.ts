/** The air of each room: by a logger of its own, outdoors by the weather, else that of the shop. */
import { type Air, inRain, rainSpans } from '#core/air'
import { db, type Db } from '../../database/db'
import { addAir, type AirNow, BY_HAND, readAir } from './air'
import type { Person } from './person'
import { readRooms, type RoomRow } from './rooms'
import { NO_WEATHER, readWeather } from './weather'

export type RoomNow = { room: RoomRow; air: Air | null; rain: Rain | null }
/** Outdoors: when it rains next, or until when, as it is foretold; null: not as far as anybody knows. */
export interface Rain {
  next: { from_ms: number; to_ms: number } | null
  simulated: boolean
}
/** Has it air of its own, or that of the shop? */
export const ownAir = ({ logger, outdoors }: RoomRow): boolean => Boolean(logger || outdoors)

export async function readRoomAir(at: Date, on: Db = db()): Promise<RoomNow[]> {
  const rooms = await readRooms(on)
  const shop = await readAir(at, on)
  const outdoors = rooms.some(r => r.outdoors && !r.logger) ? await readWeather(at, on) : NO_WEATHER
  const loggers = new Map<string, AirNow>([['', shop]])
  for (const { logger } of rooms) if (!loggers.has(logger)) loggers.set(logger, await readAir(at, on, logger))
  const [hour] = outdoors.hours
  const [next] = rainSpans(outdoors.hours)
  const rain = hour ? { next: next ? { from_ms: next[0], to_ms: next[1] } : null, simulated: outdoors.simulated } : null
  return rooms.map(room => {
    if (!room.outdoors || room.logger) return { room, air: loggers.get(room.logger)!.air, rain: null }
    return { room, air: hour ? inRain(hour).air : null, rain }
  })
}

/**
 * The air in which a step is done: of the room in which the newest schedule has it, else of the first indoors where
 * coats dry.
 */
export async function readStepAir(
  at: Date,
  on: Db = db(),
  known?: readonly RoomNow[],
): Promise<(stepId: number) => Air | null> {
  const rooms = known ?? (await readRoomAir(at, on))
  const usual = rooms.find(r => r.room.wet && !r.room.outdoors) ?? rooms[0]!
  if (!rooms.some(r => ownAir(r.room))) return () => usual.air
  const placed = await on.rows<{ step_id: number; room_id: number }>(
    `SELECT DISTINCT step_id, room_id
        FROM schedule_step
        WHERE schedule_id = (SELECT MAX(id) FROM schedule) AND room_id IS NOT NULL`,
  )
  const roomOf = new Map(placed.map(p => [p.step_id, rooms.find(r => r.room.id === p.room_id)]))
  return stepId => (roomOf.get(stepId) ?? usual).air
}

/** @throws Fail 422 for a room without a logger: its air is that of the shop, or the weather. */
export async function addAirByHand(air: Air, roomId: number | null, at: Date, by: Person): Promise<void> {
  const room = roomId === null ? undefined : (await readRooms()).find(r => r.id === roomId)
  if (roomId !== null && !room) throw notFound('room')
  if (room && !room.logger)
    throw fail(422, 'no-logger', `${room.name} has no logger of its own; read the air of the shop.`)
  await addAir(air, BY_HAND, at, by, room)
}

/** Loggers that were heard of within four weeks. */
export const readLoggers = async (at: Date, on: Db = db()): Promise<string[]> =>
  (
    await on.rows<{ logger: string }>(
      "SELECT DISTINCT logger FROM climate_reading WHERE logger <> '' AND at > :at - INTERVAL 28 DAY ORDER BY logger",
      { at },
    )
  ).map(r => r.logger)
