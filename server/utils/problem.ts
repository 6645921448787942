import type { Problem } from '#shared/api'

/** An error with a status and words for a restorer. Anything else that is thrown becomes a plain 500. */
export class Fail extends Error {
  constructor(
    readonly status: number,
    readonly problem: Problem,
  ) {
    super(problem.message)
  }
}
export const fail = (status: number, code: string, message: string, fields?: Record<string, string>): Fail =>
  new Fail(status, fields ? { code, message, fields } : { code, message })
export const notFound = (what: string): Fail => fail(404, 'not-found', `There is no such ${what}.`)
export const stale = (): Fail =>
  fail(409, 'stale', 'Somebody else changed this in the meantime. It has been loaded again; look and repeat.')
