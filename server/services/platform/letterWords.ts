/** The house's own words: in letters by kind, and at the foot of clients' pages. */
import type { z } from 'zod'
import { type LetterKind, type LetterWords, USUAL_WORDS } from '#core/papers'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import type { Person } from '../shop/person'
import { logShop, tell } from './log'

interface OwnWords extends LetterWords {
  kind: LetterKind
}
export const readLetterWords = () => db().rows<OwnWords>('SELECT kind, subject, words FROM letter_words ORDER BY kind')
/** The house's own words for a kind of letter; null: the usual ones. */
export const readOwnWords = async (on: Db, kind: LetterKind): Promise<LetterWords | null> =>
  (await on.row<LetterWords>('SELECT subject, words FROM letter_words WHERE kind = :kind', { kind })) ?? null

export const changeLetterWords = (input: z.infer<typeof s.letterWords>, person: Person, at: Date) =>
  transaction(async tx => {
    const { kind, subject, words } = input
    if (!subject && !words) await tx.run('DELETE FROM letter_words WHERE kind = :kind', { kind })
    else
      await tx.run('REPLACE INTO letter_words (kind, subject, words) VALUES (:kind, :subject, :words)', {
        ...{ kind, words },
        subject: subject || USUAL_WORDS[kind].subject,
      })
    await logShop(tx, 'shop', `Words of letters changed: ${kind}`, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

/** What stands at the foot of every page that a client opens. */
export const changePageWords = ({ words }: z.infer<typeof s.pageWords>, person: Person, at: Date) =>
  transaction(async tx => {
    await tx.run('UPDATE shop SET page_words = :words WHERE id = 1', { words })
    await logShop(tx, 'shop', "Words on clients' pages changed", at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
