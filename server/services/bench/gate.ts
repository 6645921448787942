import { mustAskAgain } from '#core/approval'
import type { Seen } from '#core/acts'
import type { BuildUp } from '#core/build'
import { ROUTE_NAMES } from '#core/piece'
import { estimate } from '#core/estimate'
import { againAfter } from '#core/plan'
import type { Db } from '../../database/db'
import { overtakePlan } from '../client/overtake'
import { readPrices, readRates } from '../plan/asking'
import { setGround } from '../plan/buildUps'
import { keepKnown } from '../plan/findings'
import { insertStep, type PlannedStep, writeFaces, writeSaid } from '../plan/rows'
import { log } from '../platform/log'
import { readShop } from '../shop/rows'
import type { Act, Result } from './act'

/** What a failed gate changed. */
interface Back {
  skipped: string[]
  narrowed: Pick<PlannedStep, 'key' | 'faces' | 'attended_min' | 'amount_ml'>[]
  fresh: string[]
  grounds: Pick<BuildUp, 'id' | 'ground' | 'ending'>[]
  asks: boolean
}
const keepBack = ({ tx, step }: Act, back: Back) =>
  tx.run('INSERT INTO gate_back (step_id, content) VALUES (:id, :content)', {
    id: step.id,
    content: JSON.stringify(back),
  })

/** A gate without a fallback: the work before it once more, and the gate again. */
async function onceMore(act: Act, seen: Seen | null): Promise<Result> {
  const { tx, file, plan, step } = act
  const index = plan.steps.findIndex(st => st.id === step.id)
  const earlier = plan.steps.filter(st => st.gate && firstKey(st.key) === firstKey(step.key))
  const round = earlier.length + 1
  const done = plan.steps.slice(0, index).filter(st => st.state === 'done')
  const again = againAfter(step, done, seen).map(st => ({ ...st, key: `${firstKey(st.key)}~${round}` }))
  const { steps: placed } = await inWorker('complete', { steps: again, context: file.context, choice: file.choice! })
  await spread(tx, file.piece.id)
  for (const [i, st] of placed.entries())
    await insertStep(tx, file.piece.id, st, (index + 1) * APART + Math.round(((i + 1) * APART) / (placed.length + 1)))
  await keepBack(act, { skipped: [], narrowed: [], fresh: again.map(st => st.key), grounds: [], asks: false })
  return { ok: true, says: `Once more: ${placed.map(st => st.title).join(', ')}` }
}
/** The key that a step had before it was done once more. */
const firstKey = (key: string) => key.replaceAll(/~\d+/g, '')
const APART = 100
/** Steps apart again, so that others go between. */
async function spread(tx: Db, pieceId: number) {
  const rows = await tx.rows<{ id: number }>(
    'SELECT id FROM plan_step WHERE piece_id = :pieceId ORDER BY position, id',
    { pieceId },
  )
  for (const [i, { id }] of rows.entries())
    await tx.run('UPDATE plan_step SET position = :position WHERE id = :id', { id, position: (i + 1) * APART })
}

/**
 * A failed gate judged by mistake: what it changed is as it was, and the question that it asked falls away. Refused
 * once a step of what followed has started, or the client has answered.
 */
export async function gateBack({ tx, file, plan, step }: Act): Promise<void> {
  const row = await tx.row<{ content: string | Back }>('SELECT content FROM gate_back WHERE step_id = :id', {
    id: step.id,
  })
  if (!row) throw fail(409, 'gate', 'This gate failed before it could be taken back. Change the plan by hand.')
  const back = typeof row.content === 'string' ? (JSON.parse(row.content) as Back) : row.content
  const fresh = plan.steps.filter(st => back.fresh.includes(st.key))
  const begun = fresh.find(st => st.state !== 'planned')
  if (begun?.kind === 'approval')
    throw fail(409, 'answered', 'The client has answered about this since. Ask anew under Client.')
  if (begun) throw fail(409, 'later', `"${begun.title}" has started since; take that back first.`)
  for (const { id } of fresh) await tx.run('DELETE FROM plan_step WHERE id = :id', { id })
  for (const key of back.skipped)
    await tx.run(
      "UPDATE plan_step SET state = 'planned', row_version = row_version + 1 WHERE piece_id = :id AND step_key = :key",
      { id: file.piece.id, key },
    )
  for (const { key, faces, attended_min, amount_ml } of back.narrowed) {
    const its = plan.steps.find(st => st.key === key)
    if (!its) continue
    await writeFaces(tx, its.id, faces)
    await tx.run(
      `UPDATE plan_step
          SET attended_min = :attended_min, amount_ml = :amount_ml, row_version = row_version + 1
          WHERE id = :id`,
      { id: its.id, attended_min, amount_ml },
    )
  }
  for (const { id, ...b } of back.grounds) await setGround(tx, id, b)
  if (back.asks) await overtakePlan(tx, file.piece.id)
  await tx.run('DELETE FROM gate_back WHERE step_id = :id', { id: step.id })
  await tx.run('UPDATE piece SET row_version = row_version + 1 WHERE id = :id', { id: file.piece.id })
}

/**
 * A failed gate: the rest of the plan gives way to the fallback's, from the surface as it now is. `seen`: what showed,
 * where that can be worked once more instead.
 */
export async function fallBack(act: Act, seen: Seen | null = null): Promise<Result> {
  const { tx, file, plan, step, now } = act
  const id = file.piece.id
  const choice = file.choice!
  if (!step.gate!.fallback || seen) return onceMore(act, seen)
  const done = plan.steps.filter(st => st.state === 'done' || st.state === 'running' || st.id === step.id)
  const left = plan.steps.filter(st => st.state === 'planned' && st.id !== step.id)
  const rates = await readRates(tx)
  const price = await readPrices(tx)
  const [quiet, asking] = await inWorker('fallBack', { step, done, left, context: file.context, choice })
  const worst_minor = estimate(quiet.live.steps, rates, price).total_minor
  const askAgain = mustAskAgain(file.piece.accepted_worst_minor ?? 0, worst_minor)
  const { over, live } = askAgain ? asking : quiet
  await keepBack(act, {
    skipped: over.skip,
    narrowed: over.narrow.map(({ key }) => {
      const was = left.find(st => st.key === key)!
      return { key, faces: was.faces, attended_min: was.attended_min, amount_ml: was.amount_ml }
    }),
    fresh: over.fresh.map(st => st.key),
    grounds: choice.buildUps.map(({ id: buildUp, ground, ending }) => ({ id: buildUp, ground, ending })),
    asks: askAgain,
  })
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
    ? `Goes over to "${ROUTE_NAMES[step.gate!.fallback]}". It may cost ${Math.round(worst_minor / 100)} ` +
      `${(await readShop(tx)).currency}, more than the worst that was accepted: the client must be asked again.`
    : `Goes over to "${ROUTE_NAMES[step.gate!.fallback]}", inside the worst price that was accepted.`
  await log(tx, { pieceId: id, stepId: step.id, kind: 'gate', says, at: now, recordedAt: now, personId: act.person.id })
  return { ok: true, says, askAgain }
}
