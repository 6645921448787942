/**
 * What becomes of a plan when one of its gates fails: the faces of the gate go over to its fallback, the others go on.
 */
import { does, foundSurface, type Step, type Surface, walk } from '../acts'
import { type Choice, groupsIn, onGrounds, waysOf } from '../build'
import type { Context } from '../context'
import { factsOfFaces, type Facts, type Group } from '../piece'
import { completePlan, type Plan } from './complete'
import { workOutPlan } from './planner'

export interface Fallback {
  choice: Choice
  /** keys of steps that fall away */
  skip: string[]
  /** steps that go on with fewer faces */
  narrow: { key: string; faces: number[] }[]
  /** steps of the fallback, after the failed gate */
  fresh: Step[]
}

/**
 * `done`: steps done so far, the gate among them; `left`: the rest of the plan in order. The fallback begins from the
 * surface as the work has left it.
 * @throws RangeError when the gate has no fallback.
 */
export function fallBackFrom(
  gate: Step,
  done: readonly Step[],
  left: readonly Step[],
  context: Context,
  choice: Choice,
  ask: boolean,
): Fallback {
  const { facts } = context
  const route = gate.gate?.fallback
  if (!route) throw new RangeError(`"${gate.title}" has no fallback.`)
  const facesOf = (way: { facts: Facts }) => way.facts.faces.filter(f => f.scope === 'refinish').map(f => f.id)
  // every way that the gate stands on goes over whole
  const failed = waysOf(context, choice).filter(w => facesOf(w).some(f => gate.faces.includes(f)))
  const over = new Set(failed.flatMap(facesOf))
  const next = onGrounds(choice, b => (failed.some(w => w.buildUp === b) ? route : b.ground))
  const surfaces = new Map<number, Surface>()
  for (const v of walk(done, groupsIn(context, choice), context))
    for (const f of v.group.faces) surfaces.set(f.id, v.after)
  const start = (g: Group) => surfaces.get(g.faces[0]!.id) ?? foundSurface(facts, g)
  const plan: Plan = workOutPlan({ ...context, facts: factsOfFaces(facts, f => over.has(f)) }, next, {
    start,
    prefix: 'f-',
    ask,
  })
  const rest = (s: Step) => s.faces.filter(f => !over.has(f))
  const last = (s: Step) => does(s, 'ends')
  return {
    choice: next,
    skip: left.filter(s => rest(s).length === 0 || last(s)).map(s => s.key),
    narrow: left
      .filter(s => rest(s).length > 0 && rest(s).length < s.faces.length && !last(s))
      .map(s => ({ key: s.key, faces: rest(s) })),
    // what ends the work waits for every face
    fresh: plan.steps.map(s =>
      last(s) ? { ...s, faces: [...new Set([...s.faces, ...left.filter(last).flatMap(l => l.faces)])] } : s,
    ),
  }
}

/** The live plan after a fallback: minutes, amounts and waits worked out again. */
export const afterFallback = (
  fallback: Fallback,
  done: readonly Step[],
  left: readonly Step[],
  context: Context,
): Plan =>
  completePlan(
    [
      ...done,
      ...left
        .filter(s => !fallback.skip.includes(s.key))
        .map(s => ({ ...s, faces: fallback.narrow.find(n => n.key === s.key)?.faces ?? s.faces })),
      ...fallback.fresh,
    ],
    context,
    fallback.choice,
  )
