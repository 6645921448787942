/** What a rule is, and the few questions that rules ask of a plan. A rule reads surface states and waits only. */
import { actOf, does, isBare, type Step, type Surface, type Unfit, type Visit, type Wait } from '../acts'
import type { BuildUp } from '../build'
import type { Context } from '../context'
import type { LicenceKind, Severity } from '../safety'

export interface RuleContext extends Context {
  /** what somebody in the shop holds a licence for today */
  licences: readonly LicenceKind[]
  buildUp: BuildUp
  steps: readonly Step[]
  waits: readonly Wait[]
  visits: readonly Visit[]
  /** the same of every way of the piece, for what one face does to another */
  whole: () => Pick<RuleContext, 'steps' | 'waits' | 'visits'>
}
/** `severity`: where one breach of a rule is milder or graver than the others */
/** `wait`: it would hold if the step waited so long after that one, minutes */
export interface Breach {
  step: string
  says: string
  severity?: Severity
  wait?: { from: string; min: number }
}
export interface Rule {
  slug: string
  severity: Severity
  /** plan: judged on every change · start: needs the moment · shop: needs the room and the other pieces */
  scope: 'plan' | 'start' | 'shop'
  reason: string
  mend: string
  source: string
  /** null: judged where the moment or the room is known */
  check: ((c: RuleContext) => Breach[]) | null
}

export const COMMON = 'common practice'
export const abrades = (v: Pick<Visit, 'step'>): boolean => does(v.step, 'abrades')
export const covers = (v: Pick<Visit, 'step'>): boolean => does(v.step, 'covers')
export const films = (v: Pick<Visit, 'step'>): boolean => does(v.step, 'films')
/** A step that its act cannot do on this surface, by this rule. */
export const unfit = (rule: Unfit['rule']) => (c: RuleContext) =>
  each(c, v => {
    const found = v.step.fields.where === 'spots' ? null : actOf(v.step).ground(v.before, v.step)
    return found?.rule === rule ? found.says : null
  })

export const breach = (step: Step, says: string, severity?: Severity): Breach =>
  severity ? { step: step.key, says, severity } : { step: step.key, says }

/** One question of every step on every group. */
export function each(c: RuleContext, when: (v: Visit) => string | Omit<Breach, 'step'> | null): Breach[] {
  const breaches: Breach[] = []
  for (const v of c.visits) {
    const found = when(v)
    if (found === null) continue
    breaches.push(typeof found === 'string' ? breach(v.step, found) : { ...found, step: v.step.key })
  }
  return breaches
}
/** Too soon after a step; mended by waiting. */
export const tooSoon = (from: string | null, min: number, says: string): Omit<Breach, 'step'> =>
  from === null ? { says } : { says, wait: { from, min } }
export const top = (s: Surface) => s.films.at(-1) ?? null
export const lastInWood = (s: Surface) => s.inWood.at(-1)
export const hours = (min: number): string => {
  if (min < 120) return `${Math.round(min)} min`
  if (min < 2880) return `${Math.round(min / 60)} h`
  return `${Math.round(min / 1440)} days`
}

interface Times {
  at: ReadonlyMap<string, number>
  /** least minutes from the start of the first step to the start of each */
  start: readonly number[]
  direct: ReadonlyMap<string, number>
}
const known = new WeakMap<readonly Wait[], Times & { steps: readonly Step[] }>()
/** When steps begin at the least, worked out once for a plan. */
function timesOf({ steps, waits }: Pick<RuleContext, 'steps' | 'waits'>): Times {
  const before = known.get(waits)
  if (before?.steps === steps) return before
  const direct = new Map(waits.map(w => [`${w.from}>${w.to}`, w.min]))
  const start = [0]
  for (const [i, s] of steps.entries())
    start.push(start[i]! + s.attended_min + (direct.get(`${s.key}>${steps[i + 1]?.key}`) ?? 0))
  const times = { steps, at: new Map(steps.map((s, i) => [s.key, i])), start, direct }
  known.set(waits, times)
  return times
}

/** Least minutes from the start of one step to the start of a later one, along the order of the work. */
export function leastElapsed_min(c: Pick<RuleContext, 'steps' | 'waits'>, from: string, to: string): number {
  const { at, start } = timesOf(c)
  return Math.max(0, start[at.get(to) ?? 0]! - start[at.get(from) ?? 0]!)
}

/** The same, or the wait that is drawn directly between the two, whichever is longer. */
export function gap_min(c: Pick<RuleContext, 'steps' | 'waits'>, from: string | null, to: string): number {
  const { at, direct } = timesOf(c)
  if (from === null || !at.has(from)) return Infinity
  return Math.max(direct.get(`${from}>${to}`) ?? 0, leastElapsed_min(c, from, to))
}

export const DAY_MIN = 1440
/** Names of sheen, on a label, that come of flatting. */
export const FLATTED = /matt|flat|satin|silk|semi|egg/i

/** A pass of the ladder on the bare wood: not a light one after water or bleach, and not on marks alone. */
export const isLadder = ({ step, before }: Visit): boolean =>
  step.kind === 'sand' && isBare(before) && !step.fields.after && step.fields.where !== 'spots'
