/** Work at the bench of the demo shop, step by step. */
import { DateTime } from 'luxon'
import { at, inAir, MIN, nowMs, people, today } from './clock'

interface Step {
  id: number
  key: string
  kind: string
  state: string
  rowVersion: number
  attended_min: number
  amount_ml: number | null
  product: string | null
  start: { may: boolean; opens_ms: number | null; refusals: { code: string; says: string }[] }
}
interface Plan {
  ready: boolean
  steps: Step[]
  dates: { safe: { key: string; start_ms: number }[] }
}

const planOf = (id: number) => people.tove.get<Plan>(`/api/pieces/${id}/plan`)
/** The lot of each product class that is used first. */
export const lots = new Map<string, number>()

export async function act(id: number, kind: 'start' | 'finish', key: string, more: object = {}) {
  const step = (await planOf(id)).steps.find(s => s.key === key || (s.kind === key && s.state !== 'done'))!
  const used =
    kind === 'finish' && step.product && lots.has(step.product) && step.amount_ml
      ? [{ lotId: lots.get(step.product)!, amountMl: Math.round(step.amount_ml), word: '' }]
      : []
  await people.emil.send('POST', '/api/bench', {
    kind,
    stepId: step.id,
    rowVersion: step.rowVersion,
    happenedAt: new Date(nowMs()).toISOString(),
    ...(kind === 'finish' ? { used } : {}),
    ...more,
  })
}

/** Works the plan step by step, each at its earliest safe moment, until `stop` is next or the plan is done. */
export async function workTo(id: number, stop: string | null, latest_ms: number) {
  for (;;) {
    const plan = await planOf(id)
    const next = plan.steps.find(s => s.state === 'planned')
    if (!next || next.kind === stop) return
    const due = plan.dates.safe.find(f => f.key === next.key)!.start_ms
    const start = Math.max(nowMs(), due)
    if (start + next.attended_min * MIN > latest_ms)
      throw new Error(
        `Piece ${id}: "${next.key}" would start ${DateTime.fromMillis(start).toISO()}, too late for its story`,
      )
    await inAir(start)
    await act(id, 'start', next.key)
    await at(start + Math.max(1, Math.round(next.attended_min * 0.95)) * MIN)
    await act(id, 'finish', next.key, next.kind === 'gate' ? { gate: 'pass' } : {})
  }
}

/** Starts a step this morning, so that something is always running when the demo opens. */
export async function morning(id: number, key: string, start: string, end: string | null) {
  await inAir(today(start))
  await act(id, 'start', key)
  if (!end) return
  await at(today(end))
  await act(id, 'finish', key)
}
