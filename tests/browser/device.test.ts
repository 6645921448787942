/** What a device does by itself: its screen stays on, alarms come while the page is behind others. */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs'
import { tmpdir } from 'node:os'
import { chromium, expect, type Page } from '@playwright/test'
import QRCode from 'qrcode'
import sharp from 'sharp'
import { as, test, write } from './page'

interface Told {
  locks: number
  released: number
  notes: string[]
}
interface Now {
  now_ms: number
  may: { stepId: number; rowVersion: number }[]
}
/** Stands in for what a headless browser has not: a screen, and a place for notifications. */
const STAND_IN = () => {
  const told: Told = { locks: 0, released: 0, notes: [] }
  Object.assign(window, { told })
  const lock = () => {
    told.locks += 1
    const release = () => Promise.resolve(told.released++)
    return Promise.resolve({ addEventListener() {}, removeEventListener() {}, release })
  }
  Object.defineProperty(navigator, 'wakeLock', { value: { request: lock } })
  function Note(title: string, { body }: { body: string }) {
    told.notes.push(`${title} · ${body}`)
  }
  const granted = { permission: 'granted', requestPermission: () => Promise.resolve('granted') }
  Object.defineProperty(window, 'Notification', { value: Object.assign(Note, granted) })
}
const told = (page: Page) => page.evaluate(() => (window as Window & { told?: Told }).told!)

test('the screen stays on while a step is in hand; alarms are told behind other pages', async ({
  browser,
  watched,
}) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.addInitScript(STAND_IN)
  const { may, now_ms } = (await (await owner.request.get('/api/now')).json()) as Now
  const { stepId, rowVersion } = may.at(-1)!
  const act = (kind: 'start' | 'undo', version: number) =>
    write(owner, 'post', '/api/bench', {
      ...{ kind, stepId, rowVersion: version },
      happenedAt: new Date(now_ms).toISOString(),
    })
  expect((await act('start', rowVersion)).status()).toBe(200)
  await owner.goto('/')
  await expect(owner.getByTestId('running').first()).toBeVisible()
  await expect.poll(async () => (await told(owner)).locks).toBe(1)
  await owner.goto('/shop?part=people')
  const device = owner.getByTestId('device')
  await device.getByText('The screen stays on while a step is in hand').click()
  await expect.poll(async () => (await told(owner)).released).toBeGreaterThan(0)
  await device.getByText('Alarms come as notifications').click()
  await expect(device.getByRole('switch').nth(1)).toBeChecked()
  // another program in front
  await owner.addInitScript(() => Object.defineProperty(document, 'hidden', { get: () => true }))
  await owner.goto('/')
  await expect(owner.getByTestId('alarm').first()).toBeVisible()
  expect((await told(owner)).locks).toBe(0)
  await owner.getByTestId('clock').click()
  // somebody else's rings here once nobody has heard it for two minutes
  await expect
    .poll(async () => (await told(owner)).notes.join(), { timeout: 120_000 })
    .toMatch(/Closed at .* · |left · /)
  expect((await act('undo', rowVersion + 1)).status()).toBe(200)
})

test('without TLS at another address than this machine, a device says why it cannot', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.addInitScript(() => Object.defineProperty(window, 'isSecureContext', { value: false }))
  await owner.goto('/shop?part=people')
  const device = owner.getByTestId('device')
  await expect(device.getByText('Off: a device allows it only over TLS')).toHaveCount(3)
  for (const one of await device.getByRole('switch').all()) await expect(one).toBeDisabled()
})

/** A browser whose camera shows this code, as a file of pictures. */
async function cameraOn(text: string, dir: string) {
  const code = await QRCode.toBuffer(text, { margin: 4, width: 400 })
  const picture = sharp({ create: { width: 640, height: 480, channels: 3, background: '#8a7a60' } })
  const frame = await picture
    .composite([{ input: code }])
    .jpeg()
    .toBuffer()
  writeFileSync(`${dir}/camera.mjpeg`, Buffer.concat(Array<Buffer>(10).fill(frame)))
  const { launchOptions } = test.info().project.use
  const camera = ['--use-fake-device-for-media-stream', `--use-file-for-fake-video-capture=${dir}/camera.mjpeg`]
  return chromium.launch({ ...launchOptions, args: [...launchOptions!.args!, ...camera] })
}
test('a label is read by the camera and leads to its page, also one from an address before', async ({ watched }) => {
  const dir = mkdtempSync(`${tmpdir()}/hantverk-camera-`)
  const tablet = await cameraOn('http://192.0.2.9:4170/mixing/1', dir)
  try {
    const page = await as(tablet, 'tove', watched, { baseURL: process.env.HANTVERK_BASE, permissions: ['camera'] })
    await page.keyboard.press('/')
    await page.getByRole('button', { name: 'Read a label with the camera' }).click()
    await expect(page).toHaveURL(/\/mixing\/1$/)
  } finally {
    await tablet.close()
    rmSync(dir, { recursive: true })
  }
})
test('a device without a camera says so, and the label can be typed', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.keyboard.press('/')
  await page.getByRole('button', { name: 'Read a label with the camera' }).click()
  await expect(page.getByRole('alert').filter({ hasText: /No camera was found|use no camera/ })).toBeVisible()
  await expect(page.getByTestId('seek')).toBeVisible()
})

test('what is never answered is said, given up, and asked again; a touch asks everything anew', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  let asked = 0
  await page.route('**/api/store', async route => {
    if (++asked > 1) await route.continue()
  })
  await page.getByRole('link', { name: 'Store' }).click()
  await expect(page.getByText('Takes longer than usual; still at it.')).toBeVisible()
  await expect(page.getByRole('button', { name: 'Try again' })).toBeVisible({ timeout: 40_000 })
  await page.getByRole('button', { name: 'Try again' }).click()
  await expect(page.getByRole('heading', { name: 'Store' }).first()).toBeVisible()
  await expect(page.getByText('Takes longer than usual; still at it.')).toHaveCount(0)
})

test('a line that broke without a word is noticed when the page comes back into sight', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  await page.waitForTimeout(500)
  let read = 0
  page.on('request', r => (read += Number(r.url().endsWith('/api/now'))))
  // the device slept for a minute: its clock went on, the line said nothing
  await page.evaluate(() => {
    const now = Date.now
    Date.now = () => now() + 60_000
    dispatchEvent(new Event('online'))
  })
  await expect.poll(() => read, { timeout: 5000 }).toBeGreaterThan(0)
  await expect(page.getByText('No line to the server')).toHaveCount(0)
})

test('two fingers bring a face nearer, and the whole face comes back', async ({ browser, watched }) => {
  const page = await as(browser, 'ingrid', watched, { hasTouch: true, viewport: { width: 800, height: 1280 } })
  await page.goto('/pieces/17')
  await page.getByTestId('face-map').getByRole('button').first().click()
  const board = page.getByTestId('board')
  await board.scrollIntoViewIfNeeded()
  const width = async () => Number((await board.getAttribute('viewBox'))!.split(' ')[2])
  const whole = await width()
  const box = (await board.boundingBox())!
  const [x, y] = [box.x + box.width / 2, box.y + box.height / 2]
  const line = await page.context().newCDPSession(page)
  const touch = (type: 'touchStart' | 'touchMove' | 'touchEnd', apart: number | null) =>
    line.send('Input.dispatchTouchEvent', {
      type,
      touchPoints:
        apart === null
          ? []
          : [
              { x: x - apart, y, id: 1 },
              { x: x + apart, y, id: 2 },
            ],
    })
  await touch('touchStart', 20)
  for (const apart of [30, 40, 50, 60]) await touch('touchMove', apart)
  await touch('touchEnd', null)
  await expect.poll(width).toBeLessThan(whole / 2.5)
  expect(await width()).toBeGreaterThan(whole / 3.5)
  await page.getByRole('button', { name: 'The whole face' }).click()
  expect(await width()).toBe(whole)
})

test('after a night asleep a tablet catches up in a second', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.clock.install()
  await page.goto('/')
  await page.waitForTimeout(1000)
  const read = page.waitForResponse(r => r.url().endsWith('/api/now'))
  const begun = performance.now()
  await page.evaluate(() => {
    const now = Date.now
    Date.now = () => now() + 14 * 3_600_000
    document.dispatchEvent(new Event('visibilitychange', { bubbles: true }))
  })
  await read
  expect(performance.now() - begun).toBeLessThan(3000)
  await expect(page.getByTestId('away')).toHaveCount(0)
})

test("an installed page keeps the tablet's back key inside", async ({ browser, watched }) => {
  const page = watched(await (await browser.newContext()).newPage())
  // installed, it begins with one entry
  await page.addInitScript(() => {
    const asked = window.matchMedia.bind(window)
    window.matchMedia = query => (query.includes('display-mode') ? asked('all') : asked(query))
    Object.defineProperty(history, 'length', { get: () => 1 })
  })
  await page.goto('/sign-in')
  await page.getByLabel('Name to sign in with').click()
  await page.goBack()
  await expect(page).toHaveURL(/\/sign-in$/)
  await expect(page.getByRole('button', { name: 'Enter' })).toBeVisible()
  expect(await page.evaluate(() => (history.state as { floor?: boolean }).floor)).toBe(false)
})
