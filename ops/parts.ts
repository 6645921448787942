import { connect } from 'node:net'
import { answers, createDatabase, databaseUrl, secureUsers, serverCommand } from './database'
import { readKeys } from './keys'
import { lanDir, listensOn } from './lan'
import type { PartSpec } from './part'
import { currentDatabase, type Profile, ROOT } from './profile'

/**
 * Does it say anything within time, at once or to these words? A stopped process still takes connections, but never
 * speaks.
 */
const speaks =
  (port: number, words: string) =>
  (within_ms: number): Promise<boolean> =>
    new Promise(resolve => {
      const socket = connect({ host: '127.0.0.1', port })
      const give = (yes: boolean) => {
        socket.destroy()
        resolve(yes)
      }
      socket.setTimeout(within_ms, () => give(false))
      socket
        .once('connect', () => words && socket.write(words))
        .once('data', () => give(true))
        .once('error', () => give(false))
    })

/** Any answer of the web server counts: while the database is away it says so. */
const serves =
  (port: number) =>
  async (within_ms: number): Promise<boolean> => {
    try {
      await fetch(`http://127.0.0.1:${port}/api/health`, { signal: AbortSignal.timeout(within_ms) })
      return true
    } catch {
      return false
    }
  }

const MINUTE_MS = 60_000
export function databasePart(profile: Profile, flush: 1 | 2): PartSpec {
  // a password that was turned since is refused, and that is an answer too
  const { database: password } = readKeys(profile)
  return {
    name: 'database',
    port: profile.ports.sql,
    essential: true,
    startWithin_ms: 10 * MINUTE_MS,
    endWithin_ms: MINUTE_MS,
    frozenAfter: 4,
    start: () => serverCommand(profile, flush),
    probe: within_ms => answers(profile, password, within_ms),
    prepare: () => secureUsers(profile, readKeys(profile).database),
  }
}

export interface Web {
  name: string
  port: number
  mode: 'shop' | 'demo' | 'test'
  /** from the sources, with hot reload */ fromSource?: boolean
  /** null: the one that the shop works on now */ database: string | null
  /** also on the shop's network */ lan?: boolean
}
export function webPart(profile: Profile, web: Web): PartSpec {
  const { ports } = profile
  const own = `http://127.0.0.1:${web.port}`
  const database = () => web.database ?? currentDatabase(profile)
  return {
    name: web.name,
    port: web.port,
    essential: true,
    startWithin_ms: 2 * MINUTE_MS,
    endWithin_ms: 10_000,
    frozenAfter: 3,
    start: () => {
      const keys = readKeys(profile)
      const base = process.env.HANTVERK_PUBLIC_BASE ?? own
      return {
        command: process.execPath,
        args: web.fromSource
          ? [
              `${ROOT}/node_modules/@nuxt/cli/bin/nuxi.mjs`,
              'dev',
              ROOT,
              '--host',
              '127.0.0.1',
              '--port',
              String(web.port),
            ]
          : [`${ROOT}/.output/server/index.mjs`],
        env: {
          NODE_ENV: web.fromSource ? 'development' : 'production',
          HOST: '127.0.0.1',
          PORT: String(web.port),
          NUXT_MODE: web.mode,
          NUXT_DATABASE_URL: databaseUrl(profile, keys.database, database()),
          NUXT_SESSION_KEY: keys.session,
          NUXT_SESSION_KEY_BEFORE: keys.sessionBefore,
          NUXT_SESSION_KEY_BEFORE_UNTIL: keys.sessionBeforeUntil,
          NUXT_LINK_KEY: keys.links,
          NUXT_PUBLIC_BASE: base,
          NUXT_OWN_ADDRESSES: `${own},http://localhost:${web.port}`,
          NUXT_LAN_DIR: web.lan ? lanDir(profile) : '',
          NUXT_LAN_HOST: listensOn(),
          NUXT_COOKIE_SECURE: String(base.startsWith('https:')),
          NUXT_SMTP_URL: process.env.HANTVERK_SMTP ?? `smtp://127.0.0.1:${ports.smtp}`,
          NUXT_CLIMATE_URL: process.env.HANTVERK_CLIMATE ?? `http://127.0.0.1:${ports.climate}/reading`,
          NUXT_WEATHER_URL: process.env.HANTVERK_WEATHER ?? `http://127.0.0.1:${ports.climate}/weather`,
          NUXT_SWAB_URL: process.env.HANTVERK_SWAB ?? `http://127.0.0.1:${ports.swab}/read`,
          NUXT_METER_LINE: process.env.HANTVERK_METER ?? `127.0.0.1:${ports.meter}`,
          NUXT_BALANCE_LINE: process.env.HANTVERK_BALANCE ?? `127.0.0.1:${ports.balance}`,
        },
      }
    },
    probe: serves(web.port),
    // the very first page costs a second
    prepare: async () => {
      await fetch(`${own}/sign-in`, { signal: AbortSignal.timeout(MINUTE_MS) }).catch(() => null)
    },
  }
}
/** Where a web server's database is made before it starts. */
export const makeDatabase = (profile: Profile, web: Web) =>
  createDatabase(profile, web.database ?? currentDatabase(profile))

/** No HTTP at all: answered with 400, and by no reading. */
const NO_REQUEST = 'ARE YOU THERE\r\n\r\n'
/** Simulated outside things; a shop that names its own does without. */
export function standInParts(profile: Profile): PartSpec[] {
  const { ports, dir } = profile
  const standIn = (name: string, port: number, words: string, ...args: (string | number)[]): PartSpec => ({
    name,
    port,
    essential: false,
    startWithin_ms: 20_000,
    endWithin_ms: 3000,
    frozenAfter: 3,
    probe: speaks(port, words),
    start: () => ({
      command: process.execPath,
      args: [
        `${ROOT}/node_modules/jiti/lib/jiti-cli.mjs`,
        `${ROOT}/standins/${name}.ts`,
        String(port),
        ...args.map(String),
      ],
    }),
  })
  return [
    standIn('mail', ports.smtp, '', ports.mails, `${dir}/letters.jsonl`),
    standIn('climate', ports.climate, NO_REQUEST),
    standIn('swab', ports.swab, NO_REQUEST),
    standIn('meter', ports.meter, 'ARE YOU THERE\r\n'),
    standIn('balance', ports.balance, ''),
  ]
}
