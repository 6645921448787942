/** The demo's rooms and racks, and when its people are there. */
import type { Caller } from './caller'

const YARD = {
  ...{ name: 'Yard', dust: true, wet: false, other: false, outdoors: true, changeOverMin: 0 },
}
const RACKS = [
  ['RACK-1', 'rack', 6, '2200'],
  ['RACK-2', 'rack', 6, '2200'],
  ['TRESTLES-1', 'trestles', null, ''],
  ['TRESTLES-2', 'trestles', null, ''],
] as const

interface Rooms {
  rooms: { id: number; name: string; rowVersion: number; changeOverMin: number }[]
  people: { id: number; name: string; rowVersion: number }[]
}
/** A yard for dusty work, racks where coats dry, and a finisher who does not polish and goes early on Fridays. */
export async function furnish(owner: Caller): Promise<void> {
  const page = await owner.get<Rooms>('/api/rooms')
  const coats = page.rooms.find(r => r.name === 'Finishing room')!
  await owner.send('POST', '/api/rooms', YARD)
  for (const [code, kind, area_m2, length] of RACKS)
    await owner.send('POST', '/api/racks', { roomId: coats.id, code, kind, area_m2, length })
  const emil = page.people.find(p => p.name === 'Emil')!
  const day: [number, number][] = [[450, 1020]]
  await owner.send('PUT', `/api/people/${emil.id}/presence`, {
    rowVersion: emil.rowVersion,
    skills: ['strip', 'repair', 'colour', 'spray'],
    week: [day, day, day, day, [[450, 780]], [], []],
    off: [],
  })
}
/** How much air the finishing room has, measured when all that is told of had been done. */
export async function airOfRooms(owner: Caller): Promise<void> {
  const coats = (await owner.get<Rooms>('/api/rooms')).rooms.find(r => r.name === 'Finishing room')!
  const { rowVersion, id: roomId } = coats
  await owner.send('PUT', `/api/rooms/${roomId}`, {
    ...{ rowVersion, name: 'Finishing room', dust: false, wet: true, other: true, changeOverMin: coats.changeOverMin },
    ...{ volume_m3: 110, airChanges_h: 8 },
  })
}
