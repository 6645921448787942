/** The tables of an archive as the database describes them; the JSON Schema of its rows comes from there. */
import type { Db } from '../../database/on'
import { FILES, IN_JSON, NEVER, OF_PIECE, OF_SHOP, REFERS } from './tables'

export interface Column {
  name: string
  type: string
  nullable: boolean
  /** the table that it names a row of */
  refers: string | null
}
export interface Table {
  name: string
  columns: Column[]
  /** rows have a number of their own */
  numbered: boolean
  key: string[]
}
export const FORMAT = 'hantverk-archive'
export const VERSION = 1

/** Every table of an archive, those that others refer to first. */
export async function readTables(on: Db): Promise<Map<string, Table>> {
  const wanted = new Set<string>([...OF_SHOP, ...OF_PIECE.map(([t]) => t)])
  const columns = await on.rows<{ t: string; c: string; type: string; nullable: string; pk: string; extra: string }>(
    `SELECT table_name AS t, column_name AS c, data_type AS type, is_nullable AS nullable, column_key AS pk, extra
        FROM information_schema.columns
        WHERE table_schema = DATABASE()
        ORDER BY table_name, ordinal_position`,
  )
  const keys = await on.rows<{ t: string; c: string; refers: string }>(
    `SELECT table_name AS t, column_name AS c, referenced_table_name AS refers
        FROM information_schema.key_column_usage
        WHERE table_schema = DATABASE() AND referenced_table_name IS NOT NULL`,
  )
  // a colourant is known by its product's number
  const rootOf = (table: string) => (table === 'colourant' ? 'product' : table)
  const refers = new Map(keys.map(k => [`${k.t}.${k.c}`, rootOf(k.refers)]))
  const tables = new Map<string, Table>()
  for (const name of wanted) {
    const own = columns.filter(c => c.t === name)
    const never = new Set([...(NEVER[name] ?? []), ...(FILES[name] ? [FILES[name].column, FILES[name].derived] : [])])
    tables.set(name, {
      name,
      numbered: own.some(c => c.c === 'id' && c.extra.includes('auto_increment')),
      key: own.filter(c => c.pk === 'PRI').map(c => c.c),
      columns: own
        .filter(c => !never.has(c.c) && !(c.c === 'id' && c.extra.includes('auto_increment')))
        .map(c => ({
          ...{ name: c.c, type: isJson(name, c.c, c.type) ? 'json' : c.type, nullable: c.nullable === 'YES' },
          refers: refers.get(`${name}.${c.c}`) ?? REFERS[`${name}.${c.c}`] ?? null,
        })),
    })
  }
  return ordered(tables)
}
const isJson = (table: string, column: string, type: string) =>
  type === 'longtext' && (JSON_COLUMNS.has(column) || Object.hasOwn(IN_JSON, `${table}.${column}`))
/** JSON columns are long texts to the database; what was frozen with a digest stays the text that it is. */
const JSON_COLUMNS = new Set([
  ...['holes', 'house', 'spectrum', 'given', 'under', 'aim', 'predicted', 'shares', 'fields', 'figures', 'woods'],
  ...['layers', 'known_findings', 'measured', 'place'],
])

/** Referred tables before those that refer to them and must; what may be empty does not count. */
function ordered(tables: Map<string, Table>): Map<string, Table> {
  const done = new Map<string, Table>()
  const visiting = new Set<string>()
  const visit = (table: Table) => {
    if (done.has(table.name) || visiting.has(table.name)) return
    visiting.add(table.name)
    for (const c of table.columns) {
      const to = c.refers && c.refers !== table.name && !c.nullable ? tables.get(c.refers) : undefined
      if (to) visit(to)
    }
    done.set(table.name, table)
  }
  for (const table of tables.values()) visit(table)
  return done
}

const TYPES: Readonly<Record<string, object>> = {
  ...{ int: { type: 'integer' }, bigint: { type: 'integer' }, smallint: { type: 'integer' } },
  ...{ tinyint: { type: 'integer' }, mediumint: { type: 'integer' } },
  ...{ decimal: { type: 'number' }, double: { type: 'number' }, float: { type: 'number' } },
  ...{ datetime: { type: 'string', format: 'date-time' }, date: { type: 'string', format: 'date' } },
  ...{ json: {}, uuid: { type: 'string', format: 'uuid' } },
}
const UID = { type: 'string', format: 'uuid' }
const orNull = (schema: object, nullable: boolean) => (nullable ? { anyOf: [schema, { type: 'null' }] } : schema)
/** JSON Schema (2020-12) of the head of an archive, and of the lines of each of its tables. */
export const jsonSchema = (tables: ReadonlyMap<string, Table>) => ({
  $schema: 'https://json-schema.org/draft/2020-12/schema',
  title: `${FORMAT} ${VERSION}`,
  description:
    'archive.json is the head. rows/TABLE.jsonl has a line for each row of a table: "uid" names it everywhere, a ' +
    'column that names another row holds that one’s uid. pictures/ADDRESS holds the photograph of that address, ' +
    'sheets/UID the data sheet of that row, settings.json how the house works.',
  type: 'object',
  required: ['format', 'version', 'shop', 'made_at', 'what', 'rows'],
  properties: {
    format: { const: FORMAT },
    version: { const: VERSION },
    shop: { type: 'object', properties: { uid: UID, name: { type: 'string' } } },
    made_at: { type: 'string', format: 'date-time' },
    what: { enum: ['piece', 'shop'] },
    rows: { type: 'object', additionalProperties: { type: 'integer' } },
  },
  $defs: Object.fromEntries(
    [...tables.values()].map(t => [
      t.name,
      {
        type: 'object',
        required: [...(t.numbered ? ['uid'] : []), ...t.columns.map(c => c.name)],
        properties: {
          ...(t.numbered ? { uid: UID } : {}),
          ...Object.fromEntries(
            t.columns.map(c => [c.name, orNull(c.refers ? UID : (TYPES[c.type] ?? { type: 'string' }), c.nullable)]),
          ),
        },
        additionalProperties: false,
      },
    ]),
  ),
})
