/**
 * What takes longer than a page may wait: run in a small pool of threads by `inWorker(name, input)`. Each takes one
 * plain value and gives one back. Nothing here may reach for the server, the database or the clock.
 */
import { createHash } from 'node:crypto'
import type { Step } from '#core/acts'
import { type LogColumns, parseClimateLog } from '#core/air'
import { canonicalJson, type Json } from '#core/approval'
import type { Choice } from '#core/build'
import type { Context } from '#core/context'
import {
  type Band,
  type Colourant,
  correctPot,
  type Lab,
  learn,
  type Light,
  type Observer,
  reconstruct,
  type SearchQuestion,
  type Spectrum,
} from '#core/colour'
import { calendarDays, parseSamples } from '#core/formats'
import {
  type Asking,
  type Begun,
  judgeRoutes,
  judgeRoute,
  type RouteQuestion,
  type RouteVerdict,
  type StepsLeft,
  type WorstLeft,
  worstLeft,
} from '#core/ground'
import { afterFallback, completePlan, fallBackFrom, planDifference, workOutPlan } from '#core/plan'
import { conditionPaper, type PaperSize, type PlanSaid } from '#core/papers'
import { compareReports, REPORT_FORMAT, REPORT_VERSION, type Report } from '#core/report'
import {
  batches,
  byShare,
  dustPairs,
  livesOf,
  overload,
  type Placed,
  type PlannedJob,
  type Schedule,
  shareBy,
  type Shop,
  solve,
  type UnsureShop,
} from '#core/schedule'
import type { Hours } from '#core/timetable'
import { reportSchema } from '#shared/report'
import { paperPdf } from './paper'
import type { Fonts } from './pdf'

export { picture } from './picture'
export { labelsPdf } from './labels'
export { paperPdf }

export type Asked = Asking & { context: Context; choice: Choice }

let lastHours: { text: string; hours: Hours } | undefined
/** The same hours are the same object, so that days worked out before are found again. */
function sameHours(hours: Hours): Hours {
  const text = JSON.stringify(hours)
  if (lastHours?.text !== text) lastHours = { text, hours }
  return lastHours.hours
}
const questionOf = ({ prices, ...q }: Asked): RouteQuestion => ({
  ...q,
  hours: sameHours(q.hours),
  price: slug => (Object.hasOwn(prices, slug) ? prices[slug] : undefined),
})
const withoutPlan = ({ plan, ...verdict }: RouteVerdict) => ({ ...verdict, steps: plan.steps.length })
export type JudgedRoute = ReturnType<typeof withoutPlan>

export function judgeAll(q: Asked): { advised: RouteVerdict['route'] | null; verdicts: JudgedRoute[] } {
  const advice = judgeRoutes(questionOf(q))
  return { advised: advice.advised, verdicts: advice.verdicts.map(withoutPlan) }
}
/** The veneer sums of a chosen plan, and what it comes to with the chance of failing counted in. */
export function planFigures(q: Asked) {
  const { plan, expected, chance } = judgeRoute(q.choice.buildUps[0].ground, questionOf(q))
  return { budgets: plan.budgets, expected: chance > 0 ? expected : null }
}
export const judgeOne = (q: Asked): JudgedRoute => withoutPlan(judgeRoute(q.choice.buildUps[0].ground, questionOf(q)))

/** The worst that may still come of a piece whose work has begun. */
export const leftAtWorst = ({ live, done, ...q }: Asked & { live: StepsLeft; done: Begun }): WorstLeft =>
  worstLeft(live, done, questionOf(q))

export const plan = ({ context, choice }: { context: Context; choice: Choice }) => workOutPlan(context, choice)
/** A composed surface planned anew, with what was changed by hand in the plan so far made again where it can be. */
export { recompose, withFindings } from '#core/plan'
export const complete = ({ steps, context, choice }: { steps: Step[]; context: Context; choice: Choice }) =>
  completePlan(steps, context, choice)
/**
 * What a failed gate makes of the plan: as it is when the worst price that was accepted holds, and when it does not.
 */
export function fallBack({
  step,
  done,
  left,
  context,
  choice,
}: {
  step: Step
  done: Step[]
  left: Step[]
  context: Context
  choice: Choice
}) {
  return [false, true].map(ask => {
    const over = fallBackFrom(step, done, left, context, choice, ask)
    return { over, live: afterFallback(over, done, left, context) }
  }) as [
    { over: ReturnType<typeof fallBackFrom>; live: ReturnType<typeof afterFallback> },
    { over: ReturnType<typeof fallBackFrom>; live: ReturnType<typeof afterFallback> },
  ]
}
/** Steps with and without what the hazards of a piece forbid. */
export function banEffect({ context, choice }: { context: Context; choice: Choice }) {
  const without = { ...context, facts: { ...context.facts, lead: 'no' as const, bans: [] } }
  return planDifference(workOutPlan(without, choice).steps, workOutPlan(context, choice).steps)
}

export const learnFrom = ({ set, bands, without }: { set: Colourant[]; bands: Band[]; without: number[] }) =>
  learn(set, bands, without)
export const correct = ({
  question,
  pot,
  reached,
}: {
  question: SearchQuestion
  pot: Parameters<typeof correctPot>[1]
  reached: Spectrum
}) => correctPot(question, pot, reached)

export interface ReadSample {
  name: string
  spectrum: Spectrum
  given: { L: number; a: number; b: number; light: Light; observer: Observer } | null
}
/** Samples of a CGATS or CSV file; CIELAB alone gets a plausible spectrum, and stays as it was given. */
export const samples = (text: string): ReadSample[] =>
  parseSamples(text).map(({ name, spectrum, lab, light, observer }) =>
    spectrum
      ? { name, spectrum, given: null }
      : {
          name,
          spectrum: reconstruct(lab as Lab, light, observer),
          given: { L: lab![0], a: lab![1], b: lab![2], light, observer },
        },
  )

export const calendar = ({ text, from, until }: { text: string; from: string; until: string }) =>
  calendarDays(text, from, until)

export const airLog = ({ text, zone, columns }: { text: string; zone: string; columns?: LogColumns }) =>
  parseClimateLog(text, zone, columns)

const sha256 = (text: string) => createHash('sha256').update(text).digest('hex')
/** A report as it is kept: canonical JSON and its digest. */
export function canonical(report: Report): { content: string; sha256: string } {
  const content = canonicalJson(report as unknown as Json)
  return { content, sha256: sha256(content) }
}
/** A report file that somebody brought. @throws RangeError with what does not fit. */
export function readReport(file: string): {
  content: string
  sha256: string
  name: string
  piece: string
  shop: string
  made_at: string
} {
  let parsed: unknown
  try {
    parsed = JSON.parse(file)
  } catch {
    throw new RangeError('This file is no readable JSON.')
  }
  const head = parsed as { format?: unknown; version?: unknown } | null
  if (head?.format !== REPORT_FORMAT) throw new RangeError('This file is no condition report of this kind.')
  if (head.version !== REPORT_VERSION)
    throw new RangeError(
      `This report has version ${String(head.version).slice(0, 20)}; version ${REPORT_VERSION} can be read here.`,
    )
  const report = reportSchema.safeParse(parsed)
  if (!report.success) {
    const issue = report.error.issues[0]!
    throw new RangeError(`The report does not fit its format at "${issue.path.join('.')}": ${issue.message}`)
  }
  const { name, made_at, piece, shop } = report.data
  return { ...canonical(report.data), name: name || made_at.slice(0, 10), piece: piece.name, shop, made_at }
}
/** A kept condition report as PDF; with a plan, what is going to be done too. */
export const reportFilePdf = ({
  content,
  plan: planned,
  zone,
  ...how
}: {
  content: string
  plan: PlanSaid | null
  zone: string
  fonts: Fonts
  size: PaperSize
}): Promise<Uint8Array> => paperPdf({ ...how, paper: conditionPaper(JSON.parse(content) as Report, planned, zone) })
/** Two kept reports beside each other. */
export function compare({ before, after }: { before: string; after: string }) {
  const [old, fresh] = [JSON.parse(before) as Report, JSON.parse(after) as Report]
  const head = (r: Report) => ({
    name: r.name,
    made_at: r.made_at,
    shop: r.shop,
    picture: r.photographs[0]?.address ?? null,
  })
  return { before: head(old), after: head(fresh), ...compareReports(old, fresh) }
}

/** The best schedule that is found in so many milliseconds, or so many orders; one order is tried at least. */
export function schedule({ shop, seed, within_ms, orders }: ScheduleQuestion): Schedule & { tried: number } {
  const until = performance.now() + within_ms
  for (const { best, tried } of solve(shop, seed))
    if (tried >= orders || performance.now() >= until) return { ...best, tried }
  throw new Error('solve never ends by itself')
}
export interface ScheduleQuestion {
  shop: Shop
  seed: number
  within_ms: number
  orders: number
}

/** When each piece is likely and safely ready, and the chance that it is late. */
export function lives({ shop, placed, most, seed }: LivesQuestion): Outlook[] {
  const all = livesOf(shop, { placed }, { most, seed })
  const sure = (ms: number) => (Number.isFinite(ms) ? ms : null)
  return shop.jobs.map(j => {
    const ends = all.get(j.id)!
    return {
      ...{ id: j.id, likely_ms: sure(byShare(ends, 0.5)), safe_ms: sure(byShare(ends, 0.9)) },
      risk: j.due_ms === null ? null : 1 - shareBy(ends, j.due_ms),
      runs: ends.length,
    }
  })
}
/** When one piece is ready in each of so many lives, sorted; Infinity: not within what is planned ahead. */
export const livesOfOne = ({ shop, placed, most, seed, only }: LivesQuestion & { only: number }): Float64Array =>
  livesOf(shop, { placed }, { most, seed, only }).get(only) ?? new Float64Array()
/** What could be put together, and where there is more work than hands. */
export function proposals({ shop, schedule: found }: { shop: PlannedShop; schedule: Schedule }) {
  const shared = shop.jobs.flatMap(j => j.tasks.flatMap(t => (t.shares ? [{ task: t.id, ...t.shares }] : [])))
  const alike = [...shared, ...dustPairs(shop, found.placed)]
  return { batches: batches(shop, found, alike), overload: overload(shop) }
}
type PlannedShop = Omit<Shop, 'jobs'> & { jobs: readonly PlannedJob[] }
export interface LivesQuestion {
  shop: UnsureShop
  placed: readonly Placed[]
  most: number
  seed: number
}
export interface Outlook {
  id: number
  likely_ms: number | null
  safe_ms: number | null
  risk: number | null
  runs: number
}
