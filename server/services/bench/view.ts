import type { Air } from '#core/air'
import type { Shelf } from '#core/materials'
import type { Verdict } from '#core/rules'
import { type Hours, mayStart, type StartVerdict } from '#core/timetable'
import type { StoredPlan } from '../plan/rows'
import type { VapourOf } from '../breath/vapour'
import { clockIn } from '../shop/rows'

export interface BenchQuestion {
  plan: StoredPlan
  verdicts: readonly Verdict[]
  hours: Hours
  at: Date
  shelf: Shelf
  /** the air in which a step is done */
  airOf: (stepId: number) => Air | null
  wetCoat: string | null
  /** what the air of its room says to the vapour of a step */
  vapourOf: VapourOf
  outside?: boolean
}

/** The one question of the bench, asked for every step of a plan. */
export function benchView({
  plan,
  verdicts,
  hours,
  at,
  shelf,
  airOf,
  wetCoat,
  vapourOf,
  outside,
}: BenchQuestion): Map<string, StartVerdict> {
  const overruled = new Set(plan.overruled.keys())
  const clock = clockIn(hours.zone, at)
  return new Map(
    plan.steps.map(step => [
      step.key,
      mayStart({
        step,
        steps: plan.steps,
        waits: plan.waits,
        verdicts,
        overruled,
        hours,
        now_ms: at.getTime(),
        shelf,
        air: airOf(step.id),
        wetCoat,
        vapour: step.state === 'planned' ? vapourOf(step, shelf) : [],
        outside,
        clock,
      }),
    ]),
  )
}
