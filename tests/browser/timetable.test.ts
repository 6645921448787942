/** The timetable by mouse and keys: what a move would do, what if, and what can be promised. */
import { expect } from '@playwright/test'
import { as, test } from './page'

test('a step moved by keys or mouse shows who becomes later, and is held only when that is answered', async ({
  browser,
  watched,
}) => {
  const lead = await as(browser, 'tove', watched)
  expect((await lead.request.post('/api/schedule', { headers: { origin: process.env.HANTVERK_BASE! } })).status()).toBe(
    200,
  )
  await lead.goto('/timetable')
  const bar = lead.getByTestId('lane').nth(1).getByTestId('bar').last()
  const said = await bar.getAttribute('aria-label')
  await bar.focus()
  for (let n = 0; n < 6; n++) await lead.keyboard.press('ArrowRight')
  await expect(lead.locator('.ghost')).toBeVisible()
  await lead.keyboard.press('Escape')
  await expect(lead.locator('.ghost')).toHaveCount(0)
  await lead.keyboard.press('ArrowRight')
  await lead.keyboard.press('Enter')
  const box = lead.getByRole('dialog')
  await expect(box.getByTestId('effects')).toBeVisible({ timeout: 30_000 })
  await expect(box.getByRole('button', { name: 'Hold it there' })).toBeEnabled()
  await box.getByRole('button', { name: 'Close' }).click()
  await expect(lead.locator('.ghost')).toHaveCount(0)
  expect(await bar.getAttribute('aria-label')).toBe(said)
  // by mouse, to another person's line
  const { x, y, width } = (await bar.boundingBox())!
  await lead.mouse.move(x + width / 2, y + 12)
  await lead.mouse.down()
  await lead.mouse.move(x - 40, y + 60, { steps: 6 })
  await expect(lead.locator('.ghost')).toBeVisible()
  await lead.mouse.up()
  await expect(box.getByTestId('effects')).toBeVisible({ timeout: 30_000 })
  await box.getByRole('button', { name: 'Hold it there' }).click()
  await expect(lead.getByText('It is held there').first()).toBeVisible()
  await lead.getByRole('button', { name: 'Take back' }).first().click()
})

test('a week on paper: a sheet for each person, in words, without what is for a screen', async ({
  browser,
  watched,
}) => {
  const lead = await as(browser, 'tove', watched)
  await lead.goto('/timetable')
  const sheet = lead.getByTestId('week-sheet')
  await expect(lead.getByTestId('bar').first()).toBeVisible()
  await expect(sheet).toBeHidden()
  const said = (await lead.getByTestId('bar').first().getAttribute('aria-label'))!
  await lead.emulateMedia({ media: 'print' })
  for (const name of ['Emil', 'Ingrid', 'Tove'])
    await expect(sheet.getByRole('heading', { name, exact: true })).toHaveCount(1)
  await expect(sheet.getByRole('row').first()).toContainText(said.replace(/^[\d:–]+ /, '').replace(/, \d+$/, ''))
  for (const hidden of [lead.getByRole('navigation'), lead.getByTestId('lane').first(), lead.getByTestId('clock')])
    await expect(hidden).toBeHidden()
})

test('what if somebody is away: told beside what is, and left as it was', async ({ browser, watched }) => {
  const emil = await as(browser, 'emil', watched)
  await emil.goto('/timetable')
  await emil.getByRole('button', { name: 'What if …' }).click()
  const box = emil.getByRole('dialog')
  for (const kind of ['Somebody away', 'A second booth', 'A wet week']) {
    await box.getByText(kind, { exact: true }).click()
    await box.getByRole('button', { name: 'Work it out' }).click()
    await expect(box.getByTestId('effects')).toBeVisible({ timeout: 30_000 })
    // a finisher sees, and decides nothing
    await expect(box.getByRole('button', { name: 'Enter the days off' })).toHaveCount(0)
  }
  await box.getByRole('button', { name: 'Leave it' }).click()
  await expect(box).toHaveCount(0)
})

test('a day is promised by its chance, with what would help; the list shows likely and safe days', async ({
  browser,
  watched,
}) => {
  const lead = await as(browser, 'tove', watched)
  await lead.goto('/pieces')
  await expect(lead.getByText(/likely .*, safe /).first()).toBeVisible()
  await lead.goto('/pieces/24/plan')
  await expect(lead.getByTestId('with-all')).toBeVisible()
  await lead.getByRole('button', { name: 'What can be promised?' }).click()
  const box = lead.getByRole('dialog')
  await expect(box.getByTestId('promise-days')).toBeVisible({ timeout: 30_000 })
  await box.getByRole('textbox', { name: 'Promised for' }).fill('1 Dec 2026')
  await box.getByRole('textbox', { name: 'Promised for' }).press('Enter')
  await expect(box.getByTestId('promise-chance')).toContainText(/Promise no day under 80\s%/)
  await box.getByRole('button', { name: 'What would help?' }).click()
  await expect(box.getByTestId('promise-help')).toContainText('If it goes before all else', { timeout: 30_000 })
  await box.getByRole('button', { name: 'Close' }).click()
})
