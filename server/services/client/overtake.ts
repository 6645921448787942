/** What was asked of a client and is not what is asked now. */
import type { ItemKind } from '#core/approval'
import type { Db } from '../../database/db'

/** Kinds of item about the plan as a whole: whatever changes it overtakes them all. */
const OF_PLAN: readonly ItemKind[] = ['surface', 'found']

/** Questions whose last open item was overtaken are closed. */
const closeEmpty = (tx: Db, pieceId: number) =>
  tx.run(
    `UPDATE approval
        SET state = 'superseded'
        WHERE piece_id = :pieceId AND state = 'open'
          AND NOT EXISTS (SELECT 1 FROM question_item WHERE approval_id = approval.id AND state <> 'overtaken')`,
    { pieceId },
  )

/** Open items about the plan fall away: it is another. What hangs on them in one letter goes with them. */
export async function overtakePlan(tx: Db, pieceId: number): Promise<void> {
  await tx.run(
    `UPDATE question_item i
        JOIN approval a ON a.id = i.approval_id
        SET i.state = 'overtaken'
        WHERE a.piece_id = :pieceId AND a.state = 'open' AND i.state = 'open' AND i.kind IN (:kinds)`,
    { pieceId, kinds: OF_PLAN },
  )
  await closeEmpty(tx, pieceId)
}

/** Open items about the same thing: asked anew, or not to be asked any more. */
export async function overtakeItems(
  tx: Db,
  pieceId: number,
  {
    itemIds = [],
    bandIds = [],
    date = false,
    cost = false,
  }: { itemIds?: number[]; bandIds?: number[]; date?: boolean; cost?: boolean },
): Promise<void> {
  await tx.run(
    `UPDATE question_item i
        JOIN approval a ON a.id = i.approval_id
        SET i.state = 'overtaken'
        WHERE a.piece_id = :pieceId AND a.state = 'open' AND i.state = 'open'
          AND (
            i.item_id IN (:itemIds) OR i.band_id IN (:bandIds) OR (:date AND i.kind = 'date')
            OR (:cost AND i.kind = 'cost')
            OR (:bands AND i.kind = 'colour' AND i.band_id IS NULL)
          )`,
    { pieceId, itemIds: [0, ...itemIds], bandIds: [0, ...bandIds], date, cost, bands: bandIds.length > 0 },
  )
  await closeEmpty(tx, pieceId)
}
