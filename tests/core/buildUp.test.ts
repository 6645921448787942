import { describe, expect, it, test } from 'vitest'
import { type Step, stepOf, unitsOf, walk } from '#core/acts'
import {
  type BuildUp,
  changeLayer,
  type Choice,
  everyday,
  isSaidOf,
  KNOWN_SURFACES,
  knownFrom,
  laidAsKnown,
  laidOn,
  type Layer,
  layerOf,
  likeness,
  moveLayer,
  onGround,
  picksOf,
  putIn,
} from '#core/build'
import { usualContext } from '#core/context'
import { withLabel, materialOf } from '#core/materials'
import { type Facts, groupsOf, type RouteSlug } from '#core/piece'
import {
  afterFallback,
  fallBackFrom,
  layerOfStep,
  offersAt,
  type Plan,
  recompose,
  retake,
  roundEndingAt,
  withOneMore,
  workOutPlan,
} from '#core/plan'
import { judgePlan } from '#core/rules'
import { cutOf, surfaceOf } from '#core/section'
import { built, choice, face, facts } from '../facts'

/** A layer written short: kind, product, and what else is chosen of it. */
type Short = readonly [act: Layer['act'], product: string, more?: Partial<Layer>]
const composed = (layers: readonly Short[], ground: RouteSlug, ending: BuildUp['ending']): Choice => ({
  buildUps: [
    {
      id: 1,
      ground,
      ending,
      faces: null,
      layers: layers.map(([act, product, more], i) => layerOf({ id: i + 1, act, product, ...more })),
    },
  ],
})
const planned = (c: Choice, f: Facts): Plan => workOutPlan(usualContext(f), c)
const grave = (c: Choice, f: Facts, plan = planned(c, f)) =>
  judgePlan({ context: usualContext(f), choice: c, ...plan, licences: ['isocyanates'] })
    .filter(v => v.severity === 'stop' || v.severity === 'forbidden')
    .map(v => `${v.rule}: ${v.says}`)
/** What is done from the first layer on: kind and product, runs of the same counted. */
function laid(plan: Plan): string[] {
  const said: [string, number][] = []
  for (const s of plan.steps.filter(x => layerOfStep(x.key) || x.kind === 'rub-out')) {
    const what = s.product ? `${s.kind} ${s.product}` : s.kind
    const last = said.at(-1)
    if (last?.[0] === what) last[1]++
    else said.push([what, 1])
  }
  return said.map(([what, n]) => (n > 1 ? `${what} ×${n}` : what))
}
const oak = facts({ faces: [face({ species: 'oak' })], sheen: 'satin' })
/** A surface known by name, on stripped oak. */
const knownOn = (i: number): Choice => ({
  buildUps: [
    laidAsKnown(KNOWN_SURFACES[i]!, composed([], 'strip-chemical', 'as-laid').buildUps[0], oak.faces, 1).buildUp,
  ],
})
const SAND_COAT = 'sand-coat'

const bandOf = { faces: [face(), face({ id: 2, part: 'edge', name: 'band' })] }
const VARNISH = { finish: 'oil-varnish', certainty: 0.9 } as const
/** What is laid of each surface known by name, on wood that it is known on. Common practice. */
const KNOWN: [string, Partial<Facts>, RouteSlug, string[]][] = [
  [
    'Filled lacquer, rubbed to satin',
    {},
    'strip-chemical',
    [
      'coat vinyl-sealer',
      'fill paste-filler',
      'fill-off paste-filler',
      'sand-back',
      'clean-off',
      'coat vinyl-sealer',
      'toner lacquer-toner ×3',
      'coat nitrocellulose-lacquer ×6',
      'rub-out',
    ],
  ],
  [
    'Two toners over stain, dark on the band',
    { ...bandOf, sheen: 'semi-gloss' },
    'strip-chemical',
    [
      'conditioner oil-conditioner',
      'stain pigment-stain',
      'coat vinyl-sealer ×2',
      'toner lacquer-toner ×3',
      'coat vinyl-sealer',
      'coat nitrocellulose-lacquer ×2',
    ],
  ],
  [
    'Dyed, with tinted sealer, under two-part urethane',
    {},
    'strip-chemical',
    ['dye water-dye', 'coat vinyl-sealer ×2', 'coat urethane-2c ×2'],
  ],
  [
    'Raw oil, shellac over days, French polish',
    {},
    'strip-chemical',
    [
      'oil-on raw-linseed',
      'oil-off raw-linseed',
      'coat shellac-brushed ×2',
      SAND_COAT,
      'french-polish shellac-brushed ×3',
    ],
  ],
  [
    'Pores filled by shellac over days, French polish',
    {},
    'strip-chemical',
    [
      ...['coat shellac-brushed ×4', SAND_COAT, 'coat shellac-brushed ×4', SAND_COAT, 'coat shellac-brushed ×4'],
      SAND_COAT,
      'french-polish shellac-brushed ×3',
    ],
  ],
  [
    'Opaque colour over surfacer, matt',
    {},
    'strip-chemical',
    [
      'coat lacquer-sanding-sealer',
      SAND_COAT,
      'coat lacquer-sanding-sealer',
      'coat primer-surfacer',
      SAND_COAT,
      'coat primer-surfacer',
      'putty glazing-putty',
      SAND_COAT,
      'coat opaque-colour ×3',
      'coat waterborne-polyurethane',
    ],
  ],
  [
    'Bleached and paint-washed, matt',
    {},
    'strip-chemical',
    [
      'bleach two-part-bleach',
      'rinse',
      'sand',
      'paint-wash paint-wash',
      'coat waterborne-polyurethane',
      SAND_COAT,
      'coat waterborne-polyurethane',
    ],
  ],
  [
    'Gel toward opaque under a clear film',
    { found: VARNISH },
    'scuff',
    ['gel gel-stain ×3', 'coat oil-polyurethane', 'gate', SAND_COAT, 'coat oil-polyurethane'],
  ],
  [
    'Rustic water stain under an oil film',
    { faces: [face({ species: 'pine' })] },
    'strip-chemical',
    ['stain water-stain', 'coat wiping-varnish', ...[2, 3, 4].flatMap(() => [SAND_COAT, 'coat wiping-varnish'])],
  ],
  [
    'Varnish oil, five coats',
    {},
    'strip-chemical',
    Array(5).fill(['oil-on varnish-oil', 'oil-off varnish-oil']).flat() as string[],
  ],
  ['Two-part hardwax oil, one coat', {}, 'strip-chemical', ['oil-on hardwax-oil-2c', 'oil-off hardwax-oil-2c']],
  [
    'Wiping varnish by rag, four coats',
    {},
    'strip-chemical',
    ['coat wiping-varnish', ...[2, 3, 4].flatMap(() => [SAND_COAT, 'coat wiping-varnish'])],
  ],
]

describe('surfaces known by name', () => {
  test.each(KNOWN)('%s', (name, more, ground, steps) => {
    const f = facts({ faces: [face({ species: 'oak' })], ...more })
    const surface = KNOWN_SURFACES.find(k => k.name === name)!
    const { buildUp, missed } = laidAsKnown(surface, composed([], ground, 'as-laid').buildUps[0], f.faces, 1)
    const c: Choice = { buildUps: [buildUp] }
    const plan = planned(c, f)
    expect(laid(plan)).toEqual(steps)
    expect(grave(c, f, plan)).toEqual([])
    expect(missed).toEqual([])
    expect(new Set(plan.steps.map(s => s.key)).size).toBe(plan.steps.length)
    for (const s of plan.steps) expect(s.title, s.key).not.toMatch(/undefined|null|NaN/)
  })
  it('none ships untried', () => {
    expect(KNOWN.map(k => k[0]).sort()).toEqual(KNOWN_SURFACES.map(k => k.name).sort())
  })
  it('wiping varnish goes on by rag, not by brush', () => {
    const c = composed([['coat', 'wiping-varnish']], 'strip-chemical', 'as-laid')
    expect(
      planned(c, oak)
        .steps.filter(s => s.kind === 'coat')
        .map(s => s.method),
    ).toEqual(Array(4).fill('rag'))
  })
  it('are kept without their faces, found again by name of face, and told where there is none', () => {
    const set = facts({ ...bandOf, sheen: 'gloss' })
    const c = composed([['toner', 'lacquer-toner', { faces: [2] }]], 'strip-chemical', 'as-laid')
    const kept = knownFrom('Dark band', c.buildUps[0], set)
    expect(kept.layers[0]!.on).toEqual(['edge, band'])
    const next = [face({ id: 7 }), face({ id: 9, part: 'edge', name: 'band' })]
    expect(laidAsKnown(kept, c.buildUps[0], next, 5).buildUp.layers[0]).toMatchObject({ id: 5, faces: [9] })
    expect(laidAsKnown(kept, c.buildUps[0], [face()], 1)).toMatchObject({ missed: ['edge, band'] })
    expect([likeness(kept, set), likeness(kept, oak)]).toEqual([3, 2])
    expect([isSaidOf(kept, 'gloss oak'), isSaidOf(kept, 'toner matt')]).toEqual([true, false])
  })
})

describe('what a client hears of it', () => {
  it('names colours, finish and wax, and nothing that only serves them', () => {
    const said = (i: number) => knownOn(i).buildUps[0].layers.map(l => everyday(l, usualContext(oak)))
    expect(said(0)).toEqual([
      null,
      'pores filled with oil-based paste filler',
      null,
      'toned with lacquer toner',
      'coated with nitrocellulose lacquer',
    ])
    expect(said(1).slice(0, 2)).toEqual([null, 'stained with penetrating oil stain'])
  })
})

describe('keys', () => {
  const base = composed(
    [
      ['stain', 'pigment-stain'],
      ['coat', 'oil-polyurethane', { coats: 3 }],
    ],
    'strip-chemical',
    'as-laid',
  )
  it('stay the same when a layer is put in, moved or taken out: bands, words and waits keep their step', () => {
    const [main] = base.buildUps
    const before = planned(base, oak).steps.filter(s => layerOfStep(s.key)?.before === false)
    const sealed = putIn(main, 1, layerOf({ id: 9, act: 'coat', product: 'vinyl-sealer', coats: 1, use: 'sealer' }))
    const after = new Set(planned({ buildUps: [sealed] }, oak).steps.map(s => s.key))
    expect(before.filter(s => !after.has(s.key)).map(s => s.key)).toEqual([])
    expect(after.has('9.coat.1')).toBe(true)
  })
  it('tell the layer of a step, and what was put in before it', () => {
    expect(layerOfStep('12.coat.2')).toEqual({ layer: 12, before: false })
    expect(layerOfStep('f-3.before.coat')).toEqual({ layer: 3, before: true })
    expect(layerOfStep('strip')).toBeNull()
  })
  it('a moved layer keeps its number, and stays at the ends', () => {
    const [main] = base.buildUps
    expect(moveLayer(main, 1, 1).layers.map(l => l.id)).toEqual([2, 1])
    expect(moveLayer(main, 2, 1)).toBe(main)
    expect(changeLayer(main, 2, { coats: 5 }).layers[1]).toMatchObject({ id: 2, coats: 5 })
  })
})

describe('a step on some faces', () => {
  it('changes those alone: what lies on the others stays as it was', () => {
    const f = facts({ faces: [face({ species: 'oak' }), face({ id: 2, species: 'oak' })] })
    const context = usualContext(f)
    const { steps } = planned(composed([['coat', 'oil-polyurethane', { coats: 2 }]], 'strip-chemical', 'as-laid'), f)
    const local = stepOf({
      key: 'hand',
      kind: 'coat',
      faces: [2],
      product: 'oil-polyurethane',
      coat: 3,
      method: 'brush',
    })
    const groups = groupsOf(f)
    const ends = (all: readonly Step[]) =>
      unitsOf(all, groups).map(unit => [
        unit.faces.map(x => x.id).join(),
        walk(all, [unit], context).at(-1)!.after.films.length,
      ])
    expect(ends(steps)).toEqual([['1,2', 2]])
    expect(ends([...steps, local])).toEqual([
      ['1', 2],
      ['2', 3],
    ])
  })
})

describe('what may be put where', () => {
  const c = composed([['coat', 'oil-polyurethane', { coats: 2 }]], 'strip-chemical', 'as-laid')
  const stops = (x: Choice, plan: Plan) =>
    judgePlan({ context: usualContext(oak), choice: x, ...plan }).filter(v => v.severity === 'stop')
  it('offers colour below the film, and says why not above it', () => {
    const below = offersAt(usualContext(oak), c, c.buildUps[0], 0, stops)
    const above = offersAt(usualContext(oak), c, c.buildUps[0], 1, stops)
    expect(below.find(o => o.product === 'pigment-stain')!.against).toBeNull()
    expect(above.find(o => o.product === 'pigment-stain')!.against).toMatch(/lies on the wood/)
    expect(above.findIndex(o => o.against !== null)).toBeGreaterThan(above.findIndex(o => o.against === null))
  })
  const over = facts({ faces: [face({ species: 'oak' })], found: { finish: 'oil-varnish', certainty: 0.9 } })
  const bare = facts({ faces: [face({ species: 'oak' })], found: { finish: 'none', certainty: 1 } })
  /** Layers that stay out on a ground, each with why. */
  function stayOut(f: Facts, layers: readonly Short[], ground: RouteSlug): [string, string][] {
    const context = usualContext(f)
    const [b] = composed(layers, ground, 'as-laid').buildUps
    return laidOn(context, b, groupsOf(f)[0]!).out.map(o => [o.layer.product!, o.why])
  }
  const FILLED: Short[] = [
    ['fill', 'paste-filler'],
    ['coat', 'oil-polyurethane'],
  ]
  it('keeps what cannot lie there, with its reason; bare wood takes it', () => {
    expect(stayOut(over, FILLED, 'scuff')).toEqual([['paste-filler', 'The old film stays, and has closed the pores.']])
    expect(stayOut(bare, FILLED, 'scuff')).toEqual([])
    const filled = composed(FILLED, 'scuff', 'as-laid')
    expect(planned(filled, over).steps.some(s => s.kind === 'fill')).toBe(false)
    expect(planned(filled, bare).steps.some(s => s.kind === 'fill')).toBe(true)
    expect(picksOf(filled.buildUps[0])).toMatchObject({ fill: 'paste-filler', finish: 'oil-polyurethane' })
  })
  const DYED: Short[] = [
    ['dye', 'water-dye'],
    ['gel', 'gel-stain'],
    ['coat', 'nitrocellulose-lacquer'],
    ['wax', 'paste-wax'],
  ]
  it.each<[RouteSlug, string[]]>([
    ['refer', ['water-dye', 'gel-stain', 'nitrocellulose-lacquer', 'paste-wax']],
    ['spot-repair', ['water-dye', 'gel-stain', 'nitrocellulose-lacquer', 'paste-wax']],
    ['clean-and-wax', ['water-dye', 'gel-stain', 'nitrocellulose-lacquer']],
    ['amalgamate', ['water-dye', 'gel-stain', 'nitrocellulose-lacquer']],
    ['scuff', []],
    ['strip-chemical', []],
  ])('%s leaves out %j', (ground, out) => {
    const said = stayOut(over, DYED, ground)
    expect(said.map(([product]) => product)).toEqual(out)
    for (const [, why] of said) expect(why).toMatch(/^[A-Z].*\.$/)
  })
  it('another ground and back again loses no layer', () => {
    const [b] = composed(FILLED, 'strip-chemical', 'as-laid').buildUps
    for (const ground of ['clean-and-wax', 'refer', 'scuff'] as const)
      expect(onGround(onGround(b, ground), 'strip-chemical')).toEqual(b)
  })
})

describe('taking a plan again', () => {
  const context = usualContext(oak)
  const before = built(context, choice({ colour: 'pigment-stain', finish: 'oil-polyurethane' }))
  const base = workOutPlan(context, before).steps
  const [main] = before.buildUps
  it('makes changes by hand again where the step still exists, and names the others', () => {
    const now = base
      .filter(s => s.kind !== 'wash-off')
      .map(s => (s.kind === 'stain' ? { ...s, method: 'spray' as const } : s))
      .map(s => (s.key === '2.coat.1' ? { ...s, attended_min: 99, typed: ['attended_min' as const] } : s))
    const added = { ...base[1]!, key: 'hand-other.1', kind: 'other' as const, title: 'Call', typed: ['title' as const] }
    const stainGone = { buildUps: [{ ...main, layers: main.layers.filter(l => l.act !== 'stain') }] } as Choice
    const next = workOutPlan(context, stainGone).steps
    const taken = retake(base, [...now.slice(0, 3), added, ...now.slice(3)], next)
    expect(taken.lost).toMatchObject([{ kind: 'changed', key: '1.stain.1' }])
    expect(taken.kept.map(k => k.kind).sort()).toEqual(['added', 'changed', 'removed'])
    expect(taken.steps.some(s => s.kind === 'wash-off')).toBe(false)
    expect(taken.steps.find(s => s.key === '2.coat.1')).toMatchObject({ attended_min: 99, typed: ['attended_min'] })
    expect(taken.steps.findIndex(s => s.key === 'hand-other.1')).toBe(3)
    expect(retake(base, now, next, new Set(['2.coat.1'])).steps.find(s => s.key === '2.coat.1')!.typed).toEqual([])
  })
  it('faces narrowed by hand stay narrowed, and none comes back that the layer has lost', () => {
    const f = facts({ faces: [1, 2, 3].map(id => face({ id, species: 'oak' })) })
    const on = (faces: number[] | null) =>
      planned(composed([['coat', 'oil-polyurethane', { coats: 1, faces }]], 'strip-chemical', 'as-laid'), f).steps
    const all = on(null)
    const narrowed = all.map(s => (s.kind === 'coat' ? { ...s, faces: [2, 3] } : s))
    const left = (next: Step[]) => retake(all, narrowed, next).steps.find(s => s.kind === 'coat')?.faces
    expect(left(all)).toEqual([2, 3])
    expect(left(on([1, 2]))).toEqual([2])
    expect(left(on([1]))).toBeUndefined()
  })
  it('after a failed gate: faces that fell back are laid from the surface as left, the others go their way', () => {
    const f = facts({ faces: [face({ species: 'oak' }), face({ id: 2, part: 'base', species: 'oak' })] })
    const within = usualContext(f)
    const scuffed = choice({ route: 'scuff', finish: 'dewaxed-shellac', faces: [2] })
    const first = built(within, choice({ finish: 'oil-polyurethane', own: [scuffed] }))
    const { steps } = workOutPlan(within, first)
    const at = steps.findIndex(s => s.gate?.fallback)
    const [past, left] = [steps.slice(0, at + 1), steps.slice(at + 1)]
    const over = fallBackFrom(steps[at]!, past, left, within, first, false)
    const live = afterFallback(over, past, left, within).steps.slice(past.length)
    const again = (after: Choice) =>
      recompose({
        context: within,
        before: over.choice,
        after,
        past,
        ahead: live,
        keys: steps.map(s => s.key).concat(live.map(s => s.key)),
        leave: [],
      })
    const keys = new Set(live.map(s => s.key))
    const fell = new Set(over.skip)
    expect(over.fresh.length).toBeGreaterThan(3)
    const same = again(over.choice).steps.filter(s => keys.has(s.key))
    expect(same.map(s => [s.key, s.faces])).toEqual(live.map(s => [s.key, s.faces]))
    const waxed = over.choice.buildUps.map(b =>
      putIn(b, b.layers.length, layerOf({ id: b.id * 100, act: 'wax', product: 'paste-wax', coats: 1 })),
    )
    const made = again({ buildUps: waxed as unknown as Choice['buildUps'] })
    expect(made.lost).toEqual([])
    expect(made.steps.filter(s => s.kind === 'wax').map(s => [s.key, s.faces])).toEqual([
      ['100.wax.1', [1]],
      ['f-200.wax.1', [2]],
    ])
    const fresh = made.steps.filter(s => !keys.has(s.key) && !fell.has(s.key) && !past.some(p => p.key === s.key))
    expect(fresh.map(s => s.kind)).toEqual(['wax', 'wax'])
  })
})

describe('one more round', () => {
  it.each<[string, Short, Step['kind'], Step['kind'][]]>([
    [
      'filler: filled, wiped and sanded back again',
      ['fill', 'paste-filler'],
      'sand-back',
      ['fill', 'fill-off', 'sand-back'],
    ],
    ['a coat: sanded and coated again', ['coat', 'oil-polyurethane', { coats: 2 }], 'coat', ['sand-coat', 'coat']],
    ['oil: on and off again', ['oil-on', 'varnish-oil', { coats: 4 }], 'oil-off', ['oil-on', 'oil-off']],
    ['gel', ['gel', 'gel-stain', { coats: 2 }], 'gel', ['gel']],
    ['bleach: rinsed again', ['bleach', 'two-part-bleach'], 'rinse', ['bleach', 'rinse']],
    ['French polish', ['french-polish', 'shellac-brushed', { coats: 3 }], 'french-polish', ['french-polish']],
  ])('%s', (_what, layer, ends, again) => {
    const f = facts({ faces: [face({ species: 'oak' }), face({ id: 2, species: 'oak' })] })
    const c = composed([layer], 'strip-chemical', 'as-laid')
    const { steps } = planned(c, f)
    const last = steps.findLast(s => s.kind === ends && s.key.startsWith('1.'))!
    const loop = roundEndingAt(steps, last.key, usualContext(f))!
    const more = withOneMore(steps, loop, [2])
    const at = more.findIndex(s => s.key === last.key) + 1
    const fresh = more.slice(at, at + again.length)
    expect(fresh.map(s => s.kind)).toEqual(again)
    expect(fresh.every(s => s.faces.join() === '2')).toBe(true)
    expect(new Set(more.map(s => s.key)).size).toBe(more.length)
    expect(loop.passes.length).toBeGreaterThan(3)
    expect(roundEndingAt(steps, steps[0]!.key, usualContext(f))).toBeNull()
  })
})

describe('labels', () => {
  const own = withLabel(materialOf('waterborne-polyurethane'), {
    name: 'Hard gloss, water',
    figures: { solids_pct: 40, spread_m2_l: 10, recoat_min: 240, handle_min: 2880, coats: 4, airMin_C: 15 },
  })
  it('outrank the class figure by figure, and say which', () => {
    expect(own).toMatchObject({ name: 'Hard gloss, water', wet_um: 100, recoat_min: [240, 240], coats: [4, 4] })
    expect(own.labelled).toEqual(expect.arrayContaining(['solids', 'wet_um', 'recoat_min', 'coats', 'air']))
    expect(own.labelled).not.toContain('density')
  })
  it('two products of a class differ in coats, waits and amounts', () => {
    const shelf = { 7: own }
    const on = (label: number | null) => {
      const c = composed([['coat', 'waterborne-polyurethane', { label }]], 'strip-chemical', 'as-laid')
      return workOutPlan(usualContext(oak, { shelf }), c)
    }
    const [usual, mine] = [on(null), on(7)]
    expect([usual, mine].map(p => p.steps.filter(s => s.kind === 'coat').length)).toEqual([3, 4])
    const coat = (p: Plan) => p.steps.find(s => s.kind === 'coat')!
    expect(coat(mine).amount_ml).not.toBeCloseTo(coat(usual).amount_ml!, 0)
    expect(coat(mine).title).toContain('Hard gloss')
    expect(mine.waits.find(w => w.from === '1.coat.1')!.min).toBe(240)
  })
})

describe('the cut through it', () => {
  it('draws films to one scale, from the wood upward, each with its layer', () => {
    const s = surfaceOf(usualContext(oak), planned(knownOn(0), oak).steps)!
    expect(s).toMatchObject({ filled: true, filler: 2, pores: 'open' })
    const { planned: bands, pxPerUm, woodTop } = cutOf(s, { width: 300, height: 400, found: 80, states: false })
    expect(bands[0]!.y + bands[0]!.h).toBeCloseTo(woodTop)
    for (const b of bands) expect(b.h).toBeCloseTo(b.film.um * pxPerUm)
    expect(new Set(bands.map(b => b.film.layer))).toEqual(new Set([1, 3, 4, 5]))
  })
})
