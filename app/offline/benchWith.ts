/**
 * Now and plans with what was done on this device and has not gone in: worked out here as the server will, from the
 * plan that the device carries, by the same functions.
 */
import { type Shelf, taken } from '#core/materials'
import {
  type Foretelling,
  foretold,
  inHand,
  lateSays,
  type ToldAct,
  type ToldStep,
  together,
  type Window,
  windowOf,
  withTold,
} from '#core/timetable'
import type { BenchNow, PlanPage, RunningLine, StepLine, WindowLine } from '~/composables/bench'
import type { Waiting } from './carried'

interface BenchBody {
  kind: string
  personId?: number
  outside?: boolean
  what?: 'on' | 'off' | 'back'
}
const bodyOf = (act: Waiting) => act.asking.body as BenchBody
type Named = readonly { id: number; name: string }[]

/** Acts of a step as they were told, in order. */
function toldOf(waiting: readonly Waiting[], stepId: number, people: Named): ToldAct[] {
  return waiting
    .filter(a => a.stepId === stepId && a.key === 'POST /api/bench')
    .map(a => {
      const { kind, personId, what } = bodyOf(a)
      const named = people.find(p => p.id === personId)
      const person = kind === 'go-on' && named ? named : { id: a.personId, name: a.person }
      return { kind, at_ms: a.happened_ms, person, to: named, section: what }
    })
}

export interface Known {
  shelf: Shelf
  people: Named
  clock: (ms: number) => string
}
/** A plan as it stands with what waits, judged anew at this moment. */
export function planWith(
  plan: PlanPage,
  waiting: readonly Waiting[],
  now_ms: number,
  { shelf, people, clock }: Known,
): PlanPage {
  const ids = new Set(waiting.flatMap(a => a.stepId ?? []))
  const acts = new Map([...ids].map(id => [id, toldOf(waiting, id, people)]))
  const { waits, verdicts, hours, wetCoat, airNow: air, now_ms: told_ms } = plan
  const asked = { steps: plan.steps, waits, verdicts, hours, wetCoat, air, told_ms, now_ms, shelf, clock }
  // on its way as JSON it lost its types, not its shape
  const steps = foretold(asked as unknown as Foretelling<ToldStep>, acts) as unknown as PlanPage['steps']
  return { ...plan, steps }
}

type PlanStep = PlanPage['steps'][number]
interface Piece {
  id: number
  name: string
  shelf: Shelf
}
const lineOf = (step: PlanStep, piece: Piece): StepLine =>
  ({
    ...step,
    ...{ pieceId: piece.id, piece: piece.name, stepId: step.id, faces: step.faceNames.join(', ') },
    ...{ potted: Boolean(taken(piece.shelf, step)?.potLife_min), recipe: step.fields.recipe ?? null },
    on: step.faces.map((id, i) => ({ id, name: step.faceNames[i] ?? '' })),
    ...{ inside: step.start.may, outside: step.start.outside, behind_min: 0, since_ms: step.start.opens_ms },
    ...{ latest_ms: step.start.latest_ms, closes_ms: step.start.closes_ms, warnings: step.start.warnings },
    planned: null,
  }) as StepLine

const runningOf = (step: PlanStep, piece: Piece): RunningLine =>
  ({
    ...lineOf(step, piece),
    ...{ started_ms: step.started_ms!, startedBy: null, outside: step.outside, spells: step.spells, left_ms: null },
  }) as RunningLine

/** What opens and closes on one piece. */
function windowsOf(plan: PlanPage, piece: Piece, now_ms: number): WindowLine[] {
  const byKey = new Map(plan.steps.map(s => [s.key, s]))
  return plan.steps.flatMap(to => {
    const own = plan.waits.flatMap((w): Window[] => {
      const from = w.to === to.key ? byKey.get(w.from) : undefined
      if (!from || from.state === 'skipped' || from.kind === 'approval' || (w.min === 0 && w.max === null)) return []
      if (to.state !== 'planned' && !(to.state === 'running' && from.laid.length > 0)) return []
      const window = windowOf(w, from, plan.airNow)
      return window ? [window] : []
    })
    const [first, ...more] = own
    if (!first) return []
    const window = together([first, ...more])
    const from = byKey.get(window.from)!
    const late = window.closes_ms !== null && window.closes_ms < now_ms
    const held = inHand(from.spells)
    return {
      ...window,
      ...{ pieceId: piece.id, piece: piece.name, step: lineOf(to, piece), running: from.state === 'running' },
      ...{ acknowledged: null, late: late ? lateSays(from) : null },
      hands: (held.length ? held : from.spells.slice(-1)).map(s => s.personId),
    }
  })
}

/** A piece of Now as its plan, which this device carries, has become. */
function pieceWith(bench: BenchNow, piece: Piece, plan: PlanPage, now_ms: number): BenchNow {
  const others = (line: { pieceId: number }) => line.pieceId !== piece.id
  const planned = plan.steps.filter(s => s.state === 'planned' && s.kind !== 'approval')
  const closes = (l: WindowLine) => l.closes_ms ?? (l.opens_ms ?? Infinity) + 1e12
  return {
    ...bench,
    running: [
      ...bench.running.filter(others),
      ...plan.steps.filter(s => s.state === 'running').map(s => runningOf(s, piece)),
    ],
    may: [
      ...planned.filter(s => s.start.may).map(s => lineOf(s, piece) as BenchNow['may'][number]),
      ...bench.may.filter(others),
    ],
    mustNot: bench.mustNot.filter(others),
    windows: [...bench.windows.filter(others), ...windowsOf(plan, piece, now_ms)].sort((a, b) => closes(a) - closes(b)),
  }
}

/** A step of Now where the device carries no plan of its piece: begun or ended here, it stands where it belongs. */
function stepWith(bench: BenchNow, stepId: number, acts: readonly ToldAct[]): BenchNow {
  const runs = bench.running.find(l => l.stepId === stepId)
  const line = runs ?? bench.may.find(l => l.stepId === stepId)
  if (!line) return bench
  const blank = { started_ms: null as number | null, finished_ms: null, spells: [] }
  const was = runs
    ? { ...runs, finished_ms: null, state: 'running' as const }
    : { ...line, ...blank, state: 'planned' as const }
  const is = withTold(was, acts)
  const rest = (l: { stepId: number }) => l.stepId !== stepId
  return {
    ...bench,
    may: is.state === 'planned' ? bench.may : bench.may.filter(rest),
    running:
      is.state === 'running'
        ? [...bench.running.filter(rest), { ...is, startedBy: null, left_ms: null, outside: false } as RunningLine]
        : bench.running.filter(rest),
  }
}

/** Now with all that waits; `plans` by piece, as far as this device carries them. */
export function benchWith(
  bench: BenchNow,
  waiting: readonly Waiting[],
  plans: ReadonlyMap<number, { plan: PlanPage; shelf: Shelf; name: string }>,
  now_ms: number,
  clock: Known['clock'],
): BenchNow {
  let is = bench
  const acts = waiting.filter(a => a.key === 'POST /api/bench')
  for (const pieceId of new Set(acts.flatMap(a => a.pieceId ?? []))) {
    const its = acts.filter(a => a.pieceId === pieceId)
    const known = plans.get(pieceId)
    if (known) {
      const { plan, shelf, name } = known
      const asOf = planWith(plan, its, now_ms, { shelf, people: bench.people, clock })
      is = pieceWith(is, { id: pieceId, name, shelf }, asOf, now_ms)
    } else {
      for (const id of new Set(its.flatMap(a => a.stepId ?? []))) is = stepWith(is, id, toldOf(its, id, bench.people))
    }
  }
  return is
}
