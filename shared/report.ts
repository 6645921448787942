/**
 * The condition report as a file: `hantverk-condition-report`, version 1. Lengths in mm, moments in ISO 8601 UTC, pictures as base64 JPEG.
 * What this schema reads is exactly what the shop writes; unknown fields are refused, so that nothing is lost in silence.
 */
import { z } from 'zod'
import { FINISH_CLASSES } from '../core/identify'
import { FINDING_KINDS, WISHES } from '../core/plan'
import { REPORT_FORMAT, REPORT_VERSION, type Report } from '../core/report'
import { SHAPES } from '../core/units'

const text = z.string().max(4000)
const moment = z.iso.datetime()
const byAt = { by: text, at: moment }
const address = z.string().regex(/^[0-9a-f]{64}$/)
const finish = z.enum(FINISH_CLASSES)
const place = z.strictObject({ shape: z.enum(['unplaced', 'point', 'line', 'area', 'face']), copy: z.number().int(), x_mm: z.number(), y_mm: z.number(), x2_mm: z.number(), y2_mm: z.number(), size_mm: z.number() })
const face = z.strictObject({
  id: z.number().int(), part: text, name: text, scope: z.enum(['refinish', 'protect', 'match']), rank: z.enum(['show', 'secondary', 'hidden']), shape: z.enum(SHAPES as unknown as ['flat', 'profiled', 'turned', 'carved']), orientation: z.enum(['horizontal', 'vertical']),
  length_mm: z.number().positive(), width_mm: z.number().positive(), copies: z.number().int().min(1), area_m2: z.number().positive(), species: text, substrate: z.enum(['solid', 'veneer']), veneer_mm: z.number().nullable(), finishGroup: z.string().length(1), length_typed: text, width_typed: text })
const list = <T extends z.ZodType>(row: T) => z.array(row).max(5000)

export const reportSchema: z.ZodType<Report> = z.strictObject({
  format: z.literal(REPORT_FORMAT), version: z.literal(REPORT_VERSION), made_at: moment, name: text, shop: text,
  piece: z.strictObject({ id: z.number().int(), name: text, client: text, period: text, refinished: z.enum(['yes', 'no', 'unknown']), use: text, keep_patina: z.boolean(), lead: z.enum(['yes', 'no', 'unknown']), taken_in_at: moment, note: text }),
  faces: list(face),
  findings: list(z.strictObject({ number: z.number().int(), faceId: z.number().int(), kind: z.enum(FINDING_KINDS), grade: z.number().int().min(1).max(5), wish: z.enum(WISHES), place, note: text, photographs: z.array(address) })),
  tests: list(z.strictObject({ group: text, layer: z.number().int(), test: text, result: text, spot: text, ...byAt })),
  conclusions: list(z.strictObject({ group: text, layer: z.number().int(), finish, certainty: z.number(), second: finish, verdict: text, overruled: z.strictObject({ finish: text, word: text, by: text }).nullable() })),
  hazards: list(z.strictObject({ slug: text, name: text, standing: z.enum(['open', 'confirmed', 'cleared']), why: text, forbids: z.array(text), evidence: list(z.strictObject({ answer: z.enum(['yes', 'no']), method: text, ...byAt })) })),
  walk: list(z.strictObject({ key: text, asks: text, options: z.array(text), ...byAt })),
  moisture: list(z.strictObject({ faceId: z.number().int(), reading_pct: z.number(), thickness_mm: z.number(), ...byAt, verdict: text, equilibrium_pct: z.number().nullable(), likely_d: z.number().nullable() })),
  patches: list(z.strictObject({ method: text, faceId: z.number().int(), length_mm: z.number(), width_mm: z.number(), minutes: z.number(), result: text, note: text, piece_min: z.number(), ...byAt })),
  items: list(z.strictObject({ mark: text, name: text, state: text, count: z.number().int(), out: z.number().int().nullable(), back: z.number().int().nullable(), place: text.nullable(), keep: z.boolean(), note: text })),
  verdicts: list(z.strictObject({ slug: text, subject: text, severity: text, says: text, reasons: z.array(text), mend: text, source: text, overruled: z.strictObject({ word: text, by: text }).nullable() })),
  notExamined: z.array(text),
  photographs: list(z.strictObject({ address, caption: text, taken_at: moment.nullable(), width: z.number().int(), height: z.number().int(), before: address.nullable(), data_base64: z.base64().nullable() })),
})
