import { describe, expect, it, test } from 'vitest'
import { USUAL_HOUSE } from '#core/house'
import { usualContext } from '#core/context'
import type { Face } from '#core/piece'
import { boardsOf, recompose, type Plan, workOutPlan } from '#core/plan'
import { judgePlan } from '#core/rules'
import { built, choice, face, facts, type Picked } from '../facts'

const DAY_MIN = 1440
const underside: Partial<Face> = { id: 2, name: 'underside', rank: 'hidden' }
const leaf = facts({
  faces: [
    face({ part: 'leaf' }),
    face({ part: 'leaf', ...underside }),
    face({ id: 3, part: 'legs', shape: 'turned', orientation: 'vertical' }),
  ],
})
const planned = (picks: Partial<Picked> = {}, house = USUAL_HOUSE) => {
  const context = usualContext(leaf, { house })
  return workOutPlan(context, built(context, choice(picks)))
}
const at = (plan: Plan, key: string) => plan.steps.findIndex(s => s.key === key)

/** Common practice, no source: the side that shows less first, all its coats; the good side last, up. */
describe('a board coated on both sides', () => {
  it('has its underside through first, is turned over, and then what shows is coated with all else', () => {
    const plan = planned()
    const coats = plan.steps.filter(s => s.kind === 'coat')
    const turn = at(plan, 'turn')
    expect(coats.slice(0, 3).map(s => s.faces)).toEqual([[2], [2], [2]])
    expect(coats.slice(3).map(s => s.faces)).toEqual([
      [1, 3],
      [1, 3],
      [1, 3],
    ])
    expect(turn).toBeGreaterThan(at(plan, '1.coat.3.under'))
    expect(turn).toBeLessThan(at(plan, '1.coat.1'))
    expect(plan.steps.find(s => s.kind === 'wash-off')!.faces).toEqual([1, 2, 3])
    const context = usualContext(leaf)
    expect(judgePlan({ context, choice: built(context, choice()), ...plan }).map(v => v.rule)).not.toContain(
      'insides-too',
    )
  })
  it('waits until the fresh side may be handled; a two-part film longer than a weekend', () => {
    const wait = (finish: Picked['finish']) =>
      Math.max(...planned({ finish }).waits.map(w => (w.to === 'turn' ? w.min : 0)))
    expect(wait('waterborne-polyurethane')).toBe(DAY_MIN)
    expect(wait('urethane-2c')).toBeGreaterThanOrEqual(2 * DAY_MIN)
    expect(wait('varnish-oil')).toBeGreaterThanOrEqual(DAY_MIN)
  })
  it('turned at once on a two-part film breaks a rule', () => {
    const context = usualContext(leaf)
    const its = built(context, choice({ finish: 'urethane-2c' }))
    const plan = workOutPlan(context, its)
    const broken = (waits: Plan['waits']) =>
      judgePlan({ context, choice: its, steps: plan.steps, waits }).filter(v => v.rule === 'weight-on-fresh-film')
    expect(broken(plan.waits)).toEqual([])
    expect(broken(plan.waits.map(w => (w.to === 'turn' ? { ...w, min: 60 } : w)))).toEqual([
      expect.objectContaining({ step: 'turn' }),
    ])
  })
  it('on points both sides are coated together, and nothing is turned', () => {
    const plan = planned({}, { ...USUAL_HOUSE, 'both-sides': 'points' })
    expect(at(plan, 'turn')).toBe(-1)
    expect(plan.steps.filter(s => s.kind === 'coat').map(s => s.faces)).toEqual([
      [1, 2, 3],
      [1, 2, 3],
      [1, 2, 3],
    ])
  })
  it('no coat is lost or doubled by it: each face gets what it gets on points', () => {
    for (const finish of ['waterborne-polyurethane', 'varnish-oil', 'dewaxed-shellac'] as const)
      for (const colour of ['none', 'pigment-stain', 'glaze'] as const) {
        const kinds = (plan: Plan, id: number) => plan.steps.filter(s => s.faces.includes(id)).map(s => s.kind)
        const turned = planned({ finish, colour })
        const points = planned({ finish, colour }, { ...USUAL_HOUSE, 'both-sides': 'points' })
        for (const id of [1, 2, 3]) expect(kinds(turned, id).filter(k => k !== 'turn')).toEqual(kinds(points, id))
      }
  })
  it('what is begun under it stays when the surface is taken again', () => {
    const context = usualContext(leaf)
    const its = built(context, choice())
    const { steps } = workOutPlan(context, its)
    const begun = at({ steps, waits: [], budgets: [] }, '1.coat.2.under')
    const past = steps.slice(0, begun)
    const keys = steps.map(s => s.key)
    const again = recompose({ context, before: its, after: its, past, ahead: steps.slice(begun), keys, leave: [] })
    expect(again.lost).toEqual([])
    expect(again.steps.filter(s => !past.some(p => p.key === s.key)).map(s => s.key)).toEqual(keys.slice(begun))
  })
})

test.each<[string, Partial<Face>[], number]>([
  ['top and underside', [{}, underside], 1],
  ['its edge in profile beside them', [{}, underside, { id: 3, orientation: 'vertical', width_mm: 24 }], 1],
  ['two tops of one part', [{}, { id: 2 }], 0],
  ['top and bottom of a carcass', [{}, underside, { id: 3, orientation: 'vertical', width_mm: 700 }], 0],
  ['another size', [{}, { ...underside, width_mm: 300 }], 0],
  ['an underside that is left alone', [{}, { ...underside, scope: 'protect' }], 0],
  ['another part', [{}, { ...underside, part: 'shelf' }], 0],
  ['two leaves of one part', [{}, underside, { id: 3 }, { ...underside, id: 4 }], 2],
])('boards: %s', (_what, faces, n) => expect(boardsOf(faces.map(face))).toHaveLength(n))
