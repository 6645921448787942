import { usualContext } from '#core/context'
import { P } from '#core/abrasives'
import { describe, expect, it } from 'vitest'
import {
  type Act,
  actOf,
  ACTS,
  attended_min,
  FIELD_VALUES,
  fieldsOfTitle,
  foundSurface,
  leave,
  STEP_KINDS,
  stepOf,
  titleOf,
  waitAfter,
} from '#core/acts'
import { MATERIALS } from '#core/materials'
import { groupsOf } from '#core/piece'
import { completePlan, editedStep, productProblem, workOutPlan } from '#core/plan'
import { choice, face, facts, finding, built } from '../facts'

/** A step of each kind with each product that it may take, and with none. */
const steps = STEP_KINDS.flatMap(kind => {
  const roles = ACTS[kind].needs?.roles ?? []
  return [null, ...MATERIALS.filter(m => roles.some(r => r === m.role)).map(m => m.slug)].map(product =>
    stepOf({ key: kind, kind, faces: [1], product, grits: [P(180)], coat: 1, method: ACTS[kind].methods[0] }),
  )
})
const start = () => foundSurface(facts(), groupsOf(facts())[0]!)

const context = usualContext(facts())

describe('acts', () => {
  it.each(steps.map(s => [`${s.kind} with ${s.product}`, s] as const))('%s answers every question', (_name, step) => {
    const act = actOf(step)
    expect(titleOf(step, context)).not.toMatch(/undefined|null|NaN|-coat|-chemical/)
    expect(titleOf(step, context).length).toBeGreaterThan(3)
    expect(Number.isFinite(attended_min(step, [face()], context))).toBe(true)
    expect(leave(step, start(), context)).toHaveProperty('films')
    for (const kind of STEP_KINDS) {
      const wait = waitAfter(step, stepOf({ key: 'next', kind, faces: [1] }), context)
      expect(wait.min).toBeLessThanOrEqual(wait.likely)
      expect(wait.likely).toBeLessThanOrEqual(wait.safe)
      if (wait.max !== null) expect(wait.safe).toBeLessThanOrEqual(wait.max)
    }
    const open = act.open(step, context)
    if (open) expect(open.open_min).toBeGreaterThan(0)
    if (act.layer) {
      const round = { step, no: 1, of: 1, s: start(), k: context }
      expect(act.layer.why(round).length).toBeGreaterThan(3)
      for (const beside of act.layer.after(round)) expect(beside.why.length).toBeGreaterThan(3)
    }
    for (const { kind } of act.rounds?.with ?? []) expect(STEP_KINDS).toContain(kind)
    expect(act.usesUp).toBe(act.asks.includes('used') || step.kind === 'clean-off')
  })
  it('is called by a name of its own, in small words, without its slug', () => {
    const names = STEP_KINDS.map(kind => ACTS[kind].called)
    expect(new Set(names).size).toBe(names.length)
    for (const name of names) expect(name).toMatch(/^[a-z' ]+$/)
  })
  it('has a record for each name and no other', () => expect(Object.keys(ACTS).sort()).toEqual([...STEP_KINDS].sort()))
  it('that abrades carries grits, and no other does', () => {
    for (const kind of STEP_KINDS)
      expect(ACTS[kind].fields.includes('grits'), kind).toBe(ACTS[kind].does.includes('abrades'))
  })
  it('takes a product of its own roles, and says in words what is wrong with another', () => {
    for (const kind of STEP_KINDS)
      for (const m of MATERIALS) {
        const problem = productProblem({ kind, product: m.slug })
        const needs = ACTS[kind].needs as Act['needs']
        const fits = needs?.roles.includes(m.role) && (needs.base ?? m.base) === m.base
        expect(problem === null).toBe(Boolean(fits))
      }
    expect(productProblem({ kind: 'coat', product: null })).toBe('This step needs a product.')
  })
  it('says every value of every field it reads differently, or leaves it to a rule', () => {
    const told = STEP_KINDS.flatMap(kind =>
      ACTS[kind].fields.flatMap(field => {
        if (!(field in FIELD_VALUES)) return []
        const values = FIELD_VALUES[field as keyof typeof FIELD_VALUES]
        const titles = values.map(value =>
          titleOf(
            stepOf({ key: 'x', kind, faces: [1], grits: [P(180)], product: 'varnish-oil', fields: { [field]: value } }),
            context,
          ),
        )
        return new Set(titles).size === values.length ? [] : [`${kind}.${field}`]
      }),
    )
    // a sealer is called by its name alone; waterborne filler is scraped, not wiped
    expect(told).toEqual([])
  })
})

describe('titles of plans stored before there were fields', () => {
  const piece = facts({
    faces: [face(), face({ id: 2, part: 'leg', shape: 'turned' })],
    findings: [],
    tone: 'darker',
  })
  it.each(['pigment-stain', 'lacquer-toner', 'glaze', 'water-dye', 'none'] as const)(
    'read as the fields that say them again: %s',
    colour => {
      const plan = workOutPlan(
        usualContext(piece),
        built(usualContext(piece), choice({ colour, finish: 'nitrocellulose-lacquer', fill: 'paste-filler' })),
      )
      for (const step of plan.steps) {
        const again = { ...step, fields: fieldsOfTitle(step) }
        expect(titleOf(again, context), step.key).toBe(step.title)
      }
    },
  )
})

describe('a step changed by hand', () => {
  const plan = workOutPlan(usualContext(facts()), built(usualContext(facts()), choice()))
  const change = (edit: Parameters<typeof editedStep>[1]) =>
    completePlan(
      plan.steps.map(s => (s.key === '1.coat.1' ? editedStep(s, edit) : s)),
      usualContext(facts()),
      built(usualContext(facts()), choice()),
    ).steps.find(s => s.key === '1.coat.1')!
  const was = plan.steps.find(s => s.key === '1.coat.1')!
  it('keeps a typed title, and minutes and amount still follow the product', () => {
    const step = change({ title: 'Thin first coat', product: 'oil-polyurethane' })
    expect(step).toMatchObject({ title: 'Thin first coat', typed: ['title'] })
    expect(step.amount_ml).not.toBe(was.amount_ml)
  })
  it('clears a field that is not chosen any more, and keeps what nobody chooses', () => {
    const barrier = change({ fields: { as: 'barrier' } })
    expect(barrier.title).toBe('Waterborne polyurethane barrier, coat 1 of 3')
    expect(editedStep(barrier, { fields: {} }).fields).toEqual({ of: 3 })
  })
  it('mends what is found once, however many steps mend', () => {
    const chipped = facts({ findings: [finding('nail-holes')] })
    const steps = workOutPlan(usualContext(chipped), built(usualContext(chipped), choice())).steps
    const mend = steps.find(s => s.kind === 'mend')!
    const twice = completePlan(
      [...steps, { ...mend, key: 'again' }],
      usualContext(chipped),
      built(usualContext(chipped), choice()),
    ).steps
    expect(twice.find(s => s.key === 'mend')!.title).toBe('Mend: 1 × hole')
    expect(twice.find(s => s.key === 'again')!).toMatchObject({ title: 'Mend what was found', attended_min: 8 })
  })
  it('lets what was typed follow again', () => {
    const typed = change({ attended_min: 99 })
    expect(typed).toMatchObject({ attended_min: 99, typed: ['attended_min'] })
    expect(editedStep(typed, { follow: ['attended_min'] }).typed).toEqual([])
  })
})
