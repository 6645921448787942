/**
 * Cautions that go with a step: from its act, method, product and what is known of the piece. Worked out, never
 * stored.
 */
import { cautionsOf } from '../materials'
import { type Facts, leadSuspected, wetOnly } from '../piece'
import type { Caution } from '../safety'
import { LOUD } from './act'
import { actOf, makesDust, wears } from './acts'
import type { Step } from './step'

export function cautionsOfStep(step: Step, facts: Facts): Caution[] {
  const act = actOf(step)
  const loud = act.makes.noise && LOUD.includes(step.method)
  const old = wetOnly(facts) && wears(step)
  const cautions: (Caution | false)[] = [
    old && (leadSuspected(facts.lead) ? 'lead' : 'poison'),
    ...act.cautions(step, { facts }),
    ...(step.product ? cautionsOf(step.product) : []),
    step.method === 'spray' && 'spray',
    makesDust(step) && 'dust',
    loud && 'noise',
  ]
  return [...new Set(cautions.filter((c): c is Caution => Boolean(c)))]
}
