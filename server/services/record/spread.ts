/** How far products really go here, by product and method, offered to the plans that take them. */
import type { Db } from '../../database/db'
import { tookOf } from './lines'

export interface Spread {
  /** steps that it was seen at */
  n: number
  /** used of what was planned, 1 is as planned */
  least: number
  mean: number
  most: number
}
/** Hands, guns and products change: what is older tells little. */
const YEARS = 2
/** Fewer tell nothing. */
const ENOUGH = 3
/** So near what was planned there is nothing to tell. */
const NEAR = 0.1

type SpreadOf = (step: { product: string | null; method: string }) => Spread | null
/** All uses are gone through for it; plans that are read soon after each other share the answer. */
const KEPT_MS = 60_000
let kept: { until_ms: number; spread: Promise<SpreadOf> } | null = null
export function spreadOfShop(on: Db, at: Date): Promise<SpreadOf> {
  if (kept && performance.now() < kept.until_ms) return kept.spread
  const spread = readSpread(on, at)
  kept = { until_ms: performance.now() + KEPT_MS, spread }
  spread.catch(() => (kept = null))
  return spread
}
/** Of the last two years, by `product method`; only what differs enough from the plan, and was seen often enough. */
async function readSpread(on: Db, at: Date): Promise<SpreadOf> {
  const rows = await on.rows<Spread & { of: string }>(
    `WITH recent AS (
        SELECT id, product, planned_product, method, amount_ml
          FROM plan_step
          WHERE state = 'done' AND finished_at > :at - INTERVAL ${YEARS} YEAR AND amount_ml > 0 AND product IS NOT NULL
      )
      SELECT CONCAT(COALESCE(st.planned_product, st.product), ' ', st.method) AS \`of\`, COUNT(*) AS n,
        MIN(used.ml / st.amount_ml) AS least, AVG(used.ml / st.amount_ml) AS mean, MAX(used.ml / st.amount_ml) AS most
        FROM (${tookOf('recent')}) used
        JOIN recent st ON st.id = used.step_id
        GROUP BY CONCAT(COALESCE(st.planned_product, st.product), ' ', st.method)
        HAVING COUNT(*) >= ${ENOUGH}`,
    { at },
  )
  const learnt = new Map(
    rows
      .map(r => ({ of: r.of, n: Number(r.n), least: Number(r.least), mean: Number(r.mean), most: Number(r.most) }))
      .filter(r => Math.abs(r.mean - 1) > NEAR)
      .map(({ of, ...spread }) => [of, spread]),
  )
  return ({ product, method }) => (product === null ? null : (learnt.get(`${product} ${method}`) ?? null))
}
