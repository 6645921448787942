import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import { stepOf } from '#core/acts'
import {
  beliefOf,
  causesOf,
  FACT_SLUGS,
  fault,
  factsOf,
  GROUPS,
  type Known,
  type MendAt,
  MENDS,
  mendSteps,
  nextAsks,
  priorOf,
  SIGNS,
  signOf,
  suspects,
} from '#core/diagnose'
import { seeded } from '../../core/identify/simulate'
import { productProblem } from '#core/plan'
import { P } from '#core/abrasives'

const none = { facts: [], said: [] }
describe('the signs', () => {
  it('are all that are listed, each once, in a group', () => {
    expect(SIGNS.map(s => s.no).sort((a, b) => a - b)).toEqual(Array.from({ length: 29 }, (_, i) => i + 1))
    expect(new Set(SIGNS.map(s => s.slug)).size).toBe(29)
    for (const s of SIGNS) expect(GROUPS).toContain(s.group)
  })
  it.each(SIGNS.map(s => [s.slug, s] as const))('%s: causes, questions and mends hang together', (_, sign) => {
    expect(causesOf(sign).length).toBeGreaterThan(1)
    for (const [slug, a] of Object.entries(sign.asks)) {
      expect(a.asks.endsWith('?'), slug).toBe(true)
      const named = Object.keys(a.yes)
      expect(named.length, slug).toBeGreaterThan(0)
      for (const c of named) expect(causesOf(sign), slug).toContain(c)
    }
    for (const c of Object.values(sign.causes)) for (const f of [...c.more, ...c.less]) expect(FACT_SLUGS).toContain(f)
  })
  it('have no two causes that no question and no fact tell apart, unless the mend is the same', () => {
    for (const sign of SIGNS)
      for (const [i, a] of causesOf(sign).entries())
        for (const b of causesOf(sign).slice(i + 1)) {
          const apart = Object.values(sign.asks).some(x => (x.yes[a] ?? 'half') !== (x.yes[b] ?? 'half'))
          const [ca, cb] = [sign.causes[a]!, sign.causes[b]!]
          expect(apart || ca.mend === cb.mend, `${sign.slug}: ${a}, ${b}`).toBe(true)
        }
  })
})

describe('what caused it', () => {
  const fish = signOf('fish-eyes')
  it('begins with the most usual, and is told by facts and answers', () => {
    expect(suspects(fish, none)[0]!.cause).toBe('silicone')
    const line = { facts: ['sprayed' as const], said: [{ ask: 'sprayed', yes: true }] }
    const [first, second] = suspects(fish, line)
    expect(first!.cause).toBe('line')
    expect(first!.pro.map(r => r.fact ?? r.ask)).toEqual(expect.arrayContaining(['sprayed']))
    expect(second!.contra.some(r => r.ask === 'sprayed')).toBe(true)
  })
  it('is never called more than 95 % sure, and what is not asked of it changes nothing', () => {
    const all = { facts: [], said: ['same', 'beaded'].map(ask => ({ ask, yes: true })), found: { silicone: 1000 } }
    expect(suspects(fish, all)[0]!.certainty).toBeLessThanOrEqual(0.95)
    expect(beliefOf(fish, { facts: [], said: [{ ask: 'nonsense', yes: true }] })).toEqual(beliefOf(fish, none))
  })
  it('leans toward what this shop found: ten cases weigh as much as the table', () => {
    const [silicone, line] = priorOf(fish)
    expect(silicone).toBeGreaterThan(line!)
    const found = priorOf(fish, { line: 10 })
    expect(found[1]).toBeCloseTo((10 * line! + 10) / 20, 10)
  })
  it('may be told by grades of the shop', () => {
    const grades = { prints: { silicone: 'almost' as const, hands: 'hardly' as const } }
    const said = [{ ask: 'prints', yes: true }]
    expect(suspects(fish, { facts: [], said })[0]!.cause).toBe('hands')
    expect(suspects(fish, { facts: [], said, grades })[0]!.cause).toBe('silicone')
  })
  it('sums to one, asks nothing twice, and asks no more once it is sure', () => {
    const signs = fc.constantFrom(...SIGNS)
    fc.assert(
      fc.property(signs, fc.array(fc.boolean(), { maxLength: 5 }), fc.subarray(FACT_SLUGS), (sign, answers, facts) => {
        const said: { ask: string; yes: boolean }[] = []
        for (const yes of answers) {
          const [ask] = nextAsks(sign, { facts, said })
          if (!ask) break
          expect(said.map(s => s.ask)).not.toContain(ask)
          said.push({ ask, yes })
        }
        const belief = beliefOf(sign, { facts, said })
        expect(belief.reduce((a, b) => a + b, 0)).toBeCloseTo(1, 9)
        if (Math.max(...belief) >= 0.8) expect(nextAsks(sign, { facts, said })).toEqual([])
      }),
    )
  })
  it('passes over what nobody can answer', () => {
    const [first] = nextAsks(fish, none)
    expect(nextAsks(fish, none, [first!])).not.toContain(first)
  })
})

describe('facts', () => {
  const known: Known = {
    step: stepOf({
      key: 'a',
      kind: 'coat',
      faces: [1],
      method: 'spray',
      amount_ml: 100,
      product: 'nitrocellulose-lacquer',
    }),
    ...{
      before: [],
      material: { role: 'film', base: 'lacquer', potLife_min: null, meltsIn: true },
      air: null,
      used_ml: null,
    },
    ...{ can_d: null, waitCutShort: false, windowMissed: false, contaminated: false, pores: null, wetWood: false },
    ...{
      drinksUnevenly: false,
      oily: false,
      tannin: false,
      oldLayers: false,
      upright: false,
      area_m2: 0.5,
      gloss: null,
    },
    ...{ under: null, pot: null, rubbed: null },
  }
  it('are told by what is known, and by nothing else', () => {
    expect(factsOf(known)).toEqual(['sprayed', 'lacquer'])
    expect(factsOf({ ...known, air: { temperature_C: 12, rh: 0.8 } })).toEqual(
      expect.arrayContaining(['damp', 'cold', 'lacquer']),
    )
    expect(factsOf({ ...known, used_ml: 131 })).toContain('thick')
    expect(factsOf({ ...known, used_ml: 129 })).not.toContain('thick')
    expect(factsOf({ ...known, can_d: 366 })).toContain('old-can')
  })
  it('can each be told by something that is known', () => {
    const sand = { kind: 'sand' as const, method: 'random-orbit' as const, fields: {}, product: null }
    const before = [
      ...[
        { ...sand, grits: [P(80), P(220)] },
        { ...sand, grits: [P(80)] },
      ],
      ...(['fill', 'fill', 'mask', 'coat'] as const).map(kind => ({
        ...sand,
        kind,
        method: 'steel-wool' as const,
        grits: [],
      })),
    ]
    const rest = { oily: true, tannin: true, oldLayers: true, upright: true, wetWood: true, area_m2: 2, can_d: 999 }
    const more = { contaminated: true, drinksUnevenly: true, waitCutShort: true, windowMissed: true, used_ml: 999 }
    const air = [
      { temperature_C: 30, rh: 0.9 },
      { temperature_C: 5, rh: 0.1 },
    ]
    const materials = (['lacquer', 'alcohol', 'water', 'oil'] as const).map(base => ({
      ...{ role: 'film' as const, base, potLife_min: [10, 20] as const, meltsIn: false },
    }))
    const told = new Set(
      (['spray', 'brush', 'rag'] as const).flatMap(method =>
        materials.flatMap(material =>
          air.flatMap(a =>
            [true, false].flatMap(gloss =>
              [before.slice(0, 1), before.slice(0, 3), before].flatMap(b =>
                factsOf({
                  ...{ ...known, ...rest, ...more, material, gloss, pores: 'open', air: a, before: b },
                  ...{ under: 'oil', rubbed: gloss },
                  pot: { pastLife: true, byOther: true, asWritten: gloss, ofSample: gloss },
                  step: { ...known.step, method },
                }),
              ),
            ),
          ),
        ),
      ),
    )
    expect(FACT_SLUGS.filter(f => !told.has(f))).toEqual([])
  })
  it('of its pot and of what lies under it answer questions by themselves', () => {
    const pot = { pastLife: true, byOther: true, asWritten: false, ofSample: false }
    expect(factsOf({ ...known, pot, under: 'oil', rubbed: false })).toEqual(
      expect.arrayContaining(['old-pot', 'other-hands', 'weighed-wrong', 'another-pot', 'over-another', 'not-rubbed']),
    )
    const sheen = signOf('uneven-sheen')
    const asks = (facts: typeof FACT_SLUGS) => nextAsks(sheen, { facts, said: [] })
    expect(asks([])).toContain('rubbed')
    expect(asks(['not-rubbed'])).not.toContain('rubbed')
    // an answer counts the same whoever gave it, and a person is believed before the plan
    const asked = beliefOf(sheen, { facts: [], said: [{ ask: 'rubbed', yes: false }] })
    expect(beliefOf(sheen, { facts: ['not-rubbed'], said: [] })).toEqual(asked)
    const person = beliefOf(sheen, { facts: ['not-rubbed'], said: [{ ask: 'rubbed', yes: true }] })
    expect(person).toEqual(beliefOf(sheen, { facts: [], said: [{ ask: 'rubbed', yes: true }] }))
    // and a fact that answers does not count a second time
    const wet = beliefOf(signOf('raised-grain'), { facts: ['waterborne'], said: [] })
    expect(wet).toEqual(beliefOf(signOf('raised-grain'), { facts: [], said: [{ ask: 'water', yes: true }] }))
  })
  it('come from the steps before', () => {
    const sand = (...grits: number[]) => ({
      ...{ kind: 'sand' as const, method: 'random-orbit' as const, grits: grits.map(P), fields: {}, product: null },
    })
    const after = (...before: ReturnType<typeof sand>[]) => factsOf({ ...known, before })
    expect(after(sand(80, 120))).toEqual(expect.arrayContaining(['coarse', 'machine-last']))
    expect(after(sand(80, 220))).toContain('skipped')
    expect(after(sand(120, 150, 180))).not.toContain('skipped')
  })
})

describe('mends', () => {
  const coat = stepOf({ key: 'c', kind: 'coat', faces: [3, 4], product: 'oil-polyurethane', coat: 2, method: 'brush' })
  const at = { faces: [3, 4], step: coat, colour: null, film: true, follows: false }
  it.each(Object.entries(MENDS))('%s is made of steps that can be planned, on the same faces', (_, mend) => {
    for (const step of mendSteps(mend, at, 'mend-1')) {
      expect(productProblem(step), step.kind).toBeNull()
      expect(step.faces).toEqual([3, 4])
      if (step.kind === 'other') expect(step.typed).toEqual(expect.arrayContaining(['title', 'attended_min']))
    }
  })
  it('are each of use to some cause, and lay the failed coat again', () => {
    const used = new Set(SIGNS.flatMap(s => Object.values(s.causes).map(c => c.mend)))
    expect(Object.keys(MENDS).filter(m => !used.has(m as never))).toEqual([])
    expect(mendSteps(MENDS['sand-and-recoat'], at, 'm').at(-1)).toMatchObject({
      ...{ kind: 'coat', product: 'oil-polyurethane', coat: 2 },
    })
    const kindsAt = (mend: keyof typeof MENDS, where: MendAt) => mendSteps(MENDS[mend], where, 'm').map(s => s.kind)
    expect(kindsAt('sand-and-recoat', { ...at, step: { ...coat, product: null } })).not.toContain('coat')
    // an oil is oiled again, and wiped off; a colour is laid again as it was; acid only on bare wood
    const oil = stepOf({ key: 'o', kind: 'oil-on', faces: [3], product: 'varnish-oil', coat: 2, method: 'rag' })
    expect(kindsAt('off-and-barrier', { ...at, step: oil }).slice(-2)).toEqual(['oil-on', 'oil-off'])
    const gel = stepOf({ key: 'g', kind: 'gel', faces: [3], product: 'gel-stain', method: 'rag' })
    expect(kindsAt('colour-again', { ...at, colour: gel })).toEqual(['gel'])
    expect(kindsAt('colour-again', at)).toEqual(['other'])
    expect(kindsAt('oxalic-or-tone', { ...at, film: false })).toEqual(['bleach', 'rinse'])
    expect(kindsAt('oxalic-or-tone', at)).toEqual(['other'])
    // the plan's next coat does it, where nothing came off
    const kinds = (mend: keyof typeof MENDS) => mendSteps(MENDS[mend], { ...at, follows: true }, 'm').map(s => s.kind)
    expect(kinds('sand-and-recoat')).toEqual(['other', 'sand-coat'])
    expect(kinds('pass-and-recoat')).toEqual([])
    expect(kinds('off-and-recoat')).toContain('coat')
  })
})

describe('made-up faults', () => {
  const live = (order: 'telling' | 'fixed') => {
    const random = seeded(19)
    return Array.from({ length: 3000 }, (_, i) => fault(SIGNS[i % SIGNS.length]!, order, random))
  }
  const right = (told: ReturnType<typeof live>, n: number) => told.filter(t => t.right[n]).length / told.length
  it('are found sooner by the most telling question than in the order of the table', () => {
    const [telling, fixed] = [live('telling'), live('fixed')]
    for (const n of [1, 2, 3]) expect(right(telling, n)).toBeGreaterThan(right(fixed, n))
    expect(right(telling, 2)).toBeGreaterThan(right(telling, 0) + 0.2)
  })
  it('are about as often right as they are said to be sure', () => {
    const told = live('telling')
    for (const from of [0.5, 0.6, 0.7, 0.8, 0.9]) {
      const its = told.filter(t => t.certainty >= from && t.certainty < from + 0.1)
      const said = its.reduce((sum, t) => sum + t.certainty, 0) / its.length
      expect(Math.abs(its.filter(t => t.right.at(-1)).length / its.length - said), `${from}`).toBeLessThan(0.12)
    }
  })
})
