/** What was found when a plan was made, kept with its piece. */
import { FINDING_KINDS, type Finding } from '#core/piece'
import type { Db } from '../../database/db'
import type { PieceFile } from '../piece/rows'

/** Keeps what is known now as what the plan was made from. */
export const keepKnown = (tx: Db, { piece, facts }: PieceFile) =>
  tx.run('UPDATE piece SET known_findings = :known WHERE id = :id', {
    id: piece.id,
    known: JSON.stringify(facts.findings),
  })

const isFinding = (f: Partial<Finding> | null): f is Finding =>
  f?.kind !== undefined && FINDING_KINDS.includes(f.kind) && typeof f.place === 'object'
/** What was known then; null where it was not kept. */
export function knownOf({ known_findings: kept }: PieceFile['piece']): Finding[] | null {
  const read: unknown = typeof kept === 'string' ? JSON.parse(kept) : kept
  return Array.isArray(read) ? (read as (Partial<Finding> | null)[]).filter(isFinding) : null
}
