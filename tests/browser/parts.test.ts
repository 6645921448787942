import { expect } from '@playwright/test'
import { as, step, test } from './page'

test('a field that opens is worked by keys alone, finds by typing, and gives back what was chosen', async ({
  browser,
  watched,
}) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/pieces/new')
  await owner.waitForLoadState('networkidle')
  const sheen = owner.getByLabel('Sheen')
  await sheen.focus()
  await owner.keyboard.press('ArrowDown')
  await expect(owner.getByRole('option', { name: 'satin', exact: true })).toBeVisible()
  await owner.keyboard.press('ArrowDown')
  await owner.keyboard.press('Enter')
  await expect(sheen.first()).toHaveAttribute('data-value', 'semi-gloss')
  await owner.keyboard.press('Enter')
  await owner.keyboard.press('Escape')
  await expect(sheen.first()).toHaveAttribute('data-value', 'semi-gloss')
  const wood = owner.getByLabel('Wood').first()
  await wood.click()
  await owner.keyboard.type('red o')
  await expect(owner.getByRole('option')).toHaveCount(1)
  await owner.keyboard.press('Enter')
  await expect(wood).toHaveValue('red oak')
  await wood.click()
  await owner.keyboard.type('plastic')
  await expect(owner.getByText('Nothing of that name')).toBeVisible()
  await owner.keyboard.press('Escape')
  await owner.getByLabel('Piece', { exact: true }).click()
  await expect(wood).toHaveValue('red oak')
  await owner.getByRole('radio', { name: 'Not known' }).focus()
  await owner.keyboard.press('ArrowRight')
  await expect(owner.getByRole('radio', { name: 'Yes', exact: true })).toBeChecked()
})

test('a day is typed as people write it, taken from a month, and a wrong one is told', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/pieces/new')
  await owner.waitForLoadState('networkidle')
  const day = owner.getByRole('textbox', { name: 'Promised for' })
  for (const typed of ['2026-12-24', '24 Dec 2026', '24.12.2026', '24/12/2026']) {
    await day.fill(typed)
    await day.blur()
    await expect(day, typed).toHaveValue('Thu 24 Dec 2026')
  }
  await day.fill('31.2.2026')
  await day.blur()
  await expect(owner.getByText('This is no day.')).toBeVisible()
  await expect(day).toHaveValue('31.2.2026')
  await owner.getByRole('button', { name: 'Take a day: Promised for' }).click()
  await owner.getByRole('button', { name: 'The month after' }).click()
  await owner.getByRole('button', { name: /^Fri 15 Jan 2027$/ }).click()
  await expect(day).toHaveValue('Fri 15 Jan 2027')
  await expect(owner.getByText('This is no day.')).toHaveCount(0)
})

test('what was typed stays when a form is refused, and the first wrong field has the focus', async ({
  browser,
  watched,
}) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/shop?part=people')
  await owner.waitForLoadState('networkidle')
  const people = owner.getByTestId('people')
  await people.getByLabel('Name', { exact: true }).fill('Otto')
  await people.getByLabel('Name to sign in with').fill('emil')
  await people.getByLabel('Password').fill('short')
  await people.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(people.getByLabel('Password')).toBeFocused()
  await expect(people.getByLabel('Name', { exact: true })).toHaveValue('Otto')
  await people.getByLabel('Password').fill('long enough, walnut 17')
  await people.getByRole('button', { name: 'Add', exact: true }).click()
  await expect(owner.getByTestId('note')).toContainText(/exists already|taken/)
  await expect(people.getByLabel('Name to sign in with')).toHaveValue('emil')
})

test('a mis-tap is taken back from the line that tells it: at the bench, and of somebody let go', async ({
  browser,
  watched,
}) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/pieces/4/plan')
  const may = owner.getByTestId('step').filter({ has: owner.getByRole('button', { name: 'Start', exact: true }) })
  const key = (await may.first().getAttribute('data-key'))!
  await step(owner, key).getByRole('button', { name: 'Start', exact: true }).click()
  await expect(step(owner, key)).toHaveAttribute('data-state', 'running')
  await owner.getByTestId('note').getByRole('button', { name: 'Take back' }).click()
  await expect(step(owner, key)).toHaveAttribute('data-state', 'planned')
  await owner.goto('/shop?part=people')
  const sara = owner.getByTestId('people').locator('.row', { hasText: 'sara' })
  await sara.getByRole('button', { name: 'Let go' }).click()
  await expect(sara.getByRole('button', { name: 'Let go' })).toHaveCount(0)
  await owner.getByTestId('note').getByRole('button', { name: 'Take back' }).click()
  await expect(sara.getByRole('button', { name: 'Let go' })).toBeVisible()
})

test('the parts of Shop are tabs with an address of their own', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/shop')
  await owner.getByRole('tab', { name: 'The shop' }).focus()
  await owner.keyboard.press('ArrowRight')
  await expect(owner.getByTestId('rooms')).toBeVisible()
  await owner.keyboard.press('ArrowRight')
  await expect(owner.getByTestId('people')).toBeVisible()
  await expect(owner).toHaveURL(/part=people/)
  await owner.reload()
  await expect(owner.getByTestId('people')).toBeVisible()
  await owner.goto('/shop?part=nonsense')
  await expect(owner.getByRole('tab', { name: 'The shop' })).toHaveAttribute('aria-selected', 'true')
})

test('a grit on another scale is typed at a step, said in its title and kept', async ({ browser, watched }) => {
  const tove = await as(browser, 'tove', watched)
  await tove.goto('/pieces/11/plan')
  const sand = tove.getByTestId('step').filter({ hasText: 'Sand lightly' }).first()
  await sand.locator('button[aria-expanded]').first().click()
  const grits = sand.getByLabel('Grits, with scale')
  const before = await grits.inputValue()
  await grits.fill('P320, CAMI 400, wool 0000')
  await sand.getByRole('button', { name: 'Save' }).click()
  await expect(tove.getByTestId('step').filter({ hasText: 'P320 → CAMI 400 → wool 0000' })).toBeVisible()
  await tove.reload()
  await expect(tove.getByTestId('step').filter({ hasText: 'CAMI 400' })).toBeVisible()
  await tove.getByTestId('undo').click()
  await expect(tove.getByTestId('step').filter({ hasText: 'CAMI 400' })).toHaveCount(0)
  expect(before).not.toBe('')
})

test('one room for dust and finish: a caution that stands before a start', async ({ browser, watched }) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/shop?part=rooms')
  const room = (name: string) => owner.getByTestId('room').filter({ hasText: name })
  const coats = async (on: boolean) => {
    await room('Workshop').getByRole('button', { name: 'Change' }).click()
    const wet = owner.getByRole('switch', { name: 'Coats dry here' })
    await expect(wet).toBeChecked({ checked: !on })
    await wet.click()
    await owner.getByRole('button', { name: 'Save' }).click()
    await expect(wet).toHaveCount(0)
  }
  await coats(true)
  await room('Finishing room').getByRole('button', { name: 'Remove' }).first().click()
  await expect(room('Finishing room')).toHaveCount(0)
  const other = await as(browser, 'ingrid', watched)
  await other.goto('/pieces/11/plan')
  const sand = other.getByTestId('step').filter({ hasText: 'Sand lightly' }).first()
  await sand.locator('button[aria-expanded]').first().click()
  await expect(sand.getByTestId('cautions').first()).toContainText('one room for dust and finish')
  // taken back, it stands there again with its racks
  await owner.getByTestId('note').getByRole('button', { name: 'Take back' }).click()
  await expect(room('Finishing room')).toContainText('RACK-1')
  await coats(false)
})

test('a form that was taken is empty for the next one, and blames nothing yet', async ({ browser, watched }) => {
  const emil = await as(browser, 'emil', watched)
  await emil.goto('/pieces/16/parts')
  const name = emil.getByLabel('What is it')
  await emil.getByRole('button', { name: 'Add it' }).click()
  await expect(emil.getByText('The name is missing.').first()).toBeVisible()
  await name.fill('Lock plate')
  await expect(name).toHaveAttribute('aria-invalid', 'false')
  await emil.getByRole('button', { name: 'Add it' }).click()
  await expect(emil.getByText('Lock plate').first()).toBeVisible()
  await expect(name).toHaveValue('')
  await expect(name).toHaveAttribute('aria-invalid', 'false')
})
