/** Works a plan out of surface states: the stages of each group, joined where they are alike. */
import { does, foundSurface, type StepKind, stepOf, type Step, type Surface } from '../acts'
import { type Choice, groupsOfWay, waysOf } from '../build'
import type { Context } from '../context'
import { type Facts, groupsOf, LAYS, type Group, partsToTakeOff, type RouteSlug } from '../piece'
import { completePlan, type Plan } from './complete'
import { worstSteps } from './loops'
import { retaped } from './masking'
import { type Draft, otherDrafts, stagesOf } from './stages'
import { type Ordered, turnedOver } from './turning'

/** Routes on which the piece is taken apart first; after a failed gate it is apart already. */
const TAKES_APART: readonly RouteSlug[] = LAYS

const ordered = ({ order, stem, ...draft }: Draft, faces: readonly number[]): Ordered => ({
  ...stepOf({ key: '', ...draft, faces: [...faces] }),
  order,
  stem,
})

/** Tape goes on when all is washed, and before anything is stripped. */
const UNDER_TAPE = 119
/** It comes off when the last thing that could run lies: before a film cures for weeks. */
const afterCovers = (drafts: readonly { draft: Draft }[]) =>
  Math.max(
    UNDER_TAPE,
    ...drafts.flatMap(({ draft: d }) => (does(d, 'covers') || d.kind === 'oil-off' ? d.order : [])),
  ) + 0.5

/** Drafts of all groups, those that are alike joined. */
function joined(drafts: readonly { draft: Draft; faces: readonly number[] }[]): Ordered[] {
  const merged = new Map<string, Ordered>()
  for (const { draft, faces } of drafts) {
    const { order, kind, product, label, grits, method, fields, gate } = draft
    const id = JSON.stringify([order, kind, product, label ?? null, grits, method, fields, gate?.slug, gate?.fallback])
    const same = merged.get(id)
    if (same) same.faces.push(...faces)
    else merged.set(id, ordered(draft, faces))
  }
  return [...merged.values()]
}

/** Keys by layer, act and round, of the ground by kind and coat; counted on where there are several. */
function keyed(steps: readonly Ordered[], prefix: string): Step[] {
  const counts = new Map<string, number>()
  return [...steps]
    .sort((a, b) => a.order - b.order)
    .map(({ order: _order, stem, ...step }) => {
      const key = prefix + (stem ?? [step.kind, step.coat].filter(Boolean).join('-'))
      const n = (counts.get(key) ?? 0) + 1
      counts.set(key, n)
      return { ...step, key: n === 1 ? key : `${key}@${n}` }
    })
}

/**
 * The plan for a choice. `start` gives the surface to begin from (after a failed gate: the state it was left in),
 * `prefix` keeps step keys of a fallback apart. Steps that are alike on several groups become one.
 */
export function workOutPlan(
  context: Context,
  choice: Choice,
  options: { start?: (g: Group) => Surface; prefix?: string; ask?: boolean } = {},
): Plan {
  const { facts } = context
  const { start = (g: Group) => foundSurface(facts, g), prefix = '', ask = true } = options
  const ways = waysOf(context, choice)
  const drafts = ways.flatMap((way, i) =>
    groupsOfWay(way).flatMap(group => {
      const from = start(i === 0 ? group : { ...group, key: `${i}|${group.key}` })
      const faces = group.faces.map(f => f.id)
      return stagesOf({ ...context, facts: way.facts }, way.buildUp, group, from, prefix !== '').map(draft => ({
        draft,
        faces: draft.faces ?? faces,
      }))
    }),
  )
  const others = prefix ? [] : otherDrafts(context)
  const facesOf = (some: readonly Facts[]) => some.flatMap(f => groupsOf(f).flatMap(g => g.faces.map(x => x.id)))
  const allFaces = [...new Set([...facesOf(ways.map(w => w.facts)), ...others.flatMap(o => o.faces)])]
  const around: Ordered[] = []
  const put = (order: number, kind: StepKind, why: string, faces = allFaces) =>
    around.push(ordered({ order, kind, why }, faces))
  put(900, 'finish-up', 'ready for the client')
  const lays = ways.filter(w => TAKES_APART.includes(w.buildUp.ground))
  const takenApart = [...facesOf(lays.map(w => w.facts)), ...(lays.length ? others.flatMap(o => o.faces) : [])]
  if (!prefix && partsToTakeOff(facts.faces.filter(f => takenApart.includes(f.id))) > 0)
    put(95, 'take-apart', 'flat parts strip, sand and spray more easily; nothing runs into a joint', [
      ...new Set(takenApart),
    ])
  if (
    facts.faces.some(f => f.scope === 'protect' || f.scope === 'match') &&
    ways.some(w => w.buildUp.ground !== 'refer')
  ) {
    put(UNDER_TAPE, 'mask', 'nothing runs, sprays or bleeds where it must not')
    put(afterCovers(drafts), 'unmask', 'tape left long leaves its glue')
  }
  if (ask) put(0, 'approval', 'nothing is touched before the client said yes')
  const steps = keyed(turnedOver([...joined([...drafts, ...others]), ...around], facts.faces, context.house), prefix)
  const plan = completePlan(steps, context, choice, start)
  const taped = retaped(plan.steps, plan.waits)
  return taped.length === plan.steps.length ? plan : completePlan(taped, context, choice, start)
}

/** The plan when every loop goes its worst count. */
export const worstPlan = (plan: Plan, context: Context, choice: Choice): Plan =>
  completePlan(worstSteps(plan.steps, context), context, choice)
