/** Least squares of few unknowns between nought and a limit: Levenberg–Marquardt with the limits kept by projection. */

export interface Problem {
  /** as many unknowns as limits */
  most: readonly number[]
  /** how many residuals `residuals` writes */
  size: number
  residuals: (x: Float64Array, out: Float64Array) => void
  /** brings a try back to what is allowed, beyond the limits (a sum, say) */
  hold?: (x: Float64Array) => void
}
export interface Fit {
  x: Float64Array
  cost: number
}

const ROUNDS = 40
const STEP = 1e-4
const squares = (r: Float64Array) => {
  let sum = 0
  for (let i = 0; i < r.length; i++) sum += r[i]! * r[i]!
  return sum
}

/** Solves a small symmetric system in place by elimination with pivots; false where it has no solution. */
export function solveInPlace(a: Float64Array, b: Float64Array, n: number): boolean {
  for (let c = 0; c < n; c++) {
    let pivot = c
    for (let r = c + 1; r < n; r++) if (Math.abs(a[r * n + c]!) > Math.abs(a[pivot * n + c]!)) pivot = r
    if (Math.abs(a[pivot * n + c]!) < 1e-14) return false
    if (pivot !== c) {
      for (let k = c; k < n; k++) {
        const t = a[c * n + k]!
        a[c * n + k] = a[pivot * n + k]!
        a[pivot * n + k] = t
      }
      const t = b[c]!
      b[c] = b[pivot]!
      b[pivot] = t
    }
    for (let r = c + 1; r < n; r++) {
      const f = a[r * n + c]! / a[c * n + c]!
      if (f === 0) continue
      for (let k = c; k < n; k++) a[r * n + k]! -= f * a[c * n + k]!
      b[r]! -= f * b[c]!
    }
  }
  for (let r = n - 1; r >= 0; r--) {
    let sum = b[r]!
    for (let k = r + 1; k < n; k++) sum -= a[r * n + k]! * b[k]!
    b[r] = sum / a[r * n + r]!
  }
  return true
}

/**
 * The least sum of squares from `start`; unknowns stay from 0 to `most`. Slopes are taken by small steps inside the
 * limits, and an unknown that presses against a limit rests there until it wants to leave.
 */
export function fitBounded({ most, size, residuals, hold }: Problem, start: readonly number[]): Fit {
  const n = most.length
  const x = Float64Array.from(start)
  const keep = (v: Float64Array) => {
    for (let j = 0; j < n; j++) v[j] = Math.min(most[j]!, Math.max(0, v[j]!))
    hold?.(v)
  }
  keep(x)
  const r = new Float64Array(size)
  const moved = new Float64Array(size)
  const tryAt = new Float64Array(n)
  const J = new Float64Array(size * n)
  const A = new Float64Array(n * n)
  const g = new Float64Array(n)
  residuals(x, r)
  let cost = squares(r)
  let damping = 1e-3
  for (let round = 0; round < ROUNDS && cost > 1e-12; round++) {
    for (let j = 0; j < n; j++) {
      const h = most[j]! * STEP * (x[j]! + most[j]! * STEP > most[j]! ? -1 : 1)
      tryAt.set(x)
      tryAt[j]! += h
      residuals(tryAt, moved)
      for (let i = 0; i < size; i++) J[i * n + j] = (moved[i]! - r[i]!) / h
    }
    const slope = Array.from({ length: n }, (_, j) => {
      let s = 0
      for (let i = 0; i < size; i++) s += J[i * n + j]! * r[i]!
      return s
    })
    const free = slope.map((s, j) => !(x[j] === 0 && s > 0) && !(x[j] === most[j] && s < 0))
    if (!free.some(Boolean)) break
    let better = false
    for (let again = 0; again < 8; again++) {
      for (let j = 0; j < n; j++) {
        for (let k = 0; k < n; k++) {
          let sum = 0
          if (free[j] && free[k]) for (let i = 0; i < size; i++) sum += J[i * n + j]! * J[i * n + k]!
          A[j * n + k] = j === k && !free[j] ? 1 : sum
        }
        A[j * n + j]! += damping * (A[j * n + j]! + 1e-9)
        g[j] = free[j] ? -slope[j]! : 0
      }
      if (!solveInPlace(A, g, n)) break
      for (let j = 0; j < n; j++) tryAt[j] = x[j]! + g[j]!
      keep(tryAt)
      residuals(tryAt, moved)
      const next = squares(moved)
      if (next < cost) {
        better = cost - next > 1e-9 * cost
        cost = next
        x.set(tryAt)
        r.set(moved)
        damping = Math.max(1e-9, damping / 5)
        break
      }
      damping *= 6
    }
    if (!better) break
  }
  return { x, cost }
}
