import type { z } from 'zod'
import { canonicalJson, type Json } from '#core/approval'
import { itemQuestion } from '#core/parts'
import { holesSvg } from '#core/parts/drawing'
import type * as s from '#shared/schemas'
import { ownerOf } from '../piece/findings'
import { onPiece } from '../piece/pieces'
import { DAY_MS, sha256 } from '../platform/digest'
import { queueMail } from '../platform/mail'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import type { ItemShown } from './rows'

/**
 * Asks the client about hardware: replace, match or leave. Kept like every question: content, drawing and a digest
 * over both.
 */
export async function askAboutItem(itemId: number, input: z.infer<typeof s.askItem>, person: Person, at: Date) {
  return onPiece(
    await ownerOf('SELECT piece_id FROM item WHERE id = :id', itemId, 'item'),
    at,
    person,
    async (tx, { piece, items }) => {
      const item = items.find(i => i.id === itemId)!
      if (item.state === 'present')
        throw fail(
          409,
          'nothing-to-ask',
          'Nothing is wrong with it. Say first whether it is missing, mismatched or to be replaced.',
        )
      const expires = new Date(at.getTime() + input.days * DAY_MS)
      const shown: ItemShown = {
        about: 'item',
        shop: (await readShop(tx)).name,
        piece: piece.name,
        client: piece.client_name,
        words: input.words,
        mark: item.mark,
        item: item.name,
        state: item.state,
        question: itemQuestion(item.name, item.state, item.holes),
        answerBy: expires.toISOString().slice(0, 10),
      }
      const content = canonicalJson({ shown: shown as unknown as Json, holes: item.holes as unknown as Json })
      const picture = item.holes ? holesSvg(item.holes) : ''
      const snapshot = await tx.run(
        `INSERT INTO plan_snapshot (piece_id, reason, at, content, picture, sha256)
            VALUES (:pieceId, 'asked', :at, :content, :picture, :sha)`,
        { pieceId: piece.id, at, content, picture, sha: sha256(content + picture) },
      )
      await tx.run("UPDATE approval SET state = 'superseded' WHERE item_id = :itemId AND state = 'open'", { itemId })
      await tx.run('UPDATE item SET answer = NULL, row_version = row_version + 1 WHERE id = :itemId', { itemId })
      const made = await tx.run(
        `INSERT INTO approval (
            piece_id, snapshot_id, step_key, item_id, likely_minor, worst_minor, asked_by, asked_at, expires_at
          )
            VALUES (:pieceId, :snapshotId, '', :itemId, 0, 0, :personId, :at, :expires)`,
        { pieceId: piece.id, snapshotId: snapshot.id, itemId, personId: person.id, at, expires },
      )
      if (piece.client_email)
        await queueMail(tx, {
          kind: 'ask',
          recipient: piece.client_email,
          pieceId: piece.id,
          approvalId: made.id,
          says: input.words,
        })
      return { kind: 'asked', says: `Client asked: ${shown.question}`, result: { id: made.id } }
    },
  )
}
