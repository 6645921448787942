import { randomInt } from 'node:crypto'
import { Hash } from '@adonisjs/hash'
import { Scrypt } from '@adonisjs/hash/drivers/scrypt'
import common from '@zxcvbn-ts/language-common'

/**
 * scrypt as OWASP's sheet on storing passwords advises: N = 2^17, r = 8, p = 1, 128 MiB a time. A hash made otherwise
 * is made anew when its owner signs in.
 */
const COST = 2 ** 17
const hash = new Hash(new Scrypt({ cost: COST, blockSize: 8, parallelization: 1, maxMemory: 256 * 2 ** 20 }))

/** Each takes half a second of a processor: two at a time, some wait, the rest come again. */
const AT_ONCE = 2
const MOST_WAITING = 30
let running = 0
const waiting: (() => void)[] = []
async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (running >= AT_ONCE) {
    if (waiting.length >= MOST_WAITING) throw fail(503, 'busy', 'Many sign in at once just now. Try again in a moment.')
    await new Promise<void>(resolve => waiting.push(resolve))
  }
  running++
  try {
    return await work()
  } finally {
    running--
    waiting.shift()?.()
  }
}

export const hashOf = (password: string): Promise<string> => inTurn(() => hash.make(password))

/**
 * A PIN has few figures whatever it is hashed by: it opens only a registered tablet, ten tries long, so it may be
 * quick for somebody in gloves.
 */
const PIN_COST = 2 ** 14
const pinHash = new Hash(new Scrypt({ cost: PIN_COST, blockSize: 8, parallelization: 1 }))
export const pinHashOf = (pin: string): Promise<string> => inTurn(() => pinHash.make(pin))
export const isPin = (stored: string, pin: string): Promise<boolean> => inTurn(() => pinHash.verify(stored, pin))

let nobody: Promise<string> | undefined
/** Is this the password of this hash? Without a hash it takes as long, and is none. */
export async function isPassword(stored: string | null, password: string): Promise<boolean> {
  const against = stored ?? (await (nobody ??= hashOf('nobody has this')))
  return (await inTurn(() => hash.verify(against, password))) && stored !== null
}
export const isOldHash = (stored: string): boolean => hash.needsReHash(stored)

const SHORTEST = 10
/** Passwords that people take most often, from a published list; shorter ones are refused anyway. */
const COMMON = new Set(
  common.dictionary.passwords.filter((p): p is string => typeof p === 'string' && p.length >= SHORTEST),
)

const refuse = (says: string) => fail(422, 'weak-password', says, { password: says })
/** Refuses a password that others guess first. @throws Fail 422. */
export function checkPassword(password: string, names: readonly string[]): void {
  const plain = password.toLowerCase().trim()
  if (plain.length < SHORTEST) throw refuse(`Take a password of ${SHORTEST} characters or more.`)
  if (new Set(plain).size < 4) throw refuse('This is the same few characters again and again. Take another.')
  if (COMMON.has(plain)) throw refuse('This is among the passwords that people take most often. Take another.')
  const word = names.map(n => n.toLowerCase().trim()).find(n => n.length > 3 && plain.replace(n, '').length < 5)
  if (word) throw refuse('This is little more than a name. Take another.')
}

/** Letters and figures that cannot be mistaken for each other, by hand or on the telephone. */
const CLEAR = 'abcdefghjkmnpqrstuvwxyz23456789'
/** A password for one sign-in: three groups of four, 59 bits. */
export const oneTimePassword = (): string =>
  [1, 2, 3].map(() => Array.from({ length: 4 }, () => CLEAR[randomInt(CLEAR.length)]).join('')).join('-')
