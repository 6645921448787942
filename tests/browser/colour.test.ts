import { connect } from 'node:net'
import { expect } from '@playwright/test'
import { clearCoat, colouredInner, readOf, type Spectrum, strengthOf } from '../../core/colour'
import { numbered, WOODS } from '../../demo/colours'
import { answerAs, as, barriers, choose, linkTo, test, write } from './page'

const CLEAR = { clear: clearCoat('waterborne-polyurethane'), gloss: 'excluded' as const }
/** Lays a sample under the simulated meter. */
const lay = (s: Spectrum) =>
  new Promise<void>((resolve, reject) => {
    const line = connect(Number(process.env.HANTVERK_METER_PORT), '127.0.0.1')
    line
      .setEncoding('utf8')
      .on('error', reject)
      .on('data', () => {
        line.destroy()
        resolve()
      })
    line.on('connect', () => line.write(`SAMPLE ${s.map(r => r.toFixed(5)).join(',')}\r\n`))
  })
const brown = numbered.find(c => c.name.includes('walnut brown'))!
const yellow = numbered.find(c => c.name.includes('lemon'))!
/** What two dyes make of beech, finished. */
const onBeech = (b: number, y: number) =>
  readOf(
    colouredInner(
      WOODS.beech,
      [brown, yellow],
      [b, y].map(pct => strengthOf(pct, 2, 'normal')),
    ),
    CLEAR,
  )

test('measure, search, pour, try, correct, label: from an old chair to a pot', async ({ browser, watched }) => {
  const emil = await as(browser, 'emil', watched)
  await emil.goto('/pieces/19/colour')
  await emil.getByText('A new reading').click()
  const measure = async (name: string, role: string, s: Spectrum, finished: boolean) => {
    await lay(s)
    await emil.getByLabel('What is read').fill(name)
    await choose(emil.getByLabel('It is', { exact: true }), role)
    await choose(emil.getByLabel('Surface', { exact: true }), finished ? 'waterborne-polyurethane' : '')
    await emil.getByRole('button', { name: 'Measure' }).click()
    await expect(emil.getByText(`${name}: L*`)).toBeVisible()
  }
  await measure('Sixth seat, bare', 'wood', WOODS.beech, false)
  await measure('Old seat, other spot', 'target', onBeech(16, 6), true)

  await emil.getByRole('link', { name: 'Match a colour' }).click()
  await expect(emil.getByLabel('Match to').first()).toHaveValue(/Old seat, other spot/)
  await expect(emil.getByLabel('Colour coats')).toHaveValue('2')
  await expect(emil.getByRole('button', { name: 'Lamp' })).toContainText("the client's room")
  await emil.getByRole('button', { name: 'Find a recipe' }).click()
  await expect(emil.getByTestId('verdict')).toContainText(/hard to see|passes side by side/)
  await expect(emil.getByRole('button', { name: 'Find a recipe' })).toBeVisible()
  await expect(emil.getByTestId('recipe')).toContainText('Water dye')
  const under = await emil.getByTestId('swatches').first().locator('[data-hex]').last().getAttribute('data-hex')
  await emil.getByRole('button', { name: 'Lamp' }).click()
  await expect(emil.getByTestId('swatches').first().locator('[data-hex]').last()).not.toHaveAttribute(
    'data-hex',
    under!,
  )
  await emil.getByRole('button', { name: 'Daylight', exact: true }).click()
  await emil.getByLabel('Name of the recipe').fill('Sixth seat')
  await emil.getByRole('button', { name: 'Keep this recipe' }).click()

  const recipe = emil.getByTestId('recipe-line').filter({ hasText: 'Sixth seat' })
  await expect(recipe).toContainText('Five chairs')
  await recipe.getByLabel('Grams in all').fill('9000')
  await expect(recipe.getByTestId('short').first()).toContainText('Not enough in the store')
  await recipe.getByLabel('Grams in all').fill('60')
  await expect(recipe.getByTestId('short')).toHaveCount(0)
  await recipe.getByRole('button', { name: 'Begin the pot' }).click()

  const pour = emil.getByTestId('pour')
  await expect(pour).toHaveAttribute('data-state', /empty|there/)
  await pour.getByRole('button', { name: 'Pour (simulated)' }).click()
  await expect(pour).toHaveAttribute('data-state', /there|over/, { timeout: 60_000 })
  await pour.getByRole('button', { name: 'It is in' }).click()
  await expect(emil.getByTestId('line').first()).not.toContainText('–')
  for (const i of [1, 2, 3]) {
    const line = emil.getByTestId('line').nth(i)
    if (!(await line.isVisible())) break
    const wanted = /([\d.]+) g/.exec(await line.innerText())![1]!
    await line.click()
    // one is poured too far: the rest is scaled up
    await pour.getByLabel('Or type the weight').fill(i === 1 ? String(Number(wanted) * 1.2) : wanted)
    await pour.getByRole('button', { name: 'It is in' }).click()
    await expect(line).not.toContainText('–')
  }
  await emil.getByTestId('over').getByRole('button', { name: 'Scale the rest up' }).click()
  await expect(emil.getByTestId('over')).toHaveCount(0)
  for (let i = 0; i < 4 && (await pour.isVisible()); i++) {
    const text = await emil
      .getByTestId('line')
      .filter({ has: emil.locator('strong') })
      .evaluateAll(rows => rows.map(r => (r as HTMLElement).innerText))
    const short = text.findIndex(x => {
      const [, got = '0', wanted = '0'] = /([\d.]+) \/ ([\d.]+)/.exec(x) ?? []
      return Number(got) < Number(wanted) * 0.985
    })
    if (short < 0) break
    const row = emil.getByTestId('line').nth(short)
    await row.click()
    const wanted = /\/ ([\d.]+)/.exec(await row.innerText())![1]!
    await pour.getByLabel('Or type the weight').fill(wanted)
    await pour.getByRole('button', { name: 'It is in' }).click()
    await expect(row).toContainText(`${Number(wanted).toFixed(1)} / `)
  }
  await emil.getByRole('button', { name: 'Mixed', exact: true }).click()

  await expect(emil.getByRole('heading', { name: 'Read a band of this pot' })).toBeVisible()
  await lay(onBeech(13, 5))
  await emil.getByRole('button', { name: 'Measure' }).click()
  await expect(emil.getByTestId('tries')).toContainText('Try 1')
  await emil.getByRole('button', { name: 'What to add' }).click()
  await expect(emil.getByTestId('advice')).toContainText(/^Add [\d.]+ g/)
  const label = await emil.request.get(`/api/batches/${/mixing\/(\d+)/.exec(emil.url())![1]}/label`)
  expect((await label.body()).subarray(0, 5).toString()).toBe('%PDF-')
})

test('a match that only daylight joins is told, and a lighter target asks for bleach', async ({ browser, watched }) => {
  const tove = await as(browser, 'tove', watched)
  await tove.goto('/colour?piece=20')
  await expect(tove.getByLabel('Match to').first()).toHaveValue(/Drawer front/)
  for (const light of ['Lamp', 'LED, warm']) await tove.locator('fieldset').first().getByLabel(light).uncheck()
  await tove.getByRole('button', { name: 'Find a recipe' }).click()
  await expect(tove.getByRole('button', { name: 'Find a recipe' })).toBeVisible()
  await expect(tove.getByTestId('verdict')).toContainText(/hard to see|passes/)
  await expect(tove.getByTestId('breaks')).toContainText('Lamp')
  // somebody else's reading comes in, and what was found stays
  await write(tove, 'post', '/api/readings/measure', { name: 'Meanwhile', role: 'wood', species: 'birch' })
  await tove.getByLabel('On this wood').first().click()
  await expect(tove.getByRole('option', { name: 'Meanwhile' })).toBeVisible()
  await tove.keyboard.press('Escape')
  await expect(tove.getByTestId('verdict')).toBeVisible()
  await tove.goto('/colour?piece=21')
  await expect(tove.getByLabel('Match to').first()).toHaveValue(/Oak panelling/)
  await tove.getByRole('button', { name: 'Find a recipe' }).click()
  await expect(tove.getByTestId('reasons')).toContainText('bleach')
  await tove.getByText('Sapwood, bleach, which colourants').click()
  await tove.getByLabel('Bleach the wood first').check()
  await tove.getByRole('button', { name: 'Find a recipe' }).click()
  await expect(tove.getByTestId('verdict')).toContainText(/hard to see|passes/)
})

test('the panel is read in the order of the plan, approved under finish only, and teaches', async ({
  browser,
  watched,
}) => {
  const tove = await as(browser, 'tove', watched)
  await tove.goto('/pieces/19/colour')
  await expect(tove.getByTestId('approval')).toContainText('Inga-Lill Fors')
  const states = tove.getByTestId('state')
  await expect(states.first()).toContainText('Bare wood')
  await states.nth(1).click()
  const detail = tove.getByTestId('band-detail')
  await expect(detail).toContainText('P180')
  await detail.getByRole('button', { name: 'Approve' }).first().click()
  await expect(tove.getByText('This band has no finish on it')).toBeVisible()
  await detail.getByLabel('Left on, min').fill('5')
  await detail.getByRole('button', { name: 'Add the band' }).click()
  await expect(detail).toContainText('5 min')
  await tove.goto('/colour/colourants')
  await tove.getByRole('button', { name: 'Try on this wood' }).click()
  await expect(tove.getByTestId('learnt')).toContainText('→')
  await tove.getByRole('button', { name: 'Keep what was learnt' }).click()
  await expect(tove.getByText(/learnt on beech from/).first()).toBeVisible()
})

test('a client sees the finished band beside its target and approves that band by the link', async ({
  browser,
  watched,
}) => {
  const tove = await as(browser, 'tove', watched)
  await tove.goto('/pieces/19/colour')
  await tove.getByTestId('state').last().click()
  const detail = tove.getByTestId('band-detail')
  await choose(detail.getByLabel('Reading', { exact: true }), { says: /Seats, try 2/ })
  await detail.getByRole('button', { name: 'Add the band' }).click()
  await detail.getByRole('button', { name: 'Ask the client' }).click()
  await expect(tove.getByText('The client is asked')).toBeVisible()
  const client = watched(await (await browser.newContext({ viewport: { width: 390, height: 844 } })).newPage())
  await client.goto(await linkTo('ingalill@', 'under its finish'))
  await expect(client.getByRole('heading', { name: /Is this the colour/ })).toBeVisible()
  await expect(client.getByTestId('picture').locator('rect')).toHaveCount(1 + 2 * 5)
  await expect(client.getByText('A screen shows colour only roughly')).toBeVisible()
  expect(await barriers(client)).toEqual([])
  await answerAs(client, 'Inga-Lill Fors', 0)
  await expect(client.getByTestId('state')).toContainText('Inga-Lill Fors')
  await tove.goto('/pieces/19/client')
  await expect(tove.getByTestId('answer').first()).toContainText('Is this the colour? Band')
  await tove.goto('/pieces/19/colour')
  await expect(tove.getByTestId('approval')).toContainText('under Daylight')
})

test('files come in and go out, and a broken one names its line', async ({ browser, watched }) => {
  const emil = await as(browser, 'emil', watched)
  await emil.goto('/colour/readings')
  await emil.getByText('Type in, or take a file').click()
  const give = (text: string) =>
    emil
      .locator('input[type=file]')
      .setInputFiles({ name: 'readings.txt', mimeType: 'text/plain', buffer: Buffer.from(text) })
  await give(
    'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_NAME LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\n' +
      'BEGIN_DATA\n"Door panel" 41 x 20\nEND_DATA\n',
  )
  await expect(emil.getByText('Line 6: "x" is no number.')).toBeVisible()
  await give(
    'CGATS.17\nBEGIN_DATA_FORMAT\nSAMPLE_NAME LAB_L LAB_A LAB_B\nEND_DATA_FORMAT\n' +
      'BEGIN_DATA\n"Door panel" 41 12 20\nEND_DATA\n',
  )
  await expect(emil.getByTestId('reading').filter({ hasText: 'Door panel' })).toContainText('from L*a*b* alone')
  expect(await (await emil.request.get('/api/readings/export?format=cgats')).text()).toContain('SPECTRAL_NM400')
})

test('mixtures are worked out while typing; a pot shows on Now', async ({ browser, watched }) => {
  const emil = await as(browser, 'emil', watched)
  await expect(emil.getByTestId('pot-window')).toContainText('Two-part urethane')
  await emil.goto('/mixing')
  await expect(emil.getByTestId('pot').first()).toBeVisible()
  const form = emil.getByTestId('mix-form')
  await form.getByRole('button', { name: 'Bleach 1:1' }).click()
  await expect(form.getByTestId('caution')).toContainText('never closed')
  await form.getByRole('button', { name: 'Sealer, catalyst, reducer' }).click()
  await form.getByLabel('Wanted', { exact: true }).fill('137.5')
  await expect(form.getByTestId('weighed').nth(2)).toContainText('22.8 g')
  await form.getByLabel('Balance step, g').fill('5')
  await expect(form).toContainText('too coarse')
  await expect(emil.getByTestId('flatting')).toContainText('33 % flatting')
  await expect(emil.getByTestId('recut')).toContainText('411 ml alcohol')
  await emil.getByRole('button', { name: 'Take it into the mixture' }).click()
  await expect(form.getByLabel('Ingredient 4')).toHaveValue('Flatting base')
  await emil.getByRole('button', { name: 'Make a pot of it' }).last().click()
  await expect(form.getByLabel('Name of the pot')).toHaveValue('Shellac, 2-lb cut')
  await expect(form.getByTestId('caution')).toContainText('Solvent vapour')
  await form.getByRole('button', { name: 'Sealer, catalyst, reducer' }).click()
  await form.getByLabel('Name of the pot').fill('Sealer for the shelf')
  await form.getByRole('button', { name: 'Begin the pot' }).click()
  await expect(emil.getByRole('heading', { name: /Sealer for the shelf/ })).toBeVisible()
  await expect(emil.getByTestId('caution')).toContainText('Solvent vapour')
})

test('colour and mixing can be read by everybody', async ({ browser, watched }) => {
  const tove = await as(browser, 'tove', watched)
  for (const path of [
    '/colour',
    '/colour/recipes',
    '/colour/readings',
    '/colour/colourants',
    '/mixing',
    '/mixing/1',
    '/pieces/19/colour',
  ]) {
    await tove.goto(path)
    await expect(tove.getByRole('navigation').nth(1)).toBeVisible()
    await tove.waitForTimeout(600)
    expect(await barriers(tove)).toEqual([])
  }
})
