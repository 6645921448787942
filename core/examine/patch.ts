/**
 * The timed patch: two methods on equal small areas, scaled to the piece: the best estimate there is (common
 * practice).
 */
import { faceFactor, type Face, type Facts, workArea_m2 } from '../piece'
import { isFlat, sumOf } from '../units'

export const PATCH_METHODS = ['stripper', 'sanding'] as const
export type PatchMethod = (typeof PATCH_METHODS)[number]
export const PATCH_RESULTS = ['all-off', 'nearly', 'not-off', 'damaged'] as const
export type PatchResult = (typeof PATCH_RESULTS)[number]

/** A patch is this wide and long at least, mm; smaller ones tell nothing of a pace (shop default, unsourced). */
export const PATCH_SIDE_MM = 20
/** Minutes for a flat m² that anybody has needed: from wiping to picking out a carving (shop default, unsourced). */
export const PACE_MIN_M2 = { least: 0.5, most: 3000 } as const

export interface Patch {
  method: PatchMethod
  faceId: number
  length_mm: number
  width_mm: number
  minutes: number
  result: PatchResult
}
export interface ScaledPatch extends Patch {
  area_m2: number
  minutes_m2: number
  piece_min: number
}

/**
 * Minutes for all faces in scope at the patch's pace: minutes ÷ (area × the face's factor), × the piece's weighted
 * area.
 * @throws RangeError when the patch has no area or no time, or its face is not there.
 */
export function scalePatch(patch: Patch, facts: Pick<Facts, 'faces'>): ScaledPatch {
  const face = facts.faces.find(f => f.id === patch.faceId)
  const area_m2 = (patch.length_mm * patch.width_mm) / 1e6
  if (!face || !(area_m2 > 0) || !(patch.minutes > 0))
    throw new RangeError('A patch needs its face, its size and its minutes.')
  const minutes_m2 = patch.minutes / (area_m2 * faceFactor(face))
  return {
    ...patch,
    area_m2,
    minutes_m2,
    piece_min: minutes_m2 * workArea_m2(facts.faces.filter(f => f.scope === 'refinish')),
  }
}

export interface PatchAdvice {
  better: PatchMethod | null
  saves_min: number
  says: string[]
}

/** Patches differing more than this in size are not equal areas. Shop default. */
const EQUAL_WITHIN = 0.15
/** Results after which a method may be counted on. */
export const WORKED: readonly PatchResult[] = ['all-off', 'nearly']
/** Machines do not reach these. */
const unreachable = (faces: readonly Face[]) => faces.filter(f => f.scope === 'refinish' && !isFlat(f))

/** Which of two patches speaks for its method, and what to mind. */
export function comparePatches(a: ScaledPatch, b: ScaledPatch, facts: Facts): PatchAdvice {
  const says: string[] = []
  if (a.method === b.method) return { better: null, saves_min: 0, says: ['Both patches tried the same method.'] }
  const ratio = Math.max(a.area_m2, b.area_m2) / Math.min(a.area_m2, b.area_m2)
  if (ratio > 1 + EQUAL_WITHIN) says.push('The patches are not equally large: the smaller one is the less certain.')
  for (const p of [a, b]) {
    if (p.result === 'damaged') says.push(`The ${p.method} patch damaged the surface: that method is out here.`)
    if (p.result === 'not-off') says.push(`The ${p.method} patch did not take it off.`)
  }
  const sanding = [a, b].find(p => p.method === 'sanding')!
  if (facts.bans.includes('dry-sanding'))
    says.push('Dry sanding is forbidden on this piece until its hazards are settled.')
  const shaped = unreachable(facts.faces)
  if (shaped.length)
    says.push(
      `${Math.round(
        (sumOf(shaped, f => f.area_m2) /
          sumOf(
            facts.faces.filter(f => f.scope === 'refinish'),
            f => f.area_m2,
          )) *
          100,
      )} % of the area is not flat; sanding it takes longer than the patch says.`,
    )
  const allowed = (p: ScaledPatch) =>
    WORKED.includes(p.result) && !(p === sanding && facts.bans.includes('dry-sanding'))
  const good = [a, b].filter(allowed).sort((x, y) => x.piece_min - y.piece_min)
  const best = good[0]
  if (!best) return { better: null, saves_min: 0, says: [...says, 'Neither will do as it is.'] }
  const other = best === a ? b : a
  return { better: best.method, saves_min: allowed(other) ? other.piece_min - best.piece_min : 0, says }
}
