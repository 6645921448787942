/** What a rule is, and the few questions that rules ask of a plan. A rule reads surface states and waits only. */
import { actOf, does, type Step, type Surface, type Unfit, type Visit, type Wait } from '../acts'
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
    const found = actOf(v.step).ground(v.before, v.step)
    return found?.rule === rule ? found.says : null
  })

export const breach = (step: Step, says: string, severity?: Severity): Breach =>
  severity ? { step: step.key, says, severity } : { step: step.key, says }

/** One question of every step on every group. */
export const each = (c: RuleContext, when: (v: Visit) => string | Omit<Breach, 'step'> | null): Breach[] =>
  c.visits.flatMap(v => {
    const found = when(v)
    return found === null ? [] : [typeof found === 'string' ? breach(v.step, found) : { ...found, step: v.step.key }]
  })
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

/** Least minutes from the start of one step to the start of a later one, along the order of the work. */
export function leastElapsed_min(c: Pick<RuleContext, 'steps' | 'waits'>, from: string, to: string): number {
  const a = c.steps.findIndex(s => s.key === from)
  const b = c.steps.findIndex(s => s.key === to)
  let sum = 0
  for (let i = a; i < b; i++) {
    const wait = c.waits.find(w => w.from === c.steps[i]!.key && w.to === c.steps[i + 1]!.key)
    sum += c.steps[i]!.attended_min + (wait?.min ?? 0)
  }
  return sum
}

/** The same, or the wait that is drawn directly between the two, whichever is longer. */
export function gap_min(c: Pick<RuleContext, 'steps' | 'waits'>, from: string | null, to: string): number {
  if (from === null || !c.steps.some(s => s.key === from)) return Infinity
  const direct = c.waits.find(w => w.from === from && w.to === to)
  return Math.max(direct?.min ?? 0, leastElapsed_min(c, from, to))
}

export const DAY_MIN = 1440
/** Names of sheen, on a label, that come of flatting. */
export const FLATTED = /matt|flat|satin|silk|semi|egg/i
