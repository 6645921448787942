/** Minutes, amounts, titles and waits of a list of steps: after planning, and after every change made by hand. */
import type { Air } from '../air'
import { finest, isCoarser, type VeneerBudget } from '../abrasives'
import {
  actOf,
  attended_min,
  does,
  type Fields,
  firstAfter,
  inSections,
  isBare,
  type LadderPlace,
  type Sections,
  SETUP_MIN,
  type Spot,
  type Step,
  type StepKind,
  type Surface,
  titleOf,
  unitsOf,
  type Visit,
  waitsBetween,
  type Wait,
  walk,
} from '../acts'
import { type Choice, groupsIn, groupsOfWay, waysOf } from '../build'
import { need_ml } from '../coverage'
import type { Context } from '../context'
import { windowFactor } from '../drying'
import { reducer_pct, taken } from '../materials'
import {
  type Face,
  type Facts,
  type Finding,
  FINDING_KINDS,
  type FindingKind,
  FINDINGS,
  type Group,
  mendingOf,
  type Mending,
  spotsOn,
} from '../piece'
import { faceArea_m2, round, sumOf } from '../units'
import { speciesOf } from '../wood'
import { budgetOf } from './stages'

export interface Plan {
  steps: Step[]
  waits: Wait[]
  budgets: { group: Group; budget: VeneerBudget }[]
}

/** Area of a band along the edges of a face, m²; of a narrower face all of it. */
function bandArea_m2({ shape, length_mm, width_mm, copies, area_m2 }: Face, band_mm: number): number {
  const inside = { length_mm: length_mm - 2 * band_mm, width_mm: width_mm - 2 * band_mm }
  if (inside.length_mm <= 0 || inside.width_mm <= 0) return area_m2
  return Math.min(area_m2, area_m2 - faceArea_m2({ ...inside, shape, count: copies }))
}
/** Marks that a step on spots works on: those it names, else all that the client wants mended. */
const spotKinds = ({ fields }: Pick<Step, 'fields'>): readonly FindingKind[] =>
  fields.spots?.map(s => s.kind) ?? FINDING_KINDS
const wanted = ({ findings }: Pick<Facts, 'findings'>): Finding[] => findings.filter(f => f.wish === 'mend')
/** The faces of a step, each with the area that it works on. */
const facesWorked = (step: Pick<Step, 'faces' | 'fields'>, facts: Pick<Facts, 'faces' | 'findings'>): Face[] =>
  facts.faces
    .filter(f => step.faces.includes(f.id))
    .map(f => {
      const { band_mm, where } = step.fields
      if (where === 'spots') return { ...f, area_m2: spotsOn(f, spotKinds(step), wanted(facts)).area_m2 }
      return band_mm ? { ...f, area_m2: bandArea_m2(f, band_mm) } : f
    })
/** Minutes for each mark and pass, beside the set-up: going to it, round it, and looking (shop default). */
const SPOT_MIN = 2
/** What a step on spots works on, counted and measured; undefined for one on whole faces. */
function spotsOf(step: Step, facts: Facts): Fields['spots'] {
  if (step.fields.where !== 'spots') return undefined
  const faces = facts.faces.filter(f => step.faces.includes(f.id))
  const rows = spotKinds(step).map((kind): Spot => {
    const on = faces.map(f => spotsOn(f, [kind], wanted(facts)))
    return { kind, places: sumOf(on, o => o.places), cm2: round(sumOf(on, o => o.area_m2) * 10_000) }
  })
  return rows.filter(r => r.places > 0 || step.fields.spots)
}

/** What one step takes out of the can, ml, from the areas of its faces. Null for a step that uses no product up. */
export function amount_ml(
  step: Pick<Step, 'product' | 'label' | 'coat' | 'passes' | 'faces' | 'kind' | 'fields'>,
  { facts, shelf }: Context,
  bare: boolean,
): number | null {
  const material = taken(shelf, step)
  if (!material || !actOf(step).usesUp) return null
  const need = (soft: boolean) => {
    const faces = facesWorked(step, facts).filter(f => speciesOf(f.species).softwood === soft)
    const area_m2 = sumOf(faces, f => f.area_m2)
    const bareSoft = soft && bare && material.role === 'film'
    return area_m2 > 0 ? need_ml({ material, area_m2, coat: step.coat ?? 1, bareSoft }) : 0
  }
  const fromTheCan = 1 / (1 + reducer_pct(step.fields) / 100)
  return (need(true) + need(false)) * step.passes * fromTheCan
}

const isLadder = (step: Step) => step.kind === 'sand'
const finerThan = (a: Step, b: Step) => {
  const [its, other] = [finest(a.grits), finest(b.grits)]
  return its !== null && (other === null || isCoarser(other, its))
}

const placesAmong = (visits: readonly Visit[]): Map<string, LadderPlace> => {
  return new Map(
    visits
      .filter(v => isLadder(v.step))
      .map(v => [
        v.step.key,
        { first: v.before.grit === null, last: !firstAfter(v, u => isLadder(u.step) && finerThan(u.step, v.step)) },
      ]),
  )
}

/** Where each sanding step stands in its ladder: the first takes what stripping left, the last ends by hand. */
export const sandPlaces = (steps: readonly Step[], context: Context, choice: Choice): Map<string, LadderPlace> =>
  placesAmong(walk(steps, unitsOf(steps, groupsIn(context, choice)), context))

/** What mends whatever no step of its own does: dents are filled where nothing is steamed. */
const MENDS_ALL: StepKind = 'mend'
/** What a repair step mends on its faces, each kind by its own act; only what no step before it mends. */
function repairsOf(step: Step, steps: readonly Step[], facts: Facts): Mending[] {
  if (!does(step, 'mends')) return []
  const before = steps.slice(
    0,
    steps.findIndex(s => s.key === step.key),
  )
  const earlier = new Set(before.filter(s => s.kind === step.kind).flatMap(s => s.faces))
  return mendingOf({
    ...facts,
    faces: facts.faces.filter(f => step.faces.includes(f.id) && !earlier.has(f.id)),
    findings: facts.findings.filter(f => {
      const by = FINDINGS[f.kind].mend?.by
      const own = steps.some(s => s.kind === by && s.faces.includes(f.faceId))
      return by === step.kind || (step.kind === MENDS_ALL && by === 'steam' && !own)
    }),
  })
}

function repaired(
  { fields: { repairs: _was, ...fields }, ...step }: Step,
  repairs: readonly Mending[],
  facts: Facts,
): Step {
  const moves = step.kind === 'mend' && facts.movingCracks.some(id => step.faces.includes(id))
  const told = repairs.map(m => ({ kind: m.kind, places: m.places }))
  const filler = moves && !fields.filler ? { filler: 'stretching' as const } : {}
  return { ...step, fields: { ...fields, ...filler, ...(told.length ? { repairs: told } : {}) } }
}

/** Work itself, without setting up and clearing. */
const hands_min = (step: Step) => Math.max(1, step.attended_min - SETUP_MIN)
/** The sections in which `from` goes on and `to` takes it off before it sets; undefined where nothing sets. */
function sectioned(from: Step, to: Step, wait: Wait, context: Context): Sections | undefined {
  if (wait.kind !== 'dwell' || wait.max === null || does(to, 'covers') || !actOf(from).open(from, context))
    return undefined
  const heat = windowFactor(context.air)
  const window = { opens_min: wait.likely * heat, closes_min: wait.max * heat }
  return inSections({ on_min: hands_min(from), off_min: hands_min(to), ...window }) ?? undefined
}

const dries = (w: Wait) => ['dry', 'recoat', 'harden'].includes(w.kind)
/** All waits of a plan. A house that trusts the label plans with the likely end, not the safe one. */
export function waitsOf(steps: readonly Step[], context: Context, airAfter?: (step: Step) => Air): Wait[] {
  const byKey = new Map(steps.map(s => [s.key, s]))
  const byLabel = context.house['dry-by'] === 'label'
  return waitsBetween(steps, context, airAfter).map(wait => {
    const [from, to] = [byKey.get(wait.from)!, byKey.get(wait.to)!]
    const sections = sectioned(from, to, wait, context)
    return { ...wait, ...(byLabel && dries(wait) ? { safe: wait.likely } : {}), ...(sections ? { sections } : {}) }
  })
}

/** Fills in minutes, amounts, titles and waits of a list of steps. What was typed by hand stays as it was typed. */
export function completePlan(
  steps: readonly Step[],
  context: Context,
  choice: Choice,
  start?: (g: Group) => Surface,
): Plan {
  const { facts } = context
  const bareAt = new Map<string, boolean>()
  const visits = walk(steps, unitsOf(steps, groupsIn(context, choice)), context, start)
  const placeAt = placesAmong(visits)
  for (const v of visits) bareAt.set(v.step.key, (bareAt.get(v.step.key) ?? true) && isBare(v.before))
  const filled = steps.map((given): Step => {
    const faces = facesWorked(given, facts)
    const repairs = repairsOf(given, steps, facts)
    const spots = spotsOf(given, facts)
    const marked = spots ? { ...given, fields: { ...given.fields, spots } } : given
    const step = does(given, 'mends') ? repaired(given, repairs, facts) : marked
    const typed = (what: Step['typed'][number]) => step.typed.includes(what)
    const worked = repairs.length
      ? SETUP_MIN + sumOf(repairs, m => m.minutes)
      : attended_min(step, faces, context, placeAt.get(step.key)) +
        SPOT_MIN * sumOf(spots ?? [], spot => spot.places) * step.passes
    return {
      ...step,
      title: titleOf(step, context),
      attended_min: typed('attended_min') ? step.attended_min : Math.ceil(worked),
      amount_ml: typed('amount_ml') ? step.amount_ml : amount_ml(step, context, bareAt.get(step.key) ?? false),
    }
  })
  const budgets = waysOf(context, choice).flatMap(way =>
    groupsOfWay(way).flatMap(group => {
      const budget = budgetOf({ ...context, facts: way.facts }, group, way.buildUp)
      return budget ? [{ group, budget }] : []
    }),
  )
  return { steps: filled, waits: waitsOf(filled, context), budgets }
}
