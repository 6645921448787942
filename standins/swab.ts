/**
 * A simulated reader of lead test strips: GET /read?sample=… reads the strip in it, POST /set {"lead":
 * "yes"|"no"|"unclear"} says what the next strip will show, {"lead": null} lets each sample's name decide. Usage:
 * swab.ts PORT
 */
import { createServer } from 'node:http'

const port = Number(process.argv[2])
const ANSWERS = ['no', 'no', 'yes', 'no', 'unclear'] as const
let fixed: string | null = null
let strip = 100

/** The same sample always reads the same. */
const byName = (sample: string) =>
  ANSWERS[[...sample].reduce((sum, c) => (sum * 31 + c.codePointAt(0)!) % 9973, 7) % ANSWERS.length]!

createServer(async (request, response) => {
  response.setHeader('content-type', 'application/json')
  const url = new URL(request.url ?? '/', 'http://127.0.0.1')
  if (request.method === 'POST' && url.pathname === '/set') {
    let body = ''
    for await (const chunk of request) body += chunk
    const wanted = (JSON.parse(body || '{}') as { lead?: string | null }).lead ?? null
    const known = wanted === null || (ANSWERS as readonly string[]).includes(wanted)
    if (known) fixed = wanted
    else response.statusCode = 422
    response.end(JSON.stringify({ lead: fixed }))
    return
  }
  strip += 1
  response.end(
    JSON.stringify({
      lead: fixed ?? byName(url.searchParams.get('sample') ?? ''),
      strip: `S-${strip}`,
      simulated: true,
    }),
  )
}).listen(port, '127.0.0.1')
