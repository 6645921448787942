/** Store and record with many pieces, uses and log entries against few; an archive of a thousand with pictures. */
import { readFileSync } from 'node:fs'
import type { Connection } from 'mysql2/promise'
import sharp from 'sharp'
import { BASE, type Caller } from './api/http'

type Say = (what: string, figure: string) => void
const ROUNDS = 7
const USES = 20_000
const LOGGED = 100_000
const PICTURED = 1000

async function median_ms(work: () => Promise<unknown>): Promise<number> {
  const times: number[] = []
  for (let i = 0; i < ROUNDS; i++) {
    const begun = performance.now()
    await work()
    times.push(performance.now() - begun)
  }
  return times.sort((a, b) => a - b)[Math.floor(ROUNDS / 2)]!
}
const PAGES = {
  'Store': 'GET /api/store',
  'Wanted and short': 'GET /api/store/needs',
  'Vapour by month': 'GET /api/store/voc',
  'Record: hours': 'GET /api/record?ask=hours',
  'Record: amounts': 'GET /api/record?ask=amounts',
  'Record: what a kind costs': 'GET /api/record?ask=cost',
  'Record: promises': 'GET /api/record?ask=promises',
  'Record: why missed': 'GET /api/record?ask=missed',
  'Record: hours of all years': 'GET /api/record?ask=hours&time=all',
  'Record: what a kind costs, all years': 'GET /api/record?ask=cost&time=all',
  'Log': 'GET /api/log',
} as const
type Page = keyof typeof PAGES
async function pages(owner: Caller): Promise<Record<Page, number>> {
  const times = {} as Record<Page, number>
  for (const [page, route] of Object.entries(PAGES) as [Page, string][])
    times[page] = await median_ms(() => owner.ok(route))
  return times
}
/** Promises, uses, spells and log entries over steps that are done; `n` uses, five times as many entries. */
async function fill(sql: Connection, uses: number, logged: number) {
  await sql.query('UPDATE piece SET due_on = DATE(handed_over_at) - INTERVAL id % 3 DAY WHERE due_on IS NULL')
  await sql.query(
    `INSERT INTO lot_use (lot_id, step_id, amount, booked, price_minor, at)
        SELECT 1, s.id, 20, 20, 30000, s.finished_at
          FROM plan_step s
          WHERE s.state = 'done' AND s.product IS NOT NULL
            AND NOT EXISTS (SELECT 1 FROM lot_use u WHERE u.step_id = s.id)
          LIMIT ${uses}`,
  )
  await sql.query(
    `INSERT INTO work_spell (step_id, person_id, from_at, to_at)
        SELECT s.id, 1, s.finished_at - INTERVAL 20 MINUTE, s.finished_at
          FROM plan_step s
          WHERE s.state = 'done' AND NOT EXISTS (SELECT 1 FROM work_spell w WHERE w.step_id = s.id)
          LIMIT ${uses * 3}`,
  )
  await sql.query(
    `INSERT INTO logbook (piece_id, kind, says, happened_at, recorded_at, person_id)
        SELECT 1, 'note', 'Something was noted here', '2026-01-01' + INTERVAL seq MINUTE,
          '2026-01-01' + INTERVAL seq MINUTE, 1
          FROM seq_1_to_${logged}`,
  )
  await sql.query('ANALYZE TABLE lot_use, work_spell, logbook')
}

interface State {
  parts: { name: string; id: { pid: number } }[]
}
const web = () =>
  (JSON.parse(readFileSync(process.env.HANTVERK_STATE!, 'utf8')) as State).parts.find(p => p.name === 'web')!.id.pid
const rss_MB = (pid: number) => Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1000

async function archiveBench(owner: Caller, sql: Connection, say: Say) {
  const noise = { type: 'gaussian' as const, mean: 128, sigma: 50 }
  const picture = await sharp({ create: { width: 1600, height: 1200, channels: 3, background: '#886644', noise } })
    .jpeg({ quality: 60 })
    .toBuffer()
  await sql.query(
    `INSERT INTO photograph (piece_id, added_at, width, height, address, picture, thumb)
        SELECT id, taken_in_at, 1600, 1200, SHA2(CONCAT('bench', id), 256), ?, ''
          FROM piece
          WHERE state = 'handed-over'
          LIMIT ${PICTURED}`,
    [picture],
  )
  const pid = web()
  await owner.ok('GET /api/now')
  const idle = rss_MB(pid)
  let most = idle
  const watch = setInterval(() => (most = Math.max(most, rss_MB(pid))), 50)
  const begun = performance.now()
  const reply = await fetch(`${BASE}/api/archive`, { headers: { cookie: owner.cookie } })
  let bytes = 0
  const reader = reply.body!.getReader()
  for (let next = await reader.read(); !next.done; next = await reader.read()) bytes += next.value.length
  clearInterval(watch)
  say(
    `Archive of the shop with ${PICTURED} photographs of ${Math.round(picture.length / 1000)} kB`,
    `${(bytes / 1e6).toFixed(0)} MB in ${((performance.now() - begun) / 1000).toFixed(1)} s; memory at most ` +
      `${(most - idle).toFixed(0)} MB above ${idle.toFixed(0)} idle`,
  )
}

/** `grow`: makes so many more pieces that went home. */
export async function storeBench(owner: Caller, sql: Connection, grow: (n: number) => Promise<unknown>, say: Say) {
  await grow(100)
  const { id: productId } = await owner.ok<{ id: number }>('POST /api/products', {
    ...{ name: 'Bench oil', class: 'varnish-oil', priceMinor: 30_000 },
  })
  await owner.ok('POST /api/lots', { productId, code: 'B-1', amount: 900_000 })
  await fill(sql, USES / 100, LOGGED / 100)
  await pages(owner)
  const few = await pages(owner)
  await grow(9900)
  await fill(sql, USES, LOGGED)
  await pages(owner)
  const many = await pages(owner)
  for (const page of Object.keys(PAGES) as Page[])
    say(
      `${page}: 10,000 pieces, ${LOGGED / 1000},000 log entries, ${USES / 1000},000 uses, against 100`,
      `${(many[page] / few[page]).toFixed(1)} ×   (${many[page].toFixed(0)} / ${few[page].toFixed(0)} ms)`,
    )
  await archiveBench(owner, sql, say)
}
