/** Who had a step in hand, from when to when; its attended time is their sum. Windows run on while nobody has it. */

export interface Spell {
  id: number
  personId: number
  by: string
  /** the tablet of the shop at which it was said; null: a device of somebody's own */
  at: string | null
  from_ms: number
  /** null: still in hand */
  to_ms: number | null
}

/** Minutes of hands until a moment; two people at it count twice. */
export const worked_min = (spells: readonly Pick<Spell, 'from_ms' | 'to_ms'>[], now_ms: number): number =>
  spells.reduce((sum, s) => sum + Math.max(0, Math.min(s.to_ms ?? now_ms, now_ms) - s.from_ms), 0) / 60_000

/** Spells that nobody has ended yet. */
export const inHand = <S extends Pick<Spell, 'to_ms'>>(spells: readonly S[]): S[] =>
  spells.filter(s => s.to_ms === null)
