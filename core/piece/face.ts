/** Faces: what is worked on, and how much there is of it. */
import { type Shape, sumOf } from '../units'

export const WOODEN = ['solid', 'veneer'] as const
export const NOT_WOOD = ['iron', 'brass', 'cane', 'glass', 'leather', 'upholstery'] as const
export const SUBSTRATES = [...WOODEN, ...NOT_WOOD] as const
export type Substrate = (typeof SUBSTRATES)[number]
export const isWooden = (substrate: Substrate): substrate is (typeof WOODEN)[number] =>
  substrate === 'solid' || substrate === 'veneer'

export interface Face {
  id: number
  part: string
  name: string
  /** what is done with it; "other": it is worked, and is no wood */
  scope: 'refinish' | 'protect' | 'match' | 'other'
  rank: 'show' | 'secondary' | 'hidden'
  shape: Shape
  orientation: 'horizontal' | 'vertical'
  length_mm: number
  /** a turned face's mean diameter */
  width_mm: number
  copies: number
  /** all copies together */
  area_m2: number
  species: string
  substrate: Substrate
  /** as measured; null: not measured */
  veneer_mm: number | null
  /** film that was found on it, by the gauge; null: not measured */
  film_um: number | null
  /** faces of one letter carry one finish */
  finishGroup: string
}

/** Vertical 1.15, profiled 1.6, turned 2.2, carved 3 (shop default, unsourced). */
export const faceFactor = (face: Face): number =>
  ({ flat: 1, oval: 1, profiled: 1.6, turned: 2.2, carved: 3 })[face.shape] *
  (face.orientation === 'vertical' ? 1.15 : 1)

/** Area weighted with shape and position, m². */
export const workArea_m2 = (faces: readonly Face[]): number => sumOf(faces, f => f.area_m2 * faceFactor(f))

/** End to end, m: what lies flat of each part, its longest face in all its copies. Space to find before the work. */
export const laidOut_m = (faces: readonly Face[]): number => {
  const flat = faces.filter(f => f.orientation === 'horizontal' && (f.shape === 'flat' || f.shape === 'oval'))
  const longest = (part: string) => Math.max(...flat.filter(f => f.part === part).map(f => f.length_mm * f.copies))
  return sumOf([...new Set(flat.map(f => f.part))], longest) / 1000
}

/** Parts beside the largest one: what is taken off before the work and put back after it. */
export const partsToTakeOff = (faces: readonly Face[]): number => Math.max(0, new Set(faces.map(f => f.part)).size - 1)
