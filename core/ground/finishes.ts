/** Finishes beside each other on one piece. */
import { actOf, does } from '../acts'
import type { Choice } from '../build'
import { FINISHES, type Finish, materialOf } from '../materials'
import { sumOf } from '../units'
import { judgeRoute, type RouteQuestion } from './judge'
import type { Standing } from './reason'

export interface FinishLine {
  finish: Finish
  standing: Standing
  why: string | null
  durability: number
  repairable: number
  yellows: boolean
  coats: number
  total_minor: number
  handle_d: number
  use_d: number
  voc_g: number
}

/**
 * Every finish on this piece under one route, beside each other: what it stands and costs, when it may be used, what
 * it gives off. Durability and repairability 1–5 and VOC are shop defaults; any fully cured finish may touch food, by
 * its label. `withFinish`: the build-ups with another finish.
 */
export function compareFinishes(
  q: Omit<RouteQuestion, 'choice'>,
  withFinish: (finish: Finish) => Choice,
): FinishLine[] {
  return FINISHES.map(finish => {
    const m = materialOf(finish)
    const choice = withFinish(finish)
    const verdict = judgeRoute(choice.buildUps[0].ground, { ...q, choice })
    const own = verdict.plan.steps.filter(st => st.product === finish && st.amount_ml !== null)
    return {
      finish,
      standing: verdict.standing,
      why: verdict.reasons.find(r => r.standing === verdict.standing && r.standing !== 'possible')?.says ?? null,
      durability: m.durability,
      repairable: m.repairable,
      yellows: m.traits.includes('yellows'),
      coats: own.filter(st => actOf(st).layer !== null && does(st, 'covers')).length,
      total_minor: verdict.likely.total_minor,
      handle_d: verdict.likelyDays,
      use_d: verdict.likelyDays + m.cure_d[1],
      voc_g: sumOf(own, st => (st.amount_ml! / 1000) * m.voc_g_l),
    }
  })
}
