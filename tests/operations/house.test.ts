/** The house as it runs: processes that die, a database that others cannot reach, migrations that are cut off. */
import { P } from '../../core/abrasives'
import { spawn } from 'node:child_process'
import { chmodSync, existsSync, mkdtempSync, readdirSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { createServer } from 'node:net'
import { tmpdir } from 'node:os'
import { dirname } from 'node:path'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it, test } from 'vitest'
import { migrationsHere } from '../../ops/backup'
import { createDatabase, databaseUrl, rootSql } from '../../ops/database'
import { readKeys } from '../../ops/keys'
import { pause } from '../../ops/process'
import { migrate, NewerDatabase, statementsOf } from '../../server/database/migrate'
import { answer, down, fresh, logOf, ops, partOf, PROFILE, state, up, WEB } from './profile'

const files = mkdtempSync(`${tmpdir()}/hantverk-files-`)
const migrations = migrationsHere().sort((a, b) => a.name.localeCompare(b.name))
const urlOf = (name: string) => databaseUrl(PROFILE, readKeys(PROFILE).database, name)

beforeAll(async () => {
  process.env.HANTVERK_BASE = WEB
  await fresh()
}, 120_000)
afterAll(async () => {
  await down()
  rmSync(files, { recursive: true, force: true })
  rmSync(PROFILE.dir, { recursive: true, force: true })
}, 120_000)

describe('the database', () => {
  it('lets nobody in as root over the network, nobody without a password, and nobody else by its socket', async () => {
    for (const user of ['root', '', 'mysql', 'hantverk', 'hantverk_crash']) {
      await expect(mysql.createConnection({ host: '127.0.0.1', port: PROFILE.ports.sql, user }), user).rejects.toThrow()
    }
    expect(
      await rootSql(
        PROFILE,
        "SELECT GROUP_CONCAT(CONCAT(User, '@', Host) ORDER BY User) FROM mysql.global_priv WHERE User <> 'mariadb.sys'",
      ),
    ).toBe('hantverk_crash@127.0.0.1,root@localhost')
    expect(await rootSql(PROFILE, 'SHOW GRANTS FOR root@localhost')).toMatch(/VIA unix_socket/)
    for (const dir of [
      `${PROFILE.dir}/db`,
      `${PROFILE.dir}/tmp`,
      `${PROFILE.dir}/keys`,
      `${PROFILE.dir}/logs`,
      dirname(PROFILE.socket),
    ])
      expect(statSync(dir).mode & 0o077, dir).toBe(0)
  })
  it("gives its one user the rights that are needed, in this shop's databases alone", async () => {
    const grants = await rootSql(PROFILE, 'SHOW GRANTS FOR hantverk_crash@127.0.0.1')
    expect(grants).toMatch(
      /GRANT SELECT, INSERT, UPDATE, DELETE, CREATE, DROP, REFERENCES, INDEX, ALTER, TRIGGER ON `hantverk%`\.\*/,
    )
    expect(grants).not.toMatch(/ALL PRIVILEGES|FILE|PROCESS|SUPER|GRANT OPTION/)
    const user = await mysql.createConnection(urlOf('hantverk'))
    await expect(user.query('SELECT * FROM mysql.global_priv')).rejects.toThrow(/denied/)
    await expect(user.query("SELECT 1 INTO OUTFILE '/tmp/x'")).rejects.toThrow(/denied/)
    await user.end()
  })
  it('and no key stands on the command line of any process', () => {
    const keys = readKeys(PROFILE)
    for (const { id, name } of state().parts) {
      const line = readFileSync(`/proc/${id!.pid}/cmdline`, 'utf8')
      for (const key of [keys.session, keys.links, keys.pin, keys.database])
        expect(line.includes(key), name).toBe(false)
    }
  })
  it(
    'a key that is opened to others while it runs ends nothing; turning the keys is refused meanwhile, and ' +
      'goes on afterwards',
    async () => {
      const before = state().parts.map(p => p.id!.pid)
      chmodSync(`${PROFILE.dir}/keys/links`, 0o644)
      await pause(6000)
      process.kill(state().supervisor.pid, 'SIGHUP')
      await expect.poll(() => logOf('supervisor'), { timeout: 10_000 }).toMatch(/links can be read by others/)
      expect(state().parts.map(p => p.id!.pid)).toEqual(before)
      expect((await answer('/api/health')).status).toBe(200)
      chmodSync(`${PROFILE.dir}/keys/links`, 0o600)
    },
  )
})

describe('migrations', () => {
  /** Columns, keys, checks and triggers of a database, as text. */
  async function shapeOf(name: string): Promise<string> {
    const of = (sql: string) => rootSql(PROFILE, sql.replaceAll('@db', `'${name}'`))
    return [
      await of(
        `SELECT table_name, column_name, ordinal_position, column_type, is_nullable, column_default, extra
            FROM information_schema.columns
            WHERE table_schema = @db
            ORDER BY 1, 3`,
      ),
      await of(
        `SELECT table_name, column_name, referenced_table_name, referenced_column_name
            FROM information_schema.key_column_usage
            WHERE table_schema = @db AND referenced_table_name IS NOT NULL
            ORDER BY 1, 2, 3`,
      ),
      await of(
        `SELECT table_name, non_unique, GROUP_CONCAT(column_name ORDER BY seq_in_index)
            FROM information_schema.statistics
            WHERE table_schema = @db
            GROUP BY table_name, index_name, non_unique
            ORDER BY 1, 3, 2`,
      ),
      await of(
        `SELECT table_name, check_clause
            FROM information_schema.check_constraints
            WHERE constraint_schema = @db
            ORDER BY 1, 2`,
      ),
      await of(
        `SELECT event_object_table, trigger_name, action_statement
            FROM information_schema.triggers
            WHERE trigger_schema = @db
            ORDER BY 1, 2`,
      ),
    ].join('\n—\n')
  }
  const made = async (name: string) => {
    await rootSql(PROFILE, `DROP DATABASE IF EXISTS \`${name}\``)
    await createDatabase(PROFILE, name)
    return urlOf(name)
  }
  /** The rows of an old shop, as the schema of that number holds them: since 6, links and commands have tables. */
  const rowsOf = (schema: number) => `
    INSERT INTO shop (id, name, zone, currency, hour_minor, material_markup_bp, tax_bp)
      VALUES (1, 'Old shop', 'Europe/Stockholm', 'SEK', 60000, 2500, 2500);
    INSERT INTO person (id, name, login, role, password_hash) VALUES (1, 'Old owner', 'old', 'owner', 'x');
    INSERT INTO client (id, name) VALUES (1, 'Old client');
    INSERT INTO piece (
        id, client_id, name, use_kind, tone, sheen, age_wish, period, refinished, keep_patina, lead_answer, taken_in_at
      )
      VALUES (
        1, 1, 'Old chest', 'daily', 'same', 'satin', 'keep', 'unknown', 'no', 0, 'no', '2026-01-01'
      );
    INSERT INTO plan_snapshot (id, piece_id, reason, at, content, picture, sha256)
      VALUES (1, 1, 'asked', '2026-01-02', '{}', '', 'x');
    INSERT INTO approval (
        id, piece_id, snapshot_id, step_key, likely_minor, worst_minor, asked_by, asked_at, expires_at
      )
      VALUES (1, 1, 1, 'approval', 1, 2, 1, '2026-01-02', '2026-02-02');
    INSERT INTO mail (id, kind, recipient, piece_id, approval_id, try_after)
      VALUES (1, 'ask', 'a@example.invalid', 1, 1, '2026-01-02');
    INSERT INTO logbook (piece_id, kind, says, happened_at, recorded_at, person_id)
      VALUES (1, 'taken-in', 'Taken in', '2026-01-01', '2026-01-01', 1);
    ${schema < 6 ? BEFORE_6 : SINCE_6}`
  const BEFORE_6 = `
    UPDATE approval SET token_hash = REPEAT('a', 64);
    INSERT INTO bench_command (uuid, person_id, at, result)
      VALUES ('5e3f1c34-0000-4000-8000-000000000001', 1, '2026-01-03', '{"ok":true}')`
  const SINCE_6 = `
    INSERT INTO link (hash, approval_id, made_at) VALUES (REPEAT('a', 64), 1, '2026-01-02');
    UPDATE mail SET seed = REPEAT('s', 32);
    INSERT INTO command (uuid, route, person_id, at, answer)
      VALUES ('5e3f1c34-0000-4000-8000-000000000001', 'POST /api/bench', 1, '2026-01-03', '{"ok":true}')`
  let whole = ''
  beforeAll(async () => {
    await migrate(await made('hantverk_whole'), migrations)
    whole = await shapeOf('hantverk_whole')
  })
  test.each(['begun', 'ran'] as const)(
    'cut off at every statement, once it has %s, go on and come to the same',
    async when => {
      const url = await made('hantverk_cut')
      const seen = new Set<string>()
      let cuts = 0
      for (;;) {
        const done = await migrate(url, migrations, (name, no, now) => {
          const key = `${name} ${no}`
          if (now !== when || seen.has(key)) return
          seen.add(key)
          throw new Error('cut')
        }).catch((error: Error) => {
          if (error.message !== 'cut') throw error
          return null
        })
        if (done) break
        cuts++
      }
      expect(cuts).toBe(migrations.reduce((sum, m) => sum + statementsOf(m.sql).length, 0))
      expect(await shapeOf('hantverk_cut')).toBe(whole)
      expect(await rootSql(PROFILE, 'SELECT COUNT(*) FROM migration_step', 'hantverk_cut')).toBe('0')
      expect(await rootSql(PROFILE, 'SELECT COUNT(*), MAX(last) FROM event_counter', 'hantverk_cut')).toBe('1\t0')
    },
    180_000,
  )
  test.each(migrations.slice(0, -1).map((_, i) => i + 1))('bring the data of schema %i to the newest', async n => {
    const url = await made('hantverk_old')
    await migrate(url, migrations.slice(0, n))
    await rootSql(PROFILE, rowsOf(n), 'hantverk_old')
    if (n === 1)
      await rootSql(
        PROFILE,
        `INSERT INTO evidence (piece_id, kind, answer, method, person_id, at)
            VALUES (1, 'lead-test', 'no', 'swab', 1, '2026-01-02')`,
        'hantverk_old',
      )
    expect(await migrate(url, migrations)).toHaveLength(migrations.length - n)
    const found = async (sql: string) => rootSql(PROFILE, sql, 'hantverk_old')
    expect(await found("SELECT approval_id FROM link WHERE hash = REPEAT('a', 64)")).toBe('1')
    expect(await found('SELECT answer FROM command')).toBe('{"ok":true}')
    expect(await found('SELECT name, idle_h, mail_held FROM shop')).toBe('Old shop\t12\t0')
    expect(await found('SELECT state, LENGTH(seed) FROM mail')).toBe('waiting\t32')
    if (n === 1) expect(await found('SELECT kind FROM evidence')).toBe('lead')
    expect(await shapeOf('hantverk_old')).toBe(whole)
  })
  it('read the fields of stored steps out of their titles, in the plan and in what is kept for undo', async () => {
    const url = await made('hantverk_titles')
    await migrate(url, migrations.slice(0, 6))
    await rootSql(PROFILE, rowsOf(6), 'hantverk_titles')
    const old = { key: 'coat-1', kind: 'coat', title: 'Dewaxed shellac barrier, coat 1 of 2', cautions: ['solvent'] }
    const sand = { key: 'sand', kind: 'sand', title: 'Sand P120 → P180', grits: [120, 180], byHand: false }
    const kept = JSON.stringify({ steps: [{ ...old, byHand: false }, sand], leasts: [] })
    const row = (key: string, kind: string, title: string, byHand: number) =>
      `INSERT INTO plan_step (
          piece_id, step_key, position, kind, title, grits, method, passes, attended_min, cautions, why, by_hand
        )
        VALUES (1, '${key}', 100, '${kind}', '${title}', '', 'hand', 1, 10, 'solvent', 'x', ${byHand})`
    await rootSql(
      PROFILE,
      `${row('coat-1', 'coat', old.title, 0)}; ${row('mend', 'mend', 'Mend with tinted putty', 1)};
        INSERT INTO plan_edit (piece_id, says, steps_before, steps_after, person_id, at)
          VALUES (1, 'Step changed', '${kept}', 'no JSON at all', 1, '2026-01-03')`,
      'hantverk_titles',
    )
    await migrate(url, migrations)
    const found = async (sql: string) => rootSql(PROFILE, sql, 'hantverk_titles')
    expect(await found("SELECT CONCAT_WS(';', fields, typed, title) FROM plan_step WHERE step_key = 'coat-1'")).toBe(
      '{"as":"barrier","of":2};;',
    )
    expect(await found("SELECT CONCAT_WS(';', fields, typed, title) FROM plan_step WHERE step_key = 'mend'")).toBe(
      '{"filler":"tinted"};title,attended_min,amount_ml;Mend with tinted putty',
    )
    const [before, after] = (await found('SELECT steps_before, steps_after FROM plan_edit')).split('\t')
    const grits = [120, 180].map(P)
    expect(JSON.parse(before!)).toMatchObject({
      steps: [
        { title: '', typed: [], fields: { as: 'barrier', of: 2 }, grits: [] },
        { title: '', grits },
      ],
    })
    expect(before).not.toContain('cautions')
    expect(after).toBe('no JSON at all')
  })
  it('make build-ups of the picks that pieces were planned by, also when cut off between two pieces', async () => {
    const url = await made('hantverk_picks')
    await migrate(url, migrations.slice(0, 9))
    const face = (id: number, part: number, species: string) =>
      `(${id}, ${part}, 'top', 'show', 'flat', 'horizontal', 100, '100', 100, '100', 1, '${species}', 'solid', 'A')`
    await rootSql(
      PROFILE,
      `${rowsOf(9)};
        INSERT INTO part (id, piece_id, name, scope) VALUES (1, 1, 'top', 'refinish'), (2, 1, 'legs', 'refinish');
        INSERT INTO face (
            id, part_id, name, face_rank, shape, orientation, length_mm, length_typed, width_mm, width_typed, copies,
            species, substrate, finish_group
          )
          VALUES ${face(1, 1, 'oak')}, ${face(2, 1, 'pine')}, ${face(3, 2, 'oak')};
        UPDATE piece
          SET route = 'strip-chemical', finish = 'nitrocellulose-lacquer', colour = 'pigment-stain',
            conditioner = 'auto', fill = 'paste-filler', sheen = 'gloss'
          WHERE id = 1;
        INSERT INTO own_way (id, piece_id, route, finish, colour, conditioner, fill, bleach)
          VALUES (1, 1, 'scuff-and-recoat', 'oil-polyurethane', 'none', 'auto', 'none', 'none');
        INSERT INTO own_way_face (way_id, face_id) VALUES (1, 3)`,
      'hantverk_picks',
    )
    await migrate(url, migrations)
    const found = async (sql: string) => rootSql(PROFILE, sql, 'hantverk_picks')
    expect(
      await found("SELECT GROUP_CONCAT(CONCAT_WS(' ', position, ground, ending) SEPARATOR '; ') FROM build_up"),
    ).toBe('1 strip-chemical rubbed; 2 scuff as-laid')
    expect(
      await found(
        `SELECT GROUP_CONCAT(
            CONCAT(
              act, ' ', product, ' ',
              COALESCE((SELECT GROUP_CONCAT(face_id) FROM layer_face WHERE layer_id = l.id), 'all')
            )
            ORDER BY build_up_id, position SEPARATOR '; '
          )
          FROM layer l`,
      ),
    ).toBe(
      'fill paste-filler 1; conditioner oil-conditioner 2; stain pigment-stain all; ' +
        'coat nitrocellulose-lacquer all; coat oil-polyurethane all',
    )
    expect(await found('SELECT face_id FROM build_up_face')).toBe('3')
  })
  it('refuse a database of a newer version in words, and change nothing of it', async () => {
    const url = await made('hantverk_newer')
    await migrate(url, [...migrations, { name: '999-future.sql', sql: 'CREATE TABLE future (id INT PRIMARY KEY)' }])
    await expect(migrate(url, migrations)).rejects.toThrow(NewerDatabase)
    await expect(migrate(url, migrations)).rejects.toThrow(/newer Hantverk \(999-future\.sql\)\. Nothing was changed/)
  })
})

describe('what keeps it running', () => {
  const killed = async (name: string, signal: NodeJS.Signals = 'SIGKILL') => {
    const was = partOf(name).id!
    process.kill(was.pid, signal)
    return was.pid
  }
  const again = async (name: string, was: number) => {
    await expect
      .poll(() => partOf(name).state === 'running' && partOf(name).id!.pid !== was, { timeout: 30_000, interval: 50 })
      .toBe(true)
  }
  it('starts a dead web server again, within seconds', async () => {
    const was = await killed('web')
    const begun = Date.now()
    await expect.poll(async () => (await answer('/api/health')).status, { timeout: 20_000, interval: 50 }).toBe(200)
    expect(Date.now() - begun).toBeLessThan(20_000)
    await again('web', was)
  })
  it('starts a dead stand-in again, and its letters are still there', async () => {
    const mails = `http://127.0.0.1:${PROFILE.ports.mails}/mails`
    const { default: nodemailer } = await import('nodemailer')
    await nodemailer
      .createTransport(`smtp://127.0.0.1:${PROFILE.ports.smtp}`)
      .sendMail({ from: 'a@example.invalid', to: 'b@example.invalid', subject: 'Kept', text: 'x' })
    const was = await killed('mail')
    await again('mail', was)
    expect(((await (await fetch(mails)).json()) as { subject: string }[]).map(m => m.subject)).toContain('Kept')
  })
  it('brings a dead database up again; meanwhile pages say so, and then go on by themselves', async () => {
    const was = await killed('database')
    const away = await answer('/api/health')
    expect([503, 0]).toContain(away.status)
    if (away.status === 503) expect(away.text).toMatch(/does not answer just now/)
    await expect.poll(async () => (await answer('/api/health')).status, { timeout: 30_000, interval: 50 }).toBe(200)
    await again('database', was)
  })
  it('a database that hangs gives a clear word within five seconds, and is waited for', async () => {
    const { pid } = partOf('database').id!
    process.kill(pid, 'SIGSTOP')
    // every thread of it stands still, before anything is asked
    const threads = () => readdirSync(`/proc/${pid}/task`).map(t => readFileSync(`/proc/${pid}/task/${t}/stat`, 'utf8'))
    await expect.poll(() => threads().every(stat => /\) T /.test(stat)), { interval: 10 }).toBe(true)
    const hung = await Promise.all(Array.from({ length: 15 }, () => answer('/api/health')))
    process.kill(pid, 'SIGCONT')
    for (const { status, ms, text } of hung) {
      expect([status, text]).toEqual([503, expect.stringMatching(/does not answer just now/)])
      expect(ms).toBeLessThan(5000)
    }
    await expect.poll(async () => (await answer('/api/health')).status, { timeout: 15_000, interval: 100 }).toBe(200)
  })
  it('keeps the logs of before, and tells how it stands', async () => {
    expect(logOf('web').match(/\] started, process/g)!.length).toBeGreaterThan(1)
    expect(logOf('web')).toMatch(/ended: SIGKILL/)
    expect(partOf('web').restarts).toBeGreaterThan(0)
  })
  it('never ends a stranger whose number stands in a file, and starts beside it', async () => {
    await down()
    const stranger = spawn('sleep', ['60'])
    writeFileSync(
      `${PROFILE.dir}/state.json`,
      JSON.stringify({
        supervisor: { pid: stranger.pid, started: '1' },
        ready: true,
        parts: [
          { name: 'web', port: 1, state: 'running', since: '', restarts: 0, id: { pid: stranger.pid, started: '1' } },
        ],
      }),
    )
    expect((await ops(['stop', 'crash'])).code).toBe(0)
    await up()
    expect(existsSync(`/proc/${stranger.pid}`)).toBe(true)
    stranger.kill()
  }, 60_000)
  it('ends what a killed supervisor left behind, and only that', async () => {
    const before = state()
    process.kill(before.supervisor.pid, 'SIGKILL')
    await pause(300)
    expect(existsSync(`/proc/${before.parts[0]!.id!.pid}`)).toBe(true)
    await up()
    expect(partOf('database').id!.pid).not.toBe(before.parts[0]!.id!.pid)
    expect((await answer('/api/health')).status).toBe(200)
  }, 60_000)
  it('runs once: a second one is refused by the lock', async () => {
    const { code, says } = await ops(['run', 'crash'])
    expect([code, says]).toEqual([1, expect.stringMatching(/running already/)])
    expect((await answer('/api/health')).status).toBe(200)
  })
  it('gives up loudly when a port belongs to somebody else', async () => {
    await down()
    const other = createServer().listen(PROFILE.ports.web, '127.0.0.1')
    await pause(100)
    const { code, says } = await ops(['run', 'crash'])
    other.close()
    expect([code, says]).toEqual([1, expect.stringMatching(/Port 4490, for the web, is taken by another program/)])
    await up()
  }, 60_000)
  it("the thread's file brings no server and no database along", () => {
    const chunk = (path: string): string[] => [
      path,
      ...[...readFileSync(path, 'utf8').matchAll(/^(?:import|.*;import) .*?from '(\.[^']+)'/gm)].flatMap(m =>
        chunk(`${dirname(path)}/${m[1]}`),
      ),
    ]
    for (const path of chunk('.output/server/chunks/_/heavy.mjs'))
      expect(readFileSync(path, 'utf8')).not.toMatch(/from 'mysql2|createServer\(|useNitroApp/)
  })
})
