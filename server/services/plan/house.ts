import type { z } from 'zod'
import { HOUSE_METHODS, HOUSE_SLUGS, houseOf, type House } from '#core/house'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from '../shop/person'

/** The shop's methods; what was never chosen is the usual. */
export async function readHouse(on: Db = db()): Promise<House> {
  const rows = await on.rows<{ slug: string; choice: string }>('SELECT slug, choice FROM house_method')
  return houseOf(Object.fromEntries(rows.map(r => [r.slug, r.choice])))
}

/** The same with the version of each method's row, for the page that changes them; 0 where it was never chosen. */
export async function housePage() {
  const rows = await db().rows<{ slug: string; row_version: number }>('SELECT slug, row_version FROM house_method')
  const versions = new Map(rows.map(r => [r.slug, r.row_version]))
  return {
    house: await readHouse(),
    rowVersions: Object.fromEntries(HOUSE_SLUGS.map(slug => [slug, versions.get(slug) ?? 0])),
  }
}

/** Chooses a method for the shop. Plans that exist keep theirs until their route is taken again. */
export async function changeHouse(input: z.infer<typeof s.houseChange>, person: Person, at: Date) {
  return transaction(async tx => {
    const { slug, choice, rowVersion } = input
    const known = await tx.row<{ row_version: number }>(
      'SELECT row_version FROM house_method WHERE slug = :slug FOR UPDATE',
      { slug },
    )
    if ((known?.row_version ?? 0) !== rowVersion) throw stale()
    if (known)
      await tx.run('UPDATE house_method SET choice = :choice, row_version = row_version + 1 WHERE slug = :slug', {
        slug,
        choice,
      })
    else await tx.run('INSERT INTO house_method (slug, choice) VALUES (:slug, :choice)', { slug, choice })
    const method = HOUSE_METHODS[slug]
    const options = method.options as Record<string, { says: string }>
    await logShop(tx, 'shop', `House method: ${method.asks} ${options[choice]!.says}`, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}
