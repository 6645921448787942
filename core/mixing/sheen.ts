/**
 * Sheen by gloss units at 60° (ASTM D523, ISO 2813), and a maker's table of flatting. No law is claimed: a test card
 * of the batch decides.
 */

/** MPI gloss levels (from memory); ranges overlap and leave gaps. */
export const GLOSS_LEVELS = [
  { level: 'G1', from: 0, to: 5 },
  { level: 'G3', from: 10, to: 25 },
  { level: 'G4', from: 20, to: 35 },
  { level: 'G5', from: 35, to: 70 },
  { level: 'G6', from: 70, to: 85 },
  { level: 'G7', from: 85, to: 100 },
] as const
export const levelsOf = (gloss: number): string[] =>
  GLOSS_LEVELS.filter(l => gloss >= l.from && gloss <= l.to).map(l => l.level)

/** A line of a maker's table: percent of flatting (of what, the table says) and the gloss it gives. */
export interface FlattingPoint {
  pct: number
  gloss: number
}

/**
 * Percent of flatting for a wanted gloss, between the lines of the maker's table; null outside of it: the table says
 * nothing there.
 * @throws RangeError for a table of fewer than two lines, or where more flatting does not make it duller.
 */
export function flattingFor(table: readonly FlattingPoint[], gloss: number): number | null {
  const points = [...table].sort((a, b) => a.pct - b.pct)
  if (points.length < 2) throw new RangeError('A table of flatting needs two lines at least.')
  for (const [i, p] of points.slice(1).entries())
    if (p.gloss >= points[i]!.gloss || p.pct === points[i]!.pct)
      throw new RangeError(`More flatting must be duller: see ${points[i]!.pct} % and ${p.pct} %.`)
  for (const [i, b] of points.slice(1).entries()) {
    const a = points[i]!
    if (gloss <= a.gloss && gloss >= b.gloss) return a.pct + ((a.gloss - gloss) / (a.gloss - b.gloss)) * (b.pct - a.pct)
  }
  return null
}
