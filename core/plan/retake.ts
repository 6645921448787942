/** A plan worked out anew, with what people changed by hand in the old one made again where its step still exists. */
import { gritName } from '../abrasives'
import { chosenOf, type Fields, rechosen, type Step, type Typed } from '../acts'

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
  if (now.typed.length) {
    change.typed = now.typed
    for (const what of now.typed) Object.assign(change, { [what]: now[what] })
  }
  return Object.keys(change).length ? change : null
}

function changed(step: Step, { fields, typed, ...change }: Partial<Step>): Step {
  const all: Typed[] = [...new Set([...step.typed, ...(typed ?? [])])]
  const carried: Fields = fields ? rechosen(step.fields, fields) : step.fields
  return { ...step, ...change, fields: carried, typed: all }
}

/**
 * `base`: the old plan as it was worked out; `now`: as it stands, with what was changed by hand; `next`: the plan
 * worked out anew. `leave`: keys of changes that are not made again.
 */
export function retake(
  base: readonly Step[],
  now: readonly Step[],
  next: readonly Step[],
  leave: ReadonlySet<string> = new Set(),
): Retaken {
  const planned = new Map(base.map(s => [s.key, s]))
  const stands = new Set(now.map(s => s.key))
  const later = new Set(next.map(s => s.key))
  const kept: HandChange[] = []
  const lost: HandChange[] = []
  const tell = (kind: HandChange['kind'], { key, title }: Step, there: boolean) =>
    (there ? kept : lost).push({ kind, key, title })
  const changes = new Map<string, Partial<Step>>()
  const added: { step: Step; after: string | null }[] = []
  for (const [i, step] of now.entries()) {
    const before = planned.get(step.key)
    const change = before ? changeOf(before, step) : null
    if (change || (before && !sameFaces(before, step))) {
      tell('changed', step, later.has(step.key))
      if (!leave.has(step.key)) changes.set(step.key, change ?? {})
    }
    if (!before && !later.has(step.key)) {
      const after = now.slice(0, i).findLast(s => later.has(s.key) || added.some(a => a.step.key === s.key))
      tell('added', step, true)
      if (!leave.has(step.key)) added.push({ step, after: after?.key ?? null })
    }
  }
  for (const step of base.filter(s => !stands.has(s.key))) tell('removed', step, later.has(step.key))
  const gone = (s: Step) => planned.has(s.key) && !stands.has(s.key) && !leave.has(s.key)
  const steps = next.filter(s => !gone(s)).map(s => changed(s, changes.get(s.key) ?? {}))
  for (const { step, after } of added) {
    const at = after === null ? 0 : steps.findIndex(s => s.key === after) + 1
    steps.splice(at, 0, step)
  }
  return { steps, kept, lost }
}
