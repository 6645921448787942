/** What a client's answer does: exactly what was worked out when the question was asked. */
import type { QuestionShown, Reply, Sum } from '#core/approval'
import { ITEM_ANSWERS, type ItemAnswer } from '#core/parts'
import type { Db } from '../../database/db'
import { readPiece } from '../piece/read'
import { addAgreedWork } from '../plan/agreedWork'
import { beganWork, writeSurface } from '../plan/choose'
import { keepKnown } from '../plan/findings'
import { writeFound } from '../plan/found'
import { readPlan } from '../plan/rows'
import type { Effect } from './compose'
import { addExtra } from './extras'
import type { ApprovalRow, QuestionItemRow } from './rows'

interface Answered {
  tx: Db
  a: ApprovalRow
  item: QuestionItemRow
  reply: Reply
  by: string
  at: Date
  /** does the client also want what was found done? */
  withFound: boolean
}

async function takeSurface({ tx, a, reply, at, withFound }: Answered, effect: Effect & { kind: 'surface' }) {
  if (typeof reply !== 'number') return
  const file = await readPiece(tx, a.piece_id, true)
  const plan = await readPlan(tx, file)
  const surface = (withFound ? effect.with : effect.without)[reply] ?? null
  if (surface) {
    if (beganWork(plan)) throw fail(409, 'started', 'Work has started since. The shop will ask again.')
    await writeSurface(tx, file, surface)
  } else if (withFound && effect.found) await writeFound(tx, file, plan, effect.found)
  await tx.run(
    `UPDATE plan_step
        SET state = 'done', started_at = :asked, finished_at = :at, row_version = row_version + 1
        WHERE piece_id = :pieceId AND kind = 'approval' AND state = 'planned'
        ORDER BY position
        LIMIT 1`,
    { asked: a.asked_at, at, pieceId: a.piece_id },
  )
}
async function takeFound({ tx, a, reply }: Answered, { steps }: Effect & { kind: 'found' }) {
  const file = await readPiece(tx, a.piece_id, true)
  // no: the plan stays, and what was found is known from now on
  if (typeof reply === 'number' && steps) await writeFound(tx, file, await readPlan(tx, file), steps)
  else if (reply === 'no') await keepKnown(tx, file)
}

const WORK = { replace: 'Replace', match: 'Have a match made for', leave: 'Leave' } as const satisfies Record<
  ItemAnswer,
  string
>
async function takeHardware({ tx, a, item, reply, at }: Answered, effect: Effect & { kind: 'hardware' }) {
  if (typeof reply !== 'number') return
  const answer = ITEM_ANSWERS[reply]
  await tx.run('UPDATE item SET answer = :answer, row_version = row_version + 1 WHERE id = :itemId', {
    answer,
    itemId: effect.itemId,
  })
  const price_minor = effect.prices[reply] ?? 0
  const extra = { pieceId: a.piece_id, questionItemId: item.id, says: `${effect.name}: ${answer}`, price_minor }
  if (price_minor > 0) await addExtra(tx, { ...extra, days: effect.days[reply] ?? 0 }, at)
  // what stays as it is asks for no work
  if (answer !== 'leave')
    await addAgreedWork(tx, a.piece_id, { key: `agreed-${item.id}`, says: `${WORK[answer!]} ${effect.name}` })
}

async function takeColour({ tx, a, reply, by, at }: Answered, { bandIds }: Effect & { kind: 'colour' }) {
  if (typeof reply !== 'number') return
  await tx.run(
    'UPDATE band SET approved_at = :at, approved_by = :by, row_version = row_version + 1 WHERE id = :bandId',
    {
      ...{ at, by },
      bandId: bandIds[reply],
    },
  )
  await tx.run("UPDATE piece SET colour_sample = 'under-finish', row_version = row_version + 1 WHERE id = :pieceId", {
    pieceId: a.piece_id,
  })
}

/** What one answer does, beside being written down. */
export async function takeEffect(given: Answered, effect: Effect): Promise<void> {
  const { tx, a, item, reply, at } = given
  if (effect.kind === 'surface') return takeSurface(given, effect)
  if (effect.kind === 'found') return takeFound(given, effect)
  if (effect.kind === 'hardware') return takeHardware(given, effect)
  if (effect.kind === 'colour') return takeColour(given, effect)
  if (typeof reply !== 'number') return
  if (effect.kind === 'work') {
    await addExtra(tx, { ...effect, pieceId: a.piece_id, questionItemId: item.id }, at)
    await addAgreedWork(tx, a.piece_id, { key: `agreed-${item.id}`, says: effect.says })
  } else if (effect.kind === 'cost')
    await tx.run(
      'UPDATE piece SET accepted_worst_minor = :most_minor, row_version = row_version + 1 WHERE id = :pieceId',
      { most_minor: effect.most_minor, pieceId: a.piece_id },
    )
  else
    await tx.run('UPDATE piece SET due_on = :dueOn, row_version = row_version + 1 WHERE id = :pieceId', {
      dueOn: effect.dueOn,
      pieceId: a.piece_id,
    })
}

/** Effects of a question from before they were kept: a yes to the plan, a word about hardware, a band. */
export function formerEffects(items: readonly QuestionItemRow[], { items: shown }: QuestionShown): Effect[] {
  return items.map((i): Effect => {
    const name = shown.find(x => x.no === i.no)?.title ?? ''
    if (i.item_id !== null) return { kind: 'hardware', itemId: i.item_id, name, prices: [0, 0, 0], days: [0, 0, 0] }
    if (i.band_id !== null) return { kind: 'colour', bandIds: [i.band_id] }
    return { kind: 'surface', without: [null], with: [null], found: null }
  })
}

/** The price that counts from now on, and the worst that was accepted. */
export const agree = (tx: Db, pieceId: number, { likely_minor, worst_minor }: Sum) =>
  tx.run(
    `UPDATE piece
        SET accepted_worst_minor = :worst_minor, agreed_minor = :likely_minor, row_version = row_version + 1
        WHERE id = :pieceId`,
    { pieceId, likely_minor, worst_minor },
  )
