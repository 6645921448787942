import { P_GRITS } from '#core/abrasives'
import { METHODS, STEP_KINDS } from '#core/acts'
import { ROUTES } from '#core/build'
import { PATCH_METHODS, PATCH_RESULTS } from '#core/examine'
import { TESTS } from '#core/identify'
import { BLEACHES, COLOURS, FILLS, FINISHES, MATERIALS } from '#core/materials'
import { FINDING_KINDS, FINISH_CLASSES, PERIODS } from '#core/piece'
import { HAZARDS } from '#core/safety'
import { SHAPES } from '#core/units'
import type { PieceFile, Unreadable } from './pieces'
import type { StoredPlan } from './planRows'

/**
 * What stands in the database is read with care: an old row, or one that was changed elsewhere, is told and holds up
 * nothing beside it.
 */
export const cannotRead = (why: string) =>
  fail(409, 'unreadable', `This cannot be read: ${why}. Everything else works. Enter it anew, or bring back a backup.`)

/** Runs what reads one piece; what it throws becomes a word about that piece. */
export function readable<T>(id: number, name: string, read: () => T): T | Unreadable {
  try {
    return read()
  } catch (error) {
    if (!(error instanceof RangeError)) console.error(`piece ${id}:`, error)
    return {
      id,
      name,
      why: error instanceof RangeError ? error.message.replace(/\.$/, '') : 'something stored of it is damaged',
    }
  }
}

const CONDITIONERS = ['auto', 'none', 'oil-conditioner', 'water-conditioner']
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
const first = <T>(rows: readonly T[], says: (row: T) => string | false | null): string | null => {
  for (const row of rows) {
    const word = says(row)
    if (word) return word
  }
  return null
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
}: Omit<PieceFile, 'recorded' | 'concluded' | 'facts'>): string | null {
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

/** The same of a stored plan. */
export function strangeInPlan({ steps }: StoredPlan): string | null {
  return first(steps, st => {
    const grit = st.grits.find(g => !P_GRITS.includes(g))
    if (!STEP_KINDS.includes(st.kind)) return `a step "${st.title}" is of no known kind`
    if (!METHODS.includes(st.method)) return `the method of "${st.title}" is not known`
    if (grit !== undefined) return `grit ${grit} of "${st.title}" is on no scale`
    if (st.product !== null && !MATERIALS.some(m => m.slug === st.product))
      return `the product "${st.product}" of "${st.title}" is not known`
    return st.gate?.fallback && !ROUTES.includes(st.gate.fallback) ? `the fallback of "${st.title}" is not known` : null
  })
}
