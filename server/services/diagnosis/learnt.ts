/** What was learnt from faults, for the plans that it matters to. */
import { SIGNS, signOf } from '#core/diagnose'
import { db } from '../../database/db'

/** What other pieces taught of products that this one's plan takes, and that nobody has minded in it yet. */
export async function learntFor(pieceId: number) {
  const rows = await db().rows<{ id: number; sign: string; cause: string; piece_id: number; product: string | null }>(
    `SELECT f.id, f.sign, f.cause, f.piece_id, f.product
        FROM fault f
        WHERE f.keep_next AND f.cause IS NOT NULL AND f.piece_id <> :pieceId
          AND (
            f.product IN (SELECT product FROM plan_step st WHERE st.piece_id = :pieceId AND st.state = 'planned')
            OR (f.product IS NULL AND f.kind IN (
              SELECT kind FROM plan_step st WHERE st.piece_id = :pieceId AND st.state = 'planned'
            ))
          )
          AND NOT EXISTS (SELECT 1 FROM minded m WHERE m.fault_id = f.id AND m.piece_id = :pieceId)
        ORDER BY f.id DESC
        LIMIT 20`,
    { pieceId },
  )
  const known = rows.filter(r => SIGNS.some(x => x.slug === r.sign) && Object.hasOwn(signOf(r.sign).causes, r.cause))
  // the same lesson once
  return [...new Map(known.map(r => [`${r.sign} ${r.cause} ${r.product}`, r])).values()].map(r => ({
    ...{ faultId: r.id, pieceId: r.piece_id, name: signOf(r.sign).name, next: signOf(r.sign).causes[r.cause]!.next },
  }))
}
