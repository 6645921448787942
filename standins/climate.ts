/** A simulated climate logger: GET /reading gives the room's air, POST /set changes it. Usage: climate.ts PORT */
import { createServer } from 'node:http'

const port = Number(process.argv[2])
let air = { temperature_C: 20.5, rh: 0.46 }
const SWING_MS = 3_600_000

/** A slow swing around what was set, so that it reads like a room. */
function reading() {
  const swing = Math.sin((Date.now() / SWING_MS) * 2 * Math.PI)
  return {
    temperature_C: Math.round((air.temperature_C + 0.2 * swing) * 10) / 10,
    rh: Math.round((air.rh - 0.004 * swing) * 1000) / 1000,
    simulated: true,
  }
}

createServer(async (request, response) => {
  response.setHeader('content-type', 'application/json')
  if (request.method === 'POST' && request.url === '/set') {
    let body = ''
    for await (const chunk of request) body += chunk
    try {
      const wanted = JSON.parse(body) as typeof air
      if (!(wanted.rh > 0 && wanted.rh <= 1) || !Number.isFinite(wanted.temperature_C))
        throw new RangeError('temperature_C, and rh between 0 and 1')
      air = { temperature_C: wanted.temperature_C, rh: wanted.rh }
      response.end(JSON.stringify(air))
    } catch (error) {
      response.statusCode = 422
      response.end(JSON.stringify({ message: String(error) }))
    }
    return
  }
  response.end(JSON.stringify(reading()))
}).listen(port, '127.0.0.1')
