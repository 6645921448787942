import { db } from '../../database/db'
import type { ColourShown } from '../colour/bandRows'
import { heldBecause } from '../platform/mail'
import { readShop } from '../shop/rows'
import { approvalOf } from './answers'
import { aboutOf } from './questions'
import { type ApprovalRow, expired, type ItemShown, shownOf } from './rows'

/** The client's page: the stored snapshot and nothing else. Reading it never answers. */
export async function clientPage(token: string, at: Date) {
  const a = (await db().row<ApprovalRow>('SELECT * FROM approval WHERE id = :id', {
    id: await approvalOf(db(), token),
  }))!
  const snapshot = await db().row<{ content: string; picture: string; sha256: string }>(
    'SELECT content, picture, sha256 FROM plan_snapshot WHERE id = :id',
    { id: a.snapshot_id },
  )
  const words = await db().rows<{ side: 'client' | 'shop'; says: string; at: Date }>(
    'SELECT side, says, at FROM approval_word WHERE approval_id = :id ORDER BY id',
    { id: a.id },
  )
  return {
    shown: shownOf(snapshot!.content),
    picture: snapshot!.picture,
    digest: snapshot!.sha256,
    words,
    state: expired(a, at) ? ('expired' as const) : a.state,
    expiresAt: a.expires_at,
    answeredAt: a.answered_at,
    answeredName: a.answered_name,
  }
}

/** What clients were asked, open ones first. */
export async function answersPage(at: Date, pieceId: number | null = null) {
  const rows = await db().rows<
    ApprovalRow & {
      piece: string
      client: string
      asked_by_name: string
      mail_id: number | null
      mail_state: 'waiting' | 'sending' | 'sent' | 'perhaps' | 'failed' | null
      mail_error: string | null
      mail_to: string | null
      mail_version: number | null
      sha256: string
      recorded_by_name: string | null
      holds: number
      content: string
    }
  >(
    `SELECT a.*, piece.name AS piece, client.name AS client, p.name AS asked_by_name,
        r.name AS recorded_by_name, m.id AS mail_id, m.state AS mail_state, m.last_error AS mail_error,
        m.recipient AS mail_to, m.row_version AS mail_version, sn.sha256,
        IF(a.item_id IS NULL AND a.band_id IS NULL, '', sn.content) AS content,
        (
          SELECT COUNT(*)
            FROM plan_step st
            WHERE st.piece_id = a.piece_id AND st.state = 'planned' AND st.kind <> 'approval'
        ) AS holds
        FROM approval a
        JOIN piece ON piece.id = a.piece_id
        JOIN client ON client.id = piece.client_id
        JOIN person p ON p.id = a.asked_by
        LEFT JOIN person r ON r.id = a.recorded_by
        JOIN plan_snapshot sn ON sn.id = a.snapshot_id
        LEFT JOIN mail m ON m.id = (SELECT MAX(id) FROM mail WHERE approval_id = a.id)
        WHERE :pieceId IS NULL OR a.piece_id = :pieceId
        ORDER BY a.state <> 'open', a.id DESC
        LIMIT 200`,
    { pieceId },
  )
  const words = await db().rows<{ approval_id: number; side: 'client' | 'shop'; says: string; at: Date }>(
    `SELECT approval_id, side, says, at
        FROM approval_word
        WHERE approval_id IN (SELECT id FROM approval WHERE :pieceId IS NULL OR piece_id = :pieceId)
        ORDER BY id`,
    { pieceId },
  )
  const held = heldBecause(await readShop(), useRuntimeConfig().mode)
  return rows.map(({ ...a }) => ({
    id: a.id,
    pieceId: a.piece_id,
    piece: a.piece,
    client: a.client,
    state: expired(a, at) ? ('expired' as const) : a.state,
    likely_minor: a.likely_minor,
    worst_minor: a.worst_minor,
    askedAt: a.asked_at,
    askedBy: a.asked_by_name,
    expiresAt: a.expires_at,
    answeredAt: a.answered_at,
    via: a.answered_via,
    name: a.answered_name,
    says: a.answer_word,
    recordedBy: a.recorded_by_name,
    mail:
      a.mail_id === null
        ? null
        : {
            id: a.mail_id,
            state: a.mail_state!,
            error: (a.mail_state === 'waiting' && held) || (a.mail_error ?? ''),
            to: a.mail_to!,
            rowVersion: a.mail_version!,
          },
    digest: a.sha256,
    about: aboutOf(a),
    holds: aboutOf(a) === 'plan' ? a.holds : 0,
    choice: a.choice,
    question: a.content ? (shownOf(a.content) as ItemShown | ColourShown).question : null,
    words: words.filter(w => w.approval_id === a.id),
  }))
}
