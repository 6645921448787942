import type { z } from 'zod'
import { type Right, RIGHTS, type rightChange, type Role } from '#shared/rights'
import { db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from './person'

/** Which roles have which right, beside the owner, who has all. */
export async function readRights(): Promise<Record<Right, Role[]>> {
  const rows = await db().rows<{ role: Role; name: string }>('SELECT role, name FROM role_right ORDER BY role')
  return Object.fromEntries(
    RIGHTS.map(right => [right, ['owner', ...rows.filter(r => r.name === right).map(r => r.role)]]),
  ) as Record<Right, Role[]>
}

/** Counts from the next call of everybody of that role. */
export const changeRight = ({ role, right, may }: z.infer<typeof rightChange>, by: Person, at: Date) =>
  transaction(async tx => {
    const { changed } = may
      ? await tx.run('INSERT IGNORE INTO role_right (role, name) VALUES (:role, :right)', { role, right })
      : await tx.run('DELETE FROM role_right WHERE role = :role AND name = :right', { role, right })
    if (changed > 0)
      await logShop(tx, 'people', `The ${role} ${may ? 'has' : 'has no longer'} the right "${right}"`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
