import { round } from '#core/units'
import type { Db } from '../../database/db'

/** What colourants of a class are thinned with. */
export const CARRIERS: Record<string, string> = {
  water: 'Water',
  alcohol: 'Alcohol',
  oil: 'Clear base of the stain',
  lacquer: 'Clear lacquer, thinned',
  none: 'Clear base',
}

export interface Line {
  name: string
  class: string | null
  productId: number | null
  density: number
  wanted_g: number
}
export async function writeLines(tx: Db, batchId: number, turn: number, lines: readonly Line[]) {
  for (const [position, l] of lines.entries())
    await tx.run(
      `INSERT INTO batch_line (batch_id, turn, position, name, class, product_id, density, wanted_g)
          VALUES (:batchId, :turn, :position, :name, :class, :productId, :density, :wanted_g)`,
      { ...l, batchId, turn, position, wanted_g: round(l.wanted_g, 3) },
    )
}
