import { readFileSync } from 'node:fs'
import { type Browser, expect, type Page } from '@playwright/test'
import mysql from 'mysql2/promise'
import { as, BASE, test, write } from './page'

const PASSWORD = 'verdigris-9'
async function enter(browser: Browser, watch: (p: Page) => Page, login: string, password: string): Promise<Page> {
  const page = watch(await (await browser.newContext()).newPage())
  await page.goto('/sign-in')
  await page.waitForLoadState('networkidle')
  await page.getByLabel('Name to sign in with').fill(login)
  await page.getByLabel('Password').fill(password)
  await page.getByRole('button', { name: 'Enter' }).click()
  return page
}
const database = () =>
  (
    JSON.parse(readFileSync(process.env.HANTVERK_STATE!, 'utf8')) as { parts: { name: string; id: { pid: number } }[] }
  ).parts.find(p => p.name === 'database')!.id.pid

test('the owner gives a one-time password; it opens once, and its bearer chooses another', async ({
  browser,
  watched,
}) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/shop?part=people')
  const people = owner.getByTestId('people')
  await people.getByLabel('Name', { exact: true }).fill('Bodil Ask')
  await people.getByLabel('Name to sign in with').fill('bodil')
  await people.getByLabel('Password').fill('first-day-here')
  await people.getByRole('button', { name: 'Add' }).click()
  const row = people.locator('.row', { hasText: 'Bodil Ask' })
  await row.getByRole('button', { name: 'One-time password' }).click()
  const word = /([a-z2-9]{4}-){2}[a-z2-9]{4}/.exec(await owner.getByTestId('one-time').innerText())![0]
  const bodil = await enter(browser, watched, 'bodil', word)
  await expect(bodil.getByText('You came in with a one-time password')).toBeVisible()
  await bodil.goto('/pieces')
  await expect(bodil).toHaveURL(/\/password$/)
  await bodil.waitForLoadState('networkidle')
  const choose = async (password: string) => {
    await bodil.getByLabel('The password you have').fill(word)
    await bodil.getByLabel('The new password').fill(password)
    await bodil.getByRole('button', { name: 'Take this password' }).click()
  }
  await choose('qwertyuiop')
  await expect(bodil.getByText('people take most often')).toBeVisible()
  await choose('veneer-hammer-7')
  await expect(bodil.getByTestId('clock')).toContainText(/\d\d:\d\d/)
  const again = await enter(browser, watched, 'bodil', word)
  await expect(again.getByRole('alert')).toContainText('wrong')
})

test('who is signed out elsewhere, or let go, is at the door within seconds', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  const emil = await as(browser, 'emil', watched)
  await owner.goto('/shop?part=people')
  await owner.getByTestId('sessions').locator('button[aria-expanded]').click()
  const line = owner.getByTestId('sessions').locator('.row', { hasText: 'Emil' })
  const outs = line.getByRole('button', { name: 'Sign out' })
  await expect(outs.first()).toBeVisible()
  for (let left = await outs.count(); left > 0; left--) {
    await outs.first().click()
    await expect(outs).toHaveCount(left - 1)
  }
  await expect(emil).toHaveURL(/\/sign-in/, { timeout: 15_000 })
})

test('while the database hangs pages say so; then they and their streams come back by themselves', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  await page.goto('/store')
  await expect(page.getByRole('heading', { level: 1 })).toBeVisible()
  const pid = database()
  process.kill(pid, 'SIGSTOP')
  try {
    const late = watched(await page.context().newPage())
    const reply = await late.goto('/timetable')
    expect(reply!.status()).toBe(503)
    await expect(late.getByText("The shop's server does not answer")).toBeVisible()
    process.kill(pid, 'SIGCONT')
    await expect(late.getByRole('heading', { name: /^Timetable/ })).toBeVisible({ timeout: 30_000 })
  } finally {
    process.kill(pid, 'SIGCONT')
  }
  const other = await as(browser, 'ingrid', watched)
  const name = `Soap after the pause ${Date.now()}`
  expect((await write(other, 'post', '/api/products', { name, class: 'mild-soap', priceMinor: 100 })).status()).toBe(
    200,
  )
  await expect(page.getByText(name).first()).toBeVisible({ timeout: 30_000 })
  await expect(page.getByText('No line to the server')).toHaveCount(0)
})

test('a piece that cannot be read is told on Now and in the timetable, and the rest lives', async ({
  browser,
  watched,
}) => {
  const sql = await mysql.createConnection(process.env.HANTVERK_SQL!.replace(/hantverk_api$/, 'hantverk_browser'))
  const page = await as(browser, 'tove', watched)
  const [rows] = await sql.query<mysql.RowDataPacket[]>(
    `SELECT s.id, s.grits, s.piece_id
        FROM plan_step s
        JOIN piece p ON p.id = s.piece_id
        WHERE p.state = 'active' AND s.grits <> '' AND s.state = 'planned'
        ORDER BY s.id DESC
        LIMIT 1`,
  )
  const { id, grits, piece_id: piece } = rows[0] as { id: number; grits: string; piece_id: number }
  const gritsAre = async (stored: string) => {
    await sql.query('UPDATE plan_step SET grits = ? WHERE id = ?', [stored, id])
    // what is concluded of a piece is kept by its number
    await sql.query('UPDATE piece SET changed_no = changed_no + 1 WHERE id = ?', [piece])
  }
  await gritsAre('81')
  for (const path of ['/', '/timetable']) {
    await page.goto(path)
    await expect(page.getByTestId('cannot-read')).toContainText('grit 81')
    await expect(page.getByTestId('cannot-read').getByRole('link')).toHaveAttribute('href', `/pieces/${piece}/route`)
  }
  await page.goto('/')
  await expect(page.getByTestId('window').first()).toBeVisible()
  await gritsAre(grits)
  await page.reload()
  await expect(page.getByTestId('clock')).toContainText(/\d\d:\d\d/)
  await expect(page.getByTestId('cannot-read')).toHaveCount(0)
  await sql.end()
})

test('the keys to the shop: a cookie alone writes nothing from elsewhere', async ({ browser, watched }) => {
  const page = await as(browser, 'ingrid', watched)
  const reply = await page.request.post('/api/alarms', {
    data: {},
    headers: { 'origin': 'http://127.0.0.1:9', 'idempotency-key': crypto.randomUUID() },
  })
  expect(reply.status()).toBe(403)
  const cookies = await page.context().cookies(BASE)
  for (const c of cookies) expect([c.httpOnly, c.sameSite]).toEqual([true, 'Lax'])
  expect(cookies.map(c => c.name).sort()).toEqual(['hantverk', 'hantverk-device'])
  expect(JSON.stringify(cookies)).not.toContain(PASSWORD)
})
