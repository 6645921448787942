/** What a step holds up: the longest way from its start to the end of the plan. */
import type { BenchStep, BenchWait } from './mayStart'

/**
 * Minutes of hands and safe waits from the start of each planned or running step to the end of what hangs on it, the
 * step's own minutes among them. Nights and closed days are not counted.
 */
export function behind_min(
  steps: readonly Pick<BenchStep, 'key' | 'state' | 'attended_min'>[],
  waits: readonly Pick<BenchWait, 'from' | 'to' | 'safe'>[],
): Map<string, number> {
  const after = new Map<string, { to: string; safe: number }[]>()
  for (const { from, to, safe } of waits) after.set(from, [...(after.get(from) ?? []), { to, safe }])
  const behind = new Map<string, number>()
  for (const step of steps.toReversed()) {
    if (step.state === 'skipped' || step.state === 'done') continue
    const next = (after.get(step.key) ?? []).map(w => w.safe + (behind.get(w.to) ?? 0))
    behind.set(step.key, step.attended_min + Math.max(0, ...next))
  }
  return behind
}
