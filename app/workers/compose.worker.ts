/** What a composed surface comes to, and what may be put in where: planned away from the page. */
import type { BuildUp, Choice } from '#core/build'
import type { Context } from '#core/context'
import { estimate } from '#core/estimate'
import {
  layerOfStep,
  offersAt,
  type OfferHere,
  type Plan,
  recompose,
  type Recomposing,
  type Retaken,
  workOutPlan,
} from '#core/plan'
import { judgePlan, type Verdict } from '#core/rules'
import type { Asking } from '#core/ground'
import { forecast } from '#core/timetable'
import { sumOf } from '#core/units'

export interface ComposeQuestion {
  n: number
  context: Context
  choice: Choice
  asking: Asking
  /** the plan as it stands, with the choice that it was worked out for: what of it was changed by hand? */
  standing?: Omit<Recomposing, 'context' | 'after' | 'leave'>
  /** a place of a build-up at which something may be put in */
  offer?: { buildUp: BuildUp; at: number }
}
/** What a plan comes to. */
export interface ComposedSum {
  minutes: number
  total_minor: number
  likely_ms: number
  safe_ms: number
}
export interface ComposeAnswer {
  n: number
  sum?: ComposedSum
  verdicts?: (Pick<Verdict, 'rule' | 'severity' | 'says' | 'reason' | 'mend' | 'step'> & { layer: number | null })[]
  offers?: OfferHere[]
  /** changes made by hand: what can be made again, and what goes with its step */
  hand?: Pick<Retaken, 'kept' | 'lost'>
}

function sumFor(plan: Plan, { rates, hours, prices, now_ms }: Asking): ComposedSum {
  const ends = (by: 'likely' | 'safe') =>
    Math.max(now_ms, ...forecast({ ...plan, hours, from_ms: now_ms, by }).map(r => r.end_ms))
  return {
    minutes: sumOf(plan.steps, s => s.attended_min),
    total_minor: estimate(plan.steps, rates, slug => prices[slug]).total_minor,
    likely_ms: ends('likely'),
    safe_ms: ends('safe'),
  }
}

self.onmessage = (event: MessageEvent<ComposeQuestion>) => {
  const { n, context, choice, asking, offer, standing } = event.data
  const judged = (c: Choice, plan: Plan) => judgePlan({ context, choice: c, ...plan, licences: asking.licences })
  if (offer) {
    const grave = (c: Choice, plan: Plan) =>
      judged(c, plan).filter(v => v.severity === 'stop' || v.severity === 'forbidden')
    self.postMessage({ n, offers: offersAt(context, choice, offer.buildUp, offer.at, grave) } satisfies ComposeAnswer)
    return
  }
  const plan = workOutPlan(context, choice)
  const again = standing && recompose({ ...standing, context, after: choice, leave: [] })
  self.postMessage({
    n,
    sum: sumFor(plan, asking),
    hand: again && { kept: again.kept, lost: again.lost },
    verdicts: judged(choice, plan).map(({ rule, severity, says, reason, mend, step }) => ({
      rule,
      severity,
      says,
      reason,
      mend,
      step,
      layer: layerOfStep(step)?.layer ?? null,
    })),
  } satisfies ComposeAnswer)
}
