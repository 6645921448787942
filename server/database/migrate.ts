import mysql, { type Connection, type RowDataPacket } from 'mysql2/promise'
import { CONVERSIONS } from './conversions'

export interface Migration {
  name: string
  sql: string
}
/** Told before and after each statement; what it throws stops the migration there, as a killed process would. */
export type Watch = (name: string, no: number, when: 'begun' | 'ran') => void

/** The database was written by a newer Hantverk than this one. */
export class NewerDatabase extends Error {}

/** Statements of a migration file: each ends with a line that ends in a semicolon; a comment has a line of its own. */
export const statementsOf = (sql: string) =>
  sql
    .replace(/^\s*--.*$/gm, '')
    .split(/;[ \t]*$/m)
    .map(s => s.trim())
    .filter(Boolean)

/**
 * Errors by which a statement that was cut off after it ran shows that it had run: table, column, key, trigger there
 * already, or gone already.
 */
const RAN_BEFORE = new Set([1050, 1051, 1060, 1061, 1091, 1359, 1826])
const isData = (statement: string) => /^(INSERT|UPDATE|DELETE)\b/i.test(statement)

const JOURNAL = `CREATE TABLE IF NOT EXISTS migration_step (
    name VARCHAR(120) NOT NULL, no SMALLINT NOT NULL, done BOOLEAN NOT NULL,
    at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3), PRIMARY KEY (name, no)
  )`

async function rowsOf<T>(on: Connection, sql: string, values: unknown[] = []): Promise<T[]> {
  const [rows] = await on.query<RowDataPacket[]>(sql, values)
  return rows as T[]
}

/**
 * Runs one statement and writes it down. Data and its record are committed together; MariaDB makes each change of
 * structure whole or not at all, so one that was begun and not recorded has either run (and says so when repeated) or
 * not.
 */
async function runStep(
  on: Connection,
  name: string,
  no: number,
  statement: string,
  begunBefore: boolean,
  watch: Watch,
) {
  const record = (done: boolean) =>
    on.query('REPLACE INTO migration_step (name, no, done) VALUES (?, ?, ?)', [name, no, done])
  if (isData(statement)) {
    watch(name, no, 'begun')
    await on.query('START TRANSACTION')
    await on.query(statement)
    watch(name, no, 'ran')
    await record(true)
    await on.query('COMMIT')
    return
  }
  await record(false)
  watch(name, no, 'begun')
  try {
    await on.query(statement)
  } catch (error) {
    if (!begunBefore || !RAN_BEFORE.has((error as { errno?: number }).errno ?? 0)) throw error
  }
  watch(name, no, 'ran')
  await record(true)
}

/**
 * Applies the migrations that this database has not seen, in order of their names, under a lock. Killed at any
 * statement it goes on there when it is started again. Returns the names of those applied. @throws NewerDatabase.
 */
export async function migrate(
  databaseUrl: string,
  migrations: readonly Migration[],
  watch: Watch = () => {},
): Promise<string[]> {
  const on = await mysql.createConnection({ uri: databaseUrl, charset: 'utf8mb4', connectTimeout: 3000 })
  try {
    await on.query('SET NAMES utf8mb4 COLLATE utf8mb4_uca1400_ai_ci')
    const [lock] = await rowsOf<{ got: number }>(
      on,
      "SELECT GET_LOCK(CONCAT('hantverk-migrate-', DATABASE()), 60) AS got",
    )
    if (lock?.got !== 1) throw new Error('Another start is migrating this database. Try again in a minute.')
    await on.query(
      `CREATE TABLE IF NOT EXISTS migration (
          name VARCHAR(120) PRIMARY KEY, at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3)
        )`,
    )
    await on.query(JOURNAL)
    const known = new Set((await rowsOf<{ name: string }>(on, 'SELECT name FROM migration')).map(r => r.name))
    const unknown = [...known].filter(name => !migrations.some(m => m.name === name))
    if (unknown.length) {
      throw new NewerDatabase(
        `This database was written by a newer Hantverk (${unknown.join(', ')}). Nothing was changed. Start ` +
          'that version, or restore a backup made by this one.',
      )
    }
    const fresh = migrations.filter(m => !known.has(m.name)).sort((a, b) => a.name.localeCompare(b.name))
    for (const { name, sql } of fresh) {
      const journal = await rowsOf<{ no: number; done: 0 | 1 }>(
        on,
        'SELECT no, done FROM migration_step WHERE name = ?',
        [name],
      )
      const steps = new Map(journal.map(r => [r.no, Boolean(r.done)]))
      for (const [no, statement] of statementsOf(sql).entries()) {
        if (steps.get(no) !== true) await runStep(on, name, no, statement, steps.has(no), watch)
      }
      await CONVERSIONS[name]?.(on)
      await on.query('START TRANSACTION')
      await on.query('INSERT INTO migration (name) VALUES (?)', [name])
      await on.query('DELETE FROM migration_step WHERE name = ?', [name])
      await on.query('COMMIT')
    }
    return fresh.map(m => m.name)
  } finally {
    await on.end().catch(() => on.destroy())
  }
}
