import { db } from '../database/db'
import { migrate, NewerDatabase } from '../database/migrate'

let starting: Promise<void> | undefined
/** A database that cannot be reached is asked again after this, not by every request. */
const AGAIN_MS = 1000

async function start() {
  const assets = useStorage('assets:migrations')
  const names = (await assets.getKeys()).filter(k => k.endsWith('.sql'))
  const migrations = await Promise.all(names.map(async name => ({ name, sql: String(await assets.getItem(name)) })))
  const done = await migrate(useRuntimeConfig().databaseUrl, migrations)
  if (done.length) console.log(`migrated: ${done.join(', ')}`)
  if (useRuntimeConfig().mode !== 'shop') await resumeClock()
}

/**
 * A demo that was stopped goes on at its last reading of the air, or its last entry: by number, since loading moved
 * the clock about.
 */
async function resumeClock() {
  const reading = await db().row<{ at: Date }>('SELECT at FROM climate_reading ORDER BY id DESC LIMIT 1')
  const entry = await db().row<{ at: Date }>('SELECT recorded_at AS at FROM logbook ORDER BY id DESC LIMIT 1')
  const last = reading ?? entry
  if (last) await setNow(last.at)
}

/** Resolves when the database is migrated; every route waits for it. A database of a newer version stays refused. */
export const ready = (): Promise<void> =>
  (starting ??= start().catch(error => {
    if (!(error instanceof NewerDatabase))
      setTimeout(() => {
        starting = undefined
      }, AGAIN_MS)
    throw error
  }))
