import type { H3Event } from 'h3'
import type { z } from 'zod'
import { API, type Problem, type RouteKey, type RouteSpec } from '#shared/api'
import { currentPerson, type Person } from '../services/people'

type Parsed<K extends RouteKey, P extends 'body' | 'query'> = (typeof API)[K] extends Record<P, infer S> ? S extends z.ZodType ? z.output<S> : undefined : undefined
export interface Call<K extends RouteKey> {
  event: H3Event
  /** who calls; a public route may have nobody, and must not read this then */
  person: Person
  body: Parsed<K, 'body'>
  query: Parsed<K, 'query'>
  /** a numeric path parameter; 404 when it is no number */
  id: () => number
  param: (name: string) => string
}

function parse(schema: z.ZodType | undefined, value: unknown): unknown {
  if (!schema) return undefined
  const result = schema.safeParse(value ?? {})
  if (result.success) return result.data
  const fields: Record<string, string> = {}
  for (const issue of result.error.issues) fields[issue.path.join('.')] ??= issue.message
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

function problemOf(error: unknown): { status: number, problem: Problem } {
  if (error instanceof Fail) return { status: error.status, problem: error.problem }
  const { errno, statusCode } = error as { errno?: number, statusCode?: number }
  const known = errno === undefined ? undefined : ERRNO[errno]
  if (known) return { status: known[0], problem: { code: known[1], message: known[2] } }
  if (statusCode && statusCode >= 400 && statusCode < 500) return { status: statusCode, problem: { code: 'invalid', message: 'The request could not be read.' } }
  console.error(error)
  return { status: 500, problem: { code: 'unexpected', message: 'Something went wrong here. Nothing was saved; try again.' } }
}

/** A handler for one route of the registry: checks who calls, parses what it carries, and gives errors their one shape. */
export function route<K extends RouteKey, R>(key: K, handle: (call: Call<K>) => R | Promise<R>) {
  return defineEventHandler(async (event): Promise<R> => {
    try {
      await ready()
      const spec: RouteSpec = API[key]
      const person = await currentPerson(event)
      if (spec.roles !== 'public') {
        if (!person) throw fail(401, 'signed-out', 'Sign in first.')
        if (!spec.roles.includes(person.role)) throw fail(403, 'forbidden', `This is for ${spec.roles.join(', ')}.`)
      }
      const body = parse(spec.body, spec.body ? await readBody(event).catch(() => { throw fail(400, 'invalid', 'This is no readable JSON.') }) : undefined)
      const query = parse(spec.query, spec.query ? getQuery(event) : undefined)
      const param = (name: string) => getRouterParam(event, name) ?? ''
      const id = () => {
        if (!/^[1-9]\d{0,8}$/.test(param('id'))) throw notFound('page')
        return Number(param('id'))
      }
      return await handle({ event, person: person as Person, body, query, id, param } as Call<K>)
    }
    catch (error) {
      const { status, problem } = problemOf(error)
      setResponseStatus(event, status)
      return problem as R
    }
  })
}
