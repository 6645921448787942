/** A profile of its own for tests of operations: real processes, on ports of their own, against 127.0.0.1 alone. */
import { spawn } from 'node:child_process'
import { existsSync, readFileSync, rmSync } from 'node:fs'
import { profileOf } from '../../ops/profile'
import type { State } from '../../ops/supervisor'

export const PROFILE = profileOf('crash')
export const WEB = `http://127.0.0.1:${PROFILE.ports.web}`
const MAIN = ['node_modules/jiti/lib/jiti-cli.mjs', 'ops/main.ts']

export interface Done {
  code: number | null
  says: string
}
/** Runs a command of ops/main.ts to its end. */
export function ops(args: readonly string[], env: Record<string, string> = {}): Promise<Done> {
  return new Promise(resolve => {
    const child = spawn(process.execPath, [...MAIN, ...args], {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'pipe', 'pipe'],
    })
    let says = ''
    for (const stream of [child.stdout, child.stderr])
      stream.on('data', (chunk: Buffer) => {
        says += chunk.toString()
      })
    child.on('close', code => resolve({ code, says }))
  })
}

/** Starts the profile as the start command does; resolves when all of it answers. */
export async function up(env: Record<string, string> = {}): Promise<void> {
  const child = spawn(process.execPath, [...MAIN, 'run', 'crash'], {
    env: { ...process.env, ...env },
    stdio: 'ignore',
    detached: true,
  })
  child.unref()
  const { code, says } = await ops(['wait', 'crash'])
  if (code !== 0) throw new Error(says)
}
export const down = () => ops(['stop', 'crash'])
export async function fresh(env: Record<string, string> = {}): Promise<void> {
  await down()
  rmSync(PROFILE.dir, { recursive: true, force: true })
  await up(env)
}
export const state = (): State => JSON.parse(readFileSync(`${PROFILE.dir}/state.json`, 'utf8')) as State
export const partOf = (name: string) => state().parts.find(p => p.name === name)!
export const logOf = (name: string) =>
  existsSync(`${PROFILE.dir}/logs/${name}.log`) ? readFileSync(`${PROFILE.dir}/logs/${name}.log`, 'utf8') : ''
/** The shop's answer on an address, or what the line said. */
export async function answer(
  path: string,
  init: RequestInit = {},
): Promise<{ status: number; ms: number; text: string }> {
  const begun = performance.now()
  try {
    const reply = await fetch(WEB + path, { signal: AbortSignal.timeout(15_000), ...init })
    return { status: reply.status, ms: performance.now() - begun, text: await reply.text() }
  } catch (error) {
    return { status: 0, ms: performance.now() - begun, text: (error as Error).message }
  }
}
