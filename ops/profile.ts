import { createHash } from 'node:crypto'
import { chmodSync, existsSync, mkdirSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs'
import { tmpdir, userInfo } from 'node:os'
import { fileURLToPath } from 'node:url'

export const ROOT = fileURLToPath(new URL('..', import.meta.url)).replace(/\/$/, '')

/** Each profile has a directory, a database server and a row of ports of its own. */
const FIRST_PORT = { shop: 4170, demo: 4180, test: 4290, bench: 4390, crash: 4490, dev: 4590 } as const
export type ProfileName = keyof typeof FIRST_PORT
export const isProfile = (name: string): name is ProfileName => Object.hasOwn(FIRST_PORT, name)

export interface Profile {
  name: ProfileName
  dir: string
  /** web, smtp, mail page, climate, database, a second web, swab reader, colour meter, balance, the shop's network */
  ports: {
    web: number
    smtp: number
    mails: number
    climate: number
    sql: number
    second: number
    swab: number
    meter: number
    balance: number
    lan: number
  }
  socket: string
}

/** A path of a socket may have about a hundred characters. */
const LONGEST_SOCKET = 100
function socketOf(dir: string): string {
  const near = `${dir}/run/s.sock`
  return near.length < LONGEST_SOCKET
    ? near
    : `${tmpdir()}/hantverk-${createHash('sha256').update(dir).digest('hex').slice(0, 12)}/s.sock`
}

export function profileOf(name: ProfileName): Profile {
  const first = FIRST_PORT[name]
  const dir = `${process.env.HANTVERK_DATA ?? `${ROOT}/.data`}/${name}`
  const [web, smtp, mails, climate, sql, second, swab, meter, balance, lan] = Array.from(
    { length: 10 },
    (_, i) => first + i,
  ) as [number, number, number, number, number, number, number, number, number, number]
  const ports = { web, smtp, mails, climate, sql, second, swab, meter, balance, lan }
  return { name, dir, ports, socket: socketOf(dir) }
}

/** A directory that only its owner can enter. @throws Error when it belongs to somebody else. */
export function privateDir(path: string, mode = 0o700): string {
  mkdirSync(path, { recursive: true, mode })
  const { uid } = statSync(path)
  if (uid !== userInfo().uid && userInfo().uid !== 0)
    throw new Error(`${path} belongs to another user of this machine; it is not used.`)
  if (uid === userInfo().uid || userInfo().uid === 0) chmodSync(path, mode)
  return path
}

/** Writes a file so that a reader finds the old one or the new one, never half of it. */
export function writeWhole(path: string, text: string, mode = 0o600): void {
  writeFileSync(`${path}.part`, text, { mode })
  renameSync(`${path}.part`, path)
}
export const readIf = (path: string): string | null => (existsSync(path) ? readFileSync(path, 'utf8').trim() : null)

/** The database that the shop works on now; a restore turns this to another. */
const FIRST_DATABASE = 'hantverk'
export const currentDatabase = ({ dir }: Profile): string => readIf(`${dir}/database`) ?? FIRST_DATABASE
export const turnDatabase = ({ dir }: Profile, name: string): void => writeWhole(`${dir}/database`, `${name}\n`)
export const existsIn = (dir: string, name: string): boolean => existsSync(dir ? `${dir}/${name}` : name)
