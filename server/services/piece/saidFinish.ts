/** What lies on a group of faces by somebody's word or an older record, until it is tested. */
import type { FinishClass } from '#core/piece'
import type { Db } from '../../database/db'
import type { Person } from '../shop/person'

export const saidFinish = (
  tx: Db,
  said: { piece: number; group: string; layer: number; finish: FinishClass; word: string },
  person: Person,
  at: Date,
) =>
  tx.run(
    `INSERT IGNORE INTO overrule (piece_id, rule, step_key, word, person_id, at, about, value)
        VALUES (:piece, 'finish-is', :subject, :word, :personId, :at, 'examination', :finish)`,
    { ...said, subject: `${said.group}:${said.layer}`, personId: person.id, at },
  )
