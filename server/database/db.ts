import { AsyncLocalStorage } from 'node:async_hooks'
import mysql, { type PoolConnection, type Pool, type ResultSetHeader, type RowDataPacket } from 'mysql2/promise'
import type { Db, Params } from './on'

export type { Db, Params }

/** How long a connection, a free one of the pool, or one statement may take before the database counts as away. */
const CONNECT_MS = 3000
const FREE_MS = 4000
const ANSWER_MS = 4000
/** The database ends a statement by itself after this, seconds. */
const STATEMENT_S = 10
const LOCK_WAIT_S = 3
const WAITING = 300

const SQL_MODE = [
  'STRICT_ALL_TABLES',
  'ONLY_FULL_GROUP_BY',
  'NO_ZERO_DATE',
  'NO_ZERO_IN_DATE',
  'ERROR_FOR_DIVISION_BY_ZERO',
  'NO_ENGINE_SUBSTITUTION',
]

/** READ COMMITTED: what is read after waiting for a lock is what the holder of the lock has written. */
const SETTINGS = [
  'NAMES utf8mb4 COLLATE utf8mb4_uca1400_ai_ci',
  "time_zone = '+00:00'",
  "tx_isolation = 'READ-COMMITTED'",
  `innodb_lock_wait_timeout = ${LOCK_WAIT_S}`,
  `max_statement_time = ${STATEMENT_S}`,
  `sql_mode = '${SQL_MODE.join()}'`,
]

interface Field {
  name: string
  extendedFormat?: string
}
/**
 * JSON of a column. What cannot be parsed stays text: whoever reads the row sees that it is damaged, and the rows
 * beside it live.
 */
function parsed(value: unknown): unknown {
  if (typeof value !== 'string') return value
  try {
    return JSON.parse(value) as unknown
  } catch {
    return value
  }
}
function withJson(rows: unknown, fields: readonly Field[] | undefined): unknown {
  const json = fields?.filter(f => f.extendedFormat === 'json') ?? []
  if (json.length > 0)
    for (const row of rows as Record<string, unknown>[]) for (const { name } of json) row[name] = parsed(row[name])
  return rows
}

let pool: Pool | undefined

/** One pool for this process. @throws Error when the start command gave no database. */
export function openPool(): Pool {
  if (pool) return pool
  const uri = useRuntimeConfig().databaseUrl
  if (!uri) throw new Error('No database: start Hantverk with ./hantverk start or ./hantverk demo.')
  pool = mysql.createPool({
    uri,
    timezone: 'Z',
    dateStrings: ['DATE'],
    decimalNumbers: true,
    namedPlaceholders: true,
    supportBigNumbers: true,
    charset: 'utf8mb4',
    connectionLimit: 10,
    queueLimit: WAITING,
    connectTimeout: CONNECT_MS,
    multipleStatements: false,
    jsonStrings: true,
  })
  pool.pool.on('connection', connection => connection.query({ sql: `SET ${SETTINGS.join(', ')}`, timeout: ANSWER_MS }))
  return pool
}

/** The database does not answer. */
export class Away extends Error {}

/** A connection of the pool. @throws Away when none is free in time; one that comes later goes back unused. */
async function connectionInTime(): Promise<PoolConnection> {
  const coming = openPool().getConnection()
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Away('no free connection')), FREE_MS)
  })
  try {
    return await Promise.race([coming, late])
  } catch (error) {
    coming.then(
      c => c.release(),
      () => {
        /* it never came */
      },
    )
    throw error
  } finally {
    clearTimeout(timer)
  }
}

const SILENT = 'PROTOCOL_SEQUENCE_TIMEOUT'
/** Connections that stopped in the middle of a statement; they are closed, never used again. */
const broken = new WeakSet<PoolConnection>()

async function query(on: PoolConnection, sql: string, params: Params = {}): Promise<unknown> {
  try {
    const [rows, fields] = await on.query({ sql, timeout: ANSWER_MS, values: params } as never)
    return withJson(rows, fields as Field[] | undefined)
  } catch (error) {
    if ((error as { code?: string }).code === SILENT) broken.add(on)
    throw error
  }
}
const giveBack = (connection: PoolConnection) => (broken.has(connection) ? connection.destroy() : connection.release())

type Query = (sql: string, params?: Params) => Promise<unknown>
const dbOf = (ask: Query): Db => ({
  rows: async <T>(sql: string, params?: Params) => (await ask(sql, params)) as RowDataPacket[] as T[],
  row: async <T>(sql: string, params?: Params) =>
    (((await ask(sql, params)) as RowDataPacket[])[0] as T | undefined) ?? null,
  run: async (sql, params) => {
    const header = (await ask(sql, params)) as ResultSetHeader
    return { id: header.insertId, changed: header.affectedRows }
  },
})

const pooled = dbOf(async (sql, params) => {
  const connection = await connectionInTime()
  try {
    return await query(connection, sql, params)
  } finally {
    giveBack(connection)
  }
})
export const db = (): Db => pooled

/**
 * A write as its sender named it. What its first transaction returns is kept as the answer, and given again to a
 * repeat.
 */
export interface Act {
  uuid: string
  route: string
  personId: number | null
  answer?: string
}
export const acting = new AsyncLocalStorage<Act>()
/** Somebody sent this write before; its answer is kept. */
export class Repeated extends Error {}

const DUPLICATE = 1062
async function claim(tx: Db, act: Act): Promise<void> {
  try {
    await tx.run(
      'INSERT INTO command (uuid, route, person_id, at) VALUES (:uuid, :route, :personId, UTC_TIMESTAMP(3))',
      { ...act, answer: undefined },
    )
  } catch (error) {
    throw (error as { errno?: number }).errno === DUPLICATE ? new Repeated() : error
  }
}
async function keepAnswer(tx: Db, act: Act, result: unknown): Promise<string> {
  const answer = JSON.stringify(result ?? null)
  await tx.run('UPDATE command SET answer = :answer WHERE uuid = :uuid', { answer, uuid: act.uuid })
  return answer
}

/** What is done at the end of a transaction, under the last lock: events take their numbers. */
const endings = new WeakMap<Db, ((tx: Db) => Promise<void>)[]>()
/** Runs `work` just before this transaction is committed. */
export function atEnd(tx: Db, work: (tx: Db) => Promise<void>): void {
  const list = endings.get(tx)
  if (!list) throw new Error('atEnd needs a transaction')
  list.push(work)
}

const TRY_AGAIN = new Set([1213, 1205])
const FIRST_PAUSE_MS = 15
const GIVE_UP_MS = 6000
/**
 * Pause before try n + 1, with chance so that two do not meet again: 15 ms, then twice as long each time, half a
 * second at most.
 */
const pause_ms = (tries: number) => Math.min(500, FIRST_PAUSE_MS * 2 ** (tries - 1)) * (0.5 + Math.random())

/**
 * Runs `work` in one transaction. A deadlock or a lock that is not got is tried again with a growing pause, for six
 * seconds. Locks are taken in one order: the write's UUID, pieces by id, a product, a pot or a question, lots by id,
 * the event counter last.
 */
export async function transaction<T>(work: (tx: Db) => Promise<T>): Promise<T> {
  const begun = Date.now()
  const act = acting.getStore()
  const first = act && act.answer === undefined ? act : undefined
  for (let tries = 1; ; tries++) {
    const connection = await connectionInTime()
    const tx = dbOf((sql, params) => query(connection, sql, params))
    endings.set(tx, [])
    try {
      await query(connection, 'START TRANSACTION')
      if (first) await claim(tx, first)
      const result = await work(tx)
      const answer = first && (await keepAnswer(tx, first, result))
      for (const end of endings.get(tx)!) await end(tx)
      await query(connection, 'COMMIT')
      if (first) first.answer = answer
      return result
    } catch (error) {
      if (!broken.has(connection)) await query(connection, 'ROLLBACK').catch(() => broken.add(connection))
      if (!TRY_AGAIN.has((error as { errno?: number }).errno ?? 0) || Date.now() - begun > GIVE_UP_MS) throw error
    } finally {
      giveBack(connection)
    }
    await new Promise(r => setTimeout(r, pause_ms(tries)))
  }
}

/** Does it all and undoes it again: what would come of it. */
export async function rehearse<T>(work: (tx: Db) => Promise<T>): Promise<T> {
  const undone = { result: undefined as T | undefined }
  try {
    return await transaction<T>(async tx => {
      undone.result = await work(tx)
      throw undone
    })
  } catch (error) {
    if (error !== undone) throw error
    return undone.result as T
  }
}
