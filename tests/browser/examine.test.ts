import { readFileSync } from 'node:fs'
import { expect, type Locator, type Page } from '@playwright/test'
import { answerAs, as, choose, linkTo, test } from './page'

interface Exam {
  faces: { id: number; part: string }[]
  findings: {
    id: number
    kind: string
    grade: number
    place: { shape: string; x_mm: number; y_mm: number; x2_mm: number; y2_mm: number }
  }[]
}
const examOf = async (page: Page, piece: number) =>
  (await (await page.request.get(`/api/pieces/${piece}/examination`)).json()) as Exam
const newest = async (page: Page, piece: number) => (await examOf(page, piece)).findings.at(-1)!
const board = (page: Page) => page.getByTestId('board')
/** A point of the board, given in mm on the face. */
async function at(board: Locator, x_mm: number, y_mm: number) {
  const box = (await board.boundingBox())!
  const scale = await board.evaluate(
    (svg: SVGSVGElement) =>
      (Number(svg.dataset.pxPerMm) * svg.getBoundingClientRect().width) / svg.viewBox.baseVal.width,
  )
  return { x: box.x + 2 + x_mm * scale, y: box.y + 2 + y_mm * scale }
}
/** Opens the first face of a piece, large. */
async function openFace(page: Page, piece: number) {
  await page.goto(`/pieces/${piece}`)
  await page.getByTestId('face-map').getByRole('button').first().click()
  await expect(board(page)).toBeVisible()
}

test('a finding is drawn by mouse: touched, drawn across, moved, and taken back', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await openFace(page, 15)
  await page.getByRole('button', { name: 'dents', exact: true }).click()
  const p = await at(board(page), 600, 60)
  await page.mouse.click(p.x, p.y)
  await expect(page.getByTestId('detail')).toContainText('dents')
  const dent = await newest(page, 15)
  expect(dent.place.shape).toBe('point')
  expect(Math.abs(dent.place.x_mm - 600)).toBeLessThan(4)
  await page.getByRole('button', { name: 'Close', exact: true }).click()

  await page.getByRole('button', { name: 'peeling', exact: true }).click()
  await page.getByRole('radio', { name: '4', exact: true }).click()
  const [a, b] = [await at(board(page), 200, 20), await at(board(page), 500, 100)]
  await page.mouse.move(a.x, a.y)
  await page.mouse.down()
  await page.mouse.move((a.x + b.x) / 2, b.y, { steps: 4 })
  await page.mouse.move(b.x, b.y, { steps: 4 })
  await page.mouse.up()
  await expect(page.getByTestId('detail')).toContainText(/\d+ × \d+ mm/)
  const drawn = await newest(page, 15)
  expect(drawn.grade).toBe(4)
  expect(Math.abs(drawn.place.x2_mm - drawn.place.x_mm)).toBeGreaterThan(290)
  await expect(page.getByTestId('damage')).toContainText('peeling')

  await page.getByRole('button', { name: 'Move', exact: true }).click()
  const to = await at(board(page), 1000, 60)
  await page.mouse.click(to.x, to.y)
  await expect.poll(async () => Math.round((await newest(page, 15)).place.x_mm / 10)).toBe(85)
  await page.getByTestId('undo').click()
  await expect.poll(async () => Math.round((await newest(page, 15)).place.x_mm / 10)).toBe(20)
  await page.keyboard.press('Control+z')
  await expect.poll(async () => (await examOf(page, 15)).findings.map(f => f.kind)).toEqual(['dents'])
})

test('a finding is placed by touch, with two taps and no drag', async ({ browser, watched }) => {
  const page = await as(browser, 'emil', watched, { hasTouch: true, viewport: { width: 1024, height: 768 } })
  await openFace(page, 15)
  await page.getByRole('button', { name: 'scratches', exact: true }).tap()
  const [a, b] = [await at(board(page), 100, 40), await at(board(page), 900, 90)]
  await page.touchscreen.tap(a.x, a.y)
  await expect(page.getByText('Now the other end')).toBeVisible()
  await page.touchscreen.tap(b.x, b.y)
  await expect(page.getByTestId('detail')).toContainText('scratches')
  const { place } = await newest(page, 15)
  expect(place.shape).toBe('line')
  expect(Math.hypot(place.x2_mm - place.x_mm, place.y2_mm - place.y_mm)).toBeCloseTo(Math.hypot(800, 50), -1)
  await page.getByTestId('detail').getByRole('radio', { name: 'keep as character' }).tap()
  await expect(page.getByTestId('detail').getByRole('radio', { name: 'keep as character' })).toHaveAttribute(
    'aria-checked',
    'true',
  )
})

test('a finding is placed by keys alone', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.goto('/pieces/15')
  await page.getByTestId('face-map').getByRole('button').first().focus()
  await page.keyboard.press('Enter')
  await page.getByRole('button', { name: 'black water ring' }).focus()
  await page.keyboard.press('Space')
  await board(page).focus()
  for (const key of [
    'Shift+ArrowLeft',
    'ArrowUp',
    'Enter',
    'Shift+ArrowRight',
    'ArrowRight',
    'ArrowDown',
    'ArrowDown',
    'ArrowDown',
    'Enter',
  ])
    await page.keyboard.press(key)
  await expect(page.getByTestId('detail')).toContainText('black water ring')
  const { place } = await newest(page, 15)
  expect([place.x2_mm - place.x_mm, place.y2_mm - place.y_mm]).toEqual([60, 30])
  await page.getByRole('button', { name: 'Take back', exact: true }).click()
  await expect.poll(async () => (await examOf(page, 15)).findings.some(f => f.kind === 'black-ring')).toBe(false)
})

test('the walk is left on one tablet and taken up on another; what was found is drawn afterwards', async ({
  browser,
  watched,
}) => {
  const one = await as(browser, 'emil', watched, { viewport: { width: 390, height: 844 } })
  const two = await as(browser, 'tove', watched)
  await one.goto('/pieces/14/walk')
  await expect(one.getByTestId('question')).toHaveAttribute('data-key', 'rag')
  await one.getByRole('button', { name: 'Dirty or waxy' }).click()
  await expect(one.getByTestId('question')).toHaveAttribute('data-key', 'veneer-state|lid')
  await one.getByRole('button', { name: 'Nothing of this' }).click()
  await expect(one.getByTestId('question')).toHaveAttribute('data-key', 'layers-at-chip|lid')
  await two.goto('/pieces/14/walk')
  await expect(two.getByTestId('question')).toHaveAttribute('data-key', 'layers-at-chip|lid')
  await two.getByRole('button', { name: 'Several' }).click()
  await expect(one.getByTestId('question')).toHaveAttribute('data-key', 'lowest-layer', { timeout: 5000 })
  for (const answer of ['Clear', 'Nothing of this', 'No', 'No', 'Nothing of this']) {
    const key = await two.getByTestId('question').getAttribute('data-key')
    await two.getByTestId('question').getByRole('button', { name: answer, exact: true }).click()
    await expect(two.getByTestId('question').or(two.getByText('You have been all round it.'))).not.toHaveAttribute(
      'data-key',
      key!,
    )
  }
  await expect(two.getByTestId('question')).toHaveAttribute('data-key', 'joints')
  await two.getByRole('button', { name: 'crack', exact: true }).click()
  await two.getByRole('button', { name: 'Take these 1' }).click()
  await two.getByRole('button', { name: 'Yes', exact: true }).click()
  await two.getByRole('button', { name: 'Taken', exact: true }).click()
  await two.getByRole('link', { name: 'Draw what was found' }).click()
  await two.getByTestId('finding').filter({ hasText: 'crack' }).getByRole('button', { name: 'Draw it' }).click()
  await board(two).focus()
  for (const key of ['Shift+ArrowLeft', 'Enter', 'Shift+ArrowRight', 'Shift+ArrowRight', 'Enter'])
    await two.keyboard.press(key)
  await expect(two.getByTestId('detail')).toContainText('100 mm')
  await two.getByTestId('detail').getByLabel('Width of the line or gap').fill('2')
  await two.getByTestId('detail').getByRole('button', { name: 'Save' }).first().click()
  await two.goto('/pieces/14/wood')
  await expect(two.locator('[data-slug=crack-moves]')).toContainText('stretching')
})

test("two layers, a second guess, and the restorer's word", async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.goto('/pieces/17/finish')
  await expect(page.getByTestId('finish')).toContainText('oil polyurethane')
  await expect(page.getByText('Second guess: catalysed finish')).toBeVisible()
  await page.getByRole('radio', { name: 'Layer 2' }).click()
  await expect(page.getByTestId('finish')).toContainText('shellac')
  await page.getByRole('radio', { name: 'Finish B: plinth, feet' }).click()
  await expect(page.getByTestId('contradictory')).toBeVisible()
  await page.getByText('It is known, by a word').click()
  await choose(page.getByLabel('It is', { exact: true }), 'catalysed')
  await page.getByLabel('A word why').fill('the maker told us')
  await page.getByRole('button', { name: 'Overrule' }).click()
  await expect(page.getByTestId('finish')).toContainText('catalysed finish')
})

test('a lead swab settles the ban and says what it changed; pesticide stays', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.goto('/pieces/11/hazards')
  const lead = page.locator('[data-test=hazard][data-slug=lead]')
  await expect(lead).toContainText('sanding dry, heat guns')
  await expect(page.getByTestId('ban-effect')).toContainText('Rub with a wet non-woven pad')
  await fetch(process.env.HANTVERK_SWAB_SET!, { method: 'POST', body: JSON.stringify({ lead: 'yes' }) })
  await lead.getByLabel('Spot that was swabbed').fill('inside the left door')
  await lead.getByRole('button', { name: 'Read the swab' }).click()
  await expect(lead).toHaveAttribute('data-standing', 'confirmed')
  await expect(lead).toContainText('swab reader (simulated)')
  await page.goto('/pieces/17')
  await page.locator('[data-slug=pesticide] button[aria-expanded]').click()
  await expect(page.locator('[data-slug=pesticide]')).toContainText('Only recorded evidence lifts this.')
})

test('parts are counted out into a bag, the client is asked about the missing one, the report is read back', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'ingrid', watched)
  await page.goto('/pieces/13/parts')
  await page.getByLabel('What is it').fill('arm')
  await page.getByRole('radio', { name: 'part', exact: true }).click()
  await page.getByLabel('How many').fill('6')
  await page.getByRole('button', { name: 'Add it' }).click()
  const arm = page.locator('[data-test=item][data-mark=A1]')
  await arm.getByRole('button').first().click()
  await arm.getByRole('button', { name: 'All off' }).click()
  await expect(arm).toContainText('6 away')
  await arm.getByLabel('Lies in').fill('box-8')
  await arm.getByRole('button', { name: 'Put there' }).click()
  await expect(arm).toContainText('BOX-8')
  const label = await page.request.get((await arm.getByRole('link', { name: 'Label' }).getAttribute('href'))!)
  expect((await label.body()).subarray(0, 5).toString()).toBe('%PDF-')
  await page.goto('/places/BOX-8')
  await expect(page.getByText('arm · 6 away')).toBeVisible()

  await page.goto('/pieces/5/client')
  const pull = page.getByTestId('answer').filter({ hasText: 'Pull of drawer 6, right is missing' })
  await expect(pull.first()).toContainText('centres at 0, 64 mm')

  await page.goto('/pieces/5/report')
  const download = page.waitForEvent('download')
  await page.getByTestId('kept').first().getByRole('link', { name: 'JSON' }).click()
  const file = await (await download).path()
  expect((JSON.parse(readFileSync(file, 'utf8')) as { format: string }).format).toBe('hantverk-condition-report')
  await page
    .getByLabel('Read a report file in')
    .setInputFiles({ name: 'report.json', mimeType: 'application/json', buffer: readFileSync(file) })
  await expect(page.getByTestId('kept').filter({ hasText: 'read in' })).toBeVisible()
  await choose(page.getByLabel('Earlier'), { says: /^before/ })
  await page.getByRole('button', { name: 'Compare', exact: true }).click()
  await expect(page.getByTestId('comparison')).toContainText('As it was:')
})

test('a client answers about hardware by the link: nothing but replace, match or leave', async ({
  browser,
  watched,
}) => {
  const owner = await as(browser, 'ingrid', watched)
  await owner.goto('/pieces/16/parts')
  const plate = owner.locator('[data-test=item][data-mark=L1]')
  await plate.getByRole('button').first().click()
  await plate.getByLabel('Hole centres, mm').fill('0; 58')
  await plate.getByLabel('Holes, mm').fill('3.5')
  await plate.getByRole('button', { name: 'Does it fit?' }).click()
  await expect(plate.getByTestId('fit')).toContainText('52 mm apart here, 58 mm on the new fitting')
  await plate.getByLabel('Your words to the client').fill('The lock plate is not the first one.')
  await plate.getByRole('button', { name: 'Ask the client' }).click()
  const client = watched(await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage())
  await client.goto(await linkTo('rut@', 'lock plate'))
  await expect(client.getByTestId('item-question')).toContainText('Lock plate does not match the others')
  await expect(client.getByTestId('picture').locator('circle')).toHaveCount(2)
  await expect(client.getByRole('radio')).toHaveCount(4)
  await expect(client.getByLabel(/Leave it as it is/)).toHaveCount(1)
  await answerAs(client, 'Rut Havberg', 2)
  await expect(client.getByTestId('state')).toBeVisible()
  await expect(plate).toContainText('leave')
})

test('several photographs at once, upright, paired with a slider', async ({ browser, watched }) => {
  const { default: sharp } = await import('sharp')
  const picture = (background: string) =>
    sharp({ create: { width: 60, height: 30, channels: 3, background } })
      .withMetadata({ orientation: 6 })
      .jpeg()
      .toBuffer()
  const page = await as(browser, 'emil', watched)
  await page.goto('/pieces/15/photographs')
  await expect(page.getByTestId('photograph')).toHaveCount(1)
  await page.getByLabel('Add photographs').setInputFiles([
    { name: 'a.jpg', mimeType: 'image/jpeg', buffer: await picture('#842') },
    { name: 'b.jpg', mimeType: 'image/jpeg', buffer: await picture('#ca6') },
    { name: 'c.heic', mimeType: 'image/heic', buffer: Buffer.from('no picture') },
  ])
  await expect(page.getByTestId('photograph')).toHaveCount(3)
  await expect(page.getByTestId('note')).toContainText('Not taken: c.heic')
  await expect(page.getByTestId('photograph').nth(1)).toContainText('30 × 60')
  await page.getByTestId('photograph').nth(2).getByRole('button', { name: 'Pair with an earlier one' }).click()
  await page.getByTestId('photograph').nth(1).getByRole('button', { name: 'This is the one before' }).click()
  const slider = page.getByTestId('pair').getByRole('slider')
  await slider.focus()
  for (let i = 0; i < 10; i++) await page.keyboard.press('ArrowRight')
  await expect(page.getByTestId('pair').getByRole('img', { name: 'before' })).toHaveCSS(
    'clip-path',
    'inset(0px 40% 0px 0px)',
  )
})

test('the judgement is tried on 5,000 made-up pieces without stopping the page', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.goto('/judgement')
  await expect(page.getByRole('status').filter({ hasText: '%' })).toBeVisible()
  await expect(page.getByTestId('judgement')).toContainText('as advised', { timeout: 90_000 })
  await expect(page.getByTestId('judgement').locator('canvas')).toBeVisible()
})

test('a pen draws, and the hand that rests beside it does not', async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched, { hasTouch: true })
  await openFace(page, 15)
  await page.getByRole('button', { name: 'peeling', exact: true }).click()
  const [a, b, palm] = [await at(board(page), 600, 20), await at(board(page), 800, 90), await at(board(page), 300, 110)]
  const before = (await examOf(page, 15)).findings.length
  const line = await page.context().newCDPSession(page)
  const pen = (type: 'mousePressed' | 'mouseMoved' | 'mouseReleased', { x, y }: { x: number; y: number }) =>
    line.send('Input.dispatchMouseEvent', { type, x, y, button: 'left', buttons: 1, pointerType: 'pen', clickCount: 1 })
  await pen('mouseMoved', a)
  await line.send('Input.dispatchTouchEvent', { type: 'touchStart', touchPoints: [{ ...palm, id: 7 }] })
  await pen('mousePressed', a)
  for (const part of [0.3, 0.6, 1])
    await pen('mouseMoved', { x: a.x + (b.x - a.x) * part, y: a.y + (b.y - a.y) * part })
  await pen('mouseReleased', b)
  await line.send('Input.dispatchTouchEvent', { type: 'touchEnd', touchPoints: [] })
  await expect(page.getByTestId('detail')).toContainText(/\d+ × \d+ mm/)
  const drawn = await newest(page, 15)
  expect((await examOf(page, 15)).findings.length).toBe(before + 1)
  expect(Math.abs(drawn.place.x_mm - 600)).toBeLessThan(6)
  expect(Math.abs(drawn.place.x2_mm - 800)).toBeLessThan(6)
})
