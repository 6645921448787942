/** How much there is to work on. */
import { sumOf } from '../units'
import type { Face } from './facts'

/** Vertical 1.15, profiled 1.6, turned 2.2, carved 3 (shop default, unsourced). */
export const faceFactor = (face: Face): number =>
  ({ flat: 1, profiled: 1.6, turned: 2.2, carved: 3 })[face.shape] * (face.orientation === 'vertical' ? 1.15 : 1)

/** Area weighted with shape and position, m². */
export const workArea_m2 = (faces: readonly Face[]): number => sumOf(faces, f => f.area_m2 * faceFactor(f))

/** Parts beside the largest one: what is taken off before the work and put back after it. */
export const partsToTakeOff = (faces: readonly Face[]): number => Math.max(0, new Set(faces.map(f => f.part)).size - 1)
