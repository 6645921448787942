import { mkdtempSync, readFileSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { X509Certificate } from 'node:crypto'
import { tmpdir } from 'node:os'
import { connect, createServer } from 'node:tls'
import { afterEach, beforeEach, expect, test } from 'vitest'
import { certificateFiles, keepCertificate } from '../../ops/authority'

const NAMES = ['bench.local', '192.168.7.20', 'fd00::2', '127.0.0.1']
const DAY_MS = 86_400_000
let dir: string
beforeEach(() => {
  dir = mkdtempSync(`${tmpdir()}/hantverk-authority-`)
})
afterEach(() => rmSync(dir, { recursive: true }))
const text = (file: keyof ReturnType<typeof certificateFiles>) => readFileSync(certificateFiles(dir)[file], 'utf8')
const keep = (names = NAMES, now_ms = Date.now()) => keepCertificate(dir, 'bench', names, now_ms)

/** What a device that trusts this authority says of a server that calls itself so: null when it believes. */
function believed(servername: string): Promise<string | null> {
  const server = createServer({ cert: text('server'), key: text('serverKey') })
  return new Promise(resolve => {
    server.listen(0, '127.0.0.1', () => {
      const { port } = server.address() as { port: number }
      const socket = connect({ host: '127.0.0.1', port, ca: text('authority'), servername })
      const say = (what: string | null) => {
        socket.destroy()
        server.close()
        resolve(what)
      }
      socket.once('secureConnect', () => say(null)).once('error', error => say(error.message))
    })
  })
}

test('is made once, believed for its names, and its keys are readable by their owner alone', async () => {
  expect(await keep()).toBe(true)
  expect(await keep()).toBe(false)
  expect(await believed('bench.local')).toBeNull()
  expect(await believed('other.local')).toMatch(/altnames/)
  for (const key of ['authorityKey', 'serverKey'] as const)
    expect(statSync(certificateFiles(dir)[key]).mode & 0o777).toBe(0o600)
})
test('another address gets a certificate of the same authority', async () => {
  await keep()
  const [authority, before] = [text('authority'), text('server')]
  const key = text('serverKey')
  expect(await keep([...NAMES, '192.168.7.33'])).toBe(true)
  expect(text('serverKey')).toBe(key)
  expect(text('authority')).toBe(authority)
  expect(text('server')).not.toBe(before)
  expect(new X509Certificate(text('server')).checkIP('192.168.7.33')).toBe('192.168.7.33')
})
test('is renewed by itself before it ends, and lasts no longer than devices take', async () => {
  await keep()
  const { validFrom, validTo } = new X509Certificate(text('server'))
  // 398 days: the CA/Browser Forum's baseline requirements 6.3.2, which devices hold private authorities to as well
  expect(Date.parse(validTo) - Date.parse(validFrom)).toBeLessThanOrEqual(398 * DAY_MS)
  const authority = text('authority')
  expect(await keep(NAMES, Date.parse(validTo) - 90 * DAY_MS)).toBe(false)
  expect(await keep(NAMES, Date.parse(validTo) - 30 * DAY_MS)).toBe(true)
  expect(text('authority')).toBe(authority)
})
test('speaks for no name outside the house, whoever holds its key', async () => {
  await keep(['example.com', '127.0.0.1'])
  expect(await believed('example.com')).toMatch(/permitted subtree/)
})
test('a damaged certificate, or key, is made anew', async () => {
  await keep()
  const { server } = certificateFiles(dir)
  writeFileSync(server, 'nothing')
  writeFileSync(certificateFiles(dir).serverKey, 'nothing')
  expect(await keep()).toBe(true)
  expect(await believed('bench.local')).toBeNull()
})
