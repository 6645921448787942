import { readFileSync } from 'node:fs'
import { createServer } from 'node:net'

/** A process, and when it started: a number alone may have gone to a stranger since. */
export interface ProcessId {
  pid: number
  started: string
}

/**
 * When a process started, in the kernel's ticks; null when there is none, or it has ended and only nobody has asked
 * for its code yet.
 */
export function startOf(pid: number): string | null {
  try {
    const fields = readFileSync(`/proc/${pid}/stat`, 'utf8')
      .replace(/^.*\) /s, '')
      .split(' ')
    return /^[ZX]/.test(fields[0]!) ? null : (fields[19] ?? null)
  } catch {
    return null
  }
}
export const idOf = (pid: number): ProcessId => ({ pid, started: startOf(pid) ?? '' })
export const isAlive = ({ pid, started }: ProcessId): boolean => pid > 0 && started !== '' && startOf(pid) === started

export const pause = (ms: number) => new Promise<void>(resolve => setTimeout(resolve, ms))

/** Ends a process that is still the one we know: asked first, then made to. */
export async function endProcess(id: ProcessId, within_ms: number): Promise<void> {
  if (!isAlive(id)) return
  process.kill(id.pid, 'SIGTERM')
  for (const until = Date.now() + within_ms; Date.now() < until;) {
    if (!isAlive(id)) return
    await pause(50)
  }
  if (isAlive(id)) process.kill(id.pid, 'SIGKILL')
  while (isAlive(id)) await pause(20)
}

export const isPortFree = (port: number): Promise<boolean> =>
  new Promise(resolve => {
    const server = createServer()
    server.once('error', () => resolve(false))
    server.listen(port, '127.0.0.1', () => server.close(() => resolve(true)))
  })
