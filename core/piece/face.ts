/** Faces: what is worked on, and how much there is of it. */
import { type Shape, sumOf } from '../units'

export interface Face {
  id: number
  part: string
  name: string
  scope: 'refinish' | 'protect' | 'match'
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
  substrate: 'solid' | 'veneer'
  /** as measured; null: not measured */
  veneer_mm: number | null
  /** faces of one letter carry one finish */
  finishGroup: string
}

/** Vertical 1.15, profiled 1.6, turned 2.2, carved 3 (shop default, unsourced). */
export const faceFactor = (face: Face): number =>
  ({ flat: 1, oval: 1, profiled: 1.6, turned: 2.2, carved: 3 })[face.shape] *
  (face.orientation === 'vertical' ? 1.15 : 1)

/** Area weighted with shape and position, m². */
export const workArea_m2 = (faces: readonly Face[]): number => sumOf(faces, f => f.area_m2 * faceFactor(f))

/** Parts beside the largest one: what is taken off before the work and put back after it. */
export const partsToTakeOff = (faces: readonly Face[]): number => Math.max(0, new Set(faces.map(f => f.part)).size - 1)
