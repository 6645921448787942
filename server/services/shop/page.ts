import type { z } from 'zod'
import { MATERIALS } from '#core/materials'
import type * as s from '#shared/schemas'
import { db, transaction } from '../../database/db'
import { readLetterWords } from '../platform/letterWords'
import { log, tell } from '../platform/log'
import { readLicences } from './licences'
import { type Person, type PersonRow, publicPerson } from './person'
import { readRights } from './rights'
import { readHours, readShop, type ShopRow } from './rows'

export const LOG_DAYS = 7
export const AHEAD_H = 120

const BACKUP_OLD_H = 48
/** The newest backup; old when none was made for two days. A demo needs none. */
export async function readBackup() {
  const row = await db().row<{ at: Date; file: string; bytes: number; second_copy: 0 | 1; age_h: number }>(
    `SELECT at, file, bytes, second_copy, TIMESTAMPDIFF(HOUR, at, UTC_TIMESTAMP(3)) AS age_h
        FROM backup_taken
        ORDER BY at DESC
        LIMIT 1`,
  )
  const since = row?.age_h ?? (await ageOfShop_h())
  return {
    last: row && { at: row.at, file: row.file, bytes: row.bytes, second: Boolean(row.second_copy) },
    old: useRuntimeConfig().mode === 'shop' && since > BACKUP_OLD_H,
  }
}
const ageOfShop_h = async () =>
  (
    await db().row<{ age_h: number | null }>(
      'SELECT TIMESTAMPDIFF(HOUR, MIN(recorded_at), UTC_TIMESTAMP(3)) AS age_h FROM logbook',
    )
  )?.age_h ?? 0

export async function shopPage() {
  const people = await db().rows<PersonRow>(
    'SELECT id, name, login, role, active, must_change, row_version FROM person ORDER BY name',
  )
  const { row_version, ...shop } = await readShop()
  return {
    ...shop,
    rowVersion: row_version,
    backup: await readBackup(),
    hours: await readHours(),
    closures: await db().rows<{ day: string; why: string }>('SELECT day, why FROM closure ORDER BY day'),
    people: people.map(publicPerson),
    licences: await readLicences(),
    letterWords: await readLetterWords(),
    rights: await readRights(),
    materials: MATERIALS.map(m => ({ ...m, tag: 'shop default' as const })),
  }
}

/** What was changed, and what it was, for the log. */
function changesOf(before: ShopRow, now: z.infer<typeof s.shopChange>): string {
  const pairs: [string, string | number, string | number][] = [
    ['name', before.name, now.name],
    ['an hour', `${before.hour_minor / 100} ${before.currency}`, `${now.hourMinor / 100} ${before.currency}`],
    ['on materials', `${before.material_markup_bp / 100} %`, `${now.materialMarkupBp / 100} %`],
    ['tax', `${before.tax_bp / 100} %`, `${now.taxBp / 100} %`],
    ['unit', before.length_unit, now.lengthUnit],
    ['temperatures in', `°${before.temperature_unit}`, `°${now.temperatureUnit}`],
    ['air by hand counts', `${before.hand_air_min} min`, `${now.handAirMin} min`],
    ['light', before.light, now.light],
    ['signed out after', `${before.idle_h} h`, `${now.idleH} h`],
    ['left on a tablet after', `${before.tablet_idle_min} min`, `${now.tabletIdleMin} min`],
    ['sender', before.mail_name, now.mailName],
    ["sender's address", before.mail_address, now.mailAddress],
  ]
  return (
    pairs
      .filter(([, was, is]) => was !== is)
      .map(([what, was, is]) => `${what} ${is || 'none'}, was ${was || 'none'}`)
      .join('; ') || 'nothing'
  )
}

export async function changeShop(input: z.infer<typeof s.shopChange>, person: Person, at: Date) {
  return transaction(async tx => {
    const before = await readShop(tx)
    const { changed } = await tx.run(
      `UPDATE shop
          SET name = :name, hour_minor = :hourMinor, material_markup_bp = :materialMarkupBp, tax_bp = :taxBp,
            length_unit = :lengthUnit, light = :light, idle_h = :idleH,
            tablet_idle_min = :tabletIdleMin, hand_air_min = :handAirMin, temperature_unit = :temperatureUnit,
            mail_name = :mailName, mail_address = :mailAddress, row_version = row_version + 1
          WHERE id = 1 AND row_version = :rowVersion`,
      input,
    )
    if (changed === 0) throw stale()
    await log(tx, {
      pieceId: null,
      kind: 'shop',
      says: `Shop settings changed: ${changesOf(before, input)}`.slice(0, 1000),
      at,
      recordedAt: at,
      personId: person.id,
    })
    await tell(tx, 'shop', null, at)
    return { ok: true }
  })
}
