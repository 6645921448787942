import { ITEM_ANSWERS } from '#core/parts'
import type { Db } from '../../database/db'
import type { PieceRow } from '../piece/rows'
import { sha256 } from '../platform/digest'
import { queueMail } from '../platform/mail'
import type { Person } from '../shop/person'
import type { Answer, ApprovalRow } from './rows'

/** What a client may be asked about: plan and price, a piece of hardware, a colour under its finish. */
export type About = 'plan' | 'item' | 'colour'

interface Question {
  /** SQL on `approval`: open questions that a newer one about the same thing overtakes */
  overtakes: string
  answers: readonly Answer[]
  /** said to whoever answers otherwise */
  asks: string
  /** what an answer does, beside being written down */
  settle: (tx: Db, a: ApprovalRow, answer: Answer, by: string, at: Date) => Promise<void>
}

const QUESTIONS: Readonly<Record<About, Question>> = {
  plan: {
    overtakes: 'piece_id = :pieceId AND item_id IS NULL AND band_id IS NULL',
    answers: ['yes', 'no'],
    asks: 'Answer yes or no.',
    settle: async (tx, a, answer, _by, at) => {
      if (answer !== 'yes') return
      await tx.run(
        `UPDATE plan_step
            SET state = 'done', started_at = :asked, finished_at = :at, row_version = row_version + 1
            WHERE piece_id = :pieceId AND step_key = :key AND state = 'planned'`,
        { asked: a.asked_at, at, pieceId: a.piece_id, key: a.step_key },
      )
      await tx.run(
        `UPDATE piece
            SET accepted_worst_minor = :worst, agreed_minor = :likely, row_version = row_version + 1
            WHERE id = :pieceId`,
        { worst: a.worst_minor, likely: a.likely_minor, pieceId: a.piece_id },
      )
    },
  },
  item: {
    overtakes: 'item_id = :itemId',
    answers: ITEM_ANSWERS,
    asks: 'Answer replace, match or leave.',
    settle: async (tx, a, answer) => {
      await tx.run('UPDATE item SET answer = :answer, row_version = row_version + 1 WHERE id = :itemId', {
        answer,
        itemId: a.item_id,
      })
    },
  },
  colour: {
    overtakes: 'band_id = :bandId',
    answers: ['yes', 'no'],
    asks: 'Answer yes or no.',
    settle: async (tx, a, answer, by, at) => {
      if (answer !== 'yes') return
      await tx.run(
        'UPDATE band SET approved_at = :at, approved_by = :by, row_version = row_version + 1 WHERE id = :bandId',
        { at, by, bandId: a.band_id },
      )
      await tx.run(
        "UPDATE piece SET colour_sample = 'under-finish', row_version = row_version + 1 WHERE id = :pieceId",
        { pieceId: a.piece_id },
      )
    },
  },
}

export function aboutOf(a: Pick<ApprovalRow, 'item_id' | 'band_id'>): About {
  if (a.item_id !== null) return 'item'
  return a.band_id === null ? 'plan' : 'colour'
}
/**
 * What an answer does, to be called once it is written down.
 * @throws Fail 422 for an answer that this question does not take.
 */
export function settleQuestion(tx: Db, a: ApprovalRow, answer: Answer, by: string, at: Date): () => Promise<void> {
  const { answers, asks, settle } = QUESTIONS[aboutOf(a)]
  if (!answers.includes(answer)) throw fail(422, 'invalid', asks)
  return () => settle(tx, a, answer, by, at)
}

/** What a client was or is shown, kept for good: canonical JSON, the rendered picture, and a SHA-256 over both. */
export async function keepShown(
  tx: Db,
  it: { pieceId: number; reason: 'asked' | 'work-started'; content: string; picture: string },
  at: Date,
): Promise<number> {
  const { id } = await tx.run(
    `INSERT INTO plan_snapshot (piece_id, reason, at, content, picture, sha256)
        VALUES (:pieceId, :reason, :at, :content, :picture, :sha)`,
    { ...it, at, sha: sha256(it.content + it.picture) },
  )
  return id
}

interface Asked {
  about: About
  piece: Pick<PieceRow, 'id' | 'client_email'>
  snapshotId: number
  /** hardware or band that it is about */
  itemId?: number
  bandId?: number
  /** the step that a yes passes */
  stepKey?: string
  likely_minor?: number
  worst_minor?: number
  words: string
  expires: Date
  /** by mail, where the client has an address; at the counter nothing is sent */
  mailed: boolean
}
/** Open questions about the same thing are closed: what they asked is not what is asked now. */
export async function overtake(tx: Db, about: About, its: { pieceId: number; itemId?: number; bandId?: number }) {
  await tx.run(`UPDATE approval SET state = 'superseded' WHERE state = 'open' AND ${QUESTIONS[about].overtakes}`, {
    itemId: null,
    bandId: null,
    ...its,
  })
}
/** Asks a client: the one way in which every question is opened. */
export async function openQuestion(tx: Db, asked: Asked, person: Person, at: Date): Promise<number> {
  const { about, piece, itemId = null, bandId = null, stepKey = '', likely_minor = 0, worst_minor = 0 } = asked
  await overtake(tx, about, { pieceId: piece.id, ...(itemId && { itemId }), ...(bandId && { bandId }) })
  const { id } = await tx.run(
    `INSERT INTO approval (
        piece_id, snapshot_id, step_key, item_id, band_id, likely_minor, worst_minor, asked_by, asked_at, expires_at
      )
        VALUES (
          :pieceId, :snapshotId, :stepKey, :itemId, :bandId, :likely_minor, :worst_minor, :personId, :at, :expires
        )`,
    {
      pieceId: piece.id,
      snapshotId: asked.snapshotId,
      stepKey,
      itemId,
      bandId,
      likely_minor,
      worst_minor,
      personId: person.id,
      at,
      expires: asked.expires,
    },
  )
  if (asked.mailed && piece.client_email)
    await queueMail(tx, {
      kind: 'ask',
      recipient: piece.client_email,
      pieceId: piece.id,
      approvalId: id,
      says: asked.words,
    })
  return id
}
