import { round } from '#core/units'
import type { Db } from '../../database/db'
import { log, tell } from '../platform/log'
import type { Person } from '../shop/person'
import { type BatchLine, type BatchRow, type Content, weightOf } from './potRows'

export async function write(tx: Db, b: Pick<BatchRow, 'piece_id'>, says: string, person: Person, at: Date) {
  await log(tx, { pieceId: b.piece_id, kind: 'pot', says, at, recordedAt: at, personId: person.id })
  await tell(tx, b.piece_id ? 'piece' : 'store', b.piece_id, at)
}

export interface Turn {
  tx: Db
  b: BatchRow
  lines: BatchLine[]
  contents: Content[]
  person: Person
  at: Date
}

export async function mixed({ tx, b, lines, contents, at }: Turn) {
  if (lines.some(l => l.poured_g === null))
    throw fail(409, 'not-poured', `${lines.find(l => l.poured_g === null)!.name} is not in the pot yet.`)
  await tx.run('UPDATE batch SET mixed_at = :at, left_g = :left WHERE id = :id', {
    id: b.id,
    at,
    left: round(weightOf(contents), 2),
  })
  return {
    says:
      `Pot ${b.id} mixed: ${b.name}, ${weightOf(contents).toFixed(1)} ` +
      `g${b.pot_min ? `, to be used within ${b.pot_min} min` : ''}`,
  }
}
