/** May this step start now? One pure function for screen and server. */
import { blocks } from '../safety'
import { actOf, does, type Late, makesDust, type Step, type Wait } from '../acts'
import { type AirVerdict, type Air, judgeAir } from '../air'
import { windowFactor } from '../drying'
import { type Shelf, taken } from '../materials'
import type { Verdict } from '../rules'
import { closingOf, type Hours, isWorking, nextSpan } from './hours'

const MIN_MS = 60_000

export type StepState = 'planned' | 'running' | 'done' | 'skipped'
/** `mixed_ms`: when its two parts came together, where they have */
export interface BenchStep extends Step {
  state: StepState
  started_ms: number | null
  finished_ms: number | null
  mixed_ms?: number | null
  /** sections that went on, in order; none where it is not worked in sections */
  laid?: readonly LaidSection[]
}
export interface LaidSection {
  no: number
  on_ms: number
  off_ms: number | null
}
/** `held_ms`: "not dry yet" was said; not before this moment. */
export interface BenchWait extends Wait {
  held_ms: number | null
  /** the minimum put in by hand, minutes */ least_min: number | null
}

export interface Refusal {
  code:
    | 'not-planned'
    | 'earlier-step'
    | 'client'
    | 'too-early'
    | 'too-late'
    | 'ends-after-closing'
    | 'closed'
    | 'air'
    | 'rule'
  says: string
  overrulable: boolean
}

export interface Window {
  from: string
  to: string
  kind: Wait['kind']
  why: string
  start_ms: number
  /** null while the earlier step still runs */
  opens_ms: number | null
  likely_ms: number | null
  safe_ms: number | null
  closes_ms: number | null
  hard: boolean
  /** the section whose window this is, where it is worked in sections */
  section?: number
}

/** When the mixed pot of a step ends, by its early figure; heat shortens it. Null where nothing is mixed. */
export function potEnds_ms(step: BenchStep, air: Air | null, shelf: Shelf): number | null {
  const life = taken(shelf, step)?.potLife_min
  return life && step.mixed_ms ? step.mixed_ms + life[0] * windowFactor(air) * MIN_MS : null
}

/**
 * The window of a wait whose earlier step has started, or null. Heat shortens a maximum as it shortens drying; a cool
 * room does not lengthen it.
 */
export function windowOf(wait: BenchWait, from: BenchStep, air: Air | null = null): Window | null {
  if (from.started_ms === null || from.state === 'skipped') return null
  const heat = windowFactor(air)
  const next = from.laid?.find(s => s.off_ms === null)
  if (wait.sections && next) {
    // the section that closes first is the clock
    const after = (minutes: number) => Math.max(next.on_ms + minutes * heat * MIN_MS, wait.held_ms ?? 0)
    return {
      ...{ from: wait.from, to: wait.to, kind: wait.kind, why: wait.why, hard: wait.hard, start_ms: next.on_ms },
      section: next.no,
      opens_ms: after(wait.min),
      likely_ms: after(wait.likely),
      safe_ms: after(wait.safe),
      closes_ms: next.on_ms + wait.max! * heat * MIN_MS,
    }
  }
  if (wait.sections && from.laid?.length) return null
  const end = from.finished_ms
  const at = (minutes: number) => (end === null ? null : Math.max(end + minutes * MIN_MS, wait.held_ms ?? 0))
  return {
    from: wait.from,
    to: wait.to,
    kind: wait.kind,
    why: wait.why,
    hard: wait.hard,
    start_ms: from.started_ms,
    opens_ms: at(wait.min),
    likely_ms: at(wait.likely),
    safe_ms: at(wait.safe),
    closes_ms: wait.max === null ? null : from.started_ms + wait.max * heat * MIN_MS,
  }
}

/** Windows before one step as one: it opens when the last of them opens, and closes when the first closes. */
export function together<W extends Window>(windows: readonly [W, ...W[]]): W {
  const [first] = windows.toSorted((a, b) => (a.closes_ms ?? Infinity) - (b.closes_ms ?? Infinity))
  const last = (of: (w: W) => number | null) => {
    const all = windows.map(of)
    return all.includes(null) ? null : Math.max(...(all as number[]))
  }
  return {
    ...first!,
    opens_ms: last(w => w.opens_ms),
    likely_ms: last(w => w.likely_ms),
    safe_ms: last(w => w.safe_ms),
  }
}

export interface StartVerdict {
  may: boolean
  refusals: Refusal[]
  warnings: string[]
  opens_ms: number | null
  likely_ms: number | null
  safe_ms: number | null
  closes_ms: number | null
  /** last moment today at which the step may start so that its window ends while the shop is open */
  latest_ms: number | null
  air: AirVerdict | null
  /** dusty work that may start now where it is carried outside */
  outside: boolean
}

export interface StartQuestion {
  step: BenchStep
  steps: readonly BenchStep[]
  waits: readonly BenchWait[]
  verdicts: readonly Verdict[]
  overruled: ReadonlySet<string>
  hours: Hours
  now_ms: number
  shelf: Shelf
  air: Air | null
  /** a coat that is wet in the same room, in words; null where none is, or dust has a room of its own */
  wetCoat?: string | null
  /** what the air of its room says to what it gives off */
  vapour?: readonly { stops: boolean; says: string }[]
  /** it is carried out of the building: its dust falls into no coat of ours */
  outside?: boolean
  clock: (at_ms: number) => string
}

/** What a window that has passed asks for, and whether the next step must not start before it was done. */
const LATE: Record<Late, { stops: boolean; says: string }> = {
  'scuff': { stops: true, says: 'Mend: scuff before this coat.' },
  'condition-again': { stops: true, says: 'Mend: condition again.' },
  'wet-again': { stops: false, says: 'Work at once; wet it again where it has dried.' },
  'soften': { stops: false, says: 'It has set: soften it with its own thinner, and wipe hard.' },
  'nothing': { stops: false, says: 'Work at once, and look for what went wrong.' },
}

/** A rule that asked for time, which has passed by now: the plan counts the least, the clock what it was. */
export function waitedFor(
  v: Verdict,
  steps: ReadonlyMap<string, Pick<BenchStep, 'finished_ms'>>,
  now_ms: number,
): boolean {
  const end = v.wait ? steps.get(v.wait.from)?.finished_ms : null
  return v.wait !== undefined && typeof end === 'number' && now_ms - end >= v.wait.min * MIN_MS
}

/** What can still be done once the window after a step has passed. */
export const lateSays = (from: BenchStep): string =>
  LATE[actOf(from).late].says.replace(/^Mend: (.)/, (_, c: string) => c.toUpperCase())

/** What dusty work outside asks for. Common practice; how wet the yard is nobody measures yet. */
const OUTSIDE = 'Outside: dry weather, a dust mask all the same, and dusted off before it comes in again.'

/** Judges one step against its waits, the plan's verdicts, the hours and the air. */
export function mayStart(q: StartQuestion): StartVerdict {
  const { step, now_ms, hours, clock } = q
  const refusals: Refusal[] = []
  const warnings: string[] = []
  const refuse = (code: Refusal['code'], says: string, overrulable = false) => {
    refusals.push({ code, says, overrulable })
  }
  const byKey = new Map(q.steps.map(s => [s.key, s]))
  const said = (rule: string) => q.overruled.has(`${rule}|${step.key}`)

  if (step.state !== 'planned')
    refuse('not-planned', step.state === 'running' ? 'It is running already.' : 'It is done.')
  if (does(step, 'words'))
    refuse(
      'client',
      'The client has not said yes yet. Ask under Client, or record a word given by phone or at the counter.',
    )

  const before = q.waits.filter(w => w.to === step.key)
  const windows: Window[] = []
  for (const wait of before) {
    const from = byKey.get(wait.from)
    if (!from || from.state === 'skipped') continue
    const wet = from.state === 'running' && wait.sections !== undefined && from.laid?.some(s => s.off_ms === null)
    if (from.state !== 'done' && !wet)
      refuse(
        does(from, 'words') ? 'client' : 'earlier-step',
        does(from, 'words') ? "It waits for the client's word." : `${from.title}: that comes before.`,
      )
    const window = windowOf(wait, from, q.air)
    if (!window) continue
    windows.push(window)
    if (window.opens_ms !== null && now_ms < window.opens_ms)
      refuse('too-early', `May start from ${clock(window.opens_ms)}: ${wait.why}.`)
    else if (window.safe_ms !== null && now_ms < window.safe_ms && wait.kind !== 'dwell' && wait.kind !== 'order')
      warnings.push(`Try it first: likely ready ${clock(window.likely_ms!)}, safe ${clock(window.safe_ms)}.`)
    if (window.closes_ms !== null && now_ms > window.closes_ms) {
      const late = LATE[actOf(from).late]
      const passed = `The window closed at ${clock(window.closes_ms)}`
      if (!late.stops) warnings.push(`${passed}. ${late.says}`)
      else if (!said('recoat-window-passed') && !said('stain-within-2h-of-conditioner'))
        refuse('too-late', `${passed}: ${wait.why}. ${late.says}`, true)
    }
  }

  for (const v of q.verdicts) {
    if (v.step !== step.key || waitedFor(v, byKey, now_ms)) continue
    if (blocks(v, said(v.rule))) refuse('rule', `${v.says}. ${v.reason} ${v.mend}`, v.severity === 'stop')
    else if (!said(v.rule)) warnings.push(`${v.says}. ${v.mend}`)
  }

  const wet = q.wetCoat && makesDust(step) && !said('no-dust-work-in-finishing-room') ? q.wetCoat : null
  const ends_ms = now_ms + step.attended_min * MIN_MS
  const closes_ms = closingOf(hours, now_ms)
  const daylong = closes_ms === null || ends_ms <= closes_ms
  if (q.outside && !daylong)
    refuse(
      'ends-after-closing',
      `Outside it would end at ${clock(ends_ms)}, after closing at ${clock(closes_ms)}: neighbours and light. ` +
        'Take it tomorrow, or less of it.',
    )
  if (q.outside) warnings.push(OUTSIDE)
  else if (wet) refuse('rule', `A coat is wet in this room: ${wet}. Sand outside, or when it is dry.`, true)

  const product = taken(q.shelf, step)
  // what must come off is never held back by the air
  const need = actOf(step).usesUp ? product?.air : null
  const air = need ? judgeAir(need, q.air) : null
  if (air && !said('topcoat-climate')) {
    if (air.severity === 'stop' || air.severity === 'unknown') refuse('air', air.lines.join(' '), true)
    else warnings.push(...air.lines)
  }

  for (const { stops, says } of q.vapour ?? []) {
    if (stops) refuse('air', says)
    else warnings.push(says)
  }

  const life_min = product?.potLife_min?.[0]
  if (life_min !== undefined) {
    const ends_ms = potEnds_ms(step, q.air, q.shelf)
    if (ends_ms === null)
      warnings.push(`Touch "Mixed" when the two parts come together: a pot lasts about ${life_min / 60} h.`)
    else if (now_ms <= ends_ms) warnings.push(`Use the pot by ${clock(ends_ms)}.`)
    else if (!said('two-part-after-pot-life'))
      refuse(
        'rule',
        `The pot was mixed at ${clock(step.mixed_ms!)}; its life ended at ${clock(ends_ms)}. Mix a new pot.`,
        true,
      )
  }

  const longest = Math.max(
    0,
    ...q.waits.filter(w => w.from === step.key && w.hard && w.max !== null && w.kind === 'dwell').map(w => w.max!),
  )
  const closing = closingOf(hours, now_ms)
  const latest_ms = closing === null || longest === 0 ? null : closing - longest * MIN_MS
  if (!isWorking(hours, now_ms)) {
    if (before.every(w => w.kind !== 'dwell'))
      refuse('closed', `The shop is closed; it opens ${clock(nextSpan(hours, now_ms)[0])}.`)
  } else if (latest_ms !== null && now_ms > latest_ms) {
    refuse(
      'ends-after-closing',
      `Its window would end at ${clock(now_ms + longest * MIN_MS)}, after closing at ${clock(closing!)}. ` +
        `Latest start today: ${clock(latest_ms)}.`,
    )
  }

  const latestOf = (pick: (w: Window) => number | null) =>
    windows.length ? Math.max(...windows.map(w => pick(w) ?? -Infinity)) : null
  const finite = (x: number | null) => (x !== null && Number.isFinite(x) ? x : null)
  const closes = windows.flatMap(w => w.closes_ms ?? [])
  return {
    may: refusals.length === 0,
    outside: makesDust(step) && daylong && refusals.length === (wet && !q.outside ? 1 : 0),
    refusals,
    warnings,
    latest_ms,
    air,
    opens_ms: finite(latestOf(w => w.opens_ms)),
    likely_ms: finite(latestOf(w => w.likely_ms)),
    safe_ms: finite(latestOf(w => w.safe_ms)),
    closes_ms: closes.length ? Math.min(...closes) : null,
  }
}
