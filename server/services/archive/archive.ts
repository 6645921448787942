/** Archives as they are asked for, and taken in. */
import { db, transaction } from '../../database/db'
import { refusedLater } from '../colour/told'
import { recordFile } from '../papers/record'
import { logShop, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { readArchive } from './read'
import { writeArchive } from './write'

export const shopArchive = (at: Date) => writeArchive(db(), { pieceId: null, papers: [], at })

export async function pieceArchive(id: number, at: Date) {
  const piece = await db().row('SELECT id FROM piece WHERE id = :id', { id })
  if (!piece) throw notFound('piece')
  const papers = [await recordFile(id, undefined, at)]
  return writeArchive(db(), { pieceId: id, papers, at })
}

/** In a worker with limits, as every upload. */
const smallOf = async (data: Buffer): Promise<Uint8Array> => (await inWorker('picture', new Uint8Array(data))).thumb

/** All of it, or nothing. */
export const takeArchive = (path: string, person: Person, clock: () => Promise<Date>) =>
  transaction(async tx => {
    const read = await refusedLater(() => readArchive(tx, path, smallOf))
    const at = await clock()
    const sum = (of: Record<string, number>) => Object.values(of).reduce((n, x) => n + x, 0)
    const says = `Archive of ${read.from.slice(0, 80)} read in: ${sum(read.added)} rows added, ${sum(read.known)} known`
    await logShop(tx, 'shop', says, at, person.id)
    await tell(tx, 'pieces', null, at)
    await tell(tx, 'store', null, at)
    return read
  })
