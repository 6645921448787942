import { promisify } from 'node:util'
import { gzip } from 'node:zlib'
import type { H3Event } from 'h3'

/** Answers smaller than this travel as they are. */
const LEAST_BYTES = 2000
const zipped = promisify(gzip)

/** Called over a line; what the server asks of itself while it draws a page has none. */
const isRemote = (event: H3Event) => Boolean(event.node.req.socket?.remoteAddress)

/** A long text in gzip, where the caller takes it; null where it travels as it is. */
export async function zippedText(event: H3Event, text: string): Promise<Buffer | null> {
  const takes = isRemote(event) && /\bgzip\b/.test(getHeader(event, 'accept-encoding') ?? '')
  if (!takes || text.length < LEAST_BYTES) return null
  setResponseHeaders(event, { 'content-encoding': 'gzip', 'vary': 'accept-encoding' })
  return zipped(text, { level: 4 })
}

/** A long answer as JSON in gzip, where the caller takes it; anything else as it is. */
export async function compressed(event: H3Event, answer: unknown): Promise<unknown> {
  const plain = answer !== null && typeof answer === 'object' && !(answer instanceof ReadableStream)
  if (!plain || ArrayBuffer.isView(answer)) return answer
  const body = await zippedText(event, JSON.stringify(answer))
  if (body) setResponseHeader(event, 'content-type', 'application/json')
  return body ?? answer
}
