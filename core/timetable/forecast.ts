/**
 * When each step would be done, by the waits and the hours alone: one pair of hands on the piece whenever it is free.
 */
import { does, type Sections, sectionsWithin, SETUP_MIN, type Step, type Wait } from '../acts'
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
      const on_ms = result.get(taken.from)?.start_ms ?? from_ms
      const times = inStints(hours, on_ms, taken.sections!)
      const start_ms = Math.max(from_ms, times.firstOff_ms)
      const left_ms = done.get(taken.from)?.finished_ms ? afterWorking(hours, start_ms, step.attended_min) : from_ms
      result.set(step.key, { key: step.key, start_ms, end_ms: Math.max(left_ms, times.end_ms) })
      continue
    }
    const goesOn = (after.get(step.key) ?? []).find(w => w.sections)?.sections
    if (goesOn) {
      const { start_ms, lastOn_ms } = inStints(hours, ready, goesOn)
      result.set(step.key, { key: step.key, start_ms, end_ms: lastOn_ms })
      continue
    }
    const window = Math.max(
      0,
      ...(after.get(step.key) ?? []).filter(w => w.hard && w.max !== null && w.kind === 'dwell').map(w => w.max!),
    )
    result.set(step.key, { key: step.key, ...place(hours, ready, step.attended_min, window) })
  }
  return [...result.values()]
}

/**
 * Sections over closing time: none goes on that does not come off while the shop is open. Where not one would in a
 * whole opening, the work is stretched over the hours.
 */
function inStints(hours: Hours, ready_ms: number, s: Sections) {
  const stretched = (from_ms: number) => (minutes: number) => afterWorking(hours, from_ms, minutes)
  let first: { start_ms: number; firstOff_ms: number } | null = null
  for (let [left, at] = [s.count, ready_ms]; ;) {
    const [open, close] = nextSpan(hours, at)
    const start_ms = Math.max(open, at)
    const room_min = (close - start_ms) / MIN_MS - 2 * SETUP_MIN
    const stint = s.span_min <= room_min && left === s.count ? s : sectionsWithin(s, left, room_min)
    if (!stint && start_ms === open) {
      const after = stretched(first?.start_ms ?? start_ms)
      const [firstOff, lastOn] = [SETUP_MIN + s.firstOff_min, SETUP_MIN + s.lastOn_min]
      const end_ms = after(2 * SETUP_MIN + s.span_min)
      return { start_ms: first?.start_ms ?? start_ms, firstOff_ms: after(firstOff), lastOn_ms: after(lastOn), end_ms }
    }
    at = close
    if (!stint) continue
    const from = stretched(start_ms)
    first ??= { start_ms, firstOff_ms: from(SETUP_MIN + stint.firstOff_min) }
    left -= stint.count
    if (left > 0) continue
    const [lastOn, all] = [SETUP_MIN + stint.lastOn_min, 2 * SETUP_MIN + stint.span_min]
    return { ...first, lastOn_ms: from(lastOn), end_ms: from(all) }
  }
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
