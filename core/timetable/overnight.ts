/** What was left in hand when the shop closed. */
import { closingOf, type Hours, spanAt } from './hours'
import { inHand, type Spell } from './spells'

/**
 * The closing hour over which a step was left in hand, once the shop is open again; null: it was not. Work begun while
 * the shop was closed was left when it began.
 */
export function leftAt_ms(spells: readonly Spell[], hours: Hours, now_ms: number): number | null {
  const from_ms = Math.min(...inHand(spells).map(s => s.from_ms))
  const open = spanAt(hours, now_ms)
  if (!Number.isFinite(from_ms) || !open || from_ms >= open[0]) return null
  return closingOf(hours, from_ms) ?? from_ms
}
