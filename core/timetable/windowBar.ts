/** Where the edges of a window bar lie, as fractions 0–1 of the drawn span. */
import type { Window } from './mayStart'

export interface BarEdges {
  start: number
  opens: number | null
  safe: number | null
  closes: number | null
  now: number
  phase: 'running' | 'waits' | 'may' | 'closing' | 'late'
}

/** A window counts as closing inside this many minutes. */
export const CLOSING_MIN = 30

/** Edges of one window drawn over `span`; values outside the span are clipped. */
export function barEdges(w: Window, span: readonly [number, number], now_ms: number): BarEdges {
  const x = (at: number) => Math.min(1, Math.max(0, (at - span[0]) / (span[1] - span[0])))
  const maybe = (at: number | null) => (at === null ? null : x(at))
  const left = w.closes_ms === null ? Infinity : w.closes_ms - now_ms
  const phaseNow = (): BarEdges['phase'] => {
    if (left < 0) return 'late'
    if (w.opens_ms === null) return 'running'
    if (now_ms < w.opens_ms) return 'waits'
    return left <= CLOSING_MIN * 60_000 ? 'closing' : 'may'
  }
  const phase = phaseNow()
  return {
    start: x(w.start_ms),
    opens: maybe(w.opens_ms),
    safe: maybe(w.safe_ms),
    closes: maybe(w.closes_ms),
    now: x(now_ms),
    phase,
  }
}
