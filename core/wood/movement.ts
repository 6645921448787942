/** How far wood moves with the seasons, and the filler that stands it. Widths in mm. */
import type { Air } from '../air'
import { equilibriumMoisture_pct } from './moisture'
import { movementOf } from './species'

/** The client's room: its driest and dampest season, at one temperature. */
export interface Room {
  temperature_C: number
  dryRh: number
  humidRh: number
}
/** A heated house in a cold climate. Shop default, unsourced; ask the client. */
export const USUAL_ROOM: Room = { temperature_C: 21, dryRh: 0.28, humidRh: 0.6 }
/** A rigid filler stands a swing of about 1 to 2 % of the gap (common practice); the middle is taken. */
export const RIGID_STANDS = 0.015

/**
 * Change of width, mm, from one moisture to another: ΔD = D·C·(end − start). Wood Handbook table 13-5, from memory;
 * meant for 6–14 %.
 */
export const movement_mm = (width_mm: number, coefficient: number, start_pct: number, end_pct: number): number =>
  width_mm * coefficient * (end_pct - start_pct)

const seasonAir = (room: Room, rh: number): Air => ({ temperature_C: room.temperature_C, rh })

export interface CrackAdvice {
  swing_mm: number
  gap_mm: number
  share: number
  filler: 'rigid' | 'stretching'
  board_mm: number
  dry_pct: number
  humid_pct: number
  coefficient: number
  assumed: boolean
}

/**
 * Seasonal swing of a board of `board_mm` across the grain, tangential (the larger), against the gap of its crack.
 * @throws RangeError when board or gap is not above zero.
 */
export function crackAdvice(input: {
  species: string
  board_mm: number
  gap_mm: number
  room: Room
  cut?: 'tangential' | 'radial'
}): CrackAdvice {
  const { species, board_mm, gap_mm, room, cut = 'tangential' } = input
  if (!(board_mm > 0) || !(gap_mm > 0))
    throw new RangeError('A crack needs the width of its board and of its gap, both above zero.')
  const moves = movementOf(species)
  const dry_pct = equilibriumMoisture_pct(seasonAir(room, room.dryRh))
  const humid_pct = equilibriumMoisture_pct(seasonAir(room, room.humidRh))
  const swing_mm = movement_mm(board_mm, moves[cut], dry_pct, humid_pct)
  const share = swing_mm / gap_mm
  return {
    swing_mm,
    gap_mm,
    share,
    filler: share > RIGID_STANDS ? 'stretching' : 'rigid',
    board_mm,
    dry_pct,
    humid_pct,
    coefficient: moves[cut],
    assumed: moves.assumed,
  }
}
