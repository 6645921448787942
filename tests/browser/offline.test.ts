/** Without a line: the device goes on by what it carries, and what was done goes in when the line is back. */
import { type Browser, expect, type Page } from '@playwright/test'
import sharp from 'sharp'
import { bringBack, takeAway } from '../standIns'
import { as, serverNow, setClock, test, write } from './page'

test.use({ serviceWorkers: 'allow' })

interface Line {
  stepId: number
  pieceId: number
  title: string
  product: string | null
}
interface Now {
  now_ms: number
  may: Line[]
  running: (Line & { started_ms: number; spells: { by: string }[] })[]
  late: { says: string; byName: number }[]
}
const now = async (page: Page) => (await (await page.request.get('/api/now')).json()) as Now
/** Its program is kept; on a slow machine that takes its time. */
const carried = (page: Page) =>
  page.waitForFunction(() => navigator.serviceWorker.controller !== null, null, { timeout: 120_000 })
/** A device whose program is kept, opened by somebody who signed in at another time. */
async function device(browser: Browser, login: string, watched: (p: Page) => Page) {
  const page = await as(browser, login, watched)
  await carried(page)
  return page
}
const cut = (page: Page) => page.context().setOffline(true)
const mend = (page: Page) => page.context().setOffline(false)
const away = (page: Page) => expect(page.getByTestId('away')).toBeVisible()
const rowOf = (page: Page, { title, pieceId }: Line) =>
  page
    .getByTestId('may')
    .filter({ hasText: title })
    .filter({ hasText: `${pieceId} ·` })
    .first()
/** Steps that stand in "may start" at once, each of another piece. */
async function startable(page: Page): Promise<Line[]> {
  const { may } = await now(page)
  const shown = await page.getByTestId('may').allInnerTexts()
  return may.filter(l => !l.product && shown.some(text => text.includes(l.title) && text.includes(`${l.pieceId} ·`)))
}
const started = async (page: Page, { stepId }: Line) => (await now(page)).running.find(r => r.stepId === stepId)
/** Afterwards the shop is as it was: a step that somebody changed meanwhile is read and taken back anew. */
async function undo(page: Page, { stepId }: Line) {
  const runs = async () => {
    const { running } = (await (await page.request.get('/api/now')).json()) as {
      running: (Line & { rowVersion: number })[]
    }
    return running.find(r => r.stepId === stepId)
  }
  expect(await runs()).toBeTruthy()
  await expect
    .poll(async () => {
      const line = await runs()
      if (line)
        await write(page, 'post', '/api/bench', {
          ...{ kind: 'undo', stepId, rowVersion: line.rowVersion },
          happenedAt: (await serverNow(page)).toISOString(),
        })
      return line
    })
    .toBeUndefined()
}

test('an hour without a line: loaded anew, worked, and all goes in with its own times', async ({
  browser,
  watched,
}) => {
  const page = await device(browser, 'tove', watched)
  const owner = await as(browser, 'ingrid', watched)
  const [line] = await startable(page)
  const from = await serverNow(owner)
  await page.clock.install()
  await cut(page)
  await page.reload()
  await away(page)
  await rowOf(page, line!).getByRole('button', { name: 'Start', exact: true }).click()
  const row = page
    .getByTestId('running')
    .filter({ hasText: line!.title })
    .filter({ hasText: `${line!.pieceId} ·` })
  await expect(row).toBeVisible()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  await page.clock.fastForward('01:00:00')
  await expect(page.getByTestId('away')).toContainText('1 h')
  // air that was read an hour ago is unknown air
  await expect(page.getByTestId('air-stale')).toBeVisible()
  // loaded anew in between, nothing is lost
  await page.reload()
  await expect(row).toBeVisible()
  await setClock(owner, new Date(from.getTime() + 3_600_000))
  await mend(page)
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  const is = await started(owner, line!)
  expect(Math.abs(is!.started_ms - from.getTime())).toBeLessThan(120_000)
  await undo(page, line!)
  await setClock(owner, from)
})

test('the answer to an act is lost, or the server is killed over it: it is done once', async ({ browser, watched }) => {
  const page = await device(browser, 'tove', watched)
  const [line, other] = await startable(page)
  const begun = async () => {
    const log = await page.request.get(`/api/pieces/${line!.pieceId}/log`)
    return ((await log.json()) as { kind: string; says: string }[]).filter(
      e => e.kind === 'started' && e.says.includes(line!.title),
    ).length
  }
  const before = await begun()
  // the server did it, and the line broke before it could say so
  await page.route('**/api/bench', async route => {
    await route.fetch()
    await route.abort()
  })
  await rowOf(page, line!).getByRole('button', { name: 'Start', exact: true }).click()
  await expect(page.getByTestId('note')).toContainText('Kept on this device')
  await page.unrouteAll({ behavior: 'wait' })
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  expect((await begun()) - before).toBe(1)
  await undo(page, line!)
  // taken back before it goes in, it did not happen
  await page.route('**/api/**', route => route.abort())
  await rowOf(page, other!).getByRole('button', { name: 'Start', exact: true }).click()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  await page.getByTestId('waiting').click()
  await page.getByTestId('waits').getByRole('button', { name: 'Take back' }).click()
  await page.keyboard.press('Escape')
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  await expect(rowOf(page, other!)).toBeVisible()
  await page.unroute('**/api/**')
  await expect(page.getByTestId('away')).toHaveCount(0)
  expect(await started(page, other!)).toBeUndefined()
  // the server dies under the touch, and comes back
  takeAway('web')
  await rowOf(page, other!).getByRole('button', { name: 'Start', exact: true }).click()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  bringBack()
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  await expect.poll(async () => started(page, other!).catch(() => undefined)).toBeTruthy()
  await undo(page, other!)
})

test('a photograph waits, shrunk, and arrives with when it was taken', async ({ browser, watched }) => {
  const page = await device(browser, 'emil', watched)
  const [line] = await startable(page)
  const noise = { create: { width: 3600, height: 2400, channels: 3 as const, background: '#8a7a60' } }
  const big = await sharp({ ...noise, create: { ...noise.create, noise: { type: 'gaussian', mean: 128, sigma: 60 } } })
    .withExif({ IFD2: { DateTimeOriginal: '2026:11:29 09:15:00' } })
    .jpeg({ quality: 95 })
    .toBuffer()
  expect(big.length).toBeGreaterThan(2_000_000)
  await cut(page)
  await rowOf(page, line!)
    .getByRole('button', { name: /^More about/ })
    .click()
  await page.getByRole('menuitem', { name: 'Note or photograph' }).click()
  await page.locator('input[type=file]').setInputFiles({ name: 'p.jpg', mimeType: 'image/jpeg', buffer: big })
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  const sent = page.waitForRequest(r => r.url().includes('/photographs') && r.method() === 'POST')
  await mend(page)
  const size = (await sent).postDataBuffer()?.length ?? 0
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  expect(size).toBeLessThan(big.length)
  const pictures = async () => {
    const plan = await page.request.get(`/api/pieces/${line!.pieceId}/plan`)
    const { steps } = (await plan.json()) as { steps: { id: number; pictures: string[] }[] }
    return steps.find(s => s.id === line!.stepId)!.pictures
  }
  const kept = await (await page.request.get(`/api/photographs/${(await pictures()).at(-1)!}`)).body()
  expect((await sharp(kept).metadata()).width).toBe(2560)
  // another arrives, and the line breaks before the server can say so: it is there once
  const before = (await pictures()).length
  await page.route('**/photographs*', async route => {
    await route.fetch()
    await route.abort()
  })
  await rowOf(page, line!)
    .getByRole('button', { name: /^More about/ })
    .click()
  await page.getByRole('menuitem', { name: 'Note or photograph' }).click()
  const small = await sharp({ create: { width: 90, height: 60, channels: 3, background: '#446644' } })
    .jpeg()
    .toBuffer()
  await page.locator('input[type=file]').setInputFiles({ name: 'q.jpg', mimeType: 'image/jpeg', buffer: small })
  await page.getByRole('button', { name: 'Keep' }).click()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  // whoever is on the way is through first: an act that nobody lets go would hang
  await page.unrouteAll({ behavior: 'wait' })
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  expect(await pictures()).toHaveLength(before + 1)
})

test('two tablets without a line on one step: both are told, and both have worked', async ({ browser, watched }) => {
  const [tove, emil] = [await device(browser, 'tove', watched), await device(browser, 'emil', watched)]
  const his = await startable(emil)
  const line = (await startable(tove)).find(l => his.some(h => h.stepId === l.stepId))
  for (const page of [tove, emil]) {
    await cut(page)
    await rowOf(page, line!).getByRole('button', { name: 'Start', exact: true }).click()
    await expect(page.getByTestId('waiting')).toContainText('1 waits')
  }
  await mend(tove)
  await expect(tove.getByTestId('waiting')).toHaveCount(0)
  await mend(emil)
  const held = emil.getByTestId('held').filter({ hasText: line!.title })
  await expect(held).toContainText('Tove: started')
  await held.getByRole('button', { name: 'Both worked on it' }).click()
  await expect(held).toHaveCount(0)
  expect((await started(tove, line!))!.spells.map(s => s.by).sort()).toEqual(['Emil', 'Tove'])
  await undo(tove, line!)
})

test("a tablet's clock that is an hour off puts no act an hour off", async ({ browser, watched }) => {
  const page = await as(browser, 'tove', watched)
  await page.clock.install({ time: Date.now() + 3_600_000 })
  await page.goto('/')
  await carried(page)
  const [line] = await startable(page)
  await cut(page)
  await page.reload()
  await away(page)
  const at = (await now(await as(browser, 'emil', watched))).now_ms
  await rowOf(page, line!).getByRole('button', { name: 'Start', exact: true }).click()
  await mend(page)
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  await expect.poll(async () => started(page, line!)).toBeTruthy()
  expect(Math.abs((await started(page, line!))!.started_ms - at)).toBeLessThan(120_000)
  await undo(page, line!)
})

test('what an older program carried is not shown; what is full or refused is said before it is lost', async ({
  browser,
  watched,
}) => {
  const page = await device(browser, 'tove', watched)
  const [line] = await startable(page)
  // as if another build had read it, in a shape that this one does not know
  await page.evaluate(
    () =>
      new Promise<void>(resolve => {
        const asked = indexedDB.open('hantverk')
        asked.onsuccess = () => {
          const all = asked.result.transaction('read', 'readwrite')
          const store = all.objectStore('read')
          store.openCursor().onsuccess = event => {
            const cursor = (event.target as IDBRequest<IDBCursorWithValue | null>).result
            if (!cursor) return
            cursor.update({ ...(cursor.value as object), build: 'older', answer: { may: 'of another shape' } })
            cursor.continue()
          }
          all.oncomplete = () => resolve()
        }
      }),
  )
  await cut(page)
  await page.goto('/timetable')
  await expect(page.getByText('this is not carried on this device')).toBeVisible()
  await mend(page)
  await page.goto('/')
  await expect(page.getByTestId('away')).toHaveCount(0)
  await page.addInitScript(() => {
    IDBObjectStore.prototype.put = () => {
      throw new DOMException('no room', 'QuotaExceededError')
    }
  })
  await page.reload()
  await cut(page)
  await rowOf(page, line!).getByRole('button', { name: 'Start', exact: true }).click()
  await expect(page.getByTestId('note')).toContainText('This was not kept')
  await expect(page.getByTestId('keeps-nothing')).toBeVisible()
  await expect(rowOf(page, line!)).toBeVisible()
})

test('on a device of two, what one did without a line waits for them and holds up nobody', async ({
  browser,
  watched,
}) => {
  const page = await device(browser, 'tove', watched)
  const [hers] = await startable(page)
  const signIn = async (login: string) => {
    await page.getByLabel('Name to sign in with').fill(login)
    await page.getByLabel('Password').fill('verdigris-9')
    await page.getByRole('button', { name: 'Enter' }).click()
    await expect(page.getByTestId('may').first()).toBeVisible()
  }
  const leave = () => page.getByRole('button', { name: /Leave|Sign out/ }).click()
  await cut(page)
  await rowOf(page, hers!).getByRole('button', { name: 'Start', exact: true }).click()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  await leave()
  await mend(page)
  await signIn('emil')
  // the list is another for him: what stands further down in it is folded away
  const his = (await startable(page)).find(l => l.pieceId !== hers!.pieceId)
  await rowOf(page, his!).getByRole('button', { name: 'Start', exact: true }).click()
  await expect.poll(async () => (await started(page, his!))?.spells.map(s => s.by)).toEqual(['Emil'])
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  expect(await started(page, hers!)).toBeUndefined()
  await undo(page, his!)
  await leave()
  await signIn('tove')
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  await expect.poll(async () => (await started(page, hers!))?.spells.map(s => s.by)).toEqual(['Tove'])
  await undo(page, hers!)
})

test('at a tablet of the shop without a line a name alone may work, and is asked for its PIN', async ({
  browser,
  watched,
}) => {
  const page = await device(browser, 'ingrid', watched)
  await write(page, 'post', '/api/tablets', { name: 'Bench by the door', place: null })
  await page.goto('/')
  // what closes is read at the names too, without anybody's prices
  const read = page.waitForResponse(r => r.url().endsWith('/api/now') && page.url().endsWith('/door'))
  await page.getByRole('button', { name: /Leave|Change/ }).click()
  await expect(page.getByTestId('name').first()).toBeVisible()
  await read
  await page.waitForTimeout(500)
  await cut(page)
  await page.getByTestId('name').filter({ hasText: 'Emil' }).click()
  await page.getByRole('button', { name: 'By name only' }).click()
  await expect(page.getByTestId('may').first()).toBeVisible()
  const row = page.getByTestId('may').first()
  const title = await row.locator('strong').first().innerText()
  await row.getByRole('button', { name: 'Start', exact: true }).click()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  await mend(page)
  // back at the names: nobody goes on by a name alone where a PIN can be looked at
  await expect(page.getByTestId('name').first()).toBeVisible()
  await page.getByTestId('name').filter({ hasText: 'Emil' }).click()
  for (const key of '2580') await page.getByRole('button', { name: key, exact: true }).click()
  await page.getByRole('button', { name: 'In', exact: true }).click()
  const asked = page.getByTestId('by-name')
  await expect(asked).toContainText(title.slice(0, 20))
  await asked.getByRole('button', { name: 'That was me' }).click()
  await expect(asked).toHaveCount(0)
  expect((await now(page)).late.filter(l => l.byName)).toEqual([])
})

test('a piece taken in where there is no line waits with its photograph', async ({ browser, watched }) => {
  const page = await device(browser, 'tove', watched)
  const name = `Sewing box ${Date.now() % 10_000}`
  await cut(page)
  await page.goto('/pieces/new')
  await page.getByLabel('Piece', { exact: true }).fill(name)
  await page.getByLabel('Client', { exact: true }).fill('Nora Vik')
  await page.getByRole('radio', { name: 'No', exact: true }).click()
  await page.getByText('Faces and sizes later').click()
  const take = page.getByRole('button', { name: 'Take in', exact: true })
  await take.click()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  // opened again, nothing that was typed is lost
  await page.getByTestId('waiting').click()
  await page.getByRole('button', { name: 'Open again' }).click()
  await expect(page.getByLabel('Piece', { exact: true })).toHaveValue(name)
  await page.getByText('Faces and sizes later').click()
  const buffer = await sharp({ create: { width: 60, height: 40, channels: 3, background: '#9a6a40' } })
    .jpeg()
    .toBuffer()
  await page.locator('input[type=file]').first().setInputFiles({ name: 'p.jpg', mimeType: 'image/jpeg', buffer })
  await take.click()
  await expect(page.getByTestId('waiting')).toContainText('1 waits')
  await mend(page)
  await expect(page.getByTestId('waiting')).toHaveCount(0)
  const found = async () =>
    (await (await page.request.get(`/api/pieces?find=${encodeURIComponent(name)}`)).json()) as {
      thumb: string | null
    }[]
  await expect.poll(async () => (await found()).map(p => p.thumb !== null)).toEqual([true])
})
