/** Findings that came after the plan was made: what they would change, and taking the change. */
import { canonicalJson, type Json } from '#core/approval'
import type { Finding } from '#core/piece'
import { onPiece } from '../piece/pieces'
import type { PieceFile } from '../piece/rows'
import type { Person } from '../shop/person'
import { aheadOf } from './compose'
import { writeSteps } from './edits'
import { keepKnown, knownOf } from './findings'
import { leastsOf, readPlan, type StoredPlan } from './rows'

const written = (findings: readonly Finding[]) => canonicalJson(findings as unknown as Json)

/** The plan with what was found since; null where nothing was, or it would change nothing. */
async function changedBy(file: PieceFile, plan: StoredPlan) {
  const known = knownOf(file.piece)
  if (!file.choice || !known || written(known) === written(file.facts.findings)) return null
  const made = await inWorker('withFindings', {
    context: file.context,
    before: file.choice,
    known: { ...file.facts, findings: known },
    ...aheadOf(plan),
  })
  return made.added.length + made.gone.length + made.changed.length + made.late.length ? made : null
}

/** What the findings since would change, in titles. */
export async function foundSince(file: PieceFile, plan: StoredPlan) {
  const made = await changedBy(file, plan)
  const titles = (steps: { title: string }[]) => steps.map(s => s.title)
  return (
    made && {
      added: titles(made.added),
      gone: titles(made.gone),
      changed: titles(made.changed),
      late: titles(made.late),
    }
  )
}

/** Takes the change: what has started stays, and so does what was changed by hand. */
export const takeFound = (id: number, rowVersion: number, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    if (file.piece.row_version !== rowVersion) throw stale()
    const plan = await readPlan(tx, file)
    const made = await changedBy(file, plan)
    if (!made) throw fail(409, 'nothing', 'Nothing found since would change this plan.')
    const started = plan.steps.filter(st => st.state !== 'planned')
    const words = plan.steps.filter(st => st.state === 'planned' && st.kind === 'approval')
    const fresh = made.steps.filter(st => st.kind !== 'approval')
    await writeSteps(tx, file, plan, [...started, ...words, ...fresh], leastsOf(plan.waits))
    await keepKnown(tx, file)
    await tx.run('DELETE FROM plan_edit WHERE piece_id = :id', { id })
    await tx.run('UPDATE piece SET row_version = row_version + 1 WHERE id = :id', { id })
    const told = [
      ...made.added.map(s => `+ ${s.title}`),
      ...made.gone.map(s => `− ${s.title}`),
      ...made.changed.map(s => s.title),
    ].join('; ')
    return { kind: 'plan', says: `Plan changed for what was found: ${told || 'nothing'}`, result: { ok: true } }
  })

/** Leaves the plan as it is; what was found is known from now on. */
export const leaveFound = (id: number, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    await keepKnown(tx, file)
    return { kind: 'plan', says: 'The plan stays as it is, with what was found since', result: { ok: true } }
  })
