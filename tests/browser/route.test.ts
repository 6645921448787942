import { expect } from '@playwright/test'
import { as, choose, opened, step, stepNames, test, write } from './page'

test('every route judged; two beside each other; finishes compared and picked', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.goto('/pieces/14/route')
  await expect(page.getByTestId('route')).toHaveCount(12)
  await page.locator('[data-route=strip-chemical]').getByRole('button', { name: 'Beside another' }).click()
  await page.locator('[data-route=refer]').getByRole('button', { name: 'Beside another' }).click()
  await expect(page.getByTestId('compared').getByRole('columnheader')).toContainText([
    '',
    'Strip with stripper',
    'Refer to a conservator',
  ])
  await page.getByText('Finishes beside each other').click()
  await expect(page.getByTestId('finishes').getByRole('row')).toHaveCount(13)
  await page
    .getByTestId('finishes')
    .getByRole('button', { name: /two-part hardwax oil/ })
    .click()
  await expect(page.getByLabel('Finish').first()).toHaveAttribute('data-value', 'hardwax-oil-2c')
})

test('a house method shows what it would change here, and is taken for this piece alone', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'ingrid', watched)
  await page.goto('/pieces/14/route')
  await choose(page.getByLabel('Finish').first(), 'waterborne-polyurethane')
  await page.getByText('House methods on this piece').click()
  const grain = page.locator('[data-test=house][data-slug=raise-grain]')
  await expect(grain.getByRole('radio', { name: /Never/ })).toContainText(/changes nothing here|−/, { timeout: 60_000 })
  await page.locator('[data-test=house][data-slug=between-coats]').getByRole('radio', { name: /P400/ }).click()
  await expect(page.locator('[data-test=house][data-slug=between-coats]')).toContainText('for this piece')
  await page.locator('[data-route=strip-chemical]').getByRole('button', { name: 'Take this route' }).click()
  await expect(page.getByTestId('step').filter({ hasText: 'Sand lightly P400' }).first()).toBeVisible()
  await page.goto('/shop?part=methods')
  await expect(page.getByLabel(/Grit between coats/)).toHaveAttribute('data-value', 'P320')
})

test('a broken rule is mended by one touch; the section slides through the plan', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.goto('/pieces/4/plan')
  await expect(page.getByTestId('section')).toBeVisible()
  const planned = () => page.locator('rect.layer[data-side=planned]').count()
  const all = await planned()
  const slider = page.getByLabel('The section at a point of the plan')
  await slider.focus()
  await page.keyboard.press('Home')
  await expect(page.getByText('As it was found')).toBeVisible()
  await page.keyboard.press('End')
  await expect.poll(planned).toBe(all)
  await opened(page, 'f-clean-off')
  await choose(step(page, 'f-clean-off').getByLabel('Dust comes off by'), 'tack-cloth')
  await step(page, 'f-clean-off').getByRole('button', { name: 'Save' }).click()
  const verdict = page.locator('[data-rule=resin-tack-cloth-before-waterborne]')
  await expect(verdict).toBeVisible()
  await verdict.getByRole('button', { name: 'Wipe with a damp cloth' }).click()
  await expect(verdict).toHaveCount(0)
  await expect(step(page, 'f-clean-off')).toContainText('barely damp')
})

/** A piece of one board with its finish tests, on its route. */
async function tested(page: Parameters<typeof write>[0], sheen: string, tests: [string, string][]) {
  const face = {
    ...{ name: 'top', rank: 'show', shape: 'oval', orientation: 'horizontal', length: '900', width: '900' },
    ...{ count: 1, species: 'ash', substrate: 'solid', veneer: '' },
  }
  const reply = await write(page, 'post', '/api/pieces', {
    ...{
      name: 'Round top',
      note: '',
      client: { name: 'Trial client', email: '', phone: '1' },
      use: 'daily',
      tone: 'same',
    },
    ...{ sheen, age: 'keep', dueOn: null, period: 'after-1990', refinished: 'yes', keepPatina: false, lead: 'no' },
    parts: [{ name: 'top', scope: 'refinish', faces: [face] }],
  })
  const { id } = (await reply.json()) as { id: number }
  for (const [kind, result] of tests)
    await write(page, 'post', `/api/pieces/${id}/tests`, { test: kind, result, spot: '' })
  await page.goto(`/pieces/${id}/route`)
}
const take = (page: Parameters<typeof write>[0], route: string) =>
  page.locator(`[data-route=${route}]`).getByRole('button', { name: 'Take this route' }).click()

test('bare wood begins as it stands: advised, taken, and never washed', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await tested(page, 'satin', [
    ['look', 'no film'],
    ['water-drop', 'soaks in'],
    ['uv-lamp', 'dull'],
    ['white-spirit-rub', 'nothing comes off'],
    ['alcohol-drop', 'nothing'],
  ])
  await expect(page.locator('[data-route=as-it-stands]')).toContainText('Advised')
  await take(page, 'as-it-stands')
  await expect(step(page, 'sand')).toContainText('P')
  expect(await stepNames(page)).not.toContain('wash')
  // a round top of 0.9 m: 0.636 m², not 0.81
  await page.goto(page.url().replace('/plan', ''))
  await expect(page.getByText(/0\.64 m²/).first()).toBeVisible()
})

test('new wood is known to be bare by a touch, stained by another, and the word is taken back', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  await tested(page, 'matt', [])
  const piece = page.url().replace('/route', '')
  await page.goto(`${piece}/finish`)
  await page.getByRole('button', { name: 'Bare or new wood: it is known' }).click()
  await expect(page.getByTestId('finish')).toContainText('bare wood')
  await page.goto(piece)
  await page.getByTestId('face-map').getByRole('button').first().click()
  await choose(page.getByLabel('Something else', { exact: true }), { says: 'stain of unknown kind on bare wood' })
  await page.getByRole('button', { name: 'On the whole face' }).click()
  await expect(page.getByTestId('detail')).toContainText('stain of unknown kind')
  await page.goto(`${piece}/route`)
  await take(page, 'as-it-stands')
  await expect(step(page, 'test-piece')).toContainText('is the stain dry?')
  expect(await stepNames(page)).not.toContain('sand')
  await page.goto(`${piece}/finish`)
  await page.getByRole('button', { name: 'By the tests again' }).click()
  await expect(page.getByText('No test yet.')).toBeVisible()
})

test('a sound gloss film is polished: cut, buffed, judged in raking light', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await tested(page, 'gloss', [
    ['look', 'thin, clear'],
    ['lacquer-thinner-drop', 'dissolves'],
    ['alcohol-drop', 'nothing'],
    ['scrape', 'powder'],
  ])
  await expect(page.locator('[data-route=polish]')).toContainText('sound film can be polished')
  await take(page, 'polish')
  await expect(step(page, 'buff')).toContainText('compound')
  await expect(step(page, 'gate')).toContainText('free of scratches')
})
