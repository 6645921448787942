import { usualContext } from '#core/context'
import fc from 'fast-check'
import { describe, expect, it, test } from 'vitest'
import { cautionsOfStep } from '#core/acts'
import {
  comparePatches,
  examine,
  layFaces,
  optionsOf,
  type Patch,
  QUESTIONS,
  type Recorded,
  scaleMark_mm,
  scalePatch,
  walkRound,
} from '#core/examine'
import { judgeRoutes } from '#core/ground'
import { identifyGroups, identify, layerPrior, type Observation, prior } from '#core/identify'
import { simulate, SIMULATION } from '#core/identify/simulate'
import { countOf, holeFit, type Holes, itemQuestion, proposeMark } from '#core/parts'
import { holesSvg } from '#core/parts/drawing'
import {
  BANS,
  coveredArea_m2,
  damageOf,
  type Finding,
  mendingOf,
  movePlace,
  outline_mm,
  placeProblem,
  type Place,
  shareOf,
  UNPLACED,
  wholeFace,
} from '#core/piece'
import { planDifference, workOutPlan } from '#core/plan'
import { compareReports, type Report } from '#core/report'
import { judgePlan } from '#core/rules'
import { bansOf, type HazardFacts, hazardsOf, HAZARDS } from '#core/safety'
import { crackAdvice, moistureAdvice, movementOf, SPECIES, USUAL_ROOM, veneerThickness } from '#core/wood'
import { at, choice, face, facts, finding, hours, built } from '../facts'

const graveOf = (verdicts: { severity: string; rule: string }[]) =>
  verdicts.filter(v => v.severity !== 'note').map(v => v.rule)
const area = (x: number, y: number, x2: number, y2: number, copy = 1): Place => ({
  shape: 'area',
  copy,
  x_mm: x,
  y_mm: y,
  x2_mm: x2,
  y2_mm: y2,
  size_mm: 0,
})
const line = (x: number, y: number, x2: number, y2: number, size_mm = 2): Place => ({
  shape: 'line',
  copy: 1,
  x_mm: x,
  y_mm: y,
  x2_mm: x2,
  y2_mm: y2,
  size_mm,
})
const point = (x: number, y: number, size_mm = 10): Place => ({
  shape: 'point',
  copy: 1,
  x_mm: x,
  y_mm: y,
  x2_mm: 0,
  y2_mm: 0,
  size_mm,
})
const placed = (kind: Finding['kind'], place: Place, faceId = 1): Finding => ({ ...finding(kind, 3, faceId), place })
const lid = face({ length_mm: 1000, width_mm: 500, area_m2: 0.5 })

describe('places on a face', () => {
  const cover = (...places: [Place, boolean][]) =>
    coveredArea_m2(
      places.map(([place, round]) => ({ place, round })),
      lid,
    )
  it('measures each shape', () => {
    expect(cover([area(100, 100, 300, 200), false])).toBeCloseTo(0.02)
    expect(cover([area(100, 100, 300, 300), true])).toBeCloseTo(Math.PI * 0.01, 4)
    expect(cover([line(100, 100, 400, 500 - 0), false])).toBeCloseTo(0.5 * 0.002, 5)
    expect(cover([point(200, 200, 40), true])).toBeCloseTo(Math.PI * 0.0004, 5)
    expect(cover([wholeFace(), false])).toBeCloseTo(0.5)
    expect(cover([UNPLACED, false])).toBe(0)
  })
  it('counts an overlap once, and nothing beyond the edge', () => {
    expect(cover([area(0, 0, 200, 200), false], [area(100, 0, 300, 200), false])).toBeCloseTo(0.06)
    expect(cover([point(0, 0, 200), true])).toBeCloseTo((Math.PI * 0.01) / 4, 4)
  })
  it('never covers more than the face, nor less than its largest place', () => {
    const anyArea = fc
      .tuple(
        fc.integer({ min: 0, max: 999 }),
        fc.integer({ min: 0, max: 499 }),
        fc.integer({ min: 1, max: 300 }),
        fc.integer({ min: 1, max: 300 }),
        fc.boolean(),
      )
      .map(([x, y, w, h, round]): [Place, boolean] => [area(x, y, Math.min(1000, x + w), Math.min(500, y + h)), round])
    fc.assert(
      fc.property(fc.array(anyArea, { minLength: 1, maxLength: 6 }), places => {
        const together = cover(...places)
        expect(together).toBeLessThanOrEqual(0.5 + 1e-6)
        for (const p of places) expect(together).toBeGreaterThanOrEqual(cover(p) - 1e-6)
      }),
      { numRuns: 60 },
    )
  })
  test.each<[string, Place, RegExp | null]>([
    ['on the face', area(0, 0, 1000, 500), null],
    ['off the face', point(1200, 10), /off the face/],
    ['its other end off', line(10, 10, 10, 900), /other end/],
    ['a line without length', line(10, 10, 10, 10), /two different/],
    ['an area without breadth', area(10, 10, 10, 90), /corners/],
    ['a copy that is not there', area(0, 0, 9, 9, 3), /one of this face/],
    ['wider than the face', point(10, 10, 5000), /wider/],
    ['not yet drawn', UNPLACED, null],
  ])('%s', (_what, place, problem) =>
    problem ? expect(placeProblem(place, lid)).toMatch(problem) : expect(placeProblem(place, lid)).toBeNull(),
  )
  it('moves as it is, and stays on the face', () => {
    fc.assert(
      fc.property(fc.integer({ min: -2000, max: 2000 }), fc.integer({ min: -2000, max: 2000 }), (dx, dy) => {
        const moved = movePlace(area(100, 100, 300, 200), dx, dy, lid)
        expect(placeProblem(moved, lid)).toBeNull()
        expect(moved.x2_mm - moved.x_mm).toBeCloseTo(200)
      }),
    )
    expect(movePlace(wholeFace(), 5, 5, lid)).toEqual(wholeFace())
  })
  it('unrolls a turned face', () =>
    expect(outline_mm(face({ shape: 'turned', length_mm: 400, width_mm: 50 })).h).toBeCloseTo(157.08, 1))
})

describe('damage', () => {
  const set = [face({ ...lid, copies: 3, area_m2: 1.5 })]
  it('sums per face and kind over copies', () => {
    const [ring] = damageOf({
      faces: set,
      findings: [placed('black-ring', area(0, 0, 100, 100, 1)), placed('black-ring', area(0, 0, 100, 100, 2))],
    })
    expect(ring).toMatchObject({ kind: 'black-ring', places: 2, grade: 3 })
    expect(ring!.area_m2).toBeCloseTo((2 * Math.PI * 0.01) / 4, 4)
    expect(damageOf({ faces: set, findings: [placed('crazing', wholeFace(0))] })[0]).toMatchObject({
      share: 1,
      places: 3,
    })
  })
  it('costs minutes where it is to be mended, and none where it is kept', () => {
    const one = facts({ faces: [lid], findings: [placed('crack', line(100, 100, 600, 100, 1))] })
    expect(mendingOf(one)[0]!.minutes).toBeCloseTo(10 + 0.5 * 30)
    expect(mendingOf({ ...one, findings: [{ ...one.findings[0]!, wish: 'keep' }] })).toEqual([])
    const steps = (f: typeof one) => workOutPlan(usualContext(f), built(usualContext(f), choice())).steps
    const step = steps(one).find(s => s.kind === 'mend')!
    expect(step.title).toBe('Mend: 1 × crack')
    expect(step.attended_min).toBe(Math.ceil(8 + 25))
    expect(
      steps({ ...one, findings: [finding('loose-leg')] })
        .map(s => s.kind)
        .indexOf('joint'),
    ).toBeLessThan(
      steps(one)
        .map(s => s.kind)
        .indexOf('strip'),
    )
  })
  it('moves the route: worn over a sixth of the faces cannot be coated clear', () => {
    const q = (f: typeof base) =>
      judgeRoutes({
        context: usualContext(f),
        choice: built(usualContext(f), choice()),
        rates: { hour_minor: 60000, materialMarkup_bp: 0, tax_bp: 0 },
        hours,
        now_ms: at('2026-11-24T08:00'),
      }).verdicts.find(v => v.route === 'scuff')!
    const base = facts({ faces: [lid], findings: [{ ...placed('worn-through', area(0, 0, 100, 100)), grade: 2 }] })
    expect(q(base).standing).toBe('doubtful')
    const wide = q({ ...base, findings: [{ ...placed('worn-through', area(0, 0, 500, 300)), grade: 2 }] })
    expect(wide.standing).toBe('ruled-out')
    expect(wide.reasons.map(r => r.says).join()).toContain('30 % of the faces')
    expect(shareOf(base, 'worn-through')).toBeCloseTo(0.02)
  })
})

describe('what a route makes of the examination', () => {
  const q = (f: ReturnType<typeof facts>, c = choice()) =>
    judgeRoutes({
      context: usualContext(f),
      choice: built(usualContext(f), c),
      rates: { hour_minor: 60000, materialMarkup_bp: 0, tax_bp: 0 },
      hours,
      now_ms: at('2026-11-24T08:00'),
    })
  const of = (f: ReturnType<typeof facts>, route: string, c = choice()) =>
    q(f, c).verdicts.find(v => v.route === route)!
  it('a clear recoat is cheaper than gel stain and a recoat', () => {
    const under = (colour: 'gel-stain' | 'none') =>
      of(facts(), 'scuff', choice({ colour, finish: 'dewaxed-shellac' })).likely.total_minor
    expect(under('none')).toBeLessThan(under('gel-stain'))
  })
  it('each repair adds to the price of every route', () => {
    for (const v of q(facts()).verdicts.filter(x => x.route !== 'refer'))
      expect(
        of(facts({ findings: [finding('loose-leg'), finding('veneer-chipped')] }), v.route).likely.attended_min,
      ).toBeGreaterThan(v.likely.attended_min)
  })
  it('one waxed group rules out what keeps the film, and says which', () => {
    const two = facts({
      faces: [face({ id: 1 }), face({ id: 2, part: 'base', finishGroup: 'B' })],
      finishes: [
        { group: 'A', layers: [{ finish: 'shellac', certainty: 0.9 }] },
        { group: 'B', layers: [{ finish: 'wax', certainty: 0.9 }] },
      ],
    })
    expect(of(two, 'scuff')).toMatchObject({ standing: 'ruled-out' })
    expect(
      of(two, 'scuff')
        .reasons.map(r => r.says)
        .join(),
    ).toContain('finish B is wax')
    expect(of(two, 'strip-chemical').standing).not.toBe('ruled-out')
  })
  it('a hazard other than lead makes stripping doubtful and wet', () => {
    const v = of(facts({ bans: ['dry-sanding'] }), 'strip-chemical')
    expect(v.standing).toBe('doubtful')
    expect(v.plan.steps.some(s => s.kind === 'sand')).toBe(false)
  })
  it('a group found bare is not stripped again', () => {
    const bare = facts({
      found: { finish: 'none', certainty: 0.9 },
      finishes: [{ group: 'A', layers: [{ finish: 'none', certainty: 0.9 }] }],
    })
    expect(of(bare, 'strip-chemical')).toMatchObject({ standing: 'ruled-out' })
  })
})

describe('faces laid out', () => {
  const anyFace = fc.record({
    length_mm: fc.integer({ min: 20, max: 2400 }),
    width_mm: fc.integer({ min: 10, max: 1200 }),
    copies: fc.integer({ min: 1, max: 12 }),
    part: fc.constantFrom('top', 'legs', 'doors', 'drawers'),
    shape: fc.constantFrom('flat' as const, 'turned' as const),
  })
  it('fits the box at one scale, and nothing lies on another', () => {
    fc.assert(
      fc.property(fc.array(anyFace, { minLength: 1, maxLength: 8 }), rows => {
        const faces = rows.map((r, i) => ({ ...r, id: i + 1 }))
        const l = layFaces(faces, 740, 400)
        expect(l.faces).toHaveLength(rows.reduce((n, r) => n + r.copies, 0))
        for (const [i, a] of l.faces.entries()) {
          expect(a.x + a.w).toBeLessThanOrEqual(741)
          expect(a.y + a.h).toBeLessThanOrEqual(401)
          const size = outline_mm(faces[a.faceId - 1]!)
          if (a.w > 3.01) expect(a.w / size.w).toBeCloseTo(l.px_per_mm, 5)
          for (const b of l.faces.slice(i + 1))
            expect(a.x + a.w <= b.x || b.x + b.w <= a.x || a.y + a.h <= b.y || b.y + b.h <= a.y).toBe(true)
        }
      }),
      { numRuns: 40 },
    )
  })
  it('marks its scale with a round length', () =>
    expect([scaleMark_mm(0.5, 740), scaleMark_mm(0.2, 740)]).toEqual([200, 500]))
})

describe('the walk', () => {
  const walk = (answers: Record<string, string[]>, more = {}) =>
    walkRound(
      facts({ refinished: 'no', ...more }),
      Object.entries(answers).map(([key, options]) => ({ key, options })),
    )
  it('asks only what matters, and each answer changes what comes next', () => {
    const slugs = (w: ReturnType<typeof walk>) => w.questions.map(q => q.question)
    expect(slugs(walk({}))).not.toContain('mirror-back')
    expect(slugs(walk({ insides: ['mirror'] }))).toContain('mirror-back')
    expect(slugs(walk({ 'water-sign': ['soaks'] }))).toContain('worn-or-open')
    expect(slugs(walk({ 'water-sign': ['soaks'] }))).not.toContain('rag')
    expect(walk({}).next!.question).toBe('stood-where')
    expect(walk({ 'stood-where': ['heated'] }).next!.question).toBe('raking-light')
  })
  it('asks of each part in scope what is seen part by part, and ends', () => {
    const faces = [
      face({ id: 1, part: 'top' }),
      face({ id: 2, part: 'legs' }),
      face({ id: 3, part: 'base', scope: 'protect' }),
    ]
    expect(
      walk({}, { faces })
        .questions.filter(q => q.question === 'raking-light')
        .map(q => q.part),
    ).toEqual(['top', 'legs'])
    let w = walk({}, { faces })
    const given: Record<string, string[]> = {}
    for (let i = 0; w.next && i < 80; i++) {
      given[w.next.key] = [w.next.nothing ?? w.next.options[0]!.slug]
      w = walk(given, { faces })
    }
    expect(w).toMatchObject({ next: null, done: w.total })
    expect(w.stations.every(s => s.done === s.total)).toBe(true)
  })
  it('keeps an answer in sight though its question would not be asked again', () =>
    expect(walk({ 'mirror-back': ['painted'] }).questions.map(q => q.question)).toContain('mirror-back'))
  it.each<[string, string, string[]]>([
    ['an unknown question', 'taste', ['sweet']],
    ['an unknown answer', 'smell', ['roses']],
    ['nothing and something', 'touch', ['nothing', 'soft-film']],
    ['two where one goes', 'smell', ['musty', 'smoke']],
    ['no answer', 'smell', []],
  ])('refuses %s', (_what, key, options) => expect(() => optionsOf(key, options)).toThrow(RangeError))
  it('has a way to say that there is nothing, for each that takes several', () => {
    for (const q of QUESTIONS.filter(x => x.many))
      expect(
        q.options.map(o => o.slug),
        q.slug,
      ).toContain(q.nothing)
  })
})

describe('layers, groups, contradictions', () => {
  const readings: Observation[] = [{ test: 'alcohol-drop', result: 'sticky' }]
  it('leans to tougher finishes on what is used hard (shop default)', () => {
    const certainty = (use: 'hard' | 'display') =>
      identify(prior('1960-1990', 'no', use), [
        { test: 'scrape', result: 'curls' },
        { test: 'look', result: 'thick, plastic' },
      ]).ranked.find(b => b.finish === 'oil-polyurethane')!.p
    expect(certainty('hard')).toBeGreaterThan(certainty('display'))
  })
  it('keeps groups of faces and layers apart', () => {
    const found = identifyGroups({
      period: '1850-1925',
      refinished: 'yes',
      groups: ['A', 'B'],
      readings: [
        { ...readings[0]!, group: 'A', layer: 2 },
        { test: 'look', result: 'opaque', group: 'B', layer: 1 },
      ],
    })
    expect(found[0]!.layers.map(l => l.finish)).toEqual([expect.any(String), 'shellac'])
    expect(found[1]!.layers).toHaveLength(1)
    expect(found[1]!.layers[0]!.finish).toBe('oil-paint')
  })
  it('takes the lowest of several layers for the original finish', () => {
    expect(layerPrior('1850-1925', 'yes', 2, 2)).toEqual(prior('1850-1925', 'no'))
    expect(layerPrior('1850-1925', 'no', 1, 2)).toEqual(prior('1850-1925', 'yes'))
  })
  it('calls a test that does not agree with itself contradictory, and weighs both halves', () => {
    const twice = identify(prior('1850-1925', 'no'), [...readings, { test: 'alcohol-drop', result: 'nothing' }])
    expect(twice.verdict).toBe('contradictory')
    const same = identify(prior('1850-1925', 'no'), [...readings, ...readings])
    expect(same.certainty).toBeCloseTo(identify(prior('1850-1925', 'no'), readings).certainty, 10)
  })
  it('reaches the plan: a painted base beside a clear top', () => {
    const f = facts({
      faces: [face({ id: 1 }), face({ id: 2, part: 'base', finishGroup: 'B' })],
      finishes: [
        { group: 'A', layers: [{ finish: 'shellac', certainty: 0.9 }] },
        { group: 'B', layers: [{ finish: 'oil', certainty: 0.9 }] },
      ],
    })
    const steps = workOutPlan(usualContext(f), built(usualContext(f), choice())).steps
    expect(steps.find(s => s.kind === 'strip')!.faces).toEqual([1])
    expect(steps.find(s => s.kind === 'sand')!.faces).toEqual([1, 2])
  })
})

describe('how good the judgement is, on made-up pieces from a shaken table', () => {
  const r = simulate({ ...SIMULATION, pieces: 1500 })
  const right = (policy: string) => r.accuracy.find(a => a.policy === policy)!.right
  it('is the same for the same seed', () =>
    expect(simulate({ ...SIMULATION, pieces: 100 })).toEqual(simulate({ ...SIMULATION, pieces: 100 })))
  it("gets better with each test, and beats the table's order and chance after two", () => {
    right('advice')
      .slice(1)
      .forEach((p, k) => expect(p).toBeGreaterThan(right('advice')[k]!))
    for (const other of ['table-order', 'random']) expect(right('advice')[1]!).toBeGreaterThan(right(other)[1]! + 0.05)
  })
  it('means what it says: called sure and being right differ by less than 7 points', () => {
    for (const b of r.calibration.filter(x => x.n > 200))
      expect(Math.abs(b.said - b.right), `${b.from}`).toBeLessThan(0.07)
  })
})

describe('hazards', () => {
  const base: HazardFacts = {
    lead: 'no',
    period: '1960-1990',
    species: ['oak'],
    findings: new Set(),
    said: new Set(),
    evidence: {},
  }
  it('raises none without a sign, and each by its sign', () => {
    expect(hazardsOf(base)).toEqual([])
    const signs: Record<string, Partial<HazardFacts>> = {
      'lead': { lead: 'unknown' },
      'pesticide': { said: new Set(['stood-where:collection']) },
      'worm-treatment': { said: new Set(['worm:treated']) },
      'mould': { findings: new Set(['mould'] as const) },
      'asbestos': { said: new Set(['insides:board']) },
      'mercury-mirror': { period: '1850-1925', said: new Set(['insides:mirror']) },
      'cites': { species: ['rosewood'] },
      'ivory': { said: new Set(['ivory-inlay:ivory']) },
    }
    expect(Object.keys(signs).sort()).toEqual(HAZARDS.map(h => h.slug).sort())
    for (const [slug, sign] of Object.entries(signs))
      expect(hazardsOf({ ...base, ...sign }).map(h => h.slug)).toEqual([slug])
  })
  it('says where to turn, and is lifted by evidence alone', () => {
    for (const h of HAZARDS) expect(h.turnTo).toMatch(/rules|licensed|authority/)
    const open = hazardsOf({ ...base, findings: new Set(['old-paint'] as const) })
    expect(bansOf(open)).toEqual(['dry-sanding', 'heat-gun'])
    expect(bansOf(hazardsOf({ ...base, findings: new Set(['old-paint'] as const), evidence: { lead: 'no' } }))).toEqual(
      [],
    )
    expect(bansOf(hazardsOf({ ...base, evidence: { pesticide: 'yes' } }))).toContain('dry-sanding')
    expect(BANS).toContain('opening')
  })
  it('changes the plan, and the change is told', () => {
    const free = workOutPlan(usualContext(facts()), built(usualContext(facts()), choice()))
    const banned = facts({ bans: ['dry-sanding'] })
    const wet = workOutPlan(usualContext(banned), built(usualContext(banned), choice()))
    const told = planDifference(free.steps, wet.steps)
    expect(told.changes.find(c => c.key === 'sand')).toMatchObject({ after: null })
    expect(told.changes.find(c => c.key === 'pad')).toMatchObject({ before: null })
    expect(planDifference(free.steps, free.steps)).toEqual({ changes: [], minutes: 0 })
    expect(
      graveOf(judgePlan({ context: usualContext(banned), choice: built(usualContext(banned), choice()), ...wet })),
    ).toEqual([])
    expect(
      cautionsOfStep(
        wet.steps.find(s => s.kind === 'scrape')!,
        usualContext(banned),
      ),
    ).toContain('poison')
  })
})

describe('wood', () => {
  const air = { temperature_C: 21.1, rh: 0.5 }
  const DAY = 86_400_000
  const read = (reading_pct: number, day = 0, thickness_mm = 20) => ({
    faceId: 1,
    reading_pct,
    at_ms: day * DAY,
    thickness_mm,
    air,
  })
  it('waits above two points over equilibrium, longer for thicker wood', () => {
    expect(moistureAdvice([read(11)], air)!.verdict).toBe('ready')
    const thin = moistureAdvice([read(15)], air)!
    expect(thin.verdict).toBe('wait')
    expect(moistureAdvice([read(15, 0, 40)], air)!.likely_d!).toBeCloseTo(thin.likely_d! * 4)
    expect(moistureAdvice([read(15)], null)!.verdict).toBe('air-unknown')
    expect(moistureAdvice([], air)).toBeNull()
  })
  it("takes the wood's own pace from two readings: what halves in a week halves again in the next", () => {
    const emc = 9.2
    const advice = moistureAdvice([read(emc + 8), read(emc + 4, 7)], air)!
    expect(advice.basis).toBe('readings')
    expect(advice.likely_d!).toBeGreaterThan(5.5)
    expect(advice.likely_d!).toBeLessThan(8.5)
    expect(moistureAdvice([read(15), read(15.5, 3)], air)).toMatchObject({ stalled: true, likely_d: null })
  })
  it('holds the first coat behind a moisture gate', () => {
    const wet = facts({ wet: [{ faceId: 1, most_pct: 11.2, likely_d: 9 }] })
    const plan = workOutPlan(usualContext(wet), built(usualContext(wet), choice()))
    expect(
      graveOf(judgePlan({ context: usualContext(wet), choice: built(usualContext(wet), choice()), ...plan })),
    ).toEqual([])
    const gate = plan.steps.find(s => s.gate?.slug === 'moisture')!
    expect(plan.waits.find(w => w.to === gate.key)!.likely).toBe(9 * 1440)
    const without = plan.steps.filter(s => s !== gate)
    expect(
      judgePlan({
        context: usualContext(wet),
        choice: built(usualContext(wet), choice()),
        steps: without,
        waits: plan.waits,
      }).map(v => v.rule),
    ).toContain('wood-too-wet')
  })
  it('stands a rigid filler only where the swing is small against the gap', () => {
    expect(crackAdvice({ species: 'walnut', board_mm: 15, gap_mm: 20, room: USUAL_ROOM }).filler).toBe('rigid')
    expect(crackAdvice({ species: 'oak', board_mm: 400, gap_mm: 2, room: USUAL_ROOM }).filler).toBe('stretching')
    expect(() => crackAdvice({ species: 'oak', board_mm: 400, gap_mm: 0, room: USUAL_ROOM })).toThrow(RangeError)
  })
  it('assumes the largest movement where the table has none', () => {
    const most = Math.max(...SPECIES.map(s => s.movement?.tangential ?? 0))
    expect(movementOf('rosewood')).toMatchObject({ tangential: most, assumed: true })
  })
  it("counts the thin end of the age's veneers until it is measured", () => {
    expect(veneerThickness(null, 'after-1990')).toMatchObject({ mm: 0.3, measured: false })
    expect(veneerThickness(1.1, 'after-1990')).toMatchObject({ mm: 1.1, measured: true })
  })
})

describe('timed patch', () => {
  const tried = (method: Patch['method'], minutes: number, more: Partial<Patch> = {}): Patch => ({
    method,
    faceId: 1,
    length_mm: 200,
    width_mm: 200,
    minutes,
    result: 'all-off',
    ...more,
  })
  const f = facts({ faces: [face({ area_m2: 2 }), face({ id: 2, shape: 'turned', area_m2: 0.5 })] })
  it('scales by area and shape', () => {
    expect(scalePatch(tried('stripper', 4), f).piece_min).toBeCloseTo((4 / 0.04) * (2 + 0.5 * 2.2))
    expect(() => scalePatch(tried('stripper', 0), f)).toThrow(RangeError)
  })
  it("replaces the shop's default in the plan", () => {
    const minutes = (pace: { stripper: number | null; sanding: number | null }) =>
      Object.fromEntries(
        workOutPlan(usualContext({ ...f, pace }), built(usualContext({ ...f, pace }), choice()))
          .steps.toReversed()
          .map(s => [s.kind, s.attended_min]),
      )
    const [by, tried2] = [minutes({ stripper: null, sanding: null }), minutes({ stripper: 60, sanding: 40 })]
    expect(tried2.scrape! / by.scrape!).toBeGreaterThan(2)
    expect(tried2.sand!).toBeGreaterThan(by.sand!)
  })
  it('takes the quicker that worked, and says what to mind', () => {
    const compare = (a: Patch, b: Patch, g = f) => comparePatches(scalePatch(a, g), scalePatch(b, g), g)
    expect(compare(tried('stripper', 4), tried('sanding', 6))).toMatchObject({
      better: 'stripper',
      saves_min: expect.closeTo((2 / 0.04) * 3.1),
    })
    expect(compare(tried('stripper', 4, { result: 'not-off' }), tried('sanding', 6)).better).toBe('sanding')
    expect(
      compare(tried('stripper', 4, { result: 'damaged' }), tried('sanding', 6, { result: 'damaged' })).better,
    ).toBeNull()
    expect(compare(tried('stripper', 4), tried('sanding', 2), facts({ ...f, bans: ['dry-sanding'] })).better).toBe(
      'stripper',
    )
    expect(compare(tried('stripper', 4), tried('sanding', 6, { length_mm: 100 })).says.join()).toMatch(
      /not equally large/,
    )
    expect(compare(tried('stripper', 4), tried('sanding', 6)).says.join()).toMatch(/not flat/)
  })
})

describe('parts and hardware', () => {
  const old: Holes = { centres_mm: [0, 96], diameter_mm: 5, plate_w_mm: 120, plate_h_mm: 30 }
  it('proposes a mark that nobody has', () => {
    expect(proposeMark('drawer', [])).toBe('D1')
    expect(proposeMark('drawer', ['D1', 'd2'])).toBe('D3')
    expect(proposeMark('3 ålade ben', [])).toBe('A1')
    fc.assert(
      fc.property(fc.string(), fc.array(fc.string()), (name, taken) => {
        expect(taken.map(m => m.toUpperCase())).not.toContain(proposeMark(name, taken))
      }),
    )
  })
  it('counts what is away', () =>
    expect([
      countOf({ count: 8, out: 8, back: 6, state: 'present' }),
      countOf({ count: 8, out: null, back: null, state: 'present' }),
    ]).toEqual([
      { away: 2, short: 0 },
      { away: 0, short: 0 },
    ]))
  it('says whether a new fitting goes into the old holes', () => {
    expect(holeFit(old, old).fits).toBe(true)
    expect(holeFit(old, { ...old, centres_mm: [0, 96.4] }).fits).toBe(true)
    expect(holeFit(old, { ...old, centres_mm: [0, 102] })).toMatchObject({
      fits: false,
      says: expect.arrayContaining([expect.stringMatching(/Plug/)]),
    })
    expect(holeFit(old, { ...old, plate_w_mm: 100 }).says.join()).toMatch(/shadow/)
  })
  it('asks the client with its measurements, and draws them to scale', () => {
    expect(itemQuestion('Handle', 'missing', old)).toMatch(/replace.*0, 96 mm.*120 × 30/)
    const circles = [...holesSvg(old).matchAll(/cx="([\d.]+)"/g)].map(m => Number(m[1]))
    expect(circles[1]! - circles[0]!).toBeCloseTo(96 * 3)
  })
  it('holds surface repair and colour until the client has answered', () => {
    const undecided = facts({ undecided: ['handle'] })
    const plan = workOutPlan(usualContext(undecided), built(usualContext(undecided), choice()))
    const held = judgePlan({
      context: usualContext(undecided),
      choice: built(usualContext(undecided), choice()),
      ...plan,
      scope: 'start',
    })
    expect(new Set(held.map(v => v.rule))).toEqual(new Set(['hardware-decided-first']))
    expect(held.map(v => v.step)).toContain('1.coat.1')
    expect(held.map(v => v.step)).not.toContain('strip')
  })
})

describe('overruled', () => {
  const recorded = (overruled: Recorded['overruled']) =>
    examine({
      facts: facts({ found: null }),
      readings: [{ test: 'look', result: 'crazed', group: 'A', layer: 1 }],
      answers: [],
      evidence: {},
      moisture: [{ faceId: 1, reading_pct: 18, at_ms: 0, thickness_mm: 20, air: { temperature_C: 21, rh: 0.5 } }],
      overruled,
      air: null,
      room: null,
    })
  it("the restorer's word on the finish goes before the reckoning, and wet wood lets go", () => {
    expect(recorded(new Map()).facts.wet).toHaveLength(1)
    const word = recorded(
      new Map([
        ['finish-is|A:1', 'shellac'],
        ['too-wet|1', null],
      ]),
    ).facts
    expect(word).toMatchObject({ wet: [], found: { finish: 'shellac', certainty: 0.95 } })
  })
})

describe('two examinations compared', () => {
  const report = (findings: Finding[], more: Partial<Report> = {}): Report => ({
    format: 'hantverk-condition-report',
    version: 1,
    made_at: '',
    name: '',
    shop: '',
    piece: {} as Report['piece'],
    faces: [{ ...lid, length_typed: '', width_typed: '' }],
    findings: findings.map((f, i) => ({ ...f, number: i + 1, note: '', photographs: [] })),
    tests: [],
    conclusions: [],
    hazards: [],
    walk: [],
    moisture: [],
    patches: [],
    items: [],
    verdicts: [],
    notExamined: [],
    photographs: [],
    ...more,
  })
  it('tells new, gone, worse, better and the same by face and kind', () => {
    const before = report([
      placed('peeling', area(0, 0, 100, 100)),
      placed('dents', point(10, 10)),
      { ...placed('crazing', wholeFace()), grade: 2 },
      placed('runs', line(0, 0, 50, 50)),
    ])
    const after = report([
      placed('peeling', area(0, 0, 100, 300)),
      { ...placed('crazing', wholeFace()), grade: 1 },
      placed('runs', line(0, 0, 50, 50)),
      placed('mould', area(0, 0, 9, 9)),
    ])
    expect(Object.fromEntries(compareReports(before, after).findings.map(f => [f.kind, f.change]))).toEqual({
      mould: 'new',
      peeling: 'worse',
      crazing: 'better',
      dents: 'gone',
      runs: 'same',
    })
  })
  it('tells what was settled since', () => {
    const hazard = (standing: 'open' | 'cleared') => [
      { slug: 'lead', name: 'Lead', standing, why: '', forbids: [], evidence: [] },
    ]
    expect(
      compareReports(report([], { hazards: hazard('open') }), report([], { hazards: hazard('cleared') })).hazards,
    ).toEqual([{ name: 'Lead', before: 'open', after: 'cleared' }])
  })
})
