/**
 * Several layers on several groups of faces. Layer 1 is the top; a deeper one is tested where the upper was taken off.
 */
import type { Period } from '../piece'
import {
  type Identification,
  identify,
  nextTests,
  type NextTest,
  type Observation,
  prior,
  reasonsFor,
  type Reason,
} from './infer'
import type { USE_FACTORS } from './tables'

type Use = keyof typeof USE_FACTORS

export interface LayerReading extends Observation {
  group: string
  layer: number
}
export interface LayerFound extends Identification {
  layer: number
  reasons: Reason[]
  next: NextTest[]
  readings: Observation[]
}
export interface GroupFound {
  group: string
  layers: LayerFound[]
}

/**
 * Prior of one layer. Where something lies beneath, the top is a later finish and the lowest the original one.
 */
export function layerPrior(
  period: Period,
  refinished: 'yes' | 'no' | 'unknown',
  layer: number,
  layers: number,
  use: Use = 'daily',
): number[] {
  if (layers === 1) return prior(period, refinished, use)
  return prior(period, layer === layers ? 'no' : 'yes', use)
}

/** What each layer of each group is, from its own readings. */
export function identifyGroups(q: {
  period: Period
  refinished: 'yes' | 'no' | 'unknown'
  use?: Use
  groups: readonly string[]
  readings: readonly LayerReading[]
  /** layers that are known of otherwise */
  least?: (group: string) => number
}): GroupFound[] {
  return q.groups.map(group => {
    const own = q.readings.filter(r => r.group === group)
    const layers = Math.max(1, q.least?.(group) ?? 1, ...own.map(r => r.layer))
    return {
      group,
      layers: Array.from({ length: layers }, (_, i) => {
        const layer = i + 1
        const readings = own.filter(r => r.layer === layer).map(({ test, result }) => ({ test, result }))
        const start = layerPrior(q.period, q.refinished, layer, layers, q.use)
        const found = identify(start, readings)
        return { ...found, layer, readings, reasons: reasonsFor(found, readings), next: nextTests(start, readings) }
      }),
    }
  })
}
