/** Links that clients hold: to one question, or to all that is open about a piece. Only their hashes are kept. */
import { createHmac, randomBytes } from 'node:crypto'
import { db, type Db, transaction } from '../../database/db'
import { readPiece } from '../piece/read'
import { sha256 } from '../platform/digest'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'

export interface LinkRow {
  hash: string
  piece_id: number
  /** null: everything that is open about the piece */
  approval_id: number | null
  made_at: Date
  expires_at: Date | null
  revoked_at: Date | null
}

/** The token of a link: made from a seed with the links' key, so that a letter sent again carries the same link. */
export const tokenOf = (seed: string): string =>
  createHmac('sha256', useRuntimeConfig().linkKey).update(seed).digest('base64url')

export const keepLink = (
  tx: Db,
  token: string,
  { pieceId, approvalId, expires }: { pieceId: number; approvalId: number | null; expires: Date | null },
) =>
  tx.run(
    `INSERT IGNORE INTO link (hash, piece_id, approval_id, expires_at, made_at)
        VALUES (:hash, :pieceId, :approvalId, :expires, UTC_TIMESTAMP(3))`,
    { hash: sha256(token), pieceId, approvalId, expires },
  )

/** @throws Fail 404 for a token of nobody, 410 for a link that was taken back or is over. */
export async function linkOf(on: Db, token: string, at: Date): Promise<LinkRow> {
  const link = /^[\w-]{43}$/.test(token)
    ? await on.row<LinkRow>('SELECT * FROM link WHERE hash = :hash', { hash: sha256(token) })
    : null
  if (!link) throw notFound('question')
  if (link.revoked_at || (link.expires_at && link.expires_at < at))
    throw fail(410, 'expired', 'This link is closed. Please call or write to the shop.')
  return link
}

/** The question that is answered through a link: its own, or one of its piece. @throws Fail 404. */
export async function questionOf(on: Db, link: LinkRow, asked: number | null): Promise<number> {
  if (link.approval_id !== null) {
    if (asked !== null && asked !== link.approval_id) throw notFound('question')
    return link.approval_id
  }
  const own =
    asked === null
      ? null
      : await on.row<{ id: number }>('SELECT id FROM approval WHERE id = :asked AND piece_id = :pieceId', {
          asked,
          pieceId: link.piece_id,
        })
  if (!own) throw notFound('question')
  return own.id
}

const KEPT_D = 400
/** A link to the piece's own page, for the client; those given before live on. */
export const makePieceLink = (pieceId: number, person: Person, at: Date) =>
  transaction(async tx => {
    await readPiece(tx, pieceId, true)
    const token = tokenOf(randomBytes(16).toString('hex'))
    const expires = new Date(at.getTime() + KEPT_D * 86_400_000)
    await keepLink(tx, token, { pieceId, approvalId: null, expires })
    await log(tx, {
      ...{ pieceId, kind: 'link', says: "A link to the piece's page was made", at, recordedAt: at },
      personId: person.id,
    })
    await tell(tx, 'piece', pieceId, at)
    return { address: `${useRuntimeConfig().publicBase}/answer/${token}` }
  })

/** Every link to a piece's page is taken back; questions keep theirs. */
export const revokePieceLinks = (pieceId: number, person: Person, at: Date) =>
  transaction(async tx => {
    await readPiece(tx, pieceId, true)
    const { changed } = await tx.run(
      'UPDATE link SET revoked_at = :at WHERE piece_id = :pieceId AND approval_id IS NULL AND revoked_at IS NULL',
      { pieceId, at },
    )
    if (changed === 0) throw fail(409, 'nothing', "There is no link to this piece's page.")
    await log(tx, {
      ...{ pieceId, kind: 'link', says: "Links to the piece's page were taken back", at, recordedAt: at },
      personId: person.id,
    })
    await tell(tx, 'piece', pieceId, at)
    return { ok: true }
  })

/** How many links to a piece's page are open. */
export const countPieceLinks = async (pieceId: number, at: Date): Promise<number> =>
  (await db().row<{ n: number }>(
    `SELECT COUNT(*) AS n
        FROM link
        WHERE piece_id = :pieceId AND approval_id IS NULL AND revoked_at IS NULL
          AND (expires_at IS NULL OR expires_at > :at)`,
    { pieceId, at },
  ))!.n
