/** A route judged: its plan, what it costs when all goes well, as expected and at worst, and when it is ready. */
import { blocks } from '../safety'
import { cautionsOfStep } from '../acts'
import type { Context } from '../context'
import { type BuildUp, type Choice, groupsOfWay, isGelled, onGrounds, type Way, waysOf } from '../build'
import { addEstimates, estimate, type Estimate, lostAtGate, type Rates } from '../estimate'
import { dryFilm_um, taken } from '../materials'
import { finishOn, groupsOf, type RouteSlug, ROUTES, STRIPPING } from '../piece'
import {
  budgetOf,
  chanceOfFailing,
  chanceReasons,
  type GateRecord,
  inThisShop,
  type Plan,
  workOutPlan,
  worstPlan,
} from '../plan'
import { judgePlan } from '../rules'
import type { Caution, LicenceKind } from '../safety'
import { forecast, type Hours, nextSpan } from '../timetable'
import { round, sumOf } from '../units'
import { doubtful, filmName, type RouteReason, ruledOut, speaksFor, type Standing } from './reason'
import { COATS_OVER, routeReasons } from './reasons'

const DAY_MS = 86_400_000

export interface RouteVerdict {
  route: RouteSlug
  standing: Standing
  reasons: RouteReason[]
  chance: number
  /** what the chance is of: a gate with a fallback, or a second round */
  chanceOf: 'fallback' | 'second-round'
  chanceReasons: { p: number; why: string }[]
  /** how its gate went in this shop before, where one was judged */
  record: GateRecord | null
  plan: Plan
  likely: Estimate
  worst: Estimate
  /** weighted with the chance of failing */
  expected: { attended_min: number; total_minor: number; ready_ms: number }
  likelyDays: number
  worstDays: number
  readyLikely_ms: number
  readyWorst_ms: number
  /** how far back one can go afterwards */
  reversible: 'wholly' | 'partly' | 'no'
  patina: 'kept' | 'partly' | 'lost'
  /** cautions of its steps */
  hazards: Caution[]
  gates: { look: string; fails: string; fallback: RouteSlug | null; chance: number }[]
  /** dry film when done, µm */
  film_um: number
}

const REVERSIBLE: Record<RouteSlug, RouteVerdict['reversible']> = {
  'as-it-stands': 'wholly',
  'renew': 'partly',
  'polish': 'partly',
  'clean-and-wax': 'wholly',
  'amalgamate': 'partly',
  'spot-repair': 'partly',
  'scuff': 'partly',
  'level-barrier-recoat': 'partly',
  'strip-chemical': 'no',
  'strip-mechanical': 'no',
  'strip-both': 'no',
  'refer': 'wholly',
}
const PATINA: Record<RouteSlug, RouteVerdict['patina']> = {
  'as-it-stands': 'kept',
  'renew': 'kept',
  'polish': 'kept',
  'clean-and-wax': 'kept',
  'amalgamate': 'kept',
  'spot-repair': 'kept',
  'scuff': 'partly',
  'level-barrier-recoat': 'partly',
  'strip-chemical': 'partly',
  'strip-mechanical': 'lost',
  'strip-both': 'lost',
  'refer': 'kept',
}

/** `record`: how gates went in this shop, by their slug. */
export interface RouteQuestion {
  /** what somebody in the shop holds a licence for today */
  licences?: readonly LicenceKind[]
  context: Context
  choice: Choice
  rates: Rates
  hours: Hours
  now_ms: number
  price?: (slug: string) => number | undefined
  record?: Readonly<Record<string, GateRecord>>
}

/** What every judging asks of the shop; prices in minor units a litre, by class. */
export interface Asking extends Pick<RouteQuestion, 'rates' | 'hours' | 'record' | 'licences' | 'now_ms'> {
  prices: Readonly<Record<string, number>>
}

/** What comes of one way when all goes well, when its gate (or first round) fails, and at worst. */
interface Outcome {
  chance: number
  gate: string | null
  likely: Estimate
  failed: Estimate
  worst: Estimate
  likely_ms: number
  failed_ms: number
  worst_ms: number
}

function outcomeOf({ facts, buildUp }: Way, plan: Plan, q: RouteQuestion): Outcome {
  const context = { ...q.context, facts }
  const choice: Choice = { buildUps: [alone(buildUp)] }
  const cost = (p: Pick<Plan, 'steps'>) => estimate(p.steps, q.rates, q.price)
  const ready = (p: Plan, by: 'likely' | 'safe', from_ms: number) =>
    Math.max(from_ms, ...forecast({ ...p, hours: q.hours, from_ms, by }).map(r => r.end_ms))
  const gate = plan.steps.find(s => s.gate?.fallback)?.gate ?? null
  const raw = chanceOfFailing(buildUp, facts)
  const likely = cost(plan)
  const likely_ms = ready(plan, 'likely', q.now_ms)
  const chance = gate ? inThisShop(raw, q.record?.[gate.slug]) : raw
  if (!gate) {
    const worst = worstPlan(plan, context, choice)
    return {
      chance,
      gate: null,
      likely,
      failed: cost(worst),
      worst: cost(worst),
      likely_ms,
      failed_ms: ready(worst, 'likely', q.now_ms),
      worst_ms: ready(worst, 'safe', q.now_ms),
    }
  }
  const next = onGrounds(choice, () => gate.fallback!)
  const fallback = workOutPlan(context, next, { prefix: 'f-', ask: false })
  const worst = worstPlan(fallback, context, next)
  const lost = { ...plan, steps: lostAtGate(plan) }
  return {
    chance,
    gate: gate.slug,
    likely,
    failed: addEstimates(cost(lost), cost(fallback)),
    worst: addEstimates(cost(lost), cost(worst)),
    likely_ms,
    failed_ms: ready(fallback, 'likely', ready(lost, 'likely', q.now_ms)),
    worst_ms: ready(worst, 'safe', ready(lost, 'safe', q.now_ms)),
  }
}

/** A build-up with the faces to itself. */
export const alone = (buildUp: BuildUp): BuildUp => ({ ...buildUp, faces: null })
const WORST_FIRST: readonly Standing[] = ['ruled-out', 'doubtful']

/** A moment between two others may fall into the night or a closed day: it is then the next opening. */
const openFrom = (hours: Hours, at_ms: number): number => Math.max(at_ms, nextSpan(hours, at_ms)[0])

/** One route judged for the piece's main way, with the faces that go their own way counted in. */
export function judgeRoute(route: RouteSlug, q: RouteQuestion): RouteVerdict {
  const { context } = q
  const [first] = q.choice.buildUps
  const choice = onGrounds(q.choice, b => (b === first ? route : b.ground))
  const plan = workOutPlan(context, choice)
  const ways = waysOf(context, choice)
  const main = ways[0] ?? { facts: context.facts, buildUp: choice.buildUps[0] }
  const reasons = routeReasons(route, main.facts, isGelled(main.buildUp))
  for (const v of judgePlan({ context, choice, ...plan, licences: q.licences })) {
    if (blocks(v)) reasons.push(ruledOut(`${v.says[0]!.toUpperCase()}${v.says.slice(1)}. ${v.reason}`))
  }
  for (const group of groupsOfWay(main)) {
    const budget = budgetOf({ ...context, facts: main.facts }, group, main.buildUp)
    if (budget?.verdict === 'do-not-sand')
      reasons.push(
        doubtful(
          `Veneer ${round(budget.thickness_um / 1000, 1)} mm: ${Math.round(budget.takes_um)} µm to take, ` +
            `${Math.round(budget.thickness_um - budget.reserve_um)} to spare. Pads instead of paper.`,
        ),
      )
  }
  if (context.house['old-film'] === 'strip' && COATS_OVER.includes(route))
    reasons.push(doubtful('This house strips rather than coats an old film.'))
  if (reasons.length === 0)
    reasons.push(
      speaksFor(
        STRIPPING.includes(route)
          ? 'Nothing speaks against it, but a milder way may do.'
          : `The film holds (${filmName(main.facts)}) and nothing found speaks against it.`,
      ),
    )
  const standing = WORST_FIRST.find(s => reasons.some(r => r.standing === s)) ?? 'possible'
  const unique = [...new Map(reasons.map(r => [r.says, r])).values()]

  const outcomes = ways.map(way =>
    outcomeOf(
      way,
      ways.length === 1 ? plan : workOutPlan({ ...context, facts: way.facts }, { buildUps: [alone(way.buildUp)] }),
      q,
    ),
  )
  const whole = ways.length === 1 ? outcomes[0]! : null
  const likely = estimate(plan.steps, q.rates, q.price)
  const readyLikely_ms =
    whole?.likely_ms ??
    Math.max(q.now_ms, ...forecast({ ...plan, hours: q.hours, from_ms: q.now_ms, by: 'likely' }).map(r => r.end_ms))
  const readyWorst_ms = Math.max(readyLikely_ms, ...outcomes.map(o => o.worst_ms))
  /** what the ways add to the plan as it is, together */
  const more = (of: (o: Outcome) => number) => sumOf(outcomes, of)
  const worst = whole
    ? whole.worst
    : outcomes.reduce((sum, o) => addEstimates(sum, difference(o.worst, o.likely)), likely)
  const gates = plan.steps.flatMap(st =>
    st.gate ? [{ ...st.gate, chance: inThisShop(st.gate.chance, q.record?.[st.gate.slug]) }] : [],
  )
  const chance = outcomes[0]?.chance ?? 0
  return {
    route,
    standing,
    reasons: unique,
    chance,
    chanceOf: outcomes[0]?.gate ? 'fallback' : 'second-round',
    chanceReasons: chanceReasons(main.buildUp, main.facts),
    record: outcomes[0]?.gate ? (q.record?.[outcomes[0].gate] ?? null) : null,
    plan,
    likely,
    worst,
    expected: {
      attended_min: Math.round(
        likely.attended_min + more(o => o.chance * (o.failed.attended_min - o.likely.attended_min)),
      ),
      total_minor: Math.round(likely.total_minor + more(o => o.chance * (o.failed.total_minor - o.likely.total_minor))),
      ready_ms: openFrom(
        q.hours,
        Math.max(readyLikely_ms, ...outcomes.map(o => o.likely_ms + o.chance * (o.failed_ms - o.likely_ms))),
      ),
    },
    likelyDays: Math.ceil((readyLikely_ms - q.now_ms) / DAY_MS),
    worstDays: Math.ceil((readyWorst_ms - q.now_ms) / DAY_MS),
    readyLikely_ms,
    readyWorst_ms,
    reversible: REVERSIBLE[route],
    patina: PATINA[route],
    hazards: [...new Set(plan.steps.flatMap(st => cautionsOfStep(st, context)))],
    gates,
    film_um: sumOf(
      plan.steps.filter(st => st.kind === 'coat').flatMap(st => taken(context.shelf, st) ?? []),
      dryFilm_um,
    ),
  }
}

const difference = (a: Estimate, b: Estimate): Estimate => ({
  attended_min: a.attended_min - b.attended_min,
  labour_minor: a.labour_minor - b.labour_minor,
  materials_minor: a.materials_minor - b.materials_minor,
  net_minor: a.net_minor - b.net_minor,
  tax_minor: a.tax_minor - b.tax_minor,
  total_minor: a.total_minor - b.total_minor,
})

export interface RouteAdvice {
  verdicts: RouteVerdict[]
  advised: RouteSlug | null
}

/**
 * All routes, least invasive first; advised is the least invasive that is possible, else the least doubted; where
 * nothing was tested, none.
 */
export function judgeRoutes(q: RouteQuestion): RouteAdvice {
  const verdicts = ROUTES.map(route => judgeRoute(route, q))
  const groups = groupsOf(q.context.facts)
  const tested = groups.length === 0 || groups.some(g => finishOn(q.context.facts, g).length > 0)
  const doubts = (v: RouteVerdict) => v.reasons.filter(r => r.standing === 'doubtful').length
  const least = verdicts.filter(v => v.standing === 'doubtful').sort((a, b) => doubts(a) - doubts(b))[0]
  const best = verdicts.find(v => v.standing === 'possible') ?? least
  const advised = tested ? (best ?? null) : null
  return { verdicts, advised: advised?.route ?? null }
}

/** The next less invasive route than the chosen one that is not ruled out, or null. */
export const lessInvasive = <V extends Pick<RouteVerdict, 'route' | 'standing'>>(
  verdicts: readonly V[],
  chosen: RouteSlug,
): V | null => verdicts.slice(0, ROUTES.indexOf(chosen)).findLast(v => v.standing !== 'ruled-out') ?? null
