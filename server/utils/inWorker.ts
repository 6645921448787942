// eslint-disable-next-line @typescript-eslint/triple-slash-reference -- it declares a module that only the bundler has
/// <reference path="../workers/address.d.ts" />
import { availableParallelism } from 'node:os'
import { Piscina } from 'piscina'
import address from 'worker-url:heavy'
import type * as heavy from '../workers/heavy'

type Heavy = typeof heavy
type Work = { [K in keyof Heavy as Heavy[K] extends (input: never) => unknown ? K : never]: Heavy[K] }
type Name = keyof Work
type Input<K extends Name> = Parameters<Work[K]>[0]
type Output<K extends Name> = Awaited<ReturnType<Work[K]>>

/** Two threads on a small machine, three on a larger one; what waits beyond the bound is asked to come again. */
const THREADS = Math.min(3, Math.max(2, availableParallelism() - 1))
const MOST_WAITING = 16
const WITHIN_MS = 20_000

let pool: Piscina | undefined
const open = () =>
  (pool ??= new Piscina({
    filename: address,
    minThreads: 1,
    maxThreads: THREADS,
    maxQueue: MOST_WAITING,
    idleTimeout: 60_000,
    resourceLimits: { maxOldGenerationSizeMb: 512 },
  }))

/**
 * Runs a heavy work of `server/workers/heavy.ts` in a thread, so that nobody else waits for it. Stopped after 20 s, or
 * by `signal`.
 * @throws Fail 503 when too much waits already, or it took too long; whatever the work itself throws.
 */
export async function inWorker<K extends Name>(
  name: K,
  input: Input<K>,
  { signal, within_ms = WITHIN_MS }: { signal?: AbortSignal; within_ms?: number } = {},
): Promise<Output<K>> {
  const late = AbortSignal.timeout(within_ms)
  try {
    return (await open().run(input, { name, signal: signal ? AbortSignal.any([signal, late]) : late })) as Output<K>
  } catch (error) {
    const { name: kind, message } = error as Error
    if (late.aborted)
      throw fail(503, 'too-long', 'This takes too long to work out here. Look at its sizes, or try again in a moment.')
    if (kind === 'AbortError') throw fail(503, 'gone', 'Nobody waits for this any more.')
    if (/queue|limit/i.test(message) && kind === 'Error')
      throw fail(503, 'busy', 'Much is being worked out just now. Try again in a moment.')
    throw error
  }
}

/** Errors of core, thrown in a thread, become refusals with the same words. */
export async function refusedInWorker<T>(work: Promise<T>, field?: string): Promise<T> {
  try {
    return await work
  } catch (error) {
    const { name, message } = error as Error
    throw name === 'RangeError' ? fail(422, 'invalid', message, field ? { [field]: message } : undefined) : error
  }
}

/** Aborted when whoever asked has gone away. */
export function goneSignal(event: {
  node: { res: { once: (name: 'close', tell: () => void) => unknown; writableFinished: boolean } }
}): AbortSignal {
  const gone = new AbortController()
  event.node.res.once('close', () => {
    if (!event.node.res.writableFinished) gone.abort()
  })
  return gone.signal
}

export const closeWorkers = async (): Promise<void> => {
  await pool?.destroy()
}
