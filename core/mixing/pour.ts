/** Pouring on the balance: when to stop, and what to do with too much. Grams. */

/** So near to the target the pour slows. Shop default, unsourced. */
export const NEARLY = 0.9

export type PourState = 'empty' | 'pouring' | 'nearly' | 'there' | 'over'
/** Where a pour stands. `tolerance_g` is what the balance cannot tell, or what does not matter. */
export function pourState(weight_g: number, target_g: number, tolerance_g: number): PourState {
  if (weight_g > target_g + tolerance_g) return 'over'
  if (weight_g >= target_g - tolerance_g) return 'there'
  if (weight_g >= target_g * NEARLY) return 'nearly'
  return weight_g > tolerance_g ? 'pouring' : 'empty'
}

/** A share that is off by less than this of itself is left as it is. Shop default, unsourced. */
export const POUR_TOLERANCE = 0.01
export const toleranceOf = (target_g: number, smallest_g: number): number =>
  Math.max(smallest_g, target_g * POUR_TOLERANCE)

export interface Poured {
  name: string
  wanted_g: number
  poured_g: number
}
/**
 * What is in a pot after its fillings: before each later one, so much was left of what was in it, of all parts alike.
 * Grams by name.
 */
export function contentsOf(
  fillings: readonly { left_g: number | null; lines: readonly { name: string; g: number }[] }[],
): { name: string; g: number }[] {
  const inIt = new Map<string, number>()
  for (const { left_g, lines } of fillings) {
    const total = [...inIt.values()].reduce((s, g) => s + g, 0)
    if (left_g !== null && total > 0) for (const [name, g] of inIt) inIt.set(name, (g * left_g) / total)
    for (const l of lines) inIt.set(l.name, (inIt.get(l.name) ?? 0) + l.g)
  }
  return [...inIt].map(([name, g]) => ({ name, g }))
}

export interface Rest {
  /** the whole batch grows by this */ factor: number
  lines: { name: string; wanted_g: number; add_g: number }[]
  total_g: number
}

/**
 * What brings a pot with too much of something to its shares again: all others grow with it. Factor 1 where nothing is
 * over.
 */
export function scaledUp(lines: readonly Poured[], tolerance: (target_g: number) => number): Rest {
  const factor = Math.max(
    1,
    ...lines.filter(l => l.poured_g > l.wanted_g + tolerance(l.wanted_g)).map(l => l.poured_g / l.wanted_g),
  )
  const grown = lines.map(l => ({
    name: l.name,
    wanted_g: l.wanted_g * factor,
    add_g: Math.max(0, l.wanted_g * factor - l.poured_g),
  }))
  return { factor, lines: grown, total_g: grown.reduce((s, l) => s + l.wanted_g, 0) }
}
