import { spawn } from 'node:child_process'
import { createHash, randomBytes } from 'node:crypto'
import {
  createReadStream,
  createWriteStream,
  existsSync,
  readdirSync,
  readFileSync,
  renameSync,
  rmSync,
  statSync,
} from 'node:fs'
import { createInterface } from 'node:readline'
import { type Readable, Transform, type Writable } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import { createGunzip, createGzip } from 'node:zlib'
import { migrate, type Migration } from '../server/database/migrate'
import { asRoot, createDatabase, databaseUrl, rootSql } from './database'
import { readKeys } from './keys'
import { currentDatabase, type Profile, readIf, ROOT, turnDatabase, writeWhole } from './profile'

/**
 * A backup is plain SQL under gzip: a first line that says what it is, the dump of one moment, and a last line with
 * the rows of each table and a digest of everything before it. Keys are never in it.
 */
const FORMAT = 'hantverk-backup'
const VERSION = 1
export interface Head {
  format: string
  version: number
  made_at: string
  schema: string[]
}
interface Tail {
  rows: Record<string, number>
  triggers: number
  sha256: string
}
const HEAD = '-- hantverk-backup '
const TAIL = '-- hantverk-end '

export const migrationsHere = (): Migration[] => {
  const dir = `${ROOT}/server/database/migrations`
  return readdirSync(dir)
    .filter(f => f.endsWith('.sql'))
    .map(name => ({ name, sql: readFileSync(`${dir}/${name}`, 'utf8') }))
}

/**
 * Counts rows and triggers of a dump as its lines go by, and digests them. A row is a line of its own; nothing inside
 * one begins a line.
 */
class Counter {
  rows: Record<string, number> = {}
  triggers = 0
  private readonly hash = createHash('sha256')
  take(line: string) {
    this.hash.update(`${line}\n`)
    const table = /^INSERT INTO `([^`]+)` VALUES/.exec(line)?.[1]
    if (table) this.rows[table] = (this.rows[table] ?? 0) + 1
    if (/^\/\*!50003 (CREATE.*)? ?TRIGGER|^\/\*!50003 TRIGGER|^CREATE.*TRIGGER/.test(line)) this.triggers++
  }

  tail(): Tail {
    return { rows: this.rows, triggers: this.triggers, sha256: this.hash.digest('hex') }
  }
}

/** Passes whole lines on and shows each to `see`. */
function byLine(see: (line: string) => void, end: () => string): Transform {
  let rest = Buffer.alloc(0)
  return new Transform({
    transform(chunk: Buffer, _encoding, done) {
      rest = Buffer.concat([rest, chunk])
      const last = rest.lastIndexOf(10)
      if (last >= 0) {
        for (const line of rest.subarray(0, last).toString('utf8').split('\n')) see(line)
        this.push(rest.subarray(0, last + 1))
        rest = rest.subarray(last + 1)
      }
      done()
    },
    flush(done) {
      if (rest.length) {
        see(rest.toString('utf8'))
        this.push(Buffer.concat([rest, Buffer.from('\n')]))
      }
      this.push(end())
      done()
    },
  })
}

/** Ends when the client has; @throws Error with what it said. */
const finished = (child: ReturnType<typeof spawn>): Promise<void> =>
  new Promise((resolve, reject) => {
    let wrong = ''
    child.stderr!.on('data', (chunk: Buffer) => {
      wrong = (wrong + chunk.toString()).slice(-2000)
    })
    child.on('error', reject)
    child.on('close', code =>
      code === 0 ? resolve() : reject(new Error(wrong.trim().split('\n').at(-1) || `ended with ${code}`)),
    )
  })

const write = (stream: Writable, text: string) =>
  new Promise<void>((resolve, reject) => {
    stream.write(text, error => (error ? reject(error) : resolve()))
  })

/**
 * Writes a backup of the shop as it is at this moment, while everything goes on. The file is whole or not there.
 * @throws Error in words.
 */
export async function backUp(profile: Profile, file: string): Promise<{ bytes: number; rows: number }> {
  const database = currentDatabase(profile)
  const schema = (await rootSql(profile, 'SELECT name FROM migration ORDER BY name', database))
    .split('\n')
    .filter(Boolean)
  const head: Head = { format: FORMAT, version: VERSION, made_at: new Date().toISOString(), schema }
  const part = `${file}.part`
  const dump = spawn(
    'mariadb-dump',
    [
      ...asRoot(profile),
      '--single-transaction',
      '--quick',
      '--skip-extended-insert',
      '--hex-blob',
      '--triggers',
      '--no-autocommit',
      '--skip-dump-date',
      '--skip-add-locks',
      '--default-character-set=utf8mb4',
      '--ignore-table-data',
      `${database}.session`,
      database,
    ],
    { stdio: ['ignore', 'pipe', 'pipe'] },
  )
  const counter = new Counter()
  const zipped = createGzip({ level: 6 })
  const out = createWriteStream(part, { mode: 0o600 })
  try {
    const writing = pipeline(zipped, out)
    writing.catch(() => dump.kill())
    const first = `${HEAD}${JSON.stringify(head)}`
    counter.take(first)
    await write(zipped, `${first}\n`)
    const lines = byLine(
      line => counter.take(line),
      () => `${TAIL}${JSON.stringify(counter.tail())}\n`,
    )
    await Promise.all([finished(dump), pipeline(dump.stdout!, lines, zipped), writing])
    renameSync(part, file)
  } catch (error) {
    dump.kill()
    rmSync(part, { force: true })
    throw new Error(`No backup was made: ${(error as Error).message}`)
  }
  return { bytes: statSync(file).size, rows: Object.values(counter.rows).reduce((a, b) => a + b, 0) }
}

const notOurs = (why: string) => new Error(`This is no whole backup of Hantverk: ${why}. Nothing was changed.`)

/** Reads a backup from beginning to end. @throws Error when it is cut, changed, foreign or of a newer version. */
export async function verify(file: string): Promise<{ head: Head; tail: Tail }> {
  if (!existsSync(file)) throw new Error(`There is no file ${file}.`)
  const counter = new Counter()
  let head: Head | undefined
  let tail: Tail | undefined
  const input = createReadStream(file).pipe(createGunzip())
  try {
    for await (const line of linesOf(input)) {
      if (tail) throw notOurs('something follows its end')
      if (!head) {
        head = parsed<Head>(line, HEAD)
        if (head?.format !== FORMAT) throw notOurs('it does not begin as one')
        if (head.version !== VERSION) throw notOurs(`it has version ${head.version}, and ${VERSION} is read here`)
      }
      if (line.startsWith(TAIL)) tail = parsed<Tail>(line, TAIL)
      else counter.take(line)
    }
  } catch (error) {
    const { code, message } = error as { code?: string; message: string }
    throw code?.startsWith('Z_')
      ? notOurs(code === 'Z_BUF_ERROR' ? 'it is cut off' : 'it is damaged, or no gzip file')
      : new Error(message)
  }
  if (!head || !tail) throw notOurs('it is cut off')
  if (counter.tail().sha256 !== tail.sha256) throw notOurs('its digest does not fit what is in it')
  const unknown = head.schema.filter(name => !migrationsHere().some(m => m.name === name))
  if (unknown.length)
    throw new Error(
      `This backup was made by a newer Hantverk (${unknown.join(', ')}). Restore it with that one. Nothing ` +
        'was changed.',
    )
  return { head, tail }
}
function parsed<T>(line: string, start: string): T | undefined {
  try {
    return line.startsWith(start) ? (JSON.parse(line.slice(start.length)) as T) : undefined
  } catch {
    return undefined
  }
}
async function* linesOf(input: Readable): AsyncGenerator<string> {
  let failed: Error | undefined
  input.on('error', error => {
    failed = error
  })
  for await (const line of createInterface({ input, crlfDelay: Infinity })) yield line
  if (failed) throw failed
}

const KEPT_D = 7
interface KeptDatabase {
  name: string
  until: string
}
const keptFile = (profile: Profile) => `${profile.dir}/kept.json`
const readKept = (profile: Profile): KeptDatabase[] => JSON.parse(readIf(keptFile(profile)) ?? '[]') as KeptDatabase[]

/** Databases from before a restore go after a week. */
export async function dropKept(profile: Profile): Promise<void> {
  const kept = readKept(profile)
  const over = kept.filter(k => Date.parse(k.until) < Date.now() && k.name !== currentDatabase(profile))
  if (over.length === 0) return
  for (const { name } of over) await rootSql(profile, `DROP DATABASE IF EXISTS \`${name}\``)
  writeWhole(
    keptFile(profile),
    JSON.stringify(
      kept.filter(k => !over.includes(k)),
      null,
      1,
    ),
  )
}

/** Beyond any number that an open page has seen. */
const EVENTS_AHEAD = 1_000_000

/**
 * What must not go on as if nothing had happened: mail may have gone out since, pages know later events, people may
 * have left.
 */
const AFTERWARDS = (last: number) => `DELETE
    FROM session; UPDATE shop
    SET mail_held = TRUE
    WHERE EXISTS (SELECT 1 FROM mail WHERE state IN ('waiting', 'sending')); UPDATE event_counter
    SET last = GREATEST(last, ${last}) + ${EVENTS_AHEAD}; INSERT INTO event (id, topic, piece_id, at) SELECT last,
      'shop', NULL, UTC_TIMESTAMP(3)
    FROM event_counter; INSERT INTO logbook (piece_id, kind, says, happened_at, recorded_at)
    VALUES (
      NULL, 'shop', 'A backup was brought back; sessions ended, waiting letters are held', UTC_TIMESTAMP(3),
      UTC_TIMESTAMP(3)
    );`

async function checkCounts(profile: Profile, database: string, tail: Tail) {
  for (const [table, rows] of Object.entries(tail.rows)) {
    const found = Number(await rootSql(profile, `SELECT COUNT(*) FROM \`${table}\``, database))
    if (found !== rows) throw new Error(`table ${table} has ${found} rows, the backup ${rows}`)
  }
  const triggers = Number(
    await rootSql(profile, `SELECT COUNT(*) FROM information_schema.triggers WHERE trigger_schema = '${database}'`),
  )
  if (triggers !== tail.triggers) throw new Error(`${triggers} triggers, the backup has ${tail.triggers}`)
}

/**
 * Brings a backup back into a new database, which is checked and migrated before the shop turns to it; the one before
 * stays for a week. Whatever goes wrong, the shop goes on with what it had. @throws Error in words.
 */
export async function restore(
  profile: Profile,
  file: string,
  say: (text: string) => void,
): Promise<{ database: string; before: string }> {
  say('Reading the backup through')
  const { head, tail } = await verify(file)
  const before = currentDatabase(profile)
  const today = new Date().toISOString().slice(0, 10).replaceAll('-', '')
  const database = `hantverk_${today}_${randomBytes(3).toString('hex')}`
  await createDatabase(profile, database)
  try {
    say(`Bringing back the shop of ${head.made_at}`)
    const client = spawn('mariadb', [...asRoot(profile), '--default-character-set=utf8mb4', database], {
      stdio: ['pipe', 'ignore', 'pipe'],
    })
    await Promise.all([finished(client), pipeline(createReadStream(file), createGunzip(), client.stdin!)])
    await checkCounts(profile, database, tail)
    const done = await migrate(databaseUrl(profile, readKeys(profile).database, database), migrationsHere())
    if (done.length) say(`Migrated: ${done.join(', ')}`)
    const last = Number(await rootSql(profile, 'SELECT last FROM event_counter', before).catch(() => '0'))
    await rootSql(profile, AFTERWARDS(last), database)
    // people who were erased since that backup are erased again, once the shop is up
    await rootSql(
      profile,
      `INSERT IGNORE INTO erasure (client_uid, at, person_id) SELECT client_uid, at, NULL FROM \`${before}\`.erasure`,
      database,
    ).catch(() => '')
  } catch (error) {
    await rootSql(profile, `DROP DATABASE IF EXISTS \`${database}\``).catch(() => '')
    throw new Error(`The backup was not brought back: ${(error as Error).message}. The shop goes on as it was.`)
  }
  writeWhole(
    keptFile(profile),
    JSON.stringify(
      [...readKept(profile), { name: before, until: new Date(Date.now() + KEPT_D * 86_400_000).toISOString() }],
      null,
      1,
    ),
  )
  turnDatabase(profile, database)
  return { database, before }
}
