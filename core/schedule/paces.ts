/**
 * How long the shop's own hands really take, learnt from steps that are done. The logarithm of the real minutes over
 * the planned ones is a sum: of the shop, of the kind of work, of that work on that shape; what nobody has done leans
 * on what is above it. All normal, so that the estimate is exact (common practice in statistics).
 */
import type { StepKind } from '../acts'
import type { Face } from '../piece'

/** Flat and oval faces are worked alike. */
export type WorkedShape = Exclude<Face['shape'], 'oval'>
export interface Work {
  kind: StepKind
  /** of most of what is worked; null: no face */
  shape: WorkedShape | null
}
export interface Worked extends Work {
  planned_min: number
  real_min: number
}
export interface Pace {
  /** real minutes over planned ones, as is likely */
  factor: number
  /** steps of this kind and shape that were done */
  seen: number
}
/**
 * Standard deviations of the logarithm: of shops, of kinds within one, of shapes within a kind, of one step (shop
 * defaults, unsourced).
 */
const SPREAD = { shop: 0.15, kind: 0.2, shape: 0.15, step: 0.35 } as const
/** What took less or more than so many times as long was no such work: left in hand, or entered afterwards. */
const [LEAST, MOST] = [0.2, 5] as const
const ROUNDS = 500

export const worksAs = (shape: Face['shape']): WorkedShape => (shape === 'oval' ? 'flat' : shape)
/** The shape of most of what these faces are. */
export function shapeOf(faces: readonly Pick<Face, 'shape' | 'length_mm' | 'width_mm' | 'copies'>[]): Work['shape'] {
  const sums = new Map<WorkedShape, number>()
  for (const f of faces) {
    const shape = worksAs(f.shape)
    sums.set(shape, (sums.get(shape) ?? 0) + f.length_mm * f.width_mm * f.copies)
  }
  return [...sums].sort((a, b) => b[1] - a[1])[0]?.[0] ?? null
}

const namesOf = ({ kind, shape }: Work) => ['', kind, `${kind} ${shape}`] as const
const SPREADS = [SPREAD.shop, SPREAD.kind, SPREAD.shape] as const

/** What was learnt; ask it of any work. */
export function learnPaces(all: readonly Worked[]): (of: Work) => Pace {
  const logs = all.flatMap(({ planned_min, real_min, ...work }) => {
    const ratio = real_min / planned_min
    return planned_min > 0 && ratio >= LEAST && ratio <= MOST ? [{ names: namesOf(work), log: Math.log(ratio) }] : []
  })
  const terms = new Map<string, { level: number; mean: number; of: typeof logs }>()
  for (const one of logs)
    for (const [level, name] of one.names.entries()) {
      const term = terms.get(name) ?? { level, mean: 0, of: [] }
      term.of.push(one)
      terms.set(name, term)
    }
  const sumOf = (names: readonly string[]) => names.reduce((sum, name) => sum + (terms.get(name)?.mean ?? 0), 0)
  // each term in turn by what the others leave, until none moves
  for (let round = 0, moved = 1; round < ROUNDS && moved > 1e-12; round++) {
    moved = 0
    for (const term of terms.values()) {
      const left = term.of.reduce((sum, { names, log }) => sum + log - sumOf(names) + term.mean, 0)
      const mean = left / (term.of.length + (SPREAD.step / SPREADS[term.level]!) ** 2)
      moved = Math.max(moved, Math.abs(mean - term.mean))
      term.mean = mean
    }
  }
  return work => ({ factor: Math.exp(sumOf(namesOf(work))), seen: terms.get(namesOf(work)[2])?.of.length ?? 0 })
}
