import type { z } from 'zod'
import { type LicenceKind, LICENCES } from '#core/safety'
import type * as s from '#shared/schemas'
import { db, type Db, transaction } from '../../database/db'
import { logShop, tell } from '../platform/log'
import type { Person } from './person'

export interface LicenceRow {
  id: number
  person_id: number
  name: string
  kind: LicenceKind
  number: string
  valid_until: string
  row_version: number
}

/** Every licence that was not taken back, the one that ends first before the others. */
export const readLicences = (on: Db = db()) =>
  on.rows<LicenceRow>(
    `SELECT licence.id, licence.person_id, person.name, licence.kind, licence.number, licence.valid_until,
        licence.row_version
        FROM licence
        JOIN person ON person.id = licence.person_id AND person.active
        WHERE licence.withdrawn_at IS NULL
        ORDER BY licence.valid_until, licence.id`,
  )

/** The kinds that somebody in the shop holds on this day. */
export const licencesOn = (rows: readonly Pick<LicenceRow, 'kind' | 'valid_until'>[], at: Date): LicenceKind[] => {
  const day = at.toISOString().slice(0, 10)
  return LICENCES.filter(kind => rows.some(r => r.kind === kind && r.valid_until >= day))
}

export const addLicence = (input: z.infer<typeof s.addLicence>, by: Person, at: Date) =>
  transaction(async tx => {
    const holder = await tx.row<{ name: string }>('SELECT name FROM person WHERE id = :personId AND active', input)
    if (!holder)
      throw fail(422, 'invalid', 'Choose somebody of the shop.', { personId: 'Choose somebody of the shop.' })
    if (input.validUntil < at.toISOString().slice(0, 10))
      throw fail(422, 'invalid', 'This licence has ended.', { validUntil: 'This day has passed.' })
    const { id } = await tx.run(
      'INSERT INTO licence (person_id, kind, number, valid_until) VALUES (:personId, :kind, :number, :validUntil)',
      input,
    )
    const says =
      `Licence of ${holder.name}: ${input.kind.replaceAll('-', ' ')}, ${input.number}, until ` + `${input.validUntil}`
    await logShop(tx, 'licence', says, at, by.id)
    await tell(tx, 'shop', null, at)
    return { id }
  })

export const withdrawLicence = (id: number, by: Person, at: Date) =>
  transaction(async tx => {
    const row = (await readLicences(tx)).find(l => l.id === id)
    if (!row) throw notFound('licence')
    await tx.run('UPDATE licence SET withdrawn_at = :at, row_version = row_version + 1 WHERE id = :id', { id, at })
    await logShop(tx, 'licence', `Licence taken back: ${row.name}, ${row.number}`, at, by.id)
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
