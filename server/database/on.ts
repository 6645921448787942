/** What SQL is run on. */
export type Params = Record<string, unknown>
/** Something that runs SQL: the pool, or one connection inside a transaction. */
export interface Db {
  rows: <T>(sql: string, params?: Params) => Promise<T[]>
  row: <T>(sql: string, params?: Params) => Promise<T | null>
  run: (sql: string, params?: Params) => Promise<{ id: number; changed: number }>
}
