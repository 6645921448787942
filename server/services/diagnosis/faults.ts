/** Acts on a fault: seen, asked about, mended in the plan, its cause found; each can be taken back. */
import type { z } from 'zod'
import { MENDS, mendSteps, signOf } from '#core/diagnose'
import type * as s from '#shared/schemas'
import { db, type Db } from '../../database/db'
import { readExtras } from '../client/extras'
import { ownerOf } from '../piece/findings'
import { onPiece } from '../piece/pieces'
import type { PieceFile } from '../piece/rows'
import { costOf } from '../plan/cost'
import { writeSteps } from '../plan/edits'
import { leastsOf, readPlan, type StoredPlan } from '../plan/rows'
import type { Person } from '../shop/person'
import { judgedBy, knownOf } from './known'
import { mendAt } from './mendAt'
import { type Answer, type FaultRow, readFault } from './rows'

const pieceOf = (id: number) => ownerOf('SELECT piece_id FROM fault WHERE id = :id', id, 'fault')

/** Something is seen at a step, or nowhere in particular. */
export const see = (pieceId: number, input: z.infer<typeof s.seeFault>, person: Person, at: Date) =>
  onPiece(pieceId, at, person, async (tx, file) => {
    const plan = await readPlan(tx, file)
    const step = input.stepId === null ? null : (plan.steps.find(st => st.id === input.stepId) ?? null)
    if (input.stepId !== null && !step) throw notFound('step')
    const facts = await knownOf(tx, file, plan, step)
    const made = await tx.run(
      `INSERT INTO fault (piece_id, step_id, sign, kind, product, facts, said, person_id, at)
          VALUES (:pieceId, :stepId, :sign, :kind, :product, :facts, '[]', :personId, :at)`,
      {
        ...{ pieceId, stepId: step?.id ?? null, sign: input.sign, kind: step?.kind ?? null },
        ...{
          product: step ? judgedBy(plan, step).product : null,
          facts: JSON.stringify(facts),
          personId: person.id,
          at,
        },
      },
    )
    const where = step ? ` at "${step.title}"` : ''
    return { kind: 'note', says: `Seen: ${signOf(input.sign).name}${where}`, result: { id: made.id } }
  })

/** One change of a fault that nobody else changed meanwhile. */
async function onFault<T>(
  id: number,
  rowVersion: number,
  person: Person,
  at: Date,
  change: (tx: Db, fault: FaultRow, file: PieceFile) => Promise<{ kind: string; says: string; result: T }>,
): Promise<T> {
  return onPiece(await pieceOf(id), at, person, async (tx, file) => {
    const fault = await readFault(tx, id, true)
    if (fault.row_version !== rowVersion) throw stale()
    await tx.run('UPDATE fault SET row_version = row_version + 1 WHERE id = :id', { id })
    return change(tx, fault, file)
  })
}

/** An answer, yes, no or not known; `undo`: it was not meant. */
export const say = (id: number, input: z.infer<typeof s.sayOfFault>, person: Person, at: Date) =>
  onFault(id, input.rowVersion, person, at, async (tx, fault) => {
    const sign = signOf(fault.sign)
    if (!Object.hasOwn(sign.asks, input.ask))
      throw fail(422, 'unknown-reference', 'This question does not belong to this sign.', { ask: 'Another sign.' })
    const rest = fault.said.filter(a => a.ask !== input.ask)
    const said: Answer[] = input.undo ? rest : [...rest, { ask: input.ask, yes: input.yes }]
    await tx.run('UPDATE fault SET said = :said WHERE id = :id', { id, said: JSON.stringify(said) })
    const word = { true: 'yes', false: 'no', null: 'not known' }[String(input.yes) as 'true']
    const says = `${sign.name}: ${sign.asks[input.ask]!.asks} ${input.undo ? 'taken back' : word}`
    return { kind: 'note', says, result: { ok: true } }
  })

/** Where a mend goes: after the step at which it showed, and after all that has begun. */
function placeFor({ steps }: StoredPlan, stepId: number | null): number {
  const own = steps.findIndex(st => st.id === stepId)
  const begun = steps.findLastIndex(st => st.state === 'done' || st.state === 'running')
  return Math.max(own, begun) + 1
}
/** The mend goes into the plan as steps of it. */
export const mend = (id: number, input: z.infer<typeof s.mendFault>, person: Person, at: Date) =>
  onFault(id, input.rowVersion, person, at, async (tx, fault, file) => {
    const plan = await readPlan(tx, file)
    if (fault.mended_at) throw fail(409, 'nothing', 'Its mend is in the plan already. Change its steps under Plan.')
    const own = plan.steps.find(st => st.id === fault.step_id)
    const faces = own?.faces ?? file.faces.filter(f => f.scope === 'refinish').map(f => f.id)
    if (faces.length === 0 || !file.choice)
      throw fail(409, 'no-plan', 'There is no plan yet. Choose a route first; then its mend goes into the plan.')
    const fresh = mendSteps(MENDS[input.mend], mendAt(file, plan, own, faces), `mend-${id}`)
    if (fresh.length === 0 && MENDS[input.mend].steps.length > 0)
      throw fail(409, 'in-plan', 'The plan sands and coats it again next: that mends it.')
    if (fresh.length === 0)
      throw fail(409, 'anew', 'This begins anew: choose another ground for these faces under Route.')
    const place = placeFor(plan, fault.step_id)
    const order = [...plan.steps.slice(0, place), ...fresh, ...plan.steps.slice(place)]
    await writeSteps(tx, file, plan, order, leastsOf(plan.waits))
    await tx.run('DELETE FROM plan_edit WHERE piece_id = :id', { id: file.piece.id })
    await tx.run(
      "UPDATE piece SET row_version = row_version + 1, state = IF(state = 'ready', 'active', state) WHERE id = :id",
      { id: file.piece.id },
    )
    await tx.run('UPDATE fault SET mend = :mend, mended_at = :at WHERE id = :id', { id, mend: input.mend, at })
    const { foreseen_minor } = await costOf(
      file.piece.id,
      await readPlan(tx, file),
      await readExtras(tx, file.piece.id),
    )
    const worst = file.piece.accepted_worst_minor
    return {
      kind: 'plan',
      says: `Mend of ${signOf(fault.sign).name}: ${MENDS[input.mend].says}`,
      /** the client must be asked: it passes the worst that was agreed */
      result: { ok: true, beyond: worst !== null && foreseen_minor > worst },
    }
  })

/** Takes a mend out of the plan again, while none of it has begun. */
export const unmend = (id: number, rowVersion: number, person: Person, at: Date) =>
  onFault(id, rowVersion, person, at, async (tx, fault, file) => {
    const plan = await readPlan(tx, file)
    const its = plan.steps.filter(st => st.key.startsWith(`mend-${id}-`))
    if (!fault.mended_at) throw fail(409, 'nothing', 'No mend of this is in the plan.')
    const begun = its.find(st => st.state !== 'planned')
    if (begun) throw fail(409, 'started', `"${begun.title}" has started; take that back first.`)
    await writeSteps(
      tx,
      file,
      plan,
      plan.steps.filter(st => !its.includes(st)),
      leastsOf(plan.waits),
    )
    await tx.run('UPDATE piece SET row_version = row_version + 1 WHERE id = :id', { id: file.piece.id })
    await tx.run('UPDATE fault SET mend = NULL, mended_at = NULL WHERE id = :id', { id })
    return { kind: 'plan', says: `Mend taken out: ${signOf(fault.sign).name}`, result: { ok: true } }
  })

/** The cause in the end; null: it was none of these, or is open again. Kept for the next plan where that is wanted. */
export const found = (id: number, input: z.infer<typeof s.foundCause>, person: Person, at: Date) =>
  onFault(id, input.rowVersion, person, at, async (tx, fault) => {
    const sign = signOf(fault.sign)
    if (input.cause !== null && !Object.hasOwn(sign.causes, input.cause))
      throw fail(422, 'unknown-reference', 'This cause does not belong to this sign.', { cause: 'Another sign.' })
    await tx.run(
      `UPDATE fault
          SET cause = :cause, found_at = IF(:cause IS NULL, NULL, :at), keep_next = :keep, note = :note
          WHERE id = :id`,
      { id, at, cause: input.cause, keep: input.cause !== null && input.keepNext, note: input.note },
    )
    const says = input.cause === null ? 'cause open again' : sign.causes[input.cause]!.says
    return { kind: 'note', says: `${sign.name}: ${says}${input.note ? `. ${input.note}` : ''}`, result: { ok: true } }
  })

/** A fault that was none, or a mis-tap: gone, while nothing follows from it. */
export const drop = (id: number, rowVersion: number, person: Person, at: Date) =>
  onFault(id, rowVersion, person, at, async (tx, fault) => {
    if (fault.mended_at) throw fail(409, 'mended', 'Its mend is in the plan. Take that out first.')
    await tx.run('DELETE FROM fault WHERE id = :id', { id })
    return { kind: 'note', says: `Not so: ${signOf(fault.sign).name}`, result: { ok: true } }
  })

/** What was learnt from a fault is minded in this piece. */
export const mind = (pieceId: number, { faultId }: z.infer<typeof s.mindFault>, person: Person, at: Date) =>
  onPiece(pieceId, at, person, async tx => {
    const fault = await readFault(tx, faultId)
    await tx.run(
      'INSERT IGNORE INTO minded (piece_id, fault_id, person_id, at) VALUES (:pieceId, :faultId, :personId, :at)',
      { pieceId, faultId, personId: person.id, at },
    )
    const next = fault.cause ? signOf(fault.sign).causes[fault.cause]!.next : ''
    return { kind: 'note', says: `Minded: ${next}`, result: { ok: true } }
  })

/** A grade of the shop's own; the usual one again where it is the same. */
export async function grade(input: z.infer<typeof s.ownGrade>): Promise<{ ok: true }> {
  const { sign, ask, cause, grade: own } = input
  const usual = signOf(sign).asks[ask]?.yes[cause] ?? 'half'
  if (!Object.hasOwn(signOf(sign).asks, ask) || !Object.hasOwn(signOf(sign).causes, cause))
    throw fail(422, 'unknown-reference', 'This question or cause does not belong to this sign.')
  if (own === usual)
    await db().run('DELETE FROM own_grade WHERE sign = :sign AND ask = :ask AND cause = :cause', { sign, ask, cause })
  else
    await db().run('REPLACE INTO own_grade (sign, ask, cause, grade) VALUES (:sign, :ask, :cause, :own)', {
      sign,
      ask,
      cause,
      own,
    })
  return { ok: true }
}
