import { expect } from '@playwright/test'
import { as, barriers, choose, test } from './page'

test('a fault is asked about, mended in the plan, and its cause is found; what another piece taught is minded', async ({
  browser,
  watched,
}) => {
  const emil = await as(browser, 'emil', watched)
  await emil.goto('/pieces?find=Plant+table')
  await emil.getByRole('link', { name: /Plant table/ }).click()
  await emil.getByRole('link', { name: 'Plan', exact: true }).click()
  await emil.getByRole('link', { name: 'Something went wrong' }).click()
  // what was found before stands there with its cause
  await expect(emil.getByTestId('cause')).toContainText('Too much went on')
  await emil.getByRole('button', { name: 'Something went wrong' }).click()
  await emil.getByLabel('Part of its name').fill('brush')
  await emil.getByTestId('signs').getByRole('button', { name: 'Brush marks' }).click()
  const fault = emil.locator('[data-test=fault][data-sign=brush-marks]')
  const first = await fault.getByTestId('question').locator('p').first().textContent()
  await fault.getByRole('button', { name: 'Cannot say' }).click()
  await expect(fault.getByTestId('question')).not.toContainText(first!)
  await fault.getByRole('button', { name: 'Yes', exact: true }).click()
  await expect(fault.getByTestId('suspect').first()).toContainText('for it')
  expect(await barriers(emil)).toEqual([])
  await fault.getByRole('button', { name: 'Take back' }).last().click()
  await expect(fault.getByRole('button', { name: 'Take back' })).toHaveCount(1)
  await fault.getByTestId('mend').first().click()
  await expect(fault.getByTestId('mended')).toContainText('level it within the film')
  await fault.getByTestId('it-was').first().click()
  await expect(fault.getByTestId('cause')).toBeVisible()
  await emil.getByRole('link', { name: 'Plan', exact: true }).click()
  await expect(emil.locator('[data-test=step][data-key^=mend-]')).not.toHaveCount(0)
  await emil.goto('/faults')
  await expect(emil.locator('main, body').first()).toContainText('Runs, sags: Too much went on')
})

test('a piece that went home part done says what must follow, comes back, and goes home again signed', async ({
  browser,
  watched,
}) => {
  const sara = await as(browser, 'sara', watched)
  await sara.goto('/pieces?find=Low+shelf')
  await choose(sara.getByLabel('Which pieces'), 'part-done')
  await sara.getByRole('link', { name: /Low shelf/ }).click()
  await expect(sara.getByTestId('state')).toContainText('Went home part done')
  const id = /pieces\/(\d+)/.exec(sara.url())![1]!
  expect((await sara.request.get(`/api/pieces/${id}/care`)).headers()['content-type']).toBe('application/pdf')
  await sara.getByTestId('state').getByRole('button', { name: 'It has come in' }).click()
  await expect(sara.getByTestId('state')).toHaveCount(0)
  await sara.getByRole('link', { name: 'Client', exact: true }).click()
  await sara.getByRole('button', { name: 'Hand over part done' }).click()
  const handing = sara.getByTestId('hand-over')
  await expect(handing.getByTestId('left').locator('li')).not.toHaveCount(0)
  const pad = (await handing.getByTestId('signature').boundingBox())!
  await sara.mouse.move(pad.x + 20, pad.y + 40)
  await sara.mouse.down()
  await sara.mouse.move(pad.x + 80, pad.y + 20, { steps: 5 })
  await sara.mouse.move(pad.x + 140, pad.y + 60, { steps: 5 })
  await sara.mouse.up()
  expect(await barriers(sara)).toEqual([])
  await handing.locator('button.chip').click()
  await handing.getByRole('button', { name: 'Hand over', exact: true }).click()
  await expect(sara.getByTestId('state')).toContainText('Went home part done')
  await sara.getByRole('link', { name: 'Log' }).click()
  await expect(sara.getByTestId('log')).toContainText('part done to Ida Rosén, signed')
})

test('a piece comes back after years: its record says what lies on it, and the way to renew it is at hand', async ({
  browser,
  watched,
}) => {
  const tove = await as(browser, 'tove', watched)
  await tove.goto('/pieces?find=Bathhouse')
  await choose(tove.getByLabel('Which pieces'), 'handed-over')
  const rows = tove.getByRole('link', { name: /Bathhouse bench/ })
  await expect(rows).toHaveCount(2)
  await rows.last().click()
  await expect(tove.getByRole('link', { name: /was piece/ })).toBeVisible()
  // it went home renewed, with a day in the calendar for the next time; now it comes back once more
  await tove.getByRole('button', { name: 'It came back' }).click()
  const before = tove.getByTestId('before')
  await expect(before).toContainText('varnish oil')
  expect(await barriers(tove)).toEqual([])
  await tove.getByRole('link', { name: 'Finish', exact: true }).click()
  await expect(tove.locator('main, body').first()).toContainText('By the record of piece')
  await tove.getByRole('link', { name: 'Route', exact: true }).click()
  await expect(tove.locator('main, body').first()).toContainText('Renew the oil or wax in place')
})
