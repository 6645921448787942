import { db } from '../../database/db'

export const readLog = (pieceId: number) =>
  db().rows<{
    id: number
    kind: string
    says: string
    happened_at: Date
    recorded_at: Date
    by_name: string | null
    undoes_id: number | null
  }>(
    `SELECT logbook.id, logbook.kind, logbook.says, logbook.happened_at, logbook.recorded_at,
        person.name AS by_name, logbook.undoes_id
        FROM logbook
        LEFT JOIN person ON person.id = logbook.person_id
        WHERE logbook.piece_id = :pieceId
        ORDER BY logbook.id DESC
        LIMIT 1000`,
    { pieceId },
  )
