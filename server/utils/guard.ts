import type { H3Event } from 'h3'

const READS = new Set(['GET', 'HEAD', 'OPTIONS'])
export const isWrite = (event: H3Event) => !READS.has(event.method)

const originOf = (address: string) => {
  try {
    return new URL(address).origin
  } catch {
    return null
  }
}

/** The shop's own addresses: the public base, the address it listens on, those named beside it, and its network. */
export function ownOrigins(): Set<string> {
  const { publicBase, ownAddresses } = useRuntimeConfig()
  const all = [publicBase, ...ownAddresses.split(','), ...lanAddresses()]
  return new Set(all.map(a => originOf(a.trim())).filter(o => o !== null))
}

/**
 * A write must come from a page of this shop: a browser says so by `Origin`, or by `Sec-Fetch-Site` where it sends no
 * origin.
 * @throws Fail 403.
 */
export function checkOrigin(event: H3Event): void {
  const origin = getHeader(event, 'origin')
  const site = getHeader(event, 'sec-fetch-site')
  const foreign = site !== undefined && site !== 'same-origin'
  if (foreign || (origin === undefined ? site === undefined : !ownOrigins().has(origin))) {
    throw fail(
      403,
      'foreign',
      'This did not come from a page of this shop, so it was not done. Open the shop by its own address and repeat.',
    )
  }
}

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[1-8][0-9a-f]{3}-[89ab][0-9a-f]{3}-[0-9a-f]{12}$/i

/** The UUID that the sender made for this write. @throws Fail 400 without one. */
export function uuidOf(event: H3Event): string {
  const uuid = getHeader(event, 'idempotency-key') ?? ''
  if (!UUID.test(uuid))
    throw fail(
      400,
      'no-uuid',
      'This write carries no UUID of its own (header Idempotency-Key), so it could not be repeated ' +
        'safely. Load the page again.',
    )
  return uuid.toLowerCase()
}

/** The address that a request came from: the socket's, never a header that anybody can write. */
export const addressOf = (event: H3Event): string =>
  (event.node.req.socket.remoteAddress ?? '').replace(/^::ffff:/, '').slice(0, 45)
