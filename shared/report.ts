/**
 * The condition report as a file: `hantverk-condition-report`, version 1. Lengths in mm, moments in ISO 8601 UTC,
 * pictures as base64 JPEG. What this schema reads is exactly what the shop writes; unknown fields are refused, so that
 * nothing is lost in silence.
 */
import { z } from 'zod'
import { FINDING_KINDS, FINISH_CLASSES, SUBSTRATES, WISHES } from '../core/piece'
import { REPORT_FORMAT, REPORT_VERSION, type Report } from '../core/report'
import { LENGTH_MM, MOST_AREA_M2, MOST_FACES, SHAPES, VENEER_MM } from '../core/units'

const text = z.string().max(4000)
/** Numbers keep to what a shop can enter by hand. */
const mm = z.number().min(-1).max(70_000)
const size_mm = z.number().min(LENGTH_MM.least).max(LENGTH_MM.most)
const count = z.number().int().min(0).max(500)
const row = z.number().int().min(0).max(4294967295)
const figure = z.number().min(-1e7).max(1e7)
const few = <T extends z.ZodType>(of: T) => z.array(of).max(40)
const moment = z.iso.datetime()
const byAt = { by: text, at: moment }
const address = z.string().regex(/^[0-9a-f]{64}$/)
const finish = z.enum(FINISH_CLASSES)
const place = z.strictObject({
  shape: z.enum(['unplaced', 'point', 'line', 'area', 'face']),
  copy: count,
  x_mm: mm,
  y_mm: mm,
  x2_mm: mm,
  y2_mm: mm,
  size_mm: z.number().min(0).max(20_000),
})
const face = z.strictObject({
  id: row,
  part: text,
  name: text,
  scope: z.enum(['refinish', 'protect', 'match']),
  rank: z.enum(['show', 'secondary', 'hidden']),
  shape: z.enum(SHAPES),
  orientation: z.enum(['horizontal', 'vertical']),
  length_mm: size_mm,
  width_mm: size_mm,
  copies: count.min(1),
  area_m2: z.number().positive().max(MOST_AREA_M2),
  species: text,
  substrate: z.enum(SUBSTRATES),
  veneer_mm: z.number().min(VENEER_MM.least).max(VENEER_MM.most).nullable(),
  film_um: z.number().int().min(1).max(3000).nullable().default(null),
  finishGroup: z.string().length(1),
  length_typed: text,
  width_typed: text,
})
const list = <T extends z.ZodType>(row: T) => z.array(row).max(5000)

export const reportSchema: z.ZodType<Report> = z.strictObject({
  format: z.literal(REPORT_FORMAT),
  version: z.literal(REPORT_VERSION),
  made_at: moment,
  name: text,
  shop: text,
  piece: z.strictObject({
    id: row,
    name: text,
    client: text,
    period: text,
    refinished: z.enum(['yes', 'no', 'unknown']),
    use: text,
    keep_patina: z.boolean(),
    lead: z.enum(['yes', 'no', 'unknown']),
    taken_in_at: moment,
    note: text,
  }),
  faces: z.array(face).max(MOST_FACES),
  findings: list(
    z.strictObject({
      number: row,
      faceId: row,
      kind: z.enum(FINDING_KINDS),
      grade: z.number().int().min(1).max(5),
      wish: z.enum(WISHES),
      place,
      note: text,
      photographs: few(address),
    }),
  ),
  tests: list(
    z.strictObject({
      group: text,
      layer: z.number().int().min(1).max(5),
      test: text,
      result: text,
      spot: text,
      ...byAt,
    }),
  ),
  conclusions: list(
    z.strictObject({
      group: text,
      layer: z.number().int().min(1).max(5),
      finish,
      certainty: z.number().min(0).max(1),
      second: finish,
      verdict: text,
      overruled: z.strictObject({ finish: text, word: text, by: text }).nullable(),
    }),
  ),
  hazards: list(
    z.strictObject({
      slug: text,
      name: text,
      standing: z.enum(['open', 'confirmed', 'cleared']),
      why: text,
      forbids: few(text),
      evidence: list(z.strictObject({ answer: z.enum(['yes', 'no']), method: text, ...byAt })),
    }),
  ),
  walk: list(z.strictObject({ key: text, asks: text, options: few(text), ...byAt })),
  moisture: list(
    z.strictObject({
      faceId: row,
      reading_pct: z.number().min(0).max(100),
      thickness_mm: size_mm,
      ...byAt,
      verdict: text,
      equilibrium_pct: figure.nullable(),
      likely_d: figure.nullable(),
    }),
  ),
  patches: list(
    z.strictObject({
      method: text,
      faceId: row,
      length_mm: size_mm,
      width_mm: size_mm,
      minutes: figure,
      result: text,
      note: text,
      piece_min: figure,
      ...byAt,
    }),
  ),
  items: list(
    z.strictObject({
      mark: text,
      name: text,
      state: text,
      count,
      out: count.nullable(),
      back: count.nullable(),
      place: text.nullable(),
      keep: z.boolean(),
      note: text,
    }),
  ),
  verdicts: list(
    z.strictObject({
      slug: text,
      subject: text,
      severity: z.enum(['forbidden', 'stop', 'warn', 'note']),
      says: text,
      reasons: few(text),
      mend: text,
      source: text,
      overruled: z.strictObject({ word: text, by: text }).nullable(),
    }),
  ),
  notExamined: z.array(text).max(500),
  photographs: list(
    z.strictObject({
      address,
      caption: text,
      taken_at: moment.nullable(),
      width: z.number().int().min(1).max(2560),
      height: z.number().int().min(1).max(2560),
      before: address.nullable(),
      data_base64: z.base64().nullable(),
    }),
  ),
})
