import { mustAskAgain } from '#core/approval'
import { ROUTE_NAMES } from '#core/piece'
import { estimate } from '#core/estimate'
import { readPrices, readRates } from '../plan/asking'
import { setGround } from '../plan/buildUps'
import { keepKnown } from '../plan/findings'
import { insertStep, writeFaces, writeSaid } from '../plan/rows'
import { log } from '../platform/log'
import { type Act, repeatBefore, type Result } from './act'

/** A failed gate: the rest of the plan gives way to the fallback's, from the surface as it now is. */
export async function fallBack(act: Act): Promise<Result> {
  const { tx, file, plan, step, now } = act
  const id = file.piece.id
  const choice = file.choice!
  if (!step.gate!.fallback) return repeatBefore(act)
  const done = plan.steps.filter(st => st.state === 'done' || st.state === 'running' || st.id === step.id)
  const left = plan.steps.filter(st => st.state === 'planned' && st.id !== step.id)
  const rates = await readRates(tx)
  const price = await readPrices(tx)
  const [quiet, asking] = await inWorker('fallBack', { step, done, left, context: file.context, choice })
  const worst_minor = estimate(quiet.live.steps, rates, price).total_minor
  const askAgain = mustAskAgain(file.piece.accepted_worst_minor ?? 0, worst_minor)
  const { over, live } = askAgain ? asking : quiet
  for (const key of over.skip)
    await tx.run(
      "UPDATE plan_step SET state = 'skipped', row_version = row_version + 1 WHERE piece_id = :id AND step_key = :key",
      { id, key },
    )
  for (const { key, faces } of over.narrow) {
    await writeFaces(tx, left.find(st => st.key === key)!.id, faces)
    const { attended_min, amount_ml } = live.steps.find(st => st.key === key)!
    await tx.run(
      `UPDATE plan_step
          SET attended_min = :attended_min, amount_ml = :amount_ml, row_version = row_version + 1
          WHERE piece_id = :id AND step_key = :key`,
      { id, key, attended_min, amount_ml },
    )
  }
  const from = (plan.steps.at(-1)?.position ?? 0) + 100
  for (const [i, st] of over.fresh.entries())
    await insertStep(tx, id, live.steps.find(l => l.key === st.key) ?? st, from + i * 100)
  await writeSaid(tx, id, plan.waits)
  await tx.run('DELETE FROM plan_edit WHERE piece_id = :id', { id })
  await keepKnown(tx, file)
  await tx.run('UPDATE piece SET row_version = row_version + 1 WHERE id = :id', { id })
  for (const b of over.choice.buildUps) await setGround(tx, b.id, b)
  const says = askAgain
    ? `Goes over to "${ROUTE_NAMES[step.gate!.fallback]}". It may cost ${Math.round(worst_minor / 100)}, more ` +
      'than the worst ' +
      'that was accepted: the client must be asked again.'
    : `Goes over to "${ROUTE_NAMES[step.gate!.fallback]}", inside the worst price that was accepted.`
  await log(tx, { pieceId: id, stepId: step.id, kind: 'gate', says, at: now, recordedAt: now, personId: act.person.id })
  return { ok: true, says, askAgain }
}
