/**
 * Cautions that go with a step: from its act, method, product and what is known of the piece. Worked out, never
 * stored.
 */
import type { Context } from '../context'
import { cautionsOf } from '../materials'
import { leadSuspected, wetOnly } from '../piece'
import type { Caution } from '../safety'
import { LOUD } from './act'
import { actOf, makesDust, wears } from './acts'
import type { Step } from './step'

/** Where it is done: does dust share a room with finish? */
export interface Room {
  shared: boolean
}
const OWN_ROOM: Room = { shared: false }

export function cautionsOfStep(step: Step, context: Context, room: Room = OWN_ROOM): Caution[] {
  const { facts } = context
  const act = actOf(step)
  const loud = act.makes.noise && LOUD.includes(step.method)
  const old = wetOnly(facts) && wears(step)
  const products = step.product ? cautionsOf(step.product) : []
  // a machine's motor is a spark where vapour stands, and its dust falls into what is wet
  const inTheWay = room.shared && (products.includes('solvent') || makesDust(step))
  const cautions: (Caution | false)[] = [
    old && (leadSuspected(facts.lead) ? 'lead' : 'poison'),
    ...act.cautions(step, context),
    ...products,
    step.method === 'spray' && 'spray',
    makesDust(step) && 'dust',
    loud && 'noise',
    inTheWay && 'one-room',
  ]
  return [...new Set(cautions.filter((c): c is Caution => Boolean(c)))]
}
