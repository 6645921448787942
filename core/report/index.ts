/** The condition report as data (format `hantverk-condition-report`, version 1), and two of them compared. */
import type { Severity } from '../safety'
import { damageOn, type Face, type FindingKind, type Finding, type FinishClass, type LeadAnswer } from '../piece'

export const REPORT_FORMAT = 'hantverk-condition-report'
export const REPORT_VERSION = 1

export interface ReportFinding extends Finding {
  number: number
  note: string
  photographs: string[]
}
export interface ReportPhotograph {
  address: string
  caption: string
  taken_at: string | null
  width: number
  height: number
  before: string | null
  /** JPEG */ data_base64: string | null
}
export interface ReportConclusion {
  group: string
  layer: number
  finish: FinishClass
  certainty: number
  second: FinishClass
  verdict: string
  overruled: { finish: string; word: string; by: string } | null
}
export interface Report {
  format: typeof REPORT_FORMAT
  version: typeof REPORT_VERSION
  made_at: string
  name: string
  shop: string
  piece: {
    id: number
    name: string
    client: string
    period: string
    refinished: 'yes' | 'no' | 'unknown'
    use: string
    keep_patina: boolean
    lead: LeadAnswer
    taken_in_at: string
    note: string
  }
  faces: (Face & { length_typed: string; width_typed: string })[]
  findings: ReportFinding[]
  tests: { group: string; layer: number; test: string; result: string; spot: string; by: string; at: string }[]
  conclusions: ReportConclusion[]
  hazards: {
    slug: string
    name: string
    standing: 'open' | 'confirmed' | 'cleared'
    why: string
    forbids: string[]
    evidence: { answer: 'yes' | 'no'; method: string; by: string; at: string }[]
  }[]
  walk: { key: string; asks: string; options: string[]; by: string; at: string }[]
  moisture: {
    faceId: number
    reading_pct: number
    thickness_mm: number
    by: string
    at: string
    verdict: string
    equilibrium_pct: number | null
    likely_d: number | null
  }[]
  patches: {
    method: string
    faceId: number
    length_mm: number
    width_mm: number
    minutes: number
    result: string
    note: string
    piece_min: number
    by: string
    at: string
  }[]
  items: {
    mark: string
    name: string
    state: string
    count: number
    out: number | null
    back: number | null
    place: string | null
    keep: boolean
    note: string
  }[]
  verdicts: {
    slug: string
    subject: string
    severity: Severity
    says: string
    reasons: string[]
    mend: string
    source: string
    overruled: { word: string; by: string } | null
  }[]
  notExamined: string[]
  photographs: ReportPhotograph[]
}

export interface FindingChange {
  part: string
  face: string
  kind: FindingKind
  change: 'new' | 'gone' | 'worse' | 'better' | 'same'
  grade: [number | null, number | null]
  area_m2: [number, number]
}
export interface Comparison {
  findings: FindingChange[]
  finishes: { group: string; layer: number; before: string | null; after: string | null }[]
  hazards: { name: string; before: string | null; after: string | null }[]
  moisture: { face: string; before_pct: number | null; after_pct: number | null }[]
  items: { name: string; before: string | null; after: string | null }[]
}

const CHANGES_BY = 1.1
const faceKey = (f: Pick<Face, 'part' | 'name'>) => `${f.part}|${f.name}`

/**
 * Findings gathered by face and kind: worst grade and area. Faces are known by part and name, so that two shops'
 * reports compare.
 */
function gathered(report: Report) {
  const rows = new Map<string, { part: string; face: string; kind: FindingKind; grade: number; area_m2: number }>()
  for (const face of report.faces) {
    for (const kind of new Set(report.findings.filter(f => f.faceId === face.id).map(f => f.kind))) {
      const damage = damageOn(face, kind, report.findings)
      rows.set(`${faceKey(face)}|${kind}`, {
        part: face.part,
        face: face.name,
        kind,
        grade: damage.grade,
        area_m2: damage.area_m2,
      })
    }
  }
  return rows
}

/** Keys of both maps, with what each holds. */
function paired<T>(
  a: ReadonlyMap<string, T>,
  b: ReadonlyMap<string, T>,
): { key: string; before: T | null; after: T | null }[] {
  return [...new Set([...a.keys(), ...b.keys()])].map(key => ({
    key,
    before: a.get(key) ?? null,
    after: b.get(key) ?? null,
  }))
}
const keyed = <R, T>(rows: readonly R[], key: (row: R) => string, value: (row: R) => T) =>
  new Map(rows.map(r => [key(r), value(r)]))
const differing = <T>(rows: { key: string; before: T | null; after: T | null }[]) =>
  rows.filter(r => r.before !== r.after)

type Extent = Pick<ReturnType<typeof gathered> extends Map<string, infer G> ? G : never, 'grade' | 'area_m2'>
/** Worse or better by grade, and where the grade stayed by area. */
function changeOf(a: Extent | null, b: Extent | null): FindingChange['change'] {
  if (!a) return 'new'
  if (!b) return 'gone'
  const grown = a.area_m2 > 0 && b.area_m2 > a.area_m2 * CHANGES_BY
  const shrunk = b.area_m2 > 0 && b.area_m2 * CHANGES_BY < a.area_m2
  if (b.grade > a.grade || (b.grade === a.grade && grown)) return 'worse'
  return b.grade < a.grade || (b.grade === a.grade && shrunk) ? 'better' : 'same'
}

/** What changed from one examination to a later one. Same findings are listed too, last. */
export function compareReports(before: Report, after: Report): Comparison {
  const order = ['new', 'worse', 'better', 'gone', 'same']
  const findings = paired(gathered(before), gathered(after))
    .map(({ before: a, after: b }): FindingChange => {
      const { part, face, kind } = (b ?? a)!
      const change = changeOf(a, b)
      return {
        part,
        face,
        kind,
        change,
        grade: [a?.grade ?? null, b?.grade ?? null],
        area_m2: [a?.area_m2 ?? 0, b?.area_m2 ?? 0],
      }
    })
    .sort((x, y) => order.indexOf(x.change) - order.indexOf(y.change))
  const finishOf = (r: Report) =>
    keyed(
      r.conclusions,
      c => `${c.group}|${c.layer}`,
      c => c.overruled?.finish ?? (c.finish as string),
    )
  const faceName = (r: Report, id: number) => r.faces.filter(f => f.id === id).map(f => `${f.part}, ${f.name}`)[0] ?? ''
  return {
    findings,
    finishes: differing(paired(finishOf(before), finishOf(after))).map(({ key, ...r }) => ({
      group: key.split('|')[0]!,
      layer: Number(key.split('|')[1]),
      ...r,
    })),
    hazards: differing(
      paired(
        keyed(
          before.hazards,
          h => h.name,
          h => h.standing as string,
        ),
        keyed(
          after.hazards,
          h => h.name,
          h => h.standing as string,
        ),
      ),
    ).map(({ key, ...r }) => ({ name: key, ...r })),
    moisture: paired(
      keyed(
        before.moisture,
        m => faceName(before, m.faceId),
        m => m.reading_pct,
      ),
      keyed(
        after.moisture,
        m => faceName(after, m.faceId),
        m => m.reading_pct,
      ),
    ).map(r => ({ face: r.key, before_pct: r.before, after_pct: r.after })),
    items: differing(
      paired(
        keyed(
          before.items,
          i => `${i.mark} ${i.name}`,
          i => i.state,
        ),
        keyed(
          after.items,
          i => `${i.mark} ${i.name}`,
          i => i.state,
        ),
      ),
    ).map(({ key, ...r }) => ({ name: key, ...r })),
  }
}
