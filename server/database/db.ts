import mysql, { type Pool, type PoolConnection, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'

export type Params = Record<string, unknown>
/** Something that runs SQL: the pool, or one connection inside a transaction. */
export interface Db {
  rows: <T>(sql: string, params?: Params) => Promise<T[]>
  row: <T>(sql: string, params?: Params) => Promise<T | null>
  run: (sql: string, params?: Params) => Promise<{ id: number, changed: number }>
}

/** READ COMMITTED: what is read after waiting for a lock is what the holder of the lock has written. */
const SETTINGS = 'SET NAMES utf8mb4 COLLATE utf8mb4_uca1400_ai_ci, time_zone = \'+00:00\', tx_isolation = \'READ-COMMITTED\', sql_mode = \'STRICT_ALL_TABLES,ONLY_FULL_GROUP_BY,NO_ZERO_DATE,NO_ZERO_IN_DATE,ERROR_FOR_DIVISION_BY_ZERO,NO_ENGINE_SUBSTITUTION\''

let pool: Pool | undefined

/** One pool for this process. @throws Error when the start command gave no database. */
export function openPool(): Pool {
  if (pool) return pool
  const uri = useRuntimeConfig().databaseUrl
  if (!uri) throw new Error('No database: start Hantverk with ./hantverk start or ./hantverk demo.')
  pool = mysql.createPool({ uri, timezone: 'Z', dateStrings: ['DATE'], decimalNumbers: true, namedPlaceholders: true, supportBigNumbers: true, charset: 'utf8mb4', connectionLimit: 10, multipleStatements: false })
  pool.pool.on('connection', connection => connection.query(SETTINGS))
  return pool
}

function dbOn(on: Pool | PoolConnection): Db {
  const query = async (sql: string, params: Params = {}) => (await on.query(sql, params as never))[0]
  return {
    rows: async <T>(sql: string, params?: Params) => await query(sql, params) as RowDataPacket[] as T[],
    row: async <T>(sql: string, params?: Params) => ((await query(sql, params) as RowDataPacket[])[0] as T | undefined) ?? null,
    run: async (sql, params) => {
      const header = await query(sql, params) as ResultSetHeader
      return { id: header.insertId, changed: header.affectedRows }
    },
  }
}

export const db = (): Db => dbOn(openPool())

const DEADLOCK = 1213
const LOCK_WAIT = 1205

/** Runs `work` in one transaction; a deadlock is tried again, twice. */
export async function transaction<T>(work: (tx: Db) => Promise<T>): Promise<T> {
  for (let tries = 1; ; tries++) {
    const connection = await openPool().getConnection()
    try {
      await connection.beginTransaction()
      const result = await work(dbOn(connection))
      await connection.commit()
      return result
    }
    catch (error) {
      await connection.rollback()
      const errno = (error as { errno?: number }).errno
      if (tries >= 3 || (errno !== DEADLOCK && errno !== LOCK_WAIT)) throw error
    }
    finally { connection.release() }
  }
}
