/** How much later a piece is ready where one of its gates fails, by the piece alone. */
import { type GateRecord, afterFallback, fallBackFrom, inThisShop } from '#core/plan'
import type { Failing } from '#core/schedule'
import { forecast, type Hours } from '#core/timetable'
import type { Active } from '../bench/active'
import type { PlannedStep } from '../plan/rows'

const MIN_MS = 60_000
interface Asked {
  hours: Hours
  record: Readonly<Record<string, GateRecord>>
  now_ms: number
}
/** As long as a piece is kept as it is, its fallbacks take as long. */
const known = new WeakMap<Active, ReadonlyMap<string, Failing>>()
/** Chance and delay of each open gate, by its step's key. A gate whose fallback cannot be worked out is left out. */
export function failingGates(piece: Active, asked: Asked): ReadonlyMap<string, Failing> {
  const found = known.get(piece) ?? workOut(piece, asked)
  known.set(piece, found)
  return found
}

function workOut({ file, plan }: Active, { hours, record, now_ms }: Asked): ReadonlyMap<string, Failing> {
  const found = new Map<string, Failing>()
  if (!plan || !file.choice) return found
  const steps = plan.steps.filter(s => s.state !== 'skipped')
  const done = new Map(
    steps.flatMap(s =>
      s.started_ms === null ? [] : [[s.key, { started_ms: s.started_ms, finished_ms: s.finished_ms }]],
    ),
  )
  const ready = (p: Pick<Parameters<typeof forecast>[0], 'steps' | 'waits'>) =>
    Math.max(now_ms, ...forecast({ ...p, hours, from_ms: now_ms, by: 'likely', done }).map(r => r.end_ms))
  const planned_ms = ready({ steps, waits: plan.waits })
  for (const [i, gate] of steps.entries()) {
    if (!isOpenGate(gate)) continue
    const [before, left] = [steps.slice(0, i + 1), steps.slice(i + 1)]
    try {
      const over = fallBackFrom(gate, before, left, file.context, file.choice, false)
      const late_min = Math.max(0, (ready(afterFallback(over, before, left, file.context)) - planned_ms) / MIN_MS)
      found.set(gate.key, { chance: inThisShop(gate.gate!.chance, record[gate.gate!.slug]), late_min })
    } catch {
      // the piece is placed all the same
    }
  }
  return found
}
const isOpenGate = (s: PlannedStep) => s.state === 'planned' && Boolean(s.gate?.fallback)
