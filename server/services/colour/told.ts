import type { z } from 'zod'
import { labOfSpectrum, type Spectrum } from '#core/colour'
import type * as c from '#shared/colour'
import type { Db } from '../../database/db'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'

export type About = Omit<z.infer<typeof c.measure>, 'name'>
export async function record(tx: Db, pieceId: number | null, says: string, person: Person, at: Date) {
  await log(tx, { pieceId, kind: 'colour', says, at, recordedAt: at, personId: person.id })
  await tell(tx, pieceId ? 'piece' : 'store', pieceId, at)
}
/** Errors of core become refusals with the same words. */
export const refused = <T>(work: () => T): T => {
  try {
    return work()
  } catch (error) {
    if (error instanceof RangeError) throw fail(422, 'invalid', error.message)
    throw error
  }
}
/** The same of work that takes time. */
export const refusedLater = async <T>(work: () => Promise<T>): Promise<T> => {
  try {
    return await work()
  } catch (error) {
    if (error instanceof RangeError) throw fail(422, 'invalid', error.message)
    throw error
  }
}
export const labText = (s: Spectrum) =>
  labOfSpectrum(s)
    .map(v => v.toFixed(1))
    .join(', ')
