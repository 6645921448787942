import { describe, expect, it, test } from 'vitest'
import { P } from '#core/abrasives'
import { attended_min, measuredSaid, stepOf, walk, withTaken } from '#core/acts'
import { KNOWN_SURFACES, laidAsKnown } from '#core/build'
import { usualContext } from '#core/context'
import { routeReasons } from '#core/ground'
import { houseOf, USUAL_HOUSE } from '#core/house'
import { editedStep, completePlan, withFindings, workOutPlan } from '#core/plan'
import { type Facts, type Face, type Finding, type FindingKind, groupsOf, laidOut_m, spotsOn } from '#core/piece'
import { judgePlan } from '#core/rules'
import { built, choice, face, facts, finding, type Picked } from '../facts'

const area = (x: number, y: number, x2: number, y2: number): Finding['place'] => ({
  shape: 'area',
  copy: 1,
  x_mm: x,
  y_mm: y,
  x2_mm: x2,
  y2_mm: y2,
  size_mm: 0,
})
const mark = (kind: FindingKind, faceId = 1, place = area(100, 100, 200, 200)): Finding => ({
  ...finding(kind),
  faceId,
  place,
})
const leg = (more: Partial<Face> = {}) =>
  face({ id: 2, part: 'leg', name: 'leg', shape: 'turned', rank: 'secondary', area_m2: 0.3, ...more })
const planned = (more: Partial<Facts>, picks: Partial<Picked> = {}) => {
  const f = facts({ faces: [face(), leg()], ...more })
  const context = usualContext(f)
  const its = built(context, choice(picks))
  return { context, its, plan: workOutPlan(context, its) }
}
const film = { found: { finish: 'shellac', certainty: 0.9 } } as const
const polyurethane = { found: { finish: 'oil-polyurethane', certainty: 0.9 } } as const
const lacquer = { found: { finish: 'nitrocellulose-lacquer', certainty: 0.9 } } as const

/** Handbook 7, 9.1, 12 and 18: which step mends which mark, and on which face alone. */
describe('marks are worked where they are', () => {
  test.each<[string, FindingKind, Partial<Facts>, Partial<Picked>, string[]]>([
    ['a black ring on stripped wood', 'black-ring', film, {}, ['bleach', 'rinse', 'sand']],
    ['a black ring where the patina stays', 'black-ring', { ...film, keepPatina: true }, {}, []],
    [
      'a black ring on oil',
      'black-ring',
      { found: { finish: 'oil', certainty: 0.9 } },
      { route: 'renew', finish: 'varnish-oil' },
      ['sand', 'bleach', 'rinse', 'sand'],
    ],
    ['a dent on stripped wood', 'dents', film, {}, ['steam']],
    ['a dent under a film that stays', 'dents', film, { route: 'scuff' }, ['mend']],
    ['staples', 'staples', film, {}, ['pull']],
    ['lifted veneer', 'veneer-lifted', film, {}, ['press']],
    ['squeezed-out glue on bare wood', 'glue-smear', film, {}, ['pare']],
    ['tape residue', 'tape-residue', film, {}, ['solvent-wash']],
    ['a run that is scuffed over', 'runs', film, { route: 'scuff' }, ['level']],
    ['a worn place under a new coat', 'worn-through', film, { route: 'scuff' }, ['spot-colour']],
    ['a fill under colour', 'nail-holes', film, { colour: 'pigment-stain' }, ['mend', 'spot-colour']],
    ['a ring in lacquer', 'white-ring', lacquer, { route: 'spot-repair' }, ['amalgamate']],
    [
      'a rub-through in lacquer',
      'worn-through',
      lacquer,
      { route: 'spot-repair', finish: 'nitrocellulose-lacquer' },
      ['solvent-wash', 'spot-colour', 'spot-coat', 'spot-coat', 'spot-coat', 'rub-out'],
    ],
    ['scratches beside a spot', 'scratches', lacquer, { route: 'spot-repair' }, ['rub-out']],
    [
      'swirl marks in gloss',
      'swirl-marks',
      { ...lacquer, sheen: 'gloss' },
      { route: 'spot-repair' },
      ['rub-out', 'buff'],
    ],
    ['a ring under wax alone', 'white-ring', film, { route: 'clean-and-wax' }, ['amalgamate']],
    ['a ring in a film that never melts', 'white-ring', polyurethane, { route: 'scuff' }, []],
    ['a loose hinge', 'loose-hinge', film, {}, ['joint']],
  ])('%s', (_what, kind, more, picks, kinds) => {
    const { plan, context, its } = planned({ ...more, findings: [mark(kind)] }, picks)
    const worked = plan.steps.filter(s => s.fields.where === 'spots' || s.fields.repairs)
    expect(worked.map(s => s.kind)).toEqual(kinds)
    for (const step of worked) expect(step.faces, step.title).toEqual([1])
    const stops = judgePlan({ ...plan, context, choice: its }).filter(v => v.severity === 'stop')
    expect(stops.map(v => `${v.rule}: ${v.says}`)).toEqual([])
  })

  it('a few millilitres there: amount and minutes follow the marks, not the face', () => {
    const one = planned({ ...lacquer, findings: [mark('worn-through')] }, { route: 'spot-repair' }).plan
    const coat = one.steps.find(s => s.kind === 'spot-coat')!
    expect(coat.title).toMatch(/1 × worn place, about 100 cm²/)
    // 0.01 m² × 90 µm ÷ 0.5 to 1 transfer, 10 % waste: one to two ml by hand
    expect(coat.amount_ml).toBeGreaterThan(0.5)
    expect(coat.amount_ml).toBeLessThan(3)
    expect(coat.attended_min).toBeLessThanOrEqual(12)
    const rubbed = one.steps.find(s => s.kind === 'rub-out')!
    expect(one.waits.find(w => w.to === rubbed.key && w.kind === 'cure')?.likely).toBe(7 * 24 * 60)
  })
  it('marks that overlap count once, a point counts as a hand needs it, and never more than the face', () => {
    const top = face()
    expect(spotsOn(top, ['black-ring'], [mark('black-ring'), mark('black-ring')])).toMatchObject({ places: 2 })
    const point = { ...mark('dents'), place: { ...area(300, 300, 300, 300), shape: 'point' as const, size_mm: 4 } }
    expect(spotsOn(top, ['dents'], [point]).area_m2).toBeCloseTo(0.0025)
    const all = spotsOn(
      top,
      ['worn-through'],
      [{ ...mark('worn-through'), place: { ...area(0, 0, 0, 0), shape: 'face' } }],
    )
    expect(all.area_m2).toBeCloseTo(top.area_m2)
  })
  it('a rub-through in gloss is levelled there, P1200 to foam 3000, and buffed', () => {
    const { steps } = planned(
      { ...lacquer, sheen: 'gloss', findings: [mark('worn-through')] },
      { route: 'spot-repair' },
    ).plan
    const end = steps.filter(s => ['rub-out', 'buff', 'gate'].includes(s.kind))
    expect(end.map(s => s.kind)).toEqual(['rub-out', 'buff', 'gate'])
    expect(end[0]!.title).toContain('P1200 → CAMI 1000 → CAMI 1500 → foam 3000')
    expect(end[1]!.fields.where).toBe('spots')
  })
  it.each([
    ['satin film: wool, no gloss paper', 'satin', 2, 'wool 0000'],
    ['satin film, a deep one', 'satin', 4, 'P1200 → wool 0000'],
    ['gloss film, a fine one', 'gloss', 2, 'foam 3000'],
  ] as const)('scratches in a %s', (_what, sheen, grade, says) => {
    const scratches = { ...mark('scratches'), grade }
    const { steps } = planned({ ...lacquer, sheen, findings: [scratches] }, { route: 'spot-repair' }).plan
    expect(steps.find(s => s.kind === 'rub-out')!.title).toContain(`there only, ${says},`)
  })
  it('a dent whose steaming is taken out by hand is said to stay, also on wood that is sanded', () => {
    const { plan, context, its } = planned({ ...film, findings: [mark('dents'), mark('black-ring')] })
    const left = (steps: typeof plan.steps) =>
      judgePlan({ ...completePlan(steps, context, its), context, choice: its })
        .filter(v => v.rule === 'mark-left')
        .map(v => v.says)
    expect(left(plan.steps)).toEqual([])
    expect(left(plan.steps.filter(s => s.kind !== 'steam'))).toEqual(['lid, outside: 1 × dent'])
    expect(left(plan.steps.filter(s => s.fields.where !== 'spots'))).toEqual(['lid, outside: 1 × black ring'])
  })
  it('what no step of the plan takes is said, face by face, and what is tolerated is not', () => {
    const craters = [mark('fish-eyes'), { ...mark('crazing', 2) }]
    const said = (findings: Finding[]) => {
      const { plan, context, its } = planned({ ...polyurethane, findings }, { route: 'scuff' })
      return judgePlan({ ...plan, context, choice: its })
        .filter(v => v.rule === 'mark-left')
        .map(v => v.says)
    }
    expect(said(craters)).toEqual(['lid, outside: 1 × fish eyes; leg, leg: 1 × crazing'])
    expect(said(craters.map(f => ({ ...f, wish: 'tolerate' })))).toEqual([])
  })
  it('a rinse taken out by hand is missed', () => {
    const { plan, context, its } = planned({ ...film, findings: [mark('black-ring')] })
    const steps = plan.steps.filter(s => s.kind !== 'rinse')
    const rules = judgePlan({ ...completePlan(steps, context, its), context, choice: its }).map(v => v.rule)
    expect(rules).toContain('bleach-rinse-and-dry')
  })
  it('"marks only" by hand: the step shrinks to what is marked, and back', () => {
    const { plan, context, its } = planned({ ...film, findings: [mark('scratches')] })
    const sand = plan.steps.find(s => s.kind === 'sand' && s.faces.includes(1))!
    const change = (fields: object) =>
      completePlan(
        plan.steps.map(s => (s.key === sand.key ? editedStep(s, { fields }) : s)),
        context,
        its,
      ).steps.find(s => s.key === sand.key)!
    const spots = change({ where: 'spots' })
    expect(spots.attended_min).toBeLessThan(sand.attended_min / 2)
    expect(spots.title).toMatch(/1 × scratch/)
    expect(change({}).attended_min).toBe(sand.attended_min)
  })
})

describe('what is found after the plan was made', () => {
  const found = (before: Finding[], after: Finding[], more: Partial<Facts> = film) => {
    const old = planned({ ...more, findings: before })
    const facts = { ...old.context.facts, findings: after }
    return withFindings({
      ...{ context: { ...old.context, facts }, before: old.its, known: old.context.facts },
      ...{ past: [], ahead: old.plan.steps, keys: old.plan.steps.map(s => s.key) },
    })
  }
  it('a second dent widens the step that there is; none of the others moves', () => {
    const made = found([mark('dents')], [mark('dents'), mark('dents', 2)])
    expect(made.changed.map(s => s.title)).toEqual(['Steam dents out: 2 × dent'])
    expect([made.added, made.gone, made.late].flat()).toEqual([])
  })
  it('a mark that is taken back takes its steps with it', () => {
    const made = found([mark('black-ring')], [])
    expect(made.gone.map(s => s.kind)).toEqual(['bleach', 'rinse', 'sand'])
    expect(made.added).toEqual([])
  })
  it('what changes no step is not offered', () => {
    const made = found([], [{ ...mark('scratches'), grade: 1 }])
    expect([made.added, made.gone, made.changed, made.late].flat()).toEqual([])
  })
})

/** Handbook 7 and 18, "Not wood": rust off, degrease, prime, paint; cane damp; what is soft comes out. */
describe('parts that are no wood', () => {
  const other = (substrate: Face['substrate'], id = 3): Face =>
    face({ id, part: substrate, name: 'all', scope: 'other', substrate, species: 'unknown', area_m2: 0.4 })
  const stepsOn = (substrate: Face['substrate'], more: Partial<Facts> = {}, picks: Partial<Picked> = {}) => {
    const { plan, context, its } = planned({ ...film, ...more, faces: [face(), other(substrate)] }, picks)
    expect(judgePlan({ ...plan, context, choice: its }).filter(v => v.severity === 'stop')).toEqual([])
    return plan.steps.filter(s => s.faces.includes(3) && s.faces.length === 1)
  }
  test.each<[Face['substrate'], Partial<Facts>, string[]]>([
    ['iron', {}, ['derust', 'solvent-wash', 'coat', 'coat', 'coat']],
    ['brass', { age: 'new' }, ['brighten', 'coat']],
    ['brass', { age: 'keep' }, ['wash']],
    ['cane', {}, ['damp-clean']],
    ['leather', {}, ['take-out', 'put-back']],
    ['glass', {}, ['take-out', 'put-back']],
  ])('%s, %o', (substrate, more, kinds) => {
    expect(stepsOn(substrate, more).map(s => s.kind)).toEqual(kinds)
  })
  it('no stripper, stain or sandpaper of the wood comes near them, whatever is chosen', () => {
    const picks = { colour: 'pigment-stain', fill: 'paste-filler', bleach: 'two-part-bleach' } as const
    const { plan } = planned({ ...film, faces: [face(), other('cane')] }, picks)
    for (const kind of ['strip', 'scrape', 'sand', 'stain', 'fill', 'bleach', 'rinse'] as const)
      for (const s of plan.steps.filter(x => x.kind === kind)) expect(s.faces, s.title).not.toContain(3)
  })
  it('primer dries before paint; bare iron is primed the same day', () => {
    const { plan } = planned({ ...film, faces: [face(), other('iron')] })
    const [primer, paint] = ['metal-primer', 'opaque-colour'].map(p => plan.steps.find(s => s.product === p)!)
    expect(plan.waits.find(w => w.from === primer!.key && w.to === paint!.key)!.min).toBeGreaterThanOrEqual(240)
    expect(plan.steps.find(s => s.kind === 'derust')!.attended_min).toBeGreaterThan(10)
  })
  it('laid out end to end, leaves count', () => {
    const leaf = face({ id: 4, part: 'leaf', length_mm: 450, copies: 2, orientation: 'horizontal' })
    const top = face({ length_mm: 1600, orientation: 'horizontal' })
    expect(laidOut_m([top, leaf, leg()])).toBeCloseTo(2.5)
  })
})

/** Handbook 7, 8, 12 and 16: what is measured counts from then on; stirring is work. */
describe('measured, stirred, tried', () => {
  it('a gauge outranks what a coat usually leaves, for all budgets above it', () => {
    const { plan, context } = planned({ ...film, faces: [face()] }, { finish: 'nitrocellulose-lacquer' })
    const group = groupsOf(context.facts)[0]!
    const top = (steps: typeof plan.steps) => walk(steps, [group], context).at(-1)!.after.films
    const coats = plan.steps.filter(s => s.kind === 'coat')
    const gauged = plan.steps.map(s => (s === coats.at(-1) ? { ...s, measured: { film_um: 80 } } : s))
    expect(top(gauged).reduce((sum, f) => sum + f.dry_um, 0)).toBeCloseTo(80)
    expect(top(plan.steps).reduce((sum, f) => sum + f.dry_um, 0)).not.toBeCloseTo(80)
  })
  it('the first paste fill counts its stirring, the second does not', () => {
    const { plan, context } = planned({ ...film, faces: [face()] }, { fill: 'paste-filler' })
    const fill = plan.steps.find(s => s.kind === 'fill')!
    const took = (coat: number) => attended_min({ ...fill, coat }, [face()], context)
    expect(took(1) - took(2)).toBe(25)
    expect(fill.attended_min).toBe(Math.ceil(took(1)))
  })
  it('four brushed coats of shellac a day, then overnight', () => {
    const shellac = { finish: 'dewaxed-shellac', film_um: 130 } as const
    const { plan } = planned({ ...film, faces: [face()] }, shellac)
    const coats = plan.steps.filter(s => s.kind === 'coat')
    expect(coats.length).toBeGreaterThan(5)
    const least = (n: number) => Math.max(...plan.waits.filter(w => w.from === coats[n]!.key).map(w => w.min))
    expect(least(2)).toBeLessThanOrEqual(120)
    expect(least(3)).toBe(10 * 60)
  })
  it('pores by shellac: flattened each morning, over days', () => {
    const known = KNOWN_SURFACES.find(k => k.name.startsWith('Pores filled by shellac'))!
    const context = usualContext(facts({ ...film, faces: [face({ species: 'mahogany' })], sheen: 'gloss' }))
    const [main] = built(context, choice()).buildUps
    const { steps } = workOutPlan(context, { buildUps: [laidAsKnown(known, main, context.facts.faces, 1).buildUp] })
    const pores = steps.filter(s => s.fields.as === 'fills-pores' || (s.kind === 'sand-coat' && s.key.includes('coat')))
    expect(pores.map(s => (s.kind === 'coat' ? s.coat : 'flat'))).toEqual([
      ...[1, 2, 3, 4, 'flat', 5, 6, 7, 8, 'flat', 9, 10, 11, 12, 'flat'],
    ])
  })
  it('a gauge on the old film decides whether it bears a polish (handbook 12: 50 µm stay)', () => {
    const standing = (film_um: number | null) =>
      routeReasons(
        'polish',
        facts({ ...film, sheen: 'gloss', faces: [face({ film_um })], findings: [finding('scratches', 3)] }),
      ).find(r => r.says.includes('of film would be left'))?.standing
    expect(standing(null)).toBe('doubtful')
    expect(standing(60)).toBe('ruled-out')
    expect(standing(150)).toBe('possible')
  })
  it('what was taken off follows from thickness before and after; 0.8 mm is much', () => {
    expect(measuredSaid(withTaken({ before_mm: 21.4, thickness_mm: 20.5 }))).toContain(
      '0.9 mm taken off, which is much',
    )
    expect(withTaken({ before_mm: 21.4, thickness_mm: 20.5, taken_mm: 0.5 }).taken_mm).toBe(0.5)
    expect(measuredSaid({ film_um: 60, halves: 'differ' })).toBe('Measured: film 60 µm, halves differ')
  })
  it('a test piece is put in where the house wants one before colour, and colour waits for it', () => {
    const house = { house: houseOf({ ...USUAL_HOUSE, 'test-piece': 'colour' }) }
    const context = usualContext(facts({ ...film, faces: [face()] }), house)
    const kinds = (picks: Partial<Picked>) => workOutPlan(context, built(context, choice(picks))).steps.map(s => s.kind)
    const dyed = kinds({ colour: 'water-dye' })
    expect(dyed.indexOf('test-piece')).toBeLessThan(dyed.indexOf('dye'))
    expect(kinds({})).not.toContain('test-piece')
  })
  it('colour waits for a test piece that was put in before it', () => {
    const { plan, context, its } = planned({ ...film, faces: [face()] }, { colour: 'gel-stain' })
    const at = plan.steps.findIndex(s => s.kind === 'gel')
    const tried = stepOf({ key: 'try', kind: 'test-piece', faces: plan.steps[at]!.faces })
    const { waits } = completePlan([...plan.steps.slice(0, at), tried, ...plan.steps.slice(at)], context, its)
    expect(waits.find(w => w.from === 'try' && w.to === plan.steps[at]!.key)!.min).toBe(4 * 60)
  })
})

/** Handbook 6.3: the sum is of the grits that are really used, whoever chose them. */
describe('the veneer sum', () => {
  const veneered = (veneer_mm: number, findings: Finding[] = []) =>
    planned({ ...film, faces: [face({ substrate: 'veneer', veneer_mm })], findings })
  const refused = ({ plan, context, its }: ReturnType<typeof planned>, ladder: number[]) => {
    const sand = plan.steps.find(s => s.kind === 'sand' && !s.fields.after)!
    const steps = plan.steps.map(s => (s.key === sand.key ? { ...s, grits: ladder.map(P) } : s))
    const verdicts = judgePlan({ ...completePlan(steps, context, its), context, choice: its })
    return verdicts.some(v => v.rule === 'veneer-budget')
  }
  it('a coarser ladder by hand is refused where the planned one is not', () => {
    const thin = veneered(0.7)
    expect(refused(thin, [120, 180])).toBe(false)
    expect(refused(thin, [40, 60, 80, 120, 180])).toBe(true)
  })
  it('a ladder that is cut in two by fills counts as one', () => {
    const filled = veneered(0.7, [mark('nail-holes')])
    expect(filled.plan.steps.filter(s => s.kind === 'sand' && !s.fields.after)).toHaveLength(2)
    expect(refused(filled, [36, 40, 60, 80])).toBe(true)
  })
})
