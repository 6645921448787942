import { type Grit, gritName, gritsRead, P } from '#core/abrasives'
import { type Air, airBetween } from '#core/air'
import {
  ACTS,
  type Fields,
  type GateSlug,
  type Least,
  type Method,
  type StepKind,
  type Step,
  titleOf,
  TYPED,
  type Wait,
  withLeast,
} from '#core/acts'
import { temperatureFactor } from '#core/drying'
import { type Shelf, taken } from '#core/materials'
import type { RouteSlug } from '#core/piece'
import { waitsOf } from '#core/plan'
import type { BenchStep, BenchWait, LaidSection, Spell, StepState } from '#core/timetable'
import type { Db } from '../../database/db'
import type { Which } from '../piece/read'
import type { PieceFile } from '../piece/rows'
import { readShelf } from '../store/shelf'
import { readLaid } from './laid'
import { readSpells } from './spells'
import { fieldsIn } from './fields'
import { measuredIn } from './measured'
import { strangeInPlan } from './strange'

export interface StepRow {
  id: number
  piece_id: number
  step_key: string
  position: number
  kind: StepKind
  title: string
  product: string | null
  /** the label that it began with; before its start the newest of its product */
  label_id: number | null
  label: number | null
  grits: string
  method: Method
  coat: number | null
  passes: number
  attended_min: number
  amount_ml: number | null
  why: string
  gate_slug: GateSlug | null
  gate_look: string | null
  gate_fails: string | null
  gate_fallback: RouteSlug | null
  gate_chance: number | null
  fields: Fields
  typed: string
  state: StepState
  gate_result: 'pass' | 'fail' | null
  started_at: Date | null
  finished_at: Date | null
  mixed_at: Date | null
  outside: 0 | 1
  product_id: number | null
  planned_product: string | null
  started_by: string | null
  finished_by: string | null
  row_version: number
  measured: unknown
}
/** What people said of a wait: a minimum put in by hand, "not dry yet". */
interface SaidRow {
  piece_id: number
  from_key: string
  to_key: string
  least_min: number | null
  held_until: Date | null
}

/** A step of the working plan as it stands in the database. */
export interface PlannedStep extends BenchStep {
  /** what it carries could not be read */
  damaged: boolean
  /** carried out of the building for its dust */
  outside: boolean
  /** the product of the store that it takes; null: any of its class */
  productId: number | null
  /** what was planned, where another kind was used; else null */
  plannedProduct: string | null
  id: number
  position: number
  rowVersion: number
  gateResult: 'pass' | 'fail' | null
  startedBy: string | null
  finishedBy: string | null
  laid: readonly LaidSection[]
  spells: readonly Spell[]
}
export interface StoredPlan {
  steps: PlannedStep[]
  waits: BenchWait[]
  overruled: Map<string, { word: string; by: string }>
}

const list = (text: string) => (text ? text.split(',') : [])

/** What a step is called, also where its row holds what this program does not know. */
function titleIn(step: PlannedStep, shelf: Shelf): string {
  if (!Object.hasOwn(ACTS, step.kind)) return step.title || 'an unknown step'
  try {
    return titleOf(step, { shelf })
  } catch {
    return step.title || 'a step that cannot be read'
  }
}
/** A stored grit: by its name; a bare number, as they were kept once, is one of the P scale. */
function gritIn(stored: string): Grit {
  try {
    return gritsRead(stored)[0] ?? P(stored)
  } catch {
    return P(stored)
  }
}
export const stepOf = (r: StepRow, faces: number[], shelf: Shelf): PlannedStep => {
  const step: PlannedStep = {
    id: r.id,
    key: r.step_key,
    position: r.position,
    kind: r.kind,
    title: r.title,
    faces,
    product: r.product,
    label: r.label_id ?? r.label,
    grits: list(r.grits).map(gritIn),
    method: r.method,
    coat: r.coat,
    passes: r.passes,
    attended_min: r.attended_min,
    amount_ml: r.amount_ml,
    why: r.why,
    fields: fieldsIn(r.fields) ?? {},
    damaged: fieldsIn(r.fields) === null,
    typed: TYPED.filter(t => list(r.typed).includes(t)),
    rowVersion: r.row_version,
    gateResult: r.gate_result,
    gate: r.gate_slug
      ? {
          slug: r.gate_slug,
          look: r.gate_look!,
          fails: r.gate_fails!,
          fallback: r.gate_fallback,
          chance: r.gate_chance!,
        }
      : null,
    state: r.state,
    started_ms: r.started_at?.getTime() ?? null,
    finished_ms: r.finished_at?.getTime() ?? null,
    mixed_ms: r.mixed_at?.getTime() ?? null,
    outside: Boolean(r.outside),
    productId: r.product_id,
    plannedProduct: r.planned_product === r.product ? null : r.planned_product,
    measured: measuredIn(r.measured),
    laid: [],
    spells: [],
    startedBy: r.started_by,
    finishedBy: r.finished_by,
  }
  return { ...step, title: titleIn(step, shelf) }
}
const DAY_MIN = 1440
/**
 * The waits of a plan: worked out of its steps and labels, with what people said. What is drying already follows the
 * logged air of the room, what is to come the foretold.
 */
function waitsIn(steps: readonly PlannedStep[], said: readonly SaidRow[], { context, airHours }: Planned): BenchWait[] {
  const live = steps.filter(st => st.state !== 'skipped')
  const finished = new Map(live.map(st => [st.key, st.finished_ms]))
  const airAfter = (step: Step): Air => {
    const from_ms = finished.get(step.key)
    if (!from_ms) return context.air
    const label_min = taken(context.shelf, step)?.recoat_min[1] ?? DAY_MIN
    const until_ms = from_ms + label_min * temperatureFactor(context.air.temperature_C) * 60_000
    return airBetween(airHours.hours, from_ms, until_ms) ?? context.air
  }
  const leasts = said.flatMap(r => (r.least_min === null ? [] : [{ from: r.from_key, to: r.to_key, min: r.least_min }]))
  const of = (w: Wait) => said.find(r => r.from_key === w.from && r.to_key === w.to)
  return withLeast(waitsOf(live, context, airAfter), leasts, new Set(finished.keys())).map(w => ({
    ...w,
    held_ms: of(w)?.held_until?.getTime() ?? null,
    least_min: of(w)?.least_min ?? null,
  }))
}

const WHERE = { one: 'piece.id = :id', active: "piece.state = 'active'" } as const

/** Has somebody overruled this verdict with a word? */
export const isOverruled = (plan: Pick<StoredPlan, 'overruled'>, v: { rule: string; step: string }): boolean =>
  plan.overruled.has(`${v.rule}|${v.step}`)

const emptyPlan = (): StoredPlan => ({ steps: [], waits: [], overruled: new Map() })

/** Rows that `stepOf` reads. */
export const STEPS = `SELECT s.*, a.name AS started_by, b.name AS finished_by,
    (SELECT MAX(id) FROM product_label WHERE product_id = s.product_id) AS label
    FROM plan_step s
    JOIN piece ON piece.id = s.piece_id
    LEFT JOIN person a ON a.id = s.started_by
    LEFT JOIN person b ON b.id = s.finished_by`

/** What a plan follows from, beside its rows. */
type Planned = Pick<PieceFile, 'piece' | 'context' | 'airHours'>
/** Working plans of these pieces, by piece, in a few queries. A plan that cannot be read has no waits. */
export async function readPlans(on: Db, which: Which, files: readonly Planned[]): Promise<Map<number, StoredPlan>> {
  const where = WHERE[which.where]
  const params = { id: which.id ?? 0 }
  const steps = await on.rows<StepRow>(`${STEPS} WHERE ${where}`, params)
  // sorted here: such wide rows do not fit the database's sort buffer
  steps.sort((a, b) => a.piece_id - b.piece_id || a.position - b.position || a.id - b.id)
  const done = await on.rows<{ step_id: number; face_id: number }>(
    `SELECT f.step_id, f.face_id
        FROM piece
        JOIN plan_step s ON s.piece_id = piece.id
        JOIN plan_step_face f ON f.step_id = s.id
        WHERE ${where}`,
    params,
  )
  done.sort((a, b) => a.face_id - b.face_id)
  const facesOf = new Map<number, number[]>()
  for (const { step_id, face_id } of done) {
    const faces = facesOf.get(step_id)
    if (faces) faces.push(face_id)
    else facesOf.set(step_id, [face_id])
  }
  const laid = await readLaid(on, where, params)
  const spells = await readSpells(on, where, params)
  const said = await on.rows<SaidRow>(
    `SELECT w.* FROM wait_said w JOIN piece ON piece.id = w.piece_id WHERE ${where}`,
    params,
  )
  const overrules = await on.rows<{ piece_id: number; rule: string; step_key: string; word: string; by_name: string }>(
    `SELECT o.piece_id, o.rule, o.step_key, o.word, person.name AS by_name
        FROM overrule o
        JOIN piece ON piece.id = o.piece_id
        JOIN person ON person.id = o.person_id
        WHERE o.about = 'plan' AND ${where}`,
    params,
  )
  const shelf = await readShelf(on)
  const plans = new Map<number, StoredPlan>()
  const of = (id: number) => {
    const plan = plans.get(id) ?? emptyPlan()
    plans.set(id, plan)
    return plan
  }
  for (const row of steps)
    of(row.piece_id).steps.push({
      ...stepOf(row, facesOf.get(row.id) ?? [], shelf),
      laid: laid.get(row.id) ?? [],
      spells: spells.get(row.id) ?? [],
    })
  for (const file of files) {
    const plan = plans.get(file.piece.id)
    if (!plan || strangeInPlan(plan)) continue
    plan.waits = waitsIn(
      plan.steps,
      said.filter(r => r.piece_id === file.piece.id),
      file,
    )
  }
  for (const o of overrules) of(o.piece_id).overruled.set(`${o.rule}|${o.step_key}`, { word: o.word, by: o.by_name })
  return plans
}

export async function readPlan(on: Db, file: Planned): Promise<StoredPlan> {
  const { id } = file.piece
  return (await readPlans(on, { where: 'one', id }, [file])).get(id) ?? emptyPlan()
}

/** A title is stored only where it was typed. */
export const typedTitle = (step: Pick<Step, 'title' | 'typed'>): string =>
  step.typed.includes('title') ? step.title : ''

export async function insertStep(tx: Db, pieceId: number, step: Step, position: number): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO plan_step (
        piece_id, step_key, position, kind, title, product, product_id, grits, method, coat, passes,
        attended_min, amount_ml,
        fields, typed, why, gate_slug, gate_look, gate_fails, gate_fallback, gate_chance
      )
        VALUES (
          :pieceId, :key, :position, :kind, :title, :product,
          (SELECT product_id FROM product_label WHERE id = :label), :grits, :method, :coat, :passes, :attended_min,
          :amount_ml, :fields, :typed, :why, :gateSlug, :look, :fails, :fallback, :chance
        )`,
    {
      ...step,
      pieceId,
      position,
      faces: undefined,
      gate: undefined,
      grits: step.grits.map(gritName).join(','),
      title: typedTitle(step),
      fields: JSON.stringify(step.fields),
      typed: step.typed.join(),
      amount_ml: step.amount_ml === null ? null : Math.round(step.amount_ml * 100) / 100,
      gateSlug: step.gate?.slug ?? null,
      look: step.gate?.look ?? null,
      fails: step.gate?.fails ?? null,
      fallback: step.gate?.fallback ?? null,
      chance: step.gate?.chance ?? null,
    },
  )
  await insertFaces(tx, id, step.faces)
  return id
}

async function insertFaces(tx: Db, stepId: number, faces: readonly number[]): Promise<void> {
  if (faces.length)
    await tx.run('INSERT INTO plan_step_face (step_id, face_id) VALUES :rows', { rows: faces.map(f => [stepId, f]) })
}

/** The faces that a step is done on. */
export async function writeFaces(tx: Db, stepId: number, faces: readonly number[]): Promise<void> {
  await tx.run('DELETE FROM plan_step_face WHERE step_id = :stepId', { stepId })
  await insertFaces(tx, stepId, faces)
}

/** The minima put in by hand. */
export const leastsOf = (waits: readonly BenchWait[]): Least[] =>
  waits.flatMap(w => (w.least_min === null ? [] : [{ from: w.from, to: w.to, min: w.least_min }]))

/** Keeps the minima put in by hand, and what "not dry yet" held back where both steps are still there. */
export async function writeSaid(
  tx: Db,
  pieceId: number,
  held: readonly BenchWait[],
  leasts: readonly Least[] = leastsOf(held),
): Promise<void> {
  const keys = new Set(
    (await tx.rows<{ step_key: string }>('SELECT step_key FROM plan_step WHERE piece_id = :pieceId', { pieceId })).map(
      r => r.step_key,
    ),
  )
  const said = new Map<string, [string, string, number | null, Date | null]>()
  const of = (from: string, to: string) => said.get(`${from}>${to}`) ?? [from, to, null, null]
  const put = (entry: [string, string, number | null, Date | null]) => said.set(`${entry[0]}>${entry[1]}`, entry)
  for (const { from, to, min } of leasts) put([from, to, min, null])
  for (const { from, to, held_ms } of held) {
    const [, , least] = of(from, to)
    if (held_ms !== null) put([from, to, least, new Date(held_ms)])
  }
  const rows = [...said.values()].filter(([from, to]) => keys.has(from) && keys.has(to))
  await tx.run('DELETE FROM wait_said WHERE piece_id = :pieceId', { pieceId })
  if (rows.length)
    await tx.run('INSERT INTO wait_said (piece_id, from_key, to_key, least_min, held_until) VALUES :rows', {
      rows: rows.map(r => [pieceId, ...r]),
    })
}
