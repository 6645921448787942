/** Limits in air, the usual ones and the shop's own; and what VOC the house may give off in a year. */
import type { z } from 'zod'
import { limitOf, SOLVENTS, SOLVENT_SLUGS, type SolventSlug } from '#core/vapour'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from '../shop/person'

export type OwnLimits = Partial<Record<SolventSlug, number>>
interface Row {
  slug: string
  mg_m3: number
  source: string
}
const readRows = async (on: Db) =>
  (await on.rows<Row>('SELECT slug, mg_m3, source FROM own_limit')).filter((r): r is Row & { slug: SolventSlug } =>
    Object.hasOwn(SOLVENTS, r.slug),
  )
/** mg/m³, of those that the shop set itself. */
export const readLimits = async (on: Db): Promise<OwnLimits> =>
  Object.fromEntries((await readRows(on)).map(r => [r.slug, Number(r.mg_m3)]))

export async function limitsPage() {
  const own = new Map((await readRows(db())).map(r => [r.slug, r]))
  const shop = await db().row<{ voc_year_g: number | null; row_version: number }>(
    'SELECT voc_year_g, row_version FROM shop WHERE id = 1',
  )
  return {
    vocYear_g: shop?.voc_year_g ?? null,
    solvents: SOLVENT_SLUGS.map(slug => ({
      ...{ slug, name: SOLVENTS[slug].name, usual_mg_m3: Math.round(limitOf(SOLVENTS[slug])) },
      ...{ lel_pct: SOLVENTS[slug].lel_pct, own: own.get(slug) ?? null },
    })),
  }
}

export const changeLimit = ({ slug, mg_m3, source }: z.infer<typeof s.changeLimit>, person: Person, at: Date) =>
  transaction(async tx => {
    if (mg_m3 === null) await tx.run('DELETE FROM own_limit WHERE slug = :slug', { slug })
    else
      await tx.run('REPLACE INTO own_limit (slug, mg_m3, source) VALUES (:slug, :mg_m3, :source)', {
        ...{ slug, mg_m3, source },
      })
    const is = mg_m3 === null ? 'the usual one again' : `${mg_m3} mg/m³ (${source})`
    await logShop(tx, 'shop', `Limit in air of ${SOLVENTS[slug].name}: ${is}`, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })

export const changeVocYear = ({ kg }: z.infer<typeof s.changeVocYear>, person: Person, at: Date) =>
  transaction(async tx => {
    await tx.run('UPDATE shop SET voc_year_g = :g WHERE id = 1', { g: kg === null ? null : Math.round(kg * 1000) })
    const is = kg === null ? 'none' : `${kg} kg`
    await logShop(tx, 'shop', `VOC that the house may give off in a year: ${is}`, at, person.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
