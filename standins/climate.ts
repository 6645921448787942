/**
 * A simulated climate service. Usage: climate.ts PORT
 * GET /reading: the shop's air, and that of rooms with a logger of their own by its name.
 * GET /weather?from=ISO: five days outdoors, hour by hour.
 * POST /set changes the shop's air, or with `logger` that of a room; with `rain_mm` the weather stays as it is given,
 * with `weather: null` it goes on by itself.
 */
import { createServer, type IncomingMessage } from 'node:http'

interface Air {
  temperature_C: number
  rh: number
}
const port = Number(process.argv[2])
const rooms = new Map<string, Air>([
  ['', { temperature_C: 20.5, rh: 0.46 }],
  ['finishing', { temperature_C: 21.5, rh: 0.43 }],
])
let fixed: (Air & { rain_mm: number }) | null = null
const HOUR_MS = 3_600_000
const AHEAD_H = 120

/** A slow swing around what was set, so that it reads like a room. */
function swung({ temperature_C, rh }: Air): Air {
  const swing = Math.sin((Date.now() / HOUR_MS) * 2 * Math.PI)
  return {
    temperature_C: Math.round((temperature_C + 0.2 * swing) * 10) / 10,
    rh: Math.round((rh - 0.004 * swing) * 1000) / 1000,
  }
}

/** The same number between 0 and 1 for the same whole number. */
function scattered(n: number): number {
  const x = Math.sin(n * 12.9898) * 43_758.5453
  return x - Math.floor(x)
}
const YEAR_H = 365.25 * 24
/** An hour outdoors: the year's and the day's swing, showers of some hours. */
function hour(at_ms: number) {
  const n = Math.floor(at_ms / HOUR_MS)
  const season = -Math.cos(((n % YEAR_H) / YEAR_H) * 2 * Math.PI)
  const ofDay = -Math.cos((((n % 24) - 3) / 24) * 2 * Math.PI)
  const rains = scattered(Math.floor(n / 5)) < 0.22
  return {
    at: new Date(n * HOUR_MS).toISOString(),
    temperature_C: Math.round((10 + 9 * season + 4 * ofDay + 3 * (scattered(Math.floor(n / 24)) - 0.5)) * 10) / 10,
    rh: Math.round(Math.min(1, 0.72 - 0.16 * ofDay + (rains ? 0.2 : 0)) * 1000) / 1000,
    rain_mm: rains ? Math.round((0.3 + 2 * scattered(n)) * 10) / 10 : 0,
  }
}
function weather(from: string | null) {
  const first = from && Number.isFinite(Date.parse(from)) ? Date.parse(from) : Date.now()
  return Array.from({ length: AHEAD_H }, (_, i) => ({ ...hour(first + i * HOUR_MS), ...fixed }))
}

async function set(request: IncomingMessage) {
  let body = ''
  for await (const chunk of request) body += chunk
  const wanted = JSON.parse(body) as Partial<Air> & { rain_mm?: number; logger?: string; weather?: null }
  if (wanted.weather === null) return (fixed = null)
  const { temperature_C = NaN, rh = NaN, rain_mm, logger = '' } = wanted
  if (!(rh > 0 && rh <= 1) || !Number.isFinite(temperature_C))
    throw new RangeError('temperature_C, and rh between 0 and 1')
  if (rain_mm !== undefined) return (fixed = { temperature_C, rh, rain_mm })
  rooms.set(logger, { temperature_C, rh })
  return { temperature_C, rh }
}

createServer(async (request, response) => {
  const { pathname, searchParams } = new URL(request.url ?? '/', 'http://stand-in')
  const give = (answer: unknown) => response.end(JSON.stringify(answer))
  response.setHeader('content-type', 'application/json')
  if (request.method === 'POST' && pathname === '/set')
    return set(request).then(give, error => {
      response.statusCode = 422
      give({ message: String(error) })
    })
  if (pathname === '/weather') return give({ simulated: true, hours: weather(searchParams.get('from')) })
  const loggers = [...rooms].filter(([name]) => name).map(([name, air]) => [name, swung(air)])
  give({ ...swung(rooms.get('')!), simulated: true, loggers: Object.fromEntries(loggers) })
}).listen(port, '127.0.0.1')
