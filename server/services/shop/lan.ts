import QRCode from 'qrcode'

/** How other devices open this shop; null where it is on no network. */
export async function lanPage() {
  const known = readLan()
  if (!known) return null
  const addresses = lanAddresses()
  const [first] = addresses
  const code = first ? await QRCode.toString(`${first}/trust`, { type: 'svg', margin: 2 }) : null
  return { addresses, code, fingerprint: known.fingerprint, until: known.until }
}
