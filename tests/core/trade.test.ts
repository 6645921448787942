import { type Context, usualContext } from '#core/context'
import { P } from '#core/abrasives'
import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { cautionsOfStep, foundSurface, type Step, walk, withLeast } from '#core/acts'
import { judgeRoutes, lessInvasive } from '#core/ground'
import { USUAL_HOUSE } from '#core/house'
import { identify, likelihood, nextTests, type Observation, posterior, prior, TESTS } from '#core/identify'
import { type LabelFigures, materialOf, withLabel } from '#core/materials'
import { type Facts, FINISH_CLASSES, groupsOf, PERIODS } from '#core/piece'
import { completePlan, type Plan, workOutPlan } from '#core/plan'
import { applyMend, judgePlan, mendOf, RULES } from '#core/rules'
import { LICENCES } from '#core/safety'
import { cutOf, surfaceOf, surfaceSvg } from '#core/section'
import { at, choice, face, facts, finding, hours, built, type Picked } from '../facts'

describe('which finish', () => {
  it('keeps every table a probability', () => {
    for (const period of PERIODS) expect(prior(period, 'unknown').reduce((a, b) => a + b)).toBeCloseTo(1)
    for (const t of TESTS)
      FINISH_CLASSES.forEach((_, k) =>
        expect(Object.keys(t.results).reduce((sum, r) => sum + likelihood(t.slug, r)[k]!, 0)).toBeCloseTo(1),
      )
  })
  it('sums to one after any results', () => {
    const anyResult = fc.constantFrom(
      ...TESTS.flatMap(t => Object.keys(t.results).map((result): Observation => ({ test: t.slug, result }))),
    )
    fc.assert(
      fc.property(fc.array(anyResult, { maxLength: 6 }), seen => {
        expect(posterior(prior('unknown', 'yes'), seen).reduce((a, b) => a + b)).toBeCloseTo(1)
      }),
    )
  })
  it('finds shellac from a sticky alcohol drop and never claims more than 95 %', () => {
    const found = identify(prior('1850-1925', 'no'), [
      { test: 'alcohol-drop', result: 'sticky' },
      { test: 'scrape', result: 'powder' },
      { test: 'uv-lamp', result: 'orange' },
    ])
    expect(found).toMatchObject({ finish: 'shellac', certainty: 0.95, verdict: 'sure' })
  })
  it('says test again while unsure, and calls contradiction by its name', () => {
    expect(identify(prior('unknown', 'unknown'), []).verdict).toBe('test-again')
    expect(
      identify(prior('1850-1925', 'no'), [
        { test: 'alcohol-drop', result: 'sticky' },
        { test: 'look', result: 'opaque' },
      ]).verdict,
    ).toBe('contradictory')
  })
  it('advises a test not yet done, the mild before the harsh where they tell alike', () => {
    const first = nextTests(prior('1925-1960', 'unknown'), [])
    expect(first[0]!.gain_bits).toBeGreaterThan(0.3)
    const rest = nextTests(prior('1925-1960', 'unknown'), [
      { test: first[0]!.test.slug, result: Object.keys(first[0]!.test.results)[0]! },
    ])
    expect(rest.map(n => n.test.slug)).not.toContain(first[0]!.test.slug)
  })
})

const kinds = (plan: Plan) => plan.steps.map(s => s.kind)
const step = (plan: Plan, kind: Step['kind']) => plan.steps.find(s => s.kind === kind)!

const grave = (verdicts: { severity: string; rule: string }[]) =>
  verdicts.filter(v => v.severity !== 'note').map(v => v.rule)

describe('plans from surface states: one fact changed at a time', () => {
  it("goes from the client's word to the label", () => {
    const plan = workOutPlan(usualContext(facts()), built(usualContext(facts()), choice()))
    expect(kinds(plan)).toEqual([
      'approval',
      'wash',
      'cover',
      'strip',
      'scrape',
      'wash-off',
      'sand',
      'raise-grain',
      'sand',
      'clean-off',
      'coat',
      'sand-coat',
      'coat',
      'sand-coat',
      'coat',
      'finish-up',
    ])
    expect(new Set(plan.steps.map(s => s.key)).size).toBe(plan.steps.length)
  })
  it('conditions a blotching wood before pigment stain, with a base that matches', () => {
    const on = (species: string) =>
      workOutPlan(
        usualContext(facts({ faces: [face({ species })] })),
        built(usualContext(facts({ faces: [face({ species })] })), choice({ colour: 'pigment-stain' })),
      )
    expect(kinds(on('oak'))).not.toContain('conditioner')
    expect(step(on('pine'), 'conditioner').product).toBe('oil-conditioner')
  })
  it('sands veneer by hand, and not at all when it has nothing to spare', () => {
    const on = (veneer_mm: number) =>
      workOutPlan(
        usualContext(facts({ faces: [face({ substrate: 'veneer', veneer_mm })] })),
        built(usualContext(facts({ faces: [face({ substrate: 'veneer', veneer_mm })] })), choice()),
      )
    expect(step(on(0.9), 'sand').method).toBe('hand')
    expect(kinds(on(0.3))).toContain('pad')
  })
  it('works wet while lead is not ruled out', () => {
    const plan = workOutPlan(
      usualContext(facts({ lead: 'unknown' })),
      built(usualContext(facts({ lead: 'unknown' })), choice()),
    )
    expect(kinds(plan)).not.toContain('sand')
    expect(
      grave(
        judgePlan({
          context: usualContext(facts({ lead: 'unknown' })),
          choice: built(usualContext(facts({ lead: 'unknown' })), choice()),
          ...plan,
        }),
      ),
    ).toEqual([])
    expect(cautionsOfStep(step(plan, 'scrape'), usualContext(facts({ lead: 'unknown' })))).toContain('lead')
  })
  it('meets contamination with wash, gate, barrier, gate', () => {
    const f = facts({ findings: [finding('water-beads')] })
    const plan = workOutPlan(usualContext(f), built(usualContext(f), choice()))
    expect(kinds(plan).filter(k => k === 'gate')).toHaveLength(2)
    expect(plan.steps.some(s => s.product === 'dewaxed-shellac')).toBe(true)
    expect(grave(judgePlan({ context: usualContext(f), choice: built(usualContext(f), choice()), ...plan }))).toEqual(
      [],
    )
  })
  it('dwells longer on thick old film', () => {
    const max = (f: Facts) =>
      workOutPlan(usualContext(f), built(usualContext(f), choice())).waits.find(w => w.from === 'strip')!.max
    expect(max(facts())).toBe(30)
    expect(max(facts({ findings: [finding('several-layers')] }))).toBe(180)
  })
  it('parts groups where the wood differs and joins what is alike', () => {
    const plan = workOutPlan(
      usualContext(facts({ faces: [face(), face({ id: 2, part: 'foot', species: 'pine' })] })),
      built(
        usualContext(facts({ faces: [face(), face({ id: 2, part: 'foot', species: 'pine' })] })),
        choice({ colour: 'pigment-stain' }),
      ),
    )
    expect(step(plan, 'conditioner').faces).toEqual([2])
    expect(step(plan, 'stain').faces).toEqual([1, 2])
  })
  it('needs more where there is more', () => {
    const amount = (area_m2: number) =>
      workOutPlan(
        usualContext(facts({ faces: [face({ area_m2 })] })),
        built(usualContext(facts({ faces: [face({ area_m2 })] })), choice()),
      ).steps.reduce((sum, s) => sum + (s.amount_ml ?? 0), 0)
    expect(amount(2)).toBeCloseTo(2 * amount(1), 6)
  })
  it('ends level-barrier-recoat at a gate that falls back to stripping', () => {
    const f = facts({ findings: [finding('runs'), finding('several-layers')] })
    const gate = workOutPlan(
      usualContext(f),
      built(usualContext(f), choice({ route: 'level-barrier-recoat' })),
    ).steps.find(s => s.gate)!.gate!
    expect(gate.fallback).toBe('strip-chemical')
    expect(gate.chance).toBeCloseTo(1 - 0.85 * 0.7 * 0.8)
  })
})

/** Each rule: a plan that keeps it, and the same plan broken by one change. */
type Break = (p: Plan, f: Facts) => { steps: Step[]; facts?: Facts; choice?: Partial<Picked>; waits?: Plan['waits'] }
const without =
  (kind: Step['kind']): Break =>
  p => ({ steps: p.steps.filter(s => s.kind !== kind) })
const change =
  (kind: Step['kind'], more: Partial<Step>): Break =>
  p => ({ steps: p.steps.map(s => (s.kind === kind ? { ...s, ...more } : s)) })
const shorten =
  (kind: Step['kind'], coat = 1): Break =>
  p => {
    const from = p.steps.find(s => s.kind === kind && s.coat === coat)!.key
    return { steps: p.steps, waits: p.waits.map(w => (w.from === from ? { ...w, min: 60 } : w)) }
  }
const before =
  (kind: Step['kind'], add: Partial<Step>): Break =>
  p => ({
    steps: p.steps.flatMap((s, i) =>
      i === p.steps.findIndex(x => x.kind === kind)
        ? [{ ...p.steps[1]!, product: null, ...add, key: 'added', faces: s.faces } as Step, s]
        : [s],
    ),
  })
const pine = facts({ faces: [face({ species: 'pine' })] })
const mahogany = facts({ faces: [face({ species: 'mahogany' })] })
/** The same steps on another piece. */
const elsewhere =
  (f: Facts): Break =>
  p => ({ steps: p.steps, facts: f })
/** A product of the shop, by what its label says. */
const labelled = (slug: string, figures: LabelFigures) => ({
  shelf: { 1: withLabel(materialOf(slug), { name: slug, figures }) },
})
const LABELLED = { label: 1 }
const two = facts({ faces: [face(), face({ id: 2, name: 'apron' })] })
const cases: [string, Facts, Picked, Break, Partial<Pick<Context, 'house' | 'shelf'>>?][] = [
  [
    'conditioner-base-matches-stain',
    pine,
    choice({ colour: 'pigment-stain' }),
    change('conditioner', { product: 'water-conditioner' }),
  ],
  [
    'stain-within-2h-of-conditioner',
    pine,
    choice({ colour: 'pigment-stain' }),
    change('conditioner', { attended_min: 200, typed: ['attended_min'] }),
  ],
  ['stain-needs-bare-wood', facts(), choice({ colour: 'pigment-stain' }), without('wash-off')],
  [
    'gel-over-film-needs-scuff',
    facts({ tone: 'darker' }),
    choice({ route: 'scuff', colour: 'gel-stain' }),
    without('scuff'),
  ],
  [
    'gel-only-darker',
    facts({ tone: 'darker' }),
    choice({ colour: 'gel-stain' }),
    p => ({ steps: p.steps, facts: facts({ tone: 'lighter' }) }),
  ],
  ['stop-grit', facts(), choice({ colour: 'pigment-stain' }), change('sand', { grits: [P(120), P(220), P(320)] })],
  ['oil-stain-dry-before-waterborne', facts(), choice({ colour: 'pigment-stain' }), shorten('stain')],
  [
    'oil-stain-dry-before-shellac',
    facts(),
    choice({ colour: 'pigment-stain', finish: 'dewaxed-shellac' }),
    shorten('stain'),
  ],
  ['wax-under-anything', facts(), choice(), before('coat', { kind: 'wax' })],
  ['clean-before-abrade', facts(), choice({ route: 'scuff' }), without('wash')],
  ['oil-on-sealed-surface', facts(), choice({ finish: 'varnish-oil' }), without('wash-off')],
  ['contamination', facts({ findings: [finding('water-beads')] }), choice(), without('solvent-wash')],
  [
    'recoat-window-passed',
    facts(),
    choice(),
    p => ({
      steps: p.steps.filter(s => s.kind !== 'sand-coat'),
      waits: [
        {
          from: '1.coat.1',
          to: '1.coat.2',
          kind: 'recoat',
          min: 2000,
          likely: 2000,
          safe: 2000,
          max: 1440,
          hard: true,
          why: '',
        },
      ],
    }),
  ],
  [
    'veneer-budget',
    facts({ faces: [face({ substrate: 'veneer', veneer_mm: 0.45 })] }),
    choice(),
    change('sand', { method: 'random-orbit' }),
  ],
  ['bleach-needs-bare-wood', facts(), choice({ bleach: 'two-part-bleach' }), without('wash-off')],
  ['bleach-rinse-and-dry', facts(), choice({ bleach: 'two-part-bleach' }), without('rinse')],
  [
    'filler-dry-before-lacquer',
    mahogany,
    choice({ fill: 'paste-filler', finish: 'nitrocellulose-lacquer' }),
    shorten('fill-off'),
  ],
  [
    'repair-filler-before-colour',
    facts(),
    choice({ colour: 'pigment-stain' }),
    before('stain', { kind: 'mend', fields: { filler: 'plain' } }),
  ],
  ['steel-wool-and-water', facts(), choice(), change('wash-off', { method: 'steel-wool' })],
  ['ammonia-needs-tannin', facts(), choice({ colour: 'ammonia' }), elsewhere(pine)],
  [
    'face-left',
    facts(),
    choice(),
    p => ({ steps: p.steps, facts: facts({ faces: [face(), face({ id: 9, name: 'shelf' })] }) }),
  ],
  [
    'mark-left',
    facts({ found: { finish: 'shellac', certainty: 0.9 }, findings: [finding('scratches')] }),
    choice({ route: 'spot-repair' }),
    without('rub-out'),
  ],
  ['keep-patina', facts({ keepPatina: true }), choice(), change('sand', { grits: [P(80), P(180)] })],
  [
    'closed-pore-no-filler',
    mahogany,
    choice({ fill: 'paste-filler', finish: 'nitrocellulose-lacquer' }),
    elsewhere(pine),
  ],
  [
    'pva-on-sealed-joint',
    facts({ findings: [finding('loose-leg')] }),
    choice({ route: 'scuff' }),
    change('joint', { fields: { glue: 'wood-glue' } }),
  ],
  [
    'rigid-filler-in-moving-crack',
    facts({ movingCracks: [1], findings: [finding('crack')] }),
    choice(),
    change('mend', { fields: { filler: 'plain' } }),
  ],
  ['keep-maker-mark', facts(), choice(), elsewhere(facts({ marks: ['stamp'] }))],
  [
    'flood-on-veneer',
    facts({ faces: [face({ substrate: 'veneer', veneer_mm: 2 })] }),
    choice({ finish: 'dewaxed-shellac' }),
    before('coat', { kind: 'raise-grain' }),
  ],
  [
    'oil-stain-dry-before-lacquer',
    facts(),
    choice({ colour: 'pigment-stain', finish: 'nitrocellulose-lacquer' }),
    shorten('stain'),
  ],
  [
    'dark-toner-first',
    facts(),
    choice({ colour: 'lacquer-toner', finish: 'nitrocellulose-lacquer' }),
    p => ({
      steps: p.steps.map(s => {
        if (s.kind === 'toner' && s.coat === 1) return { ...s, fields: { shade: 'light' } as const }
        if (s.kind === 'toner' && s.coat === 2) return { ...s, fields: { shade: 'dark' } as const }
        return s
      }),
    }),
  ],
  ['dye-bleeds-into-same-solvent', facts(), choice({ colour: 'water-dye' }), change('coat', { method: 'brush' })],
  [
    'water-stain-dry-before-oil-film',
    facts(),
    choice({ colour: 'water-dye', finish: 'oil-polyurethane' }),
    shorten('dye', 2),
  ],
  [
    'exterior-stain-indoors',
    facts(),
    choice({ colour: 'pigment-stain' }),
    change('stain', { product: 'exterior-stain' }),
  ],
  [
    'indoor-finish-outdoors',
    facts({ use: 'outdoors' }),
    choice({ finish: 'oil-polyurethane' }),
    p => ({ steps: p.steps.map(s => (s.kind === 'coat' ? { ...s, product: 'nitrocellulose-lacquer' } : s)) }),
  ],
  [
    'no-abrasion-on-colour',
    facts(),
    choice({ colour: 'pigment-stain' }),
    before('coat', { kind: 'sand', grits: [P(220)] }),
  ],
  ['paint-wash-sealed', facts(), choice({ colour: 'paint-wash' }), without('coat')],
  [
    'yellowing-over-pale',
    facts(),
    choice({ bleach: 'two-part-bleach' }),
    change('coat', { product: 'oil-polyurethane' }),
  ],
  ['waxy-shellac-under-film', facts(), choice(), before('coat', { kind: 'coat', product: 'shellac-brushed', coat: 1 })],
  [
    'hot-solvent-over-oil-film',
    facts(),
    choice({ route: 'scuff', finish: 'nitrocellulose-lacquer' }),
    p => ({ steps: p.steps.filter(s => s.product !== 'dewaxed-shellac') }),
  ],
  ['water-over-uncured-oil', facts(), choice(), before('coat', { kind: 'coat', product: 'oil-polyurethane', coat: 1 })],
  [
    'stearate-sealer-under-catalysed',
    facts(),
    choice({ finish: 'oil-polyurethane' }),
    before('coat', { kind: 'coat', product: 'lacquer-sanding-sealer', coat: 1 }),
  ],
  [
    'sample-under-finish',
    facts({ sample: 'under-finish' }),
    choice({ colour: 'pigment-stain' }),
    elsewhere(facts({ sample: 'bare' })),
  ],
  ['ladder-skips', facts(), choice(), change('sand', { grits: [P(80), P(180)] })],
  [
    'hardwax-needs-open-wood',
    facts(),
    choice({ finish: 'hardwax-oil-2c' }),
    change('sand', { grits: [P(100), P(220)] }),
  ],
  [
    'boiled-linseed-under-shellac',
    facts(),
    choice({ finish: 'shellac-brushed' }),
    shorten('oil-off'),
    { house: { ...USUAL_HOUSE, 'oil-under-shellac': 'boiled' } },
  ],
  ['rub-out-after-cure', facts({ sheen: 'gloss' }), choice({ finish: 'nitrocellulose-lacquer' }), shorten('coat', 6)],
  [
    'rubbing-satin-changes-sheen',
    facts({ sheen: 'gloss' }),
    choice({ finish: 'nitrocellulose-lacquer' }),
    elsewhere(facts()),
  ],
  ['tape-on-fresh-film', facts(), choice(), before('finish-up', { kind: 'mask' })],
  ['shake-and-bubbles', facts(), choice(), change('coat', { fields: { shaken: true } })],
  [
    'insides-too',
    facts({ faces: [face({ part: 'top' })] }),
    choice(),
    elsewhere(facts({ faces: [face({ part: 'door' })] })),
  ],
  ['wet-sand-needs-sealed-wood', facts(), choice(), change('sand-coat', { method: 'wet' })],
  [
    'film-budget',
    facts({ sheen: 'gloss' }),
    choice({ finish: 'nitrocellulose-lacquer' }),
    p => ({ steps: p.steps.filter(s => s.kind !== 'coat' || s.coat! < 4) }),
  ],
  ['weight-on-fresh-film', facts(), choice({ finish: 'urethane-2c' }), shorten('coat', 2)],
  [
    'cleaner-attacks-film',
    facts({ found: { finish: 'shellac', certainty: 0.9 } }),
    choice({ route: 'scuff', finish: 'dewaxed-shellac' }),
    before('scuff', { kind: 'solvent-wash', product: 'alcohol' }),
  ],
  ['resin-tack-cloth-before-waterborne', facts(), choice(), change('clean-off', { fields: { dustBy: 'tack-cloth' } })],
  ['poison-no-dust', facts({ bans: ['dry-sanding'] }), choice({ route: 'scuff' }), change('scuff', { method: 'hand' })],
  [
    'wood-too-wet',
    facts({ wet: [{ faceId: 1, most_pct: 11.2, likely_d: 9 }] }),
    choice(),
    p => ({ ...p, steps: p.steps.filter(s => s.gate?.slug !== 'moisture') }),
  ],
  ['isocyanates-need-licence', facts(), choice(), change('coat', { product: 'urethane-2c' })],
  ['methylene-chloride-needs-licence', facts(), choice(), change('strip', { product: 'methylene-chloride-stripper' })],
  ['filler-on-film', mahogany, choice(), before('finish-up', { kind: 'fill', product: 'paste-filler', coat: 1 })],
  [
    'oiled-wood-takes-no-more',
    facts(),
    choice({ finish: 'varnish-oil' }),
    before('finish-up', { kind: 'dye', product: 'water-dye', coat: 1 }),
  ],
  ['repair-after-colour', facts(), choice(), before('finish-up', { kind: 'mend' })],
  [
    'filler-colour-on-dyed-wood',
    mahogany,
    choice({ colour: 'water-dye' }),
    before('coat', { kind: 'fill', product: 'paste-filler', coat: 1 }),
  ],
  [
    'oxalic-takes-out-stains-only',
    facts({ findings: [finding('black-ring')] }),
    choice({ bleach: 'oxalic-acid' }),
    elsewhere(facts()),
  ],
  [
    'lighter-needs-bleach',
    facts({ tone: 'lighter' }),
    choice({ colour: 'pigment-stain', bleach: 'two-part-bleach' }),
    p => ({ steps: p.steps.filter(s => s.kind !== 'bleach') }),
  ],
  [
    'bare-wood-too-fine-for-dye',
    facts(),
    choice({ colour: 'water-dye' }),
    before('dye', { kind: 'sand', grits: [P(400)] }),
  ],
  [
    'chlorine-not-rinsed',
    facts({ findings: [finding('black-ring')] }),
    choice({ bleach: 'oxalic-acid' }),
    before('bleach', { kind: 'bleach', product: 'household-chlorine', coat: 1 }),
  ],
  [
    'opaque-flash',
    facts(),
    choice(),
    p => ({
      steps: p.steps
        .filter(s => s.kind !== 'sand-coat')
        .map(s => (s.kind === 'coat' ? { ...s, product: 'opaque-colour', ...LABELLED } : s)),
    }),
    labelled('opaque-colour', { recoat_min: 2 }),
  ],
  [
    'lacquer-beside-fresh-oil',
    two,
    choice({ finish: 'nitrocellulose-lacquer' }),
    p => {
      const { steps } = before('coat', { kind: 'stain', product: 'pigment-stain', coat: 1 })(p, two)
      const on = (s: Step) => (s.key === 'added' ? [2] : [1])
      return { steps: steps.map(s => (s.kind === 'coat' || s.key === 'added' ? { ...s, faces: on(s) } : s)) }
    },
  ],
  [
    'gloss-stays-clear',
    facts({ sheen: 'gloss' }),
    choice({ finish: 'nitrocellulose-lacquer' }),
    change('coat', LABELLED),
    labelled('nitrocellulose-lacquer', { sheen: 'satin' }),
  ],
  [
    'painting-over',
    facts(),
    choice(),
    p => ({ steps: p.steps.map(s => (s.kind === 'coat' ? { ...s, product: 'opaque-colour' } : s)) }),
  ],
  [
    'thinned-too-far',
    facts(),
    choice(),
    change('coat', { ...LABELLED, fields: { thinned_pct: 25 } }),
    labelled('waterborne-polyurethane', { reduceMost_pct: 10 }),
  ],
  ['lead-no-dust', facts({ lead: 'yes' }), choice({ route: 'scuff' }), change('scuff', { method: 'hand' })],
]

describe('rules', () => {
  it('two-part hardwax oil takes no reducer, a two-part film 30 %; the label has the last word', () => {
    const said = (finish: Picked['finish'], thinned_pct: number, figures?: LabelFigures) => {
      const on = usualContext(facts(), figures ? labelled(finish, figures) : {})
      const its = built(on, choice({ finish }))
      const kind = ['oil-on', 'coat']
      const steps = workOutPlan(on, its).steps.map(s =>
        kind.includes(s.kind) ? { ...s, label: figures ? 1 : null, fields: { ...s.fields, thinned_pct } } : s,
      )
      return judgePlan({ context: on, choice: its, ...completePlan(steps, on, its) })
        .filter(v => v.rule === 'thinned-too-far' && v.says.includes(materialOf(finish).name))
        .map(v => v.says)[0]
    }
    expect(said('hardwax-oil-2c', 5)).toBe('two-part hardwax oil thinned 5 %; it usually takes none')
    expect(said('hardwax-oil-2c', 5, { reduceMost_pct: 10 })).toBeUndefined()
    expect(said('urethane-2c', 30)).toBeUndefined()
    expect(said('urethane-2c', 40)).toContain('it usually takes 30 %')
    expect(said('nitrocellulose-lacquer', 80)).toBeUndefined()
  })
  test.each(cases)('%s: kept by the planner, broken by one change', (slug, f, c, breakIt, shop) => {
    const plan = workOutPlan(usualContext(f, shop), built(usualContext(f, shop), c))
    expect(
      judgePlan({ context: usualContext(f, shop), choice: built(usualContext(f, shop), c), ...plan }).map(v => v.rule),
    ).not.toContain(slug)
    const broken = breakIt(plan, f)
    const again = completePlan(
      broken.steps,
      usualContext(broken.facts ?? f, shop),
      built(usualContext(broken.facts ?? f, shop), c),
    )
    const verdict = judgePlan({
      context: usualContext(broken.facts ?? f, shop),
      choice: built(usualContext(broken.facts ?? f, shop), { ...c, ...broken.choice }),
      steps: again.steps,
      waits: broken.waits ?? again.waits,
    }).find(v => v.rule === slug)
    expect(verdict, slug).toBeDefined()
    expect(verdict!.mend.length).toBeGreaterThan(8)
  })
  it('mends by one touch what is mechanical: the verdict goes, and nothing graver comes', () => {
    const mended = cases
      .filter(([slug]) => mendOf({ rule: slug }))
      .map(([slug, f, c, breakIt, shop]) => {
        const broken = breakIt(workOutPlan(usualContext(f, shop), built(usualContext(f, shop), c)), f)
        const here = broken.facts ?? f
        const judge = (steps: readonly Step[], waits?: Plan['waits']) =>
          judgePlan({
            context: usualContext(here, shop),
            choice: built(usualContext(here, shop), c),
            steps,
            waits: waits ?? completePlan(steps, usualContext(here, shop), built(usualContext(here, shop), c)).waits,
          })
        const first = judge(broken.steps, broken.waits).find(v => v.rule === slug)!
        const after = applyMend(broken.steps, first, 'mended')
        return {
          slug,
          gone: after !== null && !judge(after).some(v => v.rule === slug && v.step === first.step),
          worse: after
            ? judge(after)
                .filter(v => v.severity === 'forbidden')
                .map(v => v.rule)
            : [],
        }
      })
    expect(mended.length).toBeGreaterThan(15)
    expect(mended.filter(m => !m.gone).map(m => m.slug)).toEqual([])
    expect(mended.flatMap(m => m.worse)).toEqual([])
    expect(
      applyMend(
        workOutPlan(usualContext(facts()), built(usualContext(facts()), choice())).steps,
        { rule: 'rub-out-after-cure', step: '1.coat.1' },
        'x',
      ),
    ).toBeNull()
  })
  it('what is too soon waits longer by one touch: the verdict goes and stays gone', () => {
    const waiting = cases.flatMap(([slug, f, c, breakIt, shop]) => {
      const broken = breakIt(workOutPlan(usualContext(f, shop), built(usualContext(f, shop), c)), f)
      const here = broken.facts ?? f
      const waits =
        broken.waits ?? completePlan(broken.steps, usualContext(here, shop), built(usualContext(here, shop), c)).waits
      const verdict = judgePlan({
        context: usualContext(here, shop),
        choice: built(usualContext(here, shop), c),
        steps: broken.steps,
        waits,
      }).find(v => v.rule === slug && v.wait)
      if (!verdict) return []
      expect(mendOf(verdict)).toMatch(/^Wait \d+ (min|h|days)$/)
      const longer = withLeast(waits, [{ ...verdict.wait!, to: verdict.step }], new Set(broken.steps.map(s => s.key)))
      return [
        {
          slug,
          gone: !judgePlan({
            context: usualContext(here, shop),
            choice: built(usualContext(here, shop), c),
            steps: broken.steps,
            waits: longer,
          }).some(v => v.rule === slug && v.step === verdict.step),
        },
      ]
    })
    expect(waiting.map(w => w.slug)).toEqual(
      expect.arrayContaining([
        'oil-stain-dry-before-waterborne',
        'filler-dry-before-lacquer',
        'boiled-linseed-under-shellac',
        'rub-out-after-cure',
        'weight-on-fresh-film',
        'tape-on-fresh-film',
        'water-over-uncured-oil',
        'water-stain-dry-before-oil-film',
      ]),
    )
    expect(waiting.filter(w => !w.gone)).toEqual([])
  })
  it('has a case for each rule of scope plan', () =>
    expect(cases.map(c => c[0]).sort()).toEqual(
      RULES.filter(r => r.scope === 'plan')
        .map(r => r.slug)
        .sort(),
    ))
  it('breaks no stop rule in plans for bare wood, whatever the piece', () => {
    const piece = fc.record({
      species: fc.constantFrom('oak', 'pine', 'cherry', 'unknown'),
      veneer_mm: fc.constantFrom(null, 0.3, 0.5, 0.6, 2),
      tone: fc.constantFrom('same', 'darker'),
      lead: fc.constantFrom('yes', 'no', 'unknown'),
      beads: fc.boolean(),
      colour: fc.constantFrom('none', 'gel-stain', 'pigment-stain'),
      finish: fc.constantFrom('dewaxed-shellac', 'waterborne-polyurethane', 'nitrocellulose-lacquer'),
    })
    fc.assert(
      fc.property(piece, p => {
        const f = facts({
          tone: p.tone as Facts['tone'],
          lead: p.lead as Facts['lead'],
          findings: p.beads ? [finding('water-beads')] : [],
          faces: [face({ species: p.species, substrate: p.veneer_mm ? 'veneer' : 'solid', veneer_mm: p.veneer_mm })],
        })
        const c = choice({ colour: p.colour as Picked['colour'], finish: p.finish as Picked['finish'] })
        expect(
          judgePlan({
            context: usualContext(f),
            choice: built(usualContext(f), c),
            ...workOutPlan(usualContext(f), built(usualContext(f), c)),
            licences: LICENCES,
          }).filter(v => v.severity === 'stop' || v.severity === 'forbidden'),
        ).toEqual([])
      }),
    )
  })
})

describe('routes', () => {
  const ask = (f: Facts, c = choice()) =>
    judgeRoutes({
      context: usualContext(f),
      choice: built(usualContext(f), c),
      rates: { hour_minor: 60000, materialMarkup_bp: 2500, tax_bp: 2500 },
      hours,
      now_ms: at('2026-11-23T10:30'),
    })
  const standing = (f: Facts, c?: Picked) => Object.fromEntries(ask(f, c).verdicts.map(v => [v.route, v.standing]))
  it('advises the least invasive that reaches the wish', () => {
    expect(ask(facts({ findings: [finding('scratches', 2)] })).advised).toBe('scuff')
    expect(ask(facts({ findings: [finding('peeling')] })).advised).toBe('strip-chemical')
  })
  it('rules out with the reason from this piece', () => {
    expect(standing(facts({ tone: 'lighter' }))).toMatchObject({
      'scuff': 'ruled-out',
      'strip-chemical': 'possible',
    })
    const { verdicts } = ask(facts({ findings: [finding('peeling', 4)] }))
    const peel = verdicts.find(v => v.route === 'clean-and-wax')!
    expect(peel.reasons.map(r => r.says).join()).toMatch(/Peeling, grade 4/)
    expect(standing(facts(), choice({ finish: 'varnish-oil' }))['scuff']).toBe('ruled-out')
  })
  it('gives a worse price and date where a gate may fail, and the milder route beside the chosen one', () => {
    const { verdicts } = ask(facts({ findings: [finding('runs')] }))
    const gated = verdicts.find(v => v.route === 'level-barrier-recoat')!
    expect(gated.worst.total_minor).toBeGreaterThan(gated.likely.total_minor)
    expect(gated.readyWorst_ms).toBeGreaterThan(gated.readyLikely_ms)
    expect(lessInvasive(verdicts, 'strip-chemical')!.route).toBe('level-barrier-recoat')
  })
})

describe('section', () => {
  it("draws the planner's own layers to one scale", () => {
    const f = facts()
    const plan = workOutPlan(usualContext(f), built(usualContext(f), choice()))
    const section = surfaceOf(usualContext(f), plan.steps)!
    const { planned, found, pxPerUm } = cutOf(section, { width: 300, height: 260, found: 80, states: true })
    expect(planned.map(b => b.film.um)).toEqual([34.6, 34.6, 34.6].map(x => expect.closeTo(x, 0)))
    for (const b of [...planned, ...found]) expect(b.h / pxPerUm).toBeCloseTo(b.film.um)
    expect(surfaceSvg(section, of => of.name)).toContain('data-um="34.7"')
  })
  it('starts from what was found', () => {
    const f = facts({ found: { finish: 'oil', certainty: 0.9 } })
    expect(foundSurface(f, groupsOf(f)[0]!).films).toEqual([])
    expect(
      walk(workOutPlan(usualContext(f), built(usualContext(f), choice())).steps, groupsOf(f), usualContext(f)).at(-1)!
        .after.films,
    ).toHaveLength(3)
  })
})
