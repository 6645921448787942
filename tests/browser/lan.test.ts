/** The shop's own network: a tablet that trusts its authority, one that does not, and a request from elsewhere. */
import { execFileSync } from 'node:child_process'
import { mkdirSync, mkdtempSync, readFileSync, rmSync } from 'node:fs'
import { request } from 'node:https'
import { tmpdir } from 'node:os'
import { dirname } from 'node:path'
import { chromium, expect, type Page } from '@playwright/test'
import { as, test } from './page'

const DIR = `${dirname(process.env.HANTVERK_STATE!)}/lan`
const { port } = JSON.parse(readFileSync(`${DIR}/lan.json`, 'utf8')) as { port: number }
const LAN = `https://127.0.0.1:${port}`
const home = mkdtempSync(`${tmpdir()}/hantverk-tablet-`)
test.afterAll(() => rmSync(home, { recursive: true }))

/** A device of its own, whose store of certificates knows the shop's authority. */
async function trusting() {
  const store = `${home}/.pki/nssdb`
  mkdirSync(store, { recursive: true })
  const certutil = (...args: string[]) => execFileSync('certutil', ['-d', `sql:${store}`, ...args])
  certutil('-N', '--empty-password')
  certutil('-A', '-n', 'shop', '-t', 'C,,', '-i', `${DIR}/authority.pem`)
  const { launchOptions } = test.info().project.use
  return chromium.launch({ ...launchOptions, env: { ...process.env, HOME: home } })
}
async function signIn(page: Page) {
  await page.goto(`${LAN}/sign-in`)
  await page.waitForLoadState('networkidle')
  await page.getByLabel('Name to sign in with').fill('tove')
  await page.getByLabel('Password').fill('verdigris-9')
  await page.getByRole('button', { name: 'Enter' }).click()
  await expect(page.getByTestId('clock')).toContainText(/\d\d:\d\d/)
}

test('a device that trusts the authority works over TLS; one that does not is warned', async ({ browser, watched }) => {
  const stranger = await (await browser.newContext()).newPage()
  await expect(stranger.goto(LAN)).rejects.toThrow(/ERR_CERT_AUTHORITY_INVALID/)
  await stranger.context().close()

  const tablet = await trusting()
  try {
    const page = watched(await (await tablet.newContext()).newPage())
    await page.goto(`${LAN}/trust`)
    await expect(page.getByRole('heading', { name: 'Trust this shop' })).toBeVisible()
    const taking = page.waitForEvent('download')
    await page.getByRole('link', { name: 'Take the certificate' }).click()
    expect(readFileSync(await (await taking).path(), 'utf8')).toBe(readFileSync(`${DIR}/authority.pem`, 'utf8'))
    await signIn(page)
    expect(await page.evaluate(() => isSecureContext)).toBe(true)
    for (const { name, secure } of (await page.context().cookies()).filter(c => c.name === 'hantverk'))
      expect(secure, name).toBe(true)
    // a write from this address is one of the shop's own
    const done = await page.evaluate(async () => {
      const reply = await fetch('/api/air', {
        method: 'POST',
        headers: { 'content-type': 'application/json', 'idempotency-key': crypto.randomUUID() },
        body: JSON.stringify({ temperature_C: 20, rh_pct: 50 }),
      })
      return reply.status
    })
    expect(done).toBe(200)
  } finally {
    await tablet.close()
  }
})

test('a request from another origin is refused there as well', async () => {
  const ca = readFileSync(`${DIR}/authority.pem`)
  const status = (origin: string) =>
    new Promise<number>((resolve, reject) => {
      const headers = { origin, 'content-type': 'application/json' }
      const sent = request(`${LAN}/api/session`, { method: 'POST', ca, headers }, reply => resolve(reply.statusCode!))
      sent.once('error', reject).end('{"login":"nobody","password":"nothing at all"}')
    })
  expect(await status('https://example.com')).toBe(403)
  expect(await status(`https://127.0.0.1:${port + 1}`)).toBe(403)
  expect(await status(LAN)).toBe(401)
})

test('the shop tells its address, a code and the fingerprint to compare', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/shop?part=people')
  const lan = owner.getByTestId('lan')
  await expect(lan).toContainText(LAN)
  await expect(lan.getByRole('img')).toBeVisible()
  const shown = await lan.getByTestId('fingerprint').textContent()
  expect(
    execFileSync('openssl', ['x509', '-in', `${DIR}/authority.pem`, '-noout', '-fingerprint', '-sha256']).toString(),
  ).toContain(shown!.trim())
})
