import { MATERIALS } from '#core/materials'
import type { Db } from '../../database/db'
import type { PlannedStep } from './rows'

/** What a step took, from lots and pots, without what was taken back. */
export interface UsedLine {
  ml: number | null
  g: number | null
  name: string
  word: string
}
/** By step of this piece. */
export async function readUsed(on: Db, pieceId: number): Promise<Map<number, UsedLine[]>> {
  const rows = await on.rows<UsedLine & { step_id: number }>(
    `SELECT u.step_id, SUM(u.amount) AS ml, NULL AS g, CONCAT(product.name, ', ', lot.code) AS name,
        MAX(IF(u.amount > 0, u.word, '')) AS word
        FROM plan_step st
        JOIN lot_use u ON u.step_id = st.id
        JOIN lot ON lot.id = u.lot_id
        JOIN product ON product.id = lot.product_id
        WHERE st.piece_id = :pieceId
        GROUP BY u.step_id, lot.id, product.name, lot.code
        HAVING SUM(u.amount) > 0
      UNION ALL
      SELECT u.step_id, NULL, SUM(u.amount_g), CONCAT('pot ', batch.id, ', ', batch.name),
        MAX(IF(u.amount_g > 0, u.word, ''))
        FROM plan_step st
        JOIN pot_use u ON u.step_id = st.id
        JOIN batch ON batch.id = u.batch_id
        WHERE st.piece_id = :pieceId
        GROUP BY u.step_id, batch.id, batch.name
        HAVING SUM(u.amount_g) > 0`,
    { pieceId },
  )
  const used = new Map<number, UsedLine[]>()
  for (const { step_id, ...line } of rows) used.set(step_id, [...(used.get(step_id) ?? []), line])
  return used
}

/** "Planned 24 ml, varnish oil; used 30 ml Varnish oil, V-12 (thirsty wood)"; nothing where nothing was used. */
export function usedSaid(step: PlannedStep, used: readonly UsedLine[] | undefined): string {
  if (!used) return ''
  const planned = step.plannedProduct ?? step.product
  const name = MATERIALS.find(m => m.slug === planned)?.name
  const what = name ? `, ${name}` : ''
  const said = used.map(
    u =>
      `${u.ml === null ? `${u.g!.toFixed(0)} g` : `${Math.round(u.ml)} ml`} ${u.name}${u.word ? ` (${u.word})` : ''}`,
  )
  const amount = step.amount_ml === null ? '' : `Planned ${Math.ceil(step.amount_ml)} ml${what}; `
  return `${amount}${amount ? 'used' : 'Used'} ${said.join(' and ')}`
}
