/** What a tablet waits for: the first load of Now, acts while eight tablets act, an answer while one types. */
import { chromium } from '@playwright/test'
import config from '../playwright.config'
import { act, BASE, type Caller, planOf, stepOf } from './api/http'

type Say = (what: string, figure: string) => void
const CPU_THROTTLE = 4
const LOADS = 5
const median = (times: readonly number[]) => [...times].sort((a, b) => a - b)[Math.floor(times.length / 2)] ?? 0

/** One first load of Now, the processor so much slower: bytes, requests, ms until Start is seen, and heard. */
async function firstLoad(owner: Caller, rate: number) {
  const browser = await chromium.launch(config.use!.launchOptions)
  try {
    const context = await browser.newContext({ viewport: config.use!.viewport })
    const [name, value] = owner.cookie.split(/[=;]/)
    await context.addCookies([{ name: name!, value: value!, url: BASE }])
    const page = await context.newPage()
    const line = await context.newCDPSession(page)
    await line.send('Network.enable')
    await line.send('Emulation.setCPUThrottlingRate', { rate })
    let bytes = 0
    let requests = 0
    line.on('Network.loadingFinished', ({ encodedDataLength }) => {
      bytes += encodedDataLength
      requests += 1
    })
    const begun = performance.now()
    await page.goto(BASE, { waitUntil: 'commit' })
    await page.locator('main').getByRole('button', { name: 'Start', exact: true }).first().waitFor()
    // the frame says so once it is mounted: from then on a touch is heard
    await page.locator('[data-live]').waitFor({ state: 'attached' })
    const live = performance.now() - begun
    await page.waitForLoadState('load')
    // it is part of what the server sent, and so of the first painting
    const painted = await page.evaluate(() => performance.getEntriesByName('first-contentful-paint')[0]?.startTime ?? 0)
    return { kib: bytes / 1024, requests, painted, live }
  } finally {
    await browser.close()
  }
}

export async function firstLoadBench(owner: Caller, say: Say) {
  for (const rate of [1, CPU_THROTTLE]) {
    const loads: Awaited<ReturnType<typeof firstLoad>>[] = []
    for (let i = 0; i < LOADS; i++) loads.push(await firstLoad(owner, rate))
    const of = (part: keyof (typeof loads)[number]) => median(loads.map(l => l[part])).toFixed(0)
    say(
      `First load of Now, processor ${rate} × slower`,
      `${of('kib')} KiB in ${of('requests')} requests; Start is seen after ${of('painted')} ms, heard at once after ` +
        `${of('live')} ms`,
    )
  }
}

const TABLETS = 8
const FOR_MS = 8000
/** Eight tablets start a step and take it back, each on a piece of its own. */
export async function actsBench(owner: Caller, pieces: readonly number[], say: Say) {
  const { now_ms } = await owner.ok<{ now_ms: number }>('GET /api/now')
  const from = performance.now()
  const at = () => new Date(now_ms + performance.now() - from).toISOString()
  const waits: number[] = []
  const refused: string[] = []
  const until = performance.now() + FOR_MS
  await Promise.all(
    pieces.slice(0, TABLETS).map(async id => {
      const first = (await planOf(owner, id)).steps.find(s => s.kind !== 'approval')!
      for (let turn = 0; performance.now() < until; turn++) {
        const step = await stepOf(owner, id, first.key)
        const begun = performance.now()
        const { status, body } = await act(owner, turn % 2 ? 'undo' : 'start', step, at())
        waits.push(performance.now() - begun)
        if (status !== 200) refused.push(body.code)
      }
    }),
  )
  const sorted = waits.sort((a, b) => a - b)
  say(
    `Acts, ${TABLETS} tablets at once, each reading its plan before`,
    `${((waits.length / FOR_MS) * 1000).toFixed(1)} a second; p50 ${median(sorted).toFixed(0)} ms, p99 ` +
      `${(sorted[Math.floor(sorted.length * 0.99)] ?? 0).toFixed(0)} ms` +
      (refused.length ? `; refused ${refused.length}: ${[...new Set(refused)].join(', ')}` : ''),
  )
}

/** Letters as they are typed, numbers, marks, words of the log. */
const TYPED = ['b', 'bo', 'boa', 'board', '1', '1234', 'A-1', 'plan', 'client', 'nothing like it']
export async function findBench(owner: Caller, say: Say) {
  const waits: number[] = []
  for (let round = 0; round < 5; round++)
    for (const q of TYPED) {
      const begun = performance.now()
      await owner.ok(`GET /api/find?q=${encodeURIComponent(q)}`)
      waits.push(performance.now() - begun)
    }
  say(
    'Search, 10,000 pieces: letters, numbers, words',
    `median ${median(waits).toFixed(0)} ms, longest ${Math.max(...waits).toFixed(0)} ms`,
  )
}
