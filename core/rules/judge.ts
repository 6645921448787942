/**
 * What may lie on what: all rules, and a plan judged by them. A new rule is one entry in `wood`, `colour` or `coats`,
 * and one row in its test.
 */
import { type Step, unitsOf, type Surface, type Wait, walk } from '../acts'
import { type Choice, groupsIn, groupsOfWay, waysOf } from '../build'
import type { Context } from '../context'
import type { Group } from '../piece'
import type { LicenceKind } from '../safety'
import { COAT_RULES } from './coats'
import { HANDLING_RULES } from './handling'
import { COLOUR_RULES } from './colour'
import { LAYER_RULES } from './layers'
import { MARK_RULES } from './marks'
import type { Breach, RuleContext, Rule } from './rule'
import { WOOD_RULES } from './wood'

export interface Verdict extends Omit<Rule, 'check'> {
  rule: string
  step: string
  says: string
  wait?: Breach['wait']
}

const TRADE = [...WOOD_RULES, ...COLOUR_RULES, ...COAT_RULES, ...LAYER_RULES]
export const RULES: readonly Rule[] = [...TRADE, ...HANDLING_RULES, ...MARK_RULES]

/**
 * All breaches of rules of one scope, each with its reason and mend. One verdict per rule and step; each way of a
 * piece is judged by itself.
 */
export function judgePlan(input: {
  context: Context
  choice: Choice
  steps: readonly Step[]
  waits: readonly Wait[]
  start?: (g: Group) => Surface
  scope?: Rule['scope']
  licences?: readonly LicenceKind[]
}): Verdict[] {
  const { context, scope = 'plan', licences = [] } = input
  const found = new Map<string, Verdict>()
  let all: ReturnType<RuleContext['whole']> | undefined
  const whole = () => {
    const { steps, waits, choice, start } = input
    return (all ??= { steps, waits, visits: walk(steps, unitsOf(steps, groupsIn(context, choice)), context, start) })
  }
  for (const way of waysOf(context, input.choice)) {
    const groups = unitsOf(input.steps, groupsOfWay(way))
    const own = new Set(groups.flatMap(g => g.faces.map(f => f.id)))
    const steps =
      input.choice.buildUps.length > 1 ? input.steps.filter(s => s.faces.some(f => own.has(f))) : input.steps
    const keys = new Set(steps.map(s => s.key))
    const waits =
      input.choice.buildUps.length > 1 ? input.waits.filter(w => keys.has(w.from) && keys.has(w.to)) : input.waits
    const within = { ...context, facts: way.facts }
    const asked: RuleContext = {
      ...within,
      buildUp: way.buildUp,
      licences,
      steps,
      waits,
      visits: walk(steps, groups, within, input.start),
      whole,
    }
    for (const { check, ...rule } of RULES.filter(r => r.scope === scope)) {
      for (const b of check?.(asked) ?? [])
        if (!found.has(`${rule.slug}|${b.step}`))
          found.set(`${rule.slug}|${b.step}`, { ...rule, rule: rule.slug, ...b })
    }
  }
  return [...found.values()]
}
