/** Stand-ins taken away and brought back by tests. The supervisor runs with HANTVERK_RESTART=no, so what is ended stays away. */
import { spawn } from 'node:child_process'
import { readFileSync } from 'node:fs'

interface State { parts: { name: string, port: number, id: { pid: number } | null }[] }
const partOf = (name: string) => (JSON.parse(readFileSync(process.env.HANTVERK_STATE!, 'utf8')) as State).parts.find(p => p.name === name)!

export function takeAway(name: 'mail' | 'climate' | 'meter' | 'balance'): void {
  process.kill(partOf(name).id!.pid, 'SIGKILL')
}

/** Brings a stand-in back for as long as this process of tests runs. */
export function bringBack(name: 'mail' | 'climate' | 'meter' | 'balance'): void {
  const { port } = partOf(name)
  const more = name === 'mail' ? [String(port + 1)] : []
  const again = spawn(process.execPath, ['node_modules/jiti/lib/jiti-cli.mjs', `standins/${name}.ts`, String(port), ...more], { stdio: 'ignore' })
  again.unref()
  process.on('exit', () => again.kill('SIGKILL'))
}
