/** What a device does by itself: its screen stays on, alarms come while the page is behind others. */
import { expect, type Page } from '@playwright/test'
import { as, test } from './page'

interface Told {
  locks: number
  released: number
  notes: string[]
}
/** Stands in for what a headless browser has not: a screen, and a place for notifications. */
const STAND_IN = () => {
  const told: Told = { locks: 0, released: 0, notes: [] }
  Object.assign(window, { told })
  const lock = () => {
    told.locks += 1
    return Promise.resolve({ released: false, addEventListener() {}, release: () => Promise.resolve(told.released++) })
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
  await owner.goto('/')
  await expect(owner.getByTestId('running').first()).toBeVisible()
  await expect.poll(async () => (await told(owner)).locks).toBeGreaterThan(0)
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
  await expect.poll(async () => (await told(owner)).notes.join()).toMatch(/Closed at|left|closes/)
})

test('without TLS at another address than this machine, a device says why it cannot', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.addInitScript(() => Object.defineProperty(window, 'isSecureContext', { value: false }))
  await owner.goto('/shop?part=people')
  const device = owner.getByTestId('device')
  await expect(device.getByText('Off: a device allows it only over TLS')).toHaveCount(2)
  for (const one of await device.getByRole('switch').all()) await expect(one).toBeDisabled()
})
