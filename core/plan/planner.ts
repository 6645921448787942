/**
 * Works a plan out of surface states: the stages of each group, joined where they are alike, with minutes, amounts and
 * waits.
 */
import type { VeneerBudget } from '../abrasives'
import {
  attended_min,
  foundSurface,
  isBare,
  type LadderPlace,
  SETUP_MIN,
  type StepKind,
  type Step,
  type Surface,
  type Visit,
  waitsBetween,
  type Wait,
  walk,
} from '../acts'
import { type Choice, groupsIn, type RouteSlug, STRIPPING, waysOf } from '../build'
import { need_ml } from '../coverage'
import { cautionsOf, materialOf } from '../materials'
import { type Facts, groupsOf, type Group, leadSuspected, mendingOf, partsToTakeOff, wetOnly } from '../piece'
import type { Caution } from '../safety'
import { sumOf } from '../units'
import { speciesOf } from '../wood'
import { worstSteps } from './loops'
import { budgetOf, type Draft, isJoint, stagesOf } from './stages'

export interface Plan {
  steps: Step[]
  waits: Wait[]
  budgets: { group: Group; budget: VeneerBudget }[]
}

/** Routes on which the piece is taken apart first; after a failed gate it is apart already. */
const TAKES_APART: readonly RouteSlug[] = ['scuff-and-recoat', 'scuff-and-gel', 'level-barrier-recoat', ...STRIPPING]

const DUSTY: readonly StepKind[] = ['scuff', 'level', 'strip', 'scrape', 'wash-off', 'pad', 'roughen', 'sand']

const cautionsOfStep = (draft: Draft, facts: Facts): Caution[] => {
  const cautions: (Caution | false)[] = [
    wetOnly(facts) && DUSTY.includes(draft.kind) && (leadSuspected(facts.lead) ? 'lead' : 'poison'),
    (draft.kind === 'strip' || draft.kind === 'scrape') && 'sludge',
    ...(draft.product ? cautionsOf(draft.product).filter(c => c !== 'isocyanate' || draft.kind !== 'sand-coat') : []),
    draft.kind === 'strip' && 'skin',
    draft.kind === 'oil-off' && 'oily-rags',
    draft.method === 'spray' && 'spray',
    ['sand', 'sand-off', 'sand-back', 'sand-coat', 'scuff', 'roughen'].includes(draft.kind) &&
      draft.method !== 'wet' &&
      'dust',
  ]
  return [...new Set(cautions.filter((c): c is Caution => Boolean(c)))]
}

/** Liquid for one step, ml, from the areas of its faces. Null for a step without a product. */
export function amount_ml(
  step: Pick<Step, 'product' | 'coat' | 'passes' | 'faces' | 'kind'>,
  facts: Facts,
  bare: boolean,
): number | null {
  if (!step.product || step.kind === 'oil-off' || step.kind === 'fill-off') return null
  const faces = facts.faces.filter(f => step.faces.includes(f.id))
  const material = materialOf(step.product)
  const need = (soft: boolean, area_m2: number) =>
    area_m2 > 0
      ? need_ml({ material, area_m2, coat: step.coat ?? 1, bareSoft: soft && bare && material.role === 'film' })
      : 0
  const soft = faces.filter(f => speciesOf(f.species).softwood)
  const hard = faces.filter(f => !speciesOf(f.species).softwood)
  return (
    (need(
      true,
      sumOf(soft, f => f.area_m2),
    ) +
      need(
        false,
        sumOf(hard, f => f.area_m2),
      )) *
    step.passes
  )
}

const finerThan = (a: Step, b: Step) => Math.max(...a.grits) > Math.max(...b.grits)

const placesAmong = (visits: readonly Visit[]): Map<string, LadderPlace> =>
  new Map(
    visits
      .filter(v => v.step.kind === 'sand')
      .map(v => [
        v.step.key,
        {
          first: v.before.grit === null,
          last: !visits.some(
            u => u.group === v.group && u.index > v.index && u.step.kind === 'sand' && finerThan(u.step, v.step),
          ),
        },
      ]),
  )

/** Where each sanding step stands in its ladder: the first takes what stripping left, the last ends by hand. */
export const sandPlaces = (steps: readonly Step[], facts: Facts, choice: Choice): Map<string, LadderPlace> =>
  placesAmong(walk(steps, groupsIn(facts, choice), g => foundSurface(facts, g)))

/** Fills in minutes, amounts and waits of a list of steps; used after planning and after every change made by hand. */
export function completePlan(
  steps: readonly Step[],
  facts: Facts,
  choice: Choice,
  start: (g: Group) => Surface = g => foundSurface(facts, g),
): Plan {
  const groups = groupsIn(facts, choice)
  const bareAt = new Map<string, boolean>()
  const visits = walk(steps, groups, start)
  const placeAt = placesAmong(visits)
  for (const v of visits) bareAt.set(v.step.key, (bareAt.get(v.step.key) ?? true) && isBare(v.before))
  const filled = steps.map(step => {
    if (step.byHand) return step
    const faces = facts.faces.filter(f => step.faces.includes(f.id))
    const repairs =
      step.kind === 'joint' || step.kind === 'mend'
        ? mendingOf({ ...facts, faces }).filter(m => isJoint(m.kind) === (step.kind === 'joint'))
        : []
    if (repairs.length)
      return {
        ...step,
        title:
          `${step.kind === 'joint' ? 'Glue' : 'Mend'}: ` +
          repairs.map(m => `${m.places} × ${m.kind.replaceAll('-', ' ')}`).join(', ') +
          (step.kind === 'mend' && facts.movingCracks.some(id => step.faces.includes(id))
            ? ', the moving crack with a stretching filler'
            : ''),
        attended_min: Math.ceil(SETUP_MIN + sumOf(repairs, m => m.minutes)),
      }
    return {
      ...step,
      attended_min: Math.ceil(attended_min(step, faces, facts.pace, placeAt.get(step.key))),
      amount_ml: amount_ml(step, facts, bareAt.get(step.key) ?? false),
    }
  })
  const budgets = waysOf(facts, choice).flatMap(way =>
    groupsOf(way.facts).flatMap(group => {
      const budget = budgetOf(way.facts, group, way.choice)
      return budget ? [{ group, budget }] : []
    }),
  )
  const waits = waitsBetween(filled, facts)
  // a house that trusts the label plans with the likely end, not the safe one
  const trusted =
    choice.house?.['dry-by'] === 'label'
      ? waits.map(w => (['dry', 'recoat', 'harden'].includes(w.kind) ? { ...w, safe: w.likely } : w))
      : waits
  return { steps: filled, waits: trusted, budgets }
}

/**
 * The plan for a choice. `start` gives the surface to begin from (after a failed gate: the state it was left in),
 * `prefix` keeps step keys of a fallback apart. Steps that are alike on several groups become one.
 */
export function workOutPlan(
  facts: Facts,
  choice: Choice,
  options: { start?: (g: Group) => Surface; prefix?: string; ask?: boolean } = {},
): Plan {
  const { start = (g: Group) => foundSurface(facts, g), prefix = '', ask = true } = options
  const merged = new Map<string, Step & { order: number }>()
  const ways = waysOf(facts, choice)
  ways.forEach((way, i) => {
    for (const group of groupsOf(way.facts)) {
      const faces = group.faces.map(f => f.id)
      for (const { order, ...d } of stagesOf(
        way.facts,
        way.choice,
        group,
        start(i === 0 ? group : { ...group, key: `${i}|${group.key}` }),
      )) {
        const id = JSON.stringify([order, d.kind, d.product, d.grits, d.method, d.gate?.slug, d.gate?.fallback])
        const same = merged.get(id)
        if (same) same.faces.push(...faces)
        else
          merged.set(id, {
            order,
            key: '',
            kind: d.kind,
            title: d.title,
            faces: [...faces],
            product: d.product ?? null,
            grits: d.grits ?? [],
            method: d.method ?? 'none',
            coat: d.coat ?? null,
            passes: d.passes ?? 1,
            attended_min: 0,
            amount_ml: null,
            cautions: cautionsOfStep({ order, ...d }, way.facts),
            why: d.why,
            gate: d.gate ?? null,
            byHand: false,
          })
      }
    }
  })
  const facesOf = (some: readonly Facts[]) => some.flatMap(f => groupsOf(f).flatMap(g => g.faces.map(x => x.id)))
  const allFaces = facesOf(ways.map(w => w.facts))
  const node = (
    order: number,
    kind: StepKind,
    title: string,
    why: string,
    faces = allFaces,
  ): Step & { order: number } => ({
    order,
    key: '',
    kind,
    title,
    faces,
    product: null,
    grits: [],
    method: 'none',
    coat: null,
    passes: 1,
    attended_min: 0,
    amount_ml: null,
    cautions: [],
    why,
    gate: null,
    byHand: false,
  })
  const all = [...merged.values(), node(900, 'finish-up', 'Put together, look over, label', 'ready for the client')]
  const takenApart = facesOf(ways.filter(w => TAKES_APART.includes(w.choice.route)).map(w => w.facts))
  if (!prefix && partsToTakeOff(facts.faces.filter(f => takenApart.includes(f.id))) > 0)
    all.push(
      node(
        95,
        'take-apart',
        'Take off leaves, doors, drawers and hardware; mark each',
        'flat parts strip, sand and spray more easily; nothing runs into a joint',
        takenApart,
      ),
    )
  if (facts.faces.some(f => f.scope !== 'refinish') && ways.some(w => w.choice.route !== 'refer')) {
    all.push(
      node(
        90,
        'mask',
        'Mask what is left alone; paper over faces, tape on the rim only',
        'nothing runs, sprays or bleeds where it must not',
      ),
      node(890, 'unmask', 'Peel the masking toward the masked side, slowly', 'tape left long leaves its glue'),
    )
  }
  if (ask)
    all.push(node(0, 'approval', "Client's word on route and price", 'nothing is touched before the client said yes'))
  const counts = new Map<string, number>()
  const steps = all
    .sort((a, b) => a.order - b.order)
    .map(({ order: _order, ...step }) => {
      const stem = prefix + [step.kind, step.coat].filter(Boolean).join('-')
      const n = (counts.get(stem) ?? 0) + 1
      counts.set(stem, n)
      return { ...step, key: n === 1 ? stem : `${stem}.${n}` }
    })
  return completePlan(steps, facts, choice, start)
}

/** The plan when every loop goes its worst count. */
export const worstPlan = (plan: Plan, facts: Facts, choice: Choice): Plan =>
  completePlan(worstSteps(plan.steps, facts, choice), facts, choice)
