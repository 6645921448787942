import { usualContext } from '#core/context'
import { P } from '#core/abrasives'
import { describe, expect, it, test } from 'vitest'
import { attended_min, cautionsOfStep, STEP_KINDS, stepOf, type Step, waitAfter } from '#core/acts'
import { type Layer, layerOf } from '#core/build'
import { need_ml } from '#core/coverage'
import { addEstimates, estimate, lostAtGate, materialCost_minor, share_minor } from '#core/estimate'
import { routeReasons } from '#core/ground'
import { FINISHES, materialOf, MATERIALS } from '#core/materials'
import { faceFactor, type Facts, findingsOf, groupsOf, isFound, leadSuspected, type RouteSlug } from '#core/piece'
import { chanceOfFailing, completePlan, workOutPlan } from '#core/plan'
import { judgePlan } from '#core/rules'
import { cautionText } from '#core/safety'
import { cutOf, layerFill, spread, surfaceOf, surfaceSvg } from '#core/section'
import { choice, face, facts, finding, built, type Picked } from '../facts'

/** Orders of the work, written down from the trade before the planner ran. */
const STRIP = ['approval', 'wash', 'cover', 'strip', 'scrape', 'wash-off', 'sand', 'clean-off']
/** Before colour the bare wood is wetted and looked at. */
const LOOKED = [...STRIP.slice(0, -1), 'wet-out', 'clean-off']
const orders: [string, Partial<Facts>, Partial<Picked>, string[]][] = [
  [
    'a dull sound film, shellac',
    {},
    { route: 'scuff', finish: 'dewaxed-shellac' },
    ['approval', 'wash', 'scuff', 'clean-off', 'coat', 'gate', 'sand-coat', 'coat', 'finish-up'],
  ],
  [
    'a sound film made darker',
    { tone: 'darker' },
    { route: 'scuff', colour: 'gel-stain', finish: 'dewaxed-shellac' },
    ['approval', 'wash', 'scuff', 'clean-off', 'gel', 'coat', 'gate', 'sand-coat', 'coat', 'finish-up'],
  ],
  [
    'runs in old varnish',
    { findings: [finding('runs')] },
    { route: 'level-barrier-recoat' },
    [
      'approval',
      'wash',
      'level',
      'clean-off',
      'coat',
      'coat',
      'gate',
      'scuff',
      'clean-off',
      'coat',
      'sand-coat',
      'coat',
      'sand-coat',
      'coat',
      'finish-up',
    ],
  ],
  [
    'strip for varnish oil: on, off, four times',
    {},
    { finish: 'varnish-oil' },
    [...STRIP, 'oil-on', 'oil-off', 'oil-on', 'oil-off', 'oil-on', 'oil-off', 'oil-on', 'oil-off', 'finish-up'],
  ],
  [
    'strip for lacquer: melts in, no sanding between',
    {},
    { finish: 'nitrocellulose-lacquer' },
    [...STRIP, 'coat', 'coat', 'coat', 'finish-up'],
  ],
  [
    'strip for gloss lacquer: rubbed out after cure',
    { sheen: 'gloss' },
    { finish: 'nitrocellulose-lacquer' },
    [...STRIP, 'coat', 'coat', 'coat', 'coat', 'coat', 'coat', 'rub-out', 'buff', 'gate', 'finish-up'],
  ],
  [
    'pine under pigment stain: conditioned first',
    { faces: [face({ species: 'pine' })] },
    { colour: 'pigment-stain', finish: 'dewaxed-shellac' },
    [...LOOKED, 'conditioner', 'stain', 'coat', 'sand-coat', 'coat', 'finish-up'],
  ],
  [
    'oak under gel stain',
    { tone: 'darker' },
    { colour: 'gel-stain', finish: 'dewaxed-shellac' },
    [...LOOKED, 'gel', 'coat', 'sand-coat', 'coat', 'finish-up'],
  ],
  [
    'glaze between coats, shellac on both sides of it',
    {},
    { colour: 'glaze', finish: 'oil-polyurethane' },
    [...LOOKED, 'coat', 'glaze', 'coat', 'coat', 'sand-coat', 'coat', 'sand-coat', 'coat', 'finish-up'],
  ],
  [
    'a hard film: roughened so that the stripper gets in',
    { found: { finish: 'oil-polyurethane', certainty: 0.9 } },
    { finish: 'dewaxed-shellac' },
    [
      'approval',
      'wash',
      'cover',
      'roughen',
      'strip',
      'scrape',
      'wash-off',
      'sand',
      'clean-off',
      'coat',
      'sand-coat',
      'coat',
      'finish-up',
    ],
  ],
  [
    'bare wood: nothing to strip',
    { found: { finish: 'none', certainty: 0.9 } },
    { finish: 'dewaxed-shellac' },
    ['approval', 'sand', 'clean-off', 'coat', 'sand-coat', 'coat', 'finish-up'],
  ],
  [
    'bare wood as it stands: dusted, a light pass, on',
    { found: { finish: 'none', certainty: 0.9 } },
    { route: 'as-it-stands', finish: 'dewaxed-shellac' },
    ['approval', 'clean-off', 'sand', 'clean-off', 'coat', 'sand-coat', 'coat', 'finish-up'],
  ],
  [
    'oil with a ring: washed, the ring sanded out, one coat of its own kind',
    { found: { finish: 'oil', certainty: 0.9 }, findings: [finding('white-ring', 3)] },
    { route: 'renew', finish: 'varnish-oil' },
    ['approval', 'wash', 'sand', 'pad', 'clean-off', 'oil-on', 'oil-off', 'finish-up'],
  ],
  [
    'wax renewed: its old wax off, wax',
    { found: { finish: 'wax', certainty: 0.9 } },
    { route: 'renew', finish: 'varnish-oil' },
    ['approval', 'wash', 'solvent-wash', 'wax', 'finish-up'],
  ],
  [
    'a gloss film with fine scratches: cut, buffed, judged',
    {
      found: { finish: 'nitrocellulose-lacquer', certainty: 0.9 },
      sheen: 'gloss',
      findings: [finding('scratches', 3)],
    },
    { route: 'polish', finish: 'nitrocellulose-lacquer' },
    ['approval', 'wash', 'rub-out', 'buff', 'gate', 'finish-up'],
  ],
  [
    'wax on it: off before anything',
    { findings: [finding('dirt-and-wax')] },
    { route: 'scuff', finish: 'dewaxed-shellac' },
    ['approval', 'wash', 'solvent-wash', 'scuff', 'clean-off', 'coat', 'gate', 'sand-coat', 'coat', 'finish-up'],
  ],
]

describe('orders of the work', () => {
  test.each(orders)('%s', (_what, f, c, order) => {
    expect(
      workOutPlan(usualContext(facts(f)), built(usualContext(facts(f)), choice(c))).steps.map(s => s.kind),
    ).toEqual(order)
  })
  it('gives every step a reason and every caution a place to turn', () => {
    for (const [, f, c] of orders)
      for (const step of workOutPlan(usualContext(facts(f)), built(usualContext(facts(f)), choice(c))).steps) {
        expect(step.why.length, step.key).toBeGreaterThan(5)
        for (const caution of cautionsOfStep(step, usualContext(facts(f))))
          expect(cautionText(caution)).toMatch(/local codes and licensed practice\.$/)
      }
  })
  it('has steps only of known kinds, and waits only between steps it has', () => {
    for (const [, f, c] of orders) {
      const plan = workOutPlan(usualContext(facts(f)), built(usualContext(facts(f)), choice(c)))
      const keys = new Set(plan.steps.map(s => s.key))
      for (const step of plan.steps) expect(STEP_KINDS).toContain(step.kind)
      for (const wait of plan.waits) expect([keys.has(wait.from), keys.has(wait.to)]).toEqual([true, true])
      for (const wait of plan.waits)
        expect(wait.min <= wait.likely && wait.likely <= wait.safe, `${wait.from}>${wait.to}`).toBe(true)
    }
  })
  it('keeps the patina: nothing coarser than P180', () =>
    expect(
      workOutPlan(
        usualContext(facts({ keepPatina: true })),
        built(usualContext(facts({ keepPatina: true })), choice()),
      ).steps.find(s => s.kind === 'sand')!.grits,
    ).toEqual([P(180)]))
  it('stops at the grit that what follows wants', () => {
    const stop = (c: Partial<Picked>) =>
      workOutPlan(usualContext(facts()), built(usualContext(facts()), choice(c)))
        .steps.find(s => s.kind === 'sand')!
        .grits.at(-1)
    expect([stop({ colour: 'pigment-stain' }), stop({ finish: 'varnish-oil' }), stop({})]).toEqual(
      [180, 220, 180].map(P),
    )
  })
  it('leaves protected parts alone', () => {
    const f = facts({ faces: [face(), face({ id: 2, scope: 'protect' })] })
    expect(new Set(workOutPlan(usualContext(f), built(usualContext(f), choice())).steps.flatMap(s => s.faces))).toEqual(
      new Set([1]),
    )
  })
  it('goes on from the surface that a failed gate left, with its own keys and without asking again', () => {
    const fallback = workOutPlan(usualContext(facts()), built(usualContext(facts()), choice()), {
      prefix: 'f-',
      ask: false,
      start: () => ({
        films: [{ slug: 'dewaxed-shellac', base: 'alcohol', dry_um: 17, found: false, step: 'coat-2' }],
        inWood: [],
        wet: null,
        grit: P(400),
        scuffed: false,
        dirty: false,
        waxed: false,
        contamination: 'none',
        grain: 'as-is',
        openColour: null,
        pale: false,
        steelWool: false,
        filler: null,
        dusty: false,
      }),
    })
    expect(fallback.steps[0]!.key).toBe('f-cover')
    expect(fallback.steps.some(s => s.kind === 'wash' || s.kind === 'approval')).toBe(false)
  })
})

describe('minutes and amounts', () => {
  const step = (kind: Step['kind'], more: Partial<Step> = {}) =>
    stepOf({ key: kind, kind, faces: [], method: 'hand', ...more })
  const context = usualContext(facts())
  const square = [face({ area_m2: 1 })]
  /** Worked by hand from the shop's default minutes: set-up 8 + area × factor × minutes per m². */
  test.each<[string, number, number]>([
    ['wash 6', attended_min(step('wash'), square, context), 8 + 6],
    [
      'scrape 15, upright',
      attended_min(step('scrape'), [face({ area_m2: 1, orientation: 'vertical' })], context),
      8 + 15 * 1.15,
    ],
    ['scuff 8, carved', attended_min(step('scuff'), [face({ area_m2: 1, shape: 'carved' })], context), 8 + 24],
    ['wash off 12, three passes', attended_min(step('wash-off', { passes: 3 }), square, context), 8 + 36],
    [
      'sand: first grit 20, the next by random orbit 10, the last by hand 20',
      attended_min(step('sand', { grits: [P(100), P(150), P(180)], method: 'random-orbit' }), square, context),
      8 + 50,
    ],
    [
      'sand, belt up to P100 6, finishing sander 12',
      attended_min(step('sand', { grits: [P(80), P(100), P(150)], method: 'finishing-sander' }), square, context, {
        first: false,
        last: false,
      }),
      8 + 6 + 6 + 12,
    ],
    [
      'sand by hand: first grit 30, the next 20',
      attended_min(step('sand', { grits: [P(120), P(220)] }), square, context),
      8 + 50,
    ],
    [
      'turned faces by hand whatever the step says',
      attended_min(
        step('sand', { grits: [P(120), P(220)], method: 'random-orbit' }),
        [face({ area_m2: 1, shape: 'turned' })],
        context,
      ),
      8 + 2.2 * 50,
    ],
    [
      'take apart and put together, 5 a part',
      attended_min(
        step('take-apart'),
        [face(), face({ id: 2, part: 'leg' }), face({ id: 3, part: 'drawer' })],
        context,
      ) + attended_min(step('finish-up'), [face(), face({ id: 2, part: 'leg' })], context),
      8 + 10 + 15 + 5,
    ],
    ['film by brush 10', attended_min(step('coat', { product: 'waterborne-polyurethane' }), square, context), 18],
    [
      'lacquer by gun 5, with gun set-up 15',
      attended_min(step('coat', { product: 'nitrocellulose-lacquer' }), square, context),
      23 + 5,
    ],
    ['a gate', attended_min(step('gate'), square, context), 5],
  ])('%s', (_what, got, wanted) => expect(got).toBeCloseTo(wanted, 9))
  test.each<[string, number, number]>([
    [
      'waterborne, 1 m²: 110 µm, brush .95, waste 10 %',
      need_ml({ material: materialOf('waterborne-polyurethane'), area_m2: 1, coat: 1 }),
      (110 * 1.1) / 0.95,
    ],
    [
      'lacquer by gun .65',
      need_ml({ material: materialOf('nitrocellulose-lacquer'), area_m2: 1, coat: 1 }),
      (90 * 1.1) / 0.65,
    ],
    [
      'varnish oil, first coat 45 g',
      need_ml({ material: materialOf('varnish-oil'), area_m2: 1, coat: 1 }),
      (45 / 0.88) * 1.1,
    ],
    [
      'varnish oil, later 20 g',
      need_ml({ material: materialOf('varnish-oil'), area_m2: 1, coat: 2 }),
      (20 / 0.88) * 1.1,
    ],
    [
      'shellac, first coat on bare soft wood: half as much again',
      need_ml({ material: materialOf('dewaxed-shellac'), area_m2: 1, coat: 1, bareSoft: true }),
      (60 * 1.5 * 1.1) / 0.95,
    ],
  ])('%s', (_what, got, wanted) => expect(got).toBeCloseTo(wanted, 9))
  it('refuses an area that is none', () =>
    expect(() => need_ml({ material: materialOf('varnish-oil'), area_m2: 0, coat: 1 })).toThrow(/area above zero/))
  it('counts faces that are hard to reach', () =>
    expect([faceFactor(face()), faceFactor(face({ shape: 'turned', orientation: 'vertical' }))]).toEqual([
      1,
      2.2 * 1.15,
    ]))
  it('has a price, a density and cautions for whatever it plans with', () => {
    for (const m of MATERIALS) {
      expect(m.price_minor, m.slug).toBeGreaterThan(0)
      expect(m.density, m.slug).toBeGreaterThan(0.5)
      expect(m.wet_um === null, m.slug).toBe(m.spread_g_m2 !== null)
    }
    for (const slug of FINISHES) expect(['film', 'oil', 'wax']).toContain(materialOf(slug).role)
    expect(() => materialOf('unicorn')).toThrow(/no product class/)
  })
})

describe('waits', () => {
  const wait = (
    from: Step['kind'],
    to: Step['kind'],
    f: Partial<Facts> = {},
    product: string | null = null,
    next: string | null = product,
  ) => {
    const step = (kind: Step['kind'], p: string | null): Step =>
      stepOf({ key: kind, kind, faces: [1], product: p, method: 'hand', coat: 1 })
    const { min, max } = waitAfter(step(from, product), step(to, next), usualContext(facts(f)))
    return [min, max]
  }
  test.each<[string, (number | null)[], (number | null)[]]>([
    ['stripper, thin film: 15 to 30 min', wait('strip', 'scrape'), [15, 30]],
    [
      'stripper, several layers: 1 to 3 h',
      wait('strip', 'scrape', { findings: [finding('several-layers')] }),
      [60, 180],
    ],
    [
      'conditioner to stain: 5 min to 2 h',
      wait('conditioner', 'stain', {}, 'oil-conditioner', 'pigment-stain'),
      [5, 120],
    ],
    ['stain to film: a day', wait('stain', 'coat', {}, 'pigment-stain', 'dewaxed-shellac'), [1440, null]],
    ['gel to gel: 8 h', wait('gel', 'gel', {}, 'gel-stain'), [480, null]],
    ['oil on to oil off: 30 to 60 min', wait('oil-on', 'oil-off', {}, 'varnish-oil', null), [30, 60]],
    ['oil to the next oil: a day', wait('oil-off', 'oil-on', {}, null, 'varnish-oil'), [1440, null]],
    ['shellac to shellac: 1 h, melts in', wait('coat', 'coat', {}, 'dewaxed-shellac'), [60, null]],
    [
      'waterborne on waterborne unsanded: 2 h to 24 h',
      wait('coat', 'coat', {}, 'waterborne-polyurethane'),
      [120, 1440],
    ],
    ['lacquer to rubbing out: 14 days', wait('coat', 'rub-out', {}, 'nitrocellulose-lacquer', null), [14 * 1440, null]],
    ['sealer to its judging: overnight', wait('coat', 'gate', {}, 'dewaxed-shellac', null), [720, null]],
    ['sand to coat: none', wait('sand', 'coat', {}, null, 'dewaxed-shellac'), [0, null]],
  ])('%s', (_what, got, wanted) => expect(got).toEqual(wanted))
  it('are worked out anew when a step is taken out by hand', () => {
    const plan = workOutPlan(usualContext(facts()), built(usualContext(facts()), choice()))
    const without = completePlan(
      plan.steps.filter(s => s.kind !== 'sand-coat'),
      usualContext(facts()),
      built(usualContext(facts()), choice()),
    )
    expect(plan.waits.find(w => w.from === '1.coat.1')).toMatchObject({ to: '1.sand-coat.2', max: null })
    expect(without.waits.find(w => w.from === '1.coat.1')).toMatchObject({ to: '1.coat.2', min: 120, max: 1440 })
  })
})

describe('findings and routes', () => {
  const standing = (route: RouteSlug | 'scuff, gel', f: Partial<Facts>) => {
    const reasons = route === 'scuff, gel' ? routeReasons('scuff', facts(f), true) : routeReasons(route, facts(f))
    if (reasons.some(r => r.standing === 'ruled-out')) return 'ruled-out'
    if (reasons.some(r => r.standing === 'doubtful')) return 'doubtful'
    return 'possible'
  }
  test.each<[string, RouteSlug | 'scuff, gel', Partial<Facts>, string]>([
    ['scratches', 'scuff', { findings: [finding('scratches')] }, 'possible'],
    ['worn through, grade 4', 'scuff', { findings: [finding('worn-through', 4)] }, 'ruled-out'],
    [
      'worn through, tolerated',
      'scuff',
      { findings: [{ ...finding('worn-through', 4), wish: 'tolerate' }] },
      'possible',
    ],
    ['light crazing', 'scuff', { findings: [finding('crazing', 2)] }, 'doubtful'],
    ['heavy crazing', 'scuff', { findings: [finding('crazing', 4)] }, 'ruled-out'],
    ['an unknown film', 'scuff', { found: null }, 'doubtful'],
    ['an unsure film', 'scuff', { found: { finish: 'shellac', certainty: 0.6 } }, 'doubtful'],
    ['wax for a finish', 'scuff, gel', { found: { finish: 'wax', certainty: 0.9 }, tone: 'darker' }, 'ruled-out'],
    ['an oiled surface', 'scuff', { found: { finish: 'oil', certainty: 0.9 } }, 'ruled-out'],
    ['wanted darker under a clear coat', 'scuff', { tone: 'darker' }, 'doubtful'],
    ['wanted darker', 'scuff, gel', { tone: 'darker' }, 'possible'],
    ['wanted the same', 'scuff, gel', {}, 'doubtful'],
    ['wanted lighter', 'level-barrier-recoat', { tone: 'lighter' }, 'ruled-out'],
    ['runs', 'level-barrier-recoat', { findings: [finding('runs')] }, 'possible'],
    [
      'runs in several layers',
      'level-barrier-recoat',
      { findings: [finding('runs'), finding('several-layers')] },
      'doubtful',
    ],
    [
      'runs on a turned leg',
      'level-barrier-recoat',
      { findings: [finding('runs')], faces: [face({ shape: 'turned' })] },
      'doubtful',
    ],
    ['lead not ruled out', 'strip-chemical', { lead: 'unknown' }, 'doubtful'],
    ['bare wood', 'strip-chemical', { found: { finish: 'none', certainty: 0.9 } }, 'ruled-out'],
    ['nothing in scope', 'strip-chemical', { faces: [face({ scope: 'protect' })] }, 'ruled-out'],
  ])('%s, %s', (_what, route, f, wanted) => expect(standing(route, f)).toBe(wanted))
  it('counts chances as 1 − Π(1 − p)', () => {
    const gel = layerOf({ id: 1, act: 'gel', product: 'gel-stain' })
    const over = (ground: RouteSlug, layers = [] as Layer[]) => ({ ground, layers })
    const doubted = facts({ found: null, findings: [finding('crazing')] })
    expect(chanceOfFailing(over('scuff'), facts())).toBeCloseTo(0.05)
    expect(chanceOfFailing(over('scuff'), doubted)).toBeCloseTo(1 - 0.95 * 0.75 * 0.7)
    expect(chanceOfFailing(over('scuff', [gel]), doubted)).toBeCloseTo(1 - 0.95 * 0.85)
    expect(chanceOfFailing(over('strip-chemical'), facts())).toBeCloseTo(0.3)
  })
  it('reads contamination whatever the wish, and wishes for the rest', () => {
    const f = facts({ findings: [{ ...finding('water-beads'), wish: 'tolerate' }] })
    expect([isFound(f, 'water-beads'), findingsOf(f, 'water-beads').length]).toEqual([true, 0])
  })
  it('groups faces by species, substrate and veneer', () =>
    expect(
      groupsOf(
        facts({
          faces: [
            face(),
            face({ id: 2 }),
            face({ id: 3, species: 'pine' }),
            face({ id: 4, substrate: 'veneer', veneer_mm: 0.6 }),
            face({ id: 5, scope: 'match' }),
          ],
        }),
      ).map(g => g.faces.map(x => x.id)),
    ).toEqual([[1, 2], [3], [4]]))
  it('takes "not known" about lead as yes', () =>
    expect((['yes', 'unknown', 'no'] as const).map(leadSuspected)).toEqual([true, true, false]))
})

describe('price', () => {
  const rates = { hour_minor: 60_000, materialMarkup_bp: 2500, tax_bp: 2500 }
  const line = (attended: number, amount_ml: number | null, product: string | null): Step =>
    stepOf({ key: '', kind: 'coat', faces: [], product, method: 'brush', coat: 1, attended_min: attended, amount_ml })
  it('is labour, materials with markup, and tax, each rounded once', () => {
    const e = estimate([line(90, 250, 'dewaxed-shellac')], rates)
    expect(e).toEqual({
      attended_min: 90,
      labour_minor: 90_000,
      materials_minor: 8750,
      net_minor: 98_750,
      tax_minor: 24_688,
      total_minor: 123_438,
    })
  })
  it("takes the shelf's price before the default", () =>
    expect(materialCost_minor(line(0, 1000, 'dewaxed-shellac'), () => 5)).toBe(5))
  it('adds fallback to what was lost at the gate', () => {
    const plan = workOutPlan(
      usualContext(facts({ findings: [finding('runs')] })),
      built(usualContext(facts({ findings: [finding('runs')] })), choice({ route: 'level-barrier-recoat' })),
    )
    expect(lostAtGate(plan).at(-1)!.kind).toBe('gate')
    const a = estimate(lostAtGate(plan), rates)
    expect(addEstimates(a, a).total_minor).toBe(2 * a.total_minor)
  })
  it('rounds a share once', () => expect([share_minor(333, 2500), share_minor(0, 2500)]).toEqual([83, 0]))
})

describe('the section', () => {
  const f = facts({ tone: 'darker', found: { finish: 'shellac', certainty: 0.9 } })
  const c = choice({ route: 'scuff', colour: 'gel-stain', finish: 'dewaxed-shellac' })
  const plan = workOutPlan(usualContext(f), built(usualContext(f), c))
  it('draws gel over a film on the film, and stain on bare wood in it', () => {
    const over = surfaceOf(usualContext(f), plan.steps)!
    expect(over.films.map(l => l.slug)).toEqual(['shellac', 'gel-stain', 'dewaxed-shellac', 'dewaxed-shellac'])
    expect(over.colours).toEqual([])
    const bare = surfaceOf(
      usualContext(facts()),
      workOutPlan(usualContext(facts()), built(usualContext(facts()), choice({ colour: 'pigment-stain' }))).steps,
    )!
    expect(bare.colours.map(x => x.slug)).toEqual(['pigment-stain'])
  })
  it('shows what is done, running and failing', () => {
    const drawn = surfaceOf(usualContext(f), plan.steps, {
      stateOf: key => {
        if (key === '2.coat.1') return 'running'
        return key.startsWith('1.gel') ? 'done' : 'planned'
      },
      failing: new Set(['2.coat.2']),
    })!
    expect(drawn.films.map(l => l.state)).toEqual(['found', 'done', 'running', 'failing'])
    const { shapes } = cutOf(drawn, { width: 300, height: 260, found: 80, states: true })
    const of = (state: string) => shapes.find(s => s.at['data-side'] === 'planned' && s.at['data-state'] === state)!
    expect(of('failing').at['stroke-width']).toBe(3)
    expect(shapes.some(s => s.at['stroke-linecap'] === 'round')).toBe(true)
  })
  it('stacks without gaps from the wood upward', () => {
    const { planned, woodTop } = cutOf(surfaceOf(usualContext(f), plan.steps)!, {
      width: 300,
      height: 260,
      found: 80,
      states: true,
    })
    let y = woodTop
    for (const b of planned) {
      expect(b.y + b.h).toBeCloseTo(y)
      y = b.y
    }
    expect(y).toBeGreaterThanOrEqual(0)
  })
  it('never lets two labels cover each other', () => {
    const at = spread([{ at: 100 }, { at: 99 }, { at: 98 }, { at: 20 }]).map(l => l.at)
    at.slice(1).forEach((y, i) => expect(at[i]! - y).toBeGreaterThanOrEqual(18))
  })
  it('escapes names in the stored picture, is the same for the same plan, names equal neighbours once', () => {
    const section = surfaceOf(usualContext(f), plan.steps)!
    const named = (s = section) => surfaceSvg(s, of => of.name)
    expect(named({ ...section, species: '<script>' })).not.toContain('<script>')
    expect(named()).toBe(named())
    expect(named().match(/>dewaxed shellac</g)).toHaveLength(1)
    expect(layerFill('nothing known')).toMatch(/^#/)
  })
  it('is nothing where nothing is in scope', () => expect(surfaceOf(usualContext(facts({ faces: [] })), [])).toBeNull())
  it("finds no verdict against the planner's own gel", () =>
    expect(
      judgePlan({ context: usualContext(f), choice: built(usualContext(f), c), ...plan }).filter(
        v => v.severity !== 'note',
      ),
    ).toEqual([]))
})
