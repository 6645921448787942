/**
 * What this device carries for hours without a line: what its pages read last, who stood at it, the server's clock,
 * and what was done and has not gone in yet. In IndexedDB, by idb.
 */
import { type DBSchema, type IDBPDatabase, openDB } from 'idb'

/** An answer as it was read. `build`: of another build of the program it may have another shape, and is not used. */
export interface Read {
  build: string
  /** by the server's clock */
  at_ms: number
  answer: unknown
}
interface Carried extends DBSchema {
  read: { key: string; value: Read }
  waiting: { key: number; value: Waiting }
  known: { key: string; value: unknown }
}
/** A write that waits for the line. Its number gives the order. */
export interface Waiting {
  no?: number
  /** the same, however often it is sent */
  uuid: string
  key: string
  asking: Record<string, unknown>
  /** a photograph that goes with it */
  picture: Blob | null
  /** in words, for whoever looks what waits */
  says: string
  personId: number
  person: string
  /** a name was touched at the tablet, and nobody could look at the PIN */
  byName: boolean
  pieceId: number | null
  stepId: number | null
  happened_ms: number
  /** the act on the same step before it that waited too */
  follows: string | null
  /** why the server did not take it; null while it was not asked */
  refused: string | null
}

/** Longer than this nothing is carried. */
export const CARRIED_MS = 72 * 3_600_000
const SLOW_MS = 3000

let opened: Promise<IDBPDatabase<Carried>> | undefined
const open = () =>
  (opened ??= openDB<Carried>('hantverk', 1, {
    upgrade(db) {
      db.createObjectStore('read')
      db.createObjectStore('waiting', { keyPath: 'no', autoIncrement: true })
      db.createObjectStore('known')
    },
    // another page of this device has a newer program
    blocking: (_is, _wants, event) => (event.target as IDBDatabase).close(),
    terminated: () => (opened = undefined),
  }))

/** @throws where the device keeps nothing: storage is refused, full, or does not answer. */
async function within<T>(work: (db: IDBPDatabase<Carried>) => Promise<T>): Promise<T> {
  let timer: ReturnType<typeof setTimeout> | undefined
  const late = new Promise<never>((_, reject) => {
    timer = setTimeout(() => reject(new Error('The storage of this device does not answer.')), SLOW_MS)
  })
  try {
    return await Promise.race([open().then(work), late])
  } catch (error) {
    opened = undefined
    throw error
  } finally {
    clearTimeout(timer)
  }
}
/** Nothing where the device keeps nothing: what is only carried for comfort fails without a word. */
const quietly = <T>(work: (db: IDBPDatabase<Carried>) => Promise<T>) => within(work).catch(() => undefined)

export const readCarried = async (address: string, build: string, now_ms: number): Promise<Read | null> => {
  const read = await quietly(db => db.get('read', address))
  return read?.build === build && now_ms - read.at_ms < CARRIED_MS ? read : null
}
export const carry = (address: string, read: Read) => quietly(db => db.put('read', read, address))
/** Lets go of what was read: somebody left who keeps this device to themselves, or it became old. */
export const dropCarried = (of: (address: string, read: Read) => boolean) =>
  quietly(async db => {
    const all = db.transaction('read', 'readwrite')
    for await (const cursor of all.store) if (of(cursor.key, cursor.value)) await cursor.delete()
    await all.done
  })

type KnownName = 'session' | 'clock' | 'packed'
export const know = (name: KnownName, value: unknown) =>
  quietly(db => db.put('known', JSON.parse(JSON.stringify(value)), name))
export const known = <T>(name: KnownName) => quietly(async db => (await db.get('known', name)) as T | undefined)

/** What waits, in order. @throws where the device keeps nothing. */
export const readWaiting = () => within(db => db.getAll('waiting'))
/** @throws where it cannot be kept, so that nobody believes that it was. */
export const keepWaiting = async (act: Waiting): Promise<Waiting> => ({
  ...act,
  no: await within(db => db.put('waiting', act)),
})
export const dropWaiting = (no: number) => within(db => db.delete('waiting', no))
/** Does this device keep anything at all? */
export const canCarry = async () => (await quietly(db => db.count('waiting'))) !== undefined
