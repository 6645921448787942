import { expect } from '@playwright/test'
import { as, barriers, choose, test } from './page'

test('a can is found, weighed, taken for a piece and brought back; where it went stands beside it', async ({
  browser,
  watched,
}) => {
  const emil = await as(browser, 'emil', watched)
  await emil.goto('/store')
  // one can of the demo is over its time, and says so before it is opened
  const old = emil.getByTestId('lot').filter({ hasText: 'C-1' })
  await expect(old).toContainText('over since')
  await old.click()
  await expect(emil.getByTestId('age')).toContainText('Try it on card')
  const acts = emil.getByTestId('lot-acts')
  const left = emil.getByTestId('left')
  await acts.getByRole('button', { name: 'Weigh it' }).click()
  await acts.getByLabel('Weight with what is in it').fill('150')
  await acts.getByLabel('Weight of the empty can').fill('200')
  await acts.getByRole('button', { name: 'Weigh it' }).last().click()
  await expect(emil.getByText('lighter than the empty can').first()).toBeVisible()
  await acts.getByLabel('Weight with what is in it').fill('600')
  await acts.getByRole('button', { name: 'Weigh it' }).last().click()
  await expect(emil.getByTestId('moves')).toContainText('weighed 600 g, empty 200 g')
  const before = await left.textContent()
  await acts.getByRole('button', { name: 'Take for a piece' }).click()
  await acts.getByLabel('Amount').fill('50')
  await choose(acts.getByLabel('Piece'), { says: /Map chest|Linen press/ })
  await acts.getByRole('button', { name: 'Take for a piece' }).last().click()
  await expect(left).not.toHaveText(before!)
  await expect(emil.getByTestId('went').getByRole('link')).toHaveCount(1)
  await acts.getByRole('button', { name: 'Bring back from a piece' }).click()
  await acts.getByLabel('Amount').fill('50')
  await acts.getByRole('button', { name: 'Bring back from a piece' }).last().click()
  await expect(left).toHaveText(before!)
  expect(await barriers(emil)).toEqual([])
})

test('what plans want is short by day and bought by supplier; what evaporated stands by month', async ({
  browser,
  watched,
}) => {
  const tove = await as(browser, 'tove', watched)
  await tove.goto('/store?part=needs')
  const buy = tove.getByTestId('buy')
  await expect(buy).toContainText('short on')
  await expect(buy).toContainText('Kajens Färg')
  const list = await tove.request.get((await buy.getByRole('link', { name: 'CSV' }).first().getAttribute('href'))!)
  expect(await list.text()).toContain('wanted by')
  expect(await barriers(tove)).toEqual([])
  await tove.getByRole('tab', { name: 'Vapour and waste' }).click()
  await expect(tove.getByTestId('month').first()).toContainText('kg VOC')
  await tove.getByRole('tab', { name: 'Products and cans' }).click()
  await tove.getByTestId('product').first().getByRole('button', { name: 'Change' }).click()
  const form = tove.getByRole('dialog')
  await form.getByLabel('Sizes that it comes in').fill('250, rubbish')
  await form.getByRole('button', { name: 'Save' }).click()
  await expect(form).toContainText('Sizes are numbers')
  await form.getByLabel('Sizes that it comes in').fill('250, 1000')
  await form.getByRole('button', { name: 'Save' }).click()
  await expect(form).toHaveCount(0)
})
