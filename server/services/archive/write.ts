/** An archive of one piece, or of the whole shop: a zip of rows by the line, pictures, and for a piece its papers. */
import { PassThrough, Readable } from 'node:stream'
import yazl from 'yazl'
import type { Db } from '../../database/on'
import { uidOf } from '../platform/uid'
import { FORMAT, jsonSchema, readTables, type Table, VERSION } from './schema'
import { readSettings } from './settings'
import { type FileOf, FILES, IN_JSON, OF_PIECE } from './tables'

type Row = Record<string, unknown>
/** So many rows are held at once. */
const AT_ONCE = 500
/** Small rows without a number: they are counted off from the beginning each time, so more of them at once. */
const SMALL_AT_ONCE = 5000
/**
 * Rows to be written, by table; where no piece was chosen, all that there were when the archive was begun: `most` holds
 * the last number of each table then.
 */
type Chosen = { ids: Map<string, Set<number>> } | { most: ReadonlyMap<string, number> }

/** Rows that came from elsewhere keep the uid that they had there. */
async function readUids(on: Db): Promise<(table: string, id: number) => string> {
  const { uid } = (await on.row<{ uid: string }>('SELECT uid FROM shop WHERE id = 1'))!
  const foreign = await on.rows<{ uid: string; table_name: string; row_id: number }>('SELECT * FROM came_from')
  const known = new Map(foreign.map(f => [`${f.table_name}/${f.row_id}`, f.uid]))
  return (table, id) => known.get(`${table}/${id}`) ?? uidOf(uid, table, id)
}

const inTurns = function* (ids: readonly number[]) {
  for (let i = 0; i < ids.length; i += AT_ONCE) yield ids.slice(i, i + AT_ONCE)
}
/** Rows of a piece and all that they name: its own downward, then what they refer to. */
async function chooseRows(
  on: Db,
  tables: ReadonlyMap<string, Table>,
  pieceId: number,
): Promise<Map<string, Set<number>>> {
  const chosen = new Map<string, Set<number>>([['piece', new Set([pieceId])]])
  const numbered = (name: string) => tables.get(name)!.numbered
  for (const [table, column, parent] of OF_PIECE) {
    const ids = chosen.get(table) ?? new Set<number>()
    chosen.set(table, ids)
    if (!numbered(table)) continue
    for (const some of inTurns([...(chosen.get(parent) ?? [])]))
      for (const r of await on.rows<{ id: number }>(`SELECT id FROM ${table} WHERE ${column} IN (:some)`, { some }))
        ids.add(r.id)
  }
  await addReferred(on, tables, chosen)
  return chosen
}
async function addReferred(on: Db, tables: ReadonlyMap<string, Table>, chosen: Map<string, Set<number>>) {
  for (let grew = true; grew;) {
    grew = false
    for (const table of tables.values()) {
      const refs = table.columns.filter(c => c.refers && tables.has(c.refers))
      if (refs.length === 0) continue
      for await (const rows of rowsOf(on, table, { ids: chosen }))
        for (const row of rows)
          for (const c of refs) {
            const id = row[c.name]
            // another piece is not taken along because this one follows it
            if (typeof id !== 'number' || c.refers === 'piece') continue
            const ids = chosen.get(c.refers!) ?? new Set<number>()
            chosen.set(c.refers!, ids)
            if (!ids.has(id)) grew = true
            ids.add(id)
          }
    }
  }
}

const quoted = (t: Table) =>
  [...(t.numbered ? ['id'] : []), ...t.columns.map(c => c.name)].map(c => `\`${c}\``).join(', ')
/** Rows of a table in turns, in the order of their keys. */
async function* rowsOf(on: Db, table: Table, chosen: Chosen): AsyncGenerator<Row[]> {
  const select = `SELECT ${quoted(table)} FROM \`${table.name}\``
  const order = table.key.map(k => `\`${k}\``).join(', ')
  if ('ids' in chosen) {
    const by = table.numbered ? { column: 'id', parent: table.name } : ownerOf(table)
    const ids = by ? [...(chosen.ids.get(by.parent) ?? [])].sort((a, b) => a - b) : []
    for (const some of inTurns(ids))
      yield on.rows<Row>(`${select} WHERE \`${by!.column}\` IN (:some) ORDER BY ${order}`, { some })
    return
  }
  const { most } = chosen
  if (table.numbered) {
    for (let after = 0; ;) {
      const rows = await on.rows<Row>(`${select} WHERE id > :after AND id <= :most ORDER BY id LIMIT ${AT_ONCE}`, {
        ...{ after, most: most.get(table.name) ?? 0 },
      })
      if (rows.length === 0) return
      yield rows
      after = Number(rows.at(-1)!.id)
    }
  }
  const was = (row: Row) =>
    table.columns.every(c => !c.refers || row[c.name] === null || Number(row[c.name]) <= (most.get(c.refers) ?? 0))
  for (let from = 0; ; from += SMALL_AT_ONCE) {
    const rows = await on.rows<Row>(`${select} ORDER BY ${order} LIMIT ${SMALL_AT_ONCE} OFFSET ${from}`)
    if (rows.length > 0) yield rows.filter(was)
    if (rows.length < SMALL_AT_ONCE) return
  }
}
/** By what rows without a number belong to a piece; colourants go with their products. */
function ownerOf(table: Table): { column: string; parent: string } | null {
  const owned = OF_PIECE.find(([t]) => t === table.name)
  if (owned) return { column: owned[1], parent: owned[2] }
  return table.name.startsWith('colourant') ? { column: 'product_id', parent: 'product' } : null
}
async function readMost(on: Db, tables: ReadonlyMap<string, Table>): Promise<ReadonlyMap<string, number>> {
  const most = new Map<string, number>()
  // what others refer to is looked at last, so that nothing refers beyond it
  for (const { name, numbered } of [...tables.values()].reverse())
    if (numbered)
      most.set(name, Number((await on.row<{ n: number | null }>(`SELECT MAX(id) AS n FROM \`${name}\``))?.n ?? 0))
  return most
}

/** A row as it stands in an archive: rows that it names by their uid, moments in ISO. */
function written(row: Row, table: Table, uidFor: (table: string, id: number) => string): Row {
  const out: Row = table.numbered ? { uid: uidFor(table.name, Number(row.id)) } : {}
  for (const c of table.columns) {
    const value = row[c.name] ?? null
    if (c.refers && value !== null) out[c.name] = uidFor(c.refers, Number(value))
    else if (value instanceof Date) out[c.name] = value.toISOString()
    else if (c.type === 'json') out[c.name] = named(parsedOf(value), IN_JSON[`${table.name}.${c.name}`], uidFor)
    else out[c.name] = value
  }
  return out
}
function parsedOf(value: unknown): unknown {
  if (typeof value !== 'string') return value
  try {
    return JSON.parse(value) as unknown
  } catch {
    return value
  }
}
function named(
  value: unknown,
  names: Readonly<Record<string, string>> | undefined,
  uidFor: (table: string, id: number) => string,
): unknown {
  if (!names || value === null || typeof value !== 'object') return value
  if (Array.isArray(value)) return value.map(v => named(v, names, uidFor))
  return Object.fromEntries(
    Object.entries(value).map(([k, v]) => [
      k,
      names[k] && typeof v === 'number' ? uidFor(names[k], v) : named(v, names, uidFor),
    ]),
  )
}

export interface Paper {
  name: string
  data: Uint8Array
}
/** A file of the zip that is made while it is read: nothing of it is held but what is under way. */
const lazily =
  (fails: (error: Error) => void, make: () => AsyncIterable<string | Buffer>) =>
  (give: (error: unknown, stream: NodeJS.ReadableStream) => void) =>
    give(null, Readable.from(make()).on('error', fails))

/**
 * Begins an archive. `pieceId`: of that piece and what it names; null: of the whole shop. `papers`: PDF to lie beside.
 * The stream fails where the database goes away, so that nobody takes half of it for the whole.
 */
export async function writeArchive(
  on: Db,
  { pieceId, papers, at }: { pieceId: number | null; papers: readonly Paper[]; at: Date },
): Promise<Readable> {
  const tables = await readTables(on)
  const uidFor = await readUids(on)
  const chosen: Chosen =
    pieceId === null ? { most: await readMost(on, tables) } : { ids: await chooseRows(on, tables, pieceId) }
  const shop = (await on.row<{ uid: string; name: string }>('SELECT uid, name FROM shop WHERE id = 1'))!
  const zip = new yazl.ZipFile()
  const out = new PassThrough()
  const counts: Record<string, number> = {}
  const fails = (error: Error) => void out.destroy(error)
  zip.on('error', error => fails(error as Error))
  const text = (value: unknown) => Buffer.from(`${JSON.stringify(value, null, 1)}\n`)
  zip.addBuffer(text(jsonSchema(tables)), 'schema.json')
  const lines = (table: Table) =>
    async function* () {
      for await (const rows of rowsOf(on, table, chosen)) {
        counts[table.name] = (counts[table.name] ?? 0) + rows.length
        yield rows.map(r => `${JSON.stringify(written(r, table, uidFor))}\n`).join('')
      }
    }
  for (const table of tables.values()) zip.addReadStreamLazy(`rows/${table.name}.jsonl`, lazily(fails, lines(table)))
  const data = (table: string, { column }: FileOf, id: number) =>
    async function* () {
      const found = await on.row<{ data: Buffer }>(`SELECT ${column} AS data FROM ${table} WHERE id = :id`, { id })
      if (found) yield found.data
    }
  for (const [table, file] of Object.entries(FILES)) {
    const seen = new Set<string>()
    for await (const rows of rowsOf(on, tables.get(table)!, chosen))
      for (const row of rows) {
        const id = Number(row.id)
        const name = `${file.dir}/${file.by === 'uid' ? uidFor(table, id) : String(row[file.by])}`
        if (!seen.has(name)) zip.addReadStreamLazy(name, { compress: false }, lazily(fails, data(table, file, id)))
        seen.add(name)
      }
  }
  if (pieceId === null) zip.addBuffer(text(await readSettings(on)), 'settings.json')
  for (const p of papers) zip.addBuffer(Buffer.from(p.data), `papers/${p.name}`)
  zip.addReadStreamLazy(
    'archive.json',
    lazily(fails, async function* () {
      const { uid, name } = shop
      const what = pieceId === null ? 'shop' : 'piece'
      yield text({
        format: FORMAT,
        version: VERSION,
        shop: { uid, name },
        made_at: at.toISOString(),
        what,
        rows: counts,
      })
    }),
  )
  zip.end()
  zip.outputStream.pipe(out)
  return out
}
