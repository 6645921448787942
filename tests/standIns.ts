/**
 * Stand-ins taken away and brought back by tests. The supervisor runs with HANTVERK_RESTART=never, so what is ended
 * stays away.
 */
import { readFileSync } from 'node:fs'

interface State {
  supervisor: { pid: number }
  parts: { name: string; id: { pid: number } | null }[]
}
const partOf = (name: string) =>
  (JSON.parse(readFileSync(process.env.HANTVERK_STATE!, 'utf8')) as State).parts.find(p => p.name === name)!

export function takeAway(name: 'web' | 'mail' | 'climate' | 'meter' | 'balance'): void {
  process.kill(partOf(name).id!.pid, 'SIGKILL')
}

/** Brings back what was taken away: the supervisor begins with it again. */
export function bringBack(): void {
  process.kill((JSON.parse(readFileSync(process.env.HANTVERK_STATE!, 'utf8')) as State).supervisor.pid, 'SIGUSR2')
}
