import { solveInPlace } from './fit'

const TOLERANCE = 1e-10

/**
 * Non-negative least squares: x ≥ 0 that makes |X·x − y| least, for few unknowns. The active set method of Lawson and
 * Hanson 1974 on the normal equations, with a tolerance relative to the data so that rounding cannot make it circle.
 */
export function nonNegative(X: readonly (readonly number[])[], y: readonly number[]): number[] {
  const n = X[0]?.length ?? 0
  const G = Array.from({ length: n }, (_, j) =>
    Array.from({ length: n }, (_, k) => X.reduce((s, row) => s + row[j]! * row[k]!, 0)),
  )
  const g = Array.from({ length: n }, (_, j) => X.reduce((s, row, r) => s + row[j]! * y[r]!, 0))
  const scale = Math.max(...g.map(Math.abs), 1e-300)
  let x = g.map(() => 0)
  const taken = new Set<number>()
  const refused = new Set<number>()
  for (let round = 0; round < 10 * n + 10; round++) {
    const pull = g.map((v, j) => v - G[j]!.reduce((s, c, k) => s + c * x[k]!, 0))
    const next = pull.reduce(
      (best, w, j) =>
        !taken.has(j) && !refused.has(j) && w > TOLERANCE * scale && (best < 0 || w > pull[best]!) ? j : best,
      -1,
    )
    if (next < 0) return x
    taken.add(next)
    for (;;) {
      const set = [...taken]
      const z = solved(G, g, set)
      if (!z) {
        taken.delete(next)
        refused.add(next)
        break
      }
      if (z.every(v => v > 0)) {
        x = x.map((_, j) => (taken.has(j) ? z[set.indexOf(j)]! : 0))
        refused.clear()
        break
      }
      const step = Math.min(
        ...set.map((j, i) => (z[i]! > 0 ? Infinity : x[j]! / (x[j]! - z[i]!))).filter(s => s >= 0),
        1,
      )
      for (const [i, j] of set.entries()) x[j] = x[j]! + step * (z[i]! - x[j]!)
      for (const [i, j] of set.entries())
        if (z[i]! <= 0 && x[j]! <= TOLERANCE * Math.abs(z[i]!)) {
          x[j] = 0
          taken.delete(j)
          if (j === next) refused.add(j)
        }
      if (taken.size === 0) break
    }
  }
  return x
}

function solved(G: readonly (readonly number[])[], g: readonly number[], set: readonly number[]): number[] | null {
  const a = Float64Array.from(set.flatMap(j => set.map(k => G[j]![k]!)))
  const b = Float64Array.from(set, j => g[j]!)
  return solveInPlace(a, b, set.length) ? [...b] : null
}
