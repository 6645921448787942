import AxeBuilder from '@axe-core/playwright'
import {
  type BrowserContextOptions,
  type Browser,
  expect,
  type Locator,
  type Page,
  test as base,
} from '@playwright/test'

export const BASE = process.env.HANTVERK_BASE!

/** Errors that a test provokes itself, or that come with a server that is taken away. */
const EXPECTED = /status of (4\d\d|503)|ERR_(CONNECTION|INCOMPLETE|NETWORK|INTERNET|FAILED)/

/** A page that fails the test on any console error, any request off the page's own origin, any crash. */
export const test = base.extend<{ watched: (page: Page) => Page }>({
  // eslint-disable-next-line no-empty-pattern -- Playwright reads the parameter's pattern
  watched: async ({}, use) => {
    const bad: string[] = []
    const pages: Page[] = []
    await use(page => {
      pages.push(page)
      touchedAlive(page)
      page.on('console', m => {
        if (m.type() === 'error' && !EXPECTED.test(m.text())) bad.push(m.text())
      })
      page.on('pageerror', e => bad.push(e.message))
      page.on('request', r => {
        if (
          !/^(data|blob):/.test(r.url()) &&
          new URL(r.url()).origin !== new URL(page.url() === 'about:blank' ? r.url() : page.url()).origin
        )
          bad.push(`off its origin: ${r.url()}`)
      })
      return page
    })
    for (const page of pages) await page.context().close()
    expect(bad).toEqual([])
  },
})

/** Every page gone to is waited for until its buttons are alive: what the server sent ahead takes no touch yet. */
function touchedAlive(page: Page) {
  const go = page.goto.bind(page)
  page.goto = async (...to) => {
    const reply = await go(...to)
    await page
      .waitForFunction(
        () => {
          const nuxt = (window as { useNuxtApp?: () => { isHydrating: boolean } }).useNuxtApp
          return !document.getElementById('__nuxt') || nuxt?.().isHydrating === false
        },
        null,
        { timeout: 15_000 },
      )
      .catch(() => {}) // a page that never comes alive fails at the touch that needs it
    return reply
  }
}

const PASSWORD = 'verdigris-9'
/** Somebody of the demo shop, signed in, on Now. */
export async function as(
  browser: Browser,
  login: string,
  watch: (p: Page) => Page,
  options: BrowserContextOptions = {},
): Promise<Page> {
  const page = watch(await (await browser.newContext(options)).newPage())
  const session = await page.request.post('/api/session', {
    ...{ data: { login, password: PASSWORD }, headers: { origin: new URL(options.baseURL ?? BASE).origin } },
  })
  expect(session.status(), await session.text()).toBe(200)
  await page.goto('/')
  await expect(page.getByTestId('clock')).toContainText(/\d\d:\d\d/)
  return page
}
/** A write of somebody's who is not looking at the page: with the shop's origin and a UUID, as a page sends it. */
export const write = (page: Page, method: 'post' | 'put', path: string, data: unknown) =>
  page.request[method](path, { data, headers: { 'origin': BASE, 'idempotency-key': crypto.randomUUID() } })
/** Sets the demo's clock, as the owner. */
export const setClock = (page: Page, at: Date) => write(page, 'post', '/api/clock', { at: at.toISOString() })
export const serverNow = async (page: Page) =>
  new Date(((await (await page.request.get('/api/now')).json()) as { now_ms: number }).now_ms)
export const forward = async (page: Page, minutes: number) =>
  setClock(page, new Date((await serverNow(page)).getTime() + minutes * 60_000))
export function step(page: Page, name: string): Locator {
  const [, fallback, kind, coat, no] = /^(f-)?([a-z-]+?)(?:-(\d+))?(?:\.(\d+))?$/.exec(name)!
  const of = fallback ? '[data-key^="f-"]' : ':not([data-key^="f-"])'
  return page
    .locator(`[data-test=step][data-kind="${kind}"]${of}${coat ? `[data-coat="${coat}"]` : ''}`)
    .nth(Number(no ?? 1) - 1)
}
/** The steps of a plan as it is shown: kind and coat, "f-" before those of a fallback. */
export const stepNames = (page: Page): Promise<string[]> =>
  page.locator('[data-test=step]').evaluateAll(all =>
    all.map(s => {
      const { key = '', kind = '', coat } = (s as HTMLElement).dataset
      return `${key.startsWith('f-') ? 'f-' : ''}${kind}${coat ? `-${coat}` : ''}`
    }),
  )
/** Chooses in a field that opens: by what it stands for, or by what it says. */
export async function choose(field: Locator, option: string | { says: string | RegExp }) {
  const page = field.page()
  await field.first().click()
  await (
    typeof option === 'string'
      ? page.locator(`[role=option][data-value="${option}"]`)
      : page.getByRole('option', { name: option.says }).first()
  ).click()
}
/** Opens a step of a plan, with its figures. */
export async function opened(page: Page, key: string) {
  await step(page, key).locator('button[aria-expanded]').first().click()
  await expect(step(page, key).getByLabel('What is to be done')).toBeVisible()
  return step(page, key)
}
/** Asks the client what stands in the form, after a look at it. */
export async function askClient(page: Page): Promise<void> {
  await page.getByRole('button', { name: 'Look at it first' }).click()
  await expect(page.getByTestId('preview')).toBeVisible()
  await page.getByRole('button', { name: /^(Send it|Open the question)$/ }).click()
  await expect(page.getByTestId('preview')).toHaveCount(0)
}
/** A client's answer on the page of their link: an option, its sum and day seen, said under a name. */
export async function answerAs(client: Page, name: string, option: number): Promise<void> {
  await client.getByTestId('item').first().getByRole('radio').nth(option).check()
  await client.getByRole('button', { name: 'Go on' }).click()
  await client.getByLabel('Your name').fill(name)
  await client.getByRole('button', { name: 'Say so' }).click()
}
/** The link in the newest mail to somebody that says this; mail goes out within seconds. */
export async function linkTo(to: string, says: string): Promise<string> {
  let link = ''
  await expect
    .poll(
      async () => {
        const mails = (await (await fetch(`${process.env.HANTVERK_MAILS}/mails`)).json()) as {
          to: string
          text: string
        }[]
        link = /http\S+/.exec(mails.find(m => m.to.includes(to) && m.text.includes(says))?.text ?? '')?.[0] ?? ''
        return link
      },
      { timeout: 60_000 },
    )
    .not.toBe('')
  return link
}

/**
 * What axe finds on a page, in a line each. Legacy mode spares a second page; there are no frames here that would need
 * it.
 */
export async function barriers(page: Page): Promise<{ impact: string; says: string }[]> {
  const { violations } = await new AxeBuilder({ page }).setLegacyMode().analyze()
  return violations.map(v => ({
    impact: v.impact ?? '',
    says: `${new URL(page.url()).pathname}: ${v.id} ${v.nodes[0]!.html.slice(0, 140)}`,
  }))
}
