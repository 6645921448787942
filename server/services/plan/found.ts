/** Findings that came after the plan was made: what they would change, and taking the change. */
import type { Step } from '#core/acts'
import { canonicalJson, type Json } from '#core/approval'
import type { Finding } from '#core/piece'
import type { Db } from '../../database/db'
import { onPiece } from '../piece/pieces'
import type { PieceFile } from '../piece/rows'
import type { Person } from '../shop/person'
import { aheadOf } from './compose'
import { writeSteps } from './edits'
import { keepKnown, knownOf } from './findings'
import { leastsOf, readPlan, type StoredPlan } from './rows'

const written = (findings: readonly Finding[]) => canonicalJson(findings as unknown as Json)

/** The plan with what was found since; null where nothing was, or it would change nothing. */
export async function changedBy(file: PieceFile, plan: StoredPlan) {
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
  const told = toldOf(file)
  return (
    made && {
      added: made.added.map(told),
      gone: made.gone.map(s => s.title),
      changed: made.changed.map(told),
      late: made.late.map(told),
    }
  )
}
/** A step's title, and the faces that it is on where they are not all. */
const toldOf =
  ({ facts }: Pick<PieceFile, 'facts'>) =>
  ({ title, faces }: Pick<Step, 'title' | 'faces'>): string => {
    const all = facts.faces.filter(f => f.scope === 'refinish')
    const its = all.filter(f => faces.includes(f.id))
    return its.length < all.length ? `${title} · ${its.map(f => `${f.part}, ${f.name}`).join('; ')}` : title
  }

/** Takes the change: what has started stays, and so does what was changed by hand. */
export const takeFound = (id: number, rowVersion: number, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    if (file.piece.row_version !== rowVersion) throw stale()
    const plan = await readPlan(tx, file)
    const made = await changedBy(file, plan)
    if (!made) throw fail(409, 'nothing', 'Nothing found since would change this plan.')
    await writeFound(tx, file, plan, made.steps)
    const told = [
      ...made.added.map(s => `+ ${toldOf(file)(s)}`),
      ...made.gone.map(s => `− ${s.title}`),
      ...made.changed.map(toldOf(file)),
    ].join('; ')
    return { kind: 'plan', says: `Plan changed for what was found: ${told || 'nothing'}`, result: { ok: true } }
  })

/** Writes the steps that are still ahead, with what was found worked into them. */
export async function writeFound(tx: Db, file: PieceFile, plan: StoredPlan, ahead: readonly Step[]): Promise<void> {
  const { id } = file.piece
  const started = plan.steps.filter(st => st.state !== 'planned')
  const words = plan.steps.filter(st => st.state === 'planned' && st.kind === 'approval')
  // what has begun since this was worked out stays as it is
  const fresh = ahead.filter(st => st.kind !== 'approval' && !started.some(b => b.key === st.key))
  await writeSteps(tx, file, plan, [...started, ...words, ...fresh], leastsOf(plan.waits))
  await keepKnown(tx, file)
  await tx.run('DELETE FROM plan_edit WHERE piece_id = :id', { id })
  await tx.run('UPDATE piece SET row_version = row_version + 1 WHERE id = :id', { id })
}

/** Leaves the plan as it is; what was found is known from now on. */
export const leaveFound = (id: number, person: Person, at: Date) =>
  onPiece(id, at, person, async (tx, file) => {
    await keepKnown(tx, file)
    return { kind: 'plan', says: 'The plan stays as it is, with what was found since', result: { ok: true } }
  })
