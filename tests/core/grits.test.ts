import { usualContext } from '#core/context'
import { describe, expect, it, test } from 'vitest'
import { asGrit, finest, type Grit, gritName, isCoarser, ladderBetween, median_um, P, parseGrit } from '#core/abrasives'
import { type Step, stepOf, titleOf } from '#core/acts'
import { completePlan, planDifference, workOutPlan } from '#core/plan'
import { applyMend, judgePlan } from '#core/rules'
import { LICENCES } from '#core/safety'
import { choice, face, facts, built } from '../facts'

const cami = (grade: number): Grit => ({ scale: 'CAMI', grade: String(grade) })
const wool: Grit = { scale: 'wool', grade: '0000' }

describe('grits of different scales are compared by what they cut', () => {
  test.each([
    ['P320 before CAMI 320', P(320), cami(320)],
    ['CAMI 220 before P240', cami(220), P(240)],
    ['P600 before wool 0000', P(600), wool],
    ['wool 0000 before a polish', wool, { scale: 'powder', grade: 'rottenstone' } as Grit],
  ])('%s', (_what, coarse, fine) => expect([isCoarser(coarse, fine), isCoarser(fine, coarse)]).toEqual([true, false]))
  it('the finest of some, and of none', () =>
    expect([finest([P(120), cami(400), P(320)]), finest([])]).toEqual([cami(400), null]))
  it('a ladder goes from one scale to another without a skip', () => {
    const ladder = ladderBetween(cami(80), cami(320))
    expect([ladder[0], ladder.at(-1)]).toEqual([cami(80), cami(320)])
    for (const [i, grit] of ladder.slice(1).entries())
      expect(median_um(ladder[i]!) / median_um(grit), gritName(grit)).toBeLessThanOrEqual(1.9)
  })
  test.each(['P137', 'CAMI 1700', 'wool 5', 'foam 17', 'pink pad', '320', '0', '-120', '1e9', '', 'P', '__proto__'])(
    '"%s" is refused in words',
    typed => (typed === '0' ? expect(parseGrit(typed)).toEqual({ scale: 'wool', grade: '0' }) : refused(typed)),
  )
  const refused = (typed: string) => expect(() => parseGrit(typed)).toThrow(/grit|scale/i)
})

describe('a step says and keeps its grits', () => {
  const sand = (grits: Grit[], more: Partial<Step> = {}) =>
    stepOf({ key: 's', kind: 'sand', faces: [1], method: 'hand', grits, ...more })
  it('in its title, by their names', () => {
    expect(titleOf(sand([P(120), cami(220)]), usualContext(facts()))).toBe('Sand P120 → CAMI 220')
    expect(
      titleOf(
        stepOf({ key: 'r', kind: 'sand-coat', faces: [1], method: 'hand', grits: [wool] }),
        usualContext(facts()),
      ),
    ).toContain('wool 0000')
  })
  it('numbers in an older snapshot are of the P scale: nothing differs', () => {
    const before = { ...sand([P(180)]), grits: [180] } as unknown as Step
    expect(asGrit(180)).toEqual(P(180))
    expect(planDifference([before], [sand([P(180)])]).changes).toEqual([])
    expect(planDifference([before], [sand([cami(180)])]).changes).toHaveLength(1)
  })
})

describe('rules read grits on any scale', () => {
  const f = facts({ faces: [face()] })
  const broken = (c = choice(), grits: Grit[] = [], more = f) => {
    const plan = workOutPlan(usualContext(more), built(usualContext(more), c))
    const steps = plan.steps.map(s => (s.key === 'sand' ? { ...s, grits } : s))
    return {
      steps,
      verdicts: judgePlan({
        context: usualContext(more),
        choice: built(usualContext(more), c),
        ...completePlan(steps, usualContext(more), built(usualContext(more), c)),
        licences: LICENCES,
      }),
    }
  }
  const rules = (of: ReturnType<typeof broken>) => of.verdicts.map(v => v.rule)
  it('P100 to CAMI 320 skips; P100, P150, CAMI 220 does not', () => {
    expect(rules(broken(choice(), [P(100), cami(320)]))).toContain('ladder-skips')
    expect(rules(broken(choice(), [P(100), P(150), cami(220)]))).not.toContain('ladder-skips')
  })
  it('a gap is filled from the shelf, the ends stay what they were', () => {
    const { steps, verdicts } = broken(choice(), [P(100), cami(320)])
    const at = verdicts.find(v => v.rule === 'ladder-skips')!.step
    const mended = applyMend(steps, { rule: 'ladder-skips', step: at }, 'x')
    const grits = mended!.find(s => s.key === at)!.grits
    expect([grits[0], grits.at(-1), grits.length > 2]).toEqual([P(100), cami(320), true])
  })
  it('a patina forbids CAMI 80 as it forbids P80', () => {
    const old = facts({ keepPatina: true })
    expect(rules(broken(choice(), [cami(80), P(180)], old))).toContain('keep-patina')
    expect(rules(broken(choice(), [cami(180)], old))).not.toContain('keep-patina')
  })
})
