/** Damaged area per face and kind, and what mending it takes. */
import { sumOf } from '../units'
import type { Face } from './face'
import { type Facts, findingsOf } from './facts'
import type { FindingKind, Finding } from './finding'
import { FINDINGS, type Mender } from './findingTraits'
import { coveredArea_m2, lineLength_mm } from './place'

export interface Damage {
  faceId: number
  kind: FindingKind
  places: number
  area_m2: number
  length_m: number
  /** of the face, all copies, 0–1 */ share: number
  grade: number
}

const copiesOf = (finding: Finding, face: Face): number[] =>
  finding.place.copy > 0 ? [finding.place.copy] : Array.from({ length: face.copies }, (_, i) => i + 1)

/** One kind on one face: overlaps on one copy count once. Places not yet drawn count as a place without area. */
export function damageOn(face: Face, kind: FindingKind, findings: readonly Finding[]): Damage {
  const round = FINDINGS[kind].round
  const own = findings.filter(f => f.faceId === face.id && f.kind === kind)
  const copies = new Set(own.flatMap(f => copiesOf(f, face)))
  const area_m2 = sumOf([...copies], copy =>
    coveredArea_m2(
      own.filter(f => copiesOf(f, face).includes(copy)).map(f => ({ place: f.place, round })),
      face,
    ),
  )
  const times = (f: Finding) => (f.place.shape === 'unplaced' ? 1 : copiesOf(f, face).length)
  return {
    faceId: face.id,
    kind,
    places: sumOf(own, times),
    area_m2,
    share: Math.min(1, area_m2 / face.area_m2),
    length_m: sumOf(own, f => lineLength_mm(f.place) * copiesOf(f, face).length) / 1000,
    grade: Math.max(...own.map(f => f.grade)),
  }
}

/** Work on a mark takes at least this much around it, m² (shop default): about 50 × 50 mm. */
const LEAST_SPOT_M2 = 0.0025
/** The marks of some kinds on a face, as work: their count, and m² with what lies around each. */
export function spotsOn(
  face: Face,
  kinds: readonly FindingKind[],
  findings: readonly Finding[],
): { places: number; area_m2: number } {
  const its = kinds.filter(kind => findings.some(f => f.faceId === face.id && f.kind === kind))
  const rows = its.map(kind => damageOn(face, kind, findings))
  const places = sumOf(rows, r => r.places)
  const area_m2 = sumOf(rows, r => Math.max(r.area_m2, r.places * LEAST_SPOT_M2))
  return { places, area_m2: Math.min(face.area_m2, area_m2) }
}

/** Every kind on every face, the largest area first. */
export const damageOf = (facts: Pick<Facts, 'faces' | 'findings'>): Damage[] =>
  facts.faces
    .flatMap(face => {
      const kinds = [...new Set(facts.findings.filter(f => f.faceId === face.id).map(f => f.kind))]
      return kinds.map(kind => damageOn(face, kind, facts.findings))
    })
    .sort((a, b) => b.area_m2 - a.area_m2)

export interface Mending {
  kind: FindingKind
  by: Mender
  places: number
  area_m2: number
  length_m: number
  minutes: number
}

/**
 * What is to be mended by a repair of its own, with its minutes (shop default). "Keep" and "tolerate" are left alone.
 */
export function mendingOf(facts: Facts): Mending[] {
  const wanted = findingsOf(facts, ...(Object.keys(FINDINGS) as FindingKind[])).filter(
    f => f.wish === 'mend' && FINDINGS[f.kind].mend,
  )
  return [...new Set(wanted.map(f => f.kind))].map(kind => {
    const rows = facts.faces
      .map(face => ({ face, own: wanted.filter(f => f.kind === kind && f.faceId === face.id) }))
      .filter(r => r.own.length > 0)
      .map(r => damageOn(r.face, kind, r.own))
    const { by, each_min, m2_min, m_min } = FINDINGS[kind].mend!
    const places = sumOf(rows, r => r.places)
    const area_m2 = sumOf(rows, r => r.area_m2)
    const length_m = sumOf(rows, r => r.length_m)
    return { kind, by, places, area_m2, length_m, minutes: places * each_min + area_m2 * m2_min + length_m * m_min }
  })
}

/** Share of the faces in scope that kinds cover, 0–1. What was not drawn on its face has no area yet. */
export function shareOf(facts: Facts, ...kinds: FindingKind[]): number {
  const faces = facts.faces.filter(f => f.scope === 'refinish')
  const total = sumOf(faces, f => f.area_m2)
  const covered = sumOf(faces, face => {
    const own = facts.findings.filter(f => f.faceId === face.id && kinds.includes(f.kind))
    return Math.min(
      face.area_m2,
      sumOf(kinds, kind => (own.some(f => f.kind === kind) ? damageOn(face, kind, own).area_m2 : 0)),
    )
  })
  return total > 0 ? covered / total : 0
}
