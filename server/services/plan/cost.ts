/** What a piece has cost so far, and what its plan comes to. */
import { does } from '#core/acts'
import { estimate } from '#core/estimate'
import { worked_min } from '#core/timetable'
import { sumOf } from '#core/units'
import { db } from '../../database/db'
import type { ExtraRow } from '../client/extras'
import { readPrices, readRates } from './asking'
import type { PlannedStep, StoredPlan } from './rows'

export interface Cost {
  /** of what is done, without tax */
  labour_minor: number
  materials_minor: number
  soFar_minor: number
  /** of the plan and of what was agreed beside it */
  planned_minor: number
  /** what is spent by now, and all that is left as planned */
  foreseen_minor: number
}
export async function costOf(id: number, plan: StoredPlan, extras: readonly ExtraRow[]): Promise<Cost> {
  const rates = await readRates()
  const price = await readPrices()
  const used = await db().row<{ lots: number | null; pots: number | null; taken: number | null }>(
    `SELECT
        (
          SELECT SUM(u.amount / 1000 * u.price_minor)
            FROM lot_use u
            JOIN plan_step st ON st.id = u.step_id
            WHERE st.piece_id = :id
        ) AS lots,
        (
          SELECT SUM(u.cost_minor) FROM pot_use u JOIN plan_step st ON st.id = u.step_id WHERE st.piece_id = :id
        ) AS pots,
        (SELECT SUM(cost_minor) FROM lot_move WHERE piece_id = :id) AS taken`,
    { id },
  )
  const done = plan.steps.filter(st => st.state === 'done')
  const labour = estimate(
    done.map(st => ({ ...st, amount_ml: null, attended_min: Math.min(workedMin(st), 600) })),
    rates,
  )
  const materials = Math.round(
    (Number(used?.lots ?? 0) + Number(used?.pots ?? 0) + Number(used?.taken ?? 0)) *
      (1 + rates.materialMarkup_bp / 10_000),
  )
  const withTax = (net: number) => net + Math.round((net * rates.tax_bp) / 10_000)
  const extra_minor = sumOf(extras, e => e.price_minor)
  const live = plan.steps.filter(st => st.state !== 'skipped')
  const left = live.filter(st => st.state !== 'done')
  const soFar_minor = withTax(labour.net_minor + materials)
  return {
    ...{ labour_minor: labour.net_minor, materials_minor: materials, soFar_minor },
    planned_minor: extra_minor + estimate(live, rates, price).total_minor,
    foreseen_minor: extra_minor + soFar_minor + estimate(left, rates, price).total_minor,
  }
}
/** Minutes of hands on a step: as timed, at least one. */
export const workedMin = (st: PlannedStep) =>
  does(st, 'words') ? 0 : Math.max(1, Math.round(worked_min(st.spells, st.finished_ms ?? 0)))
