/** What of a piece's plan is to be placed: its open steps, those that one window ties as one task. */
import { type Air, coatingHours, type HourAir, type HourWeather, shutOutdoors, spansOfHours } from '../air'
import { does, makesDust, type Sections, sectionsWithin, SETUP_MIN, type Step } from '../acts'
import type { Context } from '../context'
import type { Material, Shelf } from '../materials'
import type { Face } from '../piece'
import { type Loop, loopsOf } from '../plan'
import { type BenchStep, type BenchWait, type Spell, windowOf, worked_min } from '../timetable'
import { productOf, sharesOf, type Shares, skillOf } from './asks'
import type { Job, Link, Span, Task } from './model'
import { shapeOf, type Work } from './paces'
import { againOf, type Drying, type Failing, type Unsure } from './unsure'

const MIN_MS = 60_000

export interface OpenStep extends BenchStep {
  id: number
  spells: readonly Spell[]
}
/** Where a step stands in its task, minutes from the task's beginning. */
export interface Stretch {
  stepId: number
  from_min: number
  to_min: number
}
export interface PlannedLink extends Link {
  /** null: it is sure */
  dries: Drying | null
}
export interface PlannedTask extends Task {
  steps: readonly Stretch[]
  after: readonly PlannedLink[]
  unsure: Unsure
  shares: Shares | null
}
export interface PlannedJob extends Job {
  tasks: readonly PlannedTask[]
}
export interface Said {
  pin: Task['pin']
  last: Task['last']
}
export interface PieceToPlan {
  id: number
  due_ms: number | null
  weight: number
  steps: readonly OpenStep[]
  waits: readonly BenchWait[]
  context: Context
  /** real minutes over planned ones */
  pace: (of: Work) => number
  air: Air | null
  /** when somebody's word is expected that is open */
  answer_ms: number
  /** gates that may fail, by the step's key */
  failing: ReadonlyMap<string, Failing>
  /** what was said of a step's place, and where the last schedule had it, by step */
  said: ReadonlyMap<number, Said>
}
export interface PlanningDay {
  now_ms: number
  /** the longest that somebody is there without a break, minutes */
  longest_min: number
  /** where what is in hand is done */
  roomOf: (step: Step) => number | null
}

/** A part of the plan that is one task: steps tied by a window of minutes, in order. */
interface Bundle {
  steps: OpenStep[]
  /** minutes from its beginning at which each begins and ends */
  at: [from: number, to: number][]
  sections: Sections | null
}
const isOpen = (s: OpenStep) => s.state === 'planned' || s.state === 'running'
/** A window in which hands stay by: what is put on is taken off within minutes. */
const ties = (w: BenchWait) => w.kind === 'dwell' && w.hard && w.max !== null

/** Open steps in bundles, in the plan's order. */
function bundles(steps: readonly OpenStep[], waits: readonly BenchWait[]): Bundle[] {
  const of = new Map<string, Bundle>()
  const all: Bundle[] = []
  for (const step of steps) {
    if (!isOpen(step)) continue
    const tie = waits.find(w => w.to === step.key && ties(w) && of.has(w.from))
    const bundle = tie && of.get(tie.from)!
    if (!bundle) {
      const alone = { steps: [step], at: [[0, step.attended_min]] as [number, number][], sections: null }
      of.set(step.key, alone)
      all.push(alone)
      continue
    }
    const [from, to] = bundle.at[bundle.steps.findIndex(s => s.key === tie.from)]!
    if (tie.sections) {
      // both are at work from the first section to the last
      bundle.sections = tie.sections
      bundle.at[bundle.at.length - 1] = [from, from + SETUP_MIN + tie.sections.lastOn_min]
      bundle.at.push([from + SETUP_MIN + tie.sections.firstOff_min, from + 2 * SETUP_MIN + tie.sections.span_min])
    } else {
      const begin = Math.max(to + tie.min, Math.min(to + tie.safe, from + tie.max!))
      const last = Math.max(...bundle.at.map(([, end]) => end))
      bundle.at.push([Math.max(begin, last), Math.max(begin, last) + step.attended_min])
    }
    bundle.steps.push(step)
    of.set(step.key, bundle)
  }
  return all
}

/** As long as the shop's hands really take; what a window of minutes ties keeps the plan's. */
function paced(bundle: Bundle, { piece, faces }: Around): Bundle {
  const [only, ...more] = bundle.steps
  if (!only || more.length > 0) return bundle
  const pace = piece.pace({ kind: only.kind, shape: shapeOf(only.faces.flatMap(id => faces.get(id) ?? [])) })
  return { ...bundle, at: bundle.at.map(([from, to]) => [from, from + (to - from) * pace]) }
}

const lengthOf = ({ at }: Bundle) => Math.max(...at.map(([, to]) => to))

/** One bundle as tasks: one, or where its sections outlast an opening, one for each stint, all of them one length. */
function stints(bundle: Bundle, longest_min: number): Bundle[] {
  const { sections } = bundle
  if (!sections || lengthOf(bundle) <= longest_min) return [bundle]
  const parts: Bundle[] = []
  for (let left = sections.count; left > 0;) {
    const stint = sectionsWithin(sections, left, longest_min - 2 * SETUP_MIN)
    if (!stint) return [bundle]
    const at: [number, number][] = [
      [0, SETUP_MIN + stint.lastOn_min],
      [SETUP_MIN + stint.firstOff_min, 2 * SETUP_MIN + stint.span_min],
    ]
    parts.push({ ...bundle, at, sections: stint })
    left -= stint.count
  }
  return parts
}

/** Everything that hangs on a word that is not given. */
function hanging(steps: readonly OpenStep[], waits: readonly BenchWait[]): ReadonlySet<string> {
  const hangs = new Set<string>()
  for (const step of steps) {
    if (!isOpen(step)) continue
    if (does(step, 'words') || waits.some(w => w.to === step.key && hangs.has(w.from))) hangs.add(step.key)
  }
  return hangs
}

/** What dries between two steps; null where the wait is sure. */
const dryingOf = (from: OpenStep, likely_min: number, safe_min: number): Drying | null =>
  safe_min > likely_min && likely_min > 0
    ? { likely_min, safe_min, of: [from.product ?? from.kind, from.label].filter(x => x !== null).join(' ') }
    : null

interface Bounds {
  opens_ms: number | null
  closes_ms: number | null
  dries: Unsure['opens']
}
/** When what is done lets a step begin, and until when, by the windows that are open. */
function bounds(step: OpenStep, steps: ReadonlyMap<string, OpenStep>, piece: PieceToPlan): Bounds {
  let [opens, closes]: [number | null, number | null] = [null, null]
  let dries: Bounds['dries'] = null
  for (const wait of piece.waits) {
    const from = wait.to === step.key ? steps.get(wait.from) : undefined
    if (!from || from.state !== 'done') continue
    const window = windowOf(wait, from, piece.air)
    if (!window) continue
    const { likely_ms, safe_ms } = window
    if (safe_ms !== null && safe_ms > (opens ?? 0)) {
      opens = safe_ms
      const from_ms = from.finished_ms!
      const its =
        likely_ms === null ? null : dryingOf(from, (likely_ms - from_ms) / MIN_MS, (safe_ms - from_ms) / MIN_MS)
      dries = its && { ...its, from_ms }
    }
    if (window.closes_ms !== null && window.hard) closes = Math.min(closes ?? Infinity, window.closes_ms)
  }
  // the safe hour must not lie beyond the window: then it is looked at before it closes
  return { opens_ms: opens !== null && closes !== null ? Math.min(opens, closes) : opens, closes_ms: closes, dries }
}

type Draft = { -readonly [K in keyof PlannedTask]: PlannedTask[K] }
/** The first and the last task of a step, and where in them it begins and ends. */
interface Lies {
  last: Draft
  from_min: number
  to_min: number
}

/** What a bundle follows: minima from the earlier step's end, maxima from its beginning, both between the tasks. */
function linksTo(
  bundle: Bundle,
  waits: readonly BenchWait[],
  lies: ReadonlyMap<string, Lies>,
  steps: ReadonlyMap<string, OpenStep>,
): PlannedLink[] {
  const inside = new Set(bundle.steps.map(s => s.key))
  return bundle.steps.flatMap((step, i) =>
    waits.flatMap((w): PlannedLink[] => {
      const before = w.to === step.key && !inside.has(w.from) ? lies.get(w.from) : undefined
      if (!before) return []
      const [begins_min] = bundle.at[i]!
      const rest_min = before.last.minutes - before.to_min
      const keeps = w.hard && w.max !== null && w.safe <= w.max
      const max_min = keeps ? w.max! + before.from_min - begins_min : null
      const min_min = Math.max(0, w.safe - rest_min - begins_min)
      return [{ from: before.last.id, min_min, max_min, dries: dryingOf(steps.get(w.from)!, w.likely, w.safe) }]
    }),
  )
}

/** A piece's open steps as a job. Steps that are done or left out are in no task. */
export function jobOf(piece: PieceToPlan, day: PlanningDay): PlannedJob {
  const { steps, waits } = piece
  const around: Around = {
    ...{ piece, day, byKey: new Map(steps.map(s => [s.key, s])), hangs: hanging(steps, waits) },
    faces: new Map(piece.context.facts.faces.map(f => [f.id, f])),
    loops: loopsOf(
      steps.filter(s => s.state !== 'skipped'),
      piece.context,
    ),
  }
  const tasks: PlannedTask[] = []
  const lies = new Map<string, Lies>()
  for (const bundle of bundles(steps, waits).map(b => paced(b, around))) {
    const parts = stints(bundle, day.longest_min)
    const own = parts.map((part, n) => taskFrom(part, n, around))
    own.forEach((t, n) => {
      const before = { from: own[n - 1]?.id ?? '', min_min: 0, max_min: null, dries: null }
      t.after = n === 0 ? linksTo(bundle, waits, lies, around.byKey) : [before]
    })
    tasks.push(...own)
    bundle.steps.forEach((s, i) => {
      const [[from_min], [, to_min]] = [parts[0]!.at[i]!, parts.at(-1)!.at[i]!]
      lies.set(s.key, { last: own.at(-1)!, from_min, to_min })
    })
  }
  return { id: piece.id, due_ms: piece.due_ms, weight: piece.weight, tasks }
}

interface Around {
  piece: PieceToPlan
  day: PlanningDay
  byKey: ReadonlyMap<string, OpenStep>
  faces: ReadonlyMap<number, Face>
  hangs: ReadonlySet<string>
  loops: readonly Loop[]
}
function taskFrom(part: Bundle, n: number, { piece, day, byKey, faces, hangs, loops }: Around): Draft {
  const [first] = part.steps as [OpenStep, ...OpenStep[]]
  const id = n === 0 ? `${first.id}` : `${first.id}/${n + 1}`
  const running = n === 0 && part.steps.some(s => s.state === 'running')
  const word = does(first, 'words')
  const wet = part.steps.find(s => does(s, 'lingers'))
  const product = wet ? productOf(piece.context.shelf, wet) : null
  const its = part.steps.flatMap(s => s.faces.flatMap(f => faces.get(f) ?? []))
  const all = [...new Set(its)]
  const length = lengthOf(part)
  const spent = running ? part.steps.reduce((sum, s) => sum + worked_min(s.spells, day.now_ms), 0) : 0
  const { opens_ms, closes_ms, dries } = bounds(first, byKey, piece)
  const keys = part.steps.map(s => s.key)
  const said = piece.said.get(first.id)
  const inHand = part.steps.find(s => s.state === 'running')
  const answer_min = Math.max(0, (piece.answer_ms - day.now_ms) / MIN_MS)
  return {
    ...{ id, steps: part.steps.map((s, i) => ({ stepId: s.id, from_min: part.at[i]![0], to_min: part.at[i]![1] })) },
    minutes: word ? answer_min : Math.max(0, length - spent),
    ...{ hands: word ? 0 : 1, skill: skillOf(first), ifYes: part.steps.some(s => hangs.has(s.key)) },
    makes: madeBy(part, wet !== undefined),
    product: wet ? [wet.product, wet.label].filter(x => x !== null).join(' ') : null,
    air: product?.air ? airKey(wet!, product) : null,
    wet_min: product?.recoat_min[0] ?? 0,
    area_m2: all.reduce((sum, f) => sum + f.area_m2, 0),
    length_mm: Math.max(0, ...all.map(f => f.length_mm)),
    whole: part.steps.length > 1,
    ...{ after: [], opens_ms, closes_ms },
    begun: inHand
      ? {
          start_ms: inHand.started_ms!,
          handId: inHand.spells.findLast(s => s.to_ms === null)?.personId ?? inHand.spells.at(-1)?.personId ?? null,
          roomId: day.roomOf(first),
        }
      : null,
    unsure: {
      opens: dries,
      again: againOf(keys, loops, piece.steps, piece.waits),
      fails: keys.map(k => piece.failing.get(k)).find(f => f !== undefined) ?? null,
    },
    shares: part.steps.flatMap(st => sharesOf(st, piece.context) ?? [])[0] ?? null,
    ...{ pin: n === 0 ? (said?.pin ?? null) : null, last: n === 0 ? (said?.last ?? null) : null },
  }
}
const madeBy = (part: Bundle, wet: boolean): Task['makes'] => {
  if (wet) return 'wet'
  return part.steps.some(makesDust) ? 'dust' : 'other'
}

/** Coats with one need of air and one time wet share their hours. */
const airKey = (step: Step, { air, recoat_min }: Material): string =>
  `${step.product} ${step.label ?? ''} ${recoat_min[0]} ${JSON.stringify(air)}`

/** Needs of air among steps, by the key that their tasks carry. */
export function airNeeds(steps: readonly Step[], shelf: Shelf): Map<string, Material> {
  const needs = new Map<string, Material>()
  for (const step of steps) {
    const product = does(step, 'lingers') ? productOf(shelf, step) : null
    if (product?.air) needs.set(airKey(step, product), product)
  }
  return needs
}

/** So long a coat stays wet in the air of its label, whole hours. */
const wetHours = ({ recoat_min }: Pick<Material, 'recoat_min'>): number => Math.ceil(recoat_min[0] / 60)
/** When no coat may begin for the room's air, as spans; hours that nobody foretells close nothing. */
export function closedHours(product: Material, hours: readonly HourAir[]): Span[] {
  const judged = coatingHours(product.air!, { hours: [...hours], seen: 24 }, wetHours(product), () => true)
  return spansOfHours(judged.filter(h => h.severity === 'stop'))
}
/** The same outdoors, where hours that nobody foretells are closed. */
export const closedOutdoors = (
  product: Pick<Material, 'air' | 'recoat_min'>,
  weather: readonly HourWeather[],
  within: Span,
): Span[] => shutOutdoors(product.air, weather, wetHours(product), within)
