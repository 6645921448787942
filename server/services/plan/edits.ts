import { gritName } from '#core/abrasives'
import type { z } from 'zod'
import { type Least, type Step, titleOf } from '#core/acts'
import { canonicalJson, type Json } from '#core/approval'
import { addedStep, editedStep, productProblem, type StepEdit } from '#core/plan'
import { applyMend, mendOf } from '#core/rules'
import type * as s from '#shared/schemas'
import { db, type Db } from '../../database/db'
import { onPiece } from '../piece/pieces'
import type { PieceFile } from '../piece/rows'
import type { Person } from '../shop/person'
import { verdictsOf } from './judge'
import {
  insertStep,
  leastsOf,
  type PlannedStep,
  readPlan,
  type StoredPlan,
  typedTitle,
  writeFaces,
  writeSaid,
} from './rows'

/** A step as a change keeps it: what a person plans, without what happened; a label only where there is one. */
type Planned = Omit<Step, 'label'> & { label?: number }
const plannedOf = ({
  key,
  kind,
  title,
  faces,
  product,
  label,
  grits,
  method,
  coat,
  passes,
  attended_min,
  amount_ml,
  why,
  gate,
  fields,
  typed,
}: Step): Planned => ({
  key,
  kind,
  title: typed.includes('title') ? title : '',
  faces: [...faces].sort((a, b) => a - b),
  product,
  ...(label === null ? {} : { label }),
  grits: [...grits],
  method,
  coat,
  passes,
  attended_min,
  amount_ml: amount_ml === null ? null : Math.round(amount_ml * 100) / 100,
  why,
  gate,
  fields,
  typed,
})
const written = (steps: readonly Step[]): string => canonicalJson(steps.map(plannedOf) as unknown as Json)
interface Kept {
  steps: Planned[]
  leasts: Least[]
}
const keptOf = (plan: StoredPlan): string =>
  canonicalJson({ steps: plan.steps.map(plannedOf), leasts: leastsOf(plan.waits) } as unknown as Json)

const needPlan = (plan: StoredPlan, file: PieceFile) => {
  if (!file.choice || plan.steps.length === 0) throw fail(409, 'no-plan', 'There is no plan yet. Choose a route first.')
}

/**
 * Makes the stored plan this list of steps. What has started stays as it is.
 * @throws Fail 409 when a started step would change.
 */
export async function writeSteps(
  tx: Db,
  file: PieceFile,
  old: StoredPlan,
  order: readonly Step[],
  leasts: readonly Least[],
): Promise<void> {
  const pieceId = file.piece.id
  const before = new Map(old.steps.map(st => [st.key, st]))
  const live = order.filter(st => before.get(st.key)?.state !== 'skipped')
  const again = await inWorker('complete', { steps: live, context: file.context, choice: file.choice! })
  const done = new Map(again.steps.map(st => [st.key, st]))
  for (const gone of old.steps.filter(st => !order.some(o => o.key === st.key))) {
    if (gone.state !== 'planned') throw fail(409, 'started', `"${gone.title}" has started; a started step is frozen.`)
    await tx.run('DELETE FROM plan_step WHERE id = :id', { id: gone.id })
  }
  for (const [i, given] of order.entries()) {
    const was = before.get(given.key)
    const step = done.get(given.key) ?? given
    const position = (i + 1) * 100
    if (!was) {
      await insertStep(tx, pieceId, step, position)
      continue
    }
    const frozen = was.state !== 'planned'
    if (frozen && written([given]) !== written([was]))
      throw fail(409, 'started', `"${was.title}" has started; a started step is frozen.`)
    if (frozen || (written([step]) === written([was]) && was.position === position)) {
      if (was.position !== position)
        await tx.run('UPDATE plan_step SET position = :position WHERE id = :id', { position, id: was.id })
      continue
    }
    await tx.run(
      `UPDATE plan_step
          SET position = :position, title = :title, attended_min = :attended_min, product = :product,
            product_id = (SELECT product_id FROM product_label WHERE id = :label),
            amount_ml = :amount_ml, grits = :grits, method = :method, fields = :fields, typed = :typed,
            row_version = row_version + (:touched)
          WHERE id = :id`,
      {
        position,
        title: typedTitle(step),
        attended_min: step.attended_min,
        product: step.product,
        label: step.label,
        amount_ml: step.amount_ml === null ? null : Math.round(step.amount_ml * 100) / 100,
        grits: step.grits.map(gritName).join(','),
        method: step.method,
        fields: JSON.stringify(step.fields),
        typed: step.typed.join(),
        touched: written([given]) === written([was]) ? 0 : 1,
        id: was.id,
      },
    )
    if (step.faces.join() !== was.faces.join()) await writeFaces(tx, was.id, step.faces)
  }
  await writeSaid(tx, pieceId, old.waits, leasts)
}

/** Minutes, amounts and waits of a plan worked out again, where what they follow from has changed. */
export async function planAgain(
  tx: Db,
  file: PieceFile,
  plan: StoredPlan,
  change: (steps: readonly Step[]) => readonly Step[] = steps => steps,
): Promise<void> {
  if (!file.choice || plan.steps.length === 0) return
  await writeSteps(tx, file, plan, change(plan.steps), leastsOf(plan.waits))
}

/** `leasts`: minima of waits put in by hand; as they were where nothing is said. */
interface Changed {
  steps: Step[]
  says: string
  leasts?: Least[]
}
/** One change of a plan: written, logged, and kept so that it can be taken back. */
const editPlan = (id: number, person: Person, at: Date, change: (plan: StoredPlan, file: PieceFile) => Changed) =>
  onPiece(id, at, person, async (tx, file) => {
    const plan = await readPlan(tx, file)
    needPlan(plan, file)
    const { steps, says, leasts = leastsOf(plan.waits) } = change(plan, file)
    await writeSteps(tx, file, plan, steps, leasts)
    const after = await readPlan(tx, file)
    await tx.run('DELETE FROM plan_edit WHERE piece_id = :id AND undone', { id })
    await tx.run(
      `INSERT INTO plan_edit (piece_id, says, steps_before, steps_after, person_id, at)
          VALUES (:id, :says, :before, :after, :personId, :at)`,
      { id, says: says.slice(0, 500), before: keptOf(plan), after: keptOf(after), personId: person.id, at },
    )
    return { kind: 'plan', says, result: { ok: true } }
  })

interface EditRow {
  id: number
  says: string
  steps_before: string
  steps_after: string
}
const LAST = {
  undo: 'SELECT * FROM plan_edit WHERE piece_id = :id AND NOT undone ORDER BY id DESC LIMIT 1',
  redo: 'SELECT * FROM plan_edit WHERE piece_id = :id AND undone ORDER BY id LIMIT 1',
} as const

/** What undo and redo would do now, in words; null where nothing can be taken back. */
export async function readEdits(id: number, on: Db = db()): Promise<{ undo: string | null; redo: string | null }> {
  return {
    undo: (await on.row<EditRow>(LAST.undo, { id }))?.says ?? null,
    redo: (await on.row<EditRow>(LAST.redo, { id }))?.says ?? null,
  }
}

/** Takes the last change of a plan back, or makes it again. */
export const stepBack = (id: number, which: 'undo' | 'redo', person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    const plan = await readPlan(tx, file)
    needPlan(plan, file)
    const edit = await tx.row<EditRow>(LAST[which], { id })
    if (!edit)
      throw fail(
        409,
        'nothing',
        which === 'undo' ? 'There is nothing to take back.' : 'There is nothing to make again.',
      )
    const [from, to] = which === 'undo' ? [edit.steps_after, edit.steps_before] : [edit.steps_before, edit.steps_after]
    if (keptOf(plan) !== from)
      throw fail(409, 'changed', 'The plan has gone on since; this can no longer be taken back.')
    const kept = JSON.parse(to) as Kept
    const steps = kept.steps.map((st): Step => ({ label: null, ...st }))
    await writeSteps(tx, file, plan, steps, kept.leasts)
    await tx.run('UPDATE plan_edit SET undone = :undone WHERE id = :id', { undone: which === 'undo', id: edit.id })
    return {
      kind: 'plan',
      says: `${which === 'undo' ? 'Taken back' : 'Made again'}: ${edit.says}`,
      result: { ok: true },
    }
  })

const freshKey = (plan: StoredPlan, stem: string, at: Date) =>
  `${stem}.${plan.steps.filter(st => st.key.startsWith(stem)).length + 1}.${Math.floor(at.getTime() / 1000) % 100000}`

/** Where a step may go: after this one, and never before what has started. */
function placeAfter(steps: readonly PlannedStep[], after: number | null): number {
  const place = after === null ? 0 : steps.findIndex(st => st.id === after) + 1
  if (after !== null && place === 0) throw notFound('step')
  const next = steps[place]
  if (next && next.state !== 'planned' && next.state !== 'skipped')
    throw fail(409, 'started', 'What comes next has started; choose a place further down.')
  return place
}

type StepBody = Pick<
  Partial<z.infer<typeof s.addStep>>,
  keyof z.infer<typeof s.changeStep> & keyof z.infer<typeof s.addStep>
>
/** What a form sent, as a change of a step; what was left blank follows from the act. */
const editOf = ({
  title,
  attendedMin,
  amountMl,
  product,
  grits,
  method,
  coat,
  fields,
  follow,
}: StepBody & Pick<z.infer<typeof s.changeStep>, 'follow'> & { coat?: number | null }): StepEdit => ({
  title,
  attended_min: attendedMin,
  amount_ml: amountMl,
  product,
  grits,
  method,
  coat,
  fields,
  follow,
})
/** @throws Fail 422 when the step's act needs a product, or another one. */
function refuseProduct(step: Step) {
  const problem = productProblem(step)
  if (problem) throw fail(422, 'invalid', problem, { product: problem })
}

export const addStep = (id: number, input: z.infer<typeof s.addStep>, person: Person, at: Date) =>
  editPlan(id, person, at, (plan, file) => {
    const faces = new Set(file.faces.map(f => f.id))
    if (input.faces.some(f => !faces.has(f)))
      throw fail(422, 'invalid', 'A face is not on this piece.', { faces: 'Choose faces of this piece.' })
    const place = placeAfter(plan.steps, input.after)
    const step = addedStep({
      key: freshKey(plan, `hand-${input.kind}`, at),
      kind: input.kind,
      faces: input.faces,
      why: `added by ${person.name}`,
      ...editOf(input),
    })
    refuseProduct(step)
    const said = titleOf(step, file.context)
    return { steps: [...plan.steps.slice(0, place), step, ...plan.steps.slice(place)], says: `Step added: ${said}` }
  })

async function stepPiece(stepId: number): Promise<number> {
  const row = await db().row<{ piece_id: number }>('SELECT piece_id FROM plan_step WHERE id = :stepId', { stepId })
  if (!row) throw notFound('step')
  return row.piece_id
}
function openStep(plan: StoredPlan, stepId: number, rowVersion: number): PlannedStep {
  const step = plan.steps.find(st => st.id === stepId)
  if (!step) throw notFound('step')
  if (step.rowVersion !== rowVersion) throw stale()
  if (step.state !== 'planned') throw fail(409, 'started', 'A step that was started is frozen; undo it first.')
  if (step.kind === 'approval') throw fail(422, 'client', "The client's word cannot be moved or removed.")
  return step
}

/** Changes what a step is, or (`after`) where it stands. */
export async function changeStep(stepId: number, input: z.infer<typeof s.changeStep>, person: Person, at: Date) {
  return editPlan(await stepPiece(stepId), person, at, (plan, file) => {
    const step = openStep(plan, stepId, input.rowVersion)
    const { after } = input
    const next = editedStep(step, editOf(input))
    if (input.product !== undefined) refuseProduct(next)
    const said = titleOf(next, file.context)
    if (after === undefined) {
      const typed = next.typed.includes('attended_min') ? `, ${next.attended_min} min` : ''
      return { steps: plan.steps.map(st => (st.id === stepId ? next : st)), says: `Step changed: ${said}${typed}` }
    }
    const rest = plan.steps.filter(st => st.id !== stepId)
    const place = placeAfter(rest, after)
    return { steps: [...rest.slice(0, place), next, ...rest.slice(place)], says: `Step moved: ${said}` }
  })
}

export async function removeStep(stepId: number, rowVersion: number, person: Person, at: Date) {
  return editPlan(await stepPiece(stepId), person, at, plan => {
    const step = openStep(plan, stepId, rowVersion)
    return { steps: plan.steps.filter(st => st.id !== stepId), says: `Step removed: ${step.title}` }
  })
}

/** Splits a step in two: these faces become a step of their own, right after the rest. */
export async function splitStep(stepId: number, input: z.infer<typeof s.splitStep>, person: Person, at: Date) {
  return editPlan(await stepPiece(stepId), person, at, (plan, file) => {
    const step = openStep(plan, stepId, input.rowVersion)
    const some = step.faces.filter(f => input.faces.includes(f))
    const rest = step.faces.filter(f => !input.faces.includes(f))
    if (some.length === 0 || rest.length === 0)
      throw fail(422, 'invalid', "Choose some of this step's faces, not all of them.", { faces: 'Some, not all.' })
    const names = file.faces.filter(f => some.includes(f.id)).map(f => `${f.part}, ${f.name}`)
    const apart: Step = {
      label: null,
      ...plannedOf(step),
      key: freshKey(plan, step.key, at),
      faces: some,
    }
    return {
      steps: plan.steps.flatMap((st): Step[] => (st.id === stepId ? [{ ...st, faces: rest }, apart] : [st])),
      says: `Step split: ${step.title}; apart: ${names.join(' · ')}`,
    }
  })
}

/** Mends a verdict by its mechanical mend: a step put in, or one changed. Started steps are never touched. */
export const mendPlan = (id: number, input: z.infer<typeof s.mendVerdict>, person: Person, at: Date) =>
  editPlan(id, person, at, (plan, file) => {
    const verdict = verdictsOf(file, plan, at).find(v => v.rule === input.rule && v.step === input.stepKey)
    if (!verdict) throw notFound('verdict')
    if (verdict.wait) {
      const { from, min } = verdict.wait
      return {
        steps: plan.steps,
        leasts: [
          ...leastsOf(plan.waits).filter(l => l.from !== from || l.to !== verdict.step),
          { from, to: verdict.step, min },
        ],
        says: `Mended: ${verdict.says}. ${mendOf(verdict)}`,
      }
    }
    const mended = applyMend(plan.steps, verdict, freshKey(plan, 'mend', at))
    if (!mended) throw fail(409, 'by-hand', `This is mended by hand. ${verdict.mend}`)
    return { steps: mended, says: `Mended: ${verdict.says}. ${mendOf(verdict)}` }
  })
