import { randomBytes } from 'node:crypto'
import { existsSync, readFileSync, renameSync, statSync, writeFileSync } from 'node:fs'
import { userInfo } from 'node:os'
import { privateDir, type Profile, readIf, writeWhole } from './profile'

/**
 * Keys, each its own, each a file that only its owner can read: `session` seals sign-in cookies, `links` makes the
 * links in clients' mails, `pin` is for people's PINs on a shared tablet, `database` is the database user's password.
 * None is ever an argument of a command.
 */
export const KEYS = ['session', 'links', 'pin', 'database'] as const
export type KeyName = (typeof KEYS)[number]
export type Keys = Record<KeyName, string> & { sessionBefore: string; sessionBeforeUntil: string }

/** A turned session key is still taken for this long. */
const BEFORE_H = 24

const dirOf = (profile: Profile) => privateDir(`${profile.dir}/keys`)

/** @throws Error when somebody else could read the file. */
function readKey(path: string): string {
  const { mode, uid } = statSync(path)
  if (uid !== userInfo().uid)
    throw new Error(`The key ${path} belongs to another user of this machine. Hantverk does not start with it.`)
  if ((mode & 0o077) !== 0) {
    throw new Error(
      `The key ${path} can be read by others (mode ${(mode & 0o777).toString(8)}). If nobody has read it: ` +
        `chmod 600 ${path}. Else turn the keys: ./hantverk keys.`,
    )
  }
  const key = readFileSync(path, 'utf8').trim()
  if (key.length < 32)
    throw new Error(`The key ${path} is too short. Take it away, and a new one is made at the next start.`)
  return key
}
const makeKey = (path: string) =>
  writeFileSync(path, `${randomBytes(32).toString('hex')}\n`, { mode: 0o600, flag: 'wx' })

/** All keys of a profile; those that are missing are made. @throws Error in words when one is not safe. */
export function readKeys(profile: Profile): Keys {
  const dir = dirOf(profile)
  const keys = {} as Keys
  for (const name of KEYS) {
    if (!existsSync(`${dir}/${name}`)) makeKey(`${dir}/${name}`)
    keys[name] = readKey(`${dir}/${name}`)
  }
  const until = readIf(`${dir}/session.until`) ?? ''
  const still = until !== '' && Date.parse(until) > Date.now() && existsSync(`${dir}/session.before`)
  return {
    ...keys,
    sessionBefore: still ? readKey(`${dir}/session.before`) : '',
    sessionBeforeUntil: still ? until : '',
  }
}

/**
 * Turns the keys: new ones from the next start of the web server on; cookies sealed with the session key before are
 * taken for another day.
 */
export function turnKeys(profile: Profile): void {
  const dir = dirOf(profile)
  if (existsSync(`${dir}/session`)) {
    renameSync(`${dir}/session`, `${dir}/session.before`)
    writeWhole(`${dir}/session.until`, new Date(Date.now() + BEFORE_H * 3_600_000).toISOString())
  }
  for (const name of KEYS) {
    if (name !== 'session' && existsSync(`${dir}/${name}`)) renameSync(`${dir}/${name}`, `${dir}/${name}.before`)
    makeKey(`${dir}/${name}`)
  }
}
