import type { z } from 'zod'
import { HOUSE_METHODS, houseOf, type House } from '#core/plan'
import type * as s from '#shared/schemas'
import { db, transaction, type Db } from '../database/db'
import type { Person } from './people'
import { log, tell } from './record'

/** The shop's methods; what was never chosen is the usual. */
export async function readHouse(on: Db = db()): Promise<House> {
  const rows = await on.rows<{ slug: string, choice: string }>('SELECT slug, choice FROM house_method')
  return houseOf(Object.fromEntries(rows.map(r => [r.slug, r.choice])))
}

/** Chooses methods for the shop. Plans that exist keep theirs until their route is taken again. */
export async function changeHouse(input: z.infer<typeof s.houseChange>, person: Person, at: Date) {
  return transaction(async (tx) => {
    for (const [slug, choice] of Object.entries(input)) {
      await tx.run('INSERT INTO house_method (slug, choice) VALUES (:slug, :choice) ON DUPLICATE KEY UPDATE choice = VALUES(choice)', { slug, choice })
      const method = HOUSE_METHODS[slug as keyof House]
      await log(tx, { pieceId: null, kind: 'shop', says: `House method: ${method.asks} ${(method.options as Record<string, { says: string }>)[choice as string]!.says}`, at, recordedAt: at, personId: person.id })
    }
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}
