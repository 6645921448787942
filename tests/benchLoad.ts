/** The server under load and after a kill: how long nobody is served, what it answers a second, how soon it is back. */
import { readFileSync } from 'node:fs'
import { dirname } from 'node:path'
import { BASE, type Caller } from './api/http'

const PARALLEL = 10
const FOR_MS = 8000
const say = (what: string, figure: string) => console.log(`${what.padEnd(64)} ${figure}`)
const pause = (ms: number) => new Promise(resolve => setTimeout(resolve, ms))

interface State {
  parts: { name: string; id: { pid: number } }[]
}
const partOf = (name: string) =>
  (JSON.parse(readFileSync(process.env.HANTVERK_STATE!, 'utf8')) as State).parts.find(p => p.name === name)!.id.pid
const webLog = () => readFileSync(`${dirname(process.env.HANTVERK_STATE!)}/logs/web.log`, 'utf8')
const share = (sorted: readonly number[], part: number) =>
  sorted[Math.min(sorted.length - 1, Math.floor(sorted.length * part))] ?? 0

/** Health asked twenty times a second while `work` goes on: its waits, sorted, ms. */
async function healthWhile(work: () => Promise<unknown>): Promise<number[]> {
  const waits: number[] = []
  let done = false
  const watching = (async () => {
    while (!done) {
      const begun = performance.now()
      await fetch(`${BASE}/api/health`).then(
        r => r.text(),
        () => '',
      )
      waits.push(performance.now() - begun)
      await pause(50)
    }
  })()
  await work()
  done = true
  await watching
  return waits.sort((a, b) => a - b)
}

/** `PARALLEL` callers ask these paths in turn for a while. Returns answers by status. */
async function load(owner: Caller, paths: readonly string[]): Promise<Record<number, number>> {
  const seen: Record<number, number> = {}
  const until = Date.now() + FOR_MS
  await Promise.all(
    Array.from({ length: PARALLEL }, async (_, i) => {
      for (let turn = i; Date.now() < until; turn++) {
        const { status } = await owner.send(`GET ${paths[turn % paths.length]!}`)
        seen[status] = (seen[status] ?? 0) + 1
        if (status === 503) await pause(200)
      }
    }),
  )
  return seen
}

async function underLoad(owner: Caller, what: string, paths: readonly string[]) {
  await load(owner, paths)
  const before = webLog().length
  let seen: Record<number, number> = {}
  const waits = await healthWhile(async () => {
    seen = await load(owner, paths)
  })
  await pause(300)
  const pauses = [
    ...webLog()
      .slice(before)
      .matchAll(/pause (\d+) ms/g),
  ].map(m => Number(m[1]))
  const busy = seen[503] ? `, ${seen[503]} asked to come again` : ''
  say(
    `${what}, ${PARALLEL} at once`,
    `${(((seen[200] ?? 0) / FOR_MS) * 1000).toFixed(1)} a second${busy}; health p50 ` +
      `${share(waits, 0.5).toFixed(0)} ms, p99 ${share(waits, 0.99).toFixed(0)} ms; longest pause of the event ` +
      `loop ${Math.max(0, ...pauses)} ms`,
  )
}

/** From SIGKILL to the first good answer. */
async function backAfter(name: string): Promise<number> {
  process.kill(partOf(name), 'SIGKILL')
  const begun = performance.now()
  await pause(20)
  while (
    !(await fetch(`${BASE}/api/health`, { signal: AbortSignal.timeout(6000) }).then(
      r => r.ok,
      () => false,
    ))
  )
    await pause(20)
  const took = performance.now() - begun
  await pause(2500)
  return took
}

export async function loadBench(owner: Caller, piece: number): Promise<void> {
  const routes = `/api/pieces/${piece}/routes`
  await underLoad(owner, 'Now', ['/api/now'])
  await underLoad(owner, 'Routes judged', [routes])
  await underLoad(owner, 'Mixed: Now, routes, plan, examination, timetable, report', [
    '/api/now',
    routes,
    `/api/pieces/${piece}/plan`,
    `/api/pieces/${piece}/examination`,
    '/api/timetable',
    `/api/pieces/${piece}/report?format=pdf`,
  ])
  say('From a killed web server to the first answer', `${((await backAfter('web')) / 1000).toFixed(1)} s`)
  say('From a killed database to the first answer', `${((await backAfter('database')) / 1000).toFixed(1)} s`)
}
