import type { z } from 'zod'
import { paintsOver } from '#core/build'
import type * as s from '#shared/schemas'
import { type Db, transaction } from '../../database/db'
import { readPiece } from '../piece/read'
import { sha256 } from '../platform/digest'
import { log, tell } from '../platform/log'
import { queueMail } from '../platform/mail'
import type { Person } from '../shop/person'
import { settleQuestion } from './questions'
import { type Answer, type ApprovalRow, expired, isChoice, readApproval } from './rows'

/**
 * Writes an answer down and does what it means: the plan goes on, the hardware is decided, the band's colour is
 * approved.
 */
export async function settle(
  tx: Db,
  a: ApprovalRow,
  given: { answer: Answer; via: 'link' | 'phone' | 'counter'; name: string; says: string; person: Person | null },
  at: Date,
) {
  if (a.state !== 'open')
    throw fail(
      409,
      'answered',
      a.state === 'superseded'
        ? 'The shop has asked anew since; please use the newer mail.'
        : 'This has been answered already. The shop can ask again.',
    )
  if (expired(a, at)) throw fail(410, 'expired', 'The time for this answer has passed. The shop can ask again.')
  const choice = isChoice(given.answer) ? given.answer : null
  const apply = settleQuestion(tx, a, given.answer, given.name, at)
  await tx.run(
    `UPDATE approval
        SET state = :state, choice = :choice, answered_at = :at, answered_via = :via, answered_name = :name,
          answer_word = :says, recorded_by = :personId
        WHERE id = :id`,
    {
      ...given,
      person: undefined,
      state: choice ? 'yes' : given.answer,
      choice,
      id: a.id,
      at,
      personId: given.person?.id ?? null,
    },
  )
  await apply()
  const heard = given.via === 'phone' ? 'by phone' : 'at the counter'
  const how = given.via === 'link' ? 'by the link' : `${heard}, recorded by ${given.person!.name}`
  await log(tx, {
    pieceId: a.piece_id,
    kind: 'answer',
    says: `Client said ${given.answer} ${how}: ${given.name}${given.says ? `: ${given.says}` : ''}`,
    at,
    recordedAt: at,
    personId: given.person?.id ?? null,
  })
  await tell(tx, 'piece', a.piece_id, at)
}

/** Paint over wood is agreed to in writing: by the mail, or signed at the counter. */
async function refuseByPhone(tx: Db, a: ApprovalRow) {
  if (a.item_id !== null || a.band_id !== null) return
  const { choice, context } = await readPiece(tx, a.piece_id)
  if (choice && paintsOver(choice, context))
    throw fail(
      422,
      'in-writing',
      'Paint over wood is hard to undo, and wants a yes in writing: by the mail, or signed at the counter.',
      { via: 'In writing, or signed at the counter.' },
    )
}

/** A yes or no by phone or at the counter, recorded by staff and marked so. */
export async function recordAnswer(id: number, input: z.infer<typeof s.recordAnswer>, person: Person, at: Date) {
  return transaction(async tx => {
    const a = await readApproval(tx, id)
    if (input.via === 'phone' && input.answer === 'yes') await refuseByPhone(tx, a)
    await settle(tx, a, { answer: input.answer, via: input.via, name: input.name, says: input.says, person }, at)
    return { ok: true }
  })
}

/** The question that a link belongs to. Links of one question live side by side. */
export async function approvalOf(on: Db, token: string): Promise<number> {
  const link = /^[\w-]{43}$/.test(token)
    ? await on.row<{ approval_id: number }>('SELECT approval_id FROM link WHERE hash = :hash', { hash: sha256(token) })
    : null
  if (!link) throw notFound('question')
  return link.approval_id
}

export async function clientAnswers(token: string, input: z.infer<typeof s.clientAnswer>, at: Date) {
  return transaction(async tx => {
    const a = await readApproval(tx, await approvalOf(tx, token))
    if (input.kind === 'question') {
      if (a.state === 'superseded' || expired(a, at))
        throw fail(410, 'expired', 'This question is closed. The shop can ask again.')
      const asked = await tx.row<{ n: number }>(
        "SELECT COUNT(*) AS n FROM approval_word WHERE approval_id = :id AND side = 'client'",
        { id: a.id },
      )
      if ((asked?.n ?? 0) >= 30) throw fail(429, 'slow-down', 'That is a lot of questions; please call the shop.')
      await tx.run("INSERT INTO approval_word (approval_id, side, says, at) VALUES (:id, 'client', :says, :at)", {
        id: a.id,
        says: input.says,
        at,
      })
      await log(tx, {
        pieceId: a.piece_id,
        kind: 'question',
        says: `Client asks: ${input.says}`,
        at,
        recordedAt: at,
        personId: null,
      })
      await tell(tx, 'piece', a.piece_id, at)
    } else {
      await settle(tx, a, { answer: input.kind, via: 'link', name: input.name, says: input.says, person: null }, at)
    }
    return { ok: true }
  })
}

export async function replyWord(id: number, input: z.infer<typeof s.replyWord>, person: Person, at: Date) {
  return transaction(async tx => {
    const a = await readApproval(tx, id)
    await tx.run(
      "INSERT INTO approval_word (approval_id, side, says, at, person_id) VALUES (:id, 'shop', :says, :at, :personId)",
      { id, says: input.says, at, personId: person.id },
    )
    const { piece } = await readPiece(tx, a.piece_id)
    if (piece.client_email)
      await queueMail(tx, {
        kind: 'reply',
        recipient: piece.client_email,
        pieceId: a.piece_id,
        approvalId: a.state === 'open' ? a.id : null,
        says: input.says,
      })
    await log(tx, {
      pieceId: a.piece_id,
      kind: 'reply',
      says: `Answered the client: ${input.says}`,
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'piece', a.piece_id, at)
    return { ok: true }
  })
}
