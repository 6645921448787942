import type { z } from 'zod'
import { canonicalJson, type Json } from '#core/approval'
import { itemQuestion } from '#core/parts'
import { holesSvg } from '#core/parts/drawing'
import type * as s from '#shared/schemas'
import { ownerOf } from '../piece/findings'
import { onPiece } from '../piece/pieces'
import { DAY_MS } from '../platform/digest'
import type { Person } from '../shop/person'
import { readShop } from '../shop/rows'
import { keepShown, openQuestion } from './questions'
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
      const snapshotId = await keepShown(tx, { pieceId: piece.id, reason: 'asked', content, picture }, at)
      await tx.run('UPDATE item SET answer = NULL, row_version = row_version + 1 WHERE id = :itemId', { itemId })
      const asked = { about: 'item', piece, snapshotId, itemId, words: input.words, expires, mailed: true } as const
      const id = await openQuestion(tx, asked, person, at)
      return { kind: 'asked', says: `Client asked: ${shown.question}`, result: { id } }
    },
  )
}
