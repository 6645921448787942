// The last file: its pieces are worked on for days, and the clock of the shop goes with them.
import { expect, type Page } from '@playwright/test'
import { as, choose, serverNow, setClock, step, test, write } from './page'

interface Shown {
  steps: {
    id: number
    kind: string
    key: string
    state: string
    rowVersion: number
    attended_min: number
    gate: object | null
    start: { may: boolean; opens_ms: number | null }
  }[]
}
const planOf = async (page: Page, id: number) =>
  (await (await page.request.get(`/api/pieces/${id}/plan`)).json()) as Shown

/** A board in varnish with a plan that its client has agreed to. */
async function agreed(page: Page, route: string, length = '1800') {
  const face = {
    ...{ name: 'top', rank: 'show', shape: 'flat', orientation: 'horizontal', length, width: '900' },
    ...{ count: 1, species: 'oak', substrate: 'solid', veneer: '' },
  }
  const made = await write(page, 'post', '/api/pieces', {
    ...{ name: 'Board with marks', note: '', client: { name: 'Trial client', email: '', phone: '1' } },
    ...{ use: 'daily', tone: 'same', sheen: 'satin', age: 'keep', dueOn: null },
    ...{ period: 'after-1990', refinished: 'no', keepPatina: false, lead: 'no' },
    parts: [{ name: 'board', scope: 'refinish', faces: [face, { ...face, name: 'edge', width: '60' }] }],
  })
  const { id } = (await made.json()) as { id: number }
  for (const [name, result] of [
    ['lacquer-thinner-drop', 'wrinkles'],
    ['scrape', 'curls'],
  ])
    await write(page, 'post', `/api/pieces/${id}/tests`, { test: name, result, group: 'A', layer: 1, spot: '' })
  const picks = { finish: 'oil-polyurethane', colour: 'none', conditioner: 'auto' }
  const taken = await write(page, 'put', `/api/pieces/${id}/choice`, { route, ...picks, rowVersion: 1 })
  expect(taken.status(), await taken.text()).toBe(200)
  const asked = await write(page, 'post', `/api/pieces/${id}/approvals`, { words: 'Please', days: 14 })
  const { id: question } = (await asked.json()) as { id: number }
  await write(page, 'post', `/api/approvals/${question}/answer`, {
    ...{ replies: [{ no: 1, reply: 0 }], via: 'phone', name: 'Trial client', says: '' },
  })
  return id
}

/** Works on until a step of this kind may start; waits are passed over, nights an hour at a time. */
async function workedTo(page: Page, id: number, kind: string) {
  for (let tries = 0; tries < 400; tries++) {
    const { steps } = await planOf(page, id)
    const next = steps.find(s => s.state === 'planned')!
    if (next.kind === kind && next.start.may) return next
    const now = (await serverNow(page)).getTime()
    const at = new Date(next.start.may ? now + 60_000 : Math.max(now + 3_600_000, next.start.opens_ms ?? 0))
    await setClock(page, at)
    await write(page, 'post', '/api/air', { temperature_C: 21, rh_pct: 45 })
    if (!next.start.may || next.kind === kind) continue
    const command = { stepId: next.id, happenedAt: at.toISOString() }
    await write(page, 'post', '/api/bench', { kind: 'start', ...command, rowVersion: next.rowVersion })
    await write(page, 'post', '/api/bench', { kind: 'finish', ...command, rowVersion: next.rowVersion + 1 })
  }
  throw new Error(`${kind} was not reached`)
}

test('a ring that is found later changes the plan by a touch, and goes to another face', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'ingrid', watched)
  const id = await agreed(page, 'strip-chemical')
  const exam = (await (await page.request.get(`/api/pieces/${id}/examination`)).json()) as { faces: { id: number }[] }
  await write(page, 'post', `/api/pieces/${id}/findings`, {
    ...{ faceId: exam.faces[0]!.id, kind: 'black-ring', grade: 3, wish: 'mend', note: '' },
    place: { shape: 'area', copy: 1, x_mm: 200, y_mm: 200, x2_mm: 320, y2_mm: 320, size_mm: 0 },
  })
  await page.goto(`/pieces/${id}/plan`)
  await expect(page.getByTestId('found')).toContainText(/Oxalic acid on the marks: 1 × black ring, about \d+ cm²/)
  await page.getByTestId('take-found').click()
  await expect(page.getByTestId('found')).toHaveCount(0)
  await expect(step(page, 'bleach')).toContainText('1 × black ring')
  await expect(step(page, 'bleach')).toContainText(/ml/)
  await page.goto(`/pieces/${id}`)
  await page.getByTestId('finding').getByText('black water ring').click()
  await choose(page.getByTestId('detail').getByLabel('On', { exact: true }), { says: /edge/ })
  await expect(page.getByRole('heading', { name: /Now draw|black water ring/ }).first()).toBeVisible()
  const moved = async () => {
    const { findings } = (await (await page.request.get(`/api/pieces/${id}/examination`)).json()) as {
      findings: { faceId: number; place: { shape: string } }[]
    }
    return [findings[0]!.faceId, findings[0]!.place.shape]
  }
  await expect.poll(moved).toEqual([exam.faces[1]!.id, 'unplaced'])
})

test('stripper in sections: on and off by a touch each, the first that closes is the clock', async ({
  browser,
  watched,
}) => {
  const page = await as(browser, 'ingrid', watched)
  const id = await agreed(page, 'strip-chemical')
  await workedTo(page, id, 'strip')
  await page.goto(`/pieces/${id}/plan`)
  await step(page, 'strip').getByRole('button', { name: 'Start', exact: true }).click()
  await step(page, 'strip')
    .getByRole('button', { name: /^Section 2 of \d+ on$/ })
    .click()
  await expect(step(page, 'strip').getByRole('button', { name: /^Section 3 of \d+ on$/ })).toBeVisible()
  await page.getByRole('button', { name: 'Take back' }).first().click()
  await expect(step(page, 'strip').getByRole('button', { name: /^Section 2 of \d+ on$/ })).toBeVisible()
  await setClock(page, new Date((await serverNow(page)).getTime() + 16 * 60_000))
  await page.goto('/')
  const line = page.getByTestId('running').filter({ hasText: 'Board with marks' })
  await expect(line.getByTestId('section-clock')).toContainText(/Section 1: off between \d\d:\d\d and \d\d:\d\d/)
  await page.goto(`/pieces/${id}/plan`)
  await step(page, 'scrape').getByRole('button', { name: 'Start', exact: true }).click()
  await step(page, 'scrape')
    .getByRole('button', { name: /^Section 1 of \d+ off$/ })
    .click()
  await expect(step(page, 'scrape').getByTestId('section')).toHaveCount(0)
})

test('a gate that fails says what follows, wants a word, and is taken back', async ({ browser, watched }) => {
  test.slow()
  const page = await as(browser, 'ingrid', watched)
  const id = await agreed(page, 'level-barrier-recoat', '600')
  await workedTo(page, id, 'gate')
  await page.goto(`/pieces/${id}/plan`)
  await step(page, 'gate').getByRole('button', { name: 'Start', exact: true }).click()
  await step(page, 'gate').getByRole('button', { name: 'Done', exact: true }).click()
  const dialog = page.getByRole('dialog')
  await dialog.getByRole('button', { name: 'Failed' }).click()
  await expect(dialog.getByTestId('failed')).toContainText('Strip with stripper')
  await expect(dialog.getByRole('button', { name: 'Done', exact: true })).toBeDisabled()
  await dialog.getByTestId('seen').fill('halos round the runs')
  await dialog.getByRole('button', { name: 'Done', exact: true }).click()
  await expect(step(page, 'f-strip')).toBeVisible()
  await page.getByRole('button', { name: 'Take back' }).first().click()
  await expect(step(page, 'f-strip')).toHaveCount(0)
  await expect(step(page, 'scuff')).toBeVisible()
})

/** Counts the tones that a page sounds. */
const COUNT_TONES = () => {
  const counted = window as Window & { tones?: number }
  counted.tones = 0
  const sound = AudioContext.prototype.createOscillator
  AudioContext.prototype.createOscillator = function (this: AudioContext) {
    counted.tones! += 1
    return sound.call(this)
  }
}
const tones = (page: Page) => page.evaluate(() => (window as Window & { tones?: number }).tones ?? 0)

test('a day: put aside, handed on, an alarm that travels, a mis-tap taken back, left over night', async ({
  browser,
  watched,
}) => {
  test.slow()
  const owner = await as(browser, 'ingrid', watched)
  const id = await agreed(owner, 'strip-chemical')
  await workedTo(owner, id, 'strip')
  // a tablet of the shop: its owner makes it one and leaves; a finisher steps up by name and PIN
  const finisher = await as(browser, 'ingrid', watched)
  await finisher.goto('/shop?part=people')
  await finisher.getByLabel("The tablet's name").fill('Bench tablet')
  await finisher.getByRole('button', { name: 'Make this device a tablet of the shop' }).click()
  await expect(finisher.getByTestId('tablets')).toContainText('this device')
  await finisher.getByRole('banner').getByRole('button', { name: 'Change', exact: true }).click()
  await finisher.getByTestId('name').filter({ hasText: 'Emil' }).click()
  for (const figure of '2580') await finisher.getByRole('button', { name: figure, exact: true }).click()
  await finisher.getByRole('button', { name: 'In', exact: true }).click()
  await expect(finisher.getByRole('banner')).toContainText('Emil')
  const phone = await as(browser, 'tove', watched, { viewport: { width: 390, height: 780 } })
  const pages = [owner, finisher, phone]
  const inHand = (page: Page) => page.getByTestId('running').filter({ hasText: `${id} · Board with marks` })
  const onlyThis = async (page: Page) => {
    await inHand(page).getByRole('button', { name: 'Only Board with marks' }).click()
    await expect(page.getByTestId('only')).toContainText(`Only piece ${id}`)
  }
  await owner.goto(`/pieces/${id}/plan`)
  await step(owner, 'strip').getByRole('button', { name: 'Start', exact: true }).click()
  await expect(step(owner, 'strip')).toHaveAttribute('data-state', 'running')
  await owner.goto('/')
  for (const page of pages) await expect(inHand(page)).toContainText('Ingrid, since')
  await onlyThis(phone)
  await inHand(phone)
    .getByRole('button', { name: /More about/ })
    .click()
  await phone.getByRole('menuitem', { name: 'Put aside', exact: true }).click()
  await expect(inHand(owner)).toContainText('put aside at')
  await phone.getByTestId('note').getByRole('button', { name: 'Take back' }).click()
  await expect(inHand(owner)).toContainText('Ingrid, since')
  await inHand(owner)
    .getByRole('button', { name: /More about/ })
    .click()
  await owner.getByRole('menuitem', { name: 'Hand on, or help' }).click()
  await owner.getByRole('dialog').getByRole('listitem').filter({ hasText: 'Emil' }).getByText('Takes over').click()
  await expect(inHand(finisher)).toContainText('Emil, since')
  expect(await phone.evaluate(() => document.documentElement.scrollWidth)).toBeLessThanOrEqual(390)

  // what was laid must come off: it rings where it is in hand, two minutes later everywhere
  for (const page of pages) await page.addInitScript(COUNT_TONES)
  const read = (await (await owner.request.get('/api/now')).json()) as {
    windows: { pieceId: number; closes_ms: number | null; kind: string }[]
  }
  const closes_ms = read.windows.find(l => l.pieceId === id && l.kind === 'dwell')!.closes_ms!
  await setClock(owner, new Date(closes_ms - 9.8 * 60_000))
  for (const page of pages) {
    await page.reload()
    await page.getByTestId('clock').click()
  }
  const alarm = (page: Page) => page.getByTestId('alarm').filter({ hasText: `${id} Board with marks` })
  for (const page of pages) await expect(alarm(page)).toBeVisible()
  await expect.poll(() => tones(finisher)).toBeGreaterThan(0)
  expect(await tones(owner)).toBe(0)
  await setClock(owner, new Date(closes_ms - 7 * 60_000))
  await expect.poll(() => tones(owner), { timeout: 30_000 }).toBeGreaterThan(0)
  await alarm(owner).getByRole('button', { name: 'Ingrid has heard' }).click()
  await expect(alarm(finisher)).toContainText('Ingrid has heard')

  // the shop closes, and opens again
  const morning = new Date(closes_ms)
  do morning.setUTCDate(morning.getUTCDate() + 1)
  while ([0, 6].includes(morning.getUTCDay()))
  morning.setUTCHours(8, 0, 0, 0)
  await setClock(owner, morning)
  await owner.reload()
  await expect(inHand(owner).getByTestId('left')).toContainText('It was left in hand when the shop closed')
  await inHand(owner).getByRole('button', { name: 'It was put aside then' }).click()
  await expect(inHand(owner).getByTestId('left')).toHaveCount(0)
  await expect(inHand(owner)).toContainText('put aside at')
  await inHand(owner).getByRole('link').click()
  await expect(step(owner, 'strip').getByTestId('times')).toContainText(/Ingrid, .*Emil, /s)
})
