import { describe, expect, it, test } from 'vitest'
import { type Step, stepOf, unitsOf, walk } from '#core/acts'
import {
  type BuildUp,
  changeLayer,
  type Choice,
  everyday,
  laidOn,
  type Layer,
  layerOf,
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
import { drawSurface, surfaceOf } from '#core/section'
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
const two = facts({ faces: [face(), face({ id: 2, part: 'edge', name: 'band' })], sheen: 'semi-gloss' })
const SAND_COAT = 'sand-coat'

/** Compositions that good finishers make; what comes between is the plan's own. Common practice. */
const COMPOSITIONS: [string, Facts, RouteSlug, BuildUp['ending'], Short[], string[]][] = [
  [
    'seal, paste fill, seal, toner, six gloss, rubbed satin',
    oak,
    'strip-chemical',
    'rubbed',
    [
      ['coat', 'vinyl-sealer', { coats: 1, use: 'sealer' }],
      ['fill', 'paste-filler'],
      ['coat', 'vinyl-sealer', { coats: 1, use: 'sealer' }],
      ['toner', 'lacquer-toner'],
      ['coat', 'nitrocellulose-lacquer', { coats: 6 }],
    ],
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
    'conditioner, stain, a dark toner on the band and a light one over all, sealer, semi-gloss',
    two,
    'strip-chemical',
    'as-laid',
    [
      ['conditioner', 'oil-conditioner'],
      ['stain', 'pigment-stain'],
      ['toner', 'lacquer-toner', { coats: 1, fields: { shade: 'dark' }, faces: [2] }],
      ['toner', 'lacquer-toner', { coats: 2, fields: { shade: 'light' } }],
      ['coat', 'vinyl-sealer', { coats: 1, use: 'sealer' }],
      ['coat', 'nitrocellulose-lacquer', { coats: 2 }],
    ],
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
    'dye, sealer with a little dye, clear sealer, tinted topcoat, satin two-part',
    oak,
    'strip-chemical',
    'as-laid',
    [
      ['dye', 'water-dye', { coats: 1 }],
      ['coat', 'vinyl-sealer', { coats: 1, use: 'sealer', fields: { tint_pct: 3 } }],
      ['coat', 'vinyl-sealer', { coats: 1, use: 'sealer' }],
      ['coat', 'urethane-2c', { coats: 1, fields: { tint_pct: 2 } }],
      ['coat', 'urethane-2c', { coats: 1 }],
    ],
    ['dye water-dye', 'coat vinyl-sealer ×2', 'coat urethane-2c ×2'],
  ],
  [
    'raw oil, shellac over days, French polish in sessions',
    oak,
    'strip-chemical',
    'as-laid',
    [
      ['oil-on', 'raw-linseed', { coats: 1, use: 'under-shellac' }],
      ['coat', 'shellac-brushed', { coats: 2 }],
      ['french-polish', 'shellac-brushed', { coats: 3 }],
    ],
    [
      'oil-on raw-linseed',
      'oil-off raw-linseed',
      'coat shellac-brushed ×2',
      SAND_COAT,
      'french-polish shellac-brushed ×3',
    ],
  ],
  [
    'sealer twice, surfacer, putty, opaque colour, matt',
    oak,
    'strip-chemical',
    'as-laid',
    [
      ['coat', 'lacquer-sanding-sealer', { coats: 2, use: 'sealer' }],
      ['coat', 'primer-surfacer', { coats: 2 }],
      ['putty', 'glazing-putty'],
      ['coat', 'opaque-colour', { coats: 3 }],
      ['coat', 'waterborne-polyurethane', { coats: 1 }],
    ],
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
    'bleach, paint wash, waterborne matt',
    oak,
    'strip-chemical',
    'as-laid',
    [
      ['bleach', 'two-part-bleach'],
      ['paint-wash', 'paint-wash'],
      ['coat', 'waterborne-polyurethane', { coats: 2 }],
    ],
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
    'gel three times toward opaque over a scuffed film, clear',
    facts({ found: { finish: 'oil-varnish', certainty: 0.9 } }),
    'scuff-and-gel',
    'as-laid',
    [
      ['gel', 'gel-stain', { coats: 3 }],
      ['coat', 'oil-polyurethane', { coats: 2 }],
    ],
    ['gel gel-stain ×3', 'coat oil-polyurethane', 'gate', SAND_COAT, 'coat oil-polyurethane'],
  ],
  [
    'water stain, rustic, under an oil film',
    facts({ faces: [face({ species: 'pine' })] }),
    'strip-chemical',
    'as-laid',
    [
      ['stain', 'water-stain'],
      ['coat', 'wiping-varnish', { coats: 4 }],
    ],
    [
      'stain water-stain',
      'coat wiping-varnish',
      SAND_COAT,
      'coat wiping-varnish',
      SAND_COAT,
      'coat wiping-varnish',
      SAND_COAT,
      'coat wiping-varnish',
    ],
  ],
  [
    'two-part hardwax oil, one coat',
    oak,
    'strip-chemical',
    'as-laid',
    [['oil-on', 'hardwax-oil-2c', { coats: 1 }]],
    ['oil-on hardwax-oil-2c', 'oil-off hardwax-oil-2c'],
  ],
]

describe('compositions', () => {
  test.each(COMPOSITIONS)('%s', (_what, f, ground, ending, layers, steps) => {
    const c = composed(layers, ground, ending)
    const plan = planned(c, f)
    expect(laid(plan)).toEqual(steps)
    expect(grave(c, f, plan)).toEqual([])
    expect(new Set(plan.steps.map(s => s.key)).size).toBe(plan.steps.length)
    for (const s of plan.steps) expect(s.title, s.key).not.toMatch(/undefined|null|NaN/)
  })
  it('four to five coats of varnish oil, each wiped off', () => {
    const c = composed([['oil-on', 'varnish-oil', { coats: 5 }]], 'strip-chemical', 'as-laid')
    expect(planned(c, oak).steps.filter(s => s.kind === 'oil-off')).toHaveLength(5)
  })
  it('wiping varnish goes on by rag, not by brush', () => {
    const c = composed([['coat', 'wiping-varnish']], 'strip-chemical', 'as-laid')
    expect(
      planned(c, oak)
        .steps.filter(s => s.kind === 'coat')
        .map(s => s.method),
    ).toEqual(Array(4).fill('rag'))
  })
})

describe('what a client hears of it', () => {
  it('names colours, finish and wax, and nothing that only serves them', () => {
    const said = (layers: readonly Short[]) =>
      composed(layers, 'strip-chemical', 'as-laid').buildUps[0].layers.map(l => everyday(l, usualContext(oak)))
    expect(said(COMPOSITIONS[0]![4])).toEqual([
      null,
      'pores filled with oil-based paste filler',
      null,
      'toned with lacquer toner',
      'coated with nitrocellulose lacquer',
    ])
    expect(said(COMPOSITIONS[1]![4]).slice(0, 2)).toEqual([null, 'stained with penetrating oil stain'])
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
    expect(stayOut(over, FILLED, 'scuff-and-recoat')).toEqual([
      ['paste-filler', 'The old film stays, and has closed the pores.'],
    ])
    expect(stayOut(bare, FILLED, 'scuff-and-recoat')).toEqual([])
    const filled = composed(FILLED, 'scuff-and-recoat', 'as-laid')
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
    ['scuff-and-recoat', ['gel-stain']],
    ['scuff-and-gel', ['water-dye']],
    ['strip-chemical', []],
  ])('%s leaves out %j', (ground, out) => {
    const said = stayOut(over, DYED, ground)
    expect(said.map(([product]) => product)).toEqual(out)
    for (const [, why] of said) expect(why).toMatch(/^[A-Z].*\.$/)
  })
  it('another ground and back again loses no layer; one scuffed for gel gets gel above what needs bare wood', () => {
    const [b] = composed(FILLED, 'strip-chemical', 'as-laid').buildUps
    const gelled = onGround(b, 'scuff-and-gel')
    expect(gelled.layers.map(l => l.act)).toEqual(['fill', 'gel', 'coat'])
    expect(new Set(gelled.layers.map(l => l.id)).size).toBe(3)
    for (const ground of ['clean-and-wax', 'refer', 'scuff-and-recoat'] as const)
      expect(onGround(onGround(gelled, ground), 'strip-chemical')).toEqual({ ...gelled, ground: 'strip-chemical' })
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
    const scuffed = { route: 'scuff-and-recoat', finish: 'dewaxed-shellac', faces: [2] } as const
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
    const c = composed(COMPOSITIONS[0]![4], 'strip-chemical', 'rubbed')
    const s = surfaceOf(usualContext(oak), planned(c, oak).steps)!
    expect(s).toMatchObject({ filled: true, filler: 2, pores: 'open' })
    const { planned: bands, pxPerUm, woodTop } = drawSurface(s, 300, 400)
    expect(bands[0]!.y + bands[0]!.h).toBeCloseTo(woodTop)
    for (const b of bands) expect(b.h).toBeCloseTo(b.film.um * pxPerUm)
    expect(new Set(bands.map(b => b.film.layer))).toEqual(new Set([1, 3, 4, 5]))
  })
})
