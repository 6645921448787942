/** What the record says, the care for air and rags, a counting round, lists and archives, a person erased. */
import { readFileSync } from 'node:fs'
import { expect } from '@playwright/test'
import { as, choose, test, write } from './page'

test('a question to the record: its figures open to their lines, and go out as CSV', async ({ browser, watched }) => {
  const page = await as(browser, 'ingrid', watched)
  await page.goto('/shop?part=record')
  const record = page.getByTestId('record')
  await expect(record.getByRole('heading', { level: 1 })).toHaveText('Where do the hours go?')
  await expect(record.locator('canvas')).toBeVisible()
  const sand = page.getByTestId('record-group').filter({ hasText: /^sand/ }).first()
  await sand.getByRole('button').click()
  await expect(page.getByTestId('record-lines').locator('p').first()).toContainText(/\d+ · /)
  // what is asked stands in the address
  expect(page.url()).toContain('of=sand')
  await choose(page.getByLabel('Question'), 'cost')
  await expect(record.getByRole('heading', { level: 1 })).toHaveText('What does a kind of piece cost?')
  await expect(page.getByTestId('record-group').first()).toContainText('SEK')
  await choose(page.getByRole('button', { name: /^Kind of piece/ }), 'stool')
  await expect(page.getByTestId('record-group')).toHaveCount(1)
  const csv = await page.request.get((await page.getByText('All lines as CSV').getAttribute('href'))!)
  expect(await csv.text()).toContain('Piano stool')
})

test('a finisher asks only of their own hours, and sees no money', async ({ browser, watched }) => {
  const page = await as(browser, 'emil', watched)
  await page.goto('/shop?part=record&ask=people')
  await expect(page.getByTestId('record-group')).toHaveCount(1)
  await expect(page.getByTestId('record-group')).toContainText('Emil')
  await page.getByLabel('Question').click()
  await expect(page.getByRole('option', { name: 'What does an hour bring?' })).toHaveCount(0)
})

test('Now asks where oily rags lie; the answer is taken back by a touch', async ({ browser, watched }) => {
  const page = await as(browser, 'emil', watched)
  const care = page.getByTestId('care')
  await expect(care).toContainText('Oily rags: where do they lie?')
  await care.getByRole('button').first().click()
  await care.locator('[data-rags=ask]').getByRole('button', { name: 'Flat in the open' }).click()
  const lie = care.locator('[data-rags=stiffening]')
  await expect(lie).toContainText('lie flat in the open until')
  await page.getByTestId('note').getByRole('button', { name: 'Take back' }).click()
  await expect(care.locator('[data-rags=ask]')).toBeVisible()
  // what stands open elsewhere in the shop may ask for more rooms: one is looked at, and taken back
  const rooms = care.getByTestId('unlooked')
  await expect(rooms.first()).toContainText('flame')
  const open = await rooms.count()
  await rooms.first().getByRole('button', { name: 'Looked, none is on' }).click()
  await expect(rooms).toHaveCount(open - 1)
  await page.getByTestId('note').getByRole('button', { name: 'Take back' }).click()
  await expect(rooms).toHaveCount(open)
})

test('new cartridges, a limit of the house, and waste with its receipt', async ({ browser, watched }) => {
  const page = await as(browser, 'ingrid', watched)
  await page.goto('/store?part=air')
  const masks = page.getByTestId('masks')
  const own = masks.locator('.row').filter({ hasText: 'Ingrid' })
  await own.getByRole('button', { name: 'New ones fitted' }).click()
  await own.getByLabel('Hours in use').fill('6')
  await own.locator('form').getByRole('button', { name: 'New ones fitted' }).click()
  await expect(own).toContainText('0.0 of 6 h used')
  await page.getByTestId('note').getByRole('button', { name: 'Take back' }).click()
  await expect(own).toContainText('nothing said')
  await page.getByTestId('voc-year').getByRole('button', { name: 'Set' }).click()
  await page.getByLabel('VOC that the house may give off').fill('1')
  await page.getByRole('button', { name: 'Set', exact: true }).first().click()
  await expect(page.getByTestId('voc-year')).toContainText('More than the house may give off')
  await write(page, 'put', '/api/breath/voc', { kg: 120 })
})

test('a counting round goes from can to can', async ({ browser, watched }) => {
  const page = await as(browser, 'ingrid', watched)
  await page.goto('/store?part=round')
  const round = page.getByTestId('round')
  await expect(round).toContainText(/1 of \d+ cans/)
  await round.getByRole('button', { name: 'As in the book' }).click()
  await expect(round).toContainText(/2 of \d+ cans/)
  await round.getByRole('button', { name: 'Skip' }).click()
  await expect(round).toContainText(/3 of \d+ cans/)
  await round.getByRole('button', { name: 'One back' }).click()
  await expect(round).toContainText(/2 of \d+ cans/)
})

test('clients come in from cards; a piece goes out as an archive that its own shop knows', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'ingrid', watched)
  await page.goto('/shop')
  const cards = page.getByTestId('clients-in')
  await cards.getByRole('button', { name: 'Read clients in' }).click()
  const text = 'BEGIN:VCARD\r\nVERSION:4.0\r\nFN:Vera Visitkort\r\nEMAIL:vera@example.invalid\r\nEND:VCARD\r\n'
  await cards.locator('input[type=file]').setInputFiles({
    ...{ name: 'one.vcf', mimeType: 'text/vcard', buffer: Buffer.from(text) },
  })
  await expect(cards).toContainText('New: Vera Visitkort')
  await cards.getByRole('button', { name: 'Take them' }).click()
  await expect(page.getByTestId('note')).toContainText('Taken')
  await page.goto('/pieces/1/client')
  const [archive] = await Promise.all([
    page.waitForEvent('download'),
    page.getByRole('link', { name: 'All of it as an archive' }).click(),
  ])
  const data = readFileSync(await archive.path())
  await page.goto('/shop')
  await page
    .getByTestId('archive-in')
    .locator('input')
    .setInputFiles({
      ...{ name: 'piece.zip', mimeType: 'application/zip', buffer: data },
    })
  const proof = page.getByRole('dialog').getByLabel('Password')
  if (await proof.isVisible({ timeout: 3000 }).catch(() => false)) {
    await proof.fill('verdigris-9')
    await page.keyboard.press('Enter')
  }
  await expect(page.getByTestId('note')).toContainText('Read in: 0 new', { timeout: 20_000 })
})

test('a person is erased by the owner once no piece is here, and the piece stays', async ({ browser, watched }) => {
  const page = await as(browser, 'ingrid', watched)
  const found = (await (await page.request.get('/api/clients?find=Visitkort')).json()) as { id: number }[]
  const { id } = found[0]!
  await page.goto(`/clients/${id}`)
  await expect(page.getByTestId('kept')).toContainText('Name, mail and phone')
  await page.getByTestId('kept').getByRole('button', { name: 'Erase this person' }).click()
  await page.getByRole('dialog').getByRole('button', { name: 'Erase this person' }).click()
  await expect(page.getByRole('heading', { level: 1 })).toHaveText(`Client ${id}`)
  await expect(page.getByText('Personal data erased on')).toBeVisible()
})
