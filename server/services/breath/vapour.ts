/** What the air of a room says to solvent work that begins in it now, with all that gives off there already. */
import { MATERIALS, passesCartridges, type Shelf, taken } from '#core/materials'
import {
  airVerdict,
  askForFire,
  burns,
  dilution,
  FLASH_MIN,
  mixtureOf,
  type Source,
  supplyOf,
  THEN,
} from '#core/vapour'
import { db, type Db } from '../../database/db'
import { readRooms, type RoomRow } from '../shop/rooms'
import { readLooked } from './ignition'
import { type OwnLimits, readLimits } from './limits'

interface Laid {
  id: number
  product: string | null
  label: number | null
  amount_ml: number | null
  attended_min: number
}
export interface VapourSays {
  /** it must not begin */
  stops: boolean
  /** a look for flames is wanted, which Now asks for once for the room */
  fire: boolean
  says: string
}
export type VapourOf = (step: Laid & { fields: object }, shelf: Shelf) => VapourSays[]

export function sourceOf(step: Laid & { fields: object }, shelf: Shelf): Source | null {
  const material = step.product ? taken(shelf, step) : null
  const mass_g = material && step.amount_ml ? (step.amount_ml / 1000) * material.voc_g_l : 0
  return material && mass_g > 0
    ? {
        ...{ mass_g, minutes: step.attended_min + FLASH_MIN, mixture: mixtureOf(material) },
        passesCartridges: passesCartridges(material),
      }
    : null
}
/** Running, or laid so short a while ago that it still gives off. */
const readWet = (on: Db, at: Date) =>
  on.rows<Laid>(
    `SELECT id, product, label_id AS label, amount_ml, attended_min
        FROM plan_step
        WHERE product IS NOT NULL AND amount_ml IS NOT NULL
          AND started_at <= :at
          AND (
            state = 'running'
            OR (state = 'done' AND finished_at BETWEEN :at - INTERVAL ${FLASH_MIN} MINUTE AND :at)
          )`,
    { at },
  )
/** In which room a step is done: where the timetable has it, else where coats are laid. */
export async function readRoomOf(rooms: readonly RoomRow[], on: Db): Promise<(stepId: number) => RoomRow | undefined> {
  const usual = rooms.find(r => r.wet && !r.outdoors) ?? rooms[0]
  const placed = await on.rows<{ step_id: number; room_id: number }>(
    `SELECT DISTINCT step_id, room_id
        FROM schedule_step
        WHERE schedule_id = (SELECT MAX(id) FROM schedule) AND room_id IS NOT NULL`,
  )
  const roomIds = new Map(placed.map(p => [p.step_id, p.room_id]))
  return id => rooms.find(r => r.id === roomIds.get(id)) ?? usual
}
/** What the air of its room, and whoever looked for flames there, say to solvent work. */
export async function readVapour(at: Date, on: Db = db(), known?: readonly RoomRow[]): Promise<VapourOf> {
  const rooms = known ?? (await readRooms(on))
  const roomOf = await readRoomOf(rooms, on)
  const looked = await readLooked(at, on)
  const own = await readLimits(on)
  // what this program does not know of one piece breaks no start of another
  const wet = (await readWet(on, at)).filter(w => MATERIALS.some(m => m.slug === w.product))
  return (step, shelf) => {
    const room = roomOf(step.id)
    const source = sourceOf(step, shelf)
    if (!source || !room || room.outdoors) return []
    const beside = wet.filter(w => w.id !== step.id && roomOf(w.id) === room)
    const others = beside.flatMap(w => sourceOf({ ...w, fields: {} }, shelf) ?? [])
    const air = airSays(room, [source, ...others], own)
    const fire =
      burns(source) && !looked.has(room.id) ? [{ stops: false, fire: true, says: askForFire(room.name) }] : []
    return [...air, ...fire]
  }
}
/** Where the look for flames is asked for beside. */
export const withoutFire =
  (vapourOf: VapourOf): VapourOf =>
  (step, shelf) =>
    vapourOf(step, shelf).filter(v => !v.fire)
/** Where the room's air is not known, nothing is said of it. */
function airSays(room: RoomRow, sources: readonly Source[], own: OwnLimits): VapourSays[] {
  const supply = supplyOf({ volume_m3: room.volume_m3, airChanges_h: room.air_changes_h })
  if (supply === null) return []
  const wanted = dilution(sources, 'usual', own)
  const verdict = airVerdict(wanted, supply)
  if (verdict === 'fine' || verdict === 'unknown') return []
  /** What there is, rounded down, and what is wanted, rounded up. */
  const step = (n: number) => (n < 100 ? 1 : 10)
  const there = (Math.floor(supply / step(supply)) * step(supply)).toLocaleString('en-GB')
  const m3 = (n: number) => (Math.ceil(n / step(n)) * step(n)).toLocaleString('en-GB')
  const n = sources.length - 1
  const also = n > 0 ? `, with ${n} other${n > 1 ? 's' : ''} at work or just laid there` : ''
  const wants =
    verdict === 'never'
      ? `${m3(wanted.explosive_m3_h)} so that nothing can burn`
      : `${m3(wanted.exposure_m3_h)} for lungs`
  const says = `${room.name}: ${there} m³ of air an hour, wanted ${wants}${also}. ${THEN[verdict]}`
  return [{ stops: verdict === 'never', fire: false, says }]
}
