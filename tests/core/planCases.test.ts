import { usualContext } from '#core/context'
import { P } from '#core/abrasives'
import fc from 'fast-check'
import { describe, expect, it } from 'vitest'
import type { StepKind } from '#core/acts'
import { HOUSE_METHODS, HOUSE_SLUGS, houseOf, type House, USUAL_HOUSE } from '#core/house'
import { BLEACHES, COLOURS, FILLS, FINISHES, materialOf } from '#core/materials'
import { type Facts, type Finding, STRIPPING } from '#core/piece'
import { planDifference, workOutPlan } from '#core/plan'
import { judgePlan, RULES } from '#core/rules'
import { LICENCES } from '#core/safety'
import { SPECIES } from '#core/wood'
import { choice, face, facts, finding, built, type Picked } from '../facts'

/**
 * Ten plans worked out by hand from the handbook (4–12, 17) before the code ran: the order of the work, coats, waits,
 * warnings, amounts. Orders and times: common practice. Amounts: arithmetic on the shop's defaults (17.2, 17.3).
 */
interface PlanCase {
  piece: string
  facts: Facts
  choice: Picked
  expect: {
    /** kinds that come one after another in this order; others may lie between */
    order: StepKind[]
    never?: StepKind[]
    coats?: number
    /** finish for one coat, ml */
    coat_ml?: number
    /** waits by the kinds they lie between: minutes at the least, and at the most */
    waits?: [from: StepKind, to: StepKind, min: number, max?: number | null][]
    warns?: string[]
    fallback?: string
    methods?: Partial<Record<StepKind, string>>
    grits?: Partial<Record<StepKind, number[]>>
  }
}
const H = 60
const D = 1440
const shellacked = {
  found: { finish: 'shellac' as const, certainty: 0.9 },
  finishes: [{ group: 'A', layers: [{ finish: 'shellac' as const, certainty: 0.9 }] }],
}
const lacquered = {
  found: { finish: 'nitrocellulose-lacquer' as const, certainty: 0.9 },
  finishes: [{ group: 'A', layers: [{ finish: 'nitrocellulose-lacquer' as const, certainty: 0.9 }] }],
}

const CASES: PlanCase[] = [
  {
    piece: 'oak top, varnish peeling, to waterborne',
    facts: facts({ findings: [finding('peeling')] }),
    choice: choice(),
    expect: {
      order: [
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
      ],
      coats: 3,
      coat_ml: (0.8 * 110 * 1.1) / 0.95,
      waits: [
        ['strip', 'scrape', 15, 30],
        ['coat', 'sand-coat', 2 * H],
      ],
      grits: { sand: [120, 180] },
    },
  },
  {
    piece: 'pine press, darker, pigment stain under shellac',
    facts: facts({ tone: 'darker', faces: [face({ species: 'pine' })], ...shellacked }),
    choice: choice({ colour: 'pigment-stain', finish: 'dewaxed-shellac' }),
    expect: {
      order: ['strip', 'sand', 'clean-off', 'conditioner', 'stain', 'coat'],
      never: ['raise-grain'],
      waits: [
        ['conditioner', 'stain', 5, 2 * H],
        ['stain', 'coat', D],
      ],
    },
  },
  {
    piece: 'crazed shellac chair, kept',
    facts: facts({ ...shellacked, keepPatina: true, findings: [finding('crazing', 3)] }),
    choice: choice({ route: 'amalgamate', finish: 'dewaxed-shellac' }),
    expect: { order: ['wash', 'amalgamate', 'gate'], never: ['strip', 'sand', 'scuff'], fallback: 'strip-chemical' },
  },
  {
    piece: 'lacquered sideboard with a few chips',
    facts: facts({ ...lacquered, findings: [finding('worn-through', 2)] }),
    choice: choice({ route: 'spot-repair', finish: 'nitrocellulose-lacquer' }),
    expect: {
      order: ['wash', 'spot-colour', 'spot-coat'],
      never: ['strip', 'sand'],
      waits: [['spot-coat', 'rub-out', 7 * D]],
    },
  },
  {
    piece: 'sound polish, the client likes it',
    facts: facts({ ...shellacked, findings: [finding('dirt-and-wax', 2)] }),
    choice: choice({ route: 'clean-and-wax' }),
    expect: { order: ['wash', 'solvent-wash', 'wax'], never: ['coat', 'sand', 'scuff', 'strip'] },
  },
  {
    piece: 'varnished top with runs and brush marks',
    facts: facts({ findings: [finding('runs'), finding('brush-marks')] }),
    choice: choice({ route: 'level-barrier-recoat', finish: 'oil-polyurethane' }),
    expect: {
      order: ['wash', 'level', 'clean-off', 'coat', 'coat', 'gate', 'scuff', 'clean-off', 'coat'],
      never: ['strip'],
      fallback: 'strip-chemical',
      waits: [['coat', 'gate', 12 * H]],
    },
  },
  {
    piece: 'oak kitchen table to two-part hardwax oil',
    facts: facts({ use: 'hard' }),
    choice: choice({ finish: 'hardwax-oil-2c' }),
    expect: {
      order: ['strip', 'sand', 'clean-off', 'oil-on', 'oil-off'],
      never: ['coat', 'sand-coat'],
      coats: 1,
      waits: [['oil-on', 'oil-off', 0, 50]],
      // a stripped table begins at P120 (handbook 6.2)
      grits: { sand: [120, 150] },
    },
  },
  {
    piece: 'walnut to be paler than its own wood',
    facts: facts({ tone: 'lighter', faces: [face({ species: 'walnut' })] }),
    choice: choice({ bleach: 'two-part-bleach', finish: 'oil-polyurethane' }),
    expect: {
      order: ['wash-off', 'sand', 'bleach', 'rinse', 'sand', 'clean-off', 'coat'],
      waits: [
        ['bleach', 'rinse', 8 * H],
        ['rinse', 'sand', D],
      ],
      warns: ['yellowing-over-pale'],
    },
  },
  {
    piece: 'mahogany case, glass-smooth lacquer, rubbed to gloss',
    facts: facts({ sheen: 'gloss', faces: [face({ species: 'mahogany' })] }),
    choice: choice({ finish: 'nitrocellulose-lacquer', fill: 'paste-filler' }),
    expect: {
      order: ['sand', 'fill', 'fill-off', 'sand-back', 'coat', 'rub-out'],
      coats: 6,
      waits: [
        ['fill-off', 'sand-back', D],
        ['coat', 'rub-out', 14 * D],
      ],
    },
  },
  {
    piece: 'thin walnut veneer on the top, beech legs, painted base left alone',
    facts: facts({
      faces: [
        face({ species: 'walnut', substrate: 'veneer', veneer_mm: 0.35 }),
        face({ id: 2, part: 'legs', species: 'beech', shape: 'turned', area_m2: 0.3 }),
        face({ id: 3, part: 'base', scope: 'protect' }),
      ],
    }),
    choice: choice({ colour: 'pigment-stain', finish: 'dewaxed-shellac' }),
    expect: {
      order: ['mask', 'strip', 'scrape', 'wash-off', 'pad', 'stain', 'coat', 'unmask', 'finish-up'],
      methods: { pad: 'hand' },
      warns: [],
    },
  },
]

describe.each(CASES)('$piece', ({ facts: f, choice: c, expect: wanted }) => {
  const plan = workOutPlan(usualContext(f), built(usualContext(f), c))
  const kinds = plan.steps.map(s => s.kind)
  it('goes in this order', () => {
    let from = 0
    for (const kind of wanted.order) {
      const found = kinds.indexOf(kind, from)
      expect(found, `${kind} after ${kinds.slice(0, from).join(', ')} in ${kinds.join(', ')}`).toBeGreaterThanOrEqual(
        from,
      )
      from = found + 1
    }
    for (const kind of wanted.never ?? []) expect(kinds).not.toContain(kind)
  })
  it('in coats, amounts, waits, grits and ways', () => {
    const finish = plan.steps.filter(s => s.product === c.finish && (s.kind === 'coat' || s.kind === 'oil-on'))
    if (wanted.coats) expect(finish).toHaveLength(wanted.coats)
    if (wanted.coat_ml) expect(finish[1]!.amount_ml).toBeCloseTo(wanted.coat_ml, 1)
    for (const [from, to, min, max] of wanted.waits ?? []) {
      const between = plan.waits.filter(
        w => plan.steps.find(s => s.key === w.from)!.kind === from && plan.steps.find(s => s.key === w.to)!.kind === to,
      )
      expect(between.length, `${from} to ${to}`).toBeGreaterThan(0)
      expect(Math.max(...between.map(w => w.min))).toBeGreaterThanOrEqual(min)
      if (max !== undefined) expect(between[0]!.max).toBe(max)
    }
    for (const [kind, grits] of Object.entries(wanted.grits ?? {}))
      expect(plan.steps.find(s => s.kind === kind)!.grits).toEqual(grits.map(P))
    for (const [kind, method] of Object.entries(wanted.methods ?? {}))
      expect(plan.steps.find(s => s.kind === kind)!.method).toBe(method)
    if (wanted.fallback) expect(plan.steps.some(s => s.gate?.fallback === wanted.fallback)).toBe(true)
  })
  it('breaks no stop, and warns where it should', () => {
    const verdicts = judgePlan({
      context: usualContext(f),
      choice: built(usualContext(f), c),
      ...plan,
      licences: LICENCES,
    })
    expect(verdicts.filter(v => v.severity === 'stop' || v.severity === 'forbidden')).toEqual([])
    for (const rule of wanted.warns ?? []) expect(verdicts.map(v => v.rule)).toContain(rule)
  })
})

/** Handbook 10.2: the slugs of its 55 rules. */
const HANDBOOK_RULES =
  `bleach-needs-bare-wood bleach-rinse-and-dry conditioner-base-matches-stain stain-within-2h-of-conditioner
stain-needs-bare-wood gel-over-film-needs-scuff gel-only-darker stop-grit oil-stain-dry-before-waterborne
oil-stain-dry-before-shellac waxy-shellac-under-film wax-under-anything hot-solvent-over-oil-film
water-over-uncured-oil stearate-sealer-under-catalysed hardwax-needs-open-wood oil-on-sealed-surface
boiled-linseed-under-shellac filler-dry-before-lacquer repair-filler-before-colour steel-wool-and-water
contamination dark-toner-first dye-bleeds-into-same-solvent recoat-window-passed rub-out-after-cure
rubbing-satin-changes-sheen tape-on-fresh-film ammonia-needs-tannin veneer-budget lead-no-dust keep-patina
closed-pore-no-filler pva-on-sealed-joint rigid-filler-in-moving-crack topcoat-climate shake-and-bubbles
keep-maker-mark sample-under-finish insides-too no-dust-work-in-finishing-room paint-wash-sealed
two-part-after-pot-life clean-before-abrade no-abrasion-on-colour oil-stain-dry-before-lacquer
wet-sand-needs-sealed-wood film-budget flood-on-veneer weight-on-fresh-film cleaner-attacks-film
water-stain-dry-before-oil-film exterior-stain-indoors resin-tack-cloth-before-waterborne yellowing-over-pale`.split(
    /\s+/,
  )

describe('the rules', () => {
  it("are all of the handbook's 55, each once", () => {
    expect(HANDBOOK_RULES).toHaveLength(55)
    const slugs = RULES.map(r => r.slug)
    expect(new Set(slugs).size).toBe(slugs.length)
    expect(HANDBOOK_RULES.filter(r => !slugs.includes(r))).toEqual([])
  })
})

describe('whatever the piece, the wish and the house', () => {
  const anyHouse = fc
    .record(
      Object.fromEntries(HOUSE_SLUGS.map(slug => [slug, fc.constantFrom(...Object.keys(HOUSE_METHODS[slug].options))])),
    )
    .map(h => houseOf(h as Record<string, string>))
  const anyFinding = fc.record({
    kind: fc.constantFrom<Finding['kind']>(
      'scratches',
      'dents',
      'crack',
      'loose-leg',
      'runs',
      'worn-through',
      'water-beads',
      'dirt-and-wax',
      'several-layers',
      'black-ring',
      'veneer-chipped',
    ),
    grade: fc.integer({ min: 1, max: 5 }),
  })
  const anyFace = fc.record({
    species: fc.constantFrom(...SPECIES.map(s => s.slug)),
    veneer_mm: fc.constantFrom(null, null, 0.3, 0.6, 2),
    shape: fc.constantFrom('flat' as const, 'turned' as const, 'carved' as const, 'profiled' as const),
    scope: fc.constantFrom('refinish' as const, 'refinish' as const, 'protect' as const),
  })
  const anyPiece = fc
    .record({
      faces: fc.array(anyFace, { minLength: 1, maxLength: 4 }),
      findings: fc.array(anyFinding, { maxLength: 3 }),
      lead: fc.constantFrom('yes' as const, 'no' as const, 'no' as const, 'unknown' as const),
      keepPatina: fc.boolean(),
      found: fc.constantFrom(
        'oil-varnish' as const,
        'shellac' as const,
        'nitrocellulose-lacquer' as const,
        'oil-polyurethane' as const,
        'waterborne' as const,
        'catalysed' as const,
        'oil-paint' as const,
      ),
      sheen: fc.constantFrom('matt' as const, 'satin' as const, 'gloss' as const),
      wet: fc.boolean(),
    })
    .map((p): Facts =>
      facts({
        lead: p.lead,
        keepPatina: p.keepPatina,
        sheen: p.sheen,
        found: { finish: p.found, certainty: 0.9 },
        findings: p.findings.map(f => ({ ...finding(f.kind, f.grade) })),
        wet: p.wet ? [{ faceId: 1, most_pct: 11, likely_d: 6 }] : [],
        faces: p.faces.map((f, i) =>
          face({
            id: i + 1,
            part: `part ${i}`,
            species: f.species,
            substrate: f.veneer_mm ? 'veneer' : 'solid',
            veneer_mm: f.veneer_mm,
            shape: f.shape,
            scope: i === 0 ? 'refinish' : f.scope,
          }),
        ),
      }),
    )
  const stops = (f: Facts, house: House, c: Picked) => {
    const context = usualContext(f, { house })
    return judgePlan({
      context,
      choice: built(context, c),
      ...workOutPlan(context, built(context, c)),
      licences: LICENCES,
    })
      .filter(v => v.severity === 'stop' || v.severity === 'forbidden')
      .map(v => `${v.rule} at ${v.step}: ${v.says}`)
  }

  it(
    'a plan that strips breaks no stop: any finish, colour, filler and bleach (bleach and patina exclude ' +
      'each other)',
    () => {
      fc.assert(
        fc.property(
          anyPiece,
          anyHouse,
          fc.constantFrom(...STRIPPING),
          fc.constantFrom(...FINISHES),
          fc.constantFrom(...COLOURS),
          fc.constantFrom(...FILLS),
          fc.constantFrom(...BLEACHES),
          (f, house, route, finish, colour, fill, bleach) => {
            // colour in a film wants a film over it: a rule says so where there is none
            fc.pre(materialOf(finish).role === 'film' || !['glaze', 'lacquer-toner'].includes(colour))
            expect(
              stops(f, house, choice({ route, finish, colour, fill, bleach: f.keepPatina ? 'none' : bleach })),
            ).toEqual([])
          },
        ),
        { numRuns: 2000 },
      )
    },
  )
  it('a plan that keeps the film breaks no stop, with a film for its finish', () => {
    fc.assert(
      fc.property(
        anyPiece,
        anyHouse,
        fc.constantFrom(
          'clean-and-wax' as const,
          'amalgamate' as const,
          'spot-repair' as const,
          'scuff' as const,
          'level-barrier-recoat' as const,
        ),
        fc.constantFrom(...FINISHES.filter(f => materialOf(f).role === 'film')),
        fc.constantFrom('none' as const, 'gel-stain' as const),
        (f, house, route, finish, colour) => {
          expect(stops(f, house, choice({ route, finish, colour }))).toEqual([])
        },
      ),
      { numRuns: 1000 },
    )
  })
  it(
    "a plan whose faces go different ways breaks no stop either, and leaves no face without its own way's " + 'steps',
    () => {
      const films = FINISHES.filter(f => materialOf(f).role === 'film')
      fc.assert(
        fc.property(
          anyPiece,
          anyHouse,
          fc.constantFrom(...STRIPPING),
          fc.constantFrom('scuff' as const, 'level-barrier-recoat' as const, 'clean-and-wax' as const),
          fc.constantFrom(...films),
          fc.constantFrom(...films),
          (f, house, route, other, finish, second) => {
            fc.pre(f.faces.filter(x => x.scope === 'refinish').length > 1)
            const last = f.faces.findLast(x => x.scope === 'refinish')!.id
            const mixed = choice({
              route,
              finish,
              own: [{ route: other, finish: second, colour: 'none', conditioner: 'auto', faces: [last] }],
            })
            expect(stops(f, house, mixed)).toEqual([])
            expect(
              workOutPlan(usualContext(f, { house }), built(usualContext(f, { house }), mixed)).steps.some(
                s => s.faces.includes(last) && ['strip', 'sand-off', 'scrape'].includes(s.kind),
              ),
            ).toBe(false)
          },
        ),
        { numRuns: 600 },
      )
    },
  )
  it('each house method changes some plan; what it changes is found by planning twice', () => {
    const pieces = [
      facts({ faces: [face({ species: 'mahogany' })], sheen: 'satin' }),
      facts({ faces: [face({ species: 'pine' })], keepPatina: true }),
      facts({ period: '1850-1925' }),
      facts({ faces: [face(), face({ id: 2, name: 'underside', rank: 'hidden' })] }),
    ]
    const choices: Partial<Picked>[] = [
      { colour: 'pigment-stain', finish: 'nitrocellulose-lacquer', fill: 'paste-filler' },
      { finish: 'dewaxed-shellac' },
      { finish: 'oil-polyurethane', route: 'strip-both' },
      { finish: 'waterborne-polyurethane' },
    ]
    const changed = (slug: keyof House) =>
      pieces.some(f =>
        choices.some(c =>
          Object.keys(HOUSE_METHODS[slug].options).some(option => {
            const plan = (house: House) =>
              workOutPlan(usualContext(f, { house }), built(usualContext(f, { house }), choice(c))).steps
            const other = (house: House) => plan(houseOf({ ...house, [slug]: option }))
            // what a rub-out begins with shows only where something is rubbed
            return [USUAL_HOUSE, houseOf({ ...USUAL_HOUSE, 'satin-by': 'rub' })].some(
              house => planDifference(plan(house), other(house)).changes.length > 0,
            )
          }),
        ),
      )
    // these act on waits, on which route is advised, and on what is offered first
    expect(HOUSE_SLUGS.filter(slug => !changed(slug))).toEqual(['old-film', 'dry-by', 'finish-school'])
  })
})
