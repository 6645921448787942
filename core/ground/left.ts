/** What may still come at worst, once work has begun. */
import { onGrounds, waysOf } from '../build'
import { estimate, lostAtGate } from '../estimate'
import { completePlan, loopsOf, type Plan, workOutPlan, worstPlan, worstSteps } from '../plan'
import { forecast, type ForecastInput } from '../timetable'
import { alone, type RouteQuestion } from './judge'

/** steps that were begun, by key */
export type Begun = NonNullable<ForecastInput['done']>
/** steps that were not left out, in their order, with their waits */
export type StepsLeft = Pick<Plan, 'steps' | 'waits'>
type Asked = Pick<RouteQuestion, 'context' | 'choice' | 'rates' | 'price' | 'hours' | 'now_ms'>
/** `more_minor`: beyond the price as planned, tax with it; `ready_ms`: when the piece is ready then, by safe waits. */
export interface WorstLeft {
  more_minor: number
  ready_ms: number
}

/**
 * The worst that what is left may come to: a gate that nobody has judged yet fails and its fallback goes its worst
 * count; where no gate stands open, every loop that has not ended goes its worst count.
 */
export function worstLeft(live: StepsLeft, done: Begun, q: Asked): WorstLeft {
  const ways = waysOf(q.context, q.choice)
  const each = ways.map(({ facts, buildUp }) => {
    const own = new Set(facts.faces.map(f => f.id))
    const steps = ways.length === 1 ? live.steps : live.steps.filter(s => s.faces.some(f => own.has(f)))
    const way = { ...q, context: { ...q.context, facts }, choice: { buildUps: [alone(buildUp)] } } satisfies Asked
    return worstOfWay({ ...live, steps }, done, way)
  })
  return {
    more_minor: each.reduce((sum, w) => sum + w.more_minor, 0),
    ready_ms: Math.max(q.now_ms, ...each.map(w => w.ready_ms)),
  }
}

function worstOfWay(live: StepsLeft, done: Begun, q: Asked): WorstLeft {
  const { context, choice, hours, now_ms } = q
  const cost = (steps: Plan['steps']) => estimate(steps, q.rates, q.price).total_minor
  const ready = (p: StepsLeft, from_ms: number) =>
    Math.max(from_ms, ...forecast({ ...p, hours, from_ms, by: 'safe', done }).map(r => r.end_ms))
  const over = ({ key }: { key: string }) => Boolean(done.get(key)?.finished_ms)
  const ahead = live.steps.filter(s => !over(s))
  const gate = ahead.find(s => s.gate?.fallback)?.gate
  if (gate) {
    const lost = lostAtGate({ steps: ahead })
    const till = live.steps.filter(s => over(s) || lost.includes(s))
    const next = onGrounds(choice, () => gate.fallback!)
    const worst = worstPlan(workOutPlan(context, next, { prefix: 'f-', ask: false }), context, next)
    return {
      more_minor: Math.max(0, cost(lost) + cost(worst.steps) - cost(ahead)),
      ready_ms: ready(worst, ready({ ...live, steps: till }, now_ms)),
    }
  }
  const open = loopsOf(live.steps, context).filter(l => !over({ key: l.step }))
  const [planned, worst] = [live.steps, worstSteps(live.steps, context, open)].map(s =>
    completePlan(s, context, choice),
  )
  return {
    more_minor: Math.max(0, cost(worst!.steps) - cost(planned!.steps)),
    ready_ms: ready(worst!, now_ms),
  }
}
