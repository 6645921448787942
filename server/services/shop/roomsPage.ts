import { readPresence } from './presence'
import { ownAir, readLoggers, readRoomAir } from './roomAir'
import { readFetchDays, readRacks } from './rooms'
import { readHours } from './rows'

/** Rooms with their racks, people with their hours, and the days on which pieces are fetched. */
export async function roomsPage(at: Date) {
  const [rooms, racks, people, fetchDays, hours, loggers] = await Promise.all([
    readRoomAir(at),
    readRacks(),
    readPresence(),
    readFetchDays(),
    readHours(),
    readLoggers(at),
  ])
  return {
    rooms: rooms.map(({ room: r, air, rain }) => ({
      ...{ id: r.id, name: r.name, rowVersion: r.row_version, changeOverMin: r.change_over_min },
      ...{ dust: Boolean(r.dust), wet: Boolean(r.wet), other: Boolean(r.other), outdoors: Boolean(r.outdoors) },
      ...{ oneAtATime: Boolean(r.one_at_a_time), length: r.length_text },
      ...{ volume_m3: r.volume_m3, airChanges_h: r.air_changes_h, logger: r.logger },
      /** of its own, where it has any */
      air: ownAir(r) ? { now: air, rain } : null,
      racks: racks.filter(k => k.room_id === r.id),
    })),
    people,
    fetchDays,
    hours,
    loggers,
  }
}
