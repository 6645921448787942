/** The shop's network: by which names and addresses this machine is reached there, and the certificate for them. */
import { lookup } from 'node:dns/promises'
import { networkInterfaces, hostname } from 'node:os'
import { BlockList } from 'node:net'
import { keepCertificate } from './authority'
import { type Profile, readIf, writeWhole } from './profile'

/** Only inside a house: nothing listens for a network that leads outside. */
const HOUSE = new BlockList()
for (const [net, bits] of [
  ['10.0.0.0', 8],
  ['172.16.0.0', 12],
  ['192.168.0.0', 16],
  ['100.64.0.0', 10],
] as const)
  HOUSE.addSubnet(net, bits, 'ipv4')
HOUSE.addSubnet('fc00::', 7, 'ipv6')

/** What web server and pages read: how the shop is opened from its network, the name first. */
export interface Lan {
  port: number
  hosts: string[]
}

export const lanDir = ({ dir }: Profile) => `${dir}/lan`
const fileOf = (profile: Profile) => `${lanDir(profile)}/lan.json`

/** `host.local`, where this network answers to it. */
async function localName(host: string): Promise<string[]> {
  const name = `${host.split('.')[0]}.local`.toLowerCase()
  try {
    const { address, family } = await lookup(name)
    return HOUSE.check(address, family === 6 ? 'ipv6' : 'ipv4') ? [name] : []
  } catch {
    return []
  }
}
const addresses = (): string[] =>
  Object.values(networkInterfaces())
    .flatMap(all => all ?? [])
    .filter(a => !a.internal && HOUSE.check(a.address, a.family === 'IPv6' ? 'ipv6' : 'ipv4'))
    .sort((a, b) => a.family.localeCompare(b.family))
    .map(a => a.address)

/** HANTVERK_LAN_HOST names the one address to listen on, where a machine stands in several networks. */
export const listensOn = () => process.env.HANTVERK_LAN_HOST ?? '::'

/** Name and addresses as they are now, with a certificate for them. True when either is new. */
export async function keepLan(profile: Profile, now_ms: number): Promise<boolean> {
  const one = process.env.HANTVERK_LAN_HOST
  const host = hostname()
  const hosts = one ? [one] : [...(await localName(host)), ...addresses()]
  const made = await keepCertificate(lanDir(profile), host, [...hosts, 'localhost', '127.0.0.1'], now_ms)
  const text = JSON.stringify({ port: profile.ports.lan, hosts } satisfies Lan)
  if (!made && readIf(fileOf(profile)) === text) return false
  writeWhole(fileOf(profile), text)
  return true
}
export const readLan = (profile: Profile) => JSON.parse(readIf(fileOf(profile)) ?? '{"port":0,"hosts":[]}') as Lan
export const lanUrls = ({ port, hosts }: Lan) => hosts.map(h => `https://${h.includes(':') ? `[${h}]` : h}:${port}`)
