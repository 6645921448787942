/** What a client agreed to last: the steps of the plan as it then was, and the days that were told. */
import type { Step } from '#core/acts'
import { sumOfReplies } from '#core/approval'
import { db } from '../../database/db'
import type { Effect } from './compose'
import { readItems, repliesOf, shownOf } from './rows'

export interface Agreed {
  steps: readonly Step[]
  /** ISO days; '': none was told */
  readyLikely: string
  readySafe: string
}
/** Steps as an answer made them. */
function stepsAfter(steps: readonly Step[], effect: Effect | undefined, option: number, withFound: boolean) {
  if (effect?.kind === 'surface') {
    const surface = (withFound ? effect.with : effect.without)[option]
    if (surface) return surface.steps
    return withFound ? laidOver(steps, effect.found) : steps
  }
  return effect?.kind === 'found' ? laidOver(steps, effect.steps) : steps
}
const laidOver = (steps: readonly Step[], ahead: readonly Step[] | null): readonly Step[] =>
  ahead ? [...steps.filter(st => !ahead.some(a => a.key === st.key)), ...ahead] : steps

export async function readAgreed(pieceId: number): Promise<Agreed | null> {
  const row = await db().row<{ id: number; content: string }>(
    `SELECT a.id, sn.content
        FROM approval a
        JOIN plan_snapshot sn ON sn.id = a.snapshot_id
        WHERE a.piece_id = :pieceId AND EXISTS (
          SELECT 1
            FROM question_item i
            WHERE i.approval_id = a.id AND i.kind IN ('surface', 'found') AND i.state = 'yes'
        )
        ORDER BY a.id DESC
        LIMIT 1`,
    { pieceId },
  )
  if (!row) return null
  const { steps, effects = [] } = JSON.parse(row.content) as { steps: Step[]; effects?: Effect[] }
  const items = await readItems(db(), [row.id])
  const yesTo = (kind: string) => items.find(i => i.kind === kind && i.state === 'yes')
  const its = yesTo('surface') ?? yesTo('found')!
  const sum = sumOfReplies(shownOf(row.content), repliesOf(items))
  return {
    steps: stepsAfter(steps, effects[its.no - 1], its.option_no ?? 0, yesTo('found') !== undefined),
    readyLikely: sum?.readyLikely ?? '',
    readySafe: sum?.readySafe ?? '',
  }
}
