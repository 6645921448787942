import { expect } from '@playwright/test'
import { as, choose, opened, step, test, write } from './page'

type Shop = Parameters<typeof write>[0]
/** A made-up piece of so many faces with a route, on its surface. */
async function piece(page: Shop, faces = 2): Promise<number> {
  const reply = await write(page, 'post', '/api/pieces', {
    name: 'Trial board',
    note: '',
    client: { name: 'Trial client', email: 'trial@example.invalid', phone: '' },
    use: 'daily',
    tone: 'same',
    sheen: 'satin',
    age: 'keep',
    dueOn: null,
    period: '1925-1960',
    refinished: 'no',
    keepPatina: false,
    lead: 'no',
    parts: Array.from({ length: faces }, (_, i) => ({
      name: `board ${i + 1}`,
      scope: 'refinish',
      faces: [
        {
          name: 'top',
          rank: i ? 'secondary' : 'show',
          shape: 'flat',
          orientation: 'horizontal',
          length: '600',
          width: '400',
          count: 1,
          species: i % 2 ? 'pine' : 'oak',
          substrate: 'solid',
          veneer: '',
        },
      ],
    })),
  })
  const made = (await reply.json()) as { id: number }
  await write(page, 'put', `/api/pieces/${made.id}/choice`, {
    route: 'strip-chemical',
    finish: 'oil-polyurethane',
    colour: 'none',
    conditioner: 'none',
    rowVersion: 1,
  })
  await page.goto(`/pieces/${made.id}/surface`)
  await expect(page.getByTestId('surface')).toBeVisible()
  return made.id
}
/** Opens what may be put in at a boundary: the first from the top, or the last, on the wood. */
async function touch(page: Shop, which: 'first' | 'last', how: 'click' | 'tap' = 'click') {
  const boundary = page.getByTestId('boundary')[which]()
  await expect(async () => {
    if ((await boundary.getAttribute('aria-expanded')) !== 'true') await boundary[how]()
    await expect(page.getByTestId('offers')).toBeVisible({ timeout: 1500 })
  }).toPass({ timeout: 20_000 })
}
const rows = (page: Shop) => page.getByTestId('layer').evaluateAll(all => all.map(row => row.getAttribute('data-act')))

test('a surface is composed by mouse: put in, changed, taken back, taken; the plan follows', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  const id = await piece(page)
  expect(await rows(page)).toEqual(['coat'])
  await touch(page, 'last')
  await page.getByTestId('offers').locator('[data-offer=pigment-stain]').click()
  await expect.poll(() => rows(page)).toEqual(['coat', 'stain'])
  await page.getByTestId('layer').filter({ hasText: 'olyurethane' }).getByTestId('choose').click()
  await page.getByLabel(/^Coats/).fill('5')
  await expect(page.getByTestId('surface').locator('rect.layer[data-side=planned]')).toHaveCount(5)
  await page.getByTestId('undo').click()
  await expect(page.getByTestId('surface').locator('rect.layer[data-side=planned]')).toHaveCount(3)
  // what cannot lie there says why, and may be put in all the same
  await touch(page, 'first')
  await page.getByRole('button', { name: 'What speaks against the others' }).click()
  await page.getByTestId('offers').locator('[data-offer=water-dye]').click()
  await expect(page.locator('.verdict-stop').first()).toContainText('lies on the wood')
  await page.getByRole('button', { name: 'Take out' }).click()
  await page.getByTestId('take-surface').click()
  await expect(page.getByTestId('take-surface')).toBeDisabled()
  await page.goto(`/pieces/${id}/plan`)
  await expect(step(page, 'stain-1')).toBeVisible()
})

test('layers are moved by keys and by dragging; on a touch screen they are put in by touch', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched, { hasTouch: true })
  await piece(page)
  await touch(page, 'first', 'tap')
  await page.getByTestId('offers').locator('[data-offer=paste-wax]').tap()
  await expect.poll(() => rows(page)).toEqual(['wax', 'coat'])
  const grip = page.getByTestId('layer').filter({ hasText: 'wax' }).locator('.grip')
  await grip.focus()
  await page.keyboard.press('ArrowDown')
  await expect.poll(() => rows(page)).toEqual(['coat', 'wax'])
  await expect(page.locator('.verdict-stop').first()).toBeVisible()
  const [from, to] = [await grip.boundingBox(), await page.getByTestId('layer').first().boundingBox()]
  await page.mouse.move(from!.x + 10, from!.y + 20)
  await page.mouse.down()
  await page.mouse.move(from!.x + 10, from!.y - 10, { steps: 4 })
  await page.mouse.move(from!.x + 10, to!.y + 6, { steps: 10 })
  await page.mouse.up()
  await expect.poll(() => rows(page)).toEqual(['wax', 'coat'])
})

test('changes of the plan by hand stay when the surface is taken again, and one whose layer goes is named', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  const id = await piece(page)
  await page.goto(`/pieces/${id}/plan`)
  const coat = await opened(page, 'coat-2')
  await coat.getByLabel('Minutes').fill('44')
  await coat.getByRole('button', { name: 'Save' }).click()
  await expect(coat).toContainText('typed by hand')
  await page.goto(`/pieces/${id}/surface`)
  await touch(page, 'last')
  await page.getByTestId('offers').locator('[data-offer=gel-stain]').click()
  await page.getByTestId('take-surface').click()
  await expect(page.getByTestId('take-surface')).toBeDisabled()
  await page.goto(`/pieces/${id}/plan`)
  await expect(step(page, 'coat-2')).toContainText('44 min')
  await page.goto(`/pieces/${id}/surface`)
  await page.getByTestId('layer').filter({ hasText: 'olyurethane' }).getByTestId('choose').click()
  await page.getByRole('button', { name: 'Take out' }).click()
  await page.getByTestId('take-surface').click()
  await expect(page.getByRole('status').filter({ hasText: 'Gone with their steps' })).toBeVisible()
})

test('a surface known by name is found, laid and kept under another; a change by hand can be left', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  const id = await piece(page)
  await page.goto(`/pieces/${id}/plan`)
  const wash = await opened(page, 'wash')
  await wash.getByLabel('Minutes').fill('71')
  await wash.getByRole('button', { name: 'Save' }).click()
  await expect(wash).toContainText('typed by hand')
  await page.goto(`/pieces/${id}/surface`)
  await page.getByTestId('known').click()
  const known = page.getByTestId('known-surfaces')
  await known.getByLabel(/^Find by/).fill('wiping rag')
  await expect(known.locator('[data-known]')).toHaveCount(1)
  await known.locator('[data-known]').click()
  await expect.poll(() => rows(page)).toEqual(['coat'])
  await expect(page.getByTestId('hand')).toContainText('Wash')
  await page.getByTestId('hand').getByRole('switch').click()
  await page.getByTestId('known').click()
  await known.getByLabel(/^Keep what is composed/).fill('Boards of the trial')
  await known.getByRole('button', { name: 'Keep', exact: true }).click()
  await expect(known.locator('[data-known="Boards of the trial"]')).toBeVisible()
  await page.getByTestId('take-surface').click()
  await expect(page.getByTestId('take-surface')).toBeDisabled()
  await page.goto(`/pieces/${id}/plan`)
  await expect(step(page, 'wash')).not.toContainText('71 min')
  await page.goto(`/pieces/${id}/surface`)
  await page.getByTestId('known').click()
  const own = known.locator('li', { hasText: 'Boards of the trial' })
  await own.getByRole('button', { name: 'Forget' }).click()
  await expect(own).toHaveCount(0)
})

test('a product by its label: entered under Store, taken by a layer, its coats planned', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  const id = await piece(page)
  const name = `Trial oil varnish ${id}`
  await write(page, 'post', '/api/products', { name, class: 'oil-polyurethane', priceMinor: 30_000 })
  await page.goto('/store')
  const line = page.getByTestId('product').filter({ hasText: name })
  await line.getByRole('button', { name: 'Label' }).click()
  await line.getByLabel(/^Coats/).fill('6')
  await line.getByLabel(/^Solids/).fill('250')
  await line.getByRole('button', { name: 'Save the label' }).click()
  await expect(line.getByText('Solids is too large.')).toBeVisible()
  await line.getByLabel(/^Solids/).fill('50')
  await line.getByRole('button', { name: 'Save the label' }).click()
  await expect(line.getByRole('button', { name: 'Label: 2 figures' })).toBeVisible()
  await page.goto(`/pieces/${id}/surface`)
  await page.getByTestId('layer').getByTestId('choose').click()
  await choose(page.getByLabel('Product'), { says: name })
  await expect(page.getByTestId('surface').locator('rect.layer[data-side=planned]')).toHaveCount(6)
})

test('composing on a piece of twelve faces is drawn within 150 ms of a touch, at a quarter of the speed', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'tove', watched)
  await piece(page, 12)
  await page.getByTestId('layer').getByTestId('choose').click()
  const cdp = await page.context().newCDPSession(page)
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 4 })
  const times: number[] = []
  for (const coats of ['4', '5', '6', '5', '4']) {
    times.push(
      await page.evaluate(async value => {
        const input = document.querySelector<HTMLInputElement>('[data-test=layer-fields] input[type=number]')!
        const drawn = () => document.querySelectorAll('[data-test=surface] rect.layer[data-side=planned]').length
        const start = performance.now()
        input.value = value
        input.dispatchEvent(new Event('input', { bubbles: true }))
        while (drawn() !== Number(value)) await new Promise(requestAnimationFrame)
        return performance.now() - start
      }, coats),
    )
  }
  await cdp.send('Emulation.setCPUThrottlingRate', { rate: 1 })
  expect(times.sort((a, b) => a - b)[2]).toBeLessThan(150)
})
