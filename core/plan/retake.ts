/** A plan worked out anew, with what people changed by hand in the old one made again where its step still exists. */
import { gritName } from '../abrasives'
import {
  chosenOf,
  does,
  type Fields,
  foundSurface,
  rechosen,
  type Step,
  type Surface,
  type Typed,
  unitsOf,
  walk,
} from '../acts'
import { type Choice, groupsIn } from '../build'
import type { Context } from '../context'
import { type Facts, factsOfFaces, type Group } from '../piece'
import { workOutPlan } from './planner'

/** One change made by hand: to a step, a step added or taken out. */
export interface HandChange {
  kind: 'changed' | 'added' | 'removed'
  key: string
  title: string
}
export interface Retaken {
  steps: Step[]
  /** made again */
  kept: HandChange[]
  /** their step is gone */
  lost: HandChange[]
}

const WHAT = ['product', 'label', 'method', 'coat', 'passes'] as const
const written = (grits: Step['grits']) => grits.map(gritName).join()
const sameFaces = (a: Step, b: Step) => [...a.faces].sort().join() === [...b.faces].sort().join()

/** What somebody changed of a step that was planned as `base`; null: nothing. */
function changeOf(base: Step, now: Step): Partial<Step> | null {
  const change: Partial<Step> = {}
  for (const what of WHAT) if (base[what] !== now[what]) Object.assign(change, { [what]: now[what] })
  if (written(base.grits) !== written(now.grits)) change.grits = now.grits
  if (JSON.stringify(chosenOf(base.fields)) !== JSON.stringify(chosenOf(now.fields)))
    change.fields = chosenOf(now.fields)
  if (!sameFaces(base, now)) change.faces = now.faces
  if (now.typed.length) {
    change.typed = now.typed
    for (const what of now.typed) Object.assign(change, { [what]: now[what] })
  }
  return Object.keys(change).length ? change : null
}

/** Faces as somebody left them: narrowed they stay narrowed, and none comes back that the layer has lost. */
const facesOf = (step: Step, faces: readonly number[], base: Step | undefined): number[] =>
  faces.every(f => base?.faces.includes(f)) ? faces.filter(f => step.faces.includes(f)) : [...faces]

function changed(step: Step, { fields, typed, faces, ...change }: Partial<Step>, base: Step | undefined): Step {
  const all: Typed[] = [...new Set([...step.typed, ...(typed ?? [])])]
  const carried: Fields = fields ? rechosen(step.fields, fields) : step.fields
  return { ...step, ...change, faces: faces ? facesOf(step, faces, base) : step.faces, fields: carried, typed: all }
}

/**
 * `base`: the old plan as it was worked out; `now`: what of it is still planned, with what was changed by hand;
 * `next`: the plan worked out anew. `leave`: keys of changes that are not made again; `stands`: keys of all steps that
 * the plan still has, started ones too.
 */
export function retake(
  base: readonly Step[],
  now: readonly Step[],
  next: readonly Step[],
  leave: ReadonlySet<string> = new Set(),
  stands: ReadonlySet<string> = new Set(now.map(s => s.key)),
): Retaken {
  const planned = new Map(base.map(s => [s.key, s]))
  const later = new Set(next.map(s => s.key))
  const kept: HandChange[] = []
  const lost: HandChange[] = []
  const tell = (kind: HandChange['kind'], { key, title }: Step) =>
    (later.has(key) || kind === 'added' ? kept : lost).push({ kind, key, title })
  const changes = new Map<string, Partial<Step>>()
  const added: { step: Step; after: string | null }[] = []
  for (const [i, step] of now.entries()) {
    const before = planned.get(step.key)
    const change = before ? changeOf(before, step) : null
    if (change) {
      tell('changed', step)
      if (!leave.has(step.key)) changes.set(step.key, change)
    }
    if (before || later.has(step.key)) continue
    tell('added', step)
    const after = now.slice(0, i).findLast(s => later.has(s.key) || added.some(a => a.step.key === s.key))
    if (!leave.has(step.key)) added.push({ step, after: after?.key ?? null })
  }
  const removed = base.filter(s => !stands.has(s.key))
  for (const step of removed) tell('removed', step)
  const gone = new Set(removed.map(s => s.key).filter(key => !leave.has(key)))
  const steps = next
    .filter(s => !gone.has(s.key))
    .map(s => changed(s, changes.get(s.key) ?? {}, planned.get(s.key)))
    .filter(s => s.faces.length > 0)
  for (const { step, after } of added) {
    const at = after === null ? 0 : steps.findIndex(s => s.key === after) + 1
    steps.splice(at, 0, step)
  }
  return { steps, kept, lost }
}

/** A plan in the middle of its work, to be worked out anew for another choice. */
export interface Recomposing {
  context: Context
  before: Choice
  after: Choice
  /** what has started, in order */
  past: readonly Step[]
  /** what is still planned */
  ahead: readonly Step[]
  /** keys of every step, also of those that fell away */
  keys: readonly string[]
  leave: readonly string[]
  /** what was known when the plan was made, where it is less by now */
  known?: Facts
}

/** Faces that a failed gate has sent over: their steps begin with "f-". What ends the work stands on all faces. */
const fallenIn = (steps: readonly Step[]) =>
  new Set(steps.filter(s => s.key.startsWith(FALLEN) && !does(s, 'ends')).flatMap(s => s.faces))
const FALLEN = 'f-'

/**
 * The steps still ahead, worked out anew: each face by the plan that it is on, those that fell back from the surface
 * on which they did.
 */
export function recompose({ context, before, after, past, ahead, keys, leave, known }: Recomposing): Retaken {
  const fallen = fallenIn([...past, ...ahead])
  const on = (facts: Facts, some: (id: number) => boolean) => ({ ...context, facts: factsOfFaces(facts, some) })
  const left = new Map<number, Surface>()
  const first = past.filter(s => !s.key.startsWith(FALLEN))
  if (fallen.size)
    for (const v of walk(first, unitsOf(first, groupsIn(context, before)), context))
      for (const f of v.group.faces) left.set(f.id, v.after)
  const start = (g: Group) => left.get(g.faces[0]?.id ?? 0) ?? foundSurface(context.facts, g)
  const planOf = (facts: Facts, choice: Choice, some: (id: number) => boolean, more = {}) =>
    facts.faces.some(f => f.scope === 'refinish' && some(f.id)) ? workOutPlan(on(facts, some), choice, more).steps : []
  const all = (facts: Facts, choice: Choice): Step[] => [
    ...planOf(facts, choice, id => !fallen.has(id)),
    ...planOf(facts, choice, id => fallen.has(id), { start, prefix: FALLEN, ask: false }),
  ]
  const [base, next] = [all(known ?? context.facts, before), all(context.facts, after)]
  return retake(base, ahead, next, new Set(leave), new Set(keys))
}
