/** The air that planned work wants in its room, with all that the timetable puts beside it. */
import { airVerdict, dilution, FLASH_MIN, type Source, supplyOf } from '#core/vapour'
import { db } from '../../database/db'
import { readActive } from '../bench/active'
import { readLimits } from './limits'
import { sourceOf } from './vapour'

interface Placed {
  step_id: number
  piece_id: number
  room_id: number | null
  room: string | null
  volume_m3: number | null
  air_changes_h: number | null
  outdoors: 0 | 1 | null
  start_at: Date
  end_at: Date
}
interface Work extends Placed {
  title: string
  source: Source
  until_ms: number
}
const MINUTE_MS = 60_000
/** Every solvent step that the timetable has put somewhere, with what it gives off. */
async function readWork(): Promise<Work[]> {
  const placed = await db().rows<Placed>(
    `SELECT ss.step_id, ss.piece_id, ss.room_id, room.name AS room, room.volume_m3, room.air_changes_h, room.outdoors,
        MIN(ss.start_at) AS start_at, MAX(ss.end_at) AS end_at
        FROM schedule_step ss
        LEFT JOIN room ON room.id = ss.room_id
        WHERE ss.schedule_id = (SELECT MAX(id) FROM schedule)
        GROUP BY ss.step_id, ss.piece_id, ss.room_id, room.name, room.volume_m3, room.air_changes_h, room.outdoors`,
  )
  const { pieces } = await readActive()
  const files = new Map(pieces.map(p => [p.file.piece.id, p]))
  return placed.flatMap(p => {
    const active = files.get(p.piece_id)
    const step = active?.plan?.steps.find(st => st.id === p.step_id)
    if (!active || !step) return []
    const source = sourceOf(step, active.file.context.shelf)
    if (!source) return []
    return [{ ...p, title: step.title, source, until_ms: p.end_at.getTime() + FLASH_MIN * MINUTE_MS }]
  })
}
const beside = (a: Work, b: Work) =>
  a !== b && a.room_id === b.room_id && a.start_at.getTime() < b.until_ms && b.start_at.getTime() < a.until_ms

/** Of one piece, in the order of the timetable. */
export async function pieceAir(id: number) {
  const [work, own] = [await readWork(), await readLimits(db())]
  return work
    .filter(x => x.piece_id === id && !x.outdoors)
    .sort((a, b) => a.start_at.getTime() - b.start_at.getTime())
    .map(x => {
      const others = work.filter(o => beside(x, o))
      const wanted = dilution(
        [x, ...others].map(o => o.source),
        'usual',
        own,
      )
      const supply = supplyOf({ volume_m3: x.volume_m3, airChanges_h: x.air_changes_h })
      return {
        ...{ stepId: x.step_id, title: x.title, room: x.room, mass_g: x.source.mass_g, at: x.start_at },
        ...{ exposure_m3_h: wanted.exposure_m3_h, explosive_m3_h: wanted.explosive_m3_h, supply_m3_h: supply },
        verdict: airVerdict(wanted, supply),
        beside: others.map(o => `${o.piece_id} ${o.title}`),
      }
    })
}
