import { expect } from '@playwright/test'
import { as, forward, serverNow, setClock, step, test, stepNames } from './page'

test('the first visit to a new shop makes the owner, with clear words on bad input', async ({ browser, watched }) => {
  const page = watched(await (await browser.newContext({ baseURL: process.env.HANTVERK_NEW })).newPage())
  await page.goto('/')
  await expect(page.getByRole('heading', { name: 'A new shop' })).toBeVisible()
  await page.waitForLoadState('networkidle')
  await page.getByLabel("The shop's name").fill('Fresh workshop')
  await page.getByLabel('Your name').fill('Owner')
  await page.getByLabel('Name to sign in with').fill('owner')
  await page.getByLabel('Password').fill('short')
  await page.getByLabel('Time zone').fill('Europe/Stockholm')
  await page.getByRole('button', { name: 'Begin' }).click()
  await expect(page.getByText('Take a password of 10 characters or more.').first()).toBeVisible()
  await page.getByLabel('Password').fill('long enough now')
  await page.getByRole('button', { name: 'Begin' }).click()
  await expect(page.getByText(/Nothing may start now|closed until/)).toBeVisible()
  await page.getByRole('link', { name: 'Pieces' }).click()
  await expect(page.getByText('No piece here yet. Take one in first.')).toBeVisible()
  await page.getByRole('link', { name: 'Store' }).click()
  await expect(page.getByText('Nothing in the store yet.')).toBeVisible()
})

test('who is not signed in sees nothing of the shop; a wrong password is said so', async ({ browser, watched }) => {
  const page = watched(await (await browser.newContext()).newPage())
  await page.goto('/pieces/5/plan')
  await expect(page).toHaveURL(/sign-in/)
  await page.waitForLoadState('networkidle')
  await page.getByLabel('Name to sign in with').fill('ingrid')
  await page.getByLabel('Password').fill('wrong')
  await page.getByRole('button', { name: 'Enter' }).click()
  await expect(page.getByRole('alert')).toContainText('Name or password is wrong.')
})

test('a phone in one hand: nothing is wider than the screen, targets are large enough for gloves', async ({
  browser,
  watched,
}) => {
  const phone = await as(browser, 'emil', watched, { viewport: { width: 390, height: 844 } })
  for (const path of [
    '/',
    '/pieces',
    '/pieces/5',
    '/pieces/17/walk',
    '/pieces/17/finish',
    '/pieces/16/wood',
    '/pieces/17/hazards',
    '/pieces/5/parts',
    '/pieces/5/report',
    '/pieces/5/plan',
    '/pieces/12/client',
    '/pieces/19/colour',
    '/colour?piece=19',
    '/colour/recipes?id=1',
    '/colour/readings',
    '/colour/colourants',
    '/mixing',
    '/mixing/1',
    '/store',
    '/answers',
    '/shop',
    '/log',
    '/pieces/5/log',
  ]) {
    await phone.goto(path)
    await phone.waitForTimeout(700)
    expect(await phone.evaluate(() => document.documentElement.scrollWidth), path).toBeLessThanOrEqual(390)
    const small = await phone
      .locator('button.act:visible, nav a:visible')
      .evaluateAll(all => all.filter(b => b.getBoundingClientRect().height < 44).map(b => b.textContent))
    expect(small, path).toEqual([])
  }
})

test('a touch on what is shown, before the page is alive, is done once it is', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  let arrive = () => {}
  const held = new Promise<void>(go => (arrive = go))
  await page.route('**/_nuxt/*.js', async route => {
    await held
    await route.continue()
  })
  await page.evaluate(() => location.reload())
  const large = page.getByRole('button', { name: 'Big clock', exact: true })
  await large.click()
  await expect(page.locator('[data-live]')).toHaveCount(0)
  arrive()
  await expect(page.getByTestId('big-clock')).toBeVisible()
})

test('a gate is judged at the bench: passed opens what follows', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  const begun = await serverNow(owner)
  await owner.goto('/pieces/9/plan')
  const gate = step(owner, 'gate')
  await gate.getByRole('button', { name: 'Start' }).click()
  await gate.getByRole('button', { name: 'Done', exact: true }).click()
  const dialog = owner.getByRole('dialog')
  await expect(dialog.getByRole('button', { name: 'Done', exact: true })).toBeDisabled()
  await dialog.getByRole('button', { name: 'Passed' }).click()
  await dialog.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(gate).toContainText('passed')
  await expect(step(owner, 'scuff').getByRole('button', { name: 'Start' })).toBeVisible()
  await gate.getByRole('button', { name: /More about/ }).click()
  await owner.getByRole('menuitem', { name: 'Take back' }).click()
  await expect(gate).toHaveAttribute('data-state', 'running')
  await setClock(owner, begun)
})

test('ten minutes ago, and not dry yet', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  await forward(owner, 12)
  await owner.goto('/pieces/11/plan')
  const first = step(owner, 'take-apart')
  await first.getByRole('button', { name: /More about/ }).click()
  await owner.getByRole('menuitem', { name: 'Started 10 minutes ago' }).click()
  await expect(first).toContainText(/in hand of Ingrid, 1[01] min/)
  await owner.goto('/pieces/8/plan')
  const next = step(owner, 'sand-coat').first()
  await next.getByRole('button', { name: /More about/ }).click()
  await owner.getByRole('menuitem', { name: 'Dry, or not yet' }).click()
  await owner.getByRole('dialog').getByRole('button', { name: 'Not yet: tacky' }).click()
  await expect(owner.getByTestId('note')).toContainText(/Not dry yet before.*Back of a finger: tacky\. Look again/)
})

test('a finisher sees no buttons that belong to others', async ({ browser, watched }) => {
  const emil = await as(browser, 'emil', watched)
  await emil.goto('/pieces/12/client')
  await expect(emil.getByTestId('answer').first()).toBeVisible()
  await expect(emil.getByRole('button', { name: 'Ask the client' })).toHaveCount(0)
  await emil.goto('/pieces/15/route')
  await expect(emil.getByTestId('route').first()).toBeVisible()
  await expect(emil.getByRole('button', { name: 'Take this route' })).toHaveCount(0)
  await emil.goto('/pieces')
  await expect(emil.getByRole('link', { name: 'Take in' })).toHaveCount(0)
})

test('find, and what is short in the store', async ({ browser, watched }) => {
  const sara = await as(browser, 'sara', watched)
  await sara.goto('/pieces')
  await sara.getByRole('searchbox').fill('lectern')
  await expect(sara.getByTestId('pieces').getByRole('link')).toHaveCount(1)
  await sara.getByRole('searchbox').fill('no such thing')
  await expect(sara.getByText('Nothing found.')).toBeVisible()
  await sara.goto('/store')
  await expect(sara.getByTestId('product').first()).toBeVisible()
  await sara.getByLabel('Lot number').fill('NEW-1')
  await sara.getByRole('button', { name: 'Receive a can' }).click()
  await expect(sara.getByTestId('product').filter({ hasText: 'NEW-1' })).toBeVisible()
})

test('steps are edited, moved and removed by hand; what that breaks is overruled by the owner with a word', async ({
  browser,
  watched,
}) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/pieces/13/plan')
  const keys = () => stepNames(owner)
  await expect(step(owner, 'wash')).toBeVisible()
  expect(await keys()).toEqual([
    'approval',
    'take-apart',
    'wash',
    'scuff',
    'clean-off',
    'coat-1',
    'gate',
    'sand-coat',
    'coat-2',
    'finish-up',
  ])
  await step(owner, 'clean-off').locator('button[aria-expanded]').first().click()
  await step(owner, 'clean-off').getByLabel('Minutes').fill('19')
  await step(owner, 'clean-off').getByRole('button', { name: 'Save' }).click()
  await expect(step(owner, 'clean-off')).toContainText('typed by hand')
  await expect(step(owner, 'clean-off')).toContainText('19 min')
  await step(owner, 'clean-off').getByRole('button', { name: 'Earlier' }).click()
  await expect
    .poll(keys)
    .toEqual([
      'approval',
      'take-apart',
      'wash',
      'clean-off',
      'scuff',
      'coat-1',
      'gate',
      'sand-coat',
      'coat-2',
      'finish-up',
    ])
  await step(owner, 'wash').locator('button[aria-expanded]').first().click()
  await step(owner, 'wash').getByRole('button', { name: 'Remove' }).click()
  const verdict = step(owner, 'scuff').locator('[data-rule=clean-before-abrade]')
  await expect(verdict).toContainText('Stop')
  await verdict.getByLabel('A word why').fill("washed at the client's")
  await verdict.getByRole('button', { name: 'Overrule' }).click()
  await expect(verdict).toContainText("Overruled by Ingrid: washed at the client's")
})
