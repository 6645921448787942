/** The shop's own certificate authority, by openssl: it can speak for what is inside a house, and for nothing else. */
import { execFile } from 'node:child_process'
import { createPrivateKey, randomBytes, X509Certificate } from 'node:crypto'
import { readFileSync, renameSync, rmSync, statSync, writeFileSync } from 'node:fs'
import { isIP } from 'node:net'
import { promisify } from 'node:util'
import { privateDir, writeWhole } from './profile'

/** An authority is trusted by hand on each device, so it lasts; Apple's devices take no server's certificate longer. */
const AUTHORITY_DAYS = 3650
const SERVER_DAYS = 397
/** A certificate is made anew so long before it ends. */
const RENEW_DAYS = 60
const DAY_MS = 86_400_000

/** RFC 1918, RFC 6598, RFC 3927, RFC 4193, RFC 4291: addresses that lead nowhere outside; and this machine itself. */
const INSIDE = [
  'IP:10.0.0.0/255.0.0.0',
  'IP:172.16.0.0/255.240.0.0',
  'IP:192.168.0.0/255.255.0.0',
  'IP:100.64.0.0/255.192.0.0',
  'IP:169.254.0.0/255.255.0.0',
  'IP:127.0.0.0/255.0.0.0',
  'IP:fc00::/fe00::',
  'IP:fe80::/ffc0::',
  'IP:::1/ffff:ffff:ffff:ffff:ffff:ffff:ffff:ffff',
  'DNS:local',
  'DNS:localhost',
]

const run = promisify(execFile)
const openssl = (...args: string[]) => run('openssl', args)

export interface CertificateFiles {
  authority: string
  authorityKey: string
  server: string
  serverKey: string
}
export const certificateFiles = (dir: string): CertificateFiles => ({
  authority: `${dir}/authority.pem`,
  authorityKey: `${dir}/authority.key`,
  server: `${dir}/server.pem`,
  serverKey: `${dir}/server.key`,
})

async function makeKey(path: string) {
  // made under a mask: never readable by others, not even while it is written
  const mask = process.umask(0o077)
  try {
    await openssl('genpkey', '-algorithm', 'EC', '-pkeyopt', 'ec_paramgen_curve:P-256', '-out', `${path}.part`)
    renameSync(`${path}.part`, path)
  } finally {
    process.umask(mask)
  }
}
/** What a name may be in a certificate's subject and openssl's settings. */
const plain = (text: string) => text.replace(/[^A-Za-z0-9 .-]/g, '').slice(0, 50)

async function makeAuthority(files: CertificateFiles, host: string) {
  await makeKey(files.authorityKey)
  const settings = `${files.authority}.cnf`
  writeFileSync(
    settings,
    `[req]
distinguished_name = dn
x509_extensions = ext
prompt = no
[dn]
CN = Hantverk on ${plain(host)}
[ext]
basicConstraints = critical, CA:TRUE, pathlen:0
keyUsage = critical, keyCertSign
subjectKeyIdentifier = hash
nameConstraints = critical, ${[...INSIDE, `DNS:${plain(host)}`].map(x => `permitted;${x}`).join(', ')}
`,
  )
  const { stdout } = await openssl(
    ...['req', '-x509', '-new', '-key', files.authorityKey, '-config', settings],
    ...['-days', String(AUTHORITY_DAYS)],
  )
  writeWhole(files.authority, stdout)
  rmSync(settings)
}

async function makeServer(files: CertificateFiles, names: readonly string[]) {
  // the same key for another address: a web server that reads in between finds no pair that does not match
  if (!privateKey(files.serverKey)) await makeKey(files.serverKey)
  const settings = `${files.server}.cnf`
  writeFileSync(
    settings,
    `basicConstraints = critical, CA:FALSE
keyUsage = critical, digitalSignature
extendedKeyUsage = serverAuth
authorityKeyIdentifier = keyid
subjectAltName = ${names.map(n => `${isIP(n) ? 'IP' : 'DNS'}:${n}`).join(', ')}
`,
  )
  const request = `${files.server}.csr`
  await openssl('req', '-new', '-key', files.serverKey, '-subj', '/CN=Hantverk', '-out', request)
  const { stdout } = await openssl(
    ...['x509', '-req', '-in', request, '-CA', files.authority, '-CAkey', files.authorityKey],
    ...['-days', String(SERVER_DAYS), '-extfile', settings, '-set_serial', `0x${randomBytes(16).toString('hex')}`],
  )
  writeWhole(files.server, stdout)
  rmSync(settings)
  rmSync(request)
}

const certificate = (path: string): X509Certificate | null => {
  try {
    return new X509Certificate(readFileSync(path))
  } catch {
    return null
  }
}
const privateKey = (path: string) => {
  try {
    return createPrivateKey(readFileSync(path))
  } catch {
    return null
  }
}
const matches = (c: X509Certificate, keyPath: string) => {
  const key = privateKey(keyPath)
  return key !== null && c.checkPrivateKey(key)
}
const lastsOver = (c: X509Certificate, now_ms: number) => Date.parse(c.validTo) - now_ms > RENEW_DAYS * DAY_MS
const namesOf = (c: X509Certificate) =>
  (c.subjectAltName ?? '').split(', ').map(n => n.slice(n.indexOf(':') + 1).toLowerCase())
const normal = (name: string) => (isIP(name) === 6 ? longForm(name) : name.toLowerCase())
/** As Node writes an IPv6 address of a certificate: eight groups, none left out. */
function longForm(address: string): string {
  const [left = [], right = []] = address.split('::').map(p => p.split(':').filter(Boolean))
  const groups = [...left, ...Array<string>(8 - left.length - right.length).fill('0'), ...right]
  return groups.map(g => Number.parseInt(g, 16).toString(16)).join(':')
}

/** @throws Error when the key could be read by others. */
function checkPrivate(path: string) {
  if ((statSync(path).mode & 0o077) !== 0)
    throw new Error(`The key ${path} can be read by others. Take the directory it lies in away: new ones are made.`)
}

/**
 * An authority and a certificate of it for these names and addresses, made where they are missing, near their end, or
 * for others. True when anything was made. A new authority must be trusted anew on every device.
 */
export async function keepCertificate(
  dir: string,
  host: string,
  names: readonly string[],
  now_ms: number,
): Promise<boolean> {
  const files = certificateFiles(privateDir(dir))
  let authority = certificate(files.authority)
  const fresh = !authority || !matches(authority, files.authorityKey) || !lastsOver(authority, now_ms)
  if (fresh) {
    await makeAuthority(files, host)
    authority = certificate(files.authority)
  }
  checkPrivate(files.authorityKey)
  const server = certificate(files.server)
  const good =
    !fresh &&
    server !== null &&
    matches(server, files.serverKey) &&
    server.verify(authority!.publicKey) &&
    lastsOver(server, now_ms) &&
    names.every(n => namesOf(server).includes(normal(n)))
  if (!good) await makeServer(files, names)
  return !good
}
