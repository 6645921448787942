/** Names of rows that no other shop's rows have. */
import { createHash } from 'node:crypto'

/** A name-based UUID, version 5 (RFC 9562, 5.5), of a name within a namespace. */
export function uuid5(namespace: string, name: string): string {
  const hash = createHash('sha1')
    .update(Buffer.from(namespace.replaceAll('-', ''), 'hex'))
    .update(name)
    .digest()
  hash[6] = (hash[6]! & 0x0f) | 0x50
  hash[8] = (hash[8]! & 0x3f) | 0x80
  return hash.toString('hex', 0, 16).replace(/^(.{8})(.{4})(.{4})(.{4})(.{12})$/, '$1-$2-$3-$4-$5')
}
/** Of a row that was made in the shop that `shopUid` names. */
export const uidOf = (shopUid: string, table: string, id: number): string => uuid5(shopUid, `${table}/${id}`)
