import { CONDITIONERS, ROUTES } from '#core/build'
import { PATCH_METHODS, PATCH_RESULTS } from '#core/examine'
import { TESTS } from '#core/identify'
import { BLEACHES, COLOURS, FILLS, FINISHES } from '#core/materials'
import { FINDING_KINDS, FINISH_CLASSES, PERIODS } from '#core/piece'
import { HAZARDS } from '#core/safety'
import { SHAPES } from '#core/units'
import { first } from '../platform/readable'
import type { PieceFile } from './rows'

const WAYS: readonly [string, readonly string[]][] = [
  ['route', ROUTES],
  ['finish', FINISHES],
  ['colour', COLOURS],
  ['conditioner', CONDITIONERS],
  ['fill', FILLS],
  ['bleach', BLEACHES],
]

const strangeWay = (way: object): string | null => {
  const row = way as Record<string, string | null>
  const bad = WAYS.find(
    ([column, known]) => row[column] !== null && row[column] !== undefined && !known.includes(row[column]),
  )
  return bad ? `its ${bad[0]} "${row[bad[0]]}" is not known` : null
}
const isHoles = (holes: unknown) =>
  holes === null || (typeof holes === 'object' && Array.isArray((holes as { centres_mm?: unknown }).centres_mm))
const isRecord = (value: unknown) => value === null || (typeof value === 'object' && !Array.isArray(value))

/** What stands in a piece's rows that this program does not know; null when all is well. */
export function strangeIn({
  piece,
  faces,
  findings,
  tests,
  evidence,
  patches,
  overrules,
  items,
  ways,
}: Omit<PieceFile, 'recorded' | 'concluded' | 'facts' | 'context'>): string | null {
  return (
    strangeWay(piece) ??
    first(ways, strangeWay) ??
    (!isRecord(piece.house) ? 'its house methods are damaged' : null) ??
    (piece.period !== 'unknown' && !PERIODS.includes(piece.period)
      ? `its period "${String(piece.period)}" is not known`
      : null) ??
    first(faces, f => !SHAPES.includes(f.shape) && `the shape of ${f.name} is not known`) ??
    first(findings, f => !FINDING_KINDS.includes(f.kind) && `a finding "${String(f.kind)}" is not known`) ??
    first(
      tests,
      t =>
        !TESTS.some(k => k.slug === t.test && Object.hasOwn(k.results, t.result)) &&
        `a finish test "${t.test}: ${t.result}" is not known`,
    ) ??
    first(evidence, e => !HAZARDS.some(h => h.slug === e.kind) && `a hazard "${e.kind}" is not known`) ??
    first(
      patches,
      p => (!PATCH_METHODS.includes(p.method) || !PATCH_RESULTS.includes(p.result)) && 'a timed patch is not known',
    ) ??
    first(
      overrules,
      o =>
        o.rule === 'finish-is' &&
        !(FINISH_CLASSES as readonly (string | null)[]).includes(o.value) &&
        `a finish "${String(o.value)}" is not known`,
    ) ??
    first(items, i => !isHoles(i.holes) && `the holes of ${i.name} are damaged`)
  )
}
