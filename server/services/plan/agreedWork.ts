/** Work that a client agreed to beside the plan becomes a step of it, so that whoever stands at the bench sees it. */
import type { Step } from '#core/acts'
import { addedStep, withAgreed } from '#core/plan'
import type { Db } from '../../database/db'
import { readPiece } from '../piece/read'
import { writeSteps } from './edits'
import { leastsOf, readPlan } from './rows'

/** Its price stands beside the plan: the step has no minutes of its own until somebody types them. */
export async function addAgreedWork(tx: Db, pieceId: number, { key, says }: { key: string; says: string }) {
  const file = await readPiece(tx, pieceId, true)
  const plan = await readPlan(tx, file)
  const faces = file.faces.filter(f => f.scope === 'refinish').map(f => f.id)
  if (!file.choice || plan.steps.length === 0 || faces.length === 0) return
  const step = addedStep({
    key,
    kind: 'other',
    faces,
    why: 'agreed with the client',
    title: says.slice(0, 120),
    attended_min: 0,
  })
  const ahead = plan.steps.findLastIndex(st => st.state !== 'planned') + 1
  const order = [...plan.steps.slice(0, ahead), ...withAgreed<Step>(plan.steps.slice(ahead), [step])]
  await writeSteps(tx, file, plan, order, leastsOf(plan.waits))
  await tx.run('UPDATE piece SET row_version = row_version + 1 WHERE id = :pieceId', { pieceId })
}
