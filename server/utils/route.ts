import type { H3Event } from 'h3'
import type { z } from 'zod'
import { API, type Problem, type RouteKey, type RouteSpec } from '#shared/api'
import { acting, type Act, Away, db, Repeated } from '../database/db'
import { NewerDatabase } from '../database/migrate'
import { checkProved, type Person, type ShopWays } from '../services/shop/person'
import { currentPerson, currentTablet } from '../services/shop/sessions'
import { compressed } from './compressed'
import { written } from './written'

type Parsed<K extends RouteKey, P extends 'body' | 'query'> =
  (typeof API)[K] extends Record<P, infer S> ? (S extends z.ZodType ? z.output<S> : undefined) : undefined
export interface Call<K extends RouteKey> {
  event: H3Event
  /** who calls; a public route, and one that a tablet may call, may have nobody, and must not read this then */
  person: Person
  body: Parsed<K, 'body'>
  query: Parsed<K, 'query'>
  /** a numeric path parameter; 404 when it is no number */
  id: () => number
  param: (name: string) => string
}

const JSON_BYTES = 256_000
const RETRY_S = 2

function parse(schema: z.ZodType | undefined, value: unknown): unknown {
  if (!schema) return undefined
  const result = schema.safeParse(value ?? {})
  if (result.success) return result.data
  const fields: Record<string, string> = {}
  for (const issue of result.error.issues) {
    const unknown = issue.code === 'unrecognized_keys' ? issue.keys[0] : undefined
    fields[[...issue.path, ...(unknown === undefined ? [] : [unknown])].join('.')] ??=
      unknown === undefined ? issue.message : `"${unknown.slice(0, 40)}" is not known here.`
  }
  throw fail(422, 'invalid', Object.values(fields)[0] ?? 'Something is missing.', fields)
}

/** Clashes that the database refuses, in words. */
const ERRNO: Record<number, [number, string, string]> = {
  1062: [409, 'exists', 'This exists already.'],
  1406: [422, 'too-long', 'A text is too long.'],
  1264: [422, 'out-of-range', 'A number is out of range.'],
  1366: [422, 'invalid', 'A text holds characters that cannot be kept.'],
  1452: [422, 'unknown-reference', 'It refers to something that does not exist.'],
  4025: [422, 'out-of-range', 'A figure is outside what is possible.'],
}
/** What a database that is gone, stopped, starting or overrun says. */
const AWAY_ERRNO = new Set([1040, 1053, 1205, 1213, 1317, 1927, 1969])
const AWAY_CODE =
  /^(ECONN|ETIMEDOUT|EPIPE|PROTOCOL_(CONNECTION_LOST|SEQUENCE_TIMEOUT|ENQUEUE)|POOL_|ER_SERVER_SHUTDOWN)/
const isAway = (error: unknown): boolean => {
  const { errno, code, message } = error as { errno?: number; code?: string; message?: string }
  return (
    error instanceof Away ||
    AWAY_ERRNO.has(errno ?? 0) ||
    AWAY_CODE.test(code ?? '') ||
    message === 'Queue limit reached.'
  )
}

function problemOf(error: unknown): { status: number; problem: Problem } {
  if (error instanceof Fail) return { status: error.status, problem: error.problem }
  if (error instanceof NewerDatabase)
    return { status: 503, problem: { code: 'newer-database', message: error.message } }
  if (isAway(error)) {
    return {
      status: 503,
      problem: {
        code: 'busy',
        message: "The shop's database does not answer just now. Nothing is lost; try again in a moment.",
      },
    }
  }
  const { errno, statusCode } = error as { errno?: number; statusCode?: number }
  const known = errno === undefined ? undefined : ERRNO[errno]
  if (known) return { status: known[0], problem: { code: known[1], message: known[2] } }
  if (statusCode && statusCode >= 400 && statusCode < 500)
    return { status: statusCode, problem: { code: 'invalid', message: 'The request could not be read.' } }
  console.error(error)
  return {
    status: 500,
    problem: { code: 'unexpected', message: 'Something went wrong here. Nothing was saved; try again.' },
  }
}

/** @throws Fail 403 where this person's role has not the right. */
function checkRight(person: Person, right: RouteSpec['right']) {
  if (right === 'owner' && person.role !== 'owner') throw fail(403, 'forbidden', 'Only the owner does this.')
  if (right === 'anyone' || right === 'public' || right === 'owner' || person.rights.has(right)) return
  throw fail(403, 'forbidden', `Your role has no right to this. The owner gives rights under Shop, People.`)
}

/** Who calls, and how their shop writes. */
async function callerOf(event: H3Event, spec: RouteSpec): Promise<{ person: Person | null; ways: ShopWays | null }> {
  const person = await currentPerson(event)
  if (spec.right === 'public') return { person, ways: null }
  if (!person) {
    const tablet = spec.tablet ? await currentTablet(event) : null
    if (tablet) return { person: null, ways: tablet.shop }
    throw fail(401, 'signed-out', 'Sign in first.')
  }
  if (person.must_change && !spec.anyPassword)
    throw fail(403, 'choose-password', 'Choose a password of your own first.')
  checkRight(person, spec.right)
  if (spec.proof) checkProved(person)
  return { person, ways: person.shop }
}

/**
 * The answer that was kept for this write, when it was sent before.
 * @throws Fail when somebody else, or something else, used its UUID.
 */
async function keptAnswer({ uuid, route, personId }: Act): Promise<{ answer: unknown } | null> {
  const row = await db().row<{ route: string; person_id: number | null; answer: string | null }>(
    'SELECT route, person_id, answer FROM command WHERE uuid = :uuid',
    { uuid },
  )
  if (!row || row.answer === null) return null
  if (row.route !== route || row.person_id !== personId)
    throw fail(409, 'uuid-used', 'This UUID belongs to another write. Load the page again and repeat.')
  return { answer: JSON.parse(row.answer) as unknown }
}

/** Whose a write is that comes late, from a tablet at which somebody else may stand by now. */
const namedIn = (body: unknown, query: unknown): number | undefined =>
  (body as { late?: { personId: number } } | undefined)?.late?.personId ?? (query as { by?: number } | undefined)?.by

/** Does a write once, however often it is sent: a repeat gets the first answer. */
async function once<R>(act: Act, work: () => R | Promise<R>): Promise<R> {
  const before = await keptAnswer(act)
  if (before) return before.answer as R
  try {
    const result = await acting.run(act, async () => work())
    if (act.answer === undefined) throw new Error(`${act.route} wrote outside a transaction; it could be done twice`)
    return result
  } catch (error) {
    if (!(error instanceof Repeated)) throw error
    const kept = await keptAnswer(act)
    if (!kept) throw fail(503, 'busy', 'This is being done already. Try again in a moment.')
    return kept.answer as R
  }
}

/**
 * A handler for one route of the registry: checks who calls and from where, parses what it carries, does a write once,
 * and gives errors their one shape.
 */
export function route<K extends RouteKey, R>(key: K, handle: (call: Call<K>) => R | Promise<R>) {
  const spec: RouteSpec = API[key]
  return defineEventHandler(async (event): Promise<R> => {
    setResponseHeader(event, 'cache-control', 'no-store')
    try {
      const write = isWrite(event)
      if (write) checkOrigin(event)
      await ready()
      const { person, ways } = await callerOf(event, spec)
      const uuid = write && spec.once !== false ? uuidOf(event) : null
      const body = spec.body ? parse(spec.body, await readJson(event, spec.bytes ?? JSON_BYTES)) : undefined
      const query = parse(spec.query, spec.query ? getQuery(event) : undefined)
      const act = uuid ? { uuid, route: key, personId: namedIn(body, query) ?? person?.id ?? null } : null
      const param = (name: string) => getRouterParam(event, name) ?? ''
      const id = () => {
        if (!/^[1-9]\d{0,8}$/.test(param('id'))) throw notFound('page')
        return Number(param('id'))
      }
      const call = { event, person: person as Person, body, query, id, param } as Call<K>
      const answer = await (act ? once(act, () => handle(call)) : handle(call))
      const prices = person?.rights.has('see-prices') && getHeader(event, 'x-without-prices') === undefined
      const shown = ways ? written(answer, ways, Boolean(prices)) : answer
      return (await compressed(event, shown)) as R
    } catch (error) {
      const { status, problem } = problemOf(error)
      setResponseStatus(event, status)
      if (status === 503) setResponseHeader(event, 'retry-after', RETRY_S)
      // the rest of a body that is too large is read and thrown away, so that its sender hears the answer
      if (status === 408) setResponseHeader(event, 'connection', 'close')
      return problem as R
    }
  })
}

/**
 * A form of a page without a script, sent to a public route: checked, parsed and done once like a call.
 * @returns what came of it
 */
export async function sentByForm<K extends RouteKey, R>(
  event: H3Event,
  key: K,
  { uuid, body }: { uuid: string; body: unknown },
  handle: (body: Parsed<K, 'body'>) => Promise<R>,
): Promise<{ answer: R } | { status: number; problem: Problem }> {
  try {
    checkOrigin(event)
    await ready()
    const { body: schema }: RouteSpec = API[key]
    const read = parse(schema, body) as Parsed<K, 'body'>
    return { answer: await once({ uuid, route: key, personId: null }, () => handle(read)) }
  } catch (error) {
    return problemOf(error)
  }
}
