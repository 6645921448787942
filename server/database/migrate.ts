import mysql from 'mysql2/promise'

export interface Migration { name: string, sql: string }

/** Statements of a migration file; none holds a semicolon inside. */
const statements = (sql: string) => sql.replace(/^--.*$/gm, '').split(';').map(s => s.trim()).filter(Boolean)

/** Applies the migrations that this database has not seen, in order of their names, under a lock. Returns those applied. */
export async function migrate(databaseUrl: string, migrations: readonly Migration[]): Promise<string[]> {
  const connection = await mysql.createConnection({ uri: databaseUrl, charset: 'utf8mb4' })
  try {
    await connection.query('SET NAMES utf8mb4 COLLATE utf8mb4_uca1400_ai_ci')
    const [[lock]] = await connection.query<mysql.RowDataPacket[]>('SELECT GET_LOCK(\'hantverk-migrate\', 60) AS got')
    if (lock?.got !== 1) throw new Error('Another start is migrating this database. Try again in a minute.')
    await connection.query('CREATE TABLE IF NOT EXISTS migration (name VARCHAR(120) PRIMARY KEY, at DATETIME(3) NOT NULL DEFAULT CURRENT_TIMESTAMP(3))')
    const [rows] = await connection.query<mysql.RowDataPacket[]>('SELECT name FROM migration')
    const known = new Set(rows.map(r => r.name as string))
    const fresh = migrations.filter(m => !known.has(m.name)).sort((a, b) => a.name.localeCompare(b.name))
    for (const { name, sql } of fresh) {
      for (const statement of statements(sql)) await connection.query(statement)
      await connection.query('INSERT INTO migration (name) VALUES (?)', [name])
    }
    return fresh.map(m => m.name)
  }
  finally { await connection.end() }
}
