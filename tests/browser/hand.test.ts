import { expect } from '@playwright/test'
import { as, choose, step, test } from './page'

test('a step is added by its kind: product, method and words follow, a caution stands before it', async ({
  browser,
  watched,
}) => {
  const tove = await as(browser, 'tove', watched)
  await tove.goto('/pieces/8/plan')
  const coat = step(tove, 'coat-2')
  await coat.locator('button[aria-expanded]').first().click()
  await coat.getByRole('button', { name: 'Add a step after it' }).click()
  const form = tove.getByTestId('add-step')
  await choose(form.getByLabel('Kind'), 'gel')
  await expect(form.getByLabel('Product').first()).toHaveValue(/gel stain/)
  await expect(form.getByLabel('What is to be done')).toHaveAttribute('placeholder', /Gel stain on/)
  await form.getByRole('button', { name: 'Add', exact: true }).click()
  const gel = tove.getByTestId('step').filter({ hasText: 'Gel stain on, 3 min' })
  await expect(gel).toBeVisible()
  await gel.locator('button[aria-expanded]').first().click()
  await expect(gel.getByTestId('cautions').first()).toContainText('solvent vapour · oily rags')
  await gel.getByTestId('cautions').first().getByRole('button').click()
  await expect(gel.getByText(/lay them flat outdoors/)).toBeVisible()
  await tove.getByTestId('undo').click()
  await expect(gel).toHaveCount(0)
})

test('what was typed by hand follows again by one touch', async ({ browser, watched }) => {
  const tove = await as(browser, 'tove', watched)
  await tove.goto('/pieces/11/plan')
  const coat = step(tove, 'coat-1')
  await coat.locator('button[aria-expanded]').first().click()
  const before = await coat.getByLabel('Minutes').inputValue()
  await coat.getByLabel('Minutes').fill('77')
  await coat.getByRole('button', { name: 'Save' }).click()
  await expect(coat).toContainText('typed by hand')
  await coat.getByRole('button', { name: 'Work it out again' }).click()
  await expect(coat).not.toContainText('typed by hand')
  await expect(coat.getByLabel('Minutes')).toHaveValue(before)
})

test('a licence is recorded and taken back by the owner alone', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/shop?part=people')
  const licences = owner.getByTestId('licences')
  await expect(licences).toContainText('None recorded.')
  await choose(licences.getByLabel('Who holds it'), { says: 'Emil' })
  await licences.getByLabel('Number').fill('AV-77')
  await licences.getByRole('textbox', { name: 'Valid until' }).fill('1 May 2027')
  await licences.getByRole('button', { name: 'Record the licence' }).click()
  await expect(licences).toContainText('Isocyanates: two-part urethane · Emil · AV-77')
  const emil = await as(browser, 'emil', watched)
  await emil.goto('/shop?part=people')
  await expect(emil.getByTestId('licences')).toContainText('AV-77')
  await expect(emil.getByRole('button', { name: 'Record the licence' })).toHaveCount(0)
  await licences.getByRole('button', { name: 'Take back' }).click()
  await expect(licences).toContainText('None recorded.')
})
