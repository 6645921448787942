import { db } from '../database/db'
import { migrate } from '../database/migrate'

let starting: Promise<void> | undefined

async function start() {
  const assets = useStorage('assets:migrations')
  const names = (await assets.getKeys()).filter(k => k.endsWith('.sql'))
  const migrations = await Promise.all(names.map(async name => ({ name, sql: String(await assets.getItem(name)) })))
  const done = await migrate(useRuntimeConfig().databaseUrl, migrations)
  if (done.length) console.log(`migrated: ${done.join(', ')}`)
  if (useRuntimeConfig().mode !== 'shop') await resumeClock()
}

/** A demo that was stopped goes on at the moment it stopped. */
async function resumeClock() {
  const last = await db().row<{ at: Date | null }>('SELECT GREATEST(COALESCE((SELECT MAX(recorded_at) FROM logbook), \'2000-01-01\'), COALESCE((SELECT MAX(at) FROM climate_reading), \'2000-01-01\')) AS at')
  const at = last?.at ? new Date(last.at) : null
  if (at && at.getFullYear() > 2000) await setNow(at)
}

/** Resolves when the database is migrated; every route waits for it. */
export const ready = (): Promise<void> => starting ??= start().catch((error) => {
  starting = undefined
  throw error
})
