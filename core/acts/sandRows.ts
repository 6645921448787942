/** A sanding step grit by grit and face by face: which machine, how long, and what to try first. */
import { finestToTry, type Grit, isCoarser, LEFT_BY_SANDING_OFF_UM, LEFT_BY_STRIPPING_UM, P } from '../abrasives'
import { faceFactor, type Face } from '../piece'
import { sumOf } from '../units'
import type { Method, Step } from './step'

/**
 * Attended minutes per m² of flat horizontal face: the first coarse grit, and each further one (shop default,
 * unsourced).
 */
const FIRST_M2 = { machine: 20, hand: 30 }
const LATER_M2: Partial<Record<Method, number>> = { 'random-orbit': 10, 'belt': 6, 'finishing-sander': 12 }
const BY_HAND_M2 = 20
/** The belt takes grits up to here; finer is the finishing sander's. */
const BELT_TO = P(100)

/** Where a sanding step stands in its ladder. */
export interface LadderPlace {
  first: boolean
  last: boolean
}
export const WHOLE: LadderPlace = { first: true, last: true }

const SHAPED: readonly Face['shape'][] = ['turned', 'carved', 'profiled']

/**
 * The machine for one grit on one face. Shaped and veneered faces are sanded by hand whatever the step says, and the
 * last grit of all as well.
 */
export function machineFor(face: Face, method: Method, grit: Grit, lastOfAll: boolean): Method {
  if (method === 'wet') return 'wet'
  if (method === 'hand' || SHAPED.includes(face.shape) || face.substrate === 'veneer' || lastOfAll) return 'hand'
  if (method === 'finishing-sander') return isCoarser(BELT_TO, grit) ? 'finishing-sander' : 'belt'
  return method
}

export interface SandRow {
  grit: Grit
  machine: Method
  faces: number[]
  area_m2: number
  minutes: number
}

/**
 * Rows of a sanding step: one for each grit and machine, in order. `pace`: minutes for each flat m² of the first grit,
 * by a timed patch.
 */
export function sandRows(
  step: Pick<Step, 'grits' | 'method'>,
  faces: readonly Face[],
  place: LadderPlace = WHOLE,
  pace: number | null = null,
): SandRow[] {
  return step.grits.flatMap((grit, i) => {
    const byMachine = new Map<Method, Face[]>()
    for (const face of faces) {
      const machine = machineFor(
        face,
        step.method,
        grit,
        place.last && (step.grits.length > 1 || !place.first) && i === step.grits.length - 1,
      )
      byMachine.set(machine, [...(byMachine.get(machine) ?? []), face])
    }
    return [...byMachine].map(([machine, its]): SandRow => {
      const hand = LATER_M2[machine] === undefined
      const first = pace ?? (hand ? FIRST_M2.hand : FIRST_M2.machine)
      const later = LATER_M2[machine] ?? BY_HAND_M2
      const each = i === 0 && place.first ? first : later
      return {
        grit,
        machine,
        faces: its.map(f => f.id),
        area_m2: sumOf(its, f => f.area_m2),
        minutes: sumOf(its, f => f.area_m2 * faceFactor(f)) * each,
      }
    })
  })
}

/** Grits to try on a hand's breadth before the first, finest first; where the ladder only goes on, none. */
export const gritsToTry = (grits: readonly Grit[], place: LadderPlace, sandedOff: boolean): Grit[] =>
  place.first && grits.length > 1 ? finestToTry(grits, sandedOff ? LEFT_BY_SANDING_OFF_UM : LEFT_BY_STRIPPING_UM) : []

/** The ladder in two: what comes before fills, and the last grits that cut them flush. A single grit stays whole. */
export const splitLadder = (grits: readonly Grit[]): [coarse: Grit[], fine: Grit[]] => {
  const at = grits.length < 2 ? 0 : Math.max(1, grits.length - 2)
  return [grits.slice(0, at), grits.slice(at)]
}
