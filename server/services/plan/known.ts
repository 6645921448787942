import type { z } from 'zod'
import type { KnownSurface } from '#core/build'
import * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from '../shop/person'

/** Surfaces that the shop keeps by name; one that cannot be read is left out. */
export async function knownPage(): Promise<{ own: (KnownSurface & { id: number })[] }> {
  const rows = await db().rows<{ id: number }>(
    'SELECT id, name, ending, sheen, tone, woods, layers FROM known_surface ORDER BY name',
  )
  const own = rows.flatMap(({ id, ...row }) => {
    const read = s.knownSurface.safeParse(row)
    return read.success ? [{ id, ...read.data }] : []
  })
  return { own }
}

/** Keeps a surface by name, in place of the one that had it. */
export const keepSurface = (input: z.infer<typeof s.knownSurface>, person: Person, at: Date) =>
  transaction(async tx => {
    await tx.run(
      `INSERT INTO known_surface (name, ending, sheen, tone, woods, layers, person_id, at)
          VALUES (:name, :ending, :sheen, :tone, :woods, :layers, :personId, :at)
          ON DUPLICATE KEY UPDATE ending = VALUES(ending), sheen = VALUES(sheen), tone = VALUES(tone),
            woods = VALUES(woods), layers = VALUES(layers), person_id = VALUES(person_id), at = VALUES(at)`,
      {
        ...input,
        woods: JSON.stringify(input.woods),
        layers: JSON.stringify(input.layers),
        personId: person.id,
        at,
      },
    )
    await logShop(tx, 'store', `Surface kept by name: ${input.name}`, at, person.id)
    await tell(tx, 'store', null, at)
    return { ok: true }
  })

export const forgetSurface = (id: number, person: Person, at: Date) =>
  transaction(async tx => {
    const row = await tx.row<{ name: string }>('SELECT name FROM known_surface WHERE id = :id', { id })
    if (!row) throw notFound('surface')
    await tx.run('DELETE FROM known_surface WHERE id = :id', { id })
    await logShop(tx, 'store', `Surface forgotten: ${row.name}`, at, person.id)
    await tell(tx, 'store', null, at)
    return { ok: true }
  })
