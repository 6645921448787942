/**
 * Long: processes killed and frozen while people write, hostile bodies, floods. All against 127.0.0.1, bounded. Run by
 * `./hantverk test crash`.
 */
import { spawn } from 'node:child_process'
import { mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { tmpdir } from 'node:os'
import mysql from 'mysql2/promise'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import type { z } from 'zod'
import { API, type RouteSpec } from '#shared/api'
import { migrationsHere } from '../../ops/backup'
import { createDatabase, databaseUrl, rootSql } from '../../ops/database'
import { readKeys } from '../../ops/keys'
import { Part } from '../../ops/part'
import { pause } from '../../ops/process'
import { currentDatabase } from '../../ops/profile'
import { answer, down, fresh, partOf, PROFILE, WEB } from '../operations/profile'

let cookie = ''
const headersOf = (uuid: string = crypto.randomUUID()) => ({
  'origin': WEB,
  'cookie': cookie,
  'content-type': 'application/json',
  'idempotency-key': uuid,
})
const send = (method: string, path: string, body?: unknown, uuid?: string) =>
  answer(path, { method, headers: headersOf(uuid), body: body === undefined ? undefined : JSON.stringify(body) })
let sql: mysql.Connection
/** Chance that can be repeated. */
let seed = 20261126
const random = () => {
  seed = (seed * 1103515245 + 12345) % 2147483648
  return seed / 2147483648
}
const oneOf = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!

beforeAll(async () => {
  process.env.HANTVERK_BASE = WEB
  await fresh({ HANTVERK_RESTART: 'always' })
  const made = await fetch(`${WEB}/api/first-owner`, {
    method: 'POST',
    headers: headersOf(),
    body: JSON.stringify({
      shop: 'Crash',
      name: 'Owner',
      login: 'owner',
      password: 'verdigris-9',
      zone: 'Europe/Stockholm',
      currency: 'SEK',
      lengthUnit: 'mm',
    }),
  })
  cookie = made.headers
    .getSetCookie()
    .map(c => c.split(';')[0])
    .join('; ')
  sql = await mysql.createConnection(databaseUrl(PROFILE, readKeys(PROFILE).database, currentDatabase(PROFILE)))
}, 120_000)
afterAll(async () => {
  sql.destroy()
  await down()
  rmSync(PROFILE.dir, { recursive: true, force: true })
}, 120_000)

const healthy = () =>
  expect.poll(async () => (await answer('/api/health')).status, { timeout: 60_000, interval: 100 }).toBe(200)

describe('killed while people write', () => {
  it('no acknowledged write is lost, and none is doubled by sending it again', async () => {
    const ROUNDS = 12
    const acknowledged = new Map<string, number>()
    let unanswered = 0
    let savedUnheard = 0
    for (let round = 0; round < ROUNDS; round++) {
      const writes: Promise<void>[] = []
      for (let i = 0; i < 25; i++) {
        const uuid = crypto.randomUUID()
        const body = { name: `w ${uuid}`, class: 'mild-soap', priceMinor: 1 }
        writes.push(
          (async () => {
            await pause(random() * 600)
            for (let tries = 0; ; tries++) {
              const reply = await send('POST', '/api/products', body, uuid)
              if (reply.status === 200) {
                acknowledged.set(uuid, (JSON.parse(reply.text) as { id: number }).id)
                return
              }
              if (reply.status !== 0 && reply.status !== 503) throw new Error(`${reply.status} ${reply.text}`)
              if (tries === 0) unanswered++
              await pause(200 + random() * 500)
              if (tries > 120) throw new Error('never answered')
            }
          })(),
        )
      }
      await pause(150 + random() * 400)
      process.kill(partOf(round % 3 === 2 ? 'database' : 'web').id!.pid, 'SIGKILL')
      await Promise.all(writes)
      await pause(2500)
    }
    sql.destroy()
    sql = await mysql.createConnection(databaseUrl(PROFILE, readKeys(PROFILE).database, currentDatabase(PROFILE)))
    const [rows] = await sql.query<mysql.RowDataPacket[]>(
      "SELECT id, name, COUNT(*) OVER (PARTITION BY name) AS n FROM product WHERE name LIKE 'w %'",
    )
    const byName = new Map(rows.map(r => [r.name as string, r]))
    for (const [uuid, id] of acknowledged) expect(byName.get(`w ${uuid}`)).toMatchObject({ id, n: 1 })
    expect(rows).toHaveLength(acknowledged.size)
    savedUnheard = rows.length
    console.log(
      `${ROUNDS} kills, ${acknowledged.size} writes acknowledged, ${unanswered} of them not answered at ` +
        `first, ${savedUnheard} rows`,
    )
    expect(unanswered).toBeGreaterThan(0)
  }, 400_000)

  it('a migration that is killed again and again comes to its end', async () => {
    const file = `${tmpdir()}/hantverk-migrate-${process.pid}.ts`
    const { writeFileSync } = await import('node:fs')
    await createDatabase(PROFILE, 'hantverk_killed')
    writeFileSync(
      file,
      `import { migrationsHere } from '${process.cwd()}/ops/backup'\nimport { migrate } from ` +
        `'${process.cwd()}/server/database/migrate'\nawait migrate(process.env.URL!, migrationsHere())\n`,
    )
    const url = databaseUrl(PROFILE, readKeys(PROFILE).database, 'hantverk_killed')
    let kills = 0
    for (let i = 0; i < 60; i++) {
      const child = spawn(process.execPath, ['node_modules/jiti/lib/jiti-cli.mjs', file], {
        env: { ...process.env, URL: url },
        stdio: 'ignore',
      })
      // the process takes half a second to begin; each is given a little longer, the last as long as it wants
      const timer = i < 59 ? setTimeout(() => child.kill('SIGKILL'), 450 + random() * 500 + i * 12) : undefined
      const code = await new Promise(resolve => child.on('close', resolve))
      clearTimeout(timer)
      if (code === 0) break
      kills++
    }
    rmSync(file)
    console.log(`${kills} kills of a migration`)
    expect(kills).toBeGreaterThan(0)
    expect(Number(await rootSql(PROFILE, 'SELECT COUNT(*) FROM migration', 'hantverk_killed'))).toBe(
      migrationsHere().length,
    )
    expect(await rootSql(PROFILE, 'SELECT COUNT(*) FROM migration_step', 'hantverk_killed')).toBe('0')
  }, 180_000)
})

describe('frozen', () => {
  it.each(['web', 'database', 'climate'])(
    '%s, alive by its number, is found out and started again',
    async name => {
      const { pid } = partOf(name).id!
      process.kill(pid, 'SIGSTOP')
      await expect
        .poll(() => partOf(name).id?.pid !== pid && partOf(name).state === 'running', {
          timeout: 120_000,
          interval: 500,
        })
        .toBe(true)
      await healthy()
    },
    150_000,
  )
  it('what ends again and again is given up, loudly', async () => {
    const logs = mkdtempSync(`${tmpdir()}/hantverk-logs-`)
    let gaveUp = ''
    const part = new Part(
      {
        name: 'false',
        port: 1,
        essential: true,
        startWithin_ms: 2000,
        endWithin_ms: 1000,
        frozenAfter: 1,
        start: () => ({ command: 'false', args: [] }),
        probe: async () => false,
      },
      logs,
      () => {},
      p => {
        gaveUp = p.name
      },
    )
    part.begin()
    await expect.poll(() => gaveUp, { timeout: 60_000, interval: 200 }).toBe('false')
    const log = readFileSync(`${logs}/false.log`, 'utf8')
    expect(log.match(/\] ended: code 1/g)).toHaveLength(5)
    expect(log).toMatch(/gave up: 5 ends in two minutes/)
    rmSync(logs, { recursive: true })
  }, 90_000)
})

describe('hostile', () => {
  const atoms: unknown[] = [
    null,
    true,
    0,
    -1,
    1,
    1.5,
    1e308,
    -1e308,
    1e-308,
    2 ** 53,
    '',
    ' ',
    'x',
    'toString',
    '__proto__',
    'constructor',
    '0',
    '-1',
    '1e999',
    '½',
    '12 in',
    '\u0000',
    '\ud800',
    '\u202e',
    '<img src=x onerror=1>',
    "'; DROP TABLE piece; --",
    '=1+1',
    '../../etc/passwd',
    'a'.repeat(5000),
    '2026-12-01',
    '9999-99-99',
    '2026-12-01T10:00:00Z',
    [],
    [null],
    [[]],
    [1, 2, 3],
    Array(2000).fill(1),
    {},
    { toString: 1 },
    { length: 1e9 },
    { __proto__: null, constructor: { name: 'x' } },
  ]
  const shapeOf = (schema: z.ZodType): string[] => {
    const def = (
      schema as {
        def?: {
          type: string
          shape?: Record<string, unknown>
          options?: z.ZodType[]
          innerType?: z.ZodType
          in?: z.ZodType
        }
      }
    ).def
    if (!def) return []
    if (def.shape) return Object.keys(def.shape)
    if (def.options) return [...new Set(def.options.flatMap(shapeOf))]
    if (def.innerType) return shapeOf(def.innerType)
    if (def.in) return shapeOf(def.in)
    return []
  }
  it('made-up bodies of every write never give an error of the server, never hang it, never stop it', async () => {
    const EACH = 120
    const routes = (Object.entries(API) as [string, RouteSpec][]).filter(
      ([key, spec]) => spec.body && !/clock|session|first-owner|people|release/.test(key),
    )
    const seen: Record<number, number> = {}
    let longest = 0
    for (const [key, spec] of routes) {
      const [method, path] = key.split(' ') as [string, string]
      const keys = shapeOf(spec.body!)
      const bodies = Array.from({ length: EACH }, () =>
        random() < 0.05
          ? oneOf(atoms)
          : Object.fromEntries(
              keys.filter(() => random() < 0.9).map(k => [k, k === 'rowVersion' && random() < 0.5 ? 1 : oneOf(atoms)]),
            ),
      )
      for (let i = 0; i < bodies.length; i += 8) {
        const replies = await Promise.all(
          bodies
            .slice(i, i + 8)
            .map(body => send(method, path.replace(/:token/, 'x'.repeat(43)).replace(/:\w+/g, '1'), body)),
        )
        for (const r of replies) {
          seen[r.status] = (seen[r.status] ?? 0) + 1
          longest = Math.max(longest, r.ms)
          if (r.status === 0 || (r.status >= 500 && r.status !== 503)) throw new Error(`${key}: ${r.status} ${r.text}`)
        }
      }
    }
    console.log(
      `${routes.length * EACH} made-up requests to ${routes.length} routes: ${JSON.stringify(seen)}, the ` +
        `longest ${Math.round(longest)} ms`,
    )
    expect(longest).toBeLessThan(5000)
    await healthy()
  }, 600_000)
  it('floods that never say their length are cut without filling the memory', async () => {
    const rss = () =>
      Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${partOf('web').id!.pid}/status`, 'utf8'))![1]) / 1024
    const before = rss()
    let most = before
    const watch = setInterval(() => {
      most = Math.max(most, rss())
    }, 50)
    const flood = (path: string, type: string) => {
      let sent = 0
      const body = new ReadableStream<Uint8Array>({
        pull(c) {
          if (sent++ < 100) c.enqueue(new Uint8Array(1_000_000))
          else c.close()
        },
      })
      return answer(path, {
        method: 'POST',
        body,
        headers: { ...headersOf(), 'content-type': type },
        duplex: 'half',
      } as RequestInit & { duplex: 'half' })
    }
    const replies = await Promise.all([
      flood('/api/products', 'application/json'),
      flood('/api/pieces/1/photographs', 'multipart/form-data; boundary=x'),
      flood('/api/session', 'application/json'),
      flood('/api/pieces/1/examinations/read', 'multipart/form-data; boundary=x'),
    ])
    clearInterval(watch)
    console.log(
      `400 MB of chunked bodies: memory ${Math.round(before)} to ${Math.round(most)} MB; ` +
        `${replies.map(r => r.status).join(', ')}`,
    )
    expect(most - before).toBeLessThan(250)
    for (const r of replies) expect([413, 429, 404]).toContain(r.status)
    await healthy()
  }, 120_000)
})
