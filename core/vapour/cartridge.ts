/**
 * Cartridges for organic vapour: how long one is good. What their maker and the shop's own change schedule say outranks
 * these figures (common practice; from memory).
 */
export const CARTRIDGE = { lasts_h: 8, lasts_d: 30 } as const
/** So much before its end it is told. */
const SOON_H = 1

export interface Fitted {
  fitted_ms: number
  lasts_h: number
  lasts_d: number
  /** minutes of solvent work behind it since */
  worn_min: number
}
/** `over`: change it before the next solvent work; `soon`: less than an hour, or a day, is left. */
export function cartridgeState({ fitted_ms, lasts_h, lasts_d, worn_min }: Fitted, now_ms: number) {
  const left_h = lasts_h - worn_min / 60
  const until_ms = fitted_ms + lasts_d * 86_400_000
  if (left_h <= 0 || now_ms >= until_ms) return { state: 'over' as const, left_h: Math.max(0, left_h), until_ms }
  const soon = left_h < SOON_H || until_ms - now_ms < 86_400_000
  return { state: soon ? ('soon' as const) : ('good' as const), left_h, until_ms }
}
