/**
 * Reads an archive into a shop, empty or not: what it knows by its uid, or by its name where names are unique, stays as
 * it is; all else is added, and keeps the uid that it came with.
 */
import { randomBytes } from 'node:crypto'
import { createInterface } from 'node:readline'
import yauzl from 'yauzl'
import type { Db } from '../../database/on'
import { uidOf } from '../platform/uid'
import { type Column, FORMAT, readTables, type Table, VERSION } from './schema'
import { takeSettings } from './settings'
import { FILES, IN_JSON, SAME_BY } from './tables'

type Row = Record<string, unknown>
const DAMAGED = 'The archive is damaged: part of it cannot be read.'
const NO_ARCHIVE = 'This is no archive of a piece or a shop. Take the zip file that was made under Shop or on a piece.'
const [MOST_LINE, MOST_HEAD, MOST_FILE, MOST_ENTRIES] = [16_000_000, 4_000_000, 40_000_000, 400_000] as const

type Entries = Map<string, yauzl.Entry>
interface Zip {
  entries: Entries
  stream: (entry: yauzl.Entry) => Promise<NodeJS.ReadableStream>
  close: () => void
}
/** @throws RangeError in words. */
function openZip(path: string): Promise<Zip> {
  return new Promise((resolve, reject) => {
    const wrong = () => reject(new RangeError(NO_ARCHIVE))
    yauzl.open(path, { lazyEntries: true, autoClose: false, validateEntrySizes: true }, (error, zip) => {
      if (error || !zip || zip.entryCount > MOST_ENTRIES) return wrong()
      const entries: Entries = new Map()
      zip.on('entry', (entry: yauzl.Entry) => {
        entries.set(entry.fileName, entry)
        zip.readEntry()
      })
      zip.on('error', wrong)
      zip.on('end', () =>
        resolve({
          entries,
          stream: entry =>
            new Promise((give, fail) =>
              zip.openReadStream(entry, (e, stream) =>
                e || !stream ? fail(new RangeError(NO_ARCHIVE)) : give(stream),
              ),
            ),
          close: () => zip.close(),
        }),
      )
      zip.readEntry()
    })
  })
}
async function bytesOf(zip: Zip, name: string, most: number): Promise<Buffer | null> {
  const entry = zip.entries.get(name)
  if (!entry) return null
  if (entry.uncompressedSize > most) throw new RangeError(`${name} in it is larger than it can be.`)
  const chunks: Buffer[] = []
  await readable(async () => {
    for await (const chunk of await zip.stream(entry)) chunks.push(chunk as Buffer)
  })
  return Buffer.concat(chunks)
}
/** What the zip itself cannot give is told in words. */
async function readable<T>(work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    const { code = '', message = '' } = error as { code?: string; message?: string }
    if (
      /^Z_|^ERR_STREAM/.test(code) ||
      /zip|inflat|central directory|unexpected end|too (many|few) bytes/i.test(message)
    )
      throw new RangeError(DAMAGED)
    throw error
  }
}
interface Head {
  format: string
  version: number
  shop: { uid: string; name: string }
  what: 'piece' | 'shop'
}
async function headOf(zip: Zip): Promise<Head> {
  const text = await bytesOf(zip, 'archive.json', MOST_HEAD)
  let head: Partial<Head>
  try {
    head = JSON.parse(text?.toString('utf8') ?? '') as Partial<Head>
  } catch {
    throw new RangeError(NO_ARCHIVE)
  }
  if (head.format !== FORMAT || typeof head.shop?.uid !== 'string') throw new RangeError(NO_ARCHIVE)
  if (head.version !== VERSION)
    throw new RangeError(`This archive is of version ${String(head.version)}; this program reads version ${VERSION}.`)
  return head as Head
}

/** What an archive did: rows added and known already, by table. */
export interface ArchiveRead {
  from: string
  added: Record<string, number>
  known: Record<string, number>
}
/** A small picture of a photograph that was looked at first. @throws RangeError for what is no picture. */
export type SmallOf = (data: Buffer) => Promise<Uint8Array>
interface Reading {
  on: Db
  zip: Zip
  smallOf: SmallOf
  tables: ReadonlyMap<string, Table>
  /** number here of each row that was met, by table and uid */
  ids: Map<string, number>
  known: (uid: string, table: string) => Promise<number | null>
  /** references to rows that come later */
  later: { table: string; id: number; column: string; row: string }[]
}

const isUid = (value: unknown): value is string =>
  typeof value === 'string' && /^[\da-f]{8}(-[\da-f]{4}){3}-[\da-f]{12}$/i.test(value)
const rowOf = (table: string, uid: string) => `${table}/${uid}`
/** A value as the database takes it. @throws RangeError for what the column cannot hold. */
function valueFor(reading: Reading, table: Table, c: Column, value: unknown): unknown {
  if (value === null || value === undefined) {
    if (!c.nullable && value === null) throw new RangeError(`${c.name} is missing`)
    return value
  }
  if (c.refers) {
    if (!isUid(value)) throw new RangeError(`${c.name} names no row`)
    return reading.ids.get(rowOf(c.refers, value)) ?? null
  }
  if (c.type === 'json') return JSON.stringify(numbered(value, IN_JSON[`${table.name}.${c.name}`], reading.ids))
  if (typeof value === 'object') throw new RangeError(`${c.name} is no single value`)
  if (c.type === 'datetime') {
    const at = new Date(String(value))
    if (Number.isNaN(at.getTime())) throw new RangeError(`${c.name} is no moment`)
    return at
  }
  return value
}
function numbered(
  value: unknown,
  names: Readonly<Record<string, string>> | undefined,
  ids: Map<string, number>,
): unknown {
  if (!names || value === null || typeof value !== 'object') return value
  if (Array.isArray(value)) return value.map(v => numbered(v, names, ids))
  return Object.fromEntries(
    Object.entries(value).map(([k, v]) => [
      k,
      names[k] && isUid(v) ? (ids.get(rowOf(names[k], v)) ?? 0) : numbered(v, names, ids),
    ]),
  )
}

/** What an answer would do is told by numbers of the other shop: an open question is closed, and asked anew here. */
const closedOf = ({ name }: Table, { state }: Row): Row => {
  if (state !== 'open') return {}
  if (name === 'approval') return { state: 'superseded' }
  return name === 'question_item' ? { state: 'overtaken' } : {}
}
/** The file of a row; a picture is looked at as every upload is, and its small one is made anew. */
async function fileOf({ zip, smallOf }: Reading, { name: table }: Table, values: Row, uid: unknown): Promise<Row> {
  const file = FILES[table]
  if (!file) return {}
  const name = String(file.by === 'uid' ? uid : values[file.by])
  const data = /^[\da-f-]{36,64}$/i.test(name) ? await bytesOf(zip, `${file.dir}/${name}`, MOST_FILE) : null
  if (!data) throw new RangeError(`its ${file.called} is not in the archive`)
  if (!data.subarray(0, file.begins.length).equals(Buffer.from(file.begins)))
    throw new RangeError(`its ${file.called} is no ${file.kind}`)
  return { [file.column]: data, ...(file.derived ? { [file.derived]: Buffer.from(await smallOf(data)) } : {}) }
}
/** People come by name alone: they sign in when the owner gives them a password. */
const PERSON = () => ({ login: `read-in-${randomBytes(6).toString('hex')}`, password_hash: '-', active: 0 })

async function takeRow(reading: Reading, table: Table, row: Row): Promise<'added' | 'known'> {
  const { on, ids } = reading
  const uid = row.uid
  if (table.numbered) {
    if (!isUid(uid)) throw new RangeError('it has no uid')
    const id = await reading.known(uid, table.name)
    if (id !== null) {
      ids.set(rowOf(table.name, uid), id)
      return 'known'
    }
  }
  const strange = Object.keys(row).find(k => k !== 'uid' && !table.columns.some(c => c.name === k))
  if (strange) throw new RangeError(`"${strange.slice(0, 40)}" is not known here`)
  const values: Row = {}
  const later: { column: string; row: string }[] = []
  for (const c of table.columns) {
    const value = valueFor(reading, table, c, row[c.name])
    if (value === undefined) continue
    // what it names comes later, or did not come along
    if (c.refers && value === null && isUid(row[c.name])) {
      if (!c.nullable) throw new RangeError(`${c.name} names a row that is not in the archive`)
      later.push({ column: c.name, row: rowOf(c.refers, row[c.name] as string) })
    }
    values[c.name] = value
  }
  const same = SAME_BY[table.name] ?? (table.numbered ? null : table.key)
  if (same) {
    const where = same.map(k => `\`${k}\` <=> :${k}`).join(' AND ')
    const found = await on.row<Row>(
      `SELECT ${table.numbered ? 'id' : '1 AS id'} FROM \`${table.name}\` WHERE ${where}`,
      values,
    )
    if (found) {
      if (table.numbered) ids.set(rowOf(table.name, uid as string), Number(found.id))
      return 'known'
    }
  }
  const more = table.name === 'person' ? PERSON() : await fileOf(reading, table, values, uid)
  const all = { ...values, ...closedOf(table, values), ...more }
  const names = Object.keys(all)
  const { id } = await on.run(
    `INSERT INTO \`${table.name}\` (${names.map(n => `\`${n}\``).join(', ')})
        VALUES (${names.map(n => `:${n}`).join(', ')})`,
    all,
  )
  if (table.numbered) {
    ids.set(rowOf(table.name, uid as string), id)
    await on.run('INSERT INTO came_from (uid, table_name, row_id) VALUES (:uid, :table, :id)', {
      ...{ uid, table: table.name, id },
    })
    for (const l of later) reading.later.push({ table: table.name, id, ...l })
  }
  return 'added'
}

/** Rows here by their uid: those that came from elsewhere, and of each table that is asked for those of this shop. */
function knownHere(on: Db, ownUid: string): Reading['known'] {
  const own = new Map<string, Promise<Map<string, number>>>()
  const readOwn = async (table: string) => {
    const foreign = new Map(
      (
        await on.rows<{ uid: string; row_id: number }>('SELECT uid, row_id FROM came_from WHERE table_name = :table', {
          table,
        })
      ).map(f => [Number(f.row_id), f.uid]),
    )
    const rows = await on.rows<{ id: number }>(`SELECT id FROM \`${table}\``)
    return new Map(rows.map(({ id }) => [foreign.get(Number(id)) ?? uidOf(ownUid, table, Number(id)), Number(id)]))
  }
  return async (uid, table) => {
    if (!own.has(table)) own.set(table, readOwn(table))
    return (await own.get(table)!).get(uid) ?? null
  }
}

/**
 * Reads the archive at `path` in: all of it, in the transaction that `on` stands for, or nothing.
 * @throws RangeError in words, with the table and line that cannot be read.
 */
export async function readArchive(on: Db, path: string, smallOf: SmallOf): Promise<ArchiveRead> {
  const zip = await openZip(path)
  try {
    const head = await headOf(zip)
    const tables = await readTables(on)
    const { uid } = (await on.row<{ uid: string }>('SELECT uid FROM shop WHERE id = 1'))!
    const reading: Reading = { on, zip, tables, ids: new Map(), known: knownHere(on, uid), smallOf, later: [] }
    const counts: ArchiveRead = { from: String(head.shop.name ?? ''), added: {}, known: {} }
    const settings = await bytesOf(zip, 'settings.json', MOST_HEAD)
    if (settings) await told('How the house works', () => takeSettings(on, settings.toString('utf8')))
    for (const table of tables.values()) await readable(() => takeTable(reading, table, counts))
    for (const l of reading.later) {
      const id = reading.ids.get(l.row)
      if (id !== undefined)
        await on.run(`UPDATE \`${l.table}\` SET \`${l.column}\` = :to WHERE id = :id`, { to: id, id: l.id })
    }
    return counts
  } finally {
    zip.close()
  }
}
async function takeTable(reading: Reading, table: Table, counts: ArchiveRead) {
  const { zip } = reading
  const entry = zip.entries.get(`rows/${table.name}.jsonl`)
  if (!entry) return
  let no = 0
  for await (const line of createInterface({ input: await zip.stream(entry), crlfDelay: Infinity })) {
    no++
    if (line === '') continue
    if (line.length > MOST_LINE) throw new RangeError(`Line ${no} of ${table.name} is too long.`)
    const done = await told(`Line ${no} of ${table.name}`, () => takeLine(reading, table, line))
    counts[done][table.name] = (counts[done][table.name] ?? 0) + 1
  }
}
/** Clashes of a row with what the database can keep; whatever else it says is no fault of the archive. */
const CANNOT_KEEP = new Set([1048, 1062, 1264, 1265, 1292, 1364, 1366, 1406, 1452, 4025])
function whyNot(error: unknown): string | null {
  if (error instanceof RangeError) return error.message
  const { errno = 0 } = error as { errno?: number }
  return CANNOT_KEEP.has(errno) ? 'the database cannot keep it' : null
}
/** What `work` cannot take is said of `what`. */
async function told<T>(what: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work()
  } catch (error) {
    const says = whyNot(error)
    if (says === null) throw error
    throw new RangeError(`${what}: ${says}. Nothing was taken.`)
  }
}
async function takeLine(reading: Reading, table: Table, line: string) {
  let row: unknown
  try {
    row = JSON.parse(line)
  } catch {
    throw new RangeError('it is no JSON')
  }
  if (row === null || typeof row !== 'object' || Array.isArray(row)) throw new RangeError('it is no row')
  return takeRow(reading, table, row as Row)
}
