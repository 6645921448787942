import { describe, expect, it } from 'vitest'
import { judgePlan } from '#core/layers/rules'
import { workOutPlan, type Choice, type Facts, type StepKind } from '#core/plan'
import { choice, face, facts, finding } from '../facts'

/**
 * Ten plans worked out by hand from the handbook (4–12, 17) before the code ran: the order of the work, coats, waits, warnings, amounts.
 * Orders and times: common practice. Amounts: arithmetic on the shop's defaults (17.2, 17.3).
 */
interface PlanCase {
  piece: string
  facts: Facts
  choice: Choice
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
const shellacked = { found: { finish: 'shellac' as const, certainty: 0.9 }, finishes: [{ group: 'A', layers: [{ finish: 'shellac' as const, certainty: 0.9 }] }] }
const lacquered = { found: { finish: 'nitrocellulose-lacquer' as const, certainty: 0.9 }, finishes: [{ group: 'A', layers: [{ finish: 'nitrocellulose-lacquer' as const, certainty: 0.9 }] }] }

const CASES: PlanCase[] = [
  { piece: 'oak top, varnish peeling, to waterborne', facts: facts({ findings: [finding('peeling')] }), choice: choice(),
    expect: { order: ['approval', 'wash', 'cover', 'strip', 'scrape', 'wash-off', 'sand', 'raise-grain', 'sand', 'clean-off', 'coat', 'sand-coat', 'coat', 'sand-coat', 'coat', 'finish-up'], coats: 3, coat_ml: (0.8 * 110 * 1.1) / 0.95,
      waits: [['strip', 'scrape', 15, 30], ['coat', 'sand-coat', 2 * H]], grits: { sand: [100, 150, 180] } } },
  { piece: 'pine press, darker, pigment stain under shellac', facts: facts({ tone: 'darker', faces: [face({ species: 'pine' })], ...shellacked }), choice: choice({ colour: 'pigment-stain', finish: 'dewaxed-shellac' }),
    expect: { order: ['strip', 'sand', 'clean-off', 'conditioner', 'stain', 'coat'], never: ['raise-grain'], waits: [['conditioner', 'stain', 5, 2 * H], ['stain', 'coat', D]] } },
  { piece: 'crazed shellac chair, kept', facts: facts({ ...shellacked, keepPatina: true, findings: [finding('crazing', 3)] }), choice: choice({ route: 'amalgamate', finish: 'dewaxed-shellac' }),
    expect: { order: ['wash', 'amalgamate', 'gate'], never: ['strip', 'sand', 'scuff'], fallback: 'strip-chemical' } },
  { piece: 'lacquered sideboard with a few chips', facts: facts({ ...lacquered, findings: [finding('worn-through', 2)] }), choice: choice({ route: 'spot-repair', finish: 'nitrocellulose-lacquer' }),
    expect: { order: ['wash', 'spot-colour', 'spot-coat'], never: ['strip', 'sand'], waits: [['spot-coat', 'rub-out', 7 * D]] } },
  { piece: 'sound polish, the client likes it', facts: facts({ ...shellacked, findings: [finding('dirt-and-wax', 2)] }), choice: choice({ route: 'clean-and-wax' }),
    expect: { order: ['wash', 'solvent-wash', 'wax'], never: ['coat', 'sand', 'scuff', 'strip'] } },
  { piece: 'varnished top with runs and brush marks', facts: facts({ findings: [finding('runs'), finding('brush-marks')] }), choice: choice({ route: 'level-barrier-recoat', finish: 'oil-polyurethane' }),
    expect: { order: ['wash', 'level', 'clean-off', 'coat', 'coat', 'gate', 'scuff', 'clean-off', 'coat'], never: ['strip'], fallback: 'strip-chemical', waits: [['coat', 'gate', 12 * H]] } },
  { piece: 'oak kitchen table to two-part hardwax oil', facts: facts({ use: 'hard' }), choice: choice({ finish: 'hardwax-oil-2c' }),
    expect: { order: ['strip', 'sand', 'clean-off', 'oil-on', 'oil-off'], never: ['coat', 'sand-coat'], coats: 1, waits: [['oil-on', 'oil-off', 0, 50]], grits: { sand: [100, 150] } } },
  { piece: 'walnut to be paler than its own wood', facts: facts({ tone: 'lighter', faces: [face({ species: 'walnut' })] }), choice: choice({ bleach: 'two-part-bleach', finish: 'oil-polyurethane' }),
    expect: { order: ['wash-off', 'sand', 'bleach', 'rinse', 'sand', 'clean-off', 'coat'], waits: [['bleach', 'rinse', 8 * H], ['rinse', 'sand', D]], warns: ['yellowing-over-pale'] } },
  { piece: 'mahogany case, glass-smooth lacquer, rubbed to gloss', facts: facts({ sheen: 'gloss', faces: [face({ species: 'mahogany' })] }), choice: choice({ finish: 'nitrocellulose-lacquer', fill: 'paste-filler' }),
    expect: { order: ['sand', 'fill', 'fill-off', 'sand-back', 'coat', 'rub-out'], coats: 6, waits: [['fill-off', 'sand-back', D], ['coat', 'rub-out', 14 * D]] } },
  { piece: 'thin walnut veneer on the top, beech legs, painted base left alone', facts: facts({ faces: [face({ species: 'walnut', substrate: 'veneer', veneer_mm: 0.4 }), face({ id: 2, part: 'legs', species: 'beech', shape: 'turned', area_m2: 0.3 }), face({ id: 3, part: 'base', scope: 'protect' })] }), choice: choice({ colour: 'pigment-stain', finish: 'dewaxed-shellac' }),
    expect: { order: ['mask', 'strip', 'scrape', 'wash-off', 'pad', 'stain', 'coat', 'unmask', 'finish-up'], methods: { pad: 'hand' }, warns: [] } },
]

describe.each(CASES)('$piece', ({ facts: f, choice: c, expect: wanted }) => {
  const plan = workOutPlan(f, c)
  const kinds = plan.steps.map(s => s.kind)
  it('goes in this order', () => {
    let from = 0
    for (const kind of wanted.order) {
      const found = kinds.indexOf(kind, from)
      expect(found, `${kind} after ${kinds.slice(0, from).join(', ')} in ${kinds.join(', ')}`).toBeGreaterThanOrEqual(from)
      from = found + 1
    }
    for (const kind of wanted.never ?? []) expect(kinds).not.toContain(kind)
  })
  it('in coats, amounts, waits, grits and ways', () => {
    const finish = plan.steps.filter(s => s.product === c.finish && (s.kind === 'coat' || s.kind === 'oil-on'))
    if (wanted.coats) expect(finish).toHaveLength(wanted.coats)
    if (wanted.coat_ml) expect(finish[1]!.amount_ml).toBeCloseTo(wanted.coat_ml, 1)
    for (const [from, to, min, max] of wanted.waits ?? []) {
      const between = plan.waits.filter(w => plan.steps.find(s => s.key === w.from)!.kind === from && plan.steps.find(s => s.key === w.to)!.kind === to)
      expect(between.length, `${from} to ${to}`).toBeGreaterThan(0)
      expect(Math.max(...between.map(w => w.min))).toBeGreaterThanOrEqual(min)
      if (max !== undefined) expect(between[0]!.max).toBe(max)
    }
    for (const [kind, grits] of Object.entries(wanted.grits ?? {})) expect(plan.steps.find(s => s.kind === kind)!.grits).toEqual(grits)
    for (const [kind, method] of Object.entries(wanted.methods ?? {})) expect(plan.steps.find(s => s.kind === kind)!.method).toBe(method)
    if (wanted.fallback) expect(plan.steps.some(s => s.gate?.fallback === wanted.fallback)).toBe(true)
  })
  it('breaks no stop, and warns where it should', () => {
    const verdicts = judgePlan({ facts: f, choice: c, ...plan })
    expect(verdicts.filter(v => v.severity === 'stop' || v.severity === 'forbidden')).toEqual([])
    for (const rule of wanted.warns ?? []) expect(verdicts.map(v => v.rule)).toContain(rule)
  })
})
