import { describe, expect, it, test } from 'vitest'
import { layerOf } from '#core/build'
import { usualContext } from '#core/context'
import { dryFilm_um, materialOf, withLabel } from '#core/materials'
import { workOutPlan } from '#core/plan'
import { face, facts } from '../facts'

const labelled = (figures: Parameters<typeof withLabel>[1]['figures'], slug = 'oil-polyurethane') =>
  withLabel(materialOf(slug), { name: 'by its label', figures })

/** What a label says, and what follows from it; each row with where that comes from. */
describe('figures that follow from a label', () => {
  test.each([
    ['definition: 1 L spreads 10 m² at 100 µm wet', labelled({ spread_m2_l: 10 }).wet_um, 100],
    ['definition: 1 L spreads 8 m² at 125 µm wet', labelled({ spread_m2_l: 8 }).wet_um, 125],
    [
      'common practice, arithmetic: 4 mil wet at 25 % leaves 1 mil dry',
      dryFilm_um(labelled({ wet_um: 101.6, solids_pct: 25 })),
      25.4,
    ],
    ['arithmetic: 100 % solids leave what was wet', dryFilm_um(labelled({ wet_um: 80, solids_pct: 100 })), 80],
  ])('%s', (_source, found, expected) => expect(found).toBeCloseTo(expected, 6))
  it('amount = area × wet film ÷ transfer × 1.1 (common practice), with the label’s film', () => {
    const f = facts({ faces: [face({ area_m2: 2, species: 'oak' })] })
    const m = labelled({ spread_m2_l: 8 })
    const layer = layerOf({ id: 1, act: 'coat', product: 'oil-polyurethane', label: 1, coats: 1 })
    const plan = workOutPlan(usualContext(f, { shelf: { 1: m } }), {
      buildUps: [{ id: 1, ground: 'strip-chemical', ending: 'as-laid', layers: [layer], faces: null }],
    })
    expect(plan.steps.find(s => s.kind === 'coat')!.amount_ml).toBeCloseTo((2 * 125 * 1.1) / m.transfer, 6)
  })
})

/** §10.1 of the handbook, common practice: how many coats a finish gets where nobody says. */
describe('coats where nobody says how many', () => {
  test.each<[slug: string, act: 'coat' | 'oil-on', least: number, most: number]>([
    ['dewaxed-shellac', 'coat', 2, 2],
    ['nitrocellulose-lacquer', 'coat', 3, 6],
    ['waterborne-polyurethane', 'coat', 2, 3],
    ['oil-polyurethane', 'coat', 2, 3],
    ['wiping-varnish', 'coat', 3, 4],
    ['resin-oil-varnish', 'coat', 3, 3],
    ['shellac-brushed', 'coat', 4, 6],
    ['varnish-oil', 'oil-on', 4, 5],
    ['hardwax-oil-2c', 'oil-on', 1, 1],
  ])('%s', (product, act, least, most) => {
    const plan = workOutPlan(usualContext(facts()), {
      buildUps: [
        {
          id: 1,
          ground: 'strip-chemical',
          ending: 'as-laid',
          layers: [layerOf({ id: 1, act, product })],
          faces: null,
        },
      ],
    })
    const coats = plan.steps.filter(s => s.kind === act).length
    expect(coats).toBeGreaterThanOrEqual(least)
    expect(coats).toBeLessThanOrEqual(most)
  })
})
