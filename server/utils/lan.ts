import { X509Certificate } from 'node:crypto'
import { readFileSync, statSync } from 'node:fs'

/** How the shop is opened from its own network: written by the start command, and again when an address changes. */
interface Lan {
  port: number
  hosts: string[]
}
interface Known {
  stamp: string
  lan: Lan
  certificate: string
  key: string
  /** SHA-256 of the authority, as devices show it */
  fingerprint: string
  until: string
}
let known: Known | null = null

const FILES = ['lan.json', 'server.pem', 'server.key', 'authority.pem'] as const
const dir = () => useRuntimeConfig().lanDir
const stampOf = () => FILES.map(f => statSync(`${dir()}/${f}`).mtimeMs).join()

/** What stands on the disk now; the same object while nothing changed, null where the shop is on no network. */
export function readLan(): Known | null {
  if (!dir()) return null
  const stamp = stampOf()
  if (known?.stamp === stamp) return known
  const text = (name: (typeof FILES)[number]) => readFileSync(`${dir()}/${name}`, 'utf8')
  const authority = new X509Certificate(text('authority.pem'))
  known = {
    stamp,
    lan: JSON.parse(text('lan.json')) as Lan,
    certificate: text('server.pem'),
    key: text('server.key'),
    fingerprint: authority.fingerprint256,
    until: new Date(authority.validTo).toISOString(),
  }
  return known
}

/** `https://…` of every name and address on the shop's network, the name first. */
export function lanAddresses(): string[] {
  const { port = 0, hosts = [] } = known?.lan ?? {}
  return hosts.map(h => `https://${h.includes(':') ? `[${h}]` : h}:${port}`)
}
/** The authority itself, for a device that is to trust it. @throws Fail 404 where there is none. */
export function authorityFile(): string {
  if (!dir()) throw notFound('certificate')
  return readFileSync(`${dir()}/authority.pem`, 'utf8')
}
