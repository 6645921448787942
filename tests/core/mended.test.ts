import { describe, expect, it } from 'vitest'
import { does, type Step } from '#core/acts'
import { usualContext } from '#core/context'
import { MENDS, mendSteps, type MendSlug } from '#core/diagnose'
import { completePlan, workOutPlan } from '#core/plan'
import { judgePlan } from '#core/rules'
import { blocks, LICENCES } from '#core/safety'
import { built, choice, facts } from '../facts'

/** A mend goes into a plan as steps of it: with minutes and amounts, and against no rule that the plan kept before. */
const FINISHES = [
  ...(['waterborne-polyurethane', 'oil-polyurethane', 'wiping-varnish', 'nitrocellulose-lacquer'] as const),
  ...(['dewaxed-shellac', 'resin-oil-varnish', 'varnish-oil'] as const),
]
const context = usualContext(facts())
function planOf(finish: (typeof FINISHES)[number]) {
  const picked = built(context, choice({ finish }))
  return { picked, plan: workOutPlan(context, picked) }
}
const broken = (picked: ReturnType<typeof built>, steps: readonly Step[]) => {
  const { steps: done, waits } = completePlan(steps, context, picked)
  const verdicts = judgePlan({ context, choice: picked, steps: done, waits, licences: LICENCES })
  return { done, breaks: verdicts.filter(v => blocks(v)).map(v => `${v.rule}: ${v.says}`) }
}
/** After the second coat, where there are two: the plan goes on behind it. */
function mendedAt(steps: readonly Step[], slug: MendSlug) {
  const coats = steps.filter(s => does(s, 'finishes'))
  const at = steps.indexOf(coats[Math.min(1, coats.length - 1)]!)
  const own = steps[at]!
  const where = { faces: own.faces, step: own, colour: null, film: does(own, 'films'), follows: false }
  const fresh = mendSteps(MENDS[slug], where, 'mend-1')
  return { fresh, order: [...steps.slice(0, at + 1), ...fresh, ...steps.slice(at + 1)] }
}
/** Mends of wood and colour go on bare wood, not over a coat; they are put there by hand. */
const OF_FILM: readonly MendSlug[] = [
  ...(['wash-and-barrier', 'sand-and-recoat', 'level-and-recoat', 'pass-and-recoat', 'level-run'] as const),
  ...(['wait', 'wipe-and-wait', 'off-and-recoat', 'off-scuff-recoat', 'sheen-coat', 'knock-back'] as const),
  ...(['mist-retarder', 'touch-up', 'recolour-line', 'warm-and-rub', 'touch-torn-edge'] as const),
]

describe('a mend in a plan', () => {
  for (const finish of FINISHES)
    it.each(OF_FILM)(`${finish}: %s breaks nothing that held before, and has its minutes`, slug => {
      const { picked, plan } = planOf(finish)
      const before = broken(picked, plan.steps).breaks
      const { fresh, order } = mendedAt(plan.steps, slug)
      const { done, breaks } = broken(picked, order)
      expect(breaks.filter(b => !before.includes(b))).toEqual([])
      for (const s of done.filter(x => fresh.some(f => f.key === x.key))) {
        expect(s.attended_min, s.kind).toBeGreaterThan(0)
        if (s.kind === 'coat' || s.kind === 'oil-on') expect(s.amount_ml).toBeGreaterThan(0)
        expect(s.title, s.kind).not.toBe('')
      }
    })
  it('is waited for: what follows a coat that is laid again waits as it did for the first', () => {
    const { picked, plan } = planOf('oil-polyurethane')
    const { fresh, order } = mendedAt(plan.steps, 'sand-and-recoat')
    const { waits } = completePlan(order, context, picked)
    const again = fresh.at(-1)!.key
    expect(waits.some(w => w.from === again && w.min > 60)).toBe(true)
  })
})
