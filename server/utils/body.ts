import { createWriteStream } from 'node:fs'
import { mkdtemp, rm } from 'node:fs/promises'
import type { IncomingMessage } from 'node:http'
import { tmpdir } from 'node:os'
import { join } from 'node:path'
import { Transform } from 'node:stream'
import { pipeline } from 'node:stream/promises'
import type { H3Event } from 'h3'

/** A body may take this long to come. */
const JSON_MS = 20_000
const UPLOAD_MS = 120_000
/** Brackets that may lie inside each other; nothing that a page sends needs more than six. */
const MOST_DEPTH = 20

const tooBig = (limit: number) =>
  fail(413, 'too-big', `This is too large: ${Math.round(limit / 1000).toLocaleString('en-GB')} kB at most.`)

/**
 * The bytes of a request's body, counted as they come: whatever length was announced, no more than `limit` are held.
 * @throws Fail 413 when there are more, 408 when they come too slowly, 400 when they stop.
 */
function readBytes(request: IncomingMessage, limit: number, within_ms: number): Promise<Buffer> {
  if (Number(request.headers['content-length'] ?? 0) > limit) return Promise.reject(tooBig(limit))
  return new Promise((resolve, reject) => {
    const chunks: Buffer[] = []
    let size = 0
    const timer = setTimeout(() => stop(fail(408, 'slow', 'This came too slowly. Send it again.')), within_ms)
    function stop(problem: Error | null) {
      clearTimeout(timer)
      request.off('data', take).off('end', end).off('error', cut).off('close', cut)
      if (problem) {
        chunks.length = 0
        request.resume()
        reject(problem)
      } else {
        resolve(Buffer.concat(chunks))
      }
    }
    const take = (chunk: Buffer) => {
      size += chunk.length
      if (size > limit) stop(tooBig(limit))
      else chunks.push(chunk)
    }
    const end = () => stop(null)
    const cut = () => stop(fail(400, 'cut-off', 'The line broke before everything had come. Send it again.'))
    request.on('data', take).on('end', end).on('error', cut).on('close', cut)
  })
}

/** How deep brackets of a JSON text lie inside each other. */
export function depthOf(json: string): number {
  let depth = 0
  let deepest = 0
  let inText = false
  for (let i = 0; i < json.length; i++) {
    const c = json[i]
    if (inText) {
      if (c === '\\') i++
      else if (c === '"') inText = false
    } else if (c === '"') {
      inText = true
    } else if (c === '{' || c === '[') {
      deepest = Math.max(deepest, ++depth)
    } else if (c === '}' || c === ']') {
      depth--
    }
  }
  return deepest
}

const contentType = (event: H3Event) => (getHeader(event, 'content-type') ?? '').split(';')[0]!.trim().toLowerCase()

/** JSON of a text. @throws Fail 400 when it is none, or nested beyond reason. */
export function jsonOf(text: string): unknown {
  if (depthOf(text) > MOST_DEPTH) throw fail(400, 'invalid', 'This is nested too deeply to be read.')
  try {
    return JSON.parse(text)
  } catch {
    throw fail(400, 'invalid', 'This is no readable JSON.')
  }
}

/** The JSON that a write carries. @throws Fail 415, 413, 400. */
export async function readJson(event: H3Event, limit: number): Promise<unknown> {
  if (contentType(event) !== 'application/json')
    throw fail(415, 'not-json', 'This is sent as JSON (content-type: application/json).')
  return jsonOf((await readBytes(event.node.req, limit, JSON_MS)).toString('utf8'))
}

/** The one file of an upload. @throws Fail 415, 413, 422. */
export async function readFile(event: H3Event, limit: number, missing: string): Promise<Buffer> {
  if (contentType(event) !== 'multipart/form-data') throw fail(415, 'not-a-file', missing)
  const body = await readBytes(event.node.req, limit, UPLOAD_MS)
  Object.assign(event.node.req, { rawBody: body })
  const file = (await readMultipartFormData(event))?.find(part => part.filename)
  if (!file) throw fail(422, 'invalid', missing)
  return file.data
}

/** Fields of a page's form that was sent without a script. @throws Fail 415 for another kind of body. */
export async function readForm(event: H3Event, limit: number): Promise<URLSearchParams> {
  if (contentType(event) !== 'application/x-www-form-urlencoded')
    throw fail(415, 'not-a-form', 'This is no form of this page.')
  return new URLSearchParams((await readBytes(event.node.req, limit, JSON_MS)).toString('utf8'))
}

/** An upload may be as large as a shop with its photographs. */
const MOST_UPLOAD = 8_000_000_000
/**
 * Keeps a zip that is sent as the body in a file of its own while `work` reads it: nothing of it is held in memory.
 * @throws Fail 415, 413, 400.
 */
export async function withUpload<T>(event: H3Event, work: (path: string) => Promise<T>): Promise<T> {
  if (contentType(event) !== 'application/zip') throw fail(415, 'not-a-file', 'Choose a zip file.')
  const { req } = event.node
  if (Number(req.headers['content-length'] ?? 0) > MOST_UPLOAD) throw tooBig(MOST_UPLOAD)
  const dir = await mkdtemp(join(tmpdir(), 'hantverk-upload-'))
  try {
    const path = join(dir, 'upload.zip')
    let size = 0
    const counted = new Transform({
      transform(chunk: Buffer, _encoding, done) {
        size += chunk.length
        done(size > MOST_UPLOAD ? tooBig(MOST_UPLOAD) : null, chunk)
      },
    })
    await pipeline(req, counted, createWriteStream(path))
    return await work(path)
  } finally {
    await rm(dir, { recursive: true, force: true })
  }
}
