/** The shop as one file, and back; keys that are turned. */
import { createHash } from 'node:crypto'
import {
  appendFileSync,
  mkdirSync,
  mkdtempSync,
  readdirSync,
  readFileSync,
  rmSync,
  statSync,
  writeFileSync,
} from 'node:fs'
import { tmpdir } from 'node:os'
import { gunzipSync, gzipSync } from 'node:zlib'
import mysql from 'mysql2/promise'
import sharp from 'sharp'
import { afterAll, beforeAll, describe, expect, it } from 'vitest'
import { databaseUrl, rootSql } from '../../ops/database'
import { readKeys } from '../../ops/keys'
import { backUpNightly } from '../../ops/nightly'
import { currentDatabase } from '../../ops/profile'
import { answer, down, fresh, ops, PROFILE, up, WEB } from './profile'

const files = mkdtempSync(`${tmpdir()}/hantverk-files-`)

beforeAll(async () => {
  process.env.HANTVERK_BASE = WEB
  await fresh()
}, 120_000)
afterAll(async () => {
  await down()
  rmSync(files, { recursive: true, force: true })
  rmSync(PROFILE.dir, { recursive: true, force: true })
}, 120_000)

describe('backup and restore', () => {
  let cookies = ''
  const call = (method: string, path: string, body?: unknown) =>
    fetch(WEB + path, {
      method,
      headers: {
        'origin': WEB,
        'idempotency-key': crypto.randomUUID(),
        'cookie': cookies,
        ...(body instanceof FormData ? {} : { 'content-type': 'application/json' }),
      },
      body: body === undefined || body instanceof FormData ? body : JSON.stringify(body),
    })
  async function enter(path: string, body: object) {
    const reply = await call('POST', path, body)
    expect(reply.status).toBe(200)
    cookies = reply.headers
      .getSetCookie()
      .map(c => c.split(';')[0])
      .join('; ')
  }
  const digestOf = async (path: string) =>
    createHash('sha256')
      .update(Buffer.from(await (await call('GET', path)).arrayBuffer()))
      .digest('hex')
  const tables = ['piece', 'part', 'face', 'client', 'person', 'photograph', 'migration', 'opening', 'mail', 'command']
  const sums = async () =>
    (await rootSql(PROFILE, `CHECKSUM TABLE ${tables.join(', ')}`, currentDatabase(PROFILE))).replaceAll(
      `${currentDatabase(PROFILE)}.`,
      '',
    )
  const file = `${files}/shop.sql.gz`
  let before = ''
  let picture = ''
  let lastEvent = 0

  it('writes one file while everything goes on, without any key in it', async () => {
    await enter('/api/first-owner', {
      shop: 'Shop',
      name: 'Owner',
      login: 'owner',
      password: 'verdigris-9',
      zone: 'Europe/Stockholm',
      currency: 'SEK',
      lengthUnit: 'mm',
    })
    const face = {
      name: 'up',
      rank: 'show',
      shape: 'flat',
      orientation: 'horizontal',
      length: '900',
      width: '450',
      count: 1,
      species: 'oak',
      substrate: 'solid',
      veneer: '',
    }
    const { id } = (await (
      await call('POST', '/api/pieces', {
        name: 'Line\nbreak; \'quote\' "INSERT INTO `piece` VALUES" 樫',
        note: '',
        client: { name: 'C', email: 'c@example.invalid', phone: '' },
        use: 'daily',
        tone: 'same',
        sheen: 'satin',
        age: 'keep',
        dueOn: null,
        period: 'unknown',
        refinished: 'no',
        keepPatina: false,
        lead: 'no',
        parts: [{ name: 'top', scope: 'refinish', faces: [face] }],
      })
    ).json()) as { id: number }
    const form = new FormData()
    form.append(
      'picture',
      new Blob([
        new Uint8Array(
          await sharp({
            create: {
              width: 400,
              height: 300,
              channels: 3,
              background: '#a53',
              noise: { type: 'gaussian', mean: 128, sigma: 40 },
            },
          })
            .png()
            .toBuffer(),
        ),
      ]),
      'a.png',
    )
    const taken = (await (await call('POST', `/api/pieces/${id}/photographs`, form)).json()) as { address: string }
    picture = `/api/photographs/${taken.address}`
    const writing = (async () => {
      for (let i = 0; i < 20; i++)
        await call('POST', '/api/products', { name: `p${i}`, class: 'mild-soap', priceMinor: 1 })
    })()
    const { code, says } = await ops(['backup', file, 'crash'])
    await writing
    expect([code, says]).toEqual([0, expect.stringMatching(/rows, .* MB\. Keys are not in it/)])
    expect(statSync(file).mode & 0o077).toBe(0)
    const text = gunzipSync(readFileSync(file)).toString()
    const keys = readKeys(PROFILE)
    for (const key of [keys.session, keys.links, keys.pin, keys.database]) expect(text).not.toContain(key)
    expect((await ops(['backup', file, 'crash'])).says).toMatch(/is there already/)
    const shop = (await (await call('GET', '/api/shop')).json()) as { backup: { last: { file: string } | null } }
    expect(shop.backup.last!.file).toBe('shop.sql.gz')
  }, 60_000)
  it('refuses a cut, a changed and a foreign file before anything changes', async () => {
    const good = readFileSync(file)
    const text = gunzipSync(good).toString()
    const bad: [string, Buffer, RegExp][] = [
      ['cut', good.subarray(0, good.length - 400), /cut off|damaged/],
      ['changed', gzipSync(text.replace('Line', 'Lime')), /digest does not fit/],
      ['without its end', gzipSync(text.split('\n').slice(0, -3).join('\n')), /cut off/],
      ['more after its end', gzipSync(`${text}DROP DATABASE mysql;\n`), /something follows/],
      ['foreign', gzipSync('CREATE TABLE x (id INT);\n'), /does not begin as one/],
      ['no gzip', Buffer.from(text), /damaged, or no gzip/],
      ['newer', gzipSync(text.replace('"001-spine.sql"', '"999-future.sql"')), /digest does not fit|newer Hantverk/],
      ['empty', Buffer.alloc(0), /cut off/],
    ]
    const databases = () =>
      rootSql(PROFILE, 'SELECT GROUP_CONCAT(schema_name ORDER BY 1) FROM information_schema.schemata')
    const [was, pointer] = [await databases(), currentDatabase(PROFILE)]
    for (const [what, data, says] of bad) {
      writeFileSync(`${files}/bad.gz`, data)
      const done = await ops(['restore', `${files}/bad.gz`, 'crash'])
      expect([what, done.code, done.says]).toEqual([what, 1, expect.stringMatching(says)])
      expect(done.says).toMatch(/Nothing was changed/)
    }
    expect([await databases(), currentDatabase(PROFILE)]).toEqual([was, pointer])
  }, 90_000)
  it(
    'brings the shop back as it was: rows, pictures, triggers; sessions end, letters are held, numbers run ' + 'ahead',
    async () => {
      await rootSql(
        PROFILE,
        `INSERT INTO mail (kind, recipient, piece_id, seed, try_after)
          VALUES ('reply', 'c@example.invalid', 1, 's', UTC_TIMESTAMP(3) + INTERVAL 1 DAY)`,
        currentDatabase(PROFILE),
      )
      rmSync(file)
      before = await sums()
      const wasPicture = await digestOf(picture)
      await ops(['backup', file, 'crash'])
      const old = cookies
      const wasDatabase = currentDatabase(PROFILE)
      await call('POST', '/api/products', { name: 'after the backup', class: 'mild-soap', priceMinor: 1 })
      await rootSql(
        PROFILE,
        "INSERT INTO erasure (client_uid, at, done_at) VALUES (UUID(), '2026-01-01', '2026-01-01')",
        wasDatabase,
      )
      lastEvent = Number(await rootSql(PROFILE, 'SELECT last FROM event_counter', wasDatabase))
      const { code, says } = await ops(['restore', file, 'crash'])
      expect([code, says]).toEqual([0, expect.stringMatching(/stays for a week/)])
      expect(currentDatabase(PROFILE)).not.toBe(wasDatabase)
      expect(await sums()).toBe(before)
      await expect.poll(async () => (await answer('/api/health')).status, { timeout: 30_000, interval: 100 }).toBe(200)
      expect((await answer('/api/now', { headers: { cookie: old } })).status).toBe(401)
      await enter('/api/session', { login: 'owner', password: 'verdigris-9' })
      expect(await digestOf(picture)).toBe(wasPicture)
      // somebody who was erased since is erased again
      expect(await rootSql(PROFILE, 'SELECT COUNT(*) FROM erasure', currentDatabase(PROFILE))).toBe('1')
      const shop = (await (await call('GET', '/api/shop')).json()) as { mail_held: number }
      expect(shop.mail_held).toBe(1)
      expect(
        Number(await rootSql(PROFILE, 'SELECT last FROM event_counter', currentDatabase(PROFILE))),
      ).toBeGreaterThan(lastEvent)
      await expect(rootSql(PROFILE, "UPDATE logbook SET says = 'x'", currentDatabase(PROFILE))).rejects.toThrow(
        /append-only/,
      )
      expect(
        await rootSql(PROFILE, 'SELECT says FROM logbook ORDER BY id DESC LIMIT 1', currentDatabase(PROFILE)),
      ).toMatch(/backup was brought back/)
      expect(
        ((await (await call('GET', '/api/store')).json()) as { products: { name: string }[] }).products.map(
          p => p.name,
        ),
      ).not.toContain('after the backup')
      expect(await rootSql(PROFILE, 'SELECT name FROM product ORDER BY id DESC LIMIT 1', wasDatabase)).toBe(
        'after the backup',
      )
    },
    90_000,
  )
  it(
    'keys that are turned: who is signed in stays so, the database lets the new key in alone, and the log ' + 'says it',
    async () => {
      const was = readKeys(PROFILE)
      expect((await ops(['keys', 'crash'])).code).toBe(0)
      await expect
        .poll(async () => (await answer('/api/now', { headers: { cookie: cookies } })).status, {
          timeout: 30_000,
          interval: 200,
        })
        .toBe(200)
      await expect(
        mysql.createConnection(databaseUrl(PROFILE, was.database, currentDatabase(PROFILE))),
      ).rejects.toThrow(/denied/)
      expect(
        await rootSql(PROFILE, 'SELECT says FROM logbook ORDER BY id DESC LIMIT 1', currentDatabase(PROFILE)),
      ).toMatch(/keys were turned/)
    },
    60_000,
  )
  it('a backup by night comes by itself, to a second directory too', async () => {
    const second = `${files}/second`
    mkdirSync(second)
    appendFileSync(`${second}/hantverk-2026-01-01.sql.gz`, '')
    const early = await backUpNightly(PROFILE, () => {}, new Date(2026, 0, 5, 1, 59))
    expect(early).toBe(false)
    await down()
    // a zone in which it is noon now
    const ahead = 12 - new Date().getUTCHours()
    await up({
      HANTVERK_NIGHTLY: 'yes',
      HANTVERK_BACKUP_DIR: second,
      TZ: `Etc/GMT${ahead < 0 ? '+' : '-'}${Math.abs(ahead)}`,
    })
    const taken = () =>
      rootSql(PROFILE, 'SELECT COUNT(*) FROM backup_taken WHERE second_copy', currentDatabase(PROFILE))
    await expect.poll(taken, { timeout: 20_000, interval: 200 }).toBe('1')
    expect(readdirSync(second).filter(name => !name.includes('2026-01-01'))).toHaveLength(1)
  }, 60_000)
})
