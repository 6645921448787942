import { gritsRead, isGrit } from '#core/abrasives'
import { FIELD_VALUES, LAYER_USES, METHODS } from '#core/acts'
import { ENDINGS, LAYER_KINDS } from '#core/build'
import { PATCH_METHODS, PATCH_RESULTS } from '#core/examine'
import { TESTS } from '#core/identify'
import { MATERIALS } from '#core/materials'
import { FINDING_KINDS, FINISH_CLASSES, PERIODS, ROUTES } from '#core/piece'
import { HAZARDS } from '#core/safety'
import { SHAPES } from '#core/units'
import type { BuildUpRow, LayerRow } from '../plan/buildUps'
import { first } from '../platform/readable'
import type { Rows } from './rows'

const strangeGround = (b: BuildUpRow): string | false =>
  !ROUTES.includes(b.ground) || !ENDINGS.includes(b.ending) ? `its route "${b.ground}" is not known` : false
const PLAIN_FIELDS: Readonly<Record<string, string>> = {
  tint_pct: 'number',
  thinned_pct: 'number',
  band_mm: 'number',
  recipe: 'string',
}
const CHOSEN: Readonly<Record<string, readonly unknown[]>> = FIELD_VALUES
/** A record of fields, each with a value that an act knows. */
const fieldsKnown = (fields: unknown): boolean =>
  fields !== null &&
  isRecord(fields) &&
  Object.entries(fields as Record<string, unknown>).every(([field, value]) =>
    field in PLAIN_FIELDS ? typeof value === PLAIN_FIELDS[field] : CHOSEN[field]?.includes(value),
  )
function gritKnown(text: string): boolean {
  try {
    return gritsRead(text).every(isGrit)
  } catch {
    return false
  }
}
function strangeLayer(l: LayerRow): string | false {
  if (!LAYER_KINDS.includes(l.act)) return `a layer "${l.act}" is of no known kind`
  if (l.product !== null && !MATERIALS.some(m => m.slug === l.product)) return `its product "${l.product}" is not known`
  if (l.method !== null && !METHODS.includes(l.method)) return `the method of a layer "${l.act}" is not known`
  if (l.used_as !== null && !LAYER_USES.includes(l.used_as)) return `what a layer "${l.act}" is for is not known`
  if (l.grit !== null && !gritKnown(l.grit)) return `a grit "${l.grit}" is on no scale`
  return !fieldsKnown(l.fields) && `what a layer "${l.act}" carries is damaged`
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
  buildUps,
  layers,
}: Rows): string | null {
  return (
    first(buildUps, strangeGround) ??
    first(layers, strangeLayer) ??
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
