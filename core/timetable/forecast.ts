/**
 * When each step would be done, by the waits and the hours alone: one pair of hands on the piece whenever it is free.
 */
import { does, SETUP_MIN, type Step, type Wait } from '../acts'
import { afterWorking, type Hours, nextSpan } from './hours'

const MIN_MS = 60_000

function groupBy<T>(rows: readonly T[], key: (row: T) => string): Map<string, T[]> {
  const groups = new Map<string, T[]>()
  for (const row of rows) groups.set(key(row), [...(groups.get(key(row)) ?? []), row])
  return groups
}

export interface Forecast {
  key: string
  start_ms: number
  end_ms: number
}
export interface ForecastInput {
  steps: readonly Step[]
  waits: readonly Wait[]
  hours: Hours
  from_ms: number
  by: 'likely' | 'safe'
  /** what has already happened */
  done?: ReadonlyMap<string, { started_ms: number; finished_ms: number | null }>
  /** minutes the client is given to answer */
  answer_min?: number
}

/** Start and end of every step. A step that opens a hard window begins only where that window ends before closing. */
export function forecast(input: ForecastInput): Forecast[] {
  const { steps, waits, hours, from_ms, by, done = new Map(), answer_min = 0 } = input
  const result = new Map<string, Forecast>()
  const before = groupBy(waits, w => w.to)
  const after = groupBy(waits, w => w.from)
  for (const step of steps) {
    const real = done.get(step.key)
    if (real?.finished_ms) {
      result.set(step.key, { key: step.key, start_ms: real.started_ms, end_ms: real.finished_ms })
      continue
    }
    const ready = Math.max(
      from_ms,
      ...(before.get(step.key) ?? []).map(w => (result.get(w.from)?.end_ms ?? from_ms) + w[by] * MIN_MS),
    )
    if (real) {
      result.set(step.key, {
        key: step.key,
        start_ms: real.started_ms,
        end_ms: Math.max(from_ms, real.started_ms + step.attended_min * MIN_MS),
      })
      continue
    }
    if (does(step, 'words')) {
      result.set(step.key, { key: step.key, start_ms: ready, end_ms: ready + answer_min * MIN_MS })
      continue
    }
    const taken = (before.get(step.key) ?? []).find(w => w.sections)
    if (taken) {
      // taken off section by section, while the rest goes on
      const { firstOff_min, span_min } = taken.sections!
      const on_ms = result.get(taken.from)?.start_ms ?? from_ms
      const start_ms = Math.max(from_ms, afterWorking(hours, on_ms, SETUP_MIN + firstOff_min))
      const left_ms = done.get(taken.from)?.finished_ms ? afterWorking(hours, start_ms, step.attended_min) : from_ms
      const end_ms = Math.max(left_ms, afterWorking(hours, on_ms, 2 * SETUP_MIN + span_min))
      result.set(step.key, { key: step.key, start_ms, end_ms })
      continue
    }
    const goesOn = (after.get(step.key) ?? []).find(w => w.sections)?.sections
    const hands_min = goesOn ? Math.max(step.attended_min, SETUP_MIN + goesOn.lastOn_min) : step.attended_min
    const window = Math.max(
      0,
      ...(after.get(step.key) ?? []).filter(w => w.hard && w.max !== null && w.kind === 'dwell').map(w => w.max!),
    )
    result.set(step.key, { key: step.key, ...place(hours, ready, hands_min, window) })
  }
  return [...result.values()]
}

function place(hours: Hours, ready: number, attended: number, window: number) {
  let [open, close] = nextSpan(hours, ready)
  let start = Math.max(open, ready)
  for (let tries = 0; window > 0 && start + window * MIN_MS > close && tries < 14; tries++) {
    ;[open, close] = nextSpan(hours, close)
    start = open
  }
  return { start_ms: start, end_ms: afterWorking(hours, start, attended) }
}
