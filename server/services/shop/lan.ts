import QRCode from 'qrcode'

/** How other devices open this shop, where it is on its network. */
export async function lanPage() {
  const known = readLan()
  if (!known) return { on: false as const }
  const addresses = lanAddresses()
  const [first] = addresses
  const code = first ? await QRCode.toString(`${first}/trust`, { type: 'svg', margin: 2 }) : null
  return { on: true as const, addresses, code, fingerprint: known.fingerprint, until: known.until }
}
